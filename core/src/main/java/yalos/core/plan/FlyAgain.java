package yalos.core.plan;

import java.util.Collection;
import java.util.List;
import java.util.Optional;
import yalos.core.flight.BatteryUse;
import yalos.core.flight.Exposure;
import yalos.core.flight.Flight;
import yalos.core.flight.FlightBuilder;
import yalos.core.flight.Timeline;
import yalos.core.site.Detour;

/**
 * What is missing of a plan as a flight of its own: the stations named and one more on each side, so that the pieces hold together, joined anew and laid over the same ground.
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
        List<Exposure> all = plan.flight().exposures();
        boolean[] wanted = new boolean[all.size()];
        for (int station : missing) {
            for (int i = Math.max(0, station - 1 - ROUND); i <= Math.min(all.size() - 1, station - 1 + ROUND); i++) {
                wanted[i] |= all.get(i).line() == all.get(station - 1).line();
            }
        }
        Flight kept = FlightBuilder.keeping(
                plan.flight(), plan.request().aircraft(), Detour.NONE, photo -> wanted[photo.id() - 1]);
        Flight laid = plan.heights().map(heights -> heights.alike(kept)).orElse(kept);
        Timeline clock = Timeline.of(laid, plan.timeline().pace());
        return Optional.of(new FlyAgain(
                laid,
                clock.totalS(),
                BatteryUse.of(clock, plan.usableMinutes() * 60).sets()));
    }
}
