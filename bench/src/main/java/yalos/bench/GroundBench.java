package yalos.bench;

import java.util.ArrayList;
import java.util.EnumSet;
import java.util.List;
import java.util.Set;
import java.util.concurrent.TimeUnit;
import org.openjdk.jmh.annotations.Benchmark;
import org.openjdk.jmh.annotations.BenchmarkMode;
import org.openjdk.jmh.annotations.Mode;
import org.openjdk.jmh.annotations.OutputTimeUnit;
import org.openjdk.jmh.annotations.Param;
import org.openjdk.jmh.annotations.Scope;
import org.openjdk.jmh.annotations.Setup;
import org.openjdk.jmh.annotations.State;
import yalos.core.camera.Lens;
import yalos.core.camera.Pose;
import yalos.core.camera.View;
import yalos.core.flight.Exposure;
import yalos.core.proof.GroundProof;
import yalos.core.proof.Noise;
import yalos.core.proof.SurfaceProof;
import yalos.core.terrain.HeightGrid;

/** The proof of hilly ground with a cliff in it, by photos 100 m above it with usual overlaps. */
@State(Scope.Benchmark)
@BenchmarkMode(Mode.SingleShotTime)
@OutputTimeUnit(TimeUnit.MILLISECONDS)
public class GroundBench {
    /** Side of the square in metres; cells of 1 m. */
    @Param({"500", "1000", "3160"})
    int side;

    private HeightGrid ground;
    private Lens lens;
    private List<Exposure> photos;

    /** Rolling ground, and a cliff 40 m high along a line. */
    static HeightGrid ground(int side) {
        HeightGrid grid = HeightGrid.level(0, side, 1, side, side, 0);
        for (int row = 0; row < side; row++) {
            for (int column = 0; column < side; column++) {
                double x = grid.x(column);
                double y = grid.y(row);
                double cliff = x + 0.4 * y > 0.7 * side ? 40 : 0;
                grid.heights()[row * side + column] =
                        (float) (300 + 25 * Math.sin(x / 90) * Math.cos(y / 120) + 3 * Math.sin(x / 11) + cliff);
            }
        }
        return grid;
    }

    /** A regular block over a square: footprint 133 by 100 m, 80 % forward and 70 % side overlap. */
    static List<Exposure> photos(int side) {
        List<Exposure> photos = new ArrayList<>();
        Lens lens = lens();
        int strip = 0;
        for (double y = 0; y <= side; y += 40) {
            strip++;
            for (double x = 0; x <= side; x += 20) {
                photos.add(Exposure.of(photos.size() + 1, strip, Pose.vertical(x, y, 430, Math.PI / 2), lens));
            }
        }
        return photos;
    }

    static Lens lens() {
        return new Lens(4000, 3000, 3000, 3000, 2000, 1500, Lens.Distortion.NONE);
    }

    @Setup
    public void setUp() {
        ground = ground(side);
        lens = lens();
        photos = photos(side);
    }

    private GroundProof proved(Set<SurfaceProof.Layer> layers) {
        return GroundProof.of(
                ground, new boolean[0], photos, Noise.ofImage(0.5), new SurfaceProof.Scope(layers), share -> true);
    }

    /** Photos with occlusion, as the target says. */
    @Benchmark
    public GroundProof count() {
        return proved(EnumSet.noneOf(SurfaceProof.Layer.class));
    }

    /** Every layer at once. */
    @Benchmark
    public GroundProof everyLayer() {
        return proved(SurfaceProof.Layer.ofGround());
    }

    /**
     * Baseline: every cell against every photo, and the ray marched cell by cell for those in frame. Only each hundredth row, on
     * one processor; the driver multiplies by 100 and divides by the processors.
     */
    @Benchmark
    public long plain() {
        List<View> views =
                photos.stream().map(photo -> new View(lens, photo.pose())).toList();
        long seen = 0;
        for (int row = 50; row < ground.rows(); row += 100) {
            for (int column = 0; column < ground.columns(); column++) {
                double x = ground.x(column);
                double y = ground.y(row);
                double z = ground.cell(column, row);
                for (int i = 0; i < views.size(); i++) {
                    Pose pose = photos.get(i).pose();
                    boolean inFrame = views.get(i)
                            .of(x, y, z)
                            .filter(View.Sighting::inFrame)
                            .isPresent();
                    if (inFrame && marched(x, y, z, pose)) {
                        seen++;
                    }
                }
            }
        }
        return seen;
    }

    private boolean marched(double x, double y, double z, Pose pose) {
        double length = Math.hypot(pose.eastM() - x, pose.northM() - y);
        int steps = (int) Math.ceil(length * 2);
        for (int i = 1; i < steps; i++) {
            double share = (double) i / steps;
            double surface = ground.at(x + (pose.eastM() - x) * share, y + (pose.northM() - y) * share);
            if (surface > z + (pose.upM() - z) * share + 0.005) {
                return false;
            }
        }
        return true;
    }
}
