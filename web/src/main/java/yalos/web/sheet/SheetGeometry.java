package yalos.web.sheet;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.stream.DoubleStream;
import yalos.core.block.LocalPlane;
import yalos.core.flight.Exposure;
import yalos.core.flight.Line;
import yalos.core.flight.Link;
import yalos.core.flight.Way;
import yalos.core.geodesy.EastNorth;
import yalos.core.geodesy.Grid;
import yalos.core.geodesy.LonLat;
import yalos.core.geodesy.PlanePoint;
import yalos.core.plan.BlockPlan;
import yalos.core.plan.StructurePlan;
import yalos.core.site.Obstacle;
import yalos.core.site.Structure;
import yalos.core.site.Zone;
import yalos.web.store.BlockFacts;

/** Lines and places of a plan as the sheet draws them: easting and northing in turn, in the units of the job's grid. */
final class SheetGeometry {
    private SheetGeometry() {}

    static int[] passOf(BlockPlan plan) {
        return plan.flight().lines().stream().mapToInt(Line::pass).toArray();
    }

    /** Numbers of the passes whose camera does not look straight down. */
    static int[] tilted(BlockPlan plan) {
        return plan.flight().exposures().stream()
                .filter(photo -> photo.pose().pitchRad() > -Math.PI / 2 + 1e-6)
                .mapToInt(Exposure::pass)
                .distinct()
                .toArray();
    }

    static List<Sheet.Thing> things(BlockFacts facts, Grid grid) {
        List<Sheet.Thing> things = new ArrayList<>();
        for (Obstacle obstacle : facts.ground().obstacles()) {
            things.add(new Sheet.Thing("obstacle", obstacle.name(), obstacle.isArea(), flat(obstacle.places(), grid)));
        }
        for (Zone zone : facts.ground().zones()) {
            String kind = zone.kind().words().replace(' ', '-');
            zone.outline()
                    .rings()
                    .forEach(ring -> things.add(new Sheet.Thing(kind, zone.name(), true, flat(ring, grid))));
        }
        return things;
    }

    /** Objects where they stand, each part with a name once. */
    static List<Sheet.Thing> objects(BlockPlan plan) {
        LocalPlane plane = plan.block().plane();
        List<Sheet.Thing> things = new ArrayList<>();
        String named = "";
        for (Structure.Built one : plan.structures().map(StructurePlan::built).orElse(List.of())) {
            List<PlanePoint> ring = one.solid().ring();
            double[] places = new double[2 * ring.size()];
            for (int i = 0; i < ring.size(); i++) {
                put(places, 2 * i, plane.toGrid(ring.get(i)));
            }
            String name = one.object().name();
            String kind = one.kind() == Structure.Kind.DECK ? "deck" : "object";
            things.add(new Sheet.Thing(kind, name.equals(named) ? "" : name, true, places));
            named = name;
        }
        return things;
    }

    static double[] flat(List<LonLat> places, Grid grid) {
        return places.stream()
                .map(grid::toGrid)
                .flatMapToDouble(at -> DoubleStream.of(at.east(), at.north()))
                .toArray();
    }

    static List<double[]> rings(List<List<LonLat>> rings, Grid grid) {
        return rings.stream().map(ring -> flat(ring, grid)).toList();
    }

    static List<double[]> flown(BlockPlan plan) {
        LocalPlane plane = plan.block().plane();
        List<double[]> rings = new ArrayList<>();
        for (double[] ring : plan.covered().rings()) {
            double[] moved = new double[ring.length];
            for (int i = 0; i < ring.length; i += 2) {
                put(moved, i, plane.toGrid(ring[i], ring[i + 1]));
            }
            rings.add(moved);
        }
        return rings;
    }

    static double[] strips(BlockPlan plan) {
        LocalPlane plane = plan.block().plane();
        List<Line> strips = plan.flight().lines();
        double[] lines = new double[4 * strips.size()];
        for (int i = 0; i < strips.size(); i++) {
            put(lines, 4 * i, plane.toGrid(strips.get(i).from()));
            put(lines, 4 * i + 2, plane.toGrid(strips.get(i).to()));
        }
        return lines;
    }

    static double[] stations(BlockPlan plan) {
        LocalPlane plane = plan.block().plane();
        double[] points = new double[2 * plan.photos()];
        for (int i = 0; i < plan.photos(); i++) {
            put(points, 2 * i, plane.toGrid(plan.flight().exposures().get(i).point()));
        }
        return points;
    }

    static int[] stationsOf(BlockPlan plan) {
        List<Line> strips = plan.flight().lines();
        int[] firsts = new int[strips.size() + 1];
        for (int i = 0; i < strips.size(); i++) {
            firsts[i] = strips.get(i).firstExposure();
        }
        firsts[strips.size()] = plan.photos();
        return firsts;
    }

    static List<Sheet.LinkLine> links(BlockPlan plan) {
        LocalPlane plane = plan.block().plane();
        List<Sheet.LinkLine> lines = new ArrayList<>();
        for (Way way : plan.flight().ways()) {
            if (!(way instanceof Line)) {
                List<PlanePoint> shape = way.shape();
                double[] line = new double[2 * shape.size()];
                for (int i = 0; i < shape.size(); i++) {
                    put(line, 2 * i, plane.toGrid(shape.get(i)));
                }
                Link.Kind kind = way instanceof Link link ? link.kind() : Link.Kind.TURN;
                lines.add(new Sheet.LinkLine(kind.name().toLowerCase(Locale.ROOT), line));
            }
        }
        return lines;
    }

    /** Centimetres are enough for a screen and keep the answer small. */
    private static void put(double[] to, int at, EastNorth position) {
        to[at] = Math.round(position.east() * 100) / 100.0;
        to[at + 1] = Math.round(position.north() * 100) / 100.0;
    }

    static double[] pair(EastNorth position) {
        return new double[] {position.east(), position.north()};
    }
}
