package pyrite.app;

import java.io.IOException;
import java.io.InputStream;
import java.net.CookieManager;
import java.net.URI;
import java.net.URLEncoder;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.charset.StandardCharsets;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/** A visitor with cookies who asks by hand and not through the pages. */
final class Session {
    private static final Pattern TOKEN =
            Pattern.compile("name=\"_csrf\"[^>]*value=\"([^\"]+)\"|csrf-token\" content=\"([^\"]+)\"");

    private static final Pattern SECRET = Pattern.compile("id=\"secret\"[^>]*>([^<]+)<");

    private final String address;
    private final HttpClient client = HttpClient.newBuilder()
            .cookieHandler(new CookieManager())
            .followRedirects(HttpClient.Redirect.NORMAL)
            .build();

    Session(String address) {
        this.address = address;
    }

    HttpResponse<String> get(String path) throws IOException, InterruptedException {
        return client.send(request(path).build(), HttpResponse.BodyHandlers.ofString());
    }

    /** An answer that goes on, such as a stream of events. */
    HttpResponse<InputStream> open(String path) throws IOException, InterruptedException {
        return client.send(request(path).build(), HttpResponse.BodyHandlers.ofInputStream());
    }

    HttpResponse<String> post(String path, String type, String body, String token)
            throws IOException, InterruptedException {
        return client.send(
                request(path)
                        .header("Content-Type", type)
                        .header("X-CSRF-TOKEN", token)
                        .header("X-Requested-With", path.equals("/sign-in") ? "" : "fetch")
                        .POST(HttpRequest.BodyPublishers.ofString(body))
                        .build(),
                HttpResponse.BodyHandlers.ofString());
    }

    private HttpRequest.Builder request(String path) {
        return HttpRequest.newBuilder(URI.create(address + path));
    }

    Session signIn(String name, String password) throws IOException, InterruptedException {
        String token = token("/sign-in");
        post(
                "/sign-in",
                "application/x-www-form-urlencoded",
                "username=" + name + "&password=" + URLEncoder.encode(password, StandardCharsets.UTF_8) + "&_csrf="
                        + URLEncoder.encode(token, StandardCharsets.UTF_8),
                token);
        return this;
    }

    /** Posts typed text as a page of the demo project would, looking at revision 1. */
    HttpResponse<String> edit(String path, String text) throws IOException, InterruptedException {
        return type("/p/merrow/main", path, text, 1);
    }

    /** Posts typed text as a page of a branch would, looking at a revision. */
    HttpResponse<String> type(String branch, String path, String text, int base)
            throws IOException, InterruptedException {
        return post(
                branch + path,
                "application/json",
                "{\"text\":\"" + text + "\",\"base\":" + base + "}",
                token(branch + "/requirements"));
    }

    String token(String path) throws IOException, InterruptedException {
        Matcher matcher = TOKEN.matcher(get(path).body());
        return matcher.find() ? matcher.group(1) != null ? matcher.group(1) : matcher.group(2) : "";
    }

    /** A personal access token of whoever is signed in. */
    String tokenForScripts() throws IOException, InterruptedException {
        String csrf = token("/account");
        String page = post(
                        "/account/tokens", "application/x-www-form-urlencoded", "name=test&days=1&_csrf=" + csrf, csrf)
                .body();
        Matcher matcher = SECRET.matcher(page);
        if (!matcher.find()) {
            throw new IllegalStateException("no token is shown: " + page);
        }
        return matcher.group(1);
    }
}
