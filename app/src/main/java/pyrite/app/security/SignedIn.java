package pyrite.app.security;

import java.util.List;
import org.springframework.security.core.authority.SimpleGrantedAuthority;
import org.springframework.security.core.userdetails.User;
import pyrite.app.store.Person;

/** The principal of a session: the person it belongs to. */
public final class SignedIn extends User {
    private final transient Person person;

    SignedIn(Person person, boolean locked) {
        super(
                person.signIn(),
                person.passwordHash(),
                person.active(),
                true,
                true,
                !locked,
                List.of(new SimpleGrantedAuthority("ROLE_" + person.role().name())));
        this.person = person;
    }

    public Person person() {
        return person;
    }
}
