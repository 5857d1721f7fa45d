package pyrite.app.security;

import jakarta.servlet.DispatcherType;
import jakarta.servlet.http.HttpServletRequest;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;
import org.springframework.http.HttpMethod;
import org.springframework.http.HttpStatus;
import org.springframework.security.access.hierarchicalroles.RoleHierarchy;
import org.springframework.security.access.hierarchicalroles.RoleHierarchyImpl;
import org.springframework.security.config.annotation.web.builders.HttpSecurity;
import org.springframework.security.core.userdetails.UserDetailsService;
import org.springframework.security.core.userdetails.UsernameNotFoundException;
import org.springframework.security.crypto.bcrypt.BCryptPasswordEncoder;
import org.springframework.security.crypto.password.PasswordEncoder;
import org.springframework.security.web.AuthenticationEntryPoint;
import org.springframework.security.web.SecurityFilterChain;
import org.springframework.security.web.authentication.HttpStatusEntryPoint;
import org.springframework.security.web.authentication.LoginUrlAuthenticationEntryPoint;
import pyrite.app.store.PersonMapper;

/** Everybody signs in; everybody signed in may look; changing and running takes an engineer. */
@Configuration
class SecurityRules {
    private static final String POLICY = "default-src 'self'; img-src 'self' data:; object-src 'none'; base-uri 'none'; "
            + "frame-ancestors 'none'; form-action 'self'";

    @Bean
    SecurityFilterChain chain(HttpSecurity http) throws Exception {
        return http
                .authorizeHttpRequests(rules -> rules
                        .dispatcherTypeMatchers(DispatcherType.ERROR, DispatcherType.ASYNC).permitAll()
                        .requestMatchers("/sign-in", "/css/**", "/js/**", "/vendor/**", "/fonts/**", "/icons.svg", "/mark.svg",
                                "/actuator/health").permitAll()
                        .requestMatchers(HttpMethod.GET, "/actuator/**").hasRole("ADMINISTRATOR")
                        .requestMatchers(HttpMethod.GET, "/**").hasRole("VIEWER")
                        .requestMatchers(HttpMethod.POST, "/p/*/*/element/*/notation/check", "/p/*/*/element/*/notation/meaning").hasRole("VIEWER")
                        .requestMatchers("/sign-out").authenticated()
                        .anyRequest().hasRole("ENGINEER"))
                .formLogin(form -> form.loginPage("/sign-in").defaultSuccessUrl("/").failureUrl("/sign-in?wrong"))
                .logout(logout -> logout.logoutUrl("/sign-out").logoutSuccessUrl("/sign-in"))
                .exceptionHandling(faults -> faults.authenticationEntryPoint(entry()))
                .headers(headers -> headers.contentSecurityPolicy(policy -> policy.policyDirectives(POLICY)))
                .build();
    }

    private static AuthenticationEntryPoint entry() {
        AuthenticationEntryPoint status = new HttpStatusEntryPoint(HttpStatus.UNAUTHORIZED);
        AuthenticationEntryPoint page = new LoginUrlAuthenticationEntryPoint("/sign-in");
        return (request, response, fault) -> (isFromScript(request) ? status : page).commence(request, response, fault);
    }

    /** Scripts want a status and not a sign-in page. */
    private static boolean isFromScript(HttpServletRequest request) {
        return "fetch".equals(request.getHeader("X-Requested-With"));
    }

    @Bean
    RoleHierarchy roles() {
        return RoleHierarchyImpl.withDefaultRolePrefix().role("ADMINISTRATOR").implies("LEAD").role("LEAD").implies("ENGINEER")
                .role("ENGINEER").implies("VIEWER").build();
    }

    @Bean
    PasswordEncoder passwords() {
        return new BCryptPasswordEncoder();
    }

    @Bean
    UserDetailsService people(PersonMapper people) {
        return signIn -> people.bySignIn(signIn).map(SignedIn::new)
                .orElseThrow(() -> new UsernameNotFoundException("nobody signs in as " + signIn));
    }
}
