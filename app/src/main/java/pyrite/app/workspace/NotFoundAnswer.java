package pyrite.app.workspace;

import jakarta.servlet.http.HttpServletRequest;
import java.util.Map;
import org.springframework.http.HttpStatus;
import org.springframework.http.ProblemDetail;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.ControllerAdvice;
import org.springframework.web.bind.annotation.ExceptionHandler;
import org.springframework.web.servlet.ModelAndView;
import pyrite.app.security.ScriptRequests;

/**
 * Answers a request for something that does not exist: a script with a problem document (RFC 9457), a person with a
 * page.
 */
@ControllerAdvice
class NotFoundAnswer {
    @ExceptionHandler(NotFound.class)
    Object answer(NotFound missing, HttpServletRequest request) {
        if (ScriptRequests.asked(request)) {
            return ResponseEntity.of(ProblemDetail.forStatusAndDetail(HttpStatus.NOT_FOUND, missing.getMessage()))
                    .build();
        }
        return new ModelAndView("error", Map.of("status", 404, "missing", missing.getMessage()), HttpStatus.NOT_FOUND);
    }
}
