package pyrite.bench.load;

import java.io.IOException;
import java.io.InputStream;
import java.net.http.HttpResponse;
import java.nio.file.Path;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.concurrent.ConcurrentLinkedQueue;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.TimeUnit;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/**
 * Forty people at one server with a project of 100,000 elements: thirty read, ten edit, streams open and close, one
 * imports 5,000 rows and one runs everything. Says how long answers took, what was refused, and how the heap went.
 *
 * <p>{@code bin/pyrite load [MINUTES]}, ten if none are given. The server is a process of its own with a data folder of
 * its own.
 */
public final class Load implements AutoCloseable {
    private static final int READERS = 30;
    private static final int EDITORS = 10;
    /** Between what a reader asks for and what an editor writes: they look at it, and type. */
    private static final Duration READING = Duration.ofSeconds(3);

    private static final Duration TYPING = Duration.ofSeconds(2);
    private static final int IMPORTED = 5000;

    private final OwnServer server;
    private final Times times = new Times();
    private final ConcurrentLinkedQueue<String> refused = new ConcurrentLinkedQueue<>();
    private final List<String> heap = new ArrayList<>();

    private Load(Path jar) throws IOException {
        this.server = new OwnServer(jar);
    }

    /** @param arguments the server's jar, and for how many minutes */
    public static void main(String[] arguments) throws Exception {
        Duration span = Duration.ofSeconds(Math.round(60 * Double.parseDouble(arguments[1])));
        try (Load load = new Load(Path.of(arguments[0]))) {
            load.run(span);
        }
    }

    private void run(Duration span) throws Exception {
        SignedIn admin = server.firstSignIn();
        System.out.println("Making the project …");
        String project = BigProject.make(admin);
        JsonNode rows =
                admin.json(project + "/requirements/rows.json?count=200").get("rows");
        List<String> lines = new ArrayList<>();
        rows.forEach(row -> {
            if (row.get("type").asString().equals("requirement")) {
                lines.add(row.get("id").asString());
            }
        });
        List<SignedIn> people = new ArrayList<>();
        for (int i = 0; i < READERS + EDITORS; i++) {
            people.add(person(admin, i));
        }
        heap.add("at first " + heapOf(admin));
        System.out.println("Forty people work for " + span.toSeconds() + " s …");
        long end = System.nanoTime() + span.toNanos();
        try (ExecutorService threads = Executors.newVirtualThreadPerTaskExecutor()) {
            for (int i = 0; i < people.size(); i++) {
                int number = i;
                threads.submit(() -> {
                    if (number < READERS) {
                        read(people.get(number), project, lines, end, new Random(number));
                    } else {
                        edit(people.get(number), project, ownLines(lines, number - READERS), end, new Random(number));
                    }
                    return null;
                });
            }
            threads.submit(() -> listen(people, end));
            threads.submit(() -> importRows(people.get(READERS), project));
            threads.submit(() -> runEverything(people.get(READERS + 1), project, end));
            threads.submit(() -> watchHeap(admin, end, span));
        }
        report();
    }

    private SignedIn person(SignedIn admin, int number) throws IOException, InterruptedException {
        String name = "person" + number;
        HttpResponse<String> made = admin.post(
                "/api/people",
                Map.of("signIn", name, "name", "Person " + number, "role", number < READERS ? "viewer" : "engineer"));
        if (made.statusCode() != 201) {
            throw new IOException(made.body());
        }
        return new SignedIn(
                server.address(),
                name,
                JsonMapper.builder()
                        .build()
                        .readTree(made.body())
                        .get("password")
                        .asString());
    }

    private interface Request {
        HttpResponse<?> send() throws IOException, InterruptedException;
    }

    private HttpResponse<?> timed(String kind, Request request) throws IOException, InterruptedException {
        long begin = System.nanoTime();
        HttpResponse<?> answer = request.send();
        times.add(kind, System.nanoTime() - begin);
        if (answer.statusCode() >= 300) {
            refused.add(kind + ": " + answer.statusCode() + " " + shortened(answer.body()));
        }
        return answer;
    }

    private static String shortened(Object body) {
        String text = String.valueOf(body);
        return text.substring(0, Math.min(300, text.length()));
    }

    private void read(SignedIn person, String project, List<String> lines, long end, Random random) throws Exception {
        while (System.nanoTime() < end) {
            String one = lines.get(random.nextInt(lines.size()));
            switch (random.nextInt(10)) {
                case 0, 1 -> get(person, "read requirements", project + "/requirements");
                case 2, 3 -> get(person, "read rows", project + "/requirements/rows.json?from=" + random.nextInt(2500));
                case 4 -> get(person, "read overview", project + "/overview");
                case 5 -> get(person, "read coverage", project + "/coverage");
                case 6 -> get(person, "read recheck", project + "/recheck");
                case 7 -> get(person, "read runs", project + "/runs");
                default -> get(person, "read element", project + "/element/" + one);
            }
            Thread.sleep(random.nextLong(2 * READING.toMillis()));
        }
    }

    private void get(SignedIn person, String kind, String path) throws IOException, InterruptedException {
        timed(kind, () -> person.get(path));
    }

    /** Nobody else edits these, so whatever is refused is refused wrongly. */
    private static List<String> ownLines(List<String> lines, int editor) {
        List<String> own = new ArrayList<>();
        for (int i = editor; i < lines.size(); i += EDITORS) {
            own.add(lines.get(i));
        }
        return own;
    }

    /** From the revision that the last answer told. */
    private void edit(SignedIn person, String project, List<String> lines, long end, Random random) throws Exception {
        int base = number(person, project);
        while (System.nanoTime() < end) {
            String one = lines.get(random.nextInt(lines.size()));
            int seen = base;
            HttpResponse<?> answer = random.nextBoolean()
                    ? timed(
                            "edit text",
                            () -> person.post(
                                    project + "/element/" + one + "/text",
                                    Map.of("text", "The tank shall hold at " + random.nextInt(), "base", seen)))
                    : timed(
                            "edit attribute",
                            () -> person.post(
                                    project + "/requirements/attribute",
                                    Map.of(
                                            "lines",
                                            Map.of("ids", List.of(one), "base", seen),
                                            "attribute",
                                            "rationale",
                                            "value",
                                            "because of " + random.nextInt())));
            base = answer.statusCode() == 409 ? number(person, project) : revision(answer, base);
            Thread.sleep(random.nextLong(2 * TYPING.toMillis()));
        }
    }

    private static int revision(HttpResponse<?> answer, int before) {
        JsonNode label = JsonMapper.builder()
                .build()
                .readTree(String.valueOf(answer.body()))
                .path("revision");
        return label.asString("").startsWith("r")
                ? Integer.parseInt(label.asString().substring(1))
                : before;
    }

    private int number(SignedIn person, String project) throws IOException, InterruptedException {
        String page = person.get(project + "/runs").body();
        int at = page.indexOf("data-number=\"") + "data-number=\"".length();
        return Integer.parseInt(page.substring(at, page.indexOf('"', at)));
    }

    /** Tabs that are opened and closed, and some whose reader goes away without a word. */
    private Void listen(List<SignedIn> people, long end) throws Exception {
        Random random = new Random(1);
        List<InputStream> open = new ArrayList<>();
        while (System.nanoTime() < end) {
            open.add(people.get(random.nextInt(people.size())).listen("load/main"));
            if (open.size() > people.size()) {
                open.removeFirst().close();
            }
            Thread.sleep(100);
        }
        for (InputStream each : open) {
            each.close();
        }
        return null;
    }

    private Void importRows(SignedIn person, String project) throws Exception {
        StringBuilder csv = new StringBuilder("text,rationale\r\n");
        for (int i = 0; i < IMPORTED; i++) {
            csv.append("The pump shall do what line ").append(i).append(" says.,imported\r\n");
        }
        String page = person.get(project + "/requirements/import").body();
        int at = page.indexOf("<option value=\"") + "<option value=\"".length();
        String specification = page.substring(at, page.indexOf('"', at));
        timed(
                "import rows",
                () -> person.upload(
                        project + "/requirements/import",
                        Map.of(
                                "spec",
                                specification,
                                "columns",
                                "text,rationale",
                                "headed",
                                "true",
                                "base",
                                "" + number(person, project)),
                        csv.toString()));
        return null;
    }

    private Void runEverything(SignedIn person, String project, long end) throws Exception {
        while (System.nanoTime() < end) {
            timed("start runs", () -> person.post(project + "/verify-all", Map.of()));
            TimeUnit.SECONDS.sleep(20);
        }
        return null;
    }

    private Void watchHeap(SignedIn admin, long end, Duration span) throws Exception {
        while (System.nanoTime() < end) {
            Thread.sleep(Math.max(1000, span.toMillis() / 5));
            heap.add(heapOf(admin));
        }
        return null;
    }

    /** After a collection, MB: what is really held. */
    private String heapOf(SignedIn admin) throws IOException, InterruptedException {
        new ProcessBuilder(
                        Path.of(System.getProperty("java.home"), "bin", "jcmd").toString(),
                        String.valueOf(server.pid()),
                        "GC.run")
                .redirectErrorStream(true)
                .start()
                .waitFor();
        double used = admin.json("/actuator/metrics/jvm.memory.used?tag=area:heap")
                .get("measurements")
                .get(0)
                .get("value")
                .asDouble();
        return Math.round(used / 1e6) + " MB";
    }

    private void report() {
        System.out.println(times.table());
        System.out.println("heap after a collection: " + String.join(", ", heap));
        System.out.println("refused: " + refused.size());
        refused.stream().distinct().limit(20).forEach(each -> System.out.println("  " + each));
    }

    @Override
    public void close() throws InterruptedException, IOException {
        server.close();
    }
}
