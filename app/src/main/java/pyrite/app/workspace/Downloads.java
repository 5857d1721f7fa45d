package pyrite.app.workspace;

import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.util.List;
import pyrite.core.exchange.CsvTable;

/** Sends tables as files, named after their content and revision. */
public final class Downloads {
    private Downloads() {}

    public static void name(
            HttpServletResponse response, String type, String what, Workspace.Head head, String ending) {
        response.setContentType(type);
        response.setHeader(
                "Content-Disposition", "attachment; filename=\"" + what + "-r" + head.number() + "." + ending + "\"");
    }

    public static void csv(HttpServletResponse response, String what, Workspace.Head head, List<List<String>> rows)
            throws IOException {
        name(response, "text/csv;charset=UTF-8", what, head, "csv");
        response.getOutputStream().write(CsvTable.write(rows).getBytes(StandardCharsets.UTF_8));
    }
}
