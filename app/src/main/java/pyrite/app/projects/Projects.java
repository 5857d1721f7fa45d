package pyrite.app.projects;

import java.text.Normalizer;
import java.util.Locale;
import org.springframework.stereotype.Service;
import pyrite.app.security.Audit;
import pyrite.app.store.Branch;
import pyrite.app.store.BranchStore;
import pyrite.app.store.Person;

/** Creates projects, each with one branch. */
@Service
public class Projects {
    private static final int LONGEST_NAME = 120;
    private static final int LONGEST_SLUG = 40;

    private final BranchStore branches;
    private final Audit audit;

    Projects(BranchStore branches, Audit audit) {
        this.branches = branches;
        this.audit = audit;
    }

    /** @throws IllegalArgumentException if the name is empty or too long, with what would be right */
    public Branch begin(Person person, String name) {
        String requested = name.strip();
        if (requested.isEmpty() || requested.length() > LONGEST_NAME) {
            throw new IllegalArgumentException("a project's name has 1 to " + LONGEST_NAME + " characters");
        }
        Branch branch = branches.create(freeSlug(requested), requested, "main", "main");
        audit.note(person.signIn(), "began project", requested);
        return branch;
    }

    /** The name as it can stand in an address, with a number behind it if another project has it already. */
    private String freeSlug(String name) {
        String plain = Normalizer.normalize(name, Normalizer.Form.NFD)
                .replaceAll("\\p{M}", "")
                .toLowerCase(Locale.ROOT)
                .replaceAll("[^a-z0-9]+", "-")
                .replaceAll("^-|-$", "");
        String base = plain.isEmpty() ? "project" : plain.substring(0, Math.min(LONGEST_SLUG, plain.length()));
        String slug = base;
        for (int n = 2; branches.find(slug, "main").isPresent(); n++) {
            slug = base + "-" + n;
        }
        return slug;
    }
}
