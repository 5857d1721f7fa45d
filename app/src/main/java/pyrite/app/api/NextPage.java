package pyrite.app.api;

import jakarta.servlet.http.HttpServletRequest;
import java.util.List;
import org.springframework.http.HttpHeaders;
import org.springframework.http.ResponseEntity;
import org.springframework.web.servlet.support.ServletUriComponentsBuilder;

/** Answers with a page and the address of the next one in the Link header (RFC 8288). */
final class NextPage {
    private NextPage() {}

    static <T> ResponseEntity<List<T>> after(List<T> page, Object last, int size, HttpServletRequest request) {
        String next = ServletUriComponentsBuilder.fromRequest(request)
                .replaceQueryParam("page[after]", last)
                .replaceQueryParam("page[size]", size)
                .encode()
                .toUriString();
        return ResponseEntity.ok()
                .header(HttpHeaders.LINK, "<" + next + ">; rel=\"next\"")
                .body(page);
    }
}
