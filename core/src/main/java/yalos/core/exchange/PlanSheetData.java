package yalos.core.exchange;

import java.util.List;
import java.util.OptionalDouble;
import java.util.stream.Stream;
import yalos.core.block.LocalPlane;
import yalos.core.flight.Exposure;
import yalos.core.flight.Flight;
import yalos.core.flight.Line;
import yalos.core.geodesy.LonLat;
import yalos.core.plan.BlockPlan;
import yalos.core.terrain.Geoid;

/**
 * A plan ready to be written to a file: positions on the ellipsoid, degrees, yaw from grid and from true north.
 *
 * @param title of the job and block
 * @param plan what is written
 * @param stops what forbids flying it as it is; every file carries them
 * @param reasons why figures are pinned, as the operator wrote it
 * @param flight that is written: the plan's own, or one of its sorties
 * @param ahead stations of the plan before the first of that flight, so that each keeps its number
 */
public record PlanSheetData(
        String title, BlockPlan plan, List<String> stops, List<String> reasons, Flight flight, int ahead) {
    public PlanSheetData {
        stops = List.copyOf(stops);
        reasons = List.copyOf(reasons);
    }

    /** A plan as it is. */
    public PlanSheetData(String title, BlockPlan plan, List<String> stops, List<String> reasons) {
        this(title, plan, stops, reasons, plan.flight(), 0);
    }

    /** A plan that nothing is said about. */
    public PlanSheetData(String title, BlockPlan plan) {
        this(title, plan, List.of(), List.of());
    }

    /**
     * A part of it instead of the whole, such as a sortie.
     *
     * @param name of the part
     * @param part its own flight
     * @param before stations of the plan before its first
     */
    public PlanSheetData part(String name, Flight part, int before) {
        return new PlanSheetData(title + ", " + name, plan, stops, reasons, part, before);
    }

    /** What a reader of a file is told beside the figures, a line each: stops, then reasons. */
    public List<String> remarks() {
        return Stream.concat(stops.stream().map(stop -> "STOP: " + stop), reasons.stream())
                .toList();
    }

    /** A line with both ends on the ellipsoid. */
    public record StripLine(Line line, LonLat from, LonLat to) {}

    /** A photo on the ellipsoid under its number in the plan; yaw of the image's top clockwise from grid north and from true north, 0..360. */
    public record StationPoint(
            int number,
            Exposure exposure,
            LonLat at,
            double yawDeg,
            double yawTrueDeg,
            double pitchDeg,
            double rollDeg) {}

    /**
     * How high a photo is taken, in every height system the plan knows; empty in those it does not. Over level ground only take-off and
     * ground are known, and are the same.
     */
    public record StationHeights(
            OptionalDouble aboveTakeOffM,
            OptionalDouble aboveGroundM,
            OptionalDouble aboveGeoidM,
            OptionalDouble aboveEllipsoidM) {}

    /** Heights of a photo. */
    public StationHeights heights(Exposure exposure) {
        if (plan.heightsUnknown()) {
            return new StationHeights(
                    OptionalDouble.empty(), OptionalDouble.empty(), OptionalDouble.empty(), OptionalDouble.empty());
        }
        OptionalDouble aboveTakeOff = known(flight.aboveTakeOffM(exposure));
        return plan.heights()
                .map(heights -> {
                    double geoid = exposure.upM();
                    double undulation = Geoid.egm96().undulationM(position(exposure));
                    return new StationHeights(
                            aboveTakeOff,
                            known(heights.aboveGroundM(exposure)),
                            OptionalDouble.of(geoid),
                            OptionalDouble.of(geoid + undulation));
                })
                .orElseGet(() ->
                        new StationHeights(aboveTakeOff, aboveTakeOff, OptionalDouble.empty(), OptionalDouble.empty()));
    }

    private static OptionalDouble known(double heightM) {
        return Double.isNaN(heightM) ? OptionalDouble.empty() : OptionalDouble.of(heightM);
    }

    /** The photos that tell where a line runs; over level ground its two ends are enough. */
    public List<Exposure> along(Line line) {
        List<Exposure> all = flight.exposuresOf(line);
        return plan.heights().isPresent() ? all : List.of(all.get(0), all.get(all.size() - 1));
    }

    /** Where a photo is taken, on the ellipsoid. */
    public LonLat position(Exposure exposure) {
        return plane().toLonLat(exposure.point());
    }

    private LocalPlane plane() {
        return plan.block().plane();
    }

    /** The lines in the order flown. */
    public List<StripLine> strips() {
        return flight.lines().stream()
                .map(line -> new StripLine(line, plane().toLonLat(line.from()), plane().toLonLat(line.to())))
                .toList();
    }

    /** The photos in the order flown. */
    public List<StationPoint> stations() {
        double convergenceDeg = Math.toDegrees(plane().convergenceRad());
        return flight.exposures().stream()
                .map(exposure -> {
                    double yaw = turn(Math.toDegrees(exposure.pose().yawRad()));
                    return new StationPoint(
                            ahead + exposure.id(),
                            exposure,
                            position(exposure),
                            yaw,
                            turn(yaw + convergenceDeg),
                            Math.toDegrees(exposure.pose().pitchRad()),
                            Math.toDegrees(exposure.pose().rollRad()));
                })
                .toList();
    }

    /** Into 0..360, without dust. */
    private static double turn(double degrees) {
        double turned = ((degrees % 360) + 360) % 360;
        return Math.round(turned * 1e6) / 1e6 % 360;
    }
}
