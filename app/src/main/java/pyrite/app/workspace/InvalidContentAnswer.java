package pyrite.app.workspace;

import jakarta.validation.ConstraintViolation;
import java.util.Locale;
import java.util.Map;
import java.util.stream.Collectors;
import org.springframework.core.Ordered;
import org.springframework.core.annotation.Order;
import org.springframework.http.HttpStatus;
import org.springframework.http.ProblemDetail;
import org.springframework.validation.FieldError;
import org.springframework.web.bind.MethodArgumentNotValidException;
import org.springframework.web.bind.annotation.ExceptionHandler;
import org.springframework.web.bind.annotation.RestControllerAdvice;

/** Answers content that is beyond a limit with a sentence that names the limit, to pages and to scripts. */
@RestControllerAdvice
@Order(Ordered.HIGHEST_PRECEDENCE)
class InvalidContentAnswer {
    @ExceptionHandler(MethodArgumentNotValidException.class)
    ProblemDetail invalid(MethodArgumentNotValidException fault) {
        String sentence = fault.getFieldErrors().stream()
                .map(InvalidContentAnswer::sentence)
                .distinct()
                .collect(Collectors.joining("; "));
        ProblemDetail problem = ProblemDetail.forStatusAndDetail(HttpStatus.BAD_REQUEST, sentence);
        problem.setProperty("saved", false);
        problem.setProperty("message", sentence);
        return problem;
    }

    /** {@code 'text' has at most 200,000 characters, but this has 900,000}. */
    private static String sentence(FieldError error) {
        String field = "'" + error.getField() + "'";
        Map<String, Object> limits = error.contains(ConstraintViolation.class)
                ? error.unwrap(ConstraintViolation.class)
                        .getConstraintDescriptor()
                        .getAttributes()
                : Map.of();
        Object given = error.getRejectedValue();
        if (limits.get("max") instanceof Integer most && given instanceof CharSequence text && text.length() > most) {
            return field + " has at most " + counted(most) + " characters, but this has " + counted(text.length());
        }
        return given == null ? field + " is missing" : field + " " + error.getDefaultMessage();
    }

    private static String counted(int number) {
        return String.format(Locale.ROOT, "%,d", number);
    }
}
