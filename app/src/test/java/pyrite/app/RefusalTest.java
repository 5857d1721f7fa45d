package pyrite.app;

import static org.assertj.core.api.Assertions.assertThat;

import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpRequest.BodyPublishers;
import java.net.http.HttpResponse;
import java.util.List;
import java.util.concurrent.Callable;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import pyrite.app.projects.Projects;
import pyrite.app.store.Branch;

/** Every refusal is a sentence, and what is meant well is not refused. */
class RefusalTest extends InSession {
    private HttpResponse<String> withToken(String method, String path) throws Exception {
        String token = new Session(merrow.address()).signIn("tam", "merrow").tokenForScripts();
        return HttpClient.newHttpClient()
                .send(
                        HttpRequest.newBuilder(URI.create(merrow.address() + path))
                                .header("Authorization", "Bearer " + token)
                                .method(method, BodyPublishers.noBody())
                                .build(),
                        HttpResponse.BodyHandlers.ofString());
    }

    @ParameterizedTest
    @CsvSource({
        "/p/merrow/main/changes/99999999999, 'cannot be the number of an address; a whole number up to 2147483647'",
        "/p/merrow/main/runs/x, 'a whole number stands there'",
        "/p/merrow/main/lists, 'Pyrite says: there is nothing at /p/merrow/main/lists.'",
        "/p/merrow/main/requirements?at=99999999999, 'is no number of a revision'",
        "/p/merrow/main/requirements/rows.json?from=one, 'cannot be the from of an address'",
        "/p/merrow/main/attachments/7, 'an id, which is a UUID, stands there'"
    })
    void anAddressThatCannotBeReadSaysWhatStandsThere(String path, String sentence) throws Exception {
        HttpResponse<String> answer = ines.get(path);
        assertThat(answer.statusCode()).isBetween(400, 404);
        assertThat(answer.body()).contains(sentence).doesNotContain("Failed to convert", "Internal error");
    }

    @Test
    void aCharacterThatNobodyCanSeeIsRefusedWhereverItIsTyped() throws Exception {
        String id = merrow.named("closesInTime").id().toString();
        assertThat(ines.edit("/element/" + id + "/text", "The gate\\u0000 shall close.")
                        .body())
                .contains("its text has a character that no text may hold, U+0000 behind 'The gate'");
        String file = "--x\r\nContent-Disposition: form-data; name=\"base\"\r\n\r\n"
                + merrow.head().number() + "\r\n--x\r\nContent-Disposition: form-data; name=\"file\"; "
                + "filename*=UTF-8''a%00.txt\r\nContent-Type: text/plain\r\n\r\nhello\r\n--x--\r\n";
        HttpResponse<String> answer = ines.post(
                "/p/merrow/main/element/" + id + "/attachments",
                "multipart/form-data; boundary=x",
                file,
                ines.token("/p/merrow/main/requirements"));
        assertThat(answer.statusCode()).as(answer.body()).isBetween(400, 422);
        assertThat(answer.body()).doesNotContain("Internal");
    }

    @Test
    void aScriptWithATokenReadsPagesAndTheirHeads() throws Exception {
        assertThat(withToken("GET", "/p/merrow/main/requirements").statusCode()).isEqualTo(200);
        for (String path : List.of("/p/merrow/main/requirements", "/api/projects", "/p/merrow/main/overview?at=1")) {
            HttpResponse<String> head = withToken("HEAD", path);
            assertThat(head.statusCode()).as(path).isEqualTo(200);
            assertThat(head.body()).isEmpty();
        }
        assertThat(withToken("HEAD", "/p/merrow/main/requirements?at=777").statusCode())
                .isEqualTo(404);
    }

    @Test
    void projectsOfOneNameThatAreBegunAtOnceGetAnAddressEach() throws Exception {
        Projects projects = merrow.bean(Projects.class);
        try (ExecutorService threads = Executors.newFixedThreadPool(8)) {
            List<Callable<Branch>> begun = IntStream.range(0, 16)
                    .<Callable<Branch>>mapToObj(_ -> () -> projects.begin(merrow.person("odo"), "Lock gates"))
                    .toList();
            List<String> addresses = new java.util.ArrayList<>();
            for (var branch : threads.invokeAll(begun)) {
                addresses.add(branch.get().address());
            }
            assertThat(addresses).doesNotHaveDuplicates().hasSize(16).contains("/p/lock-gates/main");
        }
    }
}
