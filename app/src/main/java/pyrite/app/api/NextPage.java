package pyrite.app.api;

import jakarta.servlet.http.HttpServletRequest;
import java.nio.charset.StandardCharsets;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.springframework.http.HttpHeaders;
import org.springframework.http.ResponseEntity;
import org.springframework.web.servlet.support.ServletUriComponentsBuilder;
import org.springframework.web.util.UriUtils;

/** Answers with a page and the address of the next one in the Link header (RFC 8288). */
final class NextPage {
    private NextPage() {}

    /** What else was asked for is asked for again, however the client spelled it. */
    static <T> ResponseEntity<List<T>> after(List<T> page, Object last, int size, HttpServletRequest request) {
        Map<String, String[]> asked = new LinkedHashMap<>(request.getParameterMap());
        asked.put("page[after]", new String[] {last.toString()});
        asked.put("page[size]", new String[] {Integer.toString(size)});
        ServletUriComponentsBuilder next = ServletUriComponentsBuilder.fromRequestUri(request);
        asked.forEach((name, values) -> {
            for (String value : values) {
                next.queryParam(encoded(name), encoded(value));
            }
        });
        return ResponseEntity.ok()
                .header(HttpHeaders.LINK, "<" + next.build(true).toUriString() + ">; rel=\"next\"")
                .body(page);
    }

    private static String encoded(String text) {
        return UriUtils.encode(text, StandardCharsets.UTF_8);
    }
}
