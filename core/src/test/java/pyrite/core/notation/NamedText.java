package pyrite.core.notation;

import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.util.Arrays;
import java.util.List;
import java.util.Objects;

/** A text of a resource that holds many, each behind a line {@code ### name}. */
record NamedText(String name, String text) {
    private static final String HEAD = "### ";

    static List<NamedText> all(String resource) throws IOException {
        try (InputStream in = Objects.requireNonNull(NamedText.class.getResourceAsStream(resource), resource)) {
            String whole = new String(in.readAllBytes(), StandardCharsets.UTF_8);
            return Arrays.stream(whole.split("(?m)^" + HEAD))
                    .filter(each -> !each.isBlank())
                    .map(each -> new NamedText(
                            each.substring(0, each.indexOf('\n')).strip(), each.substring(each.indexOf('\n') + 1)))
                    .toList();
        }
    }

    @Override
    public String toString() {
        return name;
    }
}
