package yalos.core.sortie;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.function.DoubleUnaryOperator;
import yalos.core.energy.PowerCurve;
import yalos.core.flight.Effort;
import yalos.core.kit.Aircraft;
import yalos.core.kit.AircraftKind;
import yalos.core.kit.Battery;
import yalos.core.kit.Endurance;
import yalos.core.units.UnitChoice;
import yalos.core.units.UnitKind;

/**
 * What an aircraft draws from its battery, as a share of what a full one holds at 20 °C, a second.
 *
 * <p>A multirotor: momentum theory, see {@link PowerCurve}; rising on the spot {@code Pi (x + sqrt(x² + 1))} with {@code x = c / 2vh} (Leishman, Principles of Helicopter Aerodynamics, from memory), and
 * {@code Pi / vh} a metre won while flying on, which is weight over one. Sinking gives nothing back: it is taken as hover. A wing: {@code ((v/c)³ + c/v) / 2} of its cruise power, its polar with cruise at least drag
 * (textbook, from memory), a glide ratio of 10, and four times cruise power while it hangs on its rotors (common practice).
 *
 * <p>KNOWN LIMITS: turns, gusts and payload that is switched on are no part of it; a measured flight brings them in, see {@link Consumption}.
 */
public final class Draw implements Effort {
    /** Longest hover over longest flight, where only one or none is known (common practice). */
    static final double USUAL_HOVER = 0.88;
    /** Speed of longest endurance over the fastest, where it is not known (common practice). */
    static final double USUAL_SLOW = 0.5;

    private static final double PERCENT = 100;
    private static final double GLIDE = 10;
    private static final double HANGING = 4;

    private final DoubleUnaryOperator levelS;
    private final DoubleUnaryOperator verticalS;
    private final double perMetre;
    private final double slowMps;
    private final List<Said> reasons;

    /** A reason, in the operator's units. */
    private interface Said {
        String in(UnitChoice units);
    }

    private Draw(
            DoubleUnaryOperator levelS,
            DoubleUnaryOperator verticalS,
            double perMetre,
            double slowMps,
            List<Said> reasons) {
        this.levelS = levelS;
        this.verticalS = verticalS;
        this.perMetre = perMetre;
        this.slowMps = slowMps;
        this.reasons = List.copyOf(reasons);
    }

    /**
     * @param mappingMps at which the battery's minutes while mapping were flown
     * @throws yalos.core.fault.InputFault for endurance figures that no rotor has
     */
    public static Draw of(Aircraft aircraft, double mappingMps) {
        return aircraft.kind().wing() ? wing(aircraft, mappingMps) : rotor(aircraft, mappingMps);
    }

    private static Draw rotor(Aircraft aircraft, double mappingMps) {
        Battery battery = aircraft.battery();
        Endurance known = battery.endurance();
        List<Said> reasons = new ArrayList<>();
        boolean absolute =
                known.hoverMinutes().isPresent() || known.longestMinutes().isPresent();
        double hover =
                known.hoverMinutes().orElse(USUAL_HOVER * known.longestMinutes().orElse(1 / USUAL_HOVER));
        double longest = known.longestMinutes().orElse(hover / USUAL_HOVER);
        double slow = known.longestAtMps().orElse(USUAL_SLOW * aircraft.maxSpeedMps());
        PowerCurve curve = PowerCurve.through(PERCENT, PERCENT * hover / longest, slow, PowerCurve.USUAL_INDUCED);
        String slowly = guessed(known.longestAtMps().isEmpty(), "taken as half the fastest");
        if (absolute) {
            String rest = guessed(known.longestMinutes().isEmpty(), "taken as the hover over 0.88");
            String still = guessed(known.hoverMinutes().isEmpty(), "taken as 88 % of the longest flight");
            reasons.add(units -> words(
                    "hover %.1f min%s, longest %.1f min%s at %s%s",
                    hover, still, longest, rest, units.text(UnitKind.SPEED, slow), slowly));
        } else {
            reasons.add(units -> words(
                    "hover taken as 88 %% of the longest flight and that at %s%s: common practice, since the kit has no such figures",
                    units.text(UnitKind.SPEED, slow), slowly));
        }
        double full = 1 / (PERCENT * hover * 60);
        double scale = absolute ? full / battery.health() : full;
        if (!absolute || battery.measured().isPresent()) {
            scale = 1 / (curve.at(mappingMps) * battery.fullMinutes() * 60);
            reasons.add(fitted(battery, mappingMps));
        } else if (battery.health() < 1) {
            reasons.add(units -> words("%.0f %% of it left with age", battery.health() * 100));
        }
        double unit = scale;
        double hoverMps = curve.hoverMps();
        return new Draw(
                v -> unit * curve.at(v),
                climb -> unit * (curve.inducedW() * rising(climb, hoverMps) + curve.constantW()),
                unit * curve.inducedW() / hoverMps,
                slow,
                reasons);
    }

    /** Induced power and what lifting takes, over the induced power of hover; sinking takes no less than hover. */
    private static double rising(double climbMps, double hoverMps) {
        double x = Math.max(0, climbMps) / (2 * hoverMps);
        return x + Math.sqrt(x * x + 1);
    }

    private static Draw wing(Aircraft aircraft, double mappingMps) {
        Battery battery = aircraft.battery();
        Endurance known = battery.endurance();
        double cruise = known.longestAtMps().orElse(aircraft.transitMps());
        List<Said> reasons = new ArrayList<>();
        boolean absolute =
                known.longestMinutes().isPresent() && battery.measured().isEmpty();
        double at = absolute ? 1 : polar(mappingMps, cruise);
        double minutes = absolute ? known.longestMinutes().getAsDouble() * battery.health() : battery.fullMinutes();
        reasons.add(
                absolute
                        ? units -> words("longest flight %.1f min at %s", minutes, units.text(UnitKind.SPEED, cruise))
                        : fitted(battery, mappingMps));
        double unit = 1 / (at * minutes * 60);
        boolean hangs = aircraft.kind() == AircraftKind.VERTICAL_TAKE_OFF_WING;
        if (hangs) {
            reasons.add(units -> "hanging on its rotors it draws four times its cruise power (common practice)");
        }
        return new Draw(
                v -> unit * polar(v, cruise),
                climb -> unit * (hangs ? HANGING : 1 + Math.max(0, climb) * GLIDE / cruise),
                unit * GLIDE / cruise,
                cruise,
                reasons);
    }

    /** Power at a speed over that in cruise, which is flown at least drag. */
    private static double polar(double v, double cruise) {
        double ratio = Math.max(0.3, v / cruise);
        return (ratio * ratio * ratio + 1 / ratio) / 2;
    }

    private static Said fitted(Battery battery, double mappingMps) {
        String measured = battery.measured().isPresent() ? ", as measured" : "";
        return units -> words(
                "a full battery lasts %.1f min while mapping at %s%s",
                battery.fullMinutes(), units.text(UnitKind.SPEED, mappingMps), measured);
    }

    private static String guessed(boolean guessed, String how) {
        return guessed ? " (" + how + ", common practice)" : "";
    }

    private static String words(String format, Object... figures) {
        return String.format(Locale.ROOT, format, figures);
    }

    /** The same drawing so many times as much. */
    public Draw times(double factor, String reason) {
        List<Said> more = new ArrayList<>(reasons);
        more.add(units -> reason);
        return new Draw(
                v -> factor * levelS.applyAsDouble(v),
                climb -> factor * verticalS.applyAsDouble(climb),
                factor * perMetre,
                slowMps,
                more);
    }

    @Override
    public double level(double airspeedMps) {
        return levelS.applyAsDouble(airspeedMps);
    }

    @Override
    public double vertical(double climbMps) {
        return verticalS.applyAsDouble(climbMps);
    }

    @Override
    public double perMetreUp() {
        return perMetre;
    }

    /** Airspeed that takes least: of longest endurance. */
    public double slowMps() {
        return slowMps;
    }

    /** Airspeed at which a distance takes least, no more than a given one. */
    public double farthestMps(double mostMps) {
        double best = mostMps;
        for (double v = slowMps / 2; v <= mostMps; v += 0.05) {
            best = level(v) / v < level(best) / best ? v : best;
        }
        return best;
    }

    /** Where its figures come from, in sentences and the operator's units. */
    public List<String> reasons(UnitChoice units) {
        return reasons.stream().map(said -> said.in(units)).toList();
    }
}
