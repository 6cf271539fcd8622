package yalos.core.exchange;

import java.util.List;
import java.util.OptionalDouble;
import java.util.function.BiFunction;
import java.util.stream.IntStream;
import yalos.core.block.LocalPlane;
import yalos.core.flight.Station;
import yalos.core.flight.Strip;
import yalos.core.geodesy.LonLat;
import yalos.core.plan.BlockPlan;
import yalos.core.terrain.Geoid;

/**
 * A plan ready to be written to a file: positions on the ellipsoid, degrees, yaw from grid and from true north.
 *
 * @param title of the job and block
 * @param plan what is written
 */
public record PlanSheetData(String title, BlockPlan plan) {

    /** A strip with both ends on the ellipsoid. */
    public record StripLine(Strip strip, LonLat from, LonLat to) {}

    /** A station on the ellipsoid; yaw clockwise from grid north and from true north, 0..360. */
    public record StationPoint(Station station, LonLat at, double yawDeg, double yawTrueDeg, double pitchDeg) {}

    /**
     * How high a station is, in every height system the plan knows. Over level ground only take-off and ground are known, and
     * are the same.
     */
    public record StationHeights(
            double aboveTakeOffM, double aboveGroundM, OptionalDouble aboveGeoidM, OptionalDouble aboveEllipsoidM) {}

    /** Heights of a station, by its place in the plan's list. */
    public StationHeights heights(int at) {
        Station station = plan.layout().stations().get(at);
        return plan.heights()
                .map(heights -> {
                    double geoid = heights.stationM(at);
                    double undulation = Geoid.egm96().undulationM(plane().toLonLat(station.xM(), station.yM()));
                    return new StationHeights(
                            heights.stationAboveTakeOffM(at),
                            heights.stationAboveGroundM(at),
                            OptionalDouble.of(geoid),
                            OptionalDouble.of(geoid + undulation));
                })
                .orElseGet(() -> new StationHeights(
                        station.heightM(), station.heightM(), OptionalDouble.empty(), OptionalDouble.empty()));
    }

    /** The stations of a strip, as places in the plan's list; over level ground its two ends are enough. */
    public int[] line(Strip strip) {
        int last = strip.firstStation() + strip.stations() - 1;
        return plan.heights().isPresent()
                ? IntStream.rangeClosed(strip.firstStation(), last).toArray()
                : new int[] {strip.firstStation(), last};
    }

    /** Where a station is on the ellipsoid, by its place in the plan's list. */
    public LonLat position(int at) {
        Station station = plan.layout().stations().get(at);
        return plane().toLonLat(station.xM(), station.yM());
    }

    private LocalPlane plane() {
        return plan.block().plane();
    }

    public List<StripLine> strips() {
        BiFunction<Double, Double, LonLat> at = plane()::toLonLat;
        return plan.layout().strips().stream()
                .map(strip -> new StripLine(
                        strip, at.apply(strip.fromX(), strip.fromY()), at.apply(strip.toX(), strip.toY())))
                .toList();
    }

    public List<StationPoint> stations() {
        double convergenceDeg = Math.toDegrees(plane().convergenceRad());
        return plan.layout().stations().stream()
                .map(station -> {
                    double yaw = turn(Math.toDegrees(plan.request().camera().imageYawRad(station.yawRad())));
                    return new StationPoint(
                            station,
                            plane().toLonLat(station.xM(), station.yM()),
                            yaw,
                            turn(yaw + convergenceDeg),
                            Math.toDegrees(station.pitchRad()));
                })
                .toList();
    }

    /** Into 0..360, without dust. */
    private static double turn(double degrees) {
        double turned = ((degrees % 360) + 360) % 360;
        return Math.round(turned * 1e6) / 1e6 % 360;
    }
}
