package pyrite.app.workspace;

import jakarta.servlet.http.HttpServletRequest;
import java.util.Map;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.core.Ordered;
import org.springframework.core.annotation.Order;
import org.springframework.dao.DataAccessResourceFailureException;
import org.springframework.http.HttpStatus;
import org.springframework.http.ProblemDetail;
import org.springframework.http.ResponseEntity;
import org.springframework.jdbc.CannotGetJdbcConnectionException;
import org.springframework.transaction.CannotCreateTransactionException;
import org.springframework.web.bind.annotation.ControllerAdvice;
import org.springframework.web.bind.annotation.ExceptionHandler;
import org.springframework.web.servlet.ModelAndView;
import pyrite.app.security.ScriptRequests;
import pyrite.app.store.StoreGuard;

/** Answers where a limit of the server is met, its disk is full or its database cannot be used. */
@ControllerAdvice
@Order(Ordered.HIGHEST_PRECEDENCE)
class ServerLimitAnswer {
    private static final Logger LOG = LoggerFactory.getLogger(ServerLimitAnswer.class);

    @ExceptionHandler(TooMany.class)
    Object tooMany(TooMany fault, HttpServletRequest request) {
        return answer(HttpStatus.TOO_MANY_REQUESTS, String.valueOf(fault.getMessage()), request);
    }

    @ExceptionHandler(StoreGuard.NoRoom.class)
    Object noRoom(StoreGuard.NoRoom fault, HttpServletRequest request) {
        return answer(HttpStatus.INSUFFICIENT_STORAGE, String.valueOf(fault.getMessage()), request);
    }

    @ExceptionHandler({
        DataAccessResourceFailureException.class,
        CannotGetJdbcConnectionException.class,
        CannotCreateTransactionException.class
    })
    Object closed(RuntimeException fault, HttpServletRequest request) {
        LOG.error("{} {} found the database closed", request.getMethod(), request.getRequestURI(), fault);
        return answer(
                HttpStatus.SERVICE_UNAVAILABLE,
                "the store cannot be reached just now; what was saved is safe, this was not saved; try again in a moment",
                request);
    }

    private static Object answer(HttpStatus status, String sentence, HttpServletRequest request) {
        if (ScriptRequests.asked(request)) {
            ProblemDetail problem = ProblemDetail.forStatusAndDetail(status, sentence);
            problem.setProperty("saved", false);
            problem.setProperty("message", sentence);
            return ResponseEntity.of(problem).build();
        }
        return new ModelAndView("error", Map.of("status", status.value(), "said", sentence), status);
    }
}
