package pyrite.app.projects;

import java.text.Normalizer;
import java.util.Locale;
import org.springframework.dao.DuplicateKeyException;
import org.springframework.stereotype.Service;
import pyrite.app.security.Audit;
import pyrite.app.store.Branch;
import pyrite.app.store.BranchStore;
import pyrite.app.store.Person;
import pyrite.core.model.TextRules;

/** Creates projects, each with one branch. */
@Service
public class Projects {
    private static final int LONGEST_NAME = 120;
    private static final int LONGEST_SLUG = 40;
    private static final int MOST_TRIES = 50;

    private final BranchStore branches;
    private final Audit audit;

    Projects(BranchStore branches, Audit audit) {
        this.branches = branches;
        this.audit = audit;
    }

    /** @throws IllegalArgumentException if the name is empty or too long, with what would be right */
    public Branch begin(Person person, String name) {
        String requested = name.strip();
        if (requested.isEmpty()
                || requested.length() > LONGEST_NAME
                || TextRules.firstForbidden(requested).isPresent()) {
            throw new IllegalArgumentException("a project's name has 1 to " + LONGEST_NAME + " characters");
        }
        Branch branch = create(requested);
        audit.note(person.signIn(), "began project", requested);
        return branch;
    }

    /** Two may begin projects of one name at once; each gets an address of its own. */
    private Branch create(String name) {
        for (int tries = 1; ; tries++) {
            try {
                return branches.create(freeSlug(name), name, "main", "main");
            } catch (DuplicateKeyException taken) {
                if (tries == MOST_TRIES) {
                    throw taken;
                }
            }
        }
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
