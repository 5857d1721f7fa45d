package pyrite.app.security;

import org.springframework.context.event.EventListener;
import org.springframework.security.authentication.AuthenticationServiceException;
import org.springframework.security.authentication.event.AbstractAuthenticationFailureEvent;
import org.springframework.security.authentication.event.InteractiveAuthenticationSuccessEvent;
import org.springframework.security.authentication.event.LogoutSuccessEvent;
import org.springframework.security.core.Authentication;
import org.springframework.security.web.authentication.WebAuthenticationDetails;
import org.springframework.stereotype.Component;

/** Observes every sign-in attempt: counts failures per name and records all of them. */
@Component
class SignInWatch {
    private final SignInGuard guard;
    private final Audit audit;

    SignInWatch(SignInGuard guard, Audit audit) {
        this.guard = guard;
        this.audit = audit;
    }

    @EventListener
    void signedIn(InteractiveAuthenticationSuccessEvent event) {
        guard.succeeded(event.getAuthentication().getName());
        audit.note(event.getAuthentication().getName(), "signed in", "");
    }

    @EventListener
    void failed(AbstractAuthenticationFailureEvent event) {
        if (event.getException() instanceof AuthenticationServiceException) {
            // Nobody's fault but that of the store.
            return;
        }
        String name = event.getAuthentication().getName();
        boolean locked = guard.isLocked(name);
        guard.failed(name, address(event.getAuthentication()));
        audit.note(
                name,
                locked ? "was kept out" : guard.isLocked(name) ? "failed and was locked out" : "failed to sign in",
                "");
    }

    private static String address(Authentication attempt) {
        return attempt.getDetails() instanceof WebAuthenticationDetails details ? details.getRemoteAddress() : "";
    }

    @EventListener
    void signedOut(LogoutSuccessEvent event) {
        audit.note(event.getAuthentication().getName(), "signed out", "");
    }
}
