package yalos.core.pattern;

import java.util.Optional;
import yalos.core.flight.SpeedProfile;
import yalos.core.flight.TurnPath;
import yalos.core.kit.Aircraft;

/**
 * What a set of parallel strips needs besides the block.
 *
 * @param spacingM between neighbouring strips
 * @param baseM between neighbouring stations of a strip
 * @param heightM above take-off
 * @param speedMps along strips and turns
 * @param aircraft for acceleration, turns, climb and descent
 * @param launch x, y of the launch point in the block's plane; empty when it is not known, then the path begins and ends
 *     at stations and climb and descent are not counted
 */
public record StripPattern(
        double spacingM, double baseM, double heightM, double speedMps, Aircraft aircraft, Optional<double[]> launch) {

    SpeedProfile profile() {
        return new SpeedProfile(aircraft.accelerationMps2(), wing() ? speedMps : aircraft.turnSpeedMps());
    }

    private boolean wing() {
        return aircraft.kind().wing();
    }

    /** Seconds for the way out or home over a level distance. */
    double transitSeconds(double lengthM) {
        double turning = wing() ? aircraft.transitMps() : aircraft.turnSpeedMps();
        return new SpeedProfile(aircraft.accelerationMps2(), turning).seconds(lengthM, aircraft.transitMps());
    }

    /**
     * Length of the way from the end of one strip to the start of the next: straight for a multirotor, which turns on the
     * spot; arcs for a wing.
     *
     * @param acrossM between the strips, square to them
     * @param alongM by which their ends are apart along the direction
     */
    double turnLengthM(double acrossM, double alongM) {
        if (!wing()) {
            return Math.hypot(acrossM, alongM);
        }
        return TurnPath.lengthM(Math.abs(acrossM), aircraft.turnRadiusM(speedMps)) + Math.abs(alongM);
    }

    /** Seconds for such a way. */
    double turnSeconds(double acrossM, double alongM) {
        return profile().seconds(turnLengthM(acrossM, alongM), speedMps);
    }

    /** Seconds to the flying height and down again; 0 without a launch point. */
    public double climbAndDescentS() {
        return launch.isEmpty() ? 0 : heightM / aircraft.climbMps() + heightM / aircraft.descentMps();
    }

    /** Stations a strip needs so that every point of its reach lies between two of them. */
    int stationsOver(double reachM) {
        return (int) Math.ceil(reachM / baseM - 1e-9) + 1;
    }

    /** Length between the first and last station of a strip of that reach. */
    double stripLengthM(double reachM) {
        return (stationsOver(reachM) - 1) * baseM;
    }
}
