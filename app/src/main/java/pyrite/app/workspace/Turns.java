package pyrite.app.workspace;

import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.util.Map;
import java.util.Objects;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.Semaphore;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.atomic.AtomicInteger;
import org.jspecify.annotations.Nullable;
import org.springframework.http.HttpStatus;
import org.springframework.web.method.HandlerMethod;
import org.springframework.web.servlet.HandlerInterceptor;
import pyrite.app.security.ProblemAnswer;

/**
 * Lets requests of one person that are {@link Costly} take turns, so that nobody takes more than one processor from the
 * others. A few wait; more are refused, for each that waits holds a thread.
 */
final class Turns implements HandlerInterceptor {
    static final int MOST_WAITING = 8;

    private static final long LONGEST_WAIT_S = 120;
    private static final String TAKEN = Turns.class.getName();

    private final Map<String, Turn> byPerson = new ConcurrentHashMap<>();

    private static final class Turn {
        private final Semaphore one = new Semaphore(1, true);
        private final AtomicInteger present = new AtomicInteger();
    }

    @Override
    public boolean preHandle(HttpServletRequest request, HttpServletResponse response, Object handler)
            throws IOException {
        if (!(handler instanceof HandlerMethod method)
                || !method.hasMethodAnnotation(Costly.class)
                || request.getUserPrincipal() == null) {
            return true;
        }
        Turn turn = byPerson.computeIfAbsent(request.getUserPrincipal().getName(), _ -> new Turn());
        if (turn.present.incrementAndGet() <= MOST_WAITING + 1 && taken(turn)) {
            request.setAttribute(TAKEN, turn);
            return true;
        }
        turn.present.decrementAndGet();
        refuse(response);
        return false;
    }

    private static boolean taken(Turn turn) {
        try {
            return turn.one.tryAcquire(LONGEST_WAIT_S, TimeUnit.SECONDS);
        } catch (InterruptedException _) {
            Thread.currentThread().interrupt();
            return false;
        }
    }

    private static void refuse(HttpServletResponse response) throws IOException {
        response.setHeader("Retry-After", "5");
        ProblemAnswer.write(
                response,
                HttpStatus.TOO_MANY_REQUESTS,
                "you have asked for more that takes long than is done at a time; ask again when it has come");
    }

    @Override
    public void afterCompletion(
            HttpServletRequest request, HttpServletResponse response, Object handler, @Nullable Exception fault) {
        if (request.getAttribute(TAKEN) != null) {
            Turn turn = (Turn) Objects.requireNonNull(request.getAttribute(TAKEN));
            request.removeAttribute(TAKEN);
            turn.one.release();
            turn.present.decrementAndGet();
        }
    }
}
