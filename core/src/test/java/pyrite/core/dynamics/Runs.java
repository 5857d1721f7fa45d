package pyrite.core.dynamics;

import static org.assertj.core.api.Assertions.assertThat;

import pyrite.core.Models;
import pyrite.core.model.Model;

/** Runs a part {@code p} given by its members. */
final class Runs {
    private Runs() {}

    static SortedSystem sorted(String members) {
        return sortedModel("part p {\n" + members + "\n}");
    }

    static SortedSystem sortedModel(String declarations) {
        Model model = Models.of(declarations);
        Flattening flattening = new Flattening(model);
        flattening.root(Models.element(model, "Test::p"));
        return Sorting.sort(flattening.system());
    }

    static Trajectory run(String members, double stop) {
        return Simulation.run(sorted(members), RunSettings.of(0, stop).withTolerance(1e-9), RunControl.NONE);
    }

    static double at(Trajectory trajectory, String path, double t) {
        return trajectory.at(t, false)[index(trajectory, path)];
    }

    static int index(Trajectory trajectory, String path) {
        var variables = trajectory.system().flat().variables();
        for (int i = 0; i < variables.size(); i++) {
            if (variables.get(i).path().equals(path)) {
                return i;
            }
        }
        assertThat(variables).extracting(Variable::path).contains(path);
        return -1;
    }
}
