package pyrite.core.execution;

import java.io.DataInputStream;
import java.io.DataOutputStream;
import java.io.IOException;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.EnumMap;
import java.util.HashMap;
import java.util.List;
import java.util.Map;

/** The events of a run in their order; made for millions of them. */
public final class EventLog {
    private static final int FIRST_CAPACITY = 256;

    /** What happened. */
    public enum Kind {
        /** A step began. */
        STARTED,
        /** A step ended. */
        ENDED,
        /** A step was cut short. */
        CUT,
        /** A state was entered. */
        ENTERED,
        /** A state was left. */
        LEFT,
        /** A transition was taken. */
        TAKEN,
        /** A step or state waits for an item, a time or a condition. */
        WAITS,
        /** A step waits for a pool. */
        QUEUED,
        /** An item was sent. */
        SENT,
        /** An item was accepted. */
        ACCEPTED,
        /** No transition accepted an item. */
        DROPPED,
        /** Nobody was there to receive an item. */
        LOST,
        /** A value was assigned. */
        ASSIGNED,
        /** Nothing can happen any more, and something waits. */
        STANDSTILL,
        /** Something else had given the attribute another value at the same instant. */
        OVERWRITTEN
    }

    /**
     * One event.
     *
     * @param time s
     * @param subject the index of what it is about
     * @param occasion tells the performances of one step from each other
     * @param cause the index of the event that this one follows from; -1 for none
     */
    public record Event(double time, Kind kind, int subject, int occasion, String detail, int cause) {}

    private static final Kind[] KINDS = Kind.values();

    private final List<Subject> subjects;
    private final List<String> details = new ArrayList<>();
    private final Map<String, Integer> knownDetails = new HashMap<>();
    private double[] times = new double[FIRST_CAPACITY];
    private byte[] kinds = new byte[FIRST_CAPACITY];
    private int[] about = new int[FIRST_CAPACITY];
    private int[] occasions = new int[FIRST_CAPACITY];
    private int[] texts = new int[FIRST_CAPACITY];
    private int[] causes = new int[FIRST_CAPACITY];
    private int size;

    EventLog(List<Subject> subjects) {
        this.subjects = List.copyOf(subjects);
    }

    void add(double time, Kind kind, int subject, int occasion, String detail, int cause) {
        if (size == times.length) {
            int capacity = size + size / 2;
            times = Arrays.copyOf(times, capacity);
            kinds = Arrays.copyOf(kinds, capacity);
            about = Arrays.copyOf(about, capacity);
            occasions = Arrays.copyOf(occasions, capacity);
            texts = Arrays.copyOf(texts, capacity);
            causes = Arrays.copyOf(causes, capacity);
        }
        times[size] = time;
        kinds[size] = (byte) kind.ordinal();
        about[size] = subject;
        occasions[size] = occasion;
        causes[size] = cause;
        texts[size] = detail.isEmpty()
                ? -1
                : knownDetails.computeIfAbsent(detail, text -> {
                    details.add(text);
                    return details.size() - 1;
                });
        size++;
    }

    /** What is in it now, whatever is added later. */
    public EventLog copy() {
        EventLog copy = new EventLog(subjects);
        copy.details.addAll(details);
        copy.times = Arrays.copyOf(times, size);
        copy.kinds = Arrays.copyOf(kinds, size);
        copy.about = Arrays.copyOf(about, size);
        copy.occasions = Arrays.copyOf(occasions, size);
        copy.texts = Arrays.copyOf(texts, size);
        copy.causes = Arrays.copyOf(causes, size);
        copy.size = size;
        return copy;
    }

    void write(DataOutputStream out) throws IOException {
        out.writeInt(details.size());
        for (String detail : details) {
            HappenedBytes.text(out, detail);
        }
        out.writeInt(size);
        for (int i = 0; i < size; i++) {
            out.writeDouble(times[i]);
            out.writeByte(kinds[i]);
            out.writeInt(about[i]);
            out.writeInt(occasions[i]);
            out.writeInt(texts[i]);
            out.writeInt(causes[i]);
        }
    }

    /** @param hasCauses whether it was written with the causes of events, which was not always so */
    static EventLog read(List<Subject> subjects, DataInputStream in, boolean hasCauses) throws IOException {
        EventLog log = new EventLog(subjects);
        List<String> details = new ArrayList<>();
        for (int left = in.readInt(); left > 0; left--) {
            details.add(HappenedBytes.text(in));
        }
        for (int left = in.readInt(); left > 0; left--) {
            double time = in.readDouble();
            Kind kind = KINDS[in.readByte()];
            int subject = in.readInt();
            int occasion = in.readInt();
            int text = in.readInt();
            log.add(time, kind, subject, occasion, text < 0 ? "" : details.get(text), hasCauses ? in.readInt() : -1);
        }
        return log;
    }

    public List<Subject> subjects() {
        return subjects;
    }

    public int size() {
        return size;
    }

    public Event get(int index) {
        return new Event(
                times[index],
                KINDS[kinds[index]],
                about[index],
                occasions[index],
                texts[index] < 0 ? "" : details.get(texts[index]),
                causes[index]);
    }

    /** How many events of each kind there are; kinds without any are left out. */
    public Map<Kind, Integer> counts() {
        Map<Kind, Integer> counts = new EnumMap<>(Kind.class);
        for (int i = 0; i < size; i++) {
            counts.merge(KINDS[kinds[i]], 1, Integer::sum);
        }
        return counts;
    }

    /** From one event up to another. */
    public List<Event> slice(int from, int to) {
        List<Event> slice = new ArrayList<>(to - from);
        for (int i = from; i < to; i++) {
            slice.add(get(i));
        }
        return slice;
    }
}
