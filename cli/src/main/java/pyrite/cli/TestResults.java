package pyrite.cli;

import java.io.StringWriter;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import javax.xml.stream.XMLOutputFactory;
import javax.xml.stream.XMLStreamException;
import javax.xml.stream.XMLStreamWriter;
import org.jspecify.annotations.Nullable;

/** Writes verdicts in the XML test-result format of build servers: one test case for each requirement and subject. */
final class TestResults {
    private TestResults() {}

    /** @param rows what {@code verify} found, with the keys of its JSON */
    static String of(List<Map<String, @Nullable Object>> rows) {
        StringWriter text = new StringWriter();
        try {
            XMLStreamWriter xml = XMLOutputFactory.newFactory().createXMLStreamWriter(text);
            xml.writeStartDocument("UTF-8", "1.0");
            xml.writeStartElement("testsuite");
            xml.writeAttribute("name", "requirements");
            xml.writeAttribute("tests", Integer.toString(rows.size()));
            xml.writeAttribute("failures", count(rows, "fail"));
            xml.writeAttribute("errors", count(rows, "error"));
            xml.writeAttribute("skipped", count(rows, "inconclusive"));
            for (Map<String, @Nullable Object> row : rows) {
                test(xml, row);
            }
            xml.writeEndElement();
            xml.writeEndDocument();
            xml.close();
        } catch (XMLStreamException e) {
            throw new IllegalStateException("text in memory can always be written", e);
        }
        return text.toString();
    }

    private static String count(List<Map<String, @Nullable Object>> rows, String verdict) {
        return Long.toString(
                rows.stream().filter(row -> verdict.equals(row.get("verdict"))).count());
    }

    private static void test(XMLStreamWriter xml, Map<String, @Nullable Object> row) throws XMLStreamException {
        xml.writeStartElement("testcase");
        xml.writeAttribute("classname", printable(row.get("requirement")));
        xml.writeAttribute("name", printable(row.get("id")) + " for " + printable(row.get("subject")));
        String element = switch (printable(row.get("verdict"))) {
            case "fail" -> "failure";
            case "error" -> "error";
            case "inconclusive" -> "skipped";
            default -> "";
        };
        if (!element.isEmpty()) {
            xml.writeEmptyElement(element);
            xml.writeAttribute("message", printable(row.get("reason")));
        }
        xml.writeEndElement();
    }

    /** XML has no place for control characters, which a name in quotes may hold. */
    private static String printable(@Nullable Object value) {
        return Objects.toString(value, "").replaceAll("[\\p{Cntrl}&&[^\\n\\t]]", "\uFFFD");
    }
}
