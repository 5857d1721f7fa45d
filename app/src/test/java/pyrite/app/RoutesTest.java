package pyrite.app;

import static org.assertj.core.api.Assertions.assertThat;

import java.net.URI;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.stream.Stream;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.springframework.web.bind.annotation.RequestMethod;
import org.springframework.web.servlet.mvc.method.annotation.RequestMappingHandlerMapping;
import pyrite.app.store.Person.Role;
import pyrite.core.model.Model;

/** Every address the program answers at, asked for by every role: a new one is looked at here without being listed. */
@NewProject
class RoutesTest extends InProject {
    private static final Set<String> OPEN = Set.of("/sign-in", "/error");
    private static final Set<String> STREAMS = Set.of("/events");
    private static final Map<Role, String> PEOPLE =
            Map.of(Role.VIEWER, "tam", Role.ENGINEER, "ines", Role.LEAD, "odo", Role.ADMINISTRATOR, "admin");
    private Model first;

    /** An address with the names in it still to be filled in. */
    private record Route(RequestMethod method, String pattern) {
        String path(Merrow merrow, Model model) {
            return pattern.replace("{project}", "merrow")
                            .replace("{branch}", "main")
                            .replace("{holder}", id(model, "drive"))
                            .replace("{feature}", id(model, "fastSpeed"))
                            .replace("{number}", "1")
                            .replace("{signIn}", "nobody-at-all")
                            .replace(
                                    "{projectId}", merrow.branch().projectUuid().toString())
                            .replace("{branchId}", merrow.branch().uuid().toString())
                            .replace("{commitId}", merrow.commitId(1))
                            .replace("{elementId}", id(model, "closingCheck"))
                            .replace(
                                    "{id}",
                                    pattern.contains("/runs/") || pattern.contains("/tokens/")
                                            ? "1"
                                            : id(model, "closingCheck"))
                            .replace("{key}", "none")
                            .replace("{tagId}", "00000000-0000-4000-8000-000000000001")
                            .replace("{file}", "00000000-0000-4000-8000-000000000000")
                    + query(id(model, "closesInTime"), id(model, "closesOnOnePump"), id(model, "SurgeGate"));
        }

        /** What must be asked for an answer. */
        private String query(String one, String other, String part) {
            return switch (pattern.substring(pattern.lastIndexOf('/') + 1)) {
                case "find" -> "?q=gate";
                case "between" -> "?from=0";
                case "pairing.json" -> "?from=" + one + "&to=" + other;
                case "parts" -> "?of=" + part;
                case "showing.json" -> "?form=GENERAL";
                case "move" -> "?from=00000000-0000-4000-8000-000000000001";
                case "of.json", "ways.json", "links" -> "?element=" + one;
                case "candidates.json", "candidates" -> "?kind=derive&out=false&element=" + one;
                case "between.json" -> "?left=" + one + "&right=" + other;
                case "trace" -> "?set=~need";
                case "one.json" -> "?features=" + one;
                case "matrix.json", "matrix" -> "?kind=frame&rows=~requirement&columns=~need";
                case "export.csv" -> "?set=~need&rows=~need&columns=~need&kind=frame&of=" + part;
                default -> "";
            };
        }

        private boolean isForAllToSee() {
            return method == RequestMethod.GET && least() == Role.VIEWER;
        }

        /** Whether it asks for something that the demo does not have. */
        private boolean asksForNothing() {
            return pattern.contains("/runs/")
                    || pattern.contains("/bench/")
                    || pattern.contains("{file}")
                    || pattern.contains("{tagId}")
                    || pattern.endsWith("/views/{id}")
                    || pattern.endsWith("/drawing/{id}")
                    || pattern.endsWith("/use/{key}")
                    || pattern.endsWith("/inside")
                    || pattern.endsWith("/context")
                    || pattern.endsWith("/flow")
                    || pattern.endsWith("/states")
                    || pattern.endsWith("/sequence")
                    || pattern.contains("/sequence/")
                    || pattern.endsWith("/says.json")
                    || pattern.endsWith("/element/{id}/exchanges")
                    || pattern.endsWith("/story")
                    || pattern.endsWith("/story.json")
                    || pattern.endsWith("/turning.json")
                    || pattern.endsWith("/flows.json")
                    || pattern.endsWith("/one.json")
                    || pattern.endsWith("/paths/{id}/choices.json")
                    || pattern.endsWith("/libraries/move")
                    || pattern.endsWith("/pairs")
                    || pattern.endsWith("/element/{id}/candidates");
        }

        private static String id(Model model, String name) {
            return model.ownElements().stream()
                    .filter(e -> name.equals(e.name()))
                    .findFirst()
                    .orElseThrow()
                    .id()
                    .toString();
        }

        /**
         * Who may at least: looking and one's own account for all, changing for engineers, projects for leads, people
         * for administrators.
         */
        Role least() {
            if (pattern.matches("(/api)?/(people|audit).*")
                    || pattern.contains("/rules") && method != RequestMethod.GET) {
                return Role.ADMINISTRATOR;
            }
            boolean looks = method == RequestMethod.GET
                    || pattern.startsWith("/account")
                    || pattern.endsWith("/notation/check")
                    || pattern.endsWith("/notation/meaning")
                    || pattern.endsWith("/drawing.json")
                    || pattern.endsWith("/query-results");
            boolean begins = pattern.equals("/projects") || pattern.equals("/api/projects");
            return looks ? Role.VIEWER : begins ? Role.LEAD : Role.ENGINEER;
        }
    }

    @BeforeEach
    void start() {
        first = merrow.head().model();
    }

    private List<Route> routes() {
        List<Route> routes = merrow
                .bean("requestMappingHandlerMapping", RequestMappingHandlerMapping.class)
                .getHandlerMethods()
                .keySet()
                .stream()
                .flatMap(info -> info.getPatternValues().stream()
                        .flatMap(pattern -> methods(info.getMethodsCondition().getMethods())
                                .map(method -> new Route(method, pattern))))
                .filter(route -> !OPEN.contains(route.pattern()) && !STREAMS.contains(route.pattern()))
                .sorted(Comparator.comparing(route -> route.method() != RequestMethod.GET))
                .toList();
        assertThat(routes).hasSizeGreaterThan(40);
        return routes;
    }

    private static Stream<RequestMethod> methods(Set<RequestMethod> declared) {
        return declared.isEmpty() ? Stream.of(RequestMethod.GET, RequestMethod.POST) : declared.stream();
    }

    private int status(Session session, Route route, String token) throws Exception {
        String path = route.path(merrow, first);
        return route.method() == RequestMethod.GET
                ? session.get(path).statusCode()
                : session.post(path, "application/json", "{\"text\":\"x\",\"base\":1}", token)
                        .statusCode();
    }

    @Test
    void withoutSigningInEveryPageLeadsToTheSignIn() throws Exception {
        Session nobody = new Session(merrow.address());
        for (Route route : routes()) {
            if (route.method() == RequestMethod.GET) {
                var answer = nobody.get(route.path(merrow, first));
                assertThat(answer.statusCode() == 401 || answer.uri().equals(URI.create(merrow.address() + "/sign-in")))
                        .as(route.pattern() + " gave " + answer.statusCode())
                        .isTrue();
                assertThat(answer.body()).as(route.pattern()).doesNotContain("Merrow surge gate");
            }
        }
    }

    @Test
    void withoutSigningInNothingIsTakenIn() throws Exception {
        Session nobody = new Session(merrow.address());
        String token = nobody.token("/sign-in");
        for (Route route : routes()) {
            if (route.method() != RequestMethod.GET) {
                assertThat(status(nobody, route, token)).as(route.toString()).isEqualTo(401);
            }
        }
    }

    @Test
    void everyRoleDoesWhatItMayAndNothingMore() throws Exception {
        for (Role role : Role.values()) {
            // Each finds the demo as it was, for those before have removed some of it.
            openNewProject();
            start();
            Session session = new Session(merrow.address()).signIn(PEOPLE.get(role), "merrow");
            String token = session.token("/p/merrow/main/requirements");
            for (Route route : routes()) {
                boolean may = role.compareTo(route.least()) >= 0;
                if (route.isForAllToSee() && (role == Role.ENGINEER || role == Role.LEAD)) {
                    // What a viewer sees, others see; administrators stand for them.
                    continue;
                }
                int status = status(session, route, token);
                assertThat(status == 403)
                        .as(role + " asks for " + route + " and gets " + status)
                        .isEqualTo(!may);
                assertThat(status).as(role + " asks for " + route).isLessThan(500);
                if (route.method() == RequestMethod.GET && may) {
                    assertThat(status)
                            .as(role + " asks for " + route)
                            .isIn(200, route.asksForNothing() ? 404 : 200, 204);
                }
            }
            if (role == Role.VIEWER) {
                assertThat(merrow.head().number())
                        .as("a viewer leaves the model as it is")
                        .isEqualTo(1);
            }
        }
    }

    @Test
    void theStateOfTheServerIsForAdministrators() throws Exception {
        assertThat(new Session(merrow.address())
                        .signIn("ines", "merrow")
                        .get("/actuator/metrics")
                        .statusCode())
                .isEqualTo(403);
        assertThat(new Session(merrow.address())
                        .signIn("admin", "merrow")
                        .get("/actuator/metrics")
                        .statusCode())
                .isEqualTo(200);
        assertThat(new Session(merrow.address()).get("/actuator/health").body()).contains("UP");
    }
}
