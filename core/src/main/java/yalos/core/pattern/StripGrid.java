package yalos.core.pattern;

import java.util.List;
import java.util.Optional;
import java.util.OptionalDouble;
import yalos.core.block.PlaneBlock;
import yalos.core.fault.InputFault;
import yalos.core.flight.FlightBuilder;
import yalos.core.flight.Pace;
import yalos.core.geodesy.PlanePoint;
import yalos.core.wind.Wind;

/**
 * Parallel lines over the whole block, flown back and forth.
 *
 * <p>Every point of the block lies within half the line spacing of a line that runs past it with a photo before and one behind.
 *
 * @param directionRad of the lines, clockwise from grid north, 0 to π; that of least flight time where empty
 * @param gaze which way the camera looks
 */
public record StripGrid(OptionalDouble directionRad, Gaze gaze) implements Pattern {
    /** Looking straight down, in the direction of least flight time. */
    public static final StripGrid QUICKEST = new StripGrid(OptionalDouble.empty(), Gaze.NADIR);

    public StripGrid {
        directionRad =
                directionRad.isPresent() ? OptionalDouble.of(halfTurn(directionRad.getAsDouble())) : directionRad;
    }

    /** Looking straight down, in a direction clockwise from grid north. */
    public static StripGrid towards(double directionRad) {
        return new StripGrid(OptionalDouble.of(directionRad), Gaze.NADIR);
    }

    @Override
    public StripGrid looking(Gaze otherwise) {
        return new StripGrid(directionRad, otherwise);
    }

    /** A direction as 0 to π: lines lie the same in a direction and its opposite. */
    public static double halfTurn(double directionRad) {
        double turned = directionRad % Math.PI;
        return turned < 0 ? turned + Math.PI : turned;
    }

    @Override
    public StripGrid decided(PlaneBlock block, Task task, Pace pace, Optional<PlanePoint> launch) {
        return directionRad.isPresent()
                ? this
                : new StripGrid(
                        OptionalDouble.of(
                                BestDirection.of(block, task, pace, launch).directionRad()),
                        gaze);
    }

    @Override
    public void fly(PlaneBlock block, Task task, int pass, FlightBuilder flight) {
        double direction = directionRad.orElseThrow(() -> new IllegalStateException("the direction is not decided"));
        BandSweep sweep = sweepOf(block, task);
        sweep.sweep(direction);
        refuseTooMany(sweep, task);
        new Flying(sweep, task, pass, direction, flight).fly();
    }

    static BandSweep sweepOf(PlaneBlock block, Task task) {
        return new BandSweep(block.rings(), task.spacingM(), 2 * task.baseM());
    }

    @Override
    public void refuseFarTooMany(PlaneBlock block, Task task) {
        refuse(block.areaM2() / task.spacingM() / task.baseM());
    }

    private static void refuseTooMany(BandSweep sweep, Task task) {
        double count = 0;
        for (int band = 0; band < sweep.bands(); band++) {
            for (int strip = 0; strip < sweep.strips(band); strip++) {
                count += Math.ceil((sweep.to(band, strip) - sweep.from(band, strip)) / task.baseM()) + 1;
            }
        }
        refuse(count);
    }

    static void refuse(double photos) {
        if (photos > MOST_PHOTOS) {
            throw new InputFault(
                    "stations",
                    "%.0f".formatted(photos),
                    "This would take about %,.0f photos; %,d are the most. Fly higher, ask for a coarser GSD or a lower overlap, or split the block."
                            .formatted(photos, MOST_PHOTOS));
        }
    }

    @Override
    public List<School> inWind(Wind wind) {
        return List.of(
                new School("as planned", this),
                new School("into and away from it", turned(wind.fromRad())),
                new School("across it", turned(wind.fromRad() + Math.PI / 2)));
    }

    @Override
    public StripGrid across() {
        return turned(directionRad.orElseThrow() + Math.PI / 2);
    }

    private StripGrid turned(double toRad) {
        return new StripGrid(OptionalDouble.of(toRad), gaze);
    }

    /** Walks the bands in order. */
    private final class Flying {
        private final BandSweep sweep;
        private final Task task;
        private final int pass;
        private final double direction;
        private final FlightBuilder flight;

        Flying(BandSweep sweep, Task task, int pass, double direction, FlightBuilder flight) {
            this.sweep = sweep;
            this.task = task;
            this.pass = pass;
            this.direction = direction;
            this.flight = flight;
        }

        void fly() {
            BandOrder order = new BandOrder(task, flight.pace());
            // A camera that looks ahead sees both ways only where neighbours are flown opposite ways.
            boolean alternate = !gaze.nadir() && gaze.headingRad().isEmpty();
            boolean cornerAsked =
                    flight.beginsNear() && !flight.pace().aircraft().kind().wing();
            List<StripOrder.Step> steps = alternate || cornerAsked
                    ? BandOrder.serpentine(sweep, flight.approach())
                    : order.of(sweep, direction, flight.approach(), flight.launch());
            for (StripOrder.Step step : steps) {
                flyBand(step.strip(), step.reversed());
            }
        }

        private void flyBand(int band, boolean reversed) {
            int count = sweep.strips(band);
            for (int i = 0; i < count; i++) {
                int strip = reversed ? count - 1 - i : i;
                FlightBuilder.Photographed line = line(band, strip, reversed);
                if (i == 0) {
                    flight.line(line);
                } else {
                    flight.lineAhead(line);
                }
            }
        }

        private FlightBuilder.Photographed line(int band, int strip, boolean reversed) {
            double reach = sweep.to(band, strip) - sweep.from(band, strip);
            double middle = (sweep.from(band, strip) + sweep.to(band, strip)) / 2;
            double half = task.lineLengthM(reach) / 2;
            double track = (reversed ? direction + Math.PI : direction) % (2 * Math.PI);
            return task.photographed(
                    pass,
                    sweep.point(reversed ? middle + half : middle - half, band),
                    sweep.point(reversed ? middle - half : middle + half, band),
                    track,
                    task.photosOver(reach),
                    gaze,
                    flight.pace());
        }
    }
}
