package pyrite.app.workspace;

import jakarta.servlet.http.HttpServletRequest;
import java.util.Map;
import java.util.Optional;
import java.util.UUID;
import org.jspecify.annotations.Nullable;
import org.springframework.core.Ordered;
import org.springframework.core.annotation.Order;
import org.springframework.http.HttpStatus;
import org.springframework.http.ProblemDetail;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.ControllerAdvice;
import org.springframework.web.bind.annotation.ExceptionHandler;
import org.springframework.web.method.annotation.MethodArgumentTypeMismatchException;
import org.springframework.web.multipart.MultipartException;
import org.springframework.web.servlet.ModelAndView;
import org.springframework.web.servlet.resource.NoResourceFoundException;
import pyrite.app.security.ScriptRequests;

/**
 * Answers a request for something that does not exist, or whose address or form cannot be read: a script with a problem
 * document (RFC 9457), a person with a page.
 */
@ControllerAdvice
@Order(Ordered.HIGHEST_PRECEDENCE + 1)
class NotFoundAnswer {
    @ExceptionHandler(NotFound.class)
    Object answer(NotFound missing, HttpServletRequest request) {
        return answer(HttpStatus.NOT_FOUND, String.valueOf(missing.getMessage()), request);
    }

    @ExceptionHandler(NoResourceFoundException.class)
    Object answer(NoResourceFoundException mistyped, HttpServletRequest request) {
        return answer(HttpStatus.NOT_FOUND, "there is nothing at " + request.getRequestURI(), request);
    }

    @ExceptionHandler(MethodArgumentTypeMismatchException.class)
    Object answer(MethodArgumentTypeMismatchException mistyped, HttpServletRequest request) {
        return answer(
                HttpStatus.BAD_REQUEST,
                "'" + mistyped.getValue() + "' cannot be the " + mistyped.getName() + " of an address; "
                        + right(mistyped.getRequiredType()) + " stands there",
                request);
    }

    @ExceptionHandler(MultipartException.class)
    Object answer(MultipartException unreadable, HttpServletRequest request) {
        return answer(
                HttpStatus.BAD_REQUEST,
                "the form cannot be read: "
                        + String.valueOf(unreadable.getMostSpecificCause().getMessage()),
                request);
    }

    private static String right(@Nullable Class<?> type) {
        if (type == int.class || type == Integer.class) {
            return "a whole number up to " + Integer.MAX_VALUE;
        }
        if (type == long.class || type == Long.class) {
            return "a whole number";
        }
        if (type == boolean.class || type == Boolean.class) {
            return "true or false";
        }
        return type == UUID.class || type == Optional.class ? "an id, which is a UUID," : "something else";
    }

    private static Object answer(HttpStatus status, String sentence, HttpServletRequest request) {
        if (ScriptRequests.asked(request)) {
            ProblemDetail problem = ProblemDetail.forStatusAndDetail(status, sentence);
            problem.setProperty("message", sentence);
            return ResponseEntity.of(problem).build();
        }
        return new ModelAndView("error", Map.of("status", 404, "missing", sentence), status);
    }
}
