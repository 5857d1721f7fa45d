package pyrite.app.workspace;

import java.util.List;
import org.springframework.http.MediaType;
import org.springframework.stereotype.Controller;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.servlet.mvc.method.annotation.SseEmitter;
import pyrite.app.store.Person;

@Controller
class EventsController {
    private static final int MOST_BRANCHES = 50;

    private final Workspace workspace;
    private final Events events;

    EventsController(Workspace workspace, Events events) {
        this.workspace = workspace;
        this.events = events;
    }

    /** @param of branches, each as {@code project/branch} */
    @GetMapping(path = "/events", produces = MediaType.TEXT_EVENT_STREAM_VALUE)
    SseEmitter listen(Person person, @RequestParam List<String> of) {
        List<Workspace.Head> heads = of.stream()
                .distinct()
                .limit(MOST_BRANCHES)
                .map(each -> each.split("/", 2))
                .map(parts -> workspace.head(parts[0], parts.length == 2 ? parts[1] : ""))
                .toList();
        return events.listen(heads, person);
    }
}
