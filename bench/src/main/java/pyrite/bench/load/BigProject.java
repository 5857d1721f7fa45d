package pyrite.bench.load;

import java.io.IOException;
import java.net.http.HttpResponse;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/**
 * A project of about 100,000 elements: 3,000 requirements, of which 1,500 are satisfied, 2,400 parts and four cases.
 */
final class BigProject {
    private static final int REQUIREMENTS = 3000;
    private static final int SATISFIED = 1500;
    private static final int DEFINITIONS = 2400;
    private static final int ATTRIBUTES = 32;
    private static final int AT_ONCE = 300;

    private final SignedIn lead;
    private final String api;

    private BigProject(SignedIn lead, String api) {
        this.lead = lead;
        this.api = api;
    }

    /** Makes it by the API and says where its pages are. */
    static String make(SignedIn lead) throws IOException, InterruptedException {
        JsonNode project = JsonMapper.builder()
                .build()
                .readTree(ok(lead.post("/api/projects", Map.of("name", "Load"))).body());
        String id = project.get("@id").asString();
        String branch =
                lead.json("/api/projects/" + id + "/branches").get(0).get("@id").asString();
        new BigProject(lead, "/api/projects/" + id + "/branches/" + branch).fill();
        return "/p/load/main";
    }

    private void fill() throws IOException, InterruptedException {
        write(requirements());
        for (int from = 0; from < DEFINITIONS; from += AT_ONCE) {
            write(parts(from, Math.min(DEFINITIONS, from + AT_ONCE)));
        }
        write(cases());
    }

    private void write(String text) throws IOException, InterruptedException {
        ok(lead.post(api + "/notation", Map.of("text", text)));
    }

    private static HttpResponse<String> ok(HttpResponse<String> answer) throws IOException {
        if (answer.statusCode() >= 300) {
            throw new IOException(answer.statusCode() + " " + answer.body());
        }
        return answer;
    }

    private static String requirements() {
        StringBuilder text = new StringBuilder("""
                package LoadRequirements {
                    private import ScalarValues::*; private import ISQ::*; private import SI::*;
                    private import Specifications::*; private import VerificationCases::*; private import Dynamics::*;
                    @Specification { prefix = "LD"; level = "system"; }
                    part def Tank {
                        attribute level : LengthValue := 10 [m];
                        attribute mass : MassValue = 20 [kg];
                        assert constraint balance { der(level) == -level / 50 [s] }
                    }
                    part tank : Tank;
                """);
        for (int i = 1; i <= REQUIREMENTS; i++) {
            text.append(i % 100 == 1 ? "package Chapter" + (i / 100 + 1) + " {\n" : "")
                    .append(requirement(i))
                    .append(i % 100 == 0 ? "}\n" : "");
        }
        for (int i = 1; i <= SATISFIED; i++) {
            text.append("satisfy Chapter" + ((i - 1) / 100 + 1) + "::need" + i + " by tank;\n");
        }
        return text.append('}').toString();
    }

    private static String requirement(int i) {
        String condition =
                i % 3 == 0 ? "always(tank.level >= " + i % 7 + " [m])" : "tank.mass <= " + (15 + i % 10) + " [kg]";
        return "requirement <'LD-" + i + "'> need" + i + " { doc /* The tank shall do what number " + i
                + " says within 10 minutes of the warning, in rain and in frost. */ "
                + "@Managed { status = Status::draft; priority = Priority::must; "
                + "method = VerificationMethodKind::test; } subject tank : Tank; require constraint { " + condition
                + " } }\n";
    }

    private static String parts(int from, int to) {
        StringBuilder text = new StringBuilder("package Parts" + from + " { private import ScalarValues::*;\n");
        for (int i = from; i < to; i++) {
            text.append("part def Part").append(i).append(" {");
            for (int j = 0; j < ATTRIBUTES; j++) {
                text.append(" attribute a")
                        .append(j)
                        .append(" : Real = ")
                        .append(j)
                        .append(';');
            }
            text.append(" }\n");
        }
        return text.append('}').toString();
    }

    private static String cases() {
        List<String> cases = new ArrayList<>();
        for (int i = 1; i <= 4; i++) {
            StringBuilder verified = new StringBuilder();
            for (int j = 3 * i; j <= SATISFIED; j += 60) {
                verified.append(" verify need").append(j).append(';');
            }
            cases.add("verification drains" + i
                    + " : SimulatedCheck { subject :>> system = tank; attribute :>> stopTime = " + 100 * i
                    + " [s]; objective {" + verified + " } }");
        }
        return "package LoadCases { private import LoadRequirements::**; private import SI::*; "
                + "private import Dynamics::*;\n" + String.join("\n", cases) + "\n}";
    }
}
