package pyrite.app.runs;

import java.math.BigDecimal;
import java.util.Objects;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Controller;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import pyrite.app.store.Person;
import pyrite.app.store.RunRecord;
import pyrite.app.store.RunStore;
import pyrite.app.workspace.Labels;
import pyrite.app.workspace.NotFound;
import pyrite.app.workspace.Pages;
import pyrite.app.workspace.Station;
import pyrite.app.workspace.Workspace;
import pyrite.core.dynamics.Flattening;
import pyrite.core.dynamics.ModelFault;
import pyrite.core.model.Element;
import pyrite.core.model.ElementId;
import pyrite.core.model.Model;
import pyrite.core.sequence.Sequence;
import pyrite.core.sequence.SequenceStep;
import pyrite.core.story.StoryComparison;

/** A recording as a sequence: its drawing, and its steps to be changed. */
@Controller
class SequenceController {
    private final Pages pages;
    private final RunStore store;

    SequenceController(Pages pages, RunStore store) {
        this.pages = pages;
        this.store = store;
    }

    /**
     * A step in the table.
     *
     * @param at what holds its instant
     * @param isOwn whether the recording itself says it, not one it inherits from
     */
    record Row(Element member, SequenceStep step, @Nullable ElementId at, boolean isOwn) {
        /** In seconds, as it is written. */
        public String instant() {
            return BigDecimal.valueOf(step.at()).stripTrailingZeros().toPlainString();
        }
    }

    @GetMapping("/p/{project}/{branch}/element/{id}/sequence")
    String show(Workspace.Head head, Person person, @PathVariable String id, org.springframework.ui.Model page) {
        Element recording = head.element(id);
        Model model = head.model();
        if (!Sequence.isRecording(model, recording)) {
            throw new NotFound("a sequence is drawn of a recording; this is "
                    + recording.kind().titleWithArticle());
        }
        pages.frame(page, head, person, Station.RUNS, new Labels(model).full(recording) + " · Sequence");
        page.addAttribute("element", recording);
        page.addAttribute("editable", person.mayEdit() && !head.past() && !model.isLibrary(recording.id()));
        try {
            Sequence sequence = Sequence.of(model, recording, new Flattening(model));
            page.addAttribute("sequence", sequence);
            page.addAttribute(
                    "rows",
                    Sequence.written(model, recording).stream()
                            .map(written -> row(model, recording, written))
                            .toList());
            page.addAttribute("tolerance", feature(model, recording, "timeTolerance"));
            page.addAttribute("complete", feature(model, recording, "complete"));
            page.addAttribute(
                    "story",
                    StoryComparison.of(
                                    model,
                                    Sequence.marks(model, recording).stream()
                                            .map(Sequence.Mark::step)
                                            .toList())
                            .orElse(null));
        } catch (ModelFault e) {
            page.addAttribute("fault", e.getMessage());
        }
        RunRecord newest = store.newestOfEachCase(head.branch()).get(recording.id());
        page.addAttribute("newest", newest);
        page.addAttribute(
                "compared", newest == null ? null : store.compared(newest.id()).orElse(null));
        return "runs/sequence";
    }

    private static Row row(Model model, Element recording, Sequence.Written written) {
        Element member = written.member();
        Element at = feature(model, member, "at");
        return new Row(
                member, written.step(), at == null ? null : at.id(), Objects.equals(member.owner(), recording.id()));
    }

    private static @Nullable Element feature(Model model, Element owner, String name) {
        return model.inheritance().features(owner).stream()
                .filter(feature -> name.equals(model.names().effectiveName(feature)))
                .findFirst()
                .orElse(null);
    }
}
