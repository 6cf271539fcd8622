package yalos.core.exchange;

import java.util.List;
import java.util.function.BiFunction;
import yalos.core.block.LocalPlane;
import yalos.core.geodesy.LonLat;
import yalos.core.ledger.BlockPlan;
import yalos.core.strips.Station;
import yalos.core.strips.Strip;

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
