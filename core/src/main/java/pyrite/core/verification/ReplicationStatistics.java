package pyrite.core.verification;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import pyrite.core.dynamics.Trajectory;
import pyrite.core.dynamics.Variable;
import pyrite.core.model.Element;
import pyrite.core.model.Model;

/**
 * Collects over several replications how much of each pool was held and how many waited for it, on average over time,
 * and by what margin each requirement held.
 */
final class ReplicationStatistics {
    private final Model model;
    private final Map<String, Numbers> numbers = new LinkedHashMap<>();

    private record Numbers(String unit, List<Double> values) {}

    ReplicationStatistics(Model model) {
        this.model = model;
    }

    void add(Trajectory trajectory, List<Judgement> judgements) {
        List<Variable> variables = trajectory.system().flat().variables();
        for (int i = 0; i < variables.size(); i++) {
            Variable variable = variables.get(i);
            boolean isObserved =
                    variable.path().startsWith("used(") || variable.path().startsWith("queue(");
            if (isObserved) {
                add(
                        "mean of " + variable.path(),
                        variable.unit().symbol(),
                        variable.unit().unit().fromSi(mean(trajectory, i)));
            }
        }
        for (Judgement judgement : judgements) {
            Margin margin = judgement.margin();
            if (margin != null) {
                Element requirement = model.get(judgement.requirement());
                String name = requirement.shortName() == null
                        ? model.names().qualifiedName(requirement)
                        : requirement.shortName();
                add(
                        "margin of " + name + ", " + judgement.subject(),
                        margin.unit().symbol(),
                        margin.shown());
            }
        }
    }

    private void add(String what, String unit, double value) {
        if (Double.isFinite(value)) {
            numbers.computeIfAbsent(what, _ -> new Numbers(unit, new ArrayList<>()))
                    .values()
                    .add(value);
        }
    }

    /** Of what is constant between events, weighted with how long it has each value. */
    private static double mean(Trajectory trajectory, int variable) {
        double sum = 0;
        double from = trajectory.step(0).from();
        double to = from;
        for (int i = 0; i < trajectory.stepCount(); i++) {
            double begin = trajectory.step(i).from();
            to = trajectory.step(i).to();
            sum += trajectory.at(i, begin)[variable] * (to - begin);
        }
        return to > from ? sum / (to - from) : Double.NaN;
    }

    List<Statistic> all() {
        return numbers.entrySet().stream()
                .map(entry -> Statistic.of(
                        entry.getKey(),
                        entry.getValue().unit(),
                        entry.getValue().values().stream()
                                .mapToDouble(Double::doubleValue)
                                .toArray()))
                .toList();
    }
}
