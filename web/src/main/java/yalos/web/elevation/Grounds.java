package yalos.web.elevation;

import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Collectors;
import org.springframework.stereotype.Service;
import yalos.core.block.PlaneBlock;
import yalos.core.geodesy.Bounds;
import yalos.core.geodesy.LonLat;
import yalos.core.plan.GroundRequest;
import yalos.core.terrain.ElevationModel;
import yalos.core.terrain.HeightGrid;
import yalos.core.terrain.Holes;
import yalos.core.terrain.Holes.Hole;
import yalos.web.store.GroundFacts;
import yalos.web.store.GroundFacts.ModelUse;
import yalos.web.work.Recent;

/** Answers for the ground of a block from the models it uses, and remembers what was asked last. */
@Service
public class Grounds {
    private static final int MOST_CELLS = 2_000_000;
    private static final int KEPT_SPOTS = 1000;
    private static final double[] CELL_SIZES = {0.25, 0.5, 1, 2, 2.5, 5, 10, 20, 25, 50, 100, 200};

    private final Models models;
    private final Map<Key, GroundRequest.Surveyed> grounds =
            Recent.map(Recent.fitting(8, (long) MOST_CELLS * Float.BYTES, 12));
    private final Map<Spot, Double> spots = Recent.map(KEPT_SPOTS);

    Grounds(Models models) {
        this.models = models;
    }

    /** A place that was asked for. */
    private record Spot(List<ModelUse> models, LonLat at) {}

    /** What a piece of ground was asked for. */
    private record Key(
            List<ModelUse> models, double spanM, int epsg, double west, double east, double south, double north) {}

    /** The ground as the core asks for it; empty for level ground with nothing on or over it. */
    public Optional<GroundRequest> ground(GroundFacts facts) {
        boolean level = facts.models().isEmpty();
        if (level && facts.obstacles().isEmpty() && facts.zones().isEmpty()) {
            return Optional.empty();
        }
        GroundRequest.Source source = level
                ? GroundRequest.LEVEL
                : new Stack(facts.models(), facts.spanM().orElse(0));
        return Optional.of(
                new GroundRequest(source, facts.choice(), facts.obstacles(), facts.zones(), facts.takeOffLevelM()));
    }

    /** Models one over the other, the first counting where it knows the ground. */
    private final class Stack implements GroundRequest.Source {
        private final List<ModelUse> uses;
        private final double spanM;

        Stack(List<ModelUse> uses, double spanM) {
            this.uses = uses;
            this.spanM = spanM;
        }

        @Override
        public GroundRequest.Surveyed over(PlaneBlock block, double bufferM) {
            Bounds bounds = block.bounds();
            Key key = new Key(
                    uses,
                    spanM,
                    block.plane().grid().epsg(),
                    block.plane().toGrid(bounds.west() - bufferM, 0).east(),
                    block.plane().toGrid(bounds.east() + bufferM, 0).east(),
                    block.plane().toGrid(0, bounds.south() - bufferM).north(),
                    block.plane().toGrid(0, bounds.north() + bufferM).north());
            return Recent.once(grounds, key, () -> surveyed(stacked(uses, block, bufferM)));
        }

        private GroundRequest.Surveyed surveyed(HeightGrid grid) {
            Map<Boolean, List<Hole>> holes =
                    Holes.of(grid).stream().collect(Collectors.partitioningBy(hole -> hole.widthM() <= spanM));
            HeightGrid spanned = Holes.spanned(grid, holes.get(true));
            return new GroundRequest.Surveyed(spanned, holes.get(false), holes.get(true));
        }

        @Override
        public double heightM(LonLat at) {
            return Recent.once(spots, new Spot(uses, at), () -> read(at));
        }

        private double read(LonLat at) {
            for (ModelUse use : uses) {
                double height = models.with(use, model -> model.heightM(at));
                if (!Double.isNaN(height)) {
                    return height;
                }
            }
            return Double.NaN;
        }

        @Override
        public Stack spanning(double widestM) {
            return new Stack(uses, widestM);
        }
    }

    private HeightGrid stacked(List<ModelUse> uses, PlaneBlock block, double bufferM) {
        Bounds bounds = block.bounds();
        double width = bounds.width() + 2 * bufferM;
        double height = bounds.height() + 2 * bufferM;
        double finest = models.with(uses.get(0), ElevationModel::cellM);
        double cell = cell(Math.max(finest, Math.sqrt(width * height / MOST_CELLS)));
        HeightGrid grid = HeightGrid.level(
                bounds.west() - bufferM,
                bounds.north() + bufferM,
                cell,
                (int) Math.ceil(width / cell),
                (int) Math.ceil(height / cell),
                Double.NaN);
        for (ModelUse use : uses) {
            models.with(use, model -> {
                model.fill(grid, block.plane());
                return grid;
            });
        }
        return grid;
    }

    /** A round cell size near the one given. */
    private static double cell(double wanted) {
        for (double size : CELL_SIZES) {
            if (size >= wanted * 0.9) {
                return size;
            }
        }
        return wanted;
    }
}
