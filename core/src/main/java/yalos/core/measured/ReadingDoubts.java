package yalos.core.measured;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.OptionalInt;
import java.util.function.Function;
import java.util.function.ToDoubleFunction;
import yalos.core.control.ControlLayout;
import yalos.core.fault.InputFault;
import yalos.core.geodesy.Geodesics;
import yalos.core.geodesy.LonLat;
import yalos.core.geodesy.UtmZone;
import yalos.core.terrain.Geoid;
import yalos.core.terrain.VerticalDatum.Zero;
import yalos.core.units.Unit;

/**
 * What is wrong with a table of measured points, as far as the block it belongs to can tell: each with its figure and, where one reading puts it right, that reading.
 */
public final class ReadingDoubts {
    private static final double NEAR_SHARE = 1.5;
    private static final double LEAST_NEAR_M = 300;
    private static final double SAME_MARK_M = 0.5;
    private static final double HEIGHT_ALIKE_M = 6;
    private static final double LEAST_UNDULATION_M = 8;
    private static final int UTM_NORTH = 32600;
    private static final int UTM_SOUTH = 32700;
    private static final int ZONES = 60;

    private final LonLat middle;
    private final double nearM;
    private final Function<ObservationFrame, ObservationReading> read;
    private final Function<ObservationFrame, ObservationReading> sample;
    private final ToDoubleFunction<LonLat> ground;

    /**
     * @param middle of the block
     * @param reachM of the block, from its middle to its farthest corner
     * @param read the table in another frame
     * @param sample a few rows of it in another frame: many frames are tried
     * @param ground height above the geoid; not a number where nobody knows
     */
    public ReadingDoubts(
            LonLat middle,
            double reachM,
            Function<ObservationFrame, ObservationReading> read,
            Function<ObservationFrame, ObservationReading> sample,
            ToDoubleFunction<LonLat> ground) {
        this.middle = middle;
        this.nearM = Math.max(LEAST_NEAR_M, reachM * NEAR_SHARE);
        this.read = read;
        this.sample = sample;
        this.ground = ground;
    }

    /**
     * One doubt.
     *
     * @param words with the figure
     * @param press what the cure is called; empty where there is none
     * @param cure the frame that puts it right
     */
    public record Doubt(String words, String press, Optional<ObservationFrame> cure) {}

    /** All of them for a frame, the gravest first. */
    public List<Doubt> of(ObservationFrame frame) {
        ObservationReading reading = read.apply(frame);
        List<Doubt> doubts = new ArrayList<>();
        if (reading.rows().isEmpty()) {
            return doubts;
        }
        double off = distance(reading);
        if (off > nearM) {
            doubts.add(elsewhere(frame, off));
            return doubts;
        }
        farOff(frame, reading, doubts);
        heights(frame, reading, doubts);
        repeats(frame, reading, doubts);
        return doubts;
    }

    /** Median distance of the points from the block's middle. */
    private double distance(ObservationReading reading) {
        return median(reading.rows().stream()
                .mapToDouble(
                        row -> Geodesics.distanceM(middle, row.observation().place()))
                .toArray());
    }

    private static double median(double[] figures) {
        double[] sorted = figures.clone();
        Arrays.sort(sorted);
        return sorted.length == 0 ? Double.NaN : sorted[sorted.length / 2];
    }

    /** All points far away: some other reading may bring them here. */
    private Doubt elsewhere(ObservationFrame frame, double off) {
        Map<String, ObservationFrame> tries = new LinkedHashMap<>();
        tries.put("Swap the two columns of the place", frame.turned());
        if (frame.grid()) {
            for (Unit unit : new Unit[] {Unit.METRE, Unit.FOOT, Unit.US_SURVEY_FOOT}) {
                if (unit != frame.unit()) {
                    tries.put("Read the place in " + unit.symbol(), frame.in(unit));
                    tries.put(
                            "Read the place in " + unit.symbol() + ", columns swapped",
                            frame.in(unit).turned());
                }
            }
            zones(frame, tries);
        }
        Optional<Map.Entry<String, ObservationFrame>> best = tries.entrySet().stream()
                .filter(one -> distanceIn(one.getValue()) <= nearM)
                .min(Comparator.comparingDouble(one -> distanceIn(one.getValue())));
        String words = "The points lie %s from the block.".formatted(kilometres(off));
        return best.map(one -> new Doubt(
                        words + " So they fit: " + one.getKey().toLowerCase(Locale.ROOT) + ".",
                        one.getKey(),
                        Optional.of(one.getValue())))
                .orElse(new Doubt(
                        words + " No other order, unit or zone brings them here; is it another site's file?",
                        "",
                        Optional.empty()));
    }

    private static void zones(ObservationFrame frame, Map<String, ObservationFrame> tries) {
        int epsg = frame.epsg().getAsInt();
        if (epsg > UTM_NORTH && epsg <= UTM_NORTH + ZONES || epsg > UTM_SOUTH && epsg <= UTM_SOUTH + ZONES) {
            for (int zone = 1; zone <= ZONES; zone++) {
                for (int half : new int[] {UTM_NORTH, UTM_SOUTH}) {
                    if (half + zone != epsg) {
                        String name = zone + (half == UTM_NORTH ? "N" : "S");
                        tries.put("Read them in UTM zone " + name, frame.inGrid(half + zone));
                    }
                }
            }
        }
    }

    private double distanceIn(ObservationFrame frame) {
        try {
            ObservationReading reading = sample.apply(frame);
            return reading.rows().isEmpty() ? Double.MAX_VALUE : distance(reading);
        } catch (InputFault impossible) {
            return Double.MAX_VALUE;
        }
    }

    private static String kilometres(double m) {
        return m < 10_000 ? "%.0f m".formatted(m) : "%,.0f km".formatted(m / 1000);
    }

    private void farOff(ObservationFrame frame, ObservationReading reading, List<Doubt> doubts) {
        for (ObservationReading.Row row : reading.rows()) {
            double off = Geodesics.distanceM(middle, row.observation().place());
            if (off > nearM) {
                doubts.add(new Doubt(
                        "Point %s lies %s from the middle of the block."
                                .formatted(row.observation().point(), kilometres(off)),
                        "Leave it out",
                        Optional.of(frame.without(row.number()))));
            }
        }
    }

    /** Heights against the model: off by the undulation they count from the ellipsoid, by the foot they are in feet. */
    private void heights(ObservationFrame frame, ObservationReading reading, List<Doubt> doubts) {
        List<double[]> pairs = new ArrayList<>();
        for (ObservationReading.Row row : reading.rows()) {
            OptionalDouble up = row.observation().upM();
            double model = ground.applyAsDouble(row.observation().place());
            if (up.isPresent() && Double.isFinite(model)) {
                pairs.add(new double[] {up.getAsDouble(), model});
            }
        }
        if (pairs.isEmpty()) {
            return;
        }
        double off =
                median(pairs.stream().mapToDouble(pair -> pair[0] - pair[1]).toArray());
        if (Math.abs(off) <= HEIGHT_ALIKE_M) {
            return;
        }
        double undulation = Geoid.egm96().undulationM(middle);
        String words = "Heights stand %.1f m %s the model.".formatted(Math.abs(off), off > 0 ? "above" : "below");
        Map<String, ObservationFrame> tries = new LinkedHashMap<>();
        if (Math.abs(undulation) >= LEAST_UNDULATION_M) {
            tries.put("Read them above the ellipsoid", frame.from(Zero.ELLIPSOID));
            tries.put("Read them above the geoid", frame.from(Zero.GEOID));
        }
        for (Unit unit : new Unit[] {Unit.FOOT, Unit.METRE}) {
            tries.put("Read heights in " + unit.symbol(), frame.heightsIn(unit));
            tries.put(
                    "Read heights in " + unit.symbol() + " above the ellipsoid",
                    frame.heightsIn(unit).from(Zero.ELLIPSOID));
        }
        Optional<Map.Entry<String, ObservationFrame>> best = tries.entrySet().stream()
                .filter(one -> !one.getValue().equals(frame))
                .filter(one -> heightsOff(one.getValue()) <= HEIGHT_ALIKE_M)
                .min(Comparator.comparingDouble(one -> heightsOff(one.getValue())));
        String why = best.filter(one -> one.getValue().zero() != frame.zero())
                .map(one -> " The geoid lies %.1f m %s the ellipsoid here."
                        .formatted(Math.abs(undulation), undulation > 0 ? "above" : "below"))
                .orElse("");
        doubts.add(new Doubt(words + why, best.map(Map.Entry::getKey).orElse(""), best.map(Map.Entry::getValue)));
    }

    private double heightsOff(ObservationFrame frame) {
        return Math.abs(median(sample.apply(frame).rows().stream()
                .filter(row -> row.observation().upM().isPresent())
                .mapToDouble(row -> row.observation().upM().getAsDouble()
                        - ground.applyAsDouble(row.observation().place()))
                .filter(Double::isFinite)
                .toArray()));
    }

    /** One name for two places is a slip; for one place it is a second measurement. */
    private static void repeats(ObservationFrame frame, ObservationReading reading, List<Doubt> doubts) {
        Map<String, LonLat> places = new HashMap<>();
        List<String> twice = new ArrayList<>();
        double farthest = 0;
        for (ObservationReading.Row row : reading.rows()) {
            Observation one = row.observation();
            LonLat before = places.putIfAbsent(ControlLayout.key(one.point()), one.place());
            double apart = before == null ? 0 : Geodesics.distanceM(before, one.place());
            if (apart > SAME_MARK_M && !twice.contains(one.point())) {
                twice.add(one.point());
            }
            farthest = Math.max(farthest, apart);
        }
        if (!twice.isEmpty()) {
            doubts.add(new Doubt(
                    "%s %s for places up to %s apart."
                            .formatted(
                                    String.join(", ", twice),
                                    twice.size() == 1 ? "is one name" : "are names",
                                    farthest < 10 ? "%.1f m".formatted(farthest) : kilometres(farthest)),
                    "Number them apart",
                    Optional.of(frame.numbering())));
        }
    }

    /** The grid in which a block's own points are; what a file is read in at first. */
    public static ObservationFrame first(List<ObservationColumn> columns, OptionalInt blockEpsg, LonLat middle) {
        boolean geographic = columns.contains(ObservationColumn.LATITUDE);
        OptionalInt grid = blockEpsg.isPresent() ? blockEpsg : OptionalInt.of(UtmZone.epsg(middle));
        return ObservationFrame.of(geographic ? OptionalInt.empty() : grid);
    }
}
