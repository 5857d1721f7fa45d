package pyrite.app.security;

import jakarta.servlet.FilterChain;
import jakarta.servlet.ServletException;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.util.Optional;
import org.springframework.security.authentication.BadCredentialsException;
import org.springframework.security.authentication.UsernamePasswordAuthenticationToken;
import org.springframework.security.core.context.SecurityContextHolder;
import org.springframework.security.core.context.SecurityContextImpl;
import org.springframework.security.core.userdetails.UserDetails;
import org.springframework.security.core.userdetails.UserDetailsService;
import org.springframework.security.web.AuthenticationEntryPoint;
import org.springframework.web.filter.OncePerRequestFilter;

/** Authenticates a single request by a personal access token (RFC 6750: {@code Authorization: Bearer …}). */
final class TokenFilter extends OncePerRequestFilter {
    private static final String BEARER = "Bearer ";

    private final Tokens tokens;
    private final UserDetailsService people;
    private final AuthenticationEntryPoint refusal;

    TokenFilter(Tokens tokens, UserDetailsService people, AuthenticationEntryPoint refusal) {
        this.tokens = tokens;
        this.people = people;
        this.refusal = refusal;
    }

    static boolean carriesToken(HttpServletRequest request) {
        String header = request.getHeader("Authorization");
        return header != null && header.startsWith(BEARER);
    }

    @Override
    protected void doFilterInternal(HttpServletRequest request, HttpServletResponse response, FilterChain chain)
            throws ServletException, IOException {
        if (carriesToken(request)) {
            Optional<String> holder = tokens.holder(request.getHeader("Authorization")
                    .substring(BEARER.length())
                    .strip());
            if (holder.isEmpty()) {
                refusal.commence(
                        request, response, new BadCredentialsException("this token is nobody's, or no longer good"));
                return;
            }
            UserDetails person = people.loadUserByUsername(holder.get());
            SecurityContextHolder.setContext(new SecurityContextImpl(
                    UsernamePasswordAuthenticationToken.authenticated(person, null, person.getAuthorities())));
        }
        chain.doFilter(request, response);
    }
}
