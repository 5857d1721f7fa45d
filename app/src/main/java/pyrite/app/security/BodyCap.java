package pyrite.app.security;

import jakarta.servlet.FilterChain;
import jakarta.servlet.ServletException;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import org.springframework.core.Ordered;
import org.springframework.core.annotation.Order;
import org.springframework.http.HttpStatus;
import org.springframework.stereotype.Component;
import org.springframework.web.filter.OncePerRequestFilter;

/**
 * Rejects a request with a body larger than any legitimate one before it is read, and a request that does not state its
 * size.
 */
@Component
@Order(Ordered.HIGHEST_PRECEDENCE)
class BodyCap extends OncePerRequestFilter {
    static final long LARGEST = 16L << 20;

    @Override
    protected void doFilterInternal(HttpServletRequest request, HttpServletResponse response, FilterChain chain)
            throws ServletException, IOException {
        if (request.getContentLengthLong() > LARGEST) {
            ProblemAnswer.write(
                    response,
                    HttpStatus.CONTENT_TOO_LARGE,
                    "a request has at most " + (LARGEST >> 20) + " MiB, but this has "
                            + (request.getContentLengthLong() >> 20));
        } else if (request.getHeader("Transfer-Encoding") != null) {
            ProblemAnswer.write(response, HttpStatus.LENGTH_REQUIRED, "say how long the body is: Content-Length");
        } else {
            chain.doFilter(request, response);
        }
    }
}
