package pyrite.app.workspace;

import java.io.IOException;
import java.util.List;
import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.CopyOnWriteArrayList;
import org.springframework.context.event.EventListener;
import org.springframework.stereotype.Component;
import org.springframework.web.servlet.mvc.method.annotation.SseEmitter;
import pyrite.app.security.People;
import pyrite.app.store.Branch;
import pyrite.app.store.Person;

/** Sends the events of a branch to open pages (server-sent events). */
@Component
public class Events {
    private final Map<Long, List<Listener>> listeners = new ConcurrentHashMap<>();

    /** An open page and its reader. */
    private record Listener(SseEmitter emitter, String signIn) {}

    /** @param number of the newest revision, so that a page can tell whether it is behind */
    SseEmitter listen(Branch branch, int number, Person person) {
        SseEmitter emitter = new SseEmitter(0L);
        Listener listener = new Listener(emitter, person.signIn());
        List<Listener> all = listeners.computeIfAbsent(branch.id(), _ -> new CopyOnWriteArrayList<>());
        all.add(listener);
        emitter.onCompletion(() -> all.remove(listener));
        emitter.onTimeout(() -> all.remove(listener));
        emitter.onError(_ -> all.remove(listener));
        send(listener, "hello", Map.of("number", number));
        return emitter;
    }

    /** Sends to everybody who looks at the branch; a page that is gone is forgotten. */
    public void publish(long branch, String event, Map<String, ?> data) {
        listeners.getOrDefault(branch, List.of()).forEach(listener -> send(listener, event, data));
    }

    /** A page that is open goes on only if its session does: it asks anew, and is turned away or let in. */
    @EventListener
    void close(People.SignedOut person) {
        listeners
                .values()
                .forEach(all -> all.stream()
                        .filter(listener -> listener.signIn().equals(person.signIn()))
                        .forEach(listener -> listener.emitter().complete()));
    }

    private void send(Listener listener, String event, Map<String, ?> data) {
        try {
            listener.emitter().send(SseEmitter.event().name(event).data(data));
        } catch (IOException | IllegalStateException _) {
            listeners.values().forEach(all -> all.remove(listener));
        }
    }
}
