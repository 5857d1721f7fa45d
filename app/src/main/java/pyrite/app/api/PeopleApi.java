package pyrite.app.api;

import io.swagger.v3.oas.annotations.Operation;
import io.swagger.v3.oas.annotations.tags.Tag;
import jakarta.validation.Valid;
import jakarta.validation.constraints.NotBlank;
import jakarta.validation.constraints.NotNull;
import java.util.List;
import org.jspecify.annotations.Nullable;
import org.springframework.http.HttpStatus;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;
import pyrite.app.security.Audit;
import pyrite.app.security.People;
import pyrite.app.store.AuditMapper;
import pyrite.app.store.Person;
import pyrite.app.workspace.NotFound;

/** Manages people; requires an administrator. People manage their own password and tokens on the account page. */
@RestController
@Tag(name = "6 People")
class PeopleApi {
    private static final int MOST_ENTRIES = 1000;

    private final People people;
    private final Audit audit;

    PeopleApi(People people, Audit audit) {
        this.people = people;
        this.audit = audit;
    }

    /** @param role viewer, engineer, lead or administrator; an inactive person cannot sign in */
    record PersonJson(String signIn, String name, String role, boolean active) {
        static PersonJson of(Person person) {
            return new PersonJson(person.signIn(), person.name(), person.role().title(), person.active());
        }
    }

    record NewPerson(
            @NotBlank String signIn,
            @NotBlank String name,
            @NotNull String role) {}

    /** Properties that are left out stay as they are. */
    record PersonChange(@Nullable String role, @Nullable Boolean active) {}

    /** A password generated for a person; it is shown this once. */
    record Password(String signIn, String password) {}

    @Operation(summary = "Everybody who signs in, or did; takes an administrator")
    @GetMapping("/api/people")
    List<PersonJson> people() {
        return people.all().stream().map(PersonJson::of).toList();
    }

    @Operation(summary = "Add a person; the answer tells the password made for them; takes an administrator")
    @PostMapping("/api/people")
    ResponseEntity<Password> add(Person person, @Valid @RequestBody NewPerson requested) {
        String password =
                people.add(person, requested.signIn(), requested.name(), Person.Role.titled(requested.role()));
        return ResponseEntity.status(HttpStatus.CREATED)
                .body(new Password(requested.signIn().strip(), password));
    }

    @Operation(summary = "Give somebody another role, shut them out or let them in again; takes an administrator")
    @PutMapping("/api/people/{signIn}")
    PersonJson change(Person person, @PathVariable String signIn, @Valid @RequestBody PersonChange requested) {
        find(signIn);
        if (requested.role() != null) {
            people.setRole(person, signIn, Person.Role.titled(requested.role()));
        }
        if (requested.active() != null) {
            people.setActive(person, signIn, requested.active());
        }
        return PersonJson.of(find(signIn));
    }

    @Operation(summary = "Give somebody a new password, which the answer tells; takes an administrator")
    @PostMapping("/api/people/{signIn}/password")
    Password password(Person person, @PathVariable String signIn) {
        return new Password(find(signIn).signIn(), people.resetPassword(person, signIn));
    }

    @Operation(summary = "What happened about signing in, people and projects, newest first; takes an administrator")
    @GetMapping("/api/audit")
    List<AuditMapper.Entry> audit(@RequestParam(defaultValue = "") String who) {
        return audit.newest(who, MOST_ENTRIES);
    }

    private Person find(String signIn) {
        return people.all().stream()
                .filter(person -> person.signIn().equals(signIn))
                .findFirst()
                .orElseThrow(() -> new NotFound("nobody signs in as " + signIn));
    }
}
