package pyrite.app.store;

import java.util.UUID;

/** A branch of a project with the number of its newest revision; other programs identify both by UUID. */
public record Branch(
        long id,
        UUID uuid,
        UUID projectUuid,
        String projectSlug,
        String projectName,
        String slug,
        String name,
        int head) {
    /** The address of the branch's pages: {@code /p/merrow/main}. */
    public String address() {
        return "/p/" + projectSlug + "/" + slug;
    }
}
