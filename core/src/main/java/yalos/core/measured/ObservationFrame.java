package yalos.core.measured;

import java.util.HashSet;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.Set;
import yalos.core.geodesy.Geographic;
import yalos.core.terrain.VerticalDatum.Zero;
import yalos.core.units.Unit;

/**
 * How the figures of a table of measured points are meant.
 *
 * @param epsg grid of eastings and northings, or system of latitudes and longitudes; empty for these on WGS84
 * @param swapped whether the two columns of a place stand the other way round
 * @param unit of eastings and northings
 * @param heightUnit of heights, accuracies and poles
 * @param zero what heights count from
 * @param numberRepeats whether names that come again are numbered apart
 * @param leftOut rows that are left out, from 1
 */
public record ObservationFrame(
        OptionalInt epsg,
        boolean swapped,
        Unit unit,
        Unit heightUnit,
        Zero zero,
        boolean numberRepeats,
        Set<Integer> leftOut) {
    public ObservationFrame {
        leftOut = Set.copyOf(leftOut);
    }

    /** Metres in a grid, heights above the geoid. */
    public static ObservationFrame of(OptionalInt epsg) {
        return new ObservationFrame(epsg, false, Unit.METRE, Unit.METRE, Zero.GEOID, false, Set.of());
    }

    /** The system of latitudes and longitudes that its code names; empty for a grid, and for WGS84 without a code. */
    Optional<Geographic> geographic() {
        return epsg.isEmpty() ? Optional.empty() : Geographic.ofEpsg(epsg.getAsInt());
    }

    /** Whether places are eastings and northings. */
    boolean grid() {
        return epsg.isPresent() && geographic().isEmpty();
    }

    public ObservationFrame inGrid(int other) {
        return new ObservationFrame(OptionalInt.of(other), swapped, unit, heightUnit, zero, numberRepeats, leftOut);
    }

    public ObservationFrame turned() {
        return new ObservationFrame(epsg, !swapped, unit, heightUnit, zero, numberRepeats, leftOut);
    }

    public ObservationFrame in(Unit other) {
        return new ObservationFrame(epsg, swapped, other, heightUnit, zero, numberRepeats, leftOut);
    }

    public ObservationFrame heightsIn(Unit other) {
        return new ObservationFrame(epsg, swapped, unit, other, zero, numberRepeats, leftOut);
    }

    public ObservationFrame from(Zero other) {
        return new ObservationFrame(epsg, swapped, unit, heightUnit, other, numberRepeats, leftOut);
    }

    public ObservationFrame numbering() {
        return new ObservationFrame(epsg, swapped, unit, heightUnit, zero, true, leftOut);
    }

    public ObservationFrame without(int row) {
        Set<Integer> more = new HashSet<>(leftOut);
        more.add(row);
        return new ObservationFrame(epsg, swapped, unit, heightUnit, zero, numberRepeats, more);
    }
}
