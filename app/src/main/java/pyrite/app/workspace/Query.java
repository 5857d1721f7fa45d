package pyrite.app.workspace;

import java.net.URLDecoder;
import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.Objects;
import java.util.Optional;
import org.springframework.util.MultiValueMap;
import org.springframework.web.util.UriComponentsBuilder;

/** The decoded query part of an address. */
public final class Query {
    private final MultiValueMap<String, String> values;

    private Query(MultiValueMap<String, String> values) {
        this.values = values;
    }

    /** @throws IllegalArgumentException if the text is no query */
    public static Query parse(String text) {
        return new Query(UriComponentsBuilder.newInstance().query(text).build().getQueryParams());
    }

    public List<String> all(String name) {
        return values.getOrDefault(name, List.of()).stream()
                .filter(Objects::nonNull)
                .map(value -> URLDecoder.decode(value, StandardCharsets.UTF_8))
                .toList();
    }

    public Optional<String> find(String name) {
        return all(name).stream().findFirst();
    }

    /** The first of a name, empty if there is none. */
    public String first(String name) {
        return find(name).orElse("");
    }
}
