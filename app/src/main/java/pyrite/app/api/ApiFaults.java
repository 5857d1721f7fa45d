package pyrite.app.api;

import org.springframework.core.Ordered;
import org.springframework.core.annotation.Order;
import org.springframework.http.HttpStatus;
import org.springframework.http.ProblemDetail;
import org.springframework.http.converter.HttpMessageNotReadableException;
import org.springframework.web.bind.annotation.ExceptionHandler;
import org.springframework.web.bind.annotation.RestControllerAdvice;
import org.springframework.web.method.annotation.MethodArgumentTypeMismatchException;

/** Answers faulty API requests with a problem document. */
@Order(Ordered.HIGHEST_PRECEDENCE)
@RestControllerAdvice(basePackageClasses = ApiFaults.class)
class ApiFaults {
    @ExceptionHandler(IllegalArgumentException.class)
    ProblemDetail wrong(IllegalArgumentException fault) {
        return ProblemDetail.forStatusAndDetail(HttpStatus.BAD_REQUEST, String.valueOf(fault.getMessage()));
    }

    @ExceptionHandler(MethodArgumentTypeMismatchException.class)
    ProblemDetail mistyped(MethodArgumentTypeMismatchException fault) {
        return ProblemDetail.forStatusAndDetail(
                HttpStatus.BAD_REQUEST,
                "'" + fault.getValue() + "' cannot be the " + fault.getName() + " of an address; ids are UUIDs");
    }

    @ExceptionHandler(HttpMessageNotReadableException.class)
    ProblemDetail unreadable(HttpMessageNotReadableException fault) {
        Throwable cause = fault.getMostSpecificCause();
        return ProblemDetail.forStatusAndDetail(
                HttpStatus.BAD_REQUEST,
                "the body cannot be read: "
                        + String.valueOf(cause.getMessage()).lines().findFirst().orElse(""));
    }
}
