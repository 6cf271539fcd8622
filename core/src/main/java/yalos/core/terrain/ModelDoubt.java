package yalos.core.terrain;

import java.util.DoubleSummaryStatistics;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.function.ToDoubleFunction;
import java.util.stream.IntStream;
import yalos.core.fault.InputFault;
import yalos.core.geodesy.Geodesics;
import yalos.core.geodesy.LonLat;
import yalos.core.units.Unit;

/** Does an elevation model lie where it should, and as high as it should? Asked before it is kept. */
public final class ModelDoubt {
    private static final double APART_M = 5;
    private static final double FEET_IN_METRE = 1 / 0.3048;
    private static final double NEARLY = 0.02;
    private static final double GEOID_OFF_M = 3;

    private ModelDoubt() {}

    /**
     * A height that is known otherwise.
     *
     * @param at where
     * @param heightM above the geoid
     * @param words how it is known
     */
    public record KnownHeight(LonLat at, double heightM, String words) {}

    /**
     * What speaks against a model, with figures and the likely cause; empty where nothing does.
     *
     * @param block corners of the outline, some of which it ought to cover; empty while there is none
     * @param known heights that are known otherwise
     */
    public static Optional<String> of(ElevationModel model, List<LonLat> block, List<KnownHeight> known) {
        return elsewhere(model, block)
                .or(() -> known.stream()
                        .flatMap(height -> otherHeight(model, height).stream())
                        .findFirst());
    }

    private static Optional<String> elsewhere(ElevationModel model, List<LonLat> block) {
        if (block.isEmpty() || overlaps(model, block)) {
            return Optional.empty();
        }
        LonLat middle = middle(block);
        double away = model.corners().stream()
                .mapToDouble(corner -> Geodesics.distanceM(corner, middle))
                .min()
                .orElse(0);
        return Optional.of(String.format(
                Locale.ROOT,
                "The model covers nothing of the block; its nearest corner is %.1f km from the block's middle.%s",
                away / 1000,
                likely(model, block)));
    }

    /** Another zone, or longitude and latitude exchanged, that would put it over the block. */
    private static String likely(ElevationModel model, List<LonLat> block) {
        int code = model.epsg();
        boolean utm = code / 100 == 326 || code / 100 == 327;
        OptionalInt other = !utm
                ? OptionalInt.empty()
                : IntStream.rangeClosed(1, 60)
                        .flatMap(zone -> IntStream.of(32600 + zone, 32700 + zone))
                        .filter(candidate -> candidate != code)
                        .filter(candidate -> coversAny(model, candidate, block))
                        .findFirst();
        if (other.isPresent()) {
            return " As EPSG:%d it would lie here: a wrong zone?".formatted(other.getAsInt());
        }
        List<LonLat> swapped = block.stream()
                .filter(at -> Math.abs(at.lonDeg()) <= 90)
                .map(at -> LonLat.of(at.latDeg(), at.lonDeg()))
                .toList();
        return !swapped.isEmpty() && overlaps(model, swapped)
                ? " With longitude and latitude exchanged it would lie here: swapped axes?"
                : " Another EPSG code, or the model of another site?";
    }

    private static boolean coversAny(ElevationModel model, int code, List<LonLat> block) {
        try {
            ElevationModel other = new ElevationModel(model.raster(), code, model.datum());
            return overlaps(other, block);
        } catch (InputFault noGrid) {
            return false;
        }
    }

    /** Whether the rectangles round both, in longitude and latitude, meet: a patch for a hole within the block lies right. */
    private static boolean overlaps(ElevationModel model, List<LonLat> block) {
        DoubleSummaryStatistics lon = span(block, LonLat::lonDeg);
        DoubleSummaryStatistics lat = span(block, LonLat::latDeg);
        DoubleSummaryStatistics modelLon = span(model.corners(), LonLat::lonDeg);
        DoubleSummaryStatistics modelLat = span(model.corners(), LonLat::latDeg);
        return lon.getMin() <= modelLon.getMax()
                && lon.getMax() >= modelLon.getMin()
                && lat.getMin() <= modelLat.getMax()
                && lat.getMax() >= modelLat.getMin();
    }

    private static DoubleSummaryStatistics span(List<LonLat> places, ToDoubleFunction<LonLat> axis) {
        return places.stream().mapToDouble(axis).summaryStatistics();
    }

    private static boolean covers(ElevationModel model, LonLat at) {
        try {
            return model.contains(at);
        } catch (InputFault outsideOfItsGrid) {
            return false;
        }
    }

    private static LonLat middle(List<LonLat> places) {
        return LonLat.of(
                places.stream().mapToDouble(LonLat::lonDeg).average().orElse(0),
                places.stream().mapToDouble(LonLat::latDeg).average().orElse(0));
    }

    private static Optional<String> otherHeight(ElevationModel model, KnownHeight known) {
        double has = covers(model, known.at()) ? model.heightM(known.at()) : Double.NaN;
        if (Double.isNaN(has) || Math.abs(has - known.heightM()) <= APART_M) {
            return Optional.empty();
        }
        return Optional.of(String.format(
                Locale.ROOT,
                "The model has %.1f m where %s %.1f m: %.1f m apart.%s",
                has,
                known.words(),
                known.heightM(),
                Math.abs(has - known.heightM()),
                why(model, known, has)));
    }

    private static String why(ElevationModel model, KnownHeight known, double has) {
        double ratio = has / known.heightM();
        if (Math.abs(ratio / FEET_IN_METRE - 1) < NEARLY && model.datum().unit() == Unit.METRE) {
            return " That is the ratio of feet to metres: its heights are likely in feet.";
        }
        if (Math.abs(ratio * FEET_IN_METRE - 1) < NEARLY && model.datum().unit() != Unit.METRE) {
            return " That is the ratio of metres to feet: its heights are likely in metres.";
        }
        double undulation = Geoid.egm96().undulationM(known.at());
        boolean ellipsoid = Math.abs(has - known.heightM() - undulation) < GEOID_OFF_M;
        return ellipsoid
                ? " The geoid lies %.1f m from the ellipsoid there: its heights likely count from the ellipsoid."
                        .formatted(undulation)
                : " Another height system, or another place?";
    }
}
