package pyrite.app;

import static org.assertj.core.api.Assertions.assertThat;
import static org.awaitility.Awaitility.await;

import java.io.BufferedReader;
import java.io.IOException;
import java.io.InputStream;
import java.io.InputStreamReader;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.Timeout;
import pyrite.app.runs.Jobs;
import pyrite.app.security.People;
import pyrite.app.store.RunRecord;
import pyrite.app.store.RunStore;
import pyrite.app.workspace.Events;
import pyrite.core.model.Edit;

/** What open pages are told, and runs as jobs in the background. */
@Timeout(120)
class LiveTest extends InProject {
    private BufferedReader events;

    @BeforeEach
    void listen() throws Exception {
        Session tam = new Session(merrow.address()).signIn("tam", "merrow");
        events = new BufferedReader(
                new InputStreamReader(tam.open("/events?of=merrow/main").body(), StandardCharsets.UTF_8));
    }

    @AfterEach
    void stop() throws IOException {
        events.close();
    }

    /** Reads on to the next event of a kind and gives its data. */
    private String next(String event) throws IOException {
        for (String line = events.readLine(); line != null; line = events.readLine()) {
            if (line.equals("event:" + event)) {
                return events.readLine();
            }
        }
        throw new AssertionError("the stream ended before " + event);
    }

    private String end(long run) throws IOException {
        String data = next("run");
        while (!data.contains("\"done\":true")) {
            assertThat(data).contains("\"id\":" + run);
            data = next("run");
        }
        return data;
    }

    @Test
    void aPageIsToldTheRevisionItStartsFromAndEveryOneAfterIt() throws Exception {
        assertThat(next("hello")).contains("\"number\":1");
        merrow.workspace()
                .commit(
                        merrow.branch(),
                        1,
                        Edit.put(merrow.named("sea").withName("ocean")),
                        merrow.person("odo"),
                        "sea → ocean");
        assertThat(next("revision")).contains("\"number\":2", "\"author\":\"odo\"");
    }

    @Test
    void aRunTellsItsProgressAndItsEnd() throws Exception {
        merrow.change("surgeCheck", "stopTime", "5 [h]");
        long run = merrow.bean(Jobs.class).start(merrow.head(), merrow.named("surgeCheck"), merrow.person("ines"));
        assertThat(next("run")).contains("\"done\":false", "\"fraction\":");
        assertThat(end(run)).contains("\"id\":" + run);
        assertThat(merrow.bean(RunStore.class)
                        .find(merrow.branch(), run)
                        .orElseThrow()
                        .status())
                .isEqualTo(RunRecord.Status.DONE);
        assertThat(merrow.bean(Jobs.class).progress(run)).isEmpty();
    }

    @Test
    void aCancelledRunEndsSoonAndSaysWhere() throws Exception {
        merrow.change("surgeCheck", "stopTime", "5000 [h]");
        Jobs jobs = merrow.bean(Jobs.class);
        long run = jobs.start(merrow.head(), merrow.named("surgeCheck"), merrow.person("ines"));
        next("run");
        jobs.cancel(run);
        end(run);
        assertThat(merrow.bean(RunStore.class).find(merrow.branch(), run).orElseThrow())
                .satisfies(record -> {
                    assertThat(record.status()).isEqualTo(RunRecord.Status.CANCELLED);
                    assertThat(record.message()).startsWith("cancelled");
                });
    }

    @NewProject
    @Test
    void aRunGoesByTheRevisionItWasStartedOn() throws Exception {
        merrow.change("surgeCheck", "stopTime", "5 [h]");
        long run = merrow.bean(Jobs.class).start(merrow.head(), merrow.named("surgeCheck"), merrow.person("ines"));
        merrow.change("Basin", "area", "5000 [m^2]");
        end(run);
        assertThat(merrow.bean(RunStore.class)
                        .find(merrow.branch(), run)
                        .orElseThrow()
                        .revisionNumber())
                .isEqualTo(2);
    }

    @NewProject
    @Test
    void theStreamOfWhoeverIsShutOutEnds() throws Exception {
        assertThat(next("hello")).contains("\"number\":1");
        merrow.bean(People.class).setActive(merrow.person("admin"), "tam", false);
        assertThat(untilTheEnd()).noneMatch(line -> line.startsWith("event:"));
    }

    /** The eleventh of ten that one person may have ends the first, and those that nobody reads are forgotten. */
    @Test
    void ofTooManyStreamsTheOldestEndsAndDroppedOnesAreForgotten() throws Exception {
        Session odo = new Session(merrow.address()).signIn("odo", "merrow");
        List<BufferedReader> streams = new ArrayList<>();
        for (int i = 0; i < 11; i++) {
            streams.add(new BufferedReader(
                    new InputStreamReader(odo.open("/events?of=merrow/main").body(), StandardCharsets.UTF_8)));
        }
        assertThat(streams.getFirst().lines()).contains("event:enough");
        Events open = merrow.bean(Events.class);
        assertThat(open.open()).isEqualTo(11);
        for (BufferedReader stream : streams) {
            stream.close();
        }
        await().until(() -> open.open() == 1);
    }

    /** A reader that does not read holds up nobody: the commit is there at once. */
    @NewProject
    @Test
    void aSlowReaderHoldsUpNobody() throws Exception {
        Session odo = new Session(merrow.address()).signIn("odo", "merrow");
        try (InputStream unread = odo.open("/events?of=merrow/main").body()) {
            Events open = merrow.bean(Events.class);
            Map<String, String> large = Map.of("text", "x".repeat(100_000));
            for (int i = 0; i < 300; i++) {
                open.publish(merrow.branch().id(), "run", large);
            }
            merrow.change("Basin", "area", "5000 [m^2]");
            assertThat(merrow.head().number()).isEqualTo(2);
            assertThat(unread.read()).isNotNegative();
        }
    }

    /** What still comes until the server ends the stream or cuts it off. */
    private List<String> untilTheEnd() {
        List<String> lines = new ArrayList<>();
        try {
            for (String line = events.readLine(); line != null; line = events.readLine()) {
                lines.add(line);
            }
        } catch (IOException cutOff) {
            return lines;
        }
        return lines;
    }
}
