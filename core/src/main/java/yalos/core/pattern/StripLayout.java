package yalos.core.pattern;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import yalos.core.block.PlaneBlock;
import yalos.core.fault.InputFault;
import yalos.core.flight.Link;
import yalos.core.flight.Station;
import yalos.core.flight.Strip;

/**
 * The strips over a block in one direction: lines, exposure stations, links, length and time.
 *
 * <p>Every point of the block lies within half the strip spacing of a strip that runs past it with a station before and
 * one behind.
 *
 * @param directionRad of the strips, clockwise from grid north, 0 to π
 * @param strips in the order flown
 * @param stations in the order flown
 * @param links in the order flown
 * @param pathLengthM strips and links, level
 * @param flightTimeS from take-off to landing; between first and last station when the launch point is not known
 */
public record StripLayout(
        double directionRad,
        List<Strip> strips,
        List<Station> stations,
        List<Link> links,
        double pathLengthM,
        double flightTimeS) {

    /** More photos than any day of flying; beyond it a setting is surely mistyped. */
    public static final int MOST_STATIONS = 200_000;

    private static final double STRAIGHT_DOWN = -Math.PI / 2;

    public StripLayout {
        strips = List.copyOf(strips);
        stations = List.copyOf(stations);
        links = List.copyOf(links);
    }

    /**
     * @throws InputFault (field {@code stations}) when there would be more than {@value #MOST_STATIONS}
     */
    public static StripLayout of(PlaneBlock block, StripPattern pattern, double directionRad) {
        BandSweep sweep = sweepOf(block, pattern);
        sweep.sweep(directionRad);
        refuseTooMany(sweep, pattern);
        return new Flight(sweep, pattern, directionRad).layout();
    }

    static BandSweep sweepOf(PlaneBlock block, StripPattern pattern) {
        return new BandSweep(block.rings(), pattern.spacingM(), 2 * pattern.baseM());
    }

    /** Refuses settings whose stations, roughly counted from the area, are far too many, before anything is laid out. */
    public static void refuseFarTooMany(PlaneBlock block, StripPattern pattern) {
        refuse(block.areaM2() / pattern.spacingM() / pattern.baseM());
    }

    private static void refuseTooMany(BandSweep sweep, StripPattern pattern) {
        double count = 0;
        for (int band = 0; band < sweep.bands(); band++) {
            for (int strip = 0; strip < sweep.strips(band); strip++) {
                count += Math.ceil((sweep.to(band, strip) - sweep.from(band, strip)) / pattern.baseM()) + 1;
            }
        }
        refuse(count);
    }

    private static void refuse(double stations) {
        if (stations > MOST_STATIONS) {
            throw new InputFault(
                    "stations",
                    "%.0f".formatted(stations),
                    "This would take about %,.0f photos; %,d are the most. Fly higher, ask for a coarser GSD or a lower overlap, or split the block."
                            .formatted(stations, MOST_STATIONS));
        }
    }

    /** Walks the bands in order and writes down what is flown. */
    private static final class Flight {
        private final BandSweep sweep;
        private final StripPattern pattern;
        private final double directionRad;
        private final List<Strip> strips = new ArrayList<>();
        private final List<Station> stations = new ArrayList<>();
        private final List<Link> links = new ArrayList<>();
        private Optional<double[]> here;
        private double lengthM;
        private double timeS;

        Flight(BandSweep sweep, StripPattern pattern, double directionRad) {
            this.sweep = sweep;
            this.pattern = pattern;
            this.directionRad = directionRad;
            this.here = pattern.launch();
        }

        StripLayout layout() {
            Serpentine order = Serpentine.nearest(sweep, pattern);
            for (int turn = 0; turn < sweep.bands(); turn++) {
                flyBand(order.band(turn, sweep.bands()), order.reversed(turn), turn == 0);
            }
            pattern.launch().ifPresent(launch -> flyLink(Link.Kind.HOME, launch));
            timeS += pattern.climbAndDescentS();
            return new StripLayout(directionRad, strips, stations, links, lengthM, timeS);
        }

        private void flyBand(int band, boolean reversed, boolean first) {
            int count = sweep.strips(band);
            double runStart = 0;
            double runEnd = 0;
            for (int i = 0; i < count; i++) {
                int strip = reversed ? count - 1 - i : i;
                double from = sweep.from(band, strip);
                double to = sweep.to(band, strip);
                double half = pattern.stripLengthM(to - from) / 2;
                double middle = (from + to) / 2;
                double start = reversed ? middle + half : middle - half;
                double end = reversed ? middle - half : middle + half;
                Link.Kind kind = i > 0 ? Link.Kind.GAP : first ? Link.Kind.OUT : Link.Kind.TURN;
                if (i == 0) {
                    runStart = start;
                }
                runEnd = end;
                reach(kind, point(start, band));
                flyStrip(band, start, end, pattern.stationsOver(to - from), reversed);
            }
            timeS += pattern.profile().seconds(Math.abs(runEnd - runStart), pattern.speedMps());
        }

        private void reach(Link.Kind kind, double[] next) {
            if (here.isPresent()) {
                flyLink(kind, next);
            }
            here = Optional.of(next);
        }

        /** Gaps lie within the straight run of their band, whose time is counted as one. */
        private void flyLink(Link.Kind kind, double[] next) {
            double[] from = here.orElseThrow();
            Link link = new Link(kind, from[0], from[1], next[0], next[1]);
            links.add(link);
            double along = sweep.along(next[0], next[1]) - sweep.along(from[0], from[1]);
            double across = sweep.across(next[0], next[1]) - sweep.across(from[0], from[1]);
            lengthM += kind == Link.Kind.TURN ? pattern.turnLengthM(across, along) : link.lengthM();
            timeS += switch (kind) {
                case GAP -> 0;
                case TURN -> pattern.turnSeconds(across, along);
                case OUT, HOME -> pattern.transitSeconds(link.lengthM());
            };
        }

        private void flyStrip(int band, double start, double end, int count, boolean reversed) {
            double yaw = (reversed ? directionRad + Math.PI : directionRad) % (2 * Math.PI);
            int number = strips.size() + 1;
            double[] from = point(start, band);
            double[] to = point(end, band);
            strips.add(new Strip(number, from[0], from[1], to[0], to[1], yaw, stations.size(), count));
            double step = reversed ? -pattern.baseM() : pattern.baseM();
            for (int i = 0; i < count; i++) {
                double[] at = point(start + i * step, band);
                stations.add(
                        new Station(stations.size() + 1, number, at[0], at[1], pattern.heightM(), yaw, STRAIGHT_DOWN));
            }
            lengthM += Math.abs(end - start);
            here = Optional.of(to);
        }

        private double[] point(double along, int band) {
            double across = sweep.middle(band);
            return new double[] {sweep.x(along, across), sweep.y(along, across)};
        }
    }
}
