package pyrite.bench.load;

import java.io.IOException;
import java.io.InputStream;
import java.net.CookieManager;
import java.net.URI;
import java.net.URLEncoder;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpRequest.BodyPublishers;
import java.net.http.HttpResponse;
import java.net.http.HttpResponse.BodyHandlers;
import java.nio.charset.StandardCharsets;
import java.time.Duration;
import java.util.Map;
import java.util.stream.Collectors;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/** Somebody in a browser: has a session and the token that pages send with every edit. */
final class SignedIn {
    private static final JsonMapper JSON = JsonMapper.builder().build();
    private static final Duration PATIENCE = Duration.ofMinutes(5);

    private final CookieManager cookies = new CookieManager();
    private final HttpClient http = HttpClient.newBuilder()
            .cookieHandler(cookies)
            .followRedirects(HttpClient.Redirect.NORMAL)
            .version(HttpClient.Version.HTTP_1_1)
            .build();
    private final URI server;
    private final String token;

    SignedIn(URI server, String name, String password) throws IOException, InterruptedException {
        this.server = server;
        String form = send(to("/sign-in").GET().build()).body();
        HttpResponse<String> answer = send(to("/sign-in")
                .header("Content-Type", "application/x-www-form-urlencoded")
                .POST(BodyPublishers.ofString(form(Map.of(
                        "username", name, "password", password, "_csrf", between(form, "name=\"_csrf\"", "value=\"")))))
                .build());
        if (answer.statusCode() != 200 || answer.uri().getPath().startsWith("/sign-in")) {
            throw new IOException(name + " could not sign in: " + answer.statusCode() + " " + answer.uri());
        }
        this.token = between(answer.body(), "name=\"csrf-token\"", "content=\"");
    }

    private static String between(String page, String mark, String before) {
        int tag = page.lastIndexOf('<', page.indexOf(mark));
        int from = page.indexOf(before, tag) + before.length();
        return page.substring(from, page.indexOf('"', from));
    }

    private static String form(Map<String, String> fields) {
        return fields.entrySet().stream()
                .map(field -> field.getKey() + "=" + URLEncoder.encode(field.getValue(), StandardCharsets.UTF_8))
                .collect(Collectors.joining("&"));
    }

    private HttpRequest.Builder to(String path) {
        return HttpRequest.newBuilder(server.resolve(path)).timeout(PATIENCE);
    }

    private HttpResponse<String> send(HttpRequest request) throws IOException, InterruptedException {
        return http.send(request, BodyHandlers.ofString());
    }

    HttpResponse<String> get(String path) throws IOException, InterruptedException {
        return send(to(path).GET().build());
    }

    JsonNode json(String path) throws IOException, InterruptedException {
        return JSON.readTree(get(path).body());
    }

    HttpResponse<String> post(String path, Object body) throws IOException, InterruptedException {
        return send(to(path).header("X-CSRF-TOKEN", token)
                .header("Content-Type", "application/json")
                .POST(BodyPublishers.ofString(JSON.writeValueAsString(body)))
                .build());
    }

    /** A form with a file in it. */
    HttpResponse<String> upload(String path, Map<String, String> fields, String file)
            throws IOException, InterruptedException {
        String line = "--part-of-the-form";
        StringBuilder body = new StringBuilder();
        fields.forEach((name, value) -> body.append(line)
                .append("\r\nContent-Disposition: form-data; name=\"")
                .append(name)
                .append("\"\r\n\r\n")
                .append(value)
                .append("\r\n"));
        body.append(line)
                .append("\r\nContent-Disposition: form-data; name=\"file\"; filename=\"rows.csv\"\r\n")
                .append("Content-Type: text/csv\r\n\r\n")
                .append(file)
                .append("\r\n")
                .append(line)
                .append("--\r\n");
        return send(to(path).header("X-CSRF-TOKEN", token)
                .header("Content-Type", "multipart/form-data; boundary=" + line.substring(2))
                .POST(BodyPublishers.ofString(body.toString()))
                .build());
    }

    /** A stream of events that is open until it is closed. */
    InputStream listen(String of) throws IOException, InterruptedException {
        HttpResponse<InputStream> answer =
                http.send(to("/events?of=" + of).GET().build(), BodyHandlers.ofInputStream());
        if (answer.statusCode() != 200) {
            throw new IOException("no stream: " + answer.statusCode());
        }
        return answer.body();
    }
}
