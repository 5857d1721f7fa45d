package pyrite.bench;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import org.springframework.core.io.Resource;
import org.springframework.core.io.support.PathMatchingResourcePatternResolver;

/** Generates texts for measurements. */
final class Texts {
    private Texts() {}

    /**
     * The demo model so many times, each in a package of its own: 57 kB and 1,098 elements a time, of every kind people
     * write.
     */
    static String demos(int count) {
        String demo = String.join("\n", demo());
        StringBuilder text = new StringBuilder();
        for (int i = 0; i < count; i++) {
            text.append("package M").append(i).append(" {\n").append(demo).append("}\n");
        }
        return text.toString();
    }

    private static List<String> demo() {
        try {
            List<String> texts = new ArrayList<>();
            for (Resource part :
                    new PathMatchingResourcePatternResolver().getResources("classpath*:examples/merrow/*.sysml")) {
                texts.add(part.getContentAsString(StandardCharsets.UTF_8));
            }
            return texts;
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    /** Definitions with values and units, and usages of them: about 200 elements a package. */
    static String packages(int count) {
        StringBuilder text = new StringBuilder();
        for (int p = 0; p < count; p++) {
            text.append("package P").append(p).append(" {\nprivate import ISQ::*; private import SI::*;\n");
            for (int d = 0; d < 40; d++) {
                text.append("part def D")
                        .append(d)
                        .append(" {\ndoc /* A definition of some length, as people write them. */\n")
                        .append("attribute mass : MassValue = ")
                        .append(d)
                        .append(" [kg];\nattribute weight : ForceValue = mass * 9.81 [m/s^2];\n}\n")
                        .append("part d")
                        .append(d)
                        .append(" : D")
                        .append(d)
                        .append(";\n");
            }
            text.append("}\n");
        }
        return text.toString();
    }
}
