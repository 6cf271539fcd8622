package yalos.core.strips;

import java.util.Optional;
import yalos.core.kit.Aircraft;

/**
 * What a set of parallel strips needs besides the block.
 *
 * @param spacingM between neighbouring strips
 * @param baseM between neighbouring stations of a strip
 * @param heightM above take-off
 * @param speedMps along strips and links
 * @param aircraft for acceleration, turns, climb and descent
 * @param launch x, y of the launch point in the block's plane; empty when it is not known, then the path begins and ends
 *     at stations and climb and descent are not counted
 */
public record StripPattern(
        double spacingM, double baseM, double heightM, double speedMps, Aircraft aircraft, Optional<double[]> launch) {

    SpeedProfile profile() {
        return new SpeedProfile(aircraft.accelerationMps2(), aircraft.turnSpeedMps());
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
