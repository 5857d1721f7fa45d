package pyrite.app.security;

import jakarta.servlet.FilterChain;
import jakarta.servlet.ServletException;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import org.springframework.web.filter.OncePerRequestFilter;

/** Turns away whoever signs in from an address from which too many attempts failed, before a password is looked at. */
class CrowdFilter extends OncePerRequestFilter {
    private final SignInGuard guard;

    CrowdFilter(SignInGuard guard) {
        this.guard = guard;
    }

    @Override
    protected boolean shouldNotFilter(HttpServletRequest request) {
        return !request.getMethod().equals("POST") || !request.getServletPath().equals("/sign-in");
    }

    @Override
    protected void doFilterInternal(HttpServletRequest request, HttpServletResponse response, FilterChain chain)
            throws ServletException, IOException {
        if (guard.isCrowded(request.getRemoteAddr())) {
            response.sendRedirect("/sign-in?crowded");
        } else {
            chain.doFilter(request, response);
        }
    }
}
