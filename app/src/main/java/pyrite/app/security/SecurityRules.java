package pyrite.app.security;

import jakarta.servlet.DispatcherType;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.util.Objects;
import org.springframework.beans.factory.annotation.Value;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;
import org.springframework.core.annotation.Order;
import org.springframework.http.HttpHeaders;
import org.springframework.http.HttpMethod;
import org.springframework.http.HttpStatus;
import org.springframework.security.access.hierarchicalroles.RoleHierarchy;
import org.springframework.security.access.hierarchicalroles.RoleHierarchyImpl;
import org.springframework.security.authentication.AuthenticationServiceException;
import org.springframework.security.config.annotation.web.builders.HttpSecurity;
import org.springframework.security.config.annotation.web.configurers.AuthorizeHttpRequestsConfigurer;
import org.springframework.security.config.annotation.web.configurers.CsrfConfigurer;
import org.springframework.security.config.http.SessionCreationPolicy;
import org.springframework.security.core.AuthenticationException;
import org.springframework.security.core.context.SecurityContextHolder;
import org.springframework.security.core.session.SessionRegistry;
import org.springframework.security.core.session.SessionRegistryImpl;
import org.springframework.security.core.userdetails.UserDetailsService;
import org.springframework.security.core.userdetails.UsernameNotFoundException;
import org.springframework.security.crypto.bcrypt.BCryptPasswordEncoder;
import org.springframework.security.crypto.password.PasswordEncoder;
import org.springframework.security.web.AuthenticationEntryPoint;
import org.springframework.security.web.SecurityFilterChain;
import org.springframework.security.web.access.AccessDeniedHandler;
import org.springframework.security.web.access.AccessDeniedHandlerImpl;
import org.springframework.security.web.access.intercept.AuthorizationFilter;
import org.springframework.security.web.authentication.AuthenticationFailureHandler;
import org.springframework.security.web.authentication.HttpStatusEntryPoint;
import org.springframework.security.web.authentication.LoginUrlAuthenticationEntryPoint;
import org.springframework.security.web.authentication.UsernamePasswordAuthenticationFilter;
import org.springframework.security.web.csrf.CookieCsrfTokenRepository;
import org.springframework.security.web.csrf.CsrfTokenRepository;
import org.springframework.security.web.savedrequest.CookieRequestCache;
import org.springframework.security.web.savedrequest.RequestCache;
import org.springframework.security.web.session.HttpSessionEventPublisher;
import pyrite.app.store.PersonMapper;

/**
 * Everybody signs in, with a password on pages or a token over the API. Signed-in people may read; changing and running
 * requires an engineer, managing people an administrator.
 */
@Configuration
class SecurityRules {
    private static final String POLICY =
            "default-src 'self'; img-src 'self' data:; object-src 'none'; base-uri 'none'; "
                    + "frame-ancestors 'none'; form-action 'self'";

    /** Scripts, by the token that each request carries; nothing is remembered of them between two requests. */
    @Bean
    @Order(1)
    SecurityFilterChain scriptRules(HttpSecurity http, Tokens tokens, UserDetailsService people) throws Exception {
        return http.securityMatcher(TokenFilter::carriesToken)
                // A token that leaked cannot make itself another.
                .authorizeHttpRequests(
                        rules -> authorize(rules.requestMatchers("/account/**").denyAll()))
                .addFilterBefore(
                        new TokenFilter(tokens, people, SecurityRules::refuseScript), AuthorizationFilter.class)
                // A page of somebody else's cannot make a browser send the header that carries a token.
                .csrf(CsrfConfigurer::disable)
                .sessionManagement(management -> management.sessionCreationPolicy(SessionCreationPolicy.STATELESS))
                .exceptionHandling(
                        faults -> faults.authenticationEntryPoint(entry()).accessDeniedHandler(denial()))
                .headers(headers -> headers.contentSecurityPolicy(policy -> policy.policyDirectives(POLICY)))
                .build();
    }

    /** People, by their sessions. */
    @Bean
    @Order(2)
    SecurityFilterChain pageRules(HttpSecurity http, SessionRegistry sessions, SignInGuard guard) throws Exception {
        return http.authorizeHttpRequests(SecurityRules::authorize)
                .csrf(csrf -> csrf.csrfTokenRepository(tokensOfPages()))
                .addFilterBefore(new CrowdFilter(guard), UsernamePasswordAuthenticationFilter.class)
                .formLogin(form ->
                        form.loginPage("/sign-in").defaultSuccessUrl("/").failureHandler(failure(guard)))
                // Signing in leads on to the page somebody asked for, never to what a script of a page asked for.
                .requestCache(cache -> cache.requestCache(pagesOnly()))
                .logout(logout -> logout.logoutUrl("/sign-out").logoutSuccessUrl("/sign-in"))
                .sessionManagement(management -> management
                        .maximumSessions(-1)
                        .sessionRegistry(sessions)
                        .expiredSessionStrategy(expired ->
                                entry().commence(expired.getRequest(), expired.getResponse(), new SignedOut())))
                .exceptionHandling(
                        faults -> faults.authenticationEntryPoint(entry()).accessDeniedHandler(denial()))
                .headers(headers -> headers.contentSecurityPolicy(policy -> policy.policyDirectives(POLICY)))
                .build();
    }

    private static void authorize(
            AuthorizeHttpRequestsConfigurer<HttpSecurity>.AuthorizationManagerRequestMatcherRegistry rules) {
        rules.dispatcherTypeMatchers(DispatcherType.ERROR, DispatcherType.ASYNC)
                .permitAll()
                .requestMatchers(
                        "/sign-in",
                        "/css/**",
                        "/js/**",
                        "/vendor/**",
                        "/fonts/**",
                        "/icons.svg",
                        "/mark.svg",
                        "/actuator/health")
                .permitAll()
                .requestMatchers("/actuator/**", "/people/**", "/audit", "/api/people/**", "/api/audit")
                .hasRole("ADMINISTRATOR")
                .requestMatchers(HttpMethod.GET, "/**")
                .hasRole("VIEWER")
                .requestMatchers(HttpMethod.HEAD, "/**")
                .hasRole("VIEWER")
                .requestMatchers("/account/**", "/sign-out")
                .hasRole("VIEWER")
                .requestMatchers(
                        HttpMethod.POST,
                        "/p/*/*/element/*/notation/check",
                        "/p/*/*/element/*/drawing.json",
                        "/p/*/*/element/*/notation/meaning",
                        "/api/projects/*/query-results",
                        "/api/projects/*/branches/*/elements/*/notation/check")
                .hasRole("VIEWER")
                .requestMatchers("/p/*/*/rules/**", "/api/projects/*/branches/*/rules/**")
                .hasRole("ADMINISTRATOR")
                .requestMatchers(HttpMethod.POST, "/projects", "/api/projects")
                .hasRole("LEAD")
                .anyRequest()
                .hasRole("ENGINEER");
    }

    /** In a cookie: somebody who is not signed in has no session, however many requests come. */
    private static CsrfTokenRepository tokensOfPages() {
        CookieCsrfTokenRepository tokens = new CookieCsrfTokenRepository();
        tokens.setHeaderName("X-CSRF-TOKEN");
        tokens.setCookieName("pyrite-page");
        tokens.setCookieCustomizer(cookie -> cookie.sameSite("Lax"));
        return tokens;
    }

    private static RequestCache pagesOnly() {
        CookieRequestCache pages = new CookieRequestCache();
        pages.setRequestMatcher(request -> request.getMethod().equals("GET") && !ScriptRequests.asked(request));
        return pages;
    }

    private static final class SignedOut extends AuthenticationException {
        SignedOut() {
            super("this session was ended");
        }
    }

    private static AuthenticationFailureHandler failure(SignInGuard guard) {
        return (request, response, fault) -> response.sendRedirect(
                fault instanceof AuthenticationServiceException
                        ? "/sign-in?fault"
                        : guard.isLocked(String.valueOf(request.getParameter("username")))
                                ? "/sign-in?locked"
                                : "/sign-in?wrong");
    }

    private static AuthenticationEntryPoint entry() {
        AuthenticationEntryPoint status = new HttpStatusEntryPoint(HttpStatus.UNAUTHORIZED);
        AuthenticationEntryPoint page = new LoginUrlAuthenticationEntryPoint("/sign-in");
        return (request, response, fault) -> {
            if (isOverApi(request)) {
                refuseScript(request, response, fault);
            } else {
                (ScriptRequests.asked(request) ? status : page).commence(request, response, fault);
            }
        };
    }

    private static boolean isOverApi(HttpServletRequest request) {
        return request.getRequestURI().startsWith("/api/")
                && !request.getRequestURI().startsWith("/api/docs");
    }

    private static void refuseScript(
            HttpServletRequest request, HttpServletResponse response, AuthenticationException fault)
            throws IOException {
        response.setHeader(HttpHeaders.WWW_AUTHENTICATE, "Bearer");
        ProblemAnswer.write(
                response,
                HttpStatus.UNAUTHORIZED,
                TokenFilter.carriesToken(request)
                        ? Objects.requireNonNullElse(fault.getMessage(), "the token is not accepted")
                        : "send a personal access token, which your account page makes: Authorization: Bearer pyr_…");
    }

    private static AccessDeniedHandler denial() {
        AccessDeniedHandler page = new AccessDeniedHandlerImpl();
        return (request, response, fault) -> {
            if (SecurityContextHolder.getContext().getAuthentication() == null) {
                // The token of a page whose session has ended is no good; that is not a matter of roles.
                entry().commence(request, response, new SignedOut());
            } else if (isOverApi(request)) {
                ProblemAnswer.write(response, HttpStatus.FORBIDDEN, "your role may not do this");
            } else {
                page.handle(request, response, fault);
            }
        };
    }

    @Bean
    SessionRegistry sessions() {
        return new SessionRegistryImpl();
    }

    /** Tells the registry of sessions that ended by themselves. */
    @Bean
    HttpSessionEventPublisher sessionEvents() {
        return new HttpSessionEventPublisher();
    }

    @Bean
    RoleHierarchy roles() {
        return RoleHierarchyImpl.withDefaultRolePrefix()
                .role("ADMINISTRATOR")
                .implies("LEAD")
                .role("LEAD")
                .implies("ENGINEER")
                .role("ENGINEER")
                .implies("VIEWER")
                .build();
    }

    @Bean
    PasswordEncoder passwords(@Value("${pyrite.passwords.strength}") int strength) {
        return new BCryptPasswordEncoder(strength);
    }

    @Bean
    UserDetailsService signIns(PersonMapper people, SignInGuard guard) {
        return signIn -> people.bySignIn(signIn)
                .map(person -> new SignedIn(person, guard.isLocked(signIn)))
                .orElseThrow(() -> new UsernameNotFoundException("nobody signs in as " + signIn));
    }
}
