package yalos.core.terrain;

import yalos.core.fault.InputFault;
import yalos.core.geodesy.LonLat;
import yalos.core.units.Unit;

/**
 * In which height system a model's figures stand, as the operator states it. Files seldom say, and a wrong guess lifts or sinks
 * a whole plan.
 *
 * @param zero what its heights count from
 * @param unit of its figures: metre, international foot or US survey foot
 * @param offsetM added after conversion, in metres, such as the known step between a local datum and the geoid
 */
public record VerticalDatum(Zero zero, Unit unit, double offsetM) {
    public static final VerticalDatum GEOID_METRES = new VerticalDatum(Zero.GEOID, Unit.METRE, 0);

    /** What heights count from. */
    public enum Zero {
        GEOID("above the geoid (mean sea level)"),
        ELLIPSOID("above the WGS84 ellipsoid");

        private final String words;

        Zero(String words) {
            this.words = words;
        }

        /** What it is called on the page. */
        public String words() {
            return words;
        }
    }

    public VerticalDatum {
        if (unit.family() != Unit.Family.LENGTH) {
            throw new InputFault("unit", unit.symbol(), "Heights are in metres or feet.");
        }
        InputFault.within("offsetM", offsetM, -1000, 1000, "m");
    }

    /** A figure of the model as height above the geoid in metres, {@code H = h − N} for heights above the ellipsoid. */
    public double aboveGeoidM(double figure, LonLat at) {
        double metres = unit.toSi(figure) + offsetM;
        return zero == Zero.ELLIPSOID ? metres - Geoid.egm96().undulationM(at) : metres;
    }
}
