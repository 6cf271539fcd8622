package yalos.core.exchange;

import io.jenetics.jpx.GPX;
import io.jenetics.jpx.Point;
import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.util.List;
import java.util.stream.Stream;
import yalos.core.block.Outline;
import yalos.core.fault.InputFault;
import yalos.core.geodesy.Geodesics;
import yalos.core.geodesy.LonLat;

/** Outlines from GPX 1.1: each track segment and each route, walked round the block, is one ring. */
public final class GpxOutlines {
    /** A track whose ends lie farther apart than this share of its length was walked along something. */
    private static final double OPEN_SHARE = 0.25;

    private GpxOutlines() {}

    /**
     * @throws InputFault for broken or hostile XML, or no track that leads anywhere
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

    /** Whether a track ends so far from its start that it was not walked round anything. */
    private static boolean open(List<LonLat> track) {
        double length = 0;
        for (int i = 1; i < track.size(); i++) {
            length += Geodesics.distanceM(track.get(i - 1), track.get(i));
        }
        return Geodesics.distanceM(track.get(0), track.get(track.size() - 1)) > OPEN_SHARE * length;
    }

    private static void add(ImportedOutlines.Collector found, String name, Stream<? extends Point> points) {
        List<LonLat> corners = points.map(point -> LonLat.of(
                        point.getLongitude().doubleValue(), point.getLatitude().doubleValue()))
                .toList();
        boolean area = corners.stream().distinct().count() >= 3;
        if (area) {
            found.add(name, Outline.ofRing(found.ring(corners, name)));
        }
        if (!area || open(corners)) {
            found.axis(name, corners);
        }
    }
}
