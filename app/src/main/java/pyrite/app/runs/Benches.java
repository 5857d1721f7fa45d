package pyrite.app.runs;

import java.security.SecureRandom;
import java.util.Comparator;
import java.util.HexFormat;
import java.util.List;
import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.CopyOnWriteArrayList;
import java.util.concurrent.atomic.AtomicLong;
import java.util.concurrent.atomic.AtomicReference;
import java.util.function.Function;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Service;
import pyrite.app.store.Person;
import pyrite.app.workspace.NotFound;
import pyrite.app.workspace.Workspace;
import pyrite.core.execution.Bench;
import pyrite.core.execution.Exploration;
import pyrite.core.model.Element;
import pyrite.core.sequence.SequenceNotes;
import pyrite.core.sequence.SequenceText;
import pyrite.core.verification.Exploring;
import pyrite.core.verification.Playable;

/** The systems that somebody plays with; the ones not used for longest make room for others. */
@Service
class Benches {
    private static final int MOST = 24;

    private final Map<String, Seat> seats = new ConcurrentHashMap<>();
    private final AtomicLong uses = new AtomicLong();
    private final SecureRandom random = new SecureRandom();

    record Explored(Exploring exploring, Exploration.Result result) {}

    /** One system on the bench, as one person plays it. */
    static final class Seat {
        private final String key;
        private final long branch;
        private final long person;
        private final int revision;
        private final Element played;
        private final Playable playable;
        private final Bench bench;
        private final SequenceNotes notes;
        private volatile long used;
        private volatile @Nullable Explored explored;
        private final List<SequenceText.Told> told = new CopyOnWriteArrayList<>();

        private Seat(
                String key,
                long branch,
                long person,
                int revision,
                Element played,
                Playable playable,
                Bench bench,
                SequenceNotes notes) {
            this.key = key;
            this.branch = branch;
            this.person = person;
            this.revision = revision;
            this.played = played;
            this.playable = playable;
            this.bench = bench;
            this.notes = notes;
        }

        String key() {
            return key;
        }

        int revision() {
            return revision;
        }

        /** What somebody wanted to play. */
        Element played() {
            return played;
        }

        /** The part that is played for it. */
        Playable playable() {
            return playable;
        }

        /** The steps of a story that somebody told while playing, in order. */
        List<SequenceText.Told> told() {
            return told;
        }

        /** What was explored last, with what it found. */
        @Nullable
        Explored explored() {
            return explored;
        }

        void explored(Explored fresh) {
            explored = fresh;
        }

        /** What happened so far; to be asked while nothing goes on. */
        SequenceNotes notes() {
            return notes;
        }

        /** One request after the other. */
        synchronized <T> T with(Function<Bench, T> work) {
            return work.apply(bench);
        }
    }

    /** @throws IllegalArgumentException if it cannot be played */
    Seat open(Workspace.Head head, Person person, Element played, double horizon) {
        Playable playable = Playable.of(head.model(), played);
        AtomicReference<SequenceNotes> notes = new AtomicReference<>();
        Bench bench = Bench.of(
                playable.model(),
                playable.part(),
                horizon,
                1,
                subjects -> notes.updateAndGet(_ -> new SequenceNotes(playable.model(), subjects)));
        byte[] bytes = new byte[9];
        random.nextBytes(bytes);
        Seat seat = new Seat(
                HexFormat.of().formatHex(bytes),
                head.branch().id(),
                person.id(),
                head.number(),
                played,
                playable,
                bench,
                notes.get());
        seat.used = uses.incrementAndGet();
        seats.put(seat.key, seat);
        while (seats.size() > MOST) {
            seats.values().stream()
                    .min(Comparator.comparing(each -> each.used))
                    .ifPresent(each -> seats.remove(each.key));
        }
        return seat;
    }

    /** @throws NotFound if it is not there any more, or is somebody else's */
    Seat seat(Workspace.Head head, Person person, String key) {
        Seat seat = seats.get(key);
        if (seat == null || seat.branch != head.branch().id() || seat.person != person.id()) {
            throw new NotFound("this is not on the bench any more; put it there again");
        }
        seat.used = uses.incrementAndGet();
        return seat;
    }
}
