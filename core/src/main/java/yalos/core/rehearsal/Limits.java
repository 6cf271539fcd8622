package yalos.core.rehearsal;

import java.util.Optional;
import java.util.function.Supplier;
import yalos.core.flight.Climb;
import yalos.core.flight.Leg;
import yalos.core.flight.Place;
import yalos.core.flight.Way;
import yalos.core.geodesy.PlanePoint;
import yalos.core.sortie.FenceAct;
import yalos.core.sortie.Fences;
import yalos.core.sortie.Sortie;
import yalos.core.sortie.Sorties;
import yalos.core.sortie.Surroundings;

/**
 * Where an aircraft stops of itself: at its distance fence, at its height limit, near the ground; and what it strikes where it does not. Each says
 * in words what was met; fence and height limit are met once.
 */
final class Limits {
    /** It stops nearer to the ground than this, or than half the height of its lowest photo. */
    private static final double FLOOR_M = 5;
    /** So near to the launch point it takes off and lands. */
    private static final double LANDING_M = 10;

    private static final double SUNK_M = 0.5;
    private static final double OVER_M = 0.5;

    private final Fences fences;
    private final Surroundings around;
    private final PlanePoint launch;
    private final double takeOffUpM;
    private final boolean stopsAtTheFence;
    private final double floorM;
    private boolean fenced;
    private boolean capped;

    Limits(Sorties sorties, Sortie sortie, Script script) {
        this.fences = Fences.of(sorties, sortie.launch());
        this.around = sorties.given().around();
        this.launch = sortie.homing().launch();
        this.takeOffUpM = sortie.homing().takeOffUpM();
        FenceAct act = sorties.given().settings().fence();
        // What nobody has tried is known only on the day.
        this.stopsAtTheFence = act == FenceAct.STOPS || act == FenceAct.UNKNOWN && (script.seed() & 1) == 0;
        this.floorM = sortie.flight().exposures().stream()
                .mapToDouble(photo -> (photo.upM() - around.groundM(photo.point())) / 2)
                .filter(half -> half < FLOOR_M)
                .min()
                .orElse(FLOOR_M);
    }

    /** Whether it stops there; otherwise it turns home. */
    boolean stopsAtTheFence() {
        return stopsAtTheFence;
    }

    /**
     * @param known where the aircraft believes to be
     */
    Optional<String> fence(Place known, Phase phase) {
        double out = known.point().distanceM(launch);
        if (fenced || out <= fences.fenceM() || phase != Phase.FLYING) {
            return Optional.empty();
        }
        fenced = true;
        return Optional.of("%.0f m out: at the fence it %s".formatted(out, stopsAtTheFence ? "stops" : "turns home"));
    }

    /**
     * @param known where the aircraft believes to be
     */
    Optional<String> ceiling(Place known) {
        double above = known.upM() - takeOffUpM;
        if (capped || above <= fences.ceilingM() + OVER_M) {
            return Optional.empty();
        }
        capped = true;
        return Optional.of("%.0f m above take-off: its height limit holds it".formatted(above));
    }

    /**
     * @param here where it truly is
     */
    Optional<String> floor(Place here, Phase phase, Supplier<Leg> leg) {
        double low = aboveGroundM(here);
        return phase == Phase.FLYING
                        && leg.get() instanceof Way
                        && low < floorM
                        && here.point().distanceM(launch) > LANDING_M
                ? Optional.of("%.1f m above the ground: it stops".formatted(low))
                : Optional.empty();
    }

    /**
     * @param here where it truly is
     */
    Optional<String> struck(Place here, Supplier<Leg> leg) {
        double low = aboveGroundM(here);
        boolean standing = around.within(here);
        return (standing || low < -SUNK_M) && !(leg.get() instanceof Climb)
                ? Optional.of(standing && low > 0 ? "it strikes what stands there" : "it strikes the ground")
                : Optional.empty();
    }

    private double aboveGroundM(Place here) {
        return here.upM() - around.groundM(here.point());
    }
}
