package yalos.core.sortie;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import java.util.stream.IntStream;
import yalos.core.block.Outline;
import yalos.core.block.PlaneBlock;
import yalos.core.fault.Patience;
import yalos.core.flight.Exposure;
import yalos.core.flight.Line;
import yalos.core.flight.Pace;
import yalos.core.flight.Tally;
import yalos.core.geodesy.Bounds;
import yalos.core.geodesy.PlanePoint;
import yalos.core.plan.BlockPlan;
import yalos.core.site.Zone;
import yalos.core.terrain.Relief;
import yalos.core.terrain.SightLine;

/**
 * Where could the aircraft take off and land? Thousands of places in and round a block, weighed by what is known of them: sorties and time in the air, how much of the flight can be seen from there,
 * room, slope, level against the block, distance from zones and what stands there.
 *
 * <p>Sorties of a place are counted by {@link Split} on some hundred stations, the ways straight at one return height and, in a wind, in the nearest of 72 directions; those that are taken are cut properly.
 *
 * <p>KNOWN LIMITS: leave to stand there, access, people and what no model or obstacle list holds are for the pilot to look at. Over level ground all of the flight counts as seen.
 */
public final class LaunchSearch {
    /** Clear of obstacles all round, and of zones (common practice for small aircraft). */
    private static final double ROOM_M = 15;

    private static final double LOOKED_ROUND_M = 200;
    private static final double STEEPEST_RAD = Math.toRadians(10);
    private static final double AROUND_M = 120;
    private static final int PLACES = 2500;
    private static final int STATIONS = 100;
    private static final int MOST = 4;
    private static final double APART_M = 60;
    /** Places that are as good as each other are parted by what is seen in steps of so much. */
    private static final double SEEN_STEP = 0.02;

    private final BlockPlan plan;
    private final Surroundings around;
    private final Draw draw;
    private final double usable;
    private final double eyeM;
    private final double returnM;
    private final List<Exposure> looked = new ArrayList<>();
    private final List<PlaneBlock> busy;
    private final List<PlaneBlock> zones;
    private final Straights outTakes;
    private final Straights homeTakes;
    private final double[] spent;
    private final int[] resume;
    private final boolean[] ends;

    private LaunchSearch(BlockPlan plan, Draw draw, double usable, double eyeM, List<Outline> busy) {
        this.busy = areas(plan, busy);
        this.plan = plan;
        this.around = Surroundings.of(plan, List.of());
        this.zones = areas(
                plan,
                around.zones().stream()
                        .filter(zone -> zone.kind() != Zone.Kind.KEEP_IN)
                        .map(Zone::outline)
                        .toList());
        this.draw = draw;
        this.usable = usable;
        this.eyeM = eyeM;
        this.returnM = plan.returnAboveTakeOffM().orElse(plan.design().scale().heightM());
        Tally tally = plan.timeline().tally(draw);
        double[] all = tally.atPhotos();
        List<Exposure> photos = plan.flight().exposures();
        int every = Math.max(1, photos.size() / STATIONS);
        List<Integer> chosen = new ArrayList<>();
        for (int i = 0; i < photos.size(); i += every) {
            chosen.add(i);
            looked.add(photos.get(i));
        }
        Pace pace = plan.timeline().pace();
        this.outTakes = new Straights(pace, draw, pace.aircraft().transitMps());
        this.homeTakes = new Straights(pace, draw, pace.aircraft().returnMps());
        this.spent = chosen.stream().mapToDouble(i -> all[i]).toArray();
        this.resume = IntStream.range(0, spent.length).toArray();
        this.ends = new boolean[spent.length];
        for (int i = 0; i < ends.length; i++) {
            // Thinned stations end a strip where the next one lies on another.
            ends[i] = i + 1 == ends.length || strip(i) != strip(i + 1);
        }
    }

    private int strip(int i) {
        Line line = plan.flight().line(looked.get(i).line());
        return line.strip();
    }

    /**
     * A place to take off from.
     *
     * @param at in the block's plane
     * @param seen share of the photos that can be seen from an eye there, 0..1
     * @param farthestM level distance to the farthest photo
     * @param slopeRad of the ground; 0 over level ground
     * @param sorties about so many
     * @param seconds in the air, about
     * @param levelM of its ground over the block's mean; 0 over level ground
     * @param roomM to the nearest obstacle, no more than 200
     * @param zoneM to the nearest zone or traffic, no more than 200
     */
    public record Spot(
            PlanePoint at,
            double seen,
            double farthestM,
            double slopeRad,
            int sorties,
            double seconds,
            double levelM,
            double roomM,
            double zoneM) {}

    /** The best few for the kit as it is, the best first; none where no place qualifies. */
    public static List<Spot> of(BlockPlan plan) {
        List<Double> usable = Packs.usable(plan, SortieSettings.USUAL, List.of());
        Draw draw = Draw.of(plan.request().aircraft(), plan.design().speedMps());
        return of(plan, draw, usable.get(0), SortieSettings.USUAL.eyeM(), List.of());
    }

    /**
     * @param usable what a battery has, its reserve untouched
     * @param eyeM of the pilot above ground
     * @param busy areas of traffic or without access, where nobody takes off
     */
    public static List<Spot> of(BlockPlan plan, Draw draw, double usable, double eyeM, List<Outline> busy) {
        return plan.flight().exposures().isEmpty() || plan.heightsUnknown()
                ? List.of()
                : new LaunchSearch(plan, draw, usable, eyeM, busy).best();
    }

    private List<Spot> best() {
        List<Spot> spots = candidates();
        spots.sort(Comparator.comparingInt(Spot::sorties)
                .thenComparingDouble(spot -> -Math.round(spot.seen() / SEEN_STEP))
                .thenComparingDouble(Spot::seconds));
        List<Spot> best = new ArrayList<>();
        for (Spot spot : spots) {
            boolean apart = best.stream().allMatch(other -> other.at().distanceM(spot.at()) >= APART_M);
            if (apart && best.size() < MOST) {
                best.add(spot);
            }
        }
        return best;
    }

    private List<Spot> candidates() {
        Bounds bounds = plan.block().bounds();
        double width = bounds.width() + 2 * AROUND_M;
        double height = bounds.height() + 2 * AROUND_M;
        double step = Math.sqrt(width * height / PLACES);
        boolean level = plan.heights().isEmpty();
        Relief relief = new Relief(around.ground());
        Optional<SightLine> sight =
                level && around.bare() ? Optional.empty() : Optional.of(SightLine.forManyRays(around.surface()));
        double mean = level ? 0 : plan.heights().orElseThrow().relief().meanM();
        List<Spot> spots = new ArrayList<>();
        for (double x = bounds.west() - AROUND_M; x <= bounds.east() + AROUND_M; x += step) {
            for (double y = bounds.south() - AROUND_M; y <= bounds.north() + AROUND_M; y += step) {
                Patience.check();
                PlanePoint at = new PlanePoint(x, y);
                double slope = level ? 0 : slopeRad(relief, at);
                double ground = around.groundM(at);
                if (slope <= STEEPEST_RAD && !Double.isNaN(ground) && hasRoom(at)) {
                    flown(at, ground)
                            .ifPresent(air -> spots.add(new Spot(
                                    at,
                                    sight.map(there -> seen(there, at, ground)).orElse(1.0),
                                    farthestM(at),
                                    slope,
                                    air.sorties,
                                    air.seconds,
                                    ground - mean,
                                    roomM(at),
                                    zoneM(at))));
                }
            }
        }
        return spots;
    }

    /** Not a number, which is not flat enough, where the ground is not known. */
    private double slopeRad(Relief relief, PlanePoint at) {
        int column = (int)
                Math.floor((at.xM() - around.ground().west()) / around.ground().cellX());
        int row = (int)
                Math.floor((around.ground().north() - at.yM()) / around.ground().cellY());
        boolean within = column >= 0
                && row >= 0
                && column < around.ground().columns()
                && row < around.ground().rows();
        return within ? relief.slopeRad(column, row) : Double.NaN;
    }

    private boolean hasRoom(PlanePoint at) {
        return around.hasRoom(at, ROOM_M)
                && around.site().zonesAt(at.xM(), at.yM(), 0).isEmpty()
                && nearestM(busy, at) > 0;
    }

    private record Air(int sorties, double seconds) {}

    private Optional<Air> flown(PlanePoint at, double groundM) {
        double returnUp = Math.max(groundM, plan.flight().takeOffUpM()) + returnM;
        Pace pace = plan.timeline().pace();
        double climbing = draw.vertical(pace.aircraft().climbMps());
        double sinking = draw.vertical(-pace.aircraft().descentMps());
        double[] out = new double[looked.size()];
        double[] home = new double[looked.size()];
        for (int i = 0; i < out.length; i++) {
            Exposure photo = looked.get(i);
            double up = Math.max(returnUp, photo.upM());
            double rise = up - photo.upM();
            double whole = up - groundM;
            PlanePoint there = photo.point();
            out[i] = climbing * pace.climbS(whole) + sinking * pace.climbS(-rise) + outTakes.of(at, there);
            home[i] = climbing * pace.climbS(rise) + sinking * pace.climbS(-whole) + homeTakes.of(there, at);
        }
        Split split = new Split(spent, new double[][] {out}, new double[][] {home}, resume, ends);
        return split.cut(usable).map(pieces -> {
            double ways = 0;
            for (Split.Piece piece : pieces) {
                ways += waysS(pace, at, groundM, returnUp, looked.get(piece.from()))
                        + waysS(pace, at, groundM, returnUp, looked.get(piece.to()));
            }
            return new Air(pieces.size(), ways + blockS());
        });
    }

    /** What straight ways take, by their direction: beyond speeding up and braking it grows with the length. */
    private static final class Straights {
        private static final int DIRECTIONS = 72;
        private static final double SHORT_M = 400;
        private static final double LONG_M = 1400;

        private final double[] each = new double[DIRECTIONS];
        private final double[] once = new double[DIRECTIONS];

        Straights(Pace pace, Draw draw, double wantedMps) {
            PlanePoint from = new PlanePoint(0, 0);
            for (int i = 0; i < DIRECTIONS; i++) {
                double track = 2 * Math.PI * i / DIRECTIONS;
                double few = Tally.straight(pace, draw, from, from.moved(track, SHORT_M), wantedMps);
                double many = Tally.straight(pace, draw, from, from.moved(track, LONG_M), wantedMps);
                each[i] = Double.isInfinite(few) ? few : (many - few) / (LONG_M - SHORT_M);
                once[i] = Double.isInfinite(few) ? 0 : few - each[i] * SHORT_M;
            }
        }

        double of(PlanePoint from, PlanePoint to) {
            int direction = (int) Math.round(from.bearingRad(to) / (2 * Math.PI) * DIRECTIONS);
            int at = Math.floorMod(direction, DIRECTIONS);
            return once[at] + each[at] * from.distanceM(to);
        }
    }

    private double blockS() {
        double[] photos = plan.timeline().exposuresS();
        return photos[photos.length - 1] - photos[0];
    }

    private static double waysS(Pace pace, PlanePoint at, double groundM, double returnUpM, Exposure photo) {
        return pace.climbS(Math.max(returnUpM, photo.upM()) - groundM) + pace.transitS(at, photo.point());
    }

    private double seen(SightLine sight, PlanePoint at, double groundM) {
        double eye = groundM + eyeM;
        long seen = looked.stream()
                .filter(photo ->
                        sight.clear(photo.point().xM(), photo.point().yM(), photo.upM(), at.xM(), at.yM(), eye))
                .count();
        return (double) seen / looked.size();
    }

    private double farthestM(PlanePoint at) {
        return looked.stream()
                .mapToDouble(photo -> photo.point().distanceM(at))
                .max()
                .orElse(0);
    }

    private double roomM(PlanePoint at) {
        for (double room = ROOM_M; room < LOOKED_ROUND_M; room *= 1.25) {
            if (!around.hasRoom(at, room)) {
                return room;
            }
        }
        return LOOKED_ROUND_M;
    }

    private static List<PlaneBlock> areas(BlockPlan plan, List<Outline> outlines) {
        return outlines.stream()
                .map(outline -> PlaneBlock.in(outline, plan.block().plane()))
                .toList();
    }

    private static double nearestM(List<PlaneBlock> areas, PlanePoint at) {
        return areas.stream().mapToDouble(area -> area.distanceM(at)).min().orElse(LOOKED_ROUND_M);
    }

    private double zoneM(PlanePoint at) {
        return Math.min(LOOKED_ROUND_M, Math.min(nearestM(zones, at), nearestM(busy, at)));
    }
}
