package yalos.bench;

import java.util.List;
import java.util.OptionalDouble;
import java.util.Random;
import yalos.core.block.PlaneBlock;
import yalos.core.geodesy.Bounds;
import yalos.core.geodesy.LonLat;
import yalos.core.geodesy.PlanePoint;
import yalos.core.height.HeightChoice;
import yalos.core.plan.BlockPlan;
import yalos.core.plan.GroundRequest;
import yalos.core.plan.PlanRequest;
import yalos.core.sortie.Draw;
import yalos.core.sortie.LaunchSearch;
import yalos.core.sortie.Packs;
import yalos.core.sortie.SortieSettings;
import yalos.core.sortie.Sorties;
import yalos.core.sortie.Split;
import yalos.core.sortie.Surroundings;
import yalos.core.terrain.CastShadow;
import yalos.core.terrain.HeightGrid;

/**
 * Sorties, launch points and shadows.
 *
 * @param splitMs of 2,000 stations; the best of five
 * @param plainMs of the same, every piece looked at from its first station to its last
 * @param searchMs for launch points of a square kilometre over hilly ground; places looked at
 * @param eachMs of cutting properly from some of these places, taken for all
 * @param shadeMs of a million cells, the sun 25° high; the best of three
 * @param marchedMs of the same, each ray marched metre by metre; one cell in a hundred, taken for all
 */
record SortieBench(double splitMs, double plainMs, double searchMs, double eachMs, double shadeMs, double marchedMs) {
    private static final int STATIONS = 2000;
    private static final int PLACES = 2500;
    private static final int TRIED = 10;
    private static final double USABLE = 0.75;

    static SortieBench measure() {
        Split split = split();
        double best = Double.POSITIVE_INFINITY;
        for (int i = 0; i < 5; i++) {
            best = Math.min(best, ms(() -> split.cut(USABLE)));
        }
        double plain = ms(() -> plain(split));
        PlanRequest request = Samples.squareKilometre()
                .over(new GroundRequest(new Hills(), HeightChoice.USUAL, List.of(), List.of(), OptionalDouble.empty()));
        BlockPlan plan = request.plan();
        LaunchSearch.of(plan);
        double search = ms(() -> LaunchSearch.of(plan));
        double each = ms(() -> eachCut(plan)) / TRIED * PLACES;
        HeightGrid ground = GroundBench.ground(1000);
        double shade = Double.POSITIVE_INFINITY;
        for (int i = 0; i < 3; i++) {
            shade = Math.min(shade, ms(() -> CastShadow.of(ground, 2.1, Math.toRadians(25))));
        }
        double marched = 100
                * ms(() -> marched(ground, 2.1, Math.toRadians(25)))
                / Runtime.getRuntime().availableProcessors();
        return new SortieBench(best, plain, search, each, shade, marched);
    }

    private static double ms(Runnable work) {
        long start = System.nanoTime();
        work.run();
        return (System.nanoTime() - start) / 1e6;
    }

    /** Strips of forty stations, home somewhere beside them. */
    private static Split split() {
        Random random = new Random(4);
        double[] spent = new double[STATIONS];
        double[][] way = new double[1][STATIONS];
        int[] resume = new int[STATIONS];
        boolean[] ends = new boolean[STATIONS];
        for (int i = 0; i < STATIONS; i++) {
            spent[i] = i * 0.0016 + 0.0002 * random.nextDouble();
            way[0][i] = 0.05 + 0.08 * Math.abs(Math.sin(i / 40.0));
            int begin = i - i % 40;
            resume[i] = i == begin ? i : Math.max(begin, i - 2);
            ends[i] = i % 40 == 39;
        }
        return new Split(spent, way, way, resume, ends);
    }

    /** The same by plain loops: whether a piece comes home is asked of all its stations, for every piece. */
    private static double plain(Split split) {
        double[] spent = split.spent();
        double[] home = split.home()[0];
        int n = spent.length;
        double[] best = new double[n + 1];
        for (int from = n - 1; from >= 0; from--) {
            best[from] = Double.POSITIVE_INFINITY;
            for (int to = from; to < n; to++) {
                int start = split.resume()[from];
                boolean comesHome = true;
                for (int p = start; p <= to; p++) {
                    comesHome &= split.out()[0][start] + spent[p] - spent[start] + home[p] <= USABLE;
                }
                if (comesHome) {
                    double takes = split.taken(new Split.Piece(from, to, 0));
                    best[from] = Math.min(best[from], 1000 + takes * takes + best[to + 1]);
                }
            }
        }
        return best[0];
    }

    private static void eachCut(BlockPlan plan) {
        Draw draw = Draw.of(plan.request().aircraft(), plan.design().speedMps());
        List<Double> usable = Packs.usable(plan, SortieSettings.USUAL, List.of());
        Bounds bounds = plan.block().bounds();
        for (int i = 0; i < TRIED; i++) {
            PlanePoint at = new PlanePoint(
                    bounds.west() + (i + 0.5) / TRIED * bounds.width(),
                    bounds.middle().yM());
            List<PlanePoint> launches = List.of(at);
            Sorties.of(new Sorties.Given(
                    plan, Surroundings.of(plan, launches), SortieSettings.USUAL, launches, draw, usable));
        }
    }

    private static int marched(HeightGrid ground, double azimuthRad, double elevationRad) {
        double most = ground.range().most();
        double rise = Math.tan(elevationRad);
        int shaded = 0;
        for (int row = 5; row < ground.rows(); row += 10) {
            for (int column = 5; column < ground.columns(); column += 10) {
                double z = ground.cell(column, row);
                double x = ground.x(column);
                double y = ground.y(row);
                for (double far = 1; z + far * rise < most; far++) {
                    double over = ground.at(x + far * Math.sin(azimuthRad), y + far * Math.cos(azimuthRad));
                    if (over > z + far * rise) {
                        shaded++;
                        break;
                    }
                }
            }
        }
        return shaded;
    }

    /** Rolling ground in cells of 5 m. */
    static final class Hills implements GroundRequest.Source {
        private static final double CELL_M = 5;

        @Override
        public GroundRequest.Surveyed over(PlaneBlock block, double bufferM) {
            Bounds bounds = block.bounds();
            int columns = (int) Math.ceil((bounds.width() + 2 * bufferM) / CELL_M);
            int rows = (int) Math.ceil((bounds.height() + 2 * bufferM) / CELL_M);
            HeightGrid grid =
                    HeightGrid.level(bounds.west() - bufferM, bounds.north() + bufferM, CELL_M, columns, rows, 0);
            for (int row = 0; row < rows; row++) {
                for (int column = 0; column < columns; column++) {
                    grid.heights()[row * columns + column] =
                            (float) (300 + 15 * Math.sin(grid.x(column) / 190) * Math.cos(grid.y(row) / 220));
                }
            }
            return new GroundRequest.Surveyed(grid, List.of(), List.of());
        }

        @Override
        public double heightM(LonLat at) {
            return 300;
        }

        @Override
        public GroundRequest.Source spanning(double widestM) {
            return this;
        }
    }
}
