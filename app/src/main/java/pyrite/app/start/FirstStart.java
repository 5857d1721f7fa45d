package pyrite.app.start;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.time.InstantSource;
import java.util.List;
import org.springframework.beans.factory.annotation.Value;
import org.springframework.boot.ApplicationArguments;
import org.springframework.boot.ApplicationRunner;
import org.springframework.core.annotation.Order;
import org.springframework.core.io.ClassPathResource;
import org.springframework.security.crypto.password.PasswordEncoder;
import org.springframework.stereotype.Component;
import pyrite.app.security.People;
import pyrite.app.store.BaselineMapper;
import pyrite.app.store.Branch;
import pyrite.app.store.BranchStore;
import pyrite.app.store.Person;
import pyrite.app.store.PersonMapper;
import pyrite.app.workspace.Workspace;
import pyrite.core.notation.Library;
import pyrite.core.notation.NotationReader;
import pyrite.core.notation.ReadResult;
import pyrite.core.notation.Source;

/**
 * Fills an empty data folder: with an administrator whose password is shown once, or for the demo with people and the
 * Merrow project.
 */
@Component
@Order(1)
class FirstStart implements ApplicationRunner {
    private static final List<String> FILES = List.of(
            "rules",
            "needs",
            "requirements",
            "subsystems",
            "gate",
            "components",
            "hydraulics",
            "products",
            "functions",
            "harbour",
            "instruments",
            "verification",
            "behaviour",
            "recordings");
    private static final String DEMO_PASSWORD = "merrow";

    private final PersonMapper people;
    private final BranchStore branches;
    private final Workspace workspace;
    private final PasswordEncoder passwords;
    private final BaselineMapper baselines;
    private final InstantSource clock;
    private final boolean demo;
    private final boolean history;

    /** @param history whether the demo's people have worked on since the model was loaded */
    FirstStart(
            PersonMapper people,
            BranchStore branches,
            Workspace workspace,
            PasswordEncoder passwords,
            BaselineMapper baselines,
            InstantSource clock,
            @Value("${pyrite.demo}") boolean demo,
            @Value("${pyrite.demo-history:true}") boolean history) {
        this.people = people;
        this.branches = branches;
        this.workspace = workspace;
        this.passwords = passwords;
        this.baselines = baselines;
        this.clock = clock;
        this.demo = demo;
        this.history = history;
    }

    @Override
    public void run(ApplicationArguments arguments) {
        if (people.count() > 0) {
            return;
        }
        if (demo) {
            add("ines", "Ines Marl", DEMO_PASSWORD, Person.Role.ENGINEER);
            add("odo", "Odo Brack", DEMO_PASSWORD, Person.Role.LEAD);
            add("tam", "Tam Orrel", DEMO_PASSWORD, Person.Role.VIEWER);
            add("admin", "Administrator", DEMO_PASSWORD, Person.Role.ADMINISTRATOR);
            loadMerrow();
        } else {
            String password = People.randomPassword();
            add("admin", "Administrator", password, Person.Role.ADMINISTRATOR);
            branches.create("project", "First project", "main", "main");
            System.out.println("First start: sign in as admin with the password " + password);
        }
    }

    private void add(String signIn, String name, String password, Person.Role role) {
        people.add(signIn, name, passwords.encode(password), role);
    }

    private void loadMerrow() {
        Branch main = branches.create("merrow", "Merrow surge gate", "main", "main");
        ReadResult reading = NotationReader.read(
                Library.model(),
                FILES.stream().map(name -> example("merrow", name)).toList());
        if (!reading.isGood()) {
            throw new IllegalStateException(
                    "the demo model has errors: " + reading.problems().getFirst());
        }
        Workspace.Commit first = workspace.commit(
                main, 0, reading.edit(), people.bySignIn("odo").orElseThrow(), "Merrow surge gate, first model");
        if (!(first instanceof Workspace.Commit.Saved)) {
            throw new IllegalStateException("the demo model is refused: " + first);
        }
        if (history) {
            new DemoHistory(workspace, people, baselines, clock).write(main);
            new DemoLibrary(workspace, branches, people, baselines, clock).write(main);
        }
    }

    /** A file of the examples that are shipped. */
    static Source example(String folder, String name) {
        ClassPathResource resource = new ClassPathResource("examples/" + folder + "/" + name + ".sysml");
        try {
            return new Source(name + ".sysml", resource.getContentAsString(StandardCharsets.UTF_8));
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }
}
