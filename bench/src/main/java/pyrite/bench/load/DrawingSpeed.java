package pyrite.bench.load;

import java.io.IOException;
import java.net.http.HttpResponse;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Random;
import org.openqa.selenium.By;
import org.openqa.selenium.chrome.ChromeDriver;
import org.openqa.selenium.chrome.ChromeDriverService;
import org.openqa.selenium.chrome.ChromeOptions;
import org.openqa.selenium.support.ui.WebDriverWait;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/**
 * A drawing of 500 boxes and 800 lines in Chromium: frames a second while nothing happens, and while it is panned,
 * zoomed and a box is dragged; how long the server takes for its data, and for an edit.
 *
 * <p>{@code bin/pyrite bench drawing}. Rendering is by software, as on a machine without a graphics processor.
 */
public final class DrawingSpeed implements AutoCloseable {
    private static final int BOXES = 500;
    private static final int LINES = 800;
    private static final int FRAMES = 120;
    private static final Duration PATIENCE = Duration.ofSeconds(90);
    private static final Duration SETTLING = Duration.ofSeconds(15);

    /** Runs a step in each frame and hands back the lengths of the frames, ms. */
    private static final String MEASURED = """
            const done = arguments[0];
            const canvas = document.getElementById('canvas').canvas;
            const spans = [];
            let last = performance.now();
            let n = 0;
            const frame = (now) => {
              spans.push(now - last);
              last = now;
              n++;
              if (n > %d) { done(spans.slice(1)); return; }
              %s
              requestAnimationFrame(frame);
            };
            requestAnimationFrame(frame);
            """;

    /** Takes the box nearest to the middle and leads it to and fro; Escape puts it back. */
    private static final String DRAG = """
            const at = (type, x, y) => new PointerEvent(type, { bubbles: true, button: 0, clientX: x, clientY: y });
            if (n === 1) {
              const middle = canvas.host.getBoundingClientRect();
              const far = (box) => {
                const { left, top } = box.getBoundingClientRect();
                return Math.hypot(left - middle.left - middle.width / 2, top - middle.top - middle.height / 2);
              };
              const box = [...document.querySelectorAll('.box .box')].sort((a, b) => far(a) - far(b))[0];
              const title = box.querySelector('.title').getBoundingClientRect();
              window.grip = [title.left + title.width / 2, title.top + title.height / 2];
              box.querySelector('.title').dispatchEvent(at('pointerdown', ...window.grip));
            } else if (n < 119) {
              const to = n % 60 < 30 ? n % 60 : 60 - (n % 60);
              dispatchEvent(at('pointermove', window.grip[0] + 6 * to, window.grip[1] + 3 * to));
            } else {
              dispatchEvent(new KeyboardEvent('keydown', { key: 'Escape' }));
            }
            """;

    private final OwnServer server;

    private DrawingSpeed(Path jar) throws IOException {
        this.server = new OwnServer(jar);
    }

    /** @param arguments the server's jar */
    public static void main(String[] arguments) throws Exception {
        try (DrawingSpeed speed = new DrawingSpeed(Path.of(arguments[0]))) {
            speed.run();
        }
    }

    private void run() throws Exception {
        SignedIn admin = server.firstSignIn();
        HttpResponse<String> made =
                admin.post("/p/merrow/main/members", Map.of("text", plant(), "base", number(admin)));
        if (made.statusCode() != 200) {
            throw new IOException(made.body());
        }
        String plant = element(admin, "LargePlant");
        List<Double> data = new ArrayList<>();
        for (int i = 0; i < 6; i++) {
            data.add(took(
                    () -> admin.post(plant + "/drawing.json", Map.of("form", "INTERCONNECTION", "seen", Map.of()))));
        }
        System.out.printf(
                "data of %d boxes and %d lines: %.0f ms the first time, then %.0f ms%n",
                BOXES,
                LINES,
                data.getFirst(),
                data.stream().skip(1).sorted().toList().get(2));
        frames(plant + "/inside");
        edits(admin);
    }

    private interface Request {
        Object send() throws IOException, InterruptedException;
    }

    private static double took(Request request) throws IOException, InterruptedException {
        long begin = System.nanoTime();
        request.send();
        return (System.nanoTime() - begin) / 1e6;
    }

    private static int number(SignedIn person) throws IOException, InterruptedException {
        String page = person.get("/p/merrow/main/runs").body();
        int at = page.indexOf("data-number=\"") + "data-number=\"".length();
        return Integer.parseInt(page.substring(at, page.indexOf('"', at)));
    }

    private static String element(SignedIn person, String name) throws IOException, InterruptedException {
        return person.json("/p/merrow/main/find?q=" + name)
                .get(0)
                .get("address")
                .asString();
    }

    private static String plant() {
        Random random = new Random(7);
        StringBuilder text = new StringBuilder(
                "package Large { port def Plug { inout item load; }"
                        + " part def Unit { port a : Plug; port b : Plug; port c : Plug; attribute mass = 3; } part def LargePlant {");
        for (int i = 0; i < BOXES; i++) {
            text.append(" part u").append(i).append(" : Unit;");
        }
        List<String> drawn = new ArrayList<>();
        while (drawn.size() < LINES) {
            int from = random.nextInt(BOXES - 1);
            String line = " connect u" + from + "." + "abc".charAt(random.nextInt(3)) + " to u"
                    + Math.min(BOXES - 1, from + 1 + random.nextInt(12)) + "." + "abc".charAt(random.nextInt(3)) + ";";
            if (!drawn.contains(line)) {
                drawn.add(line);
            }
        }
        drawn.forEach(text::append);
        return text.append(" } }").toString();
    }

    private void frames(String path) throws Exception {
        ChromeOptions options = new ChromeOptions();
        options.setBinary("/usr/bin/chromium");
        options.addArguments(
                "--headless=new",
                "--no-sandbox",
                "--disable-gpu",
                "--disable-quic",
                "--no-first-run",
                "--disable-background-networking",
                "--disable-component-update",
                "--disable-sync",
                "--window-size=1280,800",
                "--user-data-dir=" + Files.createTempDirectory("pyrite-chromium"));
        ChromeDriver driver = new ChromeDriver(
                new ChromeDriverService.Builder()
                        .usingDriverExecutable(Path.of("/usr/bin/chromedriver").toFile())
                        .build(),
                options);
        try {
            driver.manage().timeouts().scriptTimeout(PATIENCE);
            driver.get(server.address() + "/sign-in");
            driver.findElement(By.name("username")).sendKeys("admin");
            driver.findElement(By.name("password")).sendKeys("merrow\n");
            new WebDriverWait(driver, PATIENCE)
                    .until(each -> !String.valueOf(each.getCurrentUrl()).contains("sign-in"));
            driver.get(server.address() + path);
            new WebDriverWait(driver, PATIENCE)
                    .until(each -> !each.findElements(By.cssSelector("#canvas[data-shown]"))
                            .isEmpty());
            // What the server compiles and writes after its start takes the same processors.
            Thread.sleep(SETTLING);
            measure(driver, "nothing moves", "");
            for (String where : List.of("all of it in sight", "near")) {
                measure(driver, "pan, " + where, "canvas.viewport.pan(n % 40 < 20 ? 12 : -12, n % 40 < 20 ? 6 : -6);");
                measure(driver, "zoom, " + where, "canvas.viewport.zoom(n % 40 < 20 ? 1.05 : 1 / 1.05);");
                measure(driver, "drag a box, " + where, DRAG);
                driver.executeScript("document.getElementById('canvas').canvas.viewport.zoom(4)");
            }
        } finally {
            driver.quit();
        }
    }

    private static void measure(ChromeDriver driver, String what, String step) {
        List<?> spans = (List<?>) driver.executeAsyncScript(MEASURED.formatted(FRAMES, step));
        double[] sorted = Objects.requireNonNull(spans).stream()
                .mapToDouble(span -> ((Number) span).doubleValue())
                .sorted()
                .toArray();
        System.out.printf(
                "%-28s %4.0f frames a second, the 95th of 100 after %.0f ms%n",
                what, 1000 * sorted.length / Arrays.stream(sorted).sum(), sorted[sorted.length * 95 / 100]);
    }

    /** Edits on a drawing of usual size in a project of 100,000 elements. */
    private static void edits(SignedIn admin) throws IOException, InterruptedException {
        String project = BigProject.make(admin);
        JsonNode found = admin.json(project + "/find?q=Parts0");
        String page = found.get(0).get("address").asString();
        admin.post(page + "/drawing.json", Map.of("form", "GENERAL", "seen", Map.of()));
        String id = page.substring(page.lastIndexOf('/') + 1);
        String pages = admin.get(project + "/runs").body();
        int at = pages.indexOf("data-number=\"") + "data-number=\"".length();
        int base = Integer.parseInt(pages.substring(at, pages.indexOf('"', at)));
        List<Double> edits = new ArrayList<>();
        for (int i = 0; i < 20; i++) {
            int seen = base + i;
            String text = "part def Added" + i + ";";
            edits.add(took(() -> {
                JsonNode answer = JsonMapper.builder()
                        .build()
                        .readTree(
                                admin.post(project + "/element/" + id + "/members", Map.of("text", text, "base", seen))
                                        .body());
                if (!answer.get("saved").asBoolean()) {
                    throw new IOException(answer.toString());
                }
                return answer;
            }));
        }
        List<Double> sorted = edits.stream().sorted().toList();
        System.out.printf(
                "an edit in 100,000 elements: %.0f ms at the median, %.0f ms the slowest of %d%n",
                sorted.get(sorted.size() / 2), sorted.getLast(), sorted.size());
    }

    @Override
    public void close() throws InterruptedException, IOException {
        server.close();
    }
}
