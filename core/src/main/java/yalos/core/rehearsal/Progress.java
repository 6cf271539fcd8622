package yalos.core.rehearsal;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;
import java.util.TreeSet;
import yalos.core.plan.BlockPlan;
import yalos.core.sortie.Sortie;

/** What of a sortie is photographed well. Stations count from 1, as in the plan. */
final class Progress {
    private final Map<Integer, List<Integer>> strips = new TreeMap<>();
    private final Set<Integer> taken = new TreeSet<>();

    Progress(BlockPlan plan, Sortie sortie) {
        for (int i = sortie.start(); i <= sortie.to(); i++) {
            strips.computeIfAbsent(plan.flight().exposures().get(i).line(), line -> new ArrayList<>())
                    .add(i + 1);
        }
    }

    void count(Shot shot) {
        if (shot.good()) {
            taken.add(shot.station());
        }
    }

    /** Stations with a good photo. */
    Set<Integer> taken() {
        return Set.copyOf(taken);
    }

    /** Strips by number, with their stations. */
    Map<Integer, List<Integer>> strips() {
        return strips;
    }

    /** Strips on which every station has a good photo. */
    int stripsDone() {
        return (int) strips.values().stream().filter(taken::containsAll).count();
    }
}
