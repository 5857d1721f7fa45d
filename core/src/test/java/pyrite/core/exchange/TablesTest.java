package pyrite.core.exchange;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.charset.Charset;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.zip.ZipEntry;
import java.util.zip.ZipFile;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.constraints.Size;
import net.jqwik.api.constraints.StringLength;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

class TablesTest {
    private static List<List<String>> read(String text) {
        return CsvTable.read(text.getBytes(StandardCharsets.UTF_8), 100);
    }

    @Test
    void quotesLineBreaksAndDelimitersAreRead() {
        assertThat(read("id,text\nG-1,\"says \"\"stop\"\",\nthen goes\"\n"))
                .containsExactly(List.of("id", "text"), List.of("G-1", "says \"stop\",\nthen goes"));
        assertThat(read("id;text\nG-1;a, b")).containsExactly(List.of("id", "text"), List.of("G-1", "a, b"));
        assertThat(read("\uFEFFid\ttext\nG-1\tx")).containsExactly(List.of("id", "text"), List.of("G-1", "x"));
    }

    @Test
    void aFileInTheSpreadsheetsOwnEncodingIsRead() {
        assertThat(CsvTable.read("text\n4 °/s über".getBytes(Charset.forName("windows-1252")), 10))
                .containsExactly(List.of("text"), List.of("4 °/s über"));
        assertThat(CsvTable.read("text\n4 °/s über".getBytes(StandardCharsets.UTF_16), 10))
                .containsExactly(List.of("text"), List.of("4 °/s über"));
        assertThat(CsvTable.read("\uFEFFtext\n4 °/s über".getBytes(StandardCharsets.UTF_16LE), 10))
                .containsExactly(List.of("text"), List.of("4 °/s über"));
    }

    @Test
    void whatIsNoTableIsRefusedWithTheReason() {
        assertThatThrownBy(() -> read("")).hasMessageContaining("empty");
        assertThatThrownBy(() -> read("a,b\n\"never closed"))
                .hasMessageContaining("after row 1")
                .hasMessageContaining("a quote is not closed");
        assertThatThrownBy(() -> read("PK\u0003\u0004\0\0")).hasMessageContaining("save the table as CSV");
        assertThatThrownBy(() -> CsvTable.read("x\n".repeat(200_000).getBytes(StandardCharsets.UTF_8), 20_000))
                .hasMessageContaining("more than 20000 rows; divide it");
    }

    @Test
    void aCellThatWouldBeginAFormulaIsMadeHarmless() {
        assertThat(List.of("=1+1", "+1", "-1", "@x", "\tx").stream().map(CsvTable::harmless))
                .containsExactly("'=1+1", "'+1", "'-1", "'@x", "'\tx");
        assertThat(CsvTable.harmless("a=b")).isEqualTo("a=b");
    }

    /** Law: what is written is read again as it was. */
    @Property(tries = 300)
    void tablesComeBackAsTheyWere(
            @ForAll @Size(min = 1, max = 6) List<@Size(min = 2, max = 4) List<@StringLength(max = 8) String>> rows) {
        List<List<String>> even = rows.stream()
                .map(row -> List.of("x" + clean(row.get(0)), clean(row.get(1))))
                .toList();
        assertThat(CsvTable.read(CsvTable.write(even).getBytes(StandardCharsets.UTF_8), 100))
                .isEqualTo(even);
    }

    /**
     * Line ends are written as they are; a text that begins with an apostrophe before a sign of a formula is one that
     * was made harmless.
     */
    private static String clean(String text) {
        String plain = new String(text.getBytes(StandardCharsets.UTF_8), StandardCharsets.UTF_8)
                .replaceAll("[\\x00\\r\\uFEFF]", "");
        return plain.startsWith("'") ? "q" + plain : plain;
    }

    @Test
    void aSpreadsheetHoldsTextsAndNoFormula(@TempDir Path folder) throws IOException {
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        Spreadsheet.write(out, "A/B", List.of(List.of("id", "text"), List.of("G-1", "=HYPERLINK(\"x\")")));
        Path file = Files.write(folder.resolve("table.xlsx"), out.toByteArray());
        try (ZipFile zip = new ZipFile(file.toFile())) {
            ZipEntry sheet = zip.stream()
                    .filter(entry -> entry.getName().startsWith("xl/worksheets/"))
                    .findFirst()
                    .orElseThrow();
            assertThat(new String(zip.getInputStream(sheet).readAllBytes(), StandardCharsets.UTF_8))
                    .contains("<row r=\"2\"")
                    .doesNotContain("<f>");
        }
    }
}
