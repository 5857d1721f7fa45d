package pyrite.app;

import java.io.IOException;
import java.net.http.HttpResponse;
import org.junit.jupiter.api.BeforeEach;

/** What the pages of requirements send, sent by hand. */
abstract class InRequirements extends InSession {
    static final String BRANCH = "/p/merrow/main";

    String token;

    @BeforeEach
    void takeToken() throws Exception {
        token = ines.token(BRANCH + "/requirements");
    }

    /** @param json with single quotes for double ones */
    HttpResponse<String> post(String path, String json) throws IOException, InterruptedException {
        return ines.post(BRANCH + path, "application/json", json.replace('\'', '"'), token);
    }

    String id(String name) {
        return merrow.named(name).id().toString();
    }

    int head() {
        return merrow.head().number();
    }
}
