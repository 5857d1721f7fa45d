package pyrite.core.notation;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import org.junit.jupiter.api.Test;
import pyrite.core.Models;
import pyrite.core.model.Model;

class TextAssistantTest {
    private static final Model MODEL = Models.read("""
            package Gate {
                private import ISQ::*;
                private import SI::*;
                part def Leaf { attribute mass : MassValue = 3 [kg]; attribute width : LengthValue; }
                part def Gate2 { part leaf : Leaf; attribute total : MassValue = leaf.mass; }
            }
            """);

    /** The text of the package with some characters put in; the place of the mark ^ is where somebody types. */
    private static TextAssistant assistant(String text) {
        String typed = text.replace("^", "");
        return new TextAssistant(
                MODEL,
                typed,
                NotationReader.placesIn(MODEL, List.of(Models.element(MODEL, "Gate")), new Source("", typed)));
    }

    private static List<String> proposals(String text) {
        return assistant(text).proposals(text.indexOf('^')).stream()
                .map(TextAssistant.Proposal::name)
                .toList();
    }

    @Test
    void behindAPointComeTheFeaturesOfWhatStandsBeforeIt() {
        assertThat(proposals("package Gate { part def Gate2 { part leaf : Leaf; attribute total = leaf.^ } }"))
                .containsExactlyInAnyOrder("mass", "width");
        assertThat(proposals("package Gate { part def Gate2 { part leaf : Leaf; attribute total = leaf.ma^ } }"))
                .containsExactly("mass");
    }

    @Test
    void behindAColonComeTheNamesInScopeAndTheWordsOfTheNotation() {
        assertThat(proposals("package Gate { part def Leaf; part x : Le^ }"))
                .startsWith("Leaf")
                .contains("LengthValue");
        assertThat(proposals("package Gate { pa^ }")).contains("part", "package");
    }

    @Test
    void namesAreToldThoughTheTextDoesNotGoOnAsItMust() {
        assertThat(proposals("package Gate { part def Gate2 { part leaf : Leaf; attribute total = (leaf.^"))
                .containsExactlyInAnyOrder("mass", "width");
    }

    @Test
    void aNameMeansWhatItLeadsToAndADeclarationItself() {
        String text = NotationWriter.write(MODEL, List.of(Models.element(MODEL, "Gate")));
        TextAssistant assistant = assistant(text);
        assertThat(assistant.meaning(text.indexOf("leaf.mass") + 6))
                .contains(Models.element(MODEL, "Gate::Leaf::mass"));
        assertThat(assistant.meaning(text.indexOf(": Leaf") + 3)).contains(Models.element(MODEL, "Gate::Leaf"));
        assertThat(assistant.meaning(text.indexOf("Gate2") + 2)).contains(Models.element(MODEL, "Gate::Gate2"));
        assertThat(assistant
                        .placeOf(Models.element(MODEL, "Gate::Leaf").id())
                        .orElseThrow()
                        .start())
                .isEqualTo(text.indexOf("Leaf"));
    }
}
