package pyrite.app.store;

import java.io.ByteArrayOutputStream;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.util.zip.DataFormatException;
import java.util.zip.Deflater;
import java.util.zip.Inflater;

/** Doubles as deflated little-endian bytes. */
final class SeriesBytes {
    private SeriesBytes() {}

    static byte[] pack(double[] values) {
        ByteBuffer raw = ByteBuffer.allocate(8 * values.length).order(ByteOrder.LITTLE_ENDIAN);
        for (double value : values) {
            raw.putDouble(value);
        }
        try (Deflater deflater = new Deflater(Deflater.BEST_SPEED)) {
            deflater.setInput(raw.array());
            deflater.finish();
            ByteArrayOutputStream out = new ByteArrayOutputStream();
            byte[] buffer = new byte[8192];
            while (!deflater.finished()) {
                out.write(buffer, 0, deflater.deflate(buffer));
            }
            return out.toByteArray();
        }
    }

    /** @throws IllegalStateException if the bytes are damaged */
    static double[] unpack(byte[] packed) {
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        try (Inflater inflater = new Inflater()) {
            inflater.setInput(packed);
            byte[] buffer = new byte[8192];
            while (!inflater.finished()) {
                int count = inflater.inflate(buffer);
                if (count == 0 && !inflater.finished() && inflater.needsInput()) {
                    throw new IllegalStateException("a stored series ends too early");
                }
                out.write(buffer, 0, count);
            }
        } catch (DataFormatException e) {
            throw new IllegalStateException("a stored series is damaged", e);
        }
        ByteBuffer raw = ByteBuffer.wrap(out.toByteArray()).order(ByteOrder.LITTLE_ENDIAN);
        double[] values = new double[raw.remaining() / 8];
        for (int i = 0; i < values.length; i++) {
            values[i] = raw.getDouble();
        }
        return values;
    }
}
