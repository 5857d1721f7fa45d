package pyrite.app.security;

import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.util.Map;
import org.springframework.http.HttpStatus;
import org.springframework.http.MediaType;
import tools.jackson.databind.json.JsonMapper;

/** A refusal that is written before a controller is asked: a problem document (RFC 9457) with one sentence. */
public final class ProblemAnswer {
    private static final JsonMapper JSON = JsonMapper.builder().build();

    private ProblemAnswer() {}

    public static void write(HttpServletResponse response, HttpStatus status, String sentence) throws IOException {
        response.setStatus(status.value());
        response.setContentType(MediaType.APPLICATION_PROBLEM_JSON_VALUE);
        response.setCharacterEncoding(StandardCharsets.UTF_8);
        response.getWriter()
                .write(JSON.writeValueAsString(Map.of(
                        "title",
                        status.getReasonPhrase(),
                        "status",
                        status.value(),
                        "detail",
                        sentence,
                        "saved",
                        false,
                        "message",
                        sentence)));
    }
}
