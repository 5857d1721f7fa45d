package pyrite.core.exchange;

import java.io.IOException;
import java.io.OutputStream;
import java.util.List;
import org.dhatim.fastexcel.Workbook;
import org.dhatim.fastexcel.Worksheet;

/** Tables as a spreadsheet file (ISO/IEC 29500). Cells are written as text, so none is a formula. */
public final class Spreadsheet {
    private static final int LONGEST_CELL = 32_767;
    private static final double WIDEST = 80;
    private static final double NARROWEST = 10;
    private static final int LONGEST_NAME = 31;

    private Spreadsheet() {}

    /** Writes one sheet; the first row names the columns. The stream is not closed. */
    public static void write(OutputStream out, String name, List<List<String>> rows) throws IOException {
        try (Workbook book = new Workbook(out, "Pyrite", "1.0")) {
            Worksheet sheet = book.newWorksheet(sheetName(name));
            for (int r = 0; r < rows.size(); r++) {
                List<String> row = rows.get(r);
                for (int c = 0; c < row.size(); c++) {
                    String cell = row.get(c);
                    sheet.value(r, c, cell.length() > LONGEST_CELL ? cell.substring(0, LONGEST_CELL) : cell);
                }
            }
            if (!rows.isEmpty()) {
                columns(sheet, rows);
            }
            sheet.freezePane(0, 1);
        }
    }

    private static void columns(Worksheet sheet, List<List<String>> rows) {
        sheet.range(0, 0, 0, rows.getFirst().size() - 1).style().bold().set();
        for (int c = 0; c < rows.getFirst().size(); c++) {
            int column = c;
            int longest = rows.stream()
                    .limit(200)
                    .filter(row -> row.size() > column)
                    .mapToInt(row -> row.get(column).length())
                    .max()
                    .orElse(0);
            sheet.width(c, Math.min(WIDEST, Math.max(NARROWEST, longest + 2)));
            sheet.range(1, c, Math.max(1, rows.size() - 1), c)
                    .style()
                    .wrapText(true)
                    .verticalAlignment("top")
                    .set();
        }
    }

    private static String sheetName(String name) {
        String allowed = name.replaceAll("[\\\\/?*\\[\\]:]", " ").strip();
        return allowed.isEmpty() ? "Table" : allowed.substring(0, Math.min(LONGEST_NAME, allowed.length()));
    }
}
