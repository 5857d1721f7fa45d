package pyrite.app.workspace;

import org.springframework.stereotype.Component;
import org.springframework.ui.Model;
import pyrite.app.store.Person;

/** Renders a page inside the frame. */
@Component
public class Pages {
    private final Workspace workspace;

    Pages(Workspace workspace) {
        this.workspace = workspace;
    }

    public void frame(Model page, Workspace.Head head, Person person, Station station, String title) {
        page.addAttribute("frame", Frame.of(workspace, head, person, station, title));
        page.addAttribute("labels", new Labels(head.model()));
    }
}
