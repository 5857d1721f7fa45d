package pyrite.core.execution;

import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.DataInputStream;
import java.io.DataOutputStream;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.util.ArrayList;
import java.util.List;
import java.util.zip.Deflater;
import java.util.zip.DeflaterOutputStream;
import java.util.zip.InflaterInputStream;
import pyrite.core.model.ElementId;

/** What happened in a run as deflated bytes, to be kept. */
public final class HappenedBytes {
    /** Up to version 1 without the causes of events. */
    private static final int VERSION = 2;

    private HappenedBytes() {}

    public static byte[] write(Happened happened) {
        ByteArrayOutputStream bytes = new ByteArrayOutputStream();
        Deflater fast = new Deflater(Deflater.BEST_SPEED);
        try (DataOutputStream out = new DataOutputStream(new DeflaterOutputStream(bytes, fast, 1 << 16))) {
            out.writeInt(VERSION);
            EventLog log = happened.log();
            out.writeInt(log.subjects().size());
            for (Subject subject : log.subjects()) {
                out.writeByte(subject.kind().ordinal());
                text(out, subject.path());
                out.writeUTF(subject.element().toString());
                out.writeInt(subject.parent());
                out.writeBoolean(subject.isTimeless());
            }
            log.write(out);
            standstill(out, happened.standstill());
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        } finally {
            fast.end();
        }
        return bytes.toByteArray();
    }

    private static void standstill(DataOutputStream out, Standstill standstill) throws IOException {
        out.writeBoolean(standstill.isComplete());
        out.writeInt(standstill.entries().size());
        for (Standstill.Entry entry : standstill.entries()) {
            out.writeInt(entry.subject());
            text(out, entry.what());
            out.writeBoolean(entry.isInCircle());
            out.writeInt(entry.givers().size());
            for (Standstill.Giver giver : entry.givers()) {
                out.writeInt(giver.subject());
                text(out, giver.why());
            }
        }
    }

    /** @throws IllegalStateException if the bytes are damaged */
    public static Happened read(byte[] bytes) {
        try (DataInputStream in = new DataInputStream(new InflaterInputStream(new ByteArrayInputStream(bytes)))) {
            int version = in.readInt();
            if (version < 1 || version > VERSION) {
                throw new IllegalStateException("the events of a run are of another version");
            }
            List<Subject> subjects = new ArrayList<>();
            for (int left = in.readInt(); left > 0; left--) {
                subjects.add(new Subject(
                        Subject.Kind.values()[in.readByte()],
                        text(in),
                        ElementId.parse(in.readUTF()),
                        in.readInt(),
                        in.readBoolean()));
            }
            EventLog log = EventLog.read(subjects, in, version > 1);
            return new Happened(log, standstill(in));
        } catch (IOException e) {
            throw new IllegalStateException("the events of a run are damaged", e);
        }
    }

    private static Standstill standstill(DataInputStream in) throws IOException {
        boolean isComplete = in.readBoolean();
        List<Standstill.Entry> entries = new ArrayList<>();
        for (int left = in.readInt(); left > 0; left--) {
            int subject = in.readInt();
            String what = text(in);
            boolean isInCircle = in.readBoolean();
            List<Standstill.Giver> givers = new ArrayList<>();
            for (int more = in.readInt(); more > 0; more--) {
                givers.add(new Standstill.Giver(in.readInt(), text(in)));
            }
            entries.add(new Standstill.Entry(subject, what, isInCircle, givers));
        }
        return new Standstill(isComplete, entries);
    }

    /** Of any length, which {@link DataOutputStream#writeUTF} does not take. */
    static void text(DataOutputStream out, String text) throws IOException {
        byte[] bytes = text.getBytes(java.nio.charset.StandardCharsets.UTF_8);
        out.writeInt(bytes.length);
        out.write(bytes);
    }

    static String text(DataInputStream in) throws IOException {
        return new String(in.readNBytes(in.readInt()), java.nio.charset.StandardCharsets.UTF_8);
    }
}
