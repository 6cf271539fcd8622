package yalos.core.plan;

import java.util.Collection;
import java.util.List;
import java.util.Optional;
import java.util.function.Predicate;
import yalos.core.flight.BatteryUse;
import yalos.core.flight.Exposure;
import yalos.core.flight.Flight;
import yalos.core.flight.FlightBuilder;
import yalos.core.flight.Timeline;
import yalos.core.site.Detour;

/**
 * What is missing of a plan as a flight of its own: the stations named and one more on each side, so that the pieces hold together, each from where the plan takes it, joined
 * anew over the same ground, round the same zones and objects.
 *
 * @param seconds it takes, way out and home with it
 * @param sets of batteries it takes
 */
public record FlyAgain(Flight flight, double seconds, int sets) {
    private static final int ROUND = 1;

    /**
     * @param missing stations, from 1
     * @return nothing where nothing is missing
     */
    public static Optional<FlyAgain> of(BlockPlan plan, Collection<Integer> missing) {
        if (missing.isEmpty()) {
            return Optional.empty();
        }
        boolean[] wanted = wanted(plan.flight(), missing);
        Predicate<Exposure> kept = photo -> wanted[photo.id() - 1];
        Optional<Flight> ground = plan.objectsAlone() ? Optional.empty() : Optional.of(overGround(plan, kept));
        Flight again = plan.structures()
                .flatMap(objects -> objects.again(ground, plan.timeline().pace(), kept))
                .or(() -> ground)
                .orElseThrow();
        Timeline clock = Timeline.of(again, plan.timeline().pace());
        return Optional.of(new FlyAgain(
                again,
                clock.totalS(),
                BatteryUse.of(clock, plan.usableMinutes() * 60).sets()));
    }

    private static boolean[] wanted(Flight flight, Collection<Integer> missing) {
        List<Exposure> all = flight.exposures();
        boolean[] wanted = new boolean[all.size()];
        for (int station : missing) {
            int strip = strip(flight, all.get(station - 1));
            for (int i = Math.max(0, station - 1 - ROUND); i <= Math.min(all.size() - 1, station - 1 + ROUND); i++) {
                wanted[i] |= strip(flight, all.get(i)) == strip;
            }
        }
        return wanted;
    }

    private static int strip(Flight flight, Exposure photo) {
        return flight.line(photo.line()).strip();
    }

    /** The photos over the ground: they come first in a plan, under the same numbers. */
    private static Flight overGround(BlockPlan plan, Predicate<Exposure> kept) {
        Flight level = plan.passes().flight();
        Detour zones = plan.request()
                .ground()
                .map(ground -> Detour.of(plan.block().plane(), ground.zones(), level.highestLineM()))
                .orElse(Detour.NONE);
        return plan.heights()
                .map(heights -> heights.again(zones, kept))
                .orElseGet(() -> FlightBuilder.keeping(level, plan.request().aircraft(), zones, kept));
    }
}
