package yalos.bench;

import java.util.List;
import java.util.concurrent.TimeUnit;
import org.openjdk.jmh.annotations.Benchmark;
import org.openjdk.jmh.annotations.BenchmarkMode;
import org.openjdk.jmh.annotations.Mode;
import org.openjdk.jmh.annotations.OutputTimeUnit;
import org.openjdk.jmh.annotations.Scope;
import org.openjdk.jmh.annotations.Setup;
import org.openjdk.jmh.annotations.State;
import yalos.core.camera.GroundScale;
import yalos.core.flight.Exposure;
import yalos.core.geodesy.Bounds;
import yalos.core.plan.BlockPlan;
import yalos.core.proof.PhotoCount;

/** The count of about 1,500 photos over a square kilometre in cells of half a metre. */
@State(Scope.Benchmark)
@BenchmarkMode(Mode.AverageTime)
@OutputTimeUnit(TimeUnit.MILLISECONDS)
public class CountBench {
    static final double CELL_M = 0.5;

    private BlockPlan plan;

    @Setup
    public void setUp() {
        plan = Samples.squareKilometre().plan();
    }

    @Benchmark
    public PhotoCount count() {
        return PhotoCount.of(plan.block(), plan.flight().exposures(), CELL_M);
    }

    /** Baseline: every cell against every photo. Only each hundredth row, to end today; the driver multiplies. */
    @Benchmark
    public long countCellByPhoto() {
        GroundScale scale = plan.design().scale();
        double halfAcross = scale.footprintAcrossM() / 2;
        double halfAlong = scale.footprintAlongM() / 2;
        List<Exposure> photos = plan.flight().exposures();
        double sin = Math.sin(photos.get(0).trackRad());
        double cos = Math.cos(photos.get(0).trackRad());
        Bounds bounds = plan.block().bounds();
        long sum = 0;
        for (double y = bounds.south() + CELL_M / 2; y < bounds.north(); y += 100 * CELL_M) {
            for (double x = bounds.west() + CELL_M / 2; x < bounds.east(); x += CELL_M) {
                for (Exposure photo : photos) {
                    double dx = x - photo.pose().eastM();
                    double dy = y - photo.pose().northM();
                    if (Math.abs(dx * sin + dy * cos) <= halfAlong && Math.abs(dx * cos - dy * sin) <= halfAcross) {
                        sum++;
                    }
                }
            }
        }
        return sum;
    }
}
