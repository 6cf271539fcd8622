package yalos.core.measured;

import java.util.OptionalDouble;
import yalos.core.geodesy.Geocentric;
import yalos.core.geodesy.LonLat;
import yalos.core.terrain.Geoid;

/**
 * A base put right afterwards: everything measured from it moves by the same vector, true less assumed, in earth-centred coordinates. Photos move as the points do.
 *
 * @param vector true less assumed
 * @param base where the base truly stands
 */
public record BaseShift(Geocentric vector, LonLat base) {
    /** A base that moved farther was set up on another mark, or typed wrong. */
    public static final double LARGE_M = 50;

    /** Between two positions of one base, heights above the ellipsoid. */
    public static BaseShift between(LonLat assumed, double assumedM, LonLat truly, double trulyM) {
        return new BaseShift(Geocentric.of(truly, trulyM).minus(Geocentric.of(assumed, assumedM)), truly);
    }

    /** East, north, up at the base, in metres. */
    public double[] eastNorthUp() {
        return vector.eastNorthUp(base);
    }

    public double lengthM() {
        return vector.lengthM();
    }

    /** A place and its height above the ellipsoid, moved. */
    public Geocentric.Place moved(LonLat at, double ellipsoidM) {
        return Geocentric.of(at, ellipsoidM).plus(vector).place();
    }

    /** An observation moved; one without a height as if it lay at the ellipsoid, and without one after. */
    public Observation moved(Observation one) {
        double undulation = Geoid.egm96().undulationM(one.place());
        Geocentric.Place to = moved(one.place(), one.upM().orElse(0) + undulation);
        return one.moved(
                to.at(),
                one.upM().isPresent()
                        ? OptionalDouble.of(to.ellipsoidM() - Geoid.egm96().undulationM(to.at()))
                        : OptionalDouble.empty());
    }
}
