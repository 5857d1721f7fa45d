package pyrite.core.exchange;

import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.io.InputStream;
import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.Objects;
import java.util.stream.Stream;
import org.apache.commons.compress.archivers.zip.ZipArchiveEntry;
import org.apache.commons.compress.archivers.zip.ZipFile;
import org.dhatim.fastexcel.reader.Cell;
import org.dhatim.fastexcel.reader.CellType;
import org.dhatim.fastexcel.reader.ExcelReaderException;
import org.dhatim.fastexcel.reader.ReadableWorkbook;
import org.dhatim.fastexcel.reader.ReadingOptions;
import org.dhatim.fastexcel.reader.Row;
import org.dhatim.fastexcel.reader.Sheet;
import pyrite.core.exchange.CsvTable.TableFault;

/** The first sheet with rows of a workbook of a spreadsheet (ISO/IEC 29500, SpreadsheetML). */
public final class XlsxTable {
    /** A small file may unpack to a very large one. */
    private static final long MOST_BYTES = 256L << 20;

    private static final int MOST_COLUMNS = 500;
    private static final String DAMAGED = "the workbook is damaged; save it again as .xlsx, or as CSV";
    private static final String STYLES = "xl/styles.xml";

    private XlsxTable() {}

    /** Whether bytes begin as a workbook does, which is a ZIP archive. */
    public static boolean isOne(byte[] bytes) {
        return bytes.length > 3 && bytes[0] == 'P' && bytes[1] == 'K' && bytes[2] == 3 && bytes[3] == 4;
    }

    /**
     * Reads a table: of a formula its last value, of a date the day as 2026-11-30, and no empty rows.
     *
     * @throws TableFault if it is no workbook, has no rows, or more than {@code mostRows}
     */
    public static List<List<String>> read(byte[] bytes, int mostRows) {
        requireModestSize(bytes);
        // Formats tell dates from numbers. The part that holds them may be left out, as simple writers do.
        ReadingOptions options = new ReadingOptions(hasStyles(bytes), true);
        try (ReadableWorkbook workbook = new ReadableWorkbook(new ByteArrayInputStream(bytes), options)) {
            for (Sheet sheet : workbook.getSheets().toList()) {
                List<List<String>> rows = rows(sheet, mostRows);
                if (!rows.isEmpty()) {
                    return rows;
                }
            }
        } catch (IOException | ExcelReaderException | IllegalArgumentException | IllegalStateException fault) {
            throw new TableFault("this is no workbook that can be read; save it again as .xlsx, or as CSV");
        }
        throw new TableFault("the workbook has no rows");
    }

    private static boolean hasStyles(byte[] bytes) {
        try (ZipFile archive = ZipFile.builder().setByteArray(bytes).get()) {
            return archive.getEntry(STYLES) != null;
        } catch (IOException fault) {
            throw new TableFault(DAMAGED);
        }
    }

    private static void requireModestSize(byte[] bytes) {
        byte[] buffer = new byte[1 << 16];
        long size = 0;
        try (ZipFile archive = ZipFile.builder().setByteArray(bytes).get()) {
            for (ZipArchiveEntry entry : Collections.list(archive.getEntries())) {
                try (InputStream content = archive.getInputStream(entry)) {
                    for (int read = content.read(buffer); read >= 0; read = content.read(buffer)) {
                        size += read;
                        if (size > MOST_BYTES) {
                            throw new TableFault(
                                    "the workbook unpacks to more than " + (MOST_BYTES >> 20) + " MB; divide it");
                        }
                    }
                }
            }
        } catch (IOException | IllegalArgumentException fault) {
            throw new TableFault(DAMAGED);
        }
    }

    private static List<List<String>> rows(Sheet sheet, int mostRows) throws IOException {
        List<List<String>> rows = new ArrayList<>();
        try (Stream<Row> stream = sheet.openStream()) {
            for (Row row : (Iterable<Row>) stream::iterator) {
                if (row.getCellCount() > MOST_COLUMNS) {
                    throw new TableFault("row " + row.getRowNum() + " has more than " + MOST_COLUMNS + " columns");
                }
                List<String> cells = row.stream().map(XlsxTable::text).toList();
                if (cells.stream().allMatch(String::isBlank)) {
                    continue;
                }
                if (rows.size() == mostRows) {
                    throw new TableFault("the table has more than " + mostRows + " rows; divide it");
                }
                rows.add(cells);
            }
        }
        int width = rows.stream().mapToInt(List::size).max().orElse(0);
        return rows.stream().map(row -> filled(row, width)).toList();
    }

    /** Rows end with their last cell in the file. */
    private static List<String> filled(List<String> row, int width) {
        List<String> filled = new ArrayList<>(row);
        while (filled.size() < width) {
            filled.add("");
        }
        return List.copyOf(filled);
    }

    private static String text(Cell cell) {
        if (cell == null || cell.getType() == CellType.EMPTY) {
            return "";
        }
        if (cell.getType() == CellType.NUMBER && isDate(cell)) {
            return cell.asDate().toLocalDate().toString();
        }
        String raw = Objects.requireNonNullElse(cell.getText(), "");
        return cell.getType() == CellType.NUMBER ? plain(raw) : raw;
    }

    private static boolean isDate(Cell cell) {
        String format =
                Objects.requireNonNullElse(cell.getDataFormatString(), "").toLowerCase(java.util.Locale.ROOT);
        return format.contains("yy") || format.contains("d/m") || format.contains("m/d") || format.contains("d-m");
    }

    /** A spreadsheet keeps 0.1 as 0.10000000000000001 and 12000000 as 1.2E7. */
    private static String plain(String number) {
        try {
            return BigDecimal.valueOf(Double.parseDouble(number))
                    .stripTrailingZeros()
                    .toPlainString();
        } catch (NumberFormatException _) {
            return number;
        }
    }
}
