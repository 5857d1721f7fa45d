package pyrite.core.execution;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Locale;
import java.util.Set;
import java.util.stream.IntStream;
import pyrite.core.Models;
import pyrite.core.dynamics.Flattening;
import pyrite.core.dynamics.Instance;
import pyrite.core.dynamics.RunControl;
import pyrite.core.dynamics.RunSettings;
import pyrite.core.dynamics.Simulation;
import pyrite.core.dynamics.SortedSystem;
import pyrite.core.dynamics.Sorting;
import pyrite.core.dynamics.Trajectory;
import pyrite.core.model.Model;

/** What happened in a part {@code p} of a model. */
record Played(Engine engine, Trajectory trajectory) {
    static Played of(String declarations, double stop) {
        return of(declarations, stop, 1);
    }

    static Played of(String declarations, double stop, long seed) {
        Model model = Models.of("private import Execution::*;\n" + declarations);
        Flattening flattening = new Flattening(model);
        Instance root = flattening.running(Models.element(model, "Test::p"));
        assertThat(root).isNotNull();
        Program program = ProgramBuilder.build(model, flattening);
        SortedSystem sorted = Sorting.sort(program.flat());
        Engine engine = new Engine(program, seed, 0);
        Simulation simulation =
                Simulation.of(sorted, RunSettings.of(0, stop).withTolerance(1e-9), RunControl.NONE, engine);
        simulation.begin();
        simulation.advance(stop);
        return new Played(engine, simulation.trajectory());
    }

    /** The events as lines such as {@code 180.0 ended p.serve.boil}. */
    List<String> lines(EventLog.Kind... kinds) {
        Set<EventLog.Kind> wanted = Set.of(kinds);
        EventLog log = engine.log();
        return IntStream.range(0, log.size())
                .mapToObj(log::get)
                .filter(event -> wanted.isEmpty() || wanted.contains(event.kind()))
                .map(event -> seconds(event.time()) + " " + event.kind().name().toLowerCase(Locale.ROOT) + " "
                        + log.subjects().get(event.subject()).path()
                        + (event.detail().isEmpty() ? "" : ": " + event.detail()))
                .toList();
    }

    private static String seconds(double time) {
        return Double.toString(Math.round(time * 1000) / 1000.0);
    }

    double at(String path, double time) {
        return trajectory.at(time, false)[index(path)];
    }

    /** The mean over time of what is constant between events. */
    double mean(String path, double from, double to) {
        int index = index(path);
        double sum = 0;
        for (int i = trajectory.stepFrom(from); i < trajectory.stepCount(); i++) {
            double begin = Math.max(from, trajectory.step(i).from());
            double end = Math.min(to, trajectory.step(i).to());
            if (end > begin) {
                sum += trajectory.at(i, begin)[index] * (end - begin);
            }
        }
        return sum / (to - from);
    }

    /** With its unit. */
    String inWords(String path, double time) {
        return trajectory.system().flat().variables().get(index(path)).inWords(at(path, time));
    }

    int index(String path) {
        var variables = trajectory.system().flat().variables();
        for (int i = 0; i < variables.size(); i++) {
            if (variables.get(i).path().equals(path)) {
                return i;
            }
        }
        throw new AssertionError("no " + path + " among "
                + variables.stream().map(variable -> variable.path()).toList());
    }
}
