package yalos.core.flight;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import java.util.stream.DoubleStream;
import yalos.core.geodesy.PlanePoint;

/**
 * A whole flight: legs in the order flown and the photos taken on its lines. Planned, read from a file, flown or simulated, it is the
 * same. There may be several ways out and home.
 *
 * <pre>{@code
 * Flight level = Pass.flown(block, passes, pace, launch);
 * Flight real = level.over(heights);
 * double seconds = Timeline.of(real, pace).totalS();
 * }</pre>
 */
public final class Flight {
    private final List<Leg> legs;
    private final List<Exposure> exposures;
    private final List<Line> lines;
    private final Optional<PlanePoint> launch;
    private final double takeOffUpM;
    private final Optional<Alignment> alignment;

    /**
     * @param legs each beginning where the one before ends
     * @param exposures line by line, in the order flown
     * @param launch where it takes off; empty while nobody knows, then there is no way out and home
     * @param takeOffUpM height of the ground there, from which heights above take-off count; see {@link Place#upM()}
     */
    public Flight(List<Leg> legs, List<Exposure> exposures, Optional<PlanePoint> launch, double takeOffUpM) {
        this(legs, exposures, launch, takeOffUpM, Optional.empty());
    }

    private Flight(
            List<Leg> legs,
            List<Exposure> exposures,
            Optional<PlanePoint> launch,
            double takeOffUpM,
            Optional<Alignment> alignment) {
        this.alignment = alignment;
        this.legs = List.copyOf(legs);
        this.exposures = List.copyOf(exposures);
        this.launch = launch;
        this.takeOffUpM = takeOffUpM;
        this.lines = this.legs.stream()
                .filter(Line.class::isInstance)
                .map(Line.class::cast)
                .toList();
    }

    /** The same, known to hold an alignment before and after. */
    Flight aligned(Alignment done) {
        return new Flight(legs, exposures, launch, takeOffUpM, Optional.of(done));
    }

    /** The lidar's alignment among its legs; empty for most flights. */
    public Optional<Alignment> alignment() {
        return alignment;
    }

    /** All legs in the order flown, each beginning where the one before ends. */
    public List<Leg> legs() {
        return legs;
    }

    /** All photos in the order flown; the one with {@code id} n stands at n - 1. */
    public List<Exposure> exposures() {
        return exposures;
    }

    /** The lines alone, in the order flown. */
    public List<Line> lines() {
        return lines;
    }

    /** How many strips its lines belong to. */
    public int strips() {
        return (int) lines.stream().mapToInt(Line::strip).distinct().count();
    }

    /**
     * @param number from 1
     * @throws IllegalArgumentException when there is none
     */
    public Line line(int number) {
        if (number < 1 || number > lines.size()) {
            throw new IllegalArgumentException("no line " + number);
        }
        return lines.get(number - 1);
    }

    /** The photos of a line, in the order taken. */
    public List<Exposure> exposuresOf(Line line) {
        return exposures.subList(line.firstExposure(), line.firstExposure() + line.exposures());
    }

    /** Where it takes off and lands; empty while nobody knows. */
    public Optional<PlanePoint> launch() {
        return launch;
    }

    /** Height of the take-off point; see {@link Place#upM()}. */
    public double takeOffUpM() {
        return takeOffUpM;
    }

    /** Height of a photo above the take-off point, in metres. */
    public double aboveTakeOffM(Exposure exposure) {
        return exposure.upM() - takeOffUpM;
    }

    /** Legs that cover ground. */
    public List<Way> ways() {
        return legs.stream().filter(Way.class::isInstance).map(Way.class::cast).toList();
    }

    /** Level length of the whole path, in metres. */
    public double pathLengthM() {
        double length = 0;
        for (Leg leg : legs) {
            length += leg instanceof Way way ? way.lengthM() : 0;
        }
        return length;
    }

    /** Level length of the lines alone, in metres. */
    public double linesLengthM() {
        return lines.stream().mapToDouble(Line::lengthM).sum();
    }

    /** The highest place of its path where that is known; 0 without any. */
    public double highestM() {
        return legs.stream()
                .flatMapToDouble(leg -> leg instanceof Way way
                        ? Arrays.stream(way.upM())
                        : DoubleStream.of(leg.start().upM(), leg.end().upM()))
                .filter(up -> !Double.isNaN(up))
                .max()
                .orElse(0);
    }

    /** The greatest height at which a line begins, in metres; 0 without lines. */
    public double highestLineM() {
        return lines.stream().mapToDouble(line -> line.upM()[0]).max().orElse(0);
    }

    /**
     * A part of it, from one photo to another: lines are shortened to their photos where it begins and ends within them, numbered anew from 1, and what leads there and back is put round it.
     *
     * @param first index of its first photo, from 0
     * @param last index of its last
     * @param before what leads to the first photo
     * @param after what leads away from the last
     */
    public Flight part(
            int first, int last, List<Leg> before, List<Leg> after, Optional<PlanePoint> from, double fromUpM) {
        return new Part(this, first, last).between(before, after, from, fromUpM);
    }

    /** The same flight at the heights that some ground asks for. */
    public Flight over(Heights heights) {
        return new Laying(this, heights).laid();
    }

    /** Gives every leg its heights: first the lines, then what joins them. */
    private static final class Laying {
        private final Flight level;
        private final Heights heights;
        private final List<Leg> legs = new ArrayList<>();
        private final List<Exposure> exposures;

        Laying(Flight level, Heights heights) {
            this.level = level;
            this.heights = heights;
            this.exposures = new ArrayList<>(level.exposures);
        }

        Flight laid() {
            List<Leg> lined = level.legs.stream()
                    .map(leg -> leg instanceof Line line ? line.withHeights(heights.along(line)) : leg)
                    .toList();
            for (Leg leg : lined) {
                if (leg instanceof Line line) {
                    raise(line);
                }
            }
            for (int i = 0; i < lined.size(); ) {
                i = add(lined, i);
            }
            return new Flight(verticals(), exposures, level.launch, heights.takeOffUpM(), level.alignment);
        }

        private void raise(Line line) {
            for (int i = line.firstExposure(); i < line.firstExposure() + line.exposures(); i++) {
                Exposure exposure = exposures.get(i);
                exposures.set(i, exposure.atHeight(line.upAt(line.from().distanceM(exposure.point()))));
            }
        }

        /** Adds a leg, or all the ways up to the next line together; answers where to go on. */
        private int add(List<Leg> lined, int at) {
            if (!(lined.get(at) instanceof Way) || lined.get(at) instanceof Line) {
                legs.add(lined.get(at));
                return at + 1;
            }
            List<Way> ways = new ArrayList<>();
            int next = at;
            while (next < lined.size() && lined.get(next) instanceof Way way && !(way instanceof Line)) {
                ways.add(way);
                next++;
            }
            Optional<Line> before =
                    at > 0 && lined.get(at - 1) instanceof Line line ? Optional.of(line) : Optional.empty();
            Optional<Line> after =
                    next < lined.size() && lined.get(next) instanceof Line line ? Optional.of(line) : Optional.empty();
            double from = before.map(line -> line.end().upM())
                    .orElseGet(() -> after.map(line -> line.start().upM()).orElse(heights.takeOffUpM()));
            double to = after.map(line -> line.start().upM()).orElse(from);
            List<double[]> found = heights.between(ways, from, to);
            for (int i = 0; i < ways.size(); i++) {
                legs.add(ways.get(i).withHeights(found.get(i)));
            }
            return next;
        }

        /** Whether the aircraft is on the ground beside a climb: between two of them, or standing there. */
        private boolean grounded(Leg leg) {
            return leg instanceof Climb
                    || leg instanceof Hover hover && hover.place().upM() == level.takeOffUpM;
        }

        /** Climbs reach from what comes before them to what comes after; where nothing does, there is the ground. */
        private List<Leg> verticals() {
            List<Leg> joined = new ArrayList<>();
            for (int i = 0; i < legs.size(); i++) {
                Leg leg = legs.get(i);
                if (leg instanceof Climb climb) {
                    double from = i == 0 || grounded(legs.get(i - 1))
                            ? heights.takeOffUpM()
                            : legs.get(i - 1).end().upM();
                    double to = i + 1 == legs.size() || grounded(legs.get(i + 1))
                            ? heights.takeOffUpM()
                            : legs.get(i + 1).start().upM();
                    joined.add(new Climb(climb.at(), from, to));
                } else if (leg instanceof Hover hover && grounded(hover)) {
                    joined.add(new Hover(Place.over(hover.place().point(), heights.takeOffUpM()), hover.seconds()));
                } else if (leg instanceof Hover hover && i > 0) {
                    double up = legs.get(i - 1).end().upM();
                    joined.add(new Hover(Place.over(hover.place().point(), up), hover.seconds()));
                } else {
                    joined.add(leg);
                }
            }
            return joined;
        }
    }

    /** Cuts a part out of a flight. */
    private static final class Part {
        private final Flight whole;
        private final int first;
        private final int last;
        private final List<Leg> legs = new ArrayList<>();
        private final List<Exposure> exposures = new ArrayList<>();
        private int lines;

        Part(Flight whole, int first, int last) {
            this.whole = whole;
            this.first = first;
            this.last = last;
        }

        Flight between(List<Leg> before, List<Leg> after, Optional<PlanePoint> from, double fromUpM) {
            legs.addAll(before);
            boolean within = false;
            for (Leg leg : whole.legs) {
                if (leg instanceof Line line && line.exposures() > 0) {
                    boolean holdsFirst = holds(line, first);
                    within |= holdsFirst;
                    if (within) {
                        add(line);
                    }
                    if (holds(line, last)) {
                        hoverBehind(line);
                        break;
                    }
                } else if (within) {
                    legs.add(leg instanceof Line line ? line.numbered(++lines, exposures.size(), 0) : leg);
                }
            }
            legs.addAll(after);
            return new Flight(legs, exposures, from, fromUpM, Optional.empty());
        }

        private static boolean holds(Line line, int exposure) {
            return line.firstExposure() <= exposure && exposure < line.firstExposure() + line.exposures();
        }

        /** Where the aircraft stops at every photo, it does so at the last one too. */
        private void hoverBehind(Line line) {
            int next = whole.legs.indexOf(line) + 1;
            if (next < whole.legs.size() && whole.legs.get(next) instanceof Hover hover && line.lengthM() == 0) {
                legs.add(hover);
            }
        }

        private void add(Line line) {
            int from = Math.max(first, line.firstExposure());
            int to = Math.min(last, line.firstExposure() + line.exposures() - 1);
            double begin = from == line.firstExposure()
                    ? 0
                    : line.from().distanceM(whole.exposures.get(from).point());
            double end = to == line.firstExposure() + line.exposures() - 1
                    ? line.lengthM()
                    : line.from().distanceM(whole.exposures.get(to).point());
            legs.add(line.part(begin, end, to - from + 1).numbered(++lines, exposures.size(), to - from + 1));
            for (int i = from; i <= to; i++) {
                Exposure one = whole.exposures.get(i);
                exposures.add(
                        new Exposure(exposures.size() + 1, one.pass(), lines, one.pose(), one.lens(), one.trackRad()));
            }
        }
    }
}
