package pyrite.core.dynamics;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.ByteOrder;
import java.nio.DoubleBuffer;
import java.nio.channels.FileChannel;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;

/**
 * Where the coefficients of a long run's steps are kept: in memory up to a limit, then in a file that is mapped and has
 * no name any more, so that nothing is left behind when the program ends in whatever way.
 */
final class StepShelf {
    private static final int CHUNK_BYTES = 64 << 20;

    private final long mostInMemory;
    private long inMemory;
    private DoubleBuffer chunk = DoubleBuffer.allocate(0);
    private long fileBytes;

    /** @param mostInMemory bytes that are kept in memory */
    StepShelf(long mostInMemory) {
        this.mostInMemory = mostInMemory;
    }

    /** A copy of the values. */
    DoubleBuffer put(double[] values) {
        if (inMemory + 8L * values.length <= mostInMemory) {
            inMemory += 8L * values.length;
            return DoubleBuffer.wrap(values.clone());
        }
        if (chunk.remaining() < values.length) {
            chunk = map(Math.max(CHUNK_BYTES, 8 * values.length));
        }
        DoubleBuffer place = chunk.slice(chunk.position(), values.length);
        chunk.put(values);
        return place;
    }

    private DoubleBuffer map(int bytes) {
        try {
            Path file = Files.createTempFile("pyrite-run", ".steps");
            try (FileChannel channel = FileChannel.open(file, StandardOpenOption.READ, StandardOpenOption.WRITE)) {
                fileBytes += bytes;
                return channel.map(FileChannel.MapMode.READ_WRITE, 0, bytes)
                        .order(ByteOrder.nativeOrder())
                        .asDoubleBuffer();
            } finally {
                Files.delete(file);
            }
        } catch (IOException e) {
            throw new UncheckedIOException("the steps of a long run cannot be kept in a file: " + e.getMessage(), e);
        }
    }

    /** Bytes that went to the file. */
    long fileBytes() {
        return fileBytes;
    }
}
