package pyrite.app;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import java.util.stream.Stream;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.springframework.web.bind.annotation.RequestMethod;
import org.springframework.web.servlet.mvc.method.annotation.RequestMappingHandlerMapping;
import pyrite.core.model.Model;

/** Every address the program answers at, asked for by everybody: a new one is looked at here without being listed. */
class RoutesTest {
    private static final Set<String> OPEN = Set.of("/sign-in", "/error");
    private static final Set<String> STREAMS = Set.of("/p/{project}/{branch}/events");
    private Merrow merrow;
    private Model first;

    /** An address with the names in it still to be filled in. */
    private record Route(RequestMethod method, String pattern) {
        String path(Model model) {
            return pattern.replace("{project}", "merrow").replace("{branch}", "main").replace("{holder}", id(model, "drive"))
                    .replace("{feature}", id(model, "fastSpeed")).replace("{number}", "1")
                    .replace("{id}", pattern.contains("/runs/") ? "1" : id(model, "closingCheck"))
                    + (pattern.endsWith("/find") ? "?q=gate" : "");
        }

        private static String id(Model model, String name) {
            return model.ownElements().stream().filter(e -> name.equals(e.name())).findFirst().orElseThrow().id().toString();
        }
    }

    @BeforeEach
    void start() {
        merrow = new Merrow();
        first = merrow.head().model();
    }

    @AfterEach
    void stop() {
        merrow.close();
    }

    private List<Route> routes() {
        return merrow.bean("requestMappingHandlerMapping", RequestMappingHandlerMapping.class).getHandlerMethods().keySet().stream()
                .flatMap(info -> info.getPatternValues().stream().flatMap(pattern -> methods(info.getMethodsCondition().getMethods())
                        .map(method -> new Route(method, pattern))))
                .filter(route -> !OPEN.contains(route.pattern())).toList();
    }

    private static Stream<RequestMethod> methods(Set<RequestMethod> declared) {
        return declared.isEmpty() ? Stream.of(RequestMethod.GET, RequestMethod.POST) : declared.stream();
    }

    private List<String> answers(Session session, RequestMethod method) throws Exception {
        List<String> answers = new ArrayList<>();
        for (Route route : routes()) {
            if (route.method() == method && !STREAMS.contains(route.pattern())) {
                int status = method == RequestMethod.GET ? session.get(route.path(first)).statusCode()
                        : session.edit(route.path(first).replaceFirst("^/p/merrow/main", ""), "x").statusCode();
                answers.add(status + " " + route.pattern());
            }
        }
        assertThat(answers).hasSizeGreaterThan(5);
        return answers;
    }

    private Session as(String name) throws Exception {
        return new Session(merrow.address()).signIn(name, "merrow");
    }

    @Test
    void withoutSigningInEveryPageLeadsToTheSignIn() throws Exception {
        Session nobody = new Session(merrow.address());
        for (Route route : routes()) {
            if (route.method() == RequestMethod.GET) {
                assertThat(nobody.get(route.path(first)).body()).as(route.pattern()).contains("Sign in").doesNotContain("Merrow surge gate");
            }
        }
    }

    @Test
    void withoutSigningInNothingIsTakenIn() throws Exception {
        assertThat(answers(new Session(merrow.address()), RequestMethod.POST)).allMatch(answer -> answer.startsWith("401"));
    }

    @Test
    void aViewerSeesEveryPageThatIsThere() throws Exception {
        assertThat(answers(as("tam"), RequestMethod.GET)).allMatch(answer -> answer.startsWith("200")
                || answer.startsWith("404") && answer.contains("/runs/{id}"));
    }

    @Test
    void aViewerChangesAndStartsNothing() throws Exception {
        int before = merrow.head().number();
        // Having a text checked or a name explained changes nothing.
        assertThat(answers(as("tam"), RequestMethod.POST)).allMatch(answer -> answer.startsWith("403")
                || answer.contains("/notation/check") || answer.contains("/notation/meaning"));
        assertThat(merrow.head().number()).isEqualTo(before);
    }

    @Test
    void anEngineerIsKeptFromNothingButAdministration() throws Exception {
        Session ines = as("ines");
        assertThat(answers(ines, RequestMethod.GET)).noneMatch(answer -> answer.startsWith("403"));
        assertThat(answers(ines, RequestMethod.POST)).noneMatch(answer -> answer.startsWith("403") || answer.startsWith("5"));
        assertThat(ines.get("/actuator/metrics").statusCode()).isEqualTo(403);
        assertThat(as("admin").get("/actuator/metrics").statusCode()).isEqualTo(200);
        assertThat(new Session(merrow.address()).get("/actuator/health").body()).contains("UP");
    }
}
