package pyrite.cli;

import java.io.IOException;
import java.io.PrintWriter;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.concurrent.Callable;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;
import pyrite.core.dynamics.RunControl;
import pyrite.core.model.Element;
import pyrite.core.model.ElementKind;
import pyrite.core.model.Model;
import pyrite.core.model.RequirementIds;
import pyrite.core.notation.ReadResult;
import pyrite.core.verification.CaseRun;
import pyrite.core.verification.CaseSetup;
import pyrite.core.verification.Judgement;
import pyrite.core.verification.NotExecuted;
import pyrite.core.verification.StaticJudgement;
import pyrite.core.verification.Subjects;
import pyrite.core.verification.VerdictKind;
import pyrite.core.verification.Wording;
import tools.jackson.databind.json.JsonMapper;

@Command(
        name = "verify",
        description = "Runs every verification and judges every requirement.",
        mixinStandardHelpOptions = true,
        footer = {"", "For instance:  pyrite verify models/ --junit verdicts.xml"})
final class Verify implements Callable<Integer> {
    @Spec
    private CommandSpec spec = CommandSpec.create();

    @Parameters(paramLabel = "FILE", arity = "1..*", description = Files.WHICH)
    private List<Path> files = List.of();

    @Option(names = "--json", description = "Write JSON instead of a table.")
    private boolean json;

    @Option(
            names = "--junit",
            paramLabel = "OUT",
            description = "Also write the verdicts as test results, one test a requirement and subject.")
    private Path junit = Path.of("");

    @Override
    public Integer call() throws IOException {
        ReadResult reading = Files.read(files);
        PrintWriter out = spec.commandLine().getOut();
        if (!Files.report(reading, spec.commandLine().getErr())) {
            return Main.MODEL_ERRORS;
        }
        Model model = reading.model();
        List<Map<String, @Nullable Object>> rows =
                judge(model).stream().map(j -> row(model, j)).toList();
        notes(model).forEach(note -> spec.commandLine().getErr().println("note: " + note));
        if (rows.isEmpty()) {
            spec.commandLine().getErr().println(nothingJudged(model));
        }
        if (!junit.toString().isEmpty()) {
            java.nio.file.Files.writeString(junit, TestResults.of(rows));
        }
        if (json) {
            out.println(JsonMapper.builder()
                    .build()
                    .writerWithDefaultPrettyPrinter()
                    .writeValueAsString(rows));
        } else {
            print(rows, out);
        }
        return rows.stream().allMatch(row -> VerdictKind.PASS.word().equals(row.get("verdict")))
                ? Main.GOOD
                : Main.NOT_MET;
    }

    /** What runs leave out of what is written. */
    static List<String> notes(Model model) {
        return Stream.of(ElementKind.VERIFICATION, ElementKind.ANALYSIS)
                .flatMap(kind -> sorted(model, kind).stream())
                .filter(usage -> CaseSetup.isRunnable(model, usage))
                .flatMap(usage -> NotExecuted.by(model, usage).stream())
                .distinct()
                .toList();
    }

    private static String nothingJudged(Model model) {
        return model.ownElements(ElementKind.REQUIREMENT).findAny().isEmpty()
                ? "nothing is judged: there is no requirement"
                : "nothing is judged: no requirement says what satisfies it; write, for instance, 'satisfy closesInTime by gate;'";
    }

    /** The verdicts of all verifications, then those of requirements that need no run. */
    private static List<Judgement> judge(Model model) {
        List<Judgement> judgements = new ArrayList<>();
        sorted(model, ElementKind.VERIFICATION).stream()
                .filter(e -> CaseSetup.isRunnable(model, e))
                .forEach(check -> judgements.addAll(
                        CaseRun.of(model, check, RunControl.NONE).judgements()));
        for (Element requirement : sorted(model, ElementKind.REQUIREMENT)) {
            if (subjects(judgements, requirement).isEmpty()) {
                judgements.addAll(StaticJudgement.of(model, requirement).judgements());
            }
            judgements.addAll(Subjects.withoutVerdict(model, requirement, subjects(judgements, requirement)));
        }
        return judgements;
    }

    private static List<String> subjects(List<Judgement> judgements, Element requirement) {
        return judgements.stream()
                .filter(judgement -> judgement.requirement().equals(requirement.id()))
                .map(Judgement::subject)
                .toList();
    }

    private static List<Element> sorted(Model model, ElementKind kind) {
        return model.ownElements(kind)
                .sorted(java.util.Comparator.comparing(model.names()::qualifiedName))
                .toList();
    }

    private static Map<String, @Nullable Object> row(Model model, Judgement judgement) {
        Element requirement = model.get(judgement.requirement());
        Map<String, @Nullable Object> row = new LinkedHashMap<>();
        row.put("id", RequirementIds.of(model, requirement));
        row.put("requirement", model.names().qualifiedName(requirement));
        row.put("subject", judgement.subject());
        row.put("verdict", judgement.verdict().word());
        row.put("margin", judgement.margin() == null ? null : judgement.margin().shown());
        row.put(
                "unit",
                judgement.margin() == null ? null : judgement.margin().unit().symbol());
        row.put("worstInstant", judgement.worstInstant());
        row.put("firstViolation", judgement.firstViolation());
        row.put("reason", judgement.reason());
        return row;
    }

    private static void print(List<Map<String, @Nullable Object>> rows, PrintWriter out) {
        List<List<String>> table = new ArrayList<>();
        table.add(List.of(
                "id",
                "requirement",
                "subject",
                "verdict",
                "margin",
                "unit",
                "worst instant",
                "first violation",
                "reason"));
        rows.forEach(row -> table.add(row.entrySet().stream()
                .map(each -> cell(each.getKey(), each.getValue()))
                .toList()));
        int[] widths = new int[table.getFirst().size()];
        table.forEach(line -> {
            for (int i = 0; i < widths.length; i++) {
                widths[i] = Math.max(widths[i], line.get(i).length());
            }
        });
        table.forEach(line -> out.println(padded(line, widths)));
    }

    private static String cell(String column, @Nullable Object value) {
        return switch (value) {
            case Double number when column.equals("margin") -> Wording.number(number);
            case Double instant -> Wording.instant(instant);
            case null, default -> Objects.toString(value, "–");
        };
    }

    private static String padded(List<String> line, int[] widths) {
        StringBuilder text = new StringBuilder();
        for (int i = 0; i < widths.length; i++) {
            text.append(line.get(i)).append(" ".repeat(widths[i] - line.get(i).length() + 2));
        }
        return text.toString().stripTrailing();
    }
}
