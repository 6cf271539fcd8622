package yalos.core.exchange;

import io.jenetics.jpx.GPX;
import io.jenetics.jpx.Point;
import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.util.List;
import java.util.stream.Stream;
import yalos.core.block.Outline;
import yalos.core.fault.InputFault;
import yalos.core.geodesy.LonLat;

/** Outlines from GPX 1.1: each track segment and each route, walked round the block, is one ring. */
public final class GpxOutlines {
    private GpxOutlines() {}

    /**
     * @throws InputFault for broken or hostile XML, or no track of three points
     */
    public static ImportedOutlines read(byte[] content) {
        SafeXml.check(content, "GPX");
        GPX gpx = parse(content);
        ImportedOutlines.Collector found = new ImportedOutlines.Collector();
        gpx.tracks()
                .forEach(track -> track.segments()
                        .forEach(segment -> add(found, track.getName().orElse("Track"), segment.points())));
        gpx.routes().forEach(route -> add(found, route.getName().orElse("Route"), route.points()));
        return found.finish("GPX");
    }

    private static GPX parse(byte[] content) {
        try {
            return GPX.Reader.of(GPX.Reader.Mode.LENIENT).read(new ByteArrayInputStream(content));
        } catch (IOException | IllegalArgumentException e) {
            throw new InputFault(
                    "file", "GPX", "The GPX cannot be read: a point lacks its position or has one out of range.");
        }
    }

    private static void add(ImportedOutlines.Collector found, String name, Stream<? extends Point> points) {
        List<LonLat> corners = points.map(point -> LonLat.of(
                        point.getLongitude().doubleValue(), point.getLatitude().doubleValue()))
                .toList();
        if (corners.stream().distinct().count() >= 3) {
            found.add(name, Outline.ofRing(found.ring(corners, name)));
        }
    }
}
