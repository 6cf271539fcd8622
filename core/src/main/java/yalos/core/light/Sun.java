package yalos.core.light;

import java.time.Instant;
import java.util.function.ToDoubleFunction;
import org.shredzone.commons.suncalc.SunPosition;
import yalos.core.geodesy.LonLat;

/**
 * Where the sun stands, by a maintained library; within 0.05° of the reference. Without refraction: what counts for shadows is where it is, and below 5° nobody flies for light.
 *
 * @param elevationRad of its centre above the horizon
 * @param azimuthRad clockwise from true north
 */
public record Sun(double elevationRad, double azimuthRad) {
    private static final long HOUR_S = 3600;
    private static final long STEP_S = 300;
    /** Sunrise and sunset: the upper rim at the horizon, with the usual refraction. */
    static final double RISE_RAD = Math.toRadians(-0.8333);

    /** At a place and time. */
    public static Sun at(LonLat place, Instant time) {
        SunPosition position = SunPosition.compute()
                .on(time)
                .at(place.latDeg(), place.lonDeg())
                .execute();
        return new Sun(Math.toRadians(position.getTrueAltitude()), Math.toRadians(position.getAzimuth()));
    }

    /** Angle on the sky to where it stands at another time. */
    public double apartRad(Sun other) {
        double cos = Math.sin(elevationRad) * Math.sin(other.elevationRad)
                + Math.cos(elevationRad) * Math.cos(other.elevationRad) * Math.cos(azimuthRad - other.azimuthRad);
        return Math.acos(Math.max(-1, Math.min(1, cos)));
    }

    /**
     * When the sun crosses an elevation first after a time, up or down; the given end where it does not before.
     *
     * @param elevationRad to be crossed
     */
    static Instant crossing(LonLat place, Instant from, Instant to, double elevationRad) {
        ToDoubleFunction<Instant> above = time -> at(place, time).elevationRad - elevationRad;
        boolean was = above.applyAsDouble(from) > 0;
        Instant before = from;
        while (before.isBefore(to)) {
            Instant next = before.plusSeconds(STEP_S).isAfter(to) ? to : before.plusSeconds(STEP_S);
            if (above.applyAsDouble(next) > 0 != was) {
                return bisected(above, before, next, was);
            }
            before = next;
        }
        return to;
    }

    private static Instant bisected(ToDoubleFunction<Instant> above, Instant from, Instant to, boolean was) {
        long low = from.toEpochMilli();
        long high = to.toEpochMilli();
        while (high - low > 100) {
            long middle = (low + high) / 2;
            if (above.applyAsDouble(Instant.ofEpochMilli(middle)) > 0 == was) {
                low = middle;
            } else {
                high = middle;
            }
        }
        return Instant.ofEpochMilli((low + high) / 2);
    }

    /** When the sun is highest, near the middle of the local day by mean solar time. */
    static Instant noon(LonLat place, Instant meanNoon) {
        Instant low = meanNoon.minusSeconds(HOUR_S);
        Instant high = meanNoon.plusSeconds(HOUR_S);
        // The upper transit: it passes from the east of the meridian to the west.
        ToDoubleFunction<Instant> west = time -> -Math.sin(at(place, time).azimuthRad);
        return bisected(west, low, high, west.applyAsDouble(low) > 0);
    }
}
