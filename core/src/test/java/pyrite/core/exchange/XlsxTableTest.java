package pyrite.core.exchange;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.Map;
import java.util.zip.ZipEntry;
import java.util.zip.ZipOutputStream;
import org.junit.jupiter.api.Test;

/** Workbooks written by hand after ISO/IEC 29500-1, clause 18, and hostile ones. */
class XlsxTableTest {
    private static final String MAIN = "http://schemas.openxmlformats.org/spreadsheetml/2006/main";
    private static final String OFFICE = "http://schemas.openxmlformats.org/officeDocument/2006/relationships";
    private static final String PACKAGE = "http://schemas.openxmlformats.org/package/2006/relationships";

    private static byte[] zip(Map<String, byte[]> entries) throws IOException {
        ByteArrayOutputStream bytes = new ByteArrayOutputStream();
        try (ZipOutputStream zip = new ZipOutputStream(bytes)) {
            for (Map.Entry<String, byte[]> entry : entries.entrySet()) {
                zip.putNextEntry(new ZipEntry(entry.getKey()));
                zip.write(entry.getValue());
                zip.closeEntry();
            }
        }
        return bytes.toByteArray();
    }

    private static byte[] xml(String text) {
        return ("<?xml version=\"1.0\" encoding=\"UTF-8\" standalone=\"yes\"?>" + text)
                .getBytes(StandardCharsets.UTF_8);
    }

    private static String override(String part, String type) {
        return "<Override PartName=\"/xl/" + part
                + ".xml\" ContentType=\"application/vnd.openxmlformats-officedocument.spreadsheetml." + type
                + "+xml\"/>";
    }

    private static byte[] workbook(String rows) throws IOException {
        return zip(Map.of(
                "[Content_Types].xml",
                xml("<Types xmlns=\"http://schemas.openxmlformats.org/package/2006/content-types\">"
                        + "<Default Extension=\"rels\" ContentType=\"application/vnd.openxmlformats-package.relationships+xml\"/>"
                        + "<Default Extension=\"xml\" ContentType=\"application/xml\"/>"
                        + override("workbook", "sheet.main") + override("sharedStrings", "sharedStrings")
                        + override("styles", "styles") + override("worksheets/sheet1", "worksheet") + "</Types>"),
                "_rels/.rels",
                xml("<Relationships xmlns=\"" + PACKAGE + "\"><Relationship Id=\"rId1\" Type=\"" + OFFICE
                        + "/officeDocument\" Target=\"xl/workbook.xml\"/></Relationships>"),
                "xl/workbook.xml",
                xml("<workbook xmlns=\"" + MAIN + "\" xmlns:r=\"" + OFFICE
                        + "\"><sheets><sheet name=\"Needs\" sheetId=\"1\" r:id=\"rId1\"/></sheets></workbook>"),
                "xl/_rels/workbook.xml.rels",
                xml("<Relationships xmlns=\"" + PACKAGE + "\"><Relationship Id=\"rId1\" Type=\"" + OFFICE
                        + "/worksheet\" Target=\"worksheets/sheet1.xml\"/><Relationship Id=\"rId2\" Type=\"" + OFFICE
                        + "/sharedStrings\" Target=\"sharedStrings.xml\"/><Relationship Id=\"rId3\" Type=\"" + OFFICE
                        + "/styles\" Target=\"styles.xml\"/></Relationships>"),
                "xl/sharedStrings.xml",
                xml("<sst xmlns=\"" + MAIN + "\"><si><t>Id</t></si><si><t>Text</t></si>"
                        + "<si><r><t>The gate </t></r><r><t>closes.</t></r></si></sst>"),
                "xl/styles.xml",
                xml("<styleSheet xmlns=\"" + MAIN + "\"><cellXfs count=\"2\"><xf numFmtId=\"0\"/>"
                        + "<xf numFmtId=\"14\" applyNumberFormat=\"1\"/></cellXfs></styleSheet>"),
                "xl/worksheets/sheet1.xml",
                xml("<worksheet xmlns=\"" + MAIN + "\"><sheetData>" + rows + "</sheetData></worksheet>")));
    }

    @Test
    void textsNumbersDatesAndLastValuesOfFormulasAreRead() throws IOException {
        byte[] bytes = workbook("""
                <row r="1"><c r="A1" t="s"><v>0</v></c><c r="B1" t="s"><v>1</v></c><c r="D1" t="inlineStr"><is><t>Due</t></is></c></row>
                <row r="3"><c r="A3" t="inlineStr"><is><t>MG-1</t></is></c><c r="B3" t="s"><v>2</v></c><c r="C3"><v>1.2E7</v></c>
                  <c r="D3" s="1"><v>46356</v></c></row>
                <row r="4"><c r="C4"><v>0.10000000000000001</v></c></row>
                <row r="5"><c r="C5"><f>C3*2</f><v>24000000</v></c></row>
                """);
        assertThat(XlsxTable.isOne(bytes)).isTrue();
        assertThat(XlsxTable.read(bytes, 10))
                .containsExactly(
                        List.of("Id", "Text", "", "Due"),
                        List.of("MG-1", "The gate closes.", "12000000", "2026-11-30"),
                        List.of("", "", "0.1", ""),
                        List.of("", "", "24000000", ""));
    }

    @Test
    void whatIsWrittenIsReadAgain() throws IOException {
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        List<List<String>> rows = List.of(List.of("id", "text"), List.of("G-1", "=1+1"), List.of("G-2", "ä \"ö\"\nü"));
        Spreadsheet.write(out, "Gate", rows);
        assertThat(XlsxTable.read(out.toByteArray(), 10)).isEqualTo(rows);
    }

    @Test
    void aWorkbookWithoutFormatsAndSharedTextsIsRead() throws IOException {
        String sheet =
                "<sheetData><row r=\"1\"><c r=\"A1\" t=\"inlineStr\"><is><t>Id</t></is></c><c r=\"B1\"><v>46356</v></c>"
                        + "</row></sheetData>";
        byte[] bytes = zip(Map.of(
                "[Content_Types].xml",
                xml("<Types xmlns=\"http://schemas.openxmlformats.org/package/2006/content-types\">"
                        + "<Default Extension=\"rels\" ContentType=\"application/vnd.openxmlformats-package.relationships+xml\"/>"
                        + override("workbook", "sheet.main") + override("worksheets/sheet1", "worksheet") + "</Types>"),
                "_rels/.rels",
                xml("<Relationships xmlns=\"" + PACKAGE + "\"><Relationship Id=\"rId1\" Type=\"" + OFFICE
                        + "/officeDocument\" Target=\"xl/workbook.xml\"/></Relationships>"),
                "xl/workbook.xml",
                xml("<workbook xmlns=\"" + MAIN + "\" xmlns:r=\"" + OFFICE
                        + "\"><sheets><sheet name=\"Needs\" sheetId=\"1\" r:id=\"rId1\"/></sheets></workbook>"),
                "xl/_rels/workbook.xml.rels",
                xml("<Relationships xmlns=\"" + PACKAGE + "\"><Relationship Id=\"rId1\" Type=\"" + OFFICE
                        + "/worksheet\" Target=\"worksheets/sheet1.xml\"/></Relationships>"),
                "xl/worksheets/sheet1.xml",
                xml("<worksheet xmlns=\"" + MAIN + "\">" + sheet + "</worksheet>")));
        assertThat(XlsxTable.read(bytes, 10)).containsExactly(List.of("Id", "46356"));
    }

    @Test
    void badFilesAreRefusedWithWhatWouldBeRight() throws IOException {
        assertThat(XlsxTable.isOne("id;text".getBytes(StandardCharsets.UTF_8))).isFalse();
        assertRefused(workbook(""), "has no rows");
        assertRefused(zip(Map.of("a.txt", new byte[3])), "no workbook");
        byte[] whole = workbook("<row r=\"1\"><c r=\"A1\"><v>1</v></c></row>");
        assertRefused(java.util.Arrays.copyOf(whole, whole.length / 2), "save it again");
        assertThatThrownBy(() -> XlsxTable.read(
                        workbook(
                                "<row r=\"1\"><c r=\"A1\"><v>1</v></c></row><row r=\"2\"><c r=\"A2\"><v>1</v></c></row>"),
                        1))
                .hasMessageContaining("more than 1 rows");
    }

    @Test
    void aSmallFileThatUnpacksToAVeryLargeOneIsRefused() throws IOException {
        assertRefused(zip(Map.of("xl/worksheets/sheet1.xml", new byte[300 << 20])), "unpacks to more than");
    }

    @Test
    void nothingIsFetchedForAWorkbook() throws IOException {
        Map<String, byte[]> entries = Map.of(
                "xl/workbook.xml",
                ("<!DOCTYPE a [<!ENTITY e SYSTEM \"file:///etc/hostname\">]><workbook xmlns=\"" + MAIN
                                + "\">&e;</workbook>")
                        .getBytes(StandardCharsets.UTF_8));
        assertThatThrownBy(() -> XlsxTable.read(zip(entries), 10)).isInstanceOf(CsvTable.TableFault.class);
    }

    private static void assertRefused(byte[] bytes, String message) {
        assertThatThrownBy(() -> XlsxTable.read(bytes, 10))
                .isInstanceOf(CsvTable.TableFault.class)
                .hasMessageContaining(message);
    }
}
