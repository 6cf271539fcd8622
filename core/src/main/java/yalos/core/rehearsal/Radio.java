package yalos.core.rehearsal;

import yalos.core.flight.Place;
import yalos.core.geodesy.PlanePoint;
import yalos.core.sortie.Surroundings;
import yalos.core.terrain.SightLine;

/** The link between pilot and aircraft: it fades with distance as in the open ({@code 20 log d}), and by so much more where ground stands between. Range and loss are common practice. */
final class Radio {
    private static final double RANGE_M = 6000;
    private static final double HIDDEN_DB = 14;
    private static final double WHOLE_DB = 30;
    private static final double ANTENNA_M = 1.3;
    private static final double LOST_AFTER_S = 3;

    private final Surroundings around;
    private final SightLine sight;
    private final PlanePoint pilot;
    private double strength = 1;
    private double deafS;
    private boolean lost;

    /** What changed. */
    enum Change {
        NONE,
        LOST,
        HEARD
    }

    Radio(Surroundings around, SightLine sight, PlanePoint pilot) {
        this.around = around;
        this.sight = sight;
        this.pilot = pilot;
    }

    /**
     * @param inTheAir whether it flies
     * @param jammed whether nothing comes through at all
     * @param seconds since it was asked before
     */
    Change hear(Place aircraft, boolean inTheAir, boolean jammed, double seconds) {
        double antenna = around.takeOffM(pilot) + ANTENNA_M;
        double far = Math.max(1, Math.hypot(aircraft.point().distanceM(pilot), aircraft.upM() - antenna));
        boolean hidden = inTheAir
                && !Double.isNaN(antenna)
                && !sight.clear(aircraft.xM(), aircraft.yM(), aircraft.upM(), pilot.xM(), pilot.yM(), antenna);
        double db = 20 * Math.log10(RANGE_M / far) - (hidden ? HIDDEN_DB : 0);
        strength = jammed ? 0 : Math.max(0, Math.min(1, db / WHOLE_DB));
        deafS = strength > 0 ? 0 : deafS + seconds;
        if (!lost && deafS >= LOST_AFTER_S && inTheAir) {
            lost = true;
            return Change.LOST;
        }
        if (lost && strength > 0) {
            lost = false;
            return Change.HEARD;
        }
        return Change.NONE;
    }

    /** How well it is heard, 0..1. */
    double strength() {
        return strength;
    }

    boolean lost() {
        return lost;
    }
}
