package yalos.core.pattern;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.OptionalDouble;
import yalos.core.block.PlaneBlock;
import yalos.core.flight.FlightBuilder;
import yalos.core.flight.Pace;
import yalos.core.geodesy.PlanePoint;
import yalos.core.wind.Wind;

/**
 * A block cut into cells, each swept by parallel lines in its own direction, one after the other.
 *
 * <p>Every cell is covered by itself, so that a place beside a cut lies within half the line spacing of a line of its own cell, as everywhere.
 *
 * @param cells in the order flown, two at least
 * @param gaze which way the camera looks
 */
public record CellGrid(List<Cell> cells, Gaze gaze) implements Pattern {
    public CellGrid {
        cells = List.copyOf(cells);
    }

    /** A part of the block and the direction of its lines, clockwise from grid north. */
    public record Cell(PlaneBlock block, double directionRad) {}

    @Override
    public CellGrid decided(PlaneBlock block, Task task, Pace pace, Optional<PlanePoint> launch) {
        return this;
    }

    @Override
    public void refuseFarTooMany(PlaneBlock block, Task task) {
        StripGrid.QUICKEST.refuseFarTooMany(block, task);
    }

    @Override
    public void fly(PlaneBlock block, Task task, int pass, FlightBuilder flight) {
        for (Cell cell : cells) {
            StripGrid.towards(cell.directionRad()).looking(gaze).fly(cell.block(), task, pass, flight);
        }
    }

    /** That of the largest cell. */
    @Override
    public OptionalDouble directionRad() {
        Cell largest = cells.get(0);
        for (Cell cell : cells) {
            largest = cell.block().areaM2() > largest.block().areaM2() ? cell : largest;
        }
        return OptionalDouble.of(largest.directionRad());
    }

    @Override
    public List<School> inWind(Wind wind) {
        List<School> schools = new ArrayList<>(List.of(new School("as planned", this)));
        List<School> turned =
                StripGrid.towards(directionRad().orElseThrow()).looking(gaze).inWind(wind);
        schools.addAll(turned.subList(1, turned.size()));
        return schools;
    }

    @Override
    public StripGrid across() {
        return StripGrid.towards(directionRad().orElseThrow() + Math.PI / 2).looking(gaze);
    }

    @Override
    public CellGrid looking(Gaze otherwise) {
        return new CellGrid(cells, otherwise);
    }
}
