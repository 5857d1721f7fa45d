package pyrite.bench;

/** Texts to measure with: packages of definitions with values and units, and usages of them. */
final class Texts {
    private Texts() {
    }

    /** About 200 elements a package. */
    static String packages(int count) {
        StringBuilder text = new StringBuilder();
        for (int p = 0; p < count; p++) {
            text.append("package P").append(p).append(" {\nprivate import ISQ::*; private import SI::*;\n");
            for (int d = 0; d < 40; d++) {
                text.append("part def D").append(d).append(" {\ndoc /* A definition of some length, as people write them. */\n")
                        .append("attribute mass : MassValue = ").append(d).append(" [kg];\nattribute weight : ForceValue = mass * 9.81 [m/s^2];\n}\n")
                        .append("part d").append(d).append(" : D").append(d).append(";\n");
            }
            text.append("}\n");
        }
        return text.toString();
    }
}
