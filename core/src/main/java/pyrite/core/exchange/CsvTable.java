package pyrite.core.exchange;

import java.io.IOException;
import java.io.StringReader;
import java.io.UncheckedIOException;
import java.nio.ByteBuffer;
import java.nio.charset.CharacterCodingException;
import java.nio.charset.Charset;
import java.nio.charset.CodingErrorAction;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import org.apache.commons.csv.CSVFormat;
import org.apache.commons.csv.CSVParser;
import org.apache.commons.csv.CSVPrinter;
import org.apache.commons.csv.CSVRecord;
import pyrite.core.expression.ExplainedException;

/**
 * Tables as comma-separated values (RFC 4180). Output is safe for spreadsheets: a cell that would begin a formula is
 * prefixed with an apostrophe, which is removed on reading.
 */
public final class CsvTable {
    private static final String BEGINS_FORMULA = "=+-@\t\r";
    private static final Charset OTHERWISE = Charset.forName("windows-1252");
    private static final char[] DELIMITERS = {',', ';', '\t'};
    private static final char BYTE_ORDER_MARK = '\uFEFF';

    private CsvTable() {}

    /** The file is not a valid table; the message says where, and what would be right. */
    public static final class TableFault extends ExplainedException {
        private static final long serialVersionUID = 1;

        TableFault(String message) {
            super(message, null, false, false);
        }
    }

    /**
     * Reads a table. The encoding is UTF-8, or where the bytes are none the one that spreadsheets write without being
     * asked; the delimiter is a comma, a semicolon or a tabulator, whichever the first line has most of.
     *
     * @throws TableFault if it has more than {@code mostRows} rows, is empty or its quotes do not close
     */
    public static List<List<String>> read(byte[] bytes, int mostRows) {
        String text = text(bytes);
        if (text.indexOf('\0') >= 0) {
            throw new TableFault("this is no text; save the table as CSV first");
        }
        List<List<String>> rows = new ArrayList<>();
        CSVFormat format = CSVFormat.DEFAULT
                .builder()
                .setDelimiter(delimiter(text))
                .setIgnoreEmptyLines(true)
                .get();
        try (CSVParser parser = CSVParser.parse(new StringReader(text), format)) {
            for (CSVRecord record : parser) {
                if (rows.size() == mostRows) {
                    throw new TableFault("the table has more than " + mostRows + " rows; divide it");
                }
                rows.add(record.stream().map(CsvTable::harmful).toList());
            }
        } catch (IOException | java.io.UncheckedIOException fault) {
            throw new TableFault("after row " + rows.size()
                    + " the table cannot be read: a quote is not closed, or something stands behind a closing quote");
        }
        if (rows.isEmpty()) {
            throw new TableFault("the table is empty");
        }
        return rows;
    }

    private static String text(byte[] bytes) {
        if (bytes.length > 1
                && (bytes[0] == (byte) 0xFE && bytes[1] == (byte) 0xFF
                        || bytes[0] == (byte) 0xFF && bytes[1] == (byte) 0xFE)) {
            return new String(bytes, StandardCharsets.UTF_16);
        }
        String text;
        try {
            text = StandardCharsets.UTF_8
                    .newDecoder()
                    .onMalformedInput(CodingErrorAction.REPORT)
                    .decode(ByteBuffer.wrap(bytes))
                    .toString();
        } catch (CharacterCodingException _) {
            text = new String(bytes, OTHERWISE);
        }
        return !text.isEmpty() && text.charAt(0) == BYTE_ORDER_MARK ? text.substring(1) : text;
    }

    private static char delimiter(String text) {
        int end = text.indexOf('\n');
        String first = end < 0 ? text : text.substring(0, end);
        char best = ',';
        long most = 0;
        for (char delimiter : DELIMITERS) {
            long count = first.chars().filter(c -> c == delimiter).count();
            if (count > most) {
                most = count;
                best = delimiter;
            }
        }
        return best;
    }

    private static String harmful(String cell) {
        return cell.length() > 1 && cell.charAt(0) == '\'' && BEGINS_FORMULA.indexOf(cell.charAt(1)) >= 0
                ? cell.substring(1)
                : cell;
    }

    public static String harmless(String cell) {
        return !cell.isEmpty() && BEGINS_FORMULA.indexOf(cell.charAt(0)) >= 0 ? "'" + cell : cell;
    }

    /** Writes a table with commas and, so that spreadsheets know its encoding, a byte order mark. */
    public static String write(List<List<String>> rows) {
        StringBuilder text = new StringBuilder().append(BYTE_ORDER_MARK);
        try (CSVPrinter printer = new CSVPrinter(text, CSVFormat.RFC4180)) {
            for (List<String> row : rows) {
                printer.printRecord(row.stream().map(CsvTable::harmless).toList());
            }
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
        return text.toString();
    }
}
