package yalos.core.rehearsal;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.EnumSet;
import java.util.List;
import java.util.Random;
import java.util.Set;

/**
 * What a rehearsal is begun with: all that follows, follows from this and from what is pressed.
 *
 * @param seed of all chance
 * @param gustMps standard deviation of gusts, each way
 * @param charge of the battery at take-off, 0..1
 * @param holds what its battery holds, over a full one of the kit at 20 °C
 * @param faults what goes wrong, and when
 */
public record Script(long seed, double gustMps, double charge, double holds, List<Planned> faults) {
    private static final int CHANCE = 3;

    /**
     * A fault that is to come.
     *
     * @param share of the sortie's time after which it comes, 0..1
     */
    public record Planned(Fault fault, double share) {}

    public Script {
        faults = faults.stream()
                .sorted(Comparator.comparingDouble(Planned::share))
                .toList();
    }

    /** Nothing goes wrong. */
    public static Script calm(long seed) {
        return new Script(seed, 0.4, 1, 1, List.of());
    }

    /** Faults from a list, spread over the sortie by the seed. */
    public Script with(Set<Fault> wanted) {
        Random random = new Random(seed ^ 0x5eed);
        List<Planned> planned = new ArrayList<>();
        for (Fault fault : wanted) {
            planned.add(new Planned(fault, at(fault, random)));
        }
        return new Script(seed, gustMps, charge, holds, planned);
    }

    /** Up to three faults by chance. */
    public Script byChance() {
        Random random = new Random(seed ^ 0xc0ffee);
        Set<Fault> drawn = EnumSet.noneOf(Fault.class);
        int count = 1 + random.nextInt(CHANCE);
        while (drawn.size() < count) {
            drawn.add(Fault.values()[random.nextInt(Fault.values().length)]);
        }
        return with(drawn);
    }

    /** Somebody walks into the landing zone when it comes home; a wrong zero is there from the start. */
    private static double at(Fault fault, Random random) {
        double share = 0.15 + 0.6 * random.nextDouble();
        return switch (fault) {
            case PERSON -> 1;
            case HEIGHT -> 0;
            default -> share;
        };
    }
}
