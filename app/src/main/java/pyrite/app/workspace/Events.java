package pyrite.app.workspace;

import java.io.IOException;
import java.util.List;
import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.CopyOnWriteArrayList;
import org.springframework.stereotype.Component;
import org.springframework.web.servlet.mvc.method.annotation.SseEmitter;
import pyrite.app.store.Branch;

/** Tells open pages what happens on their branch, as server-sent events. */
@Component
public class Events {
    private final Map<Long, List<SseEmitter>> listeners = new ConcurrentHashMap<>();

    /** @param number of the newest revision, so that a page can tell whether it is behind */
    SseEmitter listen(Branch branch, int number) {
        SseEmitter emitter = new SseEmitter(0L);
        List<SseEmitter> all = listeners.computeIfAbsent(branch.id(), _ -> new CopyOnWriteArrayList<>());
        all.add(emitter);
        emitter.onCompletion(() -> all.remove(emitter));
        emitter.onTimeout(() -> all.remove(emitter));
        emitter.onError(_ -> all.remove(emitter));
        send(emitter, "hello", Map.of("number", number));
        return emitter;
    }

    /** Sends to everybody who looks at the branch; a page that is gone is forgotten. */
    public void publish(long branch, String event, Map<String, ?> data) {
        listeners.getOrDefault(branch, List.of()).forEach(emitter -> send(emitter, event, data));
    }

    private void send(SseEmitter emitter, String event, Map<String, ?> data) {
        try {
            emitter.send(SseEmitter.event().name(event).data(data));
        } catch (IOException | IllegalStateException _) {
            listeners.values().forEach(all -> all.remove(emitter));
        }
    }
}
