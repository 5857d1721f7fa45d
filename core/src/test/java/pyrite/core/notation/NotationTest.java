package pyrite.core.notation;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import org.junit.jupiter.api.Test;
import pyrite.core.Models;
import pyrite.core.model.Model;

class NotationTest {
    private static String tank() throws IOException {
        try (InputStream in = NotationTest.class.getResourceAsStream("/tank.sysml")) {
            return new String(in.readAllBytes(), StandardCharsets.UTF_8);
        }
    }

    @Test
    void canonicalTextIsWrittenAsItWasRead() throws IOException {
        Model model = Models.read(tank());
        assertThat(NotationWriter.write(model, model.ownRoots())).isEqualTo(tank());
    }
}
