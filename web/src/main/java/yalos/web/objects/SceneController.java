package yalos.web.objects;

import java.util.ArrayList;
import java.util.List;
import org.springframework.http.CacheControl;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.RestController;
import yalos.core.block.LocalPlane;
import yalos.core.flight.Climb;
import yalos.core.flight.Exposure;
import yalos.core.flight.Leg;
import yalos.core.flight.Line;
import yalos.core.flight.Place;
import yalos.core.flight.Way;
import yalos.core.geodesy.Bounds;
import yalos.core.geodesy.EastNorth;
import yalos.core.geodesy.PlanePoint;
import yalos.core.plan.BlockPlan;
import yalos.core.plan.KnownGround;
import yalos.core.proof.FaceProof;
import yalos.core.proof.StructureProof;
import yalos.core.site.Structure.Built;
import yalos.core.surface.PrismFace;
import yalos.core.terrain.HeightGrid;
import yalos.core.units.Unit;
import yalos.core.units.UnitKind;
import yalos.web.block.Blocks;
import yalos.web.block.OpenBlock;
import yalos.web.block.PlanDesk;
import yalos.web.shell.Preferences;

/** Ground, objects, path and photos of a block in space, for the look from anywhere. */
@RestController
class SceneController {
    /** Heights along each side of the ground, at most: more is not seen. */
    private static final int MOST_HEIGHTS = 120;

    private final Blocks blocks;
    private final PlanDesk desk;
    private final FacesDesk faces;
    private final Preferences preferences;

    SceneController(Blocks blocks, PlanDesk desk, FacesDesk faces, Preferences preferences) {
        this.blocks = blocks;
        this.desk = desk;
        this.faces = faces;
        this.preferences = preferences;
    }

    /**
     * All of it, in metres from a point near the block's middle: east, north, up in turn.
     *
     * @param grid easting and northing of that point, and true metres in one grid unit
     * @param upM height of that point
     * @param outline rings along the ground
     * @param path pieces flown, each places in turn
     * @param kinds of those pieces: {@code line}, {@code way}
     * @param stations east, north, up, yaw, pitch, roll of each photo, angles in degrees
     * @param passes of each photo
     * @param frame half the width and height that a photo shows a metre away
     */
    record Scene(
            String name,
            double[] grid,
            double upM,
            Shown unit,
            Ground ground,
            List<Solid> solids,
            List<Plate> plates,
            List<double[]> outline,
            List<double[]> path,
            List<String> kinds,
            double[] stations,
            int[] passes,
            double[] frame) {}

    /** How heights read. */
    record Shown(String symbol, double metres) {}

    /**
     * @param heights row by row from the north-west, null where unknown
     * @param level whether nothing is known of it
     */
    record Ground(
            int columns,
            int rows,
            double west,
            double north,
            double cellX,
            double cellY,
            Float[] heights,
            boolean level) {}

    record Solid(String name, double bottom, double top, double[] ring) {}

    /**
     * A face that is proved.
     *
     * @param corners upper left, upper right, lower right, lower left
     */
    record Plate(int number, String label, double[] corners) {}

    @GetMapping("/blocks/{id}/scene.json")
    ResponseEntity<Scene> scene(@PathVariable long id) {
        OpenBlock block = blocks.open(id);
        BlockPlan plan = desk.needed(block.facts());
        return ResponseEntity.ok().cacheControl(CacheControl.noStore()).body(new Making(block, plan).scene());
    }

    private final class Making {
        private final OpenBlock block;
        private final BlockPlan plan;
        private final PlanePoint origin;
        private final double base;

        Making(OpenBlock block, BlockPlan plan) {
            this.block = block;
            this.plan = plan;
            this.origin = plan.block().bounds().middle();
            double here = plan.overGround()
                    .map(over -> over.grid().at(origin.xM(), origin.yM()))
                    .orElse(0.0);
            this.base = Double.isNaN(here)
                    ? plan.overGround().map(over -> over.grid().range().least()).orElse(0.0)
                    : here;
        }

        Scene scene() {
            LocalPlane plane = plan.block().plane();
            EastNorth at = plane.toGrid(origin);
            List<double[]> path = new ArrayList<>();
            List<String> kinds = new ArrayList<>();
            for (Leg leg : plan.flight().legs()) {
                double[] places = places(leg);
                if (places.length > 3) {
                    path.add(places);
                    kinds.add(leg instanceof yalos.core.flight.Line ? "line" : "way");
                }
            }
            Unit unit = preferences.units().unit(UnitKind.HEIGHT);
            return new Scene(
                    block.jobName() + ", " + block.name(),
                    new double[] {at.east(), at.north(), plane.metresPerUnit()},
                    round(base),
                    new Shown(unit.symbol(), unit.size()),
                    ground(),
                    solids(),
                    faces.of(block).map(this::plates).orElse(List.of()),
                    outline(),
                    path,
                    kinds,
                    stations(),
                    plan.flight().exposures().stream().mapToInt(Exposure::pass).toArray(),
                    frame());
        }

        private double[] frame() {
            var camera = plan.request().camera();
            double f = 2 * camera.focalLengthM();
            boolean wide = camera.imageYawRad(0) == 0;
            double across = camera.sideAcrossM() / f;
            double along = camera.sideAlongM() / f;
            return new double[] {wide ? across : along, wide ? along : across};
        }

        private double[] places(Leg leg) {
            List<Place> places = new ArrayList<>();
            if (leg instanceof Way way && way.lengthM() > 0) {
                int steps = way.upM().length > 2 || !(way instanceof Line)
                        ? (int) Math.max(1, Math.min(60, Math.ceil(way.lengthM() / 8)))
                        : 1;
                for (int i = 0; i <= steps; i++) {
                    places.add(way.placeAt(way.lengthM() * i / steps));
                }
            } else if (leg instanceof Climb climb) {
                places.add(climb.start());
                places.add(climb.end());
            }
            double[] flat = new double[3 * places.size()];
            for (int i = 0; i < places.size(); i++) {
                put(
                        flat,
                        3 * i,
                        places.get(i).xM(),
                        places.get(i).yM(),
                        places.get(i).upM());
            }
            return flat;
        }

        private void put(double[] to, int at, double x, double y, double up) {
            to[at] = round(x - origin.xM());
            to[at + 1] = round(y - origin.yM());
            to[at + 2] = round(Double.isNaN(up) ? 0 : up - base);
        }

        private double[] stations() {
            List<Exposure> photos = plan.flight().exposures();
            double[] flat = new double[6 * photos.size()];
            for (int i = 0; i < photos.size(); i++) {
                var pose = photos.get(i).pose();
                put(flat, 6 * i, pose.eastM(), pose.northM(), pose.upM());
                flat[6 * i + 3] = round(Math.toDegrees(pose.yawRad()));
                flat[6 * i + 4] = round(Math.toDegrees(pose.pitchRad()));
                flat[6 * i + 5] = round(Math.toDegrees(pose.rollRad()));
            }
            return flat;
        }

        private List<Solid> solids() {
            List<Solid> solids = new ArrayList<>();
            for (Built one : plan.structures().map(there -> there.built()).orElse(List.of())) {
                List<PlanePoint> ring = one.solid().ring();
                double[] flat = new double[2 * ring.size()];
                for (int i = 0; i < ring.size(); i++) {
                    flat[2 * i] = round(ring.get(i).xM() - origin.xM());
                    flat[2 * i + 1] = round(ring.get(i).yM() - origin.yM());
                }
                solids.add(new Solid(
                        one.object().name(),
                        round(one.solid().bottomM() - base),
                        round(one.solid().topM() - base),
                        flat));
            }
            return solids;
        }

        private List<Plate> plates(StructureProof proof) {
            List<Plate> plates = new ArrayList<>();
            for (FaceProof one : proof.faces()) {
                PrismFace face = one.face();
                double up = switch (face.kind()) {
                    case WALL -> Double.NaN;
                    case ROOF -> face.prism().topM();
                    case UNDERSIDE -> face.prism().bottomM();
                };
                double[] corners = new double[12];
                double[] at = new double[3];
                double[][] shares = {{0, 0}, {1, 0}, {1, 1}, {0, 1}};
                for (int i = 0; i < 4; i++) {
                    face.at(shares[i][0] * face.wideM(), shares[i][1] * face.highM(), at);
                    put(corners, 3 * i, at[0], at[1], Double.isNaN(up) ? at[2] : up);
                }
                plates.add(new Plate(one.number(), one.built().object().name() + ", " + one.words(), corners));
            }
            return plates;
        }

        private List<double[]> outline() {
            List<double[]> rings = new ArrayList<>();
            for (double[] ring : plan.block().rings()) {
                double[] flat = new double[ring.length / 2 * 3];
                for (int i = 0; i < ring.length / 2; i++) {
                    double x = ring[2 * i];
                    double y = ring[2 * i + 1];
                    double up =
                            plan.overGround().map(over -> over.grid().at(x, y)).orElse(0.0);
                    put(flat, 3 * i, x, y, Double.isNaN(up) ? base : up);
                }
                rings.add(flat);
            }
            return rings;
        }

        private Ground ground() {
            return plan.overGround().map(KnownGround::grid).map(this::ground).orElseGet(() -> {
                Bounds bounds = plan.block().bounds();
                double wide = bounds.width() + 200;
                double high = bounds.height() + 200;
                Float[] level = {0f, 0f, 0f, 0f};
                return new Ground(2, 2, round(-wide / 2), round(high / 2), round(wide), round(high), level, true);
            });
        }

        private Ground ground(HeightGrid grid) {
            int every = (int) Math.max(1, Math.ceil(Math.max(grid.columns(), grid.rows()) / (double) MOST_HEIGHTS));
            int columns = (grid.columns() - 1) / every + 1;
            int rows = (grid.rows() - 1) / every + 1;
            Float[] heights = new Float[columns * rows];
            for (int row = 0; row < rows; row++) {
                for (int column = 0; column < columns; column++) {
                    float up = grid.cell(column * every, row * every);
                    heights[row * columns + column] = Float.isNaN(up) ? null : (float) round(up - base);
                }
            }
            return new Ground(
                    columns,
                    rows,
                    round(grid.x(0) - origin.xM()),
                    round(grid.y(0) - origin.yM()),
                    grid.cellX() * every,
                    grid.cellY() * every,
                    heights,
                    false);
        }
    }

    private static double round(double metres) {
        return Math.round(metres * 1000) / 1000.0;
    }
}
