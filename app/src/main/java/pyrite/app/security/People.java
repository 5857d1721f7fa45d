package pyrite.app.security;

import java.nio.charset.StandardCharsets;
import java.security.SecureRandom;
import java.util.Base64;
import java.util.List;
import java.util.regex.Pattern;
import org.springframework.context.ApplicationEventPublisher;
import org.springframework.security.core.session.SessionInformation;
import org.springframework.security.core.session.SessionRegistry;
import org.springframework.security.crypto.password.PasswordEncoder;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import pyrite.app.store.Person;
import pyrite.app.store.PersonMapper;

/**
 * People and their roles. A person whose role, status or password changes is signed out everywhere, so that no old
 * right remains in use.
 */
@Service
public class People {
    private static final Pattern SIGN_IN = Pattern.compile("[a-z][a-z0-9.-]{1,39}");
    private static final int SHORTEST_PASSWORD = 10;
    /** BCrypt looks at no more than this. */
    private static final int LONGEST_PASSWORD_BYTES = 72;

    private static final int LONGEST_NAME = 100;

    private final PersonMapper mapper;
    private final PasswordEncoder passwords;
    private final SessionRegistry sessions;
    private final Audit audit;
    private final ApplicationEventPublisher news;

    People(
            PersonMapper mapper,
            PasswordEncoder passwords,
            SessionRegistry sessions,
            Audit audit,
            ApplicationEventPublisher news) {
        this.news = news;
        this.mapper = mapper;
        this.passwords = passwords;
        this.sessions = sessions;
        this.audit = audit;
    }

    /** All sessions of a person have ended, with everything open in them. */
    public record SignedOut(String signIn) {}

    /** A requested change of a person is not possible; the message says what would be. */
    public static final class Refused extends IllegalArgumentException {
        Refused(String message) {
            super(message);
        }
    }

    public List<Person> all() {
        return mapper.all();
    }

    /** Adds somebody and gives the password that was made for them; it is shown this once. */
    @Transactional
    public String add(Person by, String signIn, String name, Person.Role role) {
        String requested = signIn.strip();
        require(
                SIGN_IN.matcher(requested).matches(),
                "a sign-in is 2 to 40 small letters, digits, dots and dashes and begins with a letter, for instance: ines.marl");
        require(
                !name.isBlank() && name.strip().length() <= LONGEST_NAME,
                "a name has 1 to " + LONGEST_NAME + " characters");
        require(mapper.bySignIn(requested).isEmpty(), "somebody signs in as " + requested + " already");
        String password = randomPassword();
        mapper.add(requested, name.strip(), passwords.encode(password), role);
        audit.note(by.signIn(), "added " + role.title(), requested);
        return password;
    }

    /** A password nobody guesses, short enough to be handed on by word of mouth. */
    public static String randomPassword() {
        byte[] bytes = new byte[12];
        new SecureRandom().nextBytes(bytes);
        return Base64.getUrlEncoder().withoutPadding().encodeToString(bytes);
    }

    @Transactional
    public void setRole(Person by, String signIn, Person.Role role) {
        Person person = find(signIn);
        if (person.role() != role) {
            requireAdministratorBeside(person, role == Person.Role.ADMINISTRATOR && person.active());
            mapper.setRoleAndActive(person.id(), role, person.active());
            audit.note(by.signIn(), "made " + role.title(), signIn);
            signOut(person, "");
        }
    }

    @Transactional
    public void setActive(Person by, String signIn, boolean active) {
        Person person = find(signIn);
        if (person.active() != active) {
            requireAdministratorBeside(person, active && person.role() == Person.Role.ADMINISTRATOR);
            mapper.setRoleAndActive(person.id(), person.role(), active);
            audit.note(by.signIn(), active ? "let in again" : "shut out", signIn);
            signOut(person, "");
        }
    }

    /** Gives somebody a new password, which is shown this once. */
    @Transactional
    public String resetPassword(Person by, String signIn) {
        Person person = find(signIn);
        String password = randomPassword();
        mapper.setPassword(person.id(), passwords.encode(password));
        audit.note(by.signIn(), "gave a new password to", signIn);
        signOut(person, "");
        return password;
    }

    /** @param session the one at hand, which goes on */
    @Transactional
    public void changePassword(Person person, String old, String requested, String session) {
        require(passwords.matches(old, find(person.signIn()).passwordHash()), "the present password is another one");
        require(requested.length() >= SHORTEST_PASSWORD, "a password has " + SHORTEST_PASSWORD + " characters or more");
        require(
                requested.getBytes(StandardCharsets.UTF_8).length <= LONGEST_PASSWORD_BYTES,
                "a password has at most " + LONGEST_PASSWORD_BYTES
                        + " characters, fewer if some are not plain letters");
        require(
                !requested.equalsIgnoreCase(person.signIn()) && !requested.equals(old),
                "take a password that is new and not your sign-in");
        mapper.setPassword(person.id(), passwords.encode(requested));
        audit.note(person.signIn(), "changed their password", "");
        signOut(person, session);
    }

    private Person find(String signIn) {
        return mapper.bySignIn(signIn).orElseThrow(() -> new Refused("nobody signs in as " + signIn));
    }

    private void requireAdministratorBeside(Person person, boolean staysOne) {
        boolean another = mapper.all().stream()
                .anyMatch(each -> each.active() && each.isAdministrator() && each.id() != person.id());
        require(staysOne || another, person.name() + " is the only administrator; make another one first");
    }

    private static void require(boolean right, String otherwise) {
        if (!right) {
            throw new Refused(otherwise);
        }
    }

    private void signOut(Person person, String except) {
        sessions.getAllPrincipals().stream()
                .filter(principal -> principal instanceof SignedIn signedIn
                        && signedIn.getUsername().equals(person.signIn()))
                .flatMap(principal -> sessions.getAllSessions(principal, false).stream())
                .filter(session -> !session.getSessionId().equals(except))
                .forEach(SessionInformation::expireNow);
        news.publishEvent(new SignedOut(person.signIn()));
    }
}
