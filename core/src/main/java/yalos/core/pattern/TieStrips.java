package yalos.core.pattern;

import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.OptionalDouble;
import yalos.core.block.PlaneBlock;
import yalos.core.fault.InputFault;
import yalos.core.flight.FlightBuilder;
import yalos.core.flight.Pace;
import yalos.core.geodesy.Bounds;
import yalos.core.geodesy.PlanePoint;
import yalos.core.geodesy.Range;
import yalos.core.units.Measure;
import yalos.core.units.Unit;
import yalos.core.wind.Wind;

/**
 * One or two strips across or diagonally over the others. They tie the strips of a single grid to each other and keep its heights from
 * bending (common practice): one through the middle, two near the ends.
 *
 * @param count 1 or 2
 * @param angle to the lines of the main pass
 * @param tilt from straight down, looking ahead; 0 straight down
 */
public record TieStrips(Own own, int count, Measure angle, Measure tilt) implements AddedPass {
    private static final double LEAST_RAD = Math.toRadians(10);
    private static final double MOST_TILT_RAD = Math.toRadians(45);

    /** One square to the others, looking straight down. */
    public static final TieStrips ONE =
            new TieStrips(Own.NONE, 1, Measure.of(90, Unit.DEGREE), Measure.of(0, Unit.DEGREE));

    public TieStrips {
        if (count != 1 && count != 2) {
            throw new InputFault("count", count, "There are one or two tie strips; more are a crossing.");
        }
        if (Math.abs(Math.IEEEremainder(angle.si(), Math.PI)) < LEAST_RAD - 1e-9) {
            throw new InputFault(
                    "angle",
                    angle.asTyped(),
                    "At %s a tie strip lies along the others and ties nothing. Give at least 10°; 90° is square to them."
                            .formatted(angle.asTyped()));
        }
        if (!(tilt.si() >= 0 && tilt.si() <= MOST_TILT_RAD + 1e-9)) {
            throw new InputFault(
                    "tilt",
                    tilt.asTyped(),
                    "The tilt counts from straight down and must be between 0° and 45°; %s is not."
                            .formatted(tilt.asTyped()));
        }
    }

    @Override
    public String key() {
        return "tie";
    }

    @Override
    public TieStrips with(Own other) {
        return new TieStrips(other, count, angle, tilt);
    }

    @Override
    public String words() {
        String how = tilt.si() == 0 ? "" : String.format(Locale.ROOT, ", tilted by %.0f°", Math.toDegrees(tilt.si()));
        return String.format(
                Locale.ROOT,
                "%s at %.0f°%s",
                count == 1 ? "tie strip" : "two tie strips",
                Math.toDegrees(angle.si()),
                how);
    }

    @Override
    public List<Flown> passes(PlaneBlock block, double mainRad, Setting setting) {
        Gaze gaze = tilt.si() == 0 ? Gaze.NADIR : Gaze.tilted(tilt.si() - Math.PI / 2, 0);
        Ties ties = new Ties(count, mainRad + angle.si(), setting.coverAcrossM(), gaze);
        return List.of(new Flown(new Pass(ties, setting.task()), block));
    }

    /**
     * Lines straight across a block, each as far as the block reaches within what it covers, in pieces over gaps of two photos and more.
     *
     * @param coverM width of ground a line covers
     */
    private record Ties(int count, double lineRad, double coverM, Gaze gaze) implements Pattern {
        @Override
        public Ties decided(PlaneBlock block, Task task, Pace pace, Optional<PlanePoint> launch) {
            return this;
        }

        @Override
        public void refuseFarTooMany(PlaneBlock block, Task task) {
            Bounds bounds = block.bounds();
            double most = count * Math.hypot(bounds.width(), bounds.height()) / task.baseM();
            StripGrid.refuse(most);
        }

        @Override
        public void fly(PlaneBlock block, Task task, int pass, FlightBuilder flight) {
            boolean reversed = false;
            for (double across : across(block)) {
                List<Range> reaches = new ArrayList<>(
                        block.reaches(lineRad, across - coverM / 2, across + coverM / 2, 2 * task.baseM()));
                if (reversed) {
                    Collections.reverse(reaches);
                }
                boolean ahead = false;
                for (Range reach : reaches) {
                    FlightBuilder.Photographed line = line(task, pass, across, reach, reversed, flight);
                    if (ahead) {
                        flight.lineAhead(line);
                    } else {
                        flight.line(line);
                    }
                    ahead = true;
                }
                reversed = reversed ^ ahead;
            }
        }

        /** Where the lines lie, counted to the right: through the middle, or as far in from both ends as they cover. */
        private List<Double> across(PlaneBlock block) {
            Range ends = block.extent(lineRad + Math.PI / 2);
            double middle = ends.middle();
            double off = Math.max(0, (ends.length() - coverM) / 2);
            List<Double> across = new ArrayList<>();
            if (count == 1 || off == 0) {
                across.add(middle);
            } else {
                across.add(middle - off);
                across.add(middle + off);
            }
            return across;
        }

        private FlightBuilder.Photographed line(
                Task task, int pass, double across, Range reach, boolean reversed, FlightBuilder flight) {
            double middle = reach.middle();
            double half = task.lineLengthM(reach.length()) / 2;
            double track = ((reversed ? lineRad + Math.PI : lineRad) % (2 * Math.PI) + 2 * Math.PI) % (2 * Math.PI);
            PlanePoint low = at(middle - half, across);
            PlanePoint high = at(middle + half, across);
            return task.photographed(
                    pass,
                    reversed ? high : low,
                    reversed ? low : high,
                    track,
                    task.photosOver(reach.length()),
                    gaze,
                    flight.pace());
        }

        private PlanePoint at(double along, double across) {
            double sin = Math.sin(lineRad);
            double cos = Math.cos(lineRad);
            return new PlanePoint(along * sin + across * cos, along * cos - across * sin);
        }

        @Override
        public OptionalDouble directionRad() {
            return OptionalDouble.of(lineRad);
        }

        @Override
        public List<School> inWind(Wind wind) {
            return List.of(new School("as planned", this));
        }

        @Override
        public Ties across() {
            return new Ties(count, lineRad + Math.PI / 2, coverM, gaze);
        }

        @Override
        public Ties looking(Gaze otherwise) {
            return new Ties(count, lineRad, coverM, otherwise);
        }
    }
}
