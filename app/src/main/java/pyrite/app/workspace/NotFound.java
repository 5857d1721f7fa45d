package pyrite.app.workspace;

import org.springframework.http.HttpStatus;
import org.springframework.web.bind.annotation.ResponseStatus;

/** What an address names does not exist. */
@ResponseStatus(HttpStatus.NOT_FOUND)
public final class NotFound extends RuntimeException {
    public NotFound(String message) {
        super(message);
    }
}
