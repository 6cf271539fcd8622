package yalos.bench;

import java.util.List;
import java.util.Optional;
import java.util.concurrent.TimeUnit;
import org.locationtech.jts.geom.Coordinate;
import org.locationtech.jts.geom.Envelope;
import org.locationtech.jts.geom.Geometry;
import org.locationtech.jts.geom.GeometryFactory;
import org.locationtech.jts.geom.util.AffineTransformation;
import org.openjdk.jmh.annotations.Benchmark;
import org.openjdk.jmh.annotations.BenchmarkMode;
import org.openjdk.jmh.annotations.Mode;
import org.openjdk.jmh.annotations.OutputTimeUnit;
import org.openjdk.jmh.annotations.Scope;
import org.openjdk.jmh.annotations.Setup;
import org.openjdk.jmh.annotations.State;
import yalos.core.block.PlaneBlock;
import yalos.core.flight.Flight;
import yalos.core.flight.Pace;
import yalos.core.flight.Timeline;
import yalos.core.geodesy.PlanePoint;
import yalos.core.pattern.BestDirection;
import yalos.core.pattern.Pass;
import yalos.core.pattern.Passes;
import yalos.core.pattern.StripGrid;
import yalos.core.pattern.Task;
import yalos.core.pins.Pins;
import yalos.core.pins.Quantity;
import yalos.core.plan.BlockPlan;
import yalos.core.plan.PlanRequest;
import yalos.core.units.Measure;
import yalos.core.units.Unit;

/** A plan of about 1,500 stations, and the best of 360 directions for it. */
@State(Scope.Benchmark)
@BenchmarkMode(Mode.AverageTime)
@OutputTimeUnit(TimeUnit.MICROSECONDS)
public class PlanBench {
    private PlanRequest fixed;
    private PlanRequest sets;
    private PlaneBlock block;
    private Task task;
    private Pace pace;
    private Optional<PlanePoint> launch;
    private Geometry polygon;

    @Setup
    public void setUp() {
        fixed = Samples.block(true);
        sets = fixed.with(fixed.pins().pinned(Quantity.BATTERY_SETS, Measure.of(2, Unit.COUNT)));
        BlockPlan plan = fixed.plan();
        block = plan.block();
        task = plan.mainPass().task();
        pace = plan.timeline().pace();
        launch = plan.flight().launch();
        double[] ring = block.rings()[0];
        Coordinate[] corners = new Coordinate[ring.length / 2 + 1];
        for (int i = 0; i < ring.length; i += 2) {
            corners[i / 2] = new Coordinate(ring[i], ring[i + 1]);
        }
        corners[corners.length - 1] = corners[0];
        polygon = new GeometryFactory().createPolygon(corners);
    }

    @Benchmark
    public BlockPlan plan() {
        return fixed.plan();
    }

    /** Baseline of the plan: each band cut from the polygon by the geometry library, no stations, no times. */
    @Benchmark
    public double planBandsByJts() {
        Geometry turned =
                AffineTransformation.rotationInstance(Math.toRadians(35)).transform(polygon);
        var box = turned.getEnvelopeInternal();
        GeometryFactory factory = new GeometryFactory();
        double length = 0;
        for (double x = box.getMinX(); x < box.getMaxX(); x += task.spacingM()) {
            Geometry band =
                    factory.toGeometry(new Envelope(x, x + task.spacingM(), box.getMinY() - 1, box.getMaxY() + 1));
            length += turned.intersection(band).getEnvelopeInternal().getHeight();
        }
        return length;
    }

    @Benchmark
    public BestDirection.Choice best() {
        return BestDirection.of(block, task, pace, launch);
    }

    /** The finest GSD that two battery sets buy, direction free. */
    @Benchmark
    public BlockPlan solveByBatteries() {
        return sets.plan();
    }

    /** Baseline of the solve: finer GSDs are tried one after the other, a hundredth of a centimetre apart. */
    @Benchmark
    public double solveByWalking() {
        double cm = 5;
        while (fixed.with(Pins.ofGsd(cm - 0.01)).plan().batterySets() <= 2) {
            cm = Math.round((cm - 0.01) * 100) / 100.0;
        }
        return cm;
    }

    /** Baseline of the search: 360 whole flights, photos and all. */
    @Benchmark
    public double bestByWholeLayouts() {
        double best = Double.MAX_VALUE;
        for (int i = 0; i < 360; i++) {
            Pass pass = new Pass(StripGrid.towards(i * Math.PI / 360), task);
            Flight flight = Passes.flown(block, List.of(pass), pace, launch).flight();
            best = Math.min(best, Timeline.of(flight, pace).totalS());
        }
        return best;
    }
}
