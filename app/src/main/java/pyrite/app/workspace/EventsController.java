package pyrite.app.workspace;

import org.springframework.http.MediaType;
import org.springframework.stereotype.Controller;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.servlet.mvc.method.annotation.SseEmitter;
import pyrite.app.store.Person;

@Controller
class EventsController {
    private final Workspace workspace;
    private final Events events;

    EventsController(Workspace workspace, Events events) {
        this.workspace = workspace;
        this.events = events;
    }

    @GetMapping(path = "/p/{project}/{branch}/events", produces = MediaType.TEXT_EVENT_STREAM_VALUE)
    SseEmitter listen(Person person, @PathVariable String project, @PathVariable String branch) {
        Workspace.Head head = workspace.head(project, branch);
        return events.listen(head.branch(), head.number(), person);
    }
}
