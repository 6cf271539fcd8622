package yalos.core.exchange;

import io.jenetics.jpx.GPX;
import io.jenetics.jpx.Metadata;
import io.jenetics.jpx.Route;
import io.jenetics.jpx.WayPoint;
import java.io.IOException;
import java.io.OutputStream;
import java.util.Locale;
import java.util.OptionalDouble;

/**
 * A plan as GPX 1.1: the stations as way points, the path as a route. Elevations count from the geoid
 * and stand only where real ground makes them known; heights above take-off stand in the descriptions.
 */
public final class PlanGpx {
    private PlanGpx() {}

    /** Writes a plan as GPX. */
    public static void write(PlanSheetData data, OutputStream out) throws IOException {
        Route.Builder route = Route.builder().name(data.title() + ", strips");
        for (PlanSheetData.StripLine line : data.strips()) {
            String strip = "strip " + line.line().number();
            route.addPoint(WayPoint.builder()
                    .name(strip + " start")
                    .build(line.from().latDeg(), line.from().lonDeg()));
            route.addPoint(WayPoint.builder()
                    .name(strip + " end")
                    .build(line.to().latDeg(), line.to().lonDeg()));
        }
        GPX.Builder gpx = GPX.builder("Yalos")
                .metadata(Metadata.builder()
                        .name(data.title())
                        .desc(data.remarks().isEmpty() ? null : String.join("\n", data.remarks()))
                        .build())
                .addRoute(route.build());
        for (PlanSheetData.StationPoint point : data.stations()) {
            WayPoint.Builder place = WayPoint.builder()
                    .name(String.valueOf(point.number()))
                    .desc(String.format(
                            Locale.ROOT,
                            "pass %d, strip %d, %syaw %.1f° true, pitch %.0f°, roll %.0f°",
                            point.exposure().pass(),
                            point.exposure().line(),
                            aboveTakeOff(data.heights(point.exposure())),
                            point.yawTrueDeg(),
                            point.pitchDeg(),
                            point.rollDeg()));
            data.heights(point.exposure()).aboveGeoidM().ifPresent(place::ele);
            gpx.addWayPoint(place.build(point.at().latDeg(), point.at().lonDeg()));
        }
        GPX.Writer.DEFAULT.write(gpx.build(), out);
    }

    private static String aboveTakeOff(PlanSheetData.StationHeights heights) {
        OptionalDouble height = heights.aboveTakeOffM();
        return height.isPresent()
                ? String.format(Locale.ROOT, "%.1f m above take-off, ", height.getAsDouble())
                : "height above take-off unknown, ";
    }
}
