package pyrite.app;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.net.http.HttpResponse;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.junit.jupiter.api.Test;
import pyrite.core.model.Element;
import pyrite.core.model.ElementKind;
import pyrite.core.model.Model;
import pyrite.core.model.Property;
import pyrite.core.specification.Specification;
import pyrite.core.trace.LinkKind;
import pyrite.core.trace.LinkRules;
import tools.jackson.databind.json.JsonMapper;

/**
 * What comes of the acts of the pages of requirements, link rules and notation: what they change, and what is said
 * where nothing can be done.
 */
class PageActsTest extends InRequirements {
    private static final JsonMapper JSON = JsonMapper.builder().build();

    /** Asks about a place in a text that somebody is typing. */
    private HttpResponse<String> at(String path, String text, int place) throws IOException, InterruptedException {
        return ines.post(
                BRANCH + path,
                "application/json",
                JSON.writeValueAsString(Map.of("text", text, "base", 1, "at", place)),
                token);
    }

    private Model model() {
        return merrow.head().model();
    }

    private String lines(String... names) {
        return "{'ids':["
                + List.of(names).stream()
                        .map(name -> "'" + id(name) + "'")
                        .reduce((a, b) -> a + "," + b)
                        .orElseThrow() + "],'base':" + head() + "}";
    }

    private List<String> shortNames(String specification) {
        return Specification.all(model()).stream()
                .filter(each -> each.element().name().equals(specification))
                .findFirst()
                .orElseThrow()
                .requirements(model())
                .stream()
                .map(Element::shortName)
                .toList();
    }

    @NewProject
    @Test
    void rowsFromATableAreAddedBehindALineAndWhatIsWrongIsToldByItsRow() throws Exception {
        String paste = "{'anchor':'" + id("closesInTime")
                + "','rows':[['text','priority'],['The gate shall ring.','%s'],['The gate shall blink.','']],'base':"
                + head() + "}";
        assertThat(post("/requirements/paste", paste.formatted("could")).body()).contains("from a table: 2 added");
        assertThat(shortNames("MerrowRequirements")).startsWith("MG-1", "MG-25", "MG-26", "MG-8");
        assertThat(post("/requirements/paste", paste.formatted("high")).body())
                .contains("row 2: priority is one of must, should, could, not 'high'");
        assertThat(head()).isEqualTo(2);
        assertThat(post("/requirements/paste", "{'anchor':'" + id("closesInTime") + "','rows':[],'base':1}")
                        .statusCode())
                .isEqualTo(400);
    }

    @Test
    void aNoteIsAddedAndALineIsDuplicatedWithWhatIsBelowIt() throws Exception {
        int before = (int) model().ownElements(ElementKind.REQUIREMENTS).count();
        assertThat(post(
                                "/requirements/add",
                                "{'anchor':'" + id("closesInTime")
                                        + "','below':false,'type':'note','text':'Ask the harbour master.','base':1}")
                        .body())
                .contains("note", "added");
        assertThat(model().ownElements(Set.of(ElementKind.COMMENT, ElementKind.DOCUMENTATION)))
                .anyMatch(each -> each.get(Property.TEXT)
                        .filter("Ask the harbour master."::equals)
                        .isPresent());
        assertThat(post("/requirements/duplicate", lines("Closing")).body()).contains("Closing duplicated");
        assertThat(model().ownElements(ElementKind.REQUIREMENTS)).hasSize(before + 5);
        assertThat(shortNames("MerrowRequirements")).doesNotHaveDuplicates();
    }

    @NewProject
    @Test
    void linesThatCannotGoFurtherSaySo() throws Exception {
        assertThat(post("/requirements/arrange", "{'lines':" + lines("Closing") + ",'how':'outdent','target':null}")
                        .body())
                .contains("it stands at the top of its specification");
        assertThat(post("/requirements/arrange", "{'lines':" + lines("closesInTime") + ",'how':'up','target':null}")
                        .body())
                .contains("it is the first of its level");
        assertThat(post("/requirements/arrange", "{'lines':" + lines("closesInTime") + ",'how':'indent','target':null}")
                        .body())
                .contains("there is no line before it that could hold it");
        assertThat(head()).isEqualTo(1);
        assertThat(post("/requirements/arrange", "{'lines':" + lines("closesInTime") + ",'how':'down','target':null}")
                        .body())
                .contains("MG-1 moved");
        assertThat(shortNames("MerrowRequirements")).startsWith("MG-8", "MG-1");
        String first = model().ownElements(ElementKind.REQUIREMENTS)
                .filter(each -> "MG-8".equals(each.shortName()))
                .findFirst()
                .orElseThrow()
                .id()
                .toString();
        assertThat(post(
                                "/requirements/arrange",
                                "{'lines':" + lines("closesInTime") + ",'how':'before','target':'" + first + "'}")
                        .statusCode())
                .isEqualTo(200);
        assertThat(shortNames("MerrowRequirements")).startsWith("MG-1", "MG-8");
    }

    @Test
    void wordsAreReplacedInManyTextsAndAnAttributeNobodyHasIsRefused() throws Exception {
        String some = lines("closesInTime", "showsOnTheQuay");
        assertThat(post("/requirements/replace", "{'lines':" + some + ",'find':'shall','replace':'must'}")
                        .statusCode())
                .isEqualTo(200);
        assertThat(model().inheritance().documentation(merrow.named("closesInTime")))
                .contains("must")
                .doesNotContain("shall");
        assertThat(post(
                                "/requirements/replace",
                                "{'lines':" + some.replace("'base':1", "'base':2")
                                        + ",'find':'nowhere to be found','replace':'x'}")
                        .body())
                .contains("nothing");
        assertThat(post(
                                "/requirements/attribute",
                                "{'lines':" + lines("closesInTime") + ",'attribute':'colour','value':'red'}")
                        .body())
                .contains("MG-1 has no attribute colour");
    }

    @NewProject
    @Test
    void administratorsMakeRulesAndKindsOfLinksAndOthersDoNot() throws Exception {
        String rule =
                "{'element':null,'kind':'%s','from':'subsystem','to':'%s','leastFrom':1,'leastTo':0,'watched':'text','base':1}";
        assertThat(post("/rules", rule.formatted("derive", "system")).statusCode())
                .isEqualTo(403);
        Session admin = new Session(merrow.address()).signIn("admin", "merrow");
        String adminToken = admin.token(BRANCH + "/requirements");
        assertThat(admin.post(
                                BRANCH + "/rules",
                                "application/json",
                                rule.formatted("nothing", "system").replace('\'', '"'),
                                adminToken)
                        .body())
                .contains("no kind of link called nothing");
        assertThat(admin.post(
                                BRANCH + "/rules",
                                "application/json",
                                rule.formatted("derive", "").replace('\'', '"'),
                                adminToken)
                        .body())
                .contains("what a link may lead from and to");
        assertThat(admin.post(
                                BRANCH + "/rules/kinds",
                                "application/json",
                                "{\"key\":\"outranks\",\"forward\":\"ranks above\",\"backward\":\"\",\"base\":1}",
                                adminToken)
                        .body())
                .contains("kind of link outranks added");
        assertThat(LinkKind.named(model(), "outranks")).isPresent();
        assertThat(admin.post(
                                BRANCH + "/rules/kinds",
                                "application/json",
                                "{\"key\":\"outranks\",\"forward\":\"again\",\"backward\":\"\",\"base\":2}",
                                adminToken)
                        .statusCode())
                .isEqualTo(422);
        assertThat(admin.post(
                                BRANCH + "/rules",
                                "application/json",
                                rule.formatted("outranks", "system")
                                        .replace('\'', '"')
                                        .replace("\"base\":1", "\"base\":2"),
                                adminToken)
                        .body())
                .contains("link rule for outranks changed");
        assertThat(LinkRules.in(model()).of(LinkKind.named(model(), "outranks").orElseThrow()))
                .hasSize(1);
        String made = LinkRules.in(model())
                .of(LinkKind.named(model(), "outranks").orElseThrow())
                .getFirst()
                .element()
                .id()
                .toString();
        assertThat(admin.get(BRANCH + "/rules").body()).contains("ranks above");
        assertThat(admin.post(
                                BRANCH + "/rules/remove",
                                "application/json",
                                "{\"element\":\"" + made + "\",\"base\":3}",
                                adminToken)
                        .body())
                .contains("link rule removed");
        assertThat(LinkRules.in(model()).of(LinkKind.named(model(), "outranks").orElseThrow()))
                .isEmpty();
    }

    @NewProject
    @Test
    void linksThatAreGoneOrTooManyAreRefused() throws Exception {
        assertThat(post(
                                "/links/remove",
                                "{'links':[{'carrier':'" + id("closesInTime")
                                        + "','source':'x','target':'y'}],'base':1}")
                        .body())
                .contains("this link is there no more");
        String many = "'" + id("closesInTime") + "'" + (",'" + id("closesInTime") + "'").repeat(99);
        assertThat(post("/links/add", "{'kind':'derive','sources':[" + many + "],'targets':[" + many + "],'base':1}")
                        .body())
                .contains("links are made at once");
        assertThat(post(
                                "/links/add",
                                "{'kind':'nothing','sources':['" + id("closesInTime") + "'],'targets':['"
                                        + id("closesInTime") + "'],'base':1}")
                        .statusCode())
                .isEqualTo(404);
        assertThat(head()).isEqualTo(1);
    }

    @NewProject
    @Test
    void aTextIsCheckedFormattedAndExplainedWithoutBeingSaved() throws Exception {
        String painted = "/element/" + id("isPaintedWhite") + "/notation";
        String text = JSON.readTree(ines.get(BRANCH + painted + ".json").body())
                .get("text")
                .asString();
        String untidy = JSON.writeValueAsString(Map.of("text", text.replaceAll("\\n *", "\n"), "base", 1));
        assertThat(JSON.readTree(ines.post(BRANCH + painted + "/format", "application/json", untidy, token)
                                .body())
                        .get("text")
                        .asString())
                .isEqualTo(text);
        assertThat(post(painted + "/format", "{'text':'requirement isPaintedWhite { part a }','base':1}")
                        .body())
                .contains("\"text\":null", "expected ';' or '{'");
        int leaf = text.indexOf("GateLeaf");
        assertThat(at(painted + "/meaning", text, leaf).body())
                .contains("\"name\":\"GateLeaf\"", "part def", "/element/" + id("GateLeaf"));
        assertThat(at(painted + "/meaning", text, text.indexOf("VerificationMethodKind"))
                        .body())
                .contains("VerificationMethodKind", "enum def");
        assertThat(at(painted + "/meaning", text, text.indexOf("{")).statusCode())
                .isEqualTo(204);
        assertThat(at(painted + "/complete", text.replace("GateLeaf;", "GateL;"), leaf + 5)
                        .body())
                .contains("GateLeaf");
        assertThat(head()).isEqualTo(1);
    }

    @NewProject
    @Test
    void aTextThatSaysNothingNewMakesNoRevisionAndOneThatOthersOvertookIsKept() throws Exception {
        String element = "/element/" + id("MerrowLeafRequirements");
        String text = JSON.readTree(
                        ines.get(BRANCH + element + "/notation.json").body())
                .get("text")
                .asString();
        String json = JSON.writeValueAsString(Map.of("text", text, "base", 1, "over", false));
        assertThat(ines.post(BRANCH + element + "/notation", "application/json", json, token)
                        .body())
                .contains("Nothing to save");
        ines.edit("/element/" + id("isPaintedWhite") + "/text", "The leaf shall be painted yellow.");
        String mine = json.replace("painted white", "painted red");
        assertThat(mine).isNotEqualTo(json);
        HttpResponse<String> overtaken = ines.post(BRANCH + element + "/notation", "application/json", mine, token);
        assertThat(overtaken.statusCode()).isEqualTo(409);
        assertThat(overtaken.body()).contains("Somebody has changed the same elements since", "yellow", "red");
        assertThat(ines.post(
                                BRANCH + element + "/notation",
                                "application/json",
                                mine.replace("\"over\":false", "\"over\":true"),
                                token)
                        .body())
                .contains("Saved · r3");
        assertThat(model().inheritance().documentation(merrow.named("isPaintedWhite")))
                .contains("red");
    }

    @Test
    void aBaselineIsTakenAwayOnceAndAnEmptyPartIsNoPart() throws Exception {
        post("/baselines", "{'number':1,'name':'Review','note':''}");
        String page = ines.get(BRANCH + "/baselines").body();
        Matcher matcher = Pattern.compile("data-baseline-remove=\"(\\d+)\"").matcher(page);
        assertThat(matcher.find()).isTrue();
        assertThat(post("/baselines/" + matcher.group(1) + "/remove", "{}").body())
                .contains("its revision stays");
        assertThat(post("/baselines/" + matcher.group(1) + "/remove", "{}").body())
                .contains("there is no such baseline");
        assertThat(post(
                                "/element/" + id("closesInTime") + "/split",
                                "{'parts':[{'text':'One.','links':[]},{'text':' ','links':[]}],'base':1}")
                        .body())
                .contains("each part says something; leave out the ones that do not");
    }

    @Test
    void anUnknownNameComesWithTheImportsThatWouldBringIt() throws Exception {
        String text = "package MerrowNeeds { part spare : HydraulicPowerUnit; part odd : NoSuchThing; }";
        String body =
                at("/element/" + id("MerrowNeeds") + "/notation/check", text, 0).body();
        assertThat(body)
                .contains("\"imports\":[\"MerrowHydraulics::HydraulicPowerUnit\"]")
                .contains("\"imports\":[]");
    }

    @Test
    void anAttributeWithoutAValueGetsOneWhereItIsListed() throws Exception {
        String control = "/element/" + id("GateControl");
        assertThat(ines.get(BRANCH + control).body())
                .contains(
                        "data-empty=\"yes\" data-label=\"Value of leafAngle\"",
                        "no value here; equations or a use may give it");
        Element angle = model().children(merrow.named("GateControl").id()).stream()
                .filter(each -> "leafAngle".equals(each.name()))
                .findFirst()
                .orElseThrow();
        String address = control + "/value/" + angle.id();
        assertThat(post(address, "{'text':'3 [kg]','base':1}").statusCode()).isEqualTo(422);
        assertThat(post(address, "{'text':'3 [deg]','base':1}").body()).contains("leafAngle of GateControl");
        assertThat(ines.get(BRANCH + control).body()).contains(">3 [deg]</div>");
    }
}
