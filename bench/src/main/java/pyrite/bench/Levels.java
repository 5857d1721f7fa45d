package pyrite.bench;

/**
 * Generates projects of needs, system and subsystem requirements in equal numbers, with links between the levels, as
 * notation.
 */
public final class Levels {
    private static final int IN_A_SECTION = 100;

    private Levels() {}

    /**
     * Prints a project of so many requirements a level, to be read by {@code pyrite check} or pasted into a project.
     */
    public static void main(String[] arguments) {
        System.out.print(text(arguments.length == 0 ? 10_000 : Integer.parseInt(arguments[0])));
    }

    /**
     * Each system requirement answers one need, each subsystem requirement derives from two of the system and a part
     * satisfies it: four links for each requirement of a level.
     */
    static String text(int each) {
        StringBuilder text = new StringBuilder();
        level(
                text,
                "Needs",
                "N",
                "need",
                each,
                "",
                i -> "concern <'N-" + i + "'> n" + i + " { doc /* Somebody wants thing " + i + ". */ }\n");
        level(
                text,
                "Systems",
                "S",
                "system",
                each,
                "private import Needs::**;\n",
                i -> "requirement <'S-" + i + "'> s" + i + " { doc /* The product shall do thing " + i + " within "
                        + (i % 60 + 1) + " s. */ @Managed { status = Status::approved; } frame n" + i + "; }\n");
        level(
                text,
                "Subsystems",
                "T",
                "subsystem",
                each,
                "private import Systems::**;\n",
                i -> "requirement <'T-" + i + "'> t" + i + " { doc /* The unit shall do its share of thing " + i
                        + ". */ #derive dependency t" + i + " to s" + i + ", s" + (i % each + 1) + "; }\n");
        text.append("package Design {\nprivate import Subsystems::**;\n");
        for (int i = 1; i <= each; i++) {
            text.append("part p").append(i).append(" { satisfy t").append(i).append("; }\n");
        }
        return text.append("}\n").toString();
    }

    private static void level(
            StringBuilder text,
            String name,
            String prefix,
            String level,
            int each,
            String imports,
            java.util.function.IntFunction<String> line) {
        text.append("package ")
                .append(name)
                .append(" {\nprivate import Specifications::*;\nprivate import Tracing::*;\n")
                .append(imports)
                .append("@Specification { prefix = \"")
                .append(prefix)
                .append("\"; level = \"")
                .append(level)
                .append("\"; }\n");
        for (int i = 1; i <= each; i++) {
            if (i % IN_A_SECTION == 1) {
                text.append(i == 1 ? "" : "}\n")
                        .append("package 'Section ")
                        .append(i / IN_A_SECTION + 1)
                        .append("' {\n");
            }
            text.append(line.apply(i));
        }
        text.append("}\n}\n");
    }
}
