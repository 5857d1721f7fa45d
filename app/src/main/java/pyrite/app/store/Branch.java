package pyrite.app.store;

/** A branch of a project with the number of its newest revision. */
public record Branch(long id, String projectSlug, String projectName, String slug, String name, int head) {
    /** The address of the branch's pages: {@code /p/merrow/main}. */
    public String address() {
        return "/p/" + projectSlug + "/" + slug;
    }
}
