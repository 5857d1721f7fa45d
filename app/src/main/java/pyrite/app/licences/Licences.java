package pyrite.app.licences;

import java.io.IOException;
import java.io.InputStream;
import java.util.List;
import org.jspecify.annotations.Nullable;
import org.springframework.core.io.ClassPathResource;
import tools.jackson.databind.json.JsonMapper;

/** The licences of everything in the jar, as the build writes them ({@code frontend/licences.mjs}). */
record Licences(List<Component> components, List<Text> texts) {
    /**
     * A library, font or icon set.
     *
     * @param address of its home page; empty if it states none
     * @param licences SPDX identifiers; one of them may be chosen
     * @param notice its own licence file; null if only the text of the licence applies
     */
    record Component(
            String name,
            String version,
            String address,
            List<String> licences,
            @Nullable String notice) {}

    /** The text of a licence. */
    record Text(String id, String name, String text) {}

    static Licences read() throws IOException {
        try (InputStream json = new ClassPathResource("licences.json").getInputStream()) {
            return JsonMapper.shared().readValue(json, Licences.class);
        }
    }
}
