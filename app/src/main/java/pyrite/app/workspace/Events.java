package pyrite.app.workspace;

import java.io.IOException;
import java.time.Duration;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.concurrent.ArrayBlockingQueue;
import java.util.concurrent.BlockingQueue;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.TimeUnit;
import java.util.stream.Collectors;
import org.springframework.beans.factory.annotation.Value;
import org.springframework.context.event.EventListener;
import org.springframework.http.HttpStatus;
import org.springframework.stereotype.Component;
import org.springframework.web.server.ResponseStatusException;
import org.springframework.web.servlet.mvc.method.annotation.SseEmitter;
import pyrite.app.security.People;
import pyrite.app.store.Person;

/**
 * Sends what happens on branches to open browsers (server-sent events). Whoever publishes never waits: each stream has
 * a queue and a thread of its own. A stream that nobody reads any more is noticed at the next heartbeat at the latest.
 */
@Component
public class Events {
    private static final int LONGEST_QUEUE = 100;
    /** Tells a browser that this stream is one too many for its person, so that it does not come back at once. */
    private static final String ENOUGH = "enough";

    private final Duration heartbeat;
    private final int mostInAll;
    private final int mostAPerson;
    private final Map<Long, Set<Listener>> byBranch = new ConcurrentHashMap<>();
    /** In the order in which they were opened. */
    private final Map<String, List<Listener>> byPerson = new HashMap<>();

    Events(
            @Value("${pyrite.events.heartbeat}") Duration heartbeat,
            @Value("${pyrite.events.most}") int mostInAll,
            @Value("${pyrite.events.most-a-person}") int mostAPerson) {
        this.heartbeat = heartbeat;
        this.mostInAll = mostInAll;
        this.mostAPerson = mostAPerson;
    }

    private record Event(String name, Map<String, ?> data) {}

    /** An open stream and its reader. */
    private final class Listener implements Runnable {
        private final SseEmitter emitter = new SseEmitter(0L);
        private final BlockingQueue<Event> queue = new ArrayBlockingQueue<>(LONGEST_QUEUE);
        private final String signIn;
        /** Their addresses by their ids. */
        private final Map<Long, String> branches;

        private final Thread thread = Thread.ofVirtual().name("events").unstarted(this);

        Listener(String signIn, Map<Long, String> branches) {
            this.signIn = signIn;
            this.branches = branches;
        }

        /** A reader too slow for what happens is let go; its browser opens a new stream and catches up. */
        void offer(Event event) {
            if (!queue.offer(event)) {
                end();
            }
        }

        @Override
        public void run() {
            try {
                while (true) {
                    Event event = queue.poll(heartbeat.toMillis(), TimeUnit.MILLISECONDS);
                    emitter.send(
                            event == null
                                    ? SseEmitter.event().comment("")
                                    : SseEmitter.event().name(event.name()).data(event.data()));
                    if (event != null && event.name().equals(ENOUGH)) {
                        return;
                    }
                }
            } catch (InterruptedException | IOException | IllegalStateException _) {
                // It is closed, by either side.
            } finally {
                forget(this);
                complete();
            }
        }

        private void complete() {
            try {
                emitter.complete();
            } catch (IllegalStateException _) {
                // The server has put the connection away already.
            }
        }

        void end() {
            thread.interrupt();
        }
    }

    /**
     * Opens a stream of what happens on some branches. It begins with the number of the newest revision of each, so
     * that a page can tell whether it is behind. The oldest stream of somebody with too many is ended.
     *
     * @throws ResponseStatusException if there are too many in all
     */
    SseEmitter listen(List<Workspace.Head> heads, Person person) {
        Listener listener = new Listener(
                person.signIn(),
                heads.stream()
                        .collect(Collectors.toMap(
                                head -> head.branch().id(),
                                head -> head.branch().address())));
        enter(listener);
        listener.emitter.onCompletion(listener::end);
        listener.emitter.onTimeout(listener::end);
        listener.emitter.onError(_ -> listener.end());
        heads.forEach(head ->
                listener.offer(new Event("hello", Map.of("branch", head.branch().address(), "number", head.number()))));
        listener.thread.start();
        return listener.emitter;
    }

    private synchronized void enter(Listener listener) {
        if (open() >= mostInAll) {
            throw new ResponseStatusException(
                    HttpStatus.SERVICE_UNAVAILABLE,
                    "too many pages are open on this server to tell all of them what happens; this one works, but it"
                            + " shows what others do only when it is loaded again");
        }
        List<Listener> own = byPerson.computeIfAbsent(listener.signIn, _ -> new ArrayList<>());
        if (own.size() >= mostAPerson) {
            own.removeFirst().offer(new Event(ENOUGH, Map.of()));
        }
        own.add(listener);
        listener.branches
                .keySet()
                .forEach(branch -> byBranch.computeIfAbsent(branch, _ -> ConcurrentHashMap.newKeySet())
                        .add(listener));
    }

    private synchronized void forget(Listener listener) {
        listener.branches
                .keySet()
                .forEach(branch -> byBranch.computeIfPresent(branch, (_, all) -> {
                    all.remove(listener);
                    return all.isEmpty() ? null : all;
                }));
        byPerson.computeIfPresent(listener.signIn, (_, own) -> {
            own.remove(listener);
            return own.isEmpty() ? null : own;
        });
    }

    /** How many streams are open. */
    public synchronized int open() {
        return byPerson.values().stream().mapToInt(List::size).sum();
    }

    /** Sends to everybody who looks at the branch. */
    public void publish(long branch, String event, Map<String, ?> data) {
        byBranch.getOrDefault(branch, Set.of()).forEach(listener -> {
            Map<String, Object> news = new HashMap<>(data);
            news.put("branch", listener.branches.get(branch));
            listener.offer(new Event(event, news));
        });
    }

    /** A page that is open goes on only if its session does: it asks anew, and is turned away or let in. */
    @EventListener
    void close(People.SignedOut person) {
        ofPerson(person.signIn()).forEach(Listener::end);
    }

    private synchronized List<Listener> ofPerson(String signIn) {
        return List.copyOf(byPerson.getOrDefault(signIn, List.of()));
    }
}
