package pyrite.core.verification;

import java.util.List;
import java.util.Objects;
import java.util.Optional;
import pyrite.core.dynamics.Flattening;
import pyrite.core.dynamics.Instance;
import pyrite.core.dynamics.ModelFault;
import pyrite.core.dynamics.RunSettings;
import pyrite.core.dynamics.Term;
import pyrite.core.expression.Expression.FeatureReference;
import pyrite.core.expression.FaultException;
import pyrite.core.model.Element;
import pyrite.core.model.ElementId;
import pyrite.core.model.ElementKind;
import pyrite.core.model.FeatureValue;
import pyrite.core.model.Inheritance;
import pyrite.core.model.LibraryNames;
import pyrite.core.model.Model;
import pyrite.core.model.Property;
import pyrite.core.model.Reference;

/** The settings of a case: the system to run, the times, and the requirements it verifies. */
public record CaseSetup(Element system, RunSettings settings, Randomness randomness, List<Element> requirements) {
    private static final int MOST_REPLICATIONS = 100_000;

    /**
     * What is drawn at random in a case.
     *
     * @param replications how many runs are made, each with other values
     * @param leastShare the share of them in which a requirement must hold
     */
    public record Randomness(long seed, int replications, double leastShare) {}

    /** Whether a usage is a run: an analysis by TimeRun or a verification by SimulatedCheck. */
    public static boolean isRunnable(Model model, Element usage) {
        return usage.kind().isCase()
                && (model.inheritance().isA(usage, LibraryNames.id(LibraryNames.TIME_RUN))
                        || model.inheritance().isA(usage, LibraryNames.id(LibraryNames.SIMULATED_CHECK)));
    }

    /**
     * Reads a case.
     *
     * @throws ModelFault if it is no run, names no system or its times make no sense
     */
    static CaseSetup of(Model model, Element usage, Flattening flattening) {
        if (!isRunnable(model, usage)) {
            throw new ModelFault(
                    "'" + model.names().effectiveName(usage) + "' is no run; type it by TimeRun or SimulatedCheck",
                    List.of(usage.id()));
        }
        flattening.noteRead(usage);
        Settings settings = new Settings(model, usage, flattening);
        return new CaseSetup(
                system(model, usage, flattening),
                settings.read(),
                settings.randomness(),
                requirements(model, usage, flattening));
    }

    /** @throws ModelFault if the case names no part that runs */
    static Element system(Model model, Element usage, Flattening flattening) {
        Element subject = model.inheritance().features(usage).stream()
                .filter(f -> f.kind() == ElementKind.SUBJECT)
                .findFirst()
                .orElseThrow(() -> new ModelFault("the case has no subject", List.of(usage.id())));
        flattening.noteRead(subject);
        return model.inheritance()
                .value(subject)
                .map(FeatureValue::expression)
                .filter(FeatureReference.class::isInstance)
                .map(FeatureReference.class::cast)
                .map(reference -> model.get((ElementId) reference.last()))
                .filter(element -> element.kind() == ElementKind.PART)
                .orElseThrow(() -> new ModelFault(
                        "the case does not say what runs; write 'subject :>> system = …;' with a part",
                        List.of(usage.id())));
    }

    /**
     * What runs in a case.
     *
     * @throws ModelFault if the case names no part that runs
     */
    public static Element system(Model model, Element usage) {
        return system(model, usage, new Flattening(model));
    }

    private static List<Element> requirements(Model model, Element usage, Flattening flattening) {
        return model.inheritance().features(usage).stream()
                .filter(f -> f.kind() == ElementKind.OBJECTIVE)
                .flatMap(objective -> model.inheritance().generals(objective).stream())
                .peek(flattening::noteRead)
                .flatMap(objective -> model.children(objective.id()).stream())
                .filter(child -> child.kind() == ElementKind.VERIFIED_REQUIREMENT)
                .peek(flattening::noteReadAlone)
                .flatMap(child -> child.get(Property.TARGET).map(Reference::target).stream())
                .distinct()
                .map(model::get)
                .toList();
    }

    /** The requirements a case verifies, without running it. */
    public static List<Element> requirements(Model model, Element usage) {
        return requirements(model, usage, new Flattening(model));
    }

    /** Reads the times of a case, s. */
    private record Settings(Model model, Element usage, Flattening flattening) {
        RunSettings read() {
            Instance instance = flattening.root(usage);
            double start = number(instance, "startTime").orElse(0.0);
            double stop = number(instance, "stopTime")
                    .orElseThrow(() -> new ModelFault(
                            "the case does not say when it ends; write 'attribute :>> stopTime = 10 [min];'",
                            List.of(usage.id())));
            try {
                RunSettings settings = RunSettings.of(start, stop);
                Optional<Double> interval = number(instance, "interval");
                Optional<Double> tolerance = number(instance, "tolerance");
                settings = interval.isPresent() ? settings.withInterval(interval.get()) : settings;
                return tolerance.isPresent() ? settings.withTolerance(tolerance.get()) : settings;
            } catch (IllegalArgumentException e) {
                throw new ModelFault(Objects.requireNonNull(e.getMessage()), List.of(usage.id()));
            }
        }

        Randomness randomness() {
            Instance instance = flattening.root(usage);
            double seed = number(instance, "seed").orElse(1.0);
            double replications = number(instance, "replications").orElse(1.0);
            double leastShare = number(instance, "leastShare").orElse(1.0);
            require(seed == Math.rint(seed), "the seed is a whole number, not " + seed);
            require(
                    replications == Math.rint(replications) && replications >= 1 && replications <= MOST_REPLICATIONS,
                    "there are from 1 to " + MOST_REPLICATIONS + " replications, not " + replications);
            require(
                    leastShare > 0 && leastShare <= 1,
                    "the least share is more than 0 and at most 1, not " + leastShare);
            return new Randomness((long) seed, (int) replications, leastShare);
        }

        private void require(boolean holds, String message) {
            if (!holds) {
                throw new ModelFault(message, List.of(usage.id()));
            }
        }

        private Optional<Double> number(Instance instance, String name) {
            Inheritance inheritance = model.inheritance();
            Element feature = inheritance.features(usage).stream()
                    .filter(f -> name.equals(model.names().effectiveName(f)))
                    .findFirst()
                    .orElse(null);
            if (feature == null || inheritance.value(feature).isEmpty()) {
                return Optional.empty();
            }
            FeatureValue value = inheritance.value(feature).get();
            try {
                if (flattening.term(value.expression(), instance) instanceof Term.Constant(double number)) {
                    return Optional.of(number);
                }
            } catch (FaultException e) {
                throw new ModelFault(
                        name + ": " + e.getMessage(),
                        List.of(feature.id()),
                        Property.VALUE,
                        e.fault().span());
            }
            throw new ModelFault(name + " must be known before the run", List.of(feature.id()));
        }
    }
}
