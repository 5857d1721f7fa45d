package pyrite.app.workspace;

/** The addresses under which programs call the controllers that serve pages. */
public final class ApiAddress {
    /** A branch, by the UUIDs of its project and of itself. */
    public static final String BRANCH = "/api/projects/{projectId}/branches/{branchId}";
    /** The heading of the API's page under which addresses for texts, files, runs and verdicts stand. */
    public static final String WORK = "4 Text, runs and verdicts";
    /** The same for requirements and links. */
    public static final String TRACING = "5 Requirements and links";

    private ApiAddress() {}
}
