package yalos.core.energy;

import static yalos.core.fault.InputFault.within;

import yalos.core.fault.InputFault;

/**
 * Power of a multirotor against airspeed, {@code P(V) = Pi F(V) + Pp + k V³}: induced power that falls with speed by momentum theory, power that stays (blades, electronics), and drag.
 * {@code F(V) = sqrt(sqrt(V⁴/4 + vh⁴) − V²/2) / vh}, so that F(0) = 1.
 *
 * <p>It goes through hover power, and through the least power at its speed; four coefficients need one figure more: how much of hover power is induced.
 *
 * @param inducedW induced power in hover
 * @param constantW power that speed does not change
 * @param hoverMps speed of the air through the discs in hover
 * @param dragWs3M3 coefficient of the cube of the speed
 */
public record PowerCurve(double inducedW, double constantW, double hoverMps, double dragWs3M3) {
    /** Of hover power, where nobody knows better (common practice). */
    public static final double USUAL_INDUCED = 0.7;

    private static final double LEAST_RATIO = 0.003;
    private static final double MOST_RATIO = 100;
    private static final double RANGE_SPEEDS = 12;

    /**
     * The curve through the three figures an operator has.
     *
     * @param hoverW power in hover: usable energy over the longest hover
     * @param leastW least power: usable energy over the longest endurance
     * @param leastMps airspeed at which that is reached
     * @param inducedShare of hover power, 0..1
     * @throws InputFault where endurance is not longer than hover, as it is for every rotor
     */
    public static PowerCurve through(double hoverW, double leastW, double leastMps, double inducedShare) {
        within("hover", hoverW, 1, 1e6, "W");
        within("speed", leastMps, 0.5, 60, "m/s");
        within("induced", inducedShare, 0.2, 0.95, "");
        if (!(leastW < hoverW) || leastW <= 0) {
            throw new InputFault(
                    "endurance",
                    leastW,
                    "Flying slowly takes less power than hovering; the longest endurance must be longer than the longest hover.");
        }
        double induced = inducedShare * hoverW;
        double constant = hoverW - induced;
        double hoverMps = Minimum.root(
                vh -> induced * factor(leastMps, vh) + constant - induced * slope(leastMps, vh) * leastMps / 3 - leastW,
                leastMps / MOST_RATIO,
                leastMps / LEAST_RATIO);
        if (Double.isNaN(hoverMps)) {
            throw new InputFault(
                    "endurance",
                    leastW,
                    "No rotor saves so much by flying: hover takes %.0f W and %.1f m/s only %.0f W."
                            .formatted(hoverW, leastMps, leastW));
        }
        double drag = -slope(leastMps, hoverMps) * induced / (3 * leastMps * leastMps);
        return new PowerCurve(induced, constant, hoverMps, drag);
    }

    /** Induced power at a speed over that in hover. */
    static double factor(double v, double vh) {
        // The plain difference loses its digits at speed; this is the same, conjugated.
        double root = Math.sqrt(Math.pow(v, 4) / 4 + Math.pow(vh, 4));
        return vh / Math.sqrt(root + v * v / 2);
    }

    private static double slope(double v, double vh) {
        double root = Math.sqrt(Math.pow(v, 4) / 4 + Math.pow(vh, 4));
        double sum = root + v * v / 2;
        return -vh / 2 * Math.pow(sum, -1.5) * (v * v * v / (2 * root) + v);
    }

    /** Power at an airspeed in level flight, in watts. */
    public double at(double airspeedMps) {
        return inducedW * factor(airspeedMps, hoverMps) + constantW + dragWs3M3 * Math.pow(airspeedMps, 3);
    }

    /** Airspeed at which a distance takes least energy. */
    public double bestRangeMps(double leastPowerMps) {
        return Minimum.at(v -> at(v) / v, leastPowerMps / 100, leastPowerMps * RANGE_SPEEDS);
    }
}
