package yalos.web.kit;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.function.Function;
import java.util.function.ToDoubleFunction;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.RequestParam;
import yalos.core.brief.Brief;
import yalos.core.fault.InputFault;
import yalos.core.finding.KitFit;
import yalos.core.kit.Kit;
import yalos.core.plan.BlockPlan;
import yalos.core.trial.KitComparison;
import yalos.core.units.UnitChoice;
import yalos.core.units.UnitKind;
import yalos.web.block.Blocks;
import yalos.web.block.OpenBlock;
import yalos.web.block.PlanDesk;
import yalos.web.block.Planned;
import yalos.web.block.Stage;
import yalos.web.shell.Preferences;
import yalos.web.store.CameraMapper;
import yalos.web.store.CameraRow;
import yalos.web.work.PageWork;

/** Kits side by side on one block, at equal GSD or at equal height. */
@Controller
class ComparisonController {
    private static final int MOST_KITS = 5;

    private final Blocks blocks;
    private final PlanDesk desk;
    private final Catalogue catalogue;
    private final CameraMapper cameras;
    private final Preferences preferences;
    private final PageWork work;

    ComparisonController(
            Blocks blocks,
            PlanDesk desk,
            Catalogue catalogue,
            CameraMapper cameras,
            Preferences preferences,
            PageWork work) {
        this.work = work;
        this.cameras = cameras;
        this.blocks = blocks;
        this.desk = desk;
        this.catalogue = catalogue;
        this.preferences = preferences;
    }

    /** A kit that can be ticked. */
    record Choice(long id, String name, boolean chosen) {}

    /** A quantity with its figure for each kit. */
    record Row(String label, List<Cell> cells) {}

    /**
     * One figure.
     *
     * @param mark {@code best}, {@code worst} or empty
     * @param bar its size against the greatest of its row, 0..100
     */
    record Cell(String figure, String mark, double bar) {}

    /** A camera with one of its lenses that can be ticked; the block's aircraft carries it. */
    record CameraChoice(String value, String name, boolean chosen) {}

    @GetMapping("/blocks/{id}/compare")
    String compare(
            @PathVariable long id,
            @RequestParam(required = false) List<Long> kit,
            @RequestParam(required = false) List<String> camera,
            @RequestParam(defaultValue = "gsd") String equal,
            Model model) {
        OpenBlock block = blocks.open(id);
        Planned planned = desk.plan(block.facts());
        BlockPlan plan = planned.whole()
                .orElseThrow(() -> planned.fault()
                        .orElse(new InputFault(
                                "plan", "none", "There is no plan to compare kits on yet; draw an outline.")))
                .plan();
        List<Catalogue.Entry<Kit>> all = catalogue.kits();
        List<Long> chosen =
                kit == null ? all.stream().limit(3).map(Catalogue.Entry::id).toList() : kit;
        KitComparison.Equal held = equal.equals("height") ? KitComparison.Equal.HEIGHT : KitComparison.Equal.GSD;
        List<Kit> kits = new ArrayList<>(List.of(block.facts().kit()));
        all.stream()
                .filter(entry -> chosen.contains(entry.id()))
                .filter(entry -> !sameGear(entry.gear(), block.facts().kit()))
                .limit(MOST_KITS - 1)
                .forEach(entry -> kits.add(entry.gear()));
        List<String> lenses = camera == null ? List.of() : camera;
        List<CameraChoice> cameraChoices = new ArrayList<>();
        for (CameraRow row : cameras.all()) {
            for (double lens : row.lensesMm()) {
                String value = row.id() + ":" + Typed.plain(lens);
                boolean ticked = lenses.contains(value);
                cameraChoices.add(new CameraChoice(value, row.name() + ", " + Typed.plain(lens) + " mm", ticked));
                if (ticked && kits.size() < MOST_KITS) {
                    kits.add(Kit.of(block.facts().aircraft(), row.withLens(lens))
                            .named(row.name() + ", " + Typed.plain(lens) + " mm"));
                }
            }
        }
        model.addAttribute("cameraChoices", cameraChoices);
        model.addAttribute("stage", Stage.KIT);
        model.addAttribute(
                "takes",
                kits.stream()
                        .map(one -> all.stream()
                                .filter(entry -> entry.gear().equals(one))
                                .map(Catalogue.Entry::id)
                                .findFirst()
                                .orElse(0L))
                        .toList());
        List<KitComparison.Column> columns = work.answer("The comparison", () -> KitComparison.of(plan, kits, held));
        UnitChoice units = preferences.units();
        model.addAttribute("block", block);
        model.addAttribute(
                "choices",
                all.stream()
                        .map(entry -> new Choice(entry.id(), entry.name(), chosen.contains(entry.id())))
                        .toList());
        model.addAttribute("equal", equal.equals("height") ? "height" : "gsd");
        model.addAttribute("most", MOST_KITS);
        model.addAttribute("columns", columns);
        model.addAttribute("rows", rows(columns, block.facts().brief(), units));
        model.addAttribute("explained", explained(kits, columns, held));
        return "kit/compare";
    }

    private static boolean sameGear(Kit one, Kit other) {
        return one.aircraft().equals(other.aircraft()) && one.payload().equals(other.payload());
    }

    private List<Row> rows(List<KitComparison.Column> columns, Brief brief, UnitChoice units) {
        Table table = new Table(columns, units);
        table.plain(
                "Height above ground", UnitKind.HEIGHT, p -> p.design().scale().heightM());
        table.less("GSD", UnitKind.GSD, p -> p.design().scale().gsdM());
        table.more("Strip spacing", UnitKind.DISTANCE, p -> p.design().spacingM());
        table.less("Strips", UnitKind.COUNT, p -> p.flight().strips());
        table.less("Photos", UnitKind.COUNT, p -> p.photos());
        table.less("Files", UnitKind.COUNT, p -> p.files());
        table.more("Ground speed", UnitKind.SPEED, p -> p.design().speedMps());
        table.words("held by", p -> p.design().binding().limit().words());
        table.less("Flight time", UnitKind.DURATION, BlockPlan::flightTimeS);
        table.less("Battery sets", UnitKind.COUNT, BlockPlan::batterySets);
        table.less("Storage", UnitKind.DATA, BlockPlan::storageBytes);
        table.less("Motion blur", UnitKind.PIXELS, p -> p.design().blurPx());
        table.more(
                "Point density",
                UnitKind.DENSITY,
                p -> p.request()
                        .kit()
                        .payload()
                        .scanner()
                        .map(scanner -> p.design().pointsPerM2(scanner))
                        .orElse(Double.NaN));
        table.words(
                "Best positions by", p -> p.request().aircraft().positioning().words());
        table.words(
                "Weather class",
                p -> p.request().aircraft().weatherClass().isEmpty()
                        ? "none: keep it dry"
                        : p.request().aircraft().weatherClass());
        table.words("Over your ceiling", p -> p.design().scale().heightM() > p.ceilingM() + 1e-6 ? "yes" : "no");
        table.words("Delivers the brief", p -> {
            List<String> lacks = KitFit.of(brief, p, units).lacks();
            return lacks.isEmpty() ? "yes" : "no: " + String.join(" ", lacks);
        });
        return table.rows;
    }

    /** Rows of figures, the best and the worst of each marked where they differ. */
    private static final class Table {
        private final List<KitComparison.Column> columns;
        private final UnitChoice units;
        private final List<Row> rows = new ArrayList<>();

        Table(List<KitComparison.Column> columns, UnitChoice units) {
            this.columns = columns;
            this.units = units;
        }

        void words(String label, Function<BlockPlan, String> words) {
            rows.add(new Row(
                    label,
                    columns.stream()
                            .map(column -> new Cell(column.plan().map(words).orElse("–"), "", 0))
                            .toList()));
        }

        void plain(String label, UnitKind kind, ToDoubleFunction<BlockPlan> figure) {
            rows.add(new Row(label, cells(kind, figure, 0)));
        }

        void less(String label, UnitKind kind, ToDoubleFunction<BlockPlan> figure) {
            rows.add(new Row(label, cells(kind, figure, -1)));
        }

        void more(String label, UnitKind kind, ToDoubleFunction<BlockPlan> figure) {
            rows.add(new Row(label, cells(kind, figure, 1)));
        }

        /** Whether two figures are the same in the digits shown. */
        private boolean reads(UnitKind kind, double one, double other) {
            return units.text(kind, one).equals(units.text(kind, other));
        }

        /**
         * @param better 1 where more is better, -1 where less is, 0 where neither
         */
        private List<Cell> cells(UnitKind kind, ToDoubleFunction<BlockPlan> figure, int better) {
            double[] all = columns.stream()
                    .mapToDouble(
                            column -> column.plan().map(figure::applyAsDouble).orElse(Double.NaN))
                    .toArray();
            double least = Arrays.stream(all).filter(Double::isFinite).min().orElse(Double.NaN);
            double most = Arrays.stream(all).filter(Double::isFinite).max().orElse(Double.NaN);
            boolean differ = better != 0 && !reads(kind, least, most);
            return Arrays.stream(all)
                    .mapToObj(one -> {
                        String mark = !differ || !Double.isFinite(one)
                                ? ""
                                : reads(kind, one, better > 0 ? most : least)
                                        ? "best"
                                        : reads(kind, one, better > 0 ? least : most) ? "worst" : "";
                        double bar = Double.isFinite(one) && most > 0 ? 100 * one / most : 0;
                        return new Cell(units.text(kind, one), mark, bar);
                    })
                    .toList();
        }
    }

    /** Why the others differ from the block's own kit. */
    private static List<String> explained(
            List<Kit> kits, List<KitComparison.Column> columns, KitComparison.Equal held) {
        List<String> sentences = new ArrayList<>();
        Kit own = kits.get(0);
        for (int i = 1; i < kits.size(); i++) {
            KitComparison.HeightRatio ratio =
                    KitComparison.heightRatio(own.camera(), kits.get(i).camera());
            Optional<BlockPlan> first = columns.get(0).plan();
            Optional<BlockPlan> other = columns.get(i).plan();
            String photos = first.isPresent() && other.isPresent()
                    ? text(
                            "; it takes %.2f times the photos",
                            (double) other.get().photos() / first.get().photos())
                    : "";
            sentences.add(
                    held == KitComparison.Equal.GSD
                            ? text(
                                    "%s flies %.2f times as high as %s: %.2f by focal length × %.2f by pixels across × %.2f by sensor size%s.",
                                    kits.get(i).name(),
                                    ratio.height(),
                                    own.name(),
                                    ratio.focal(),
                                    ratio.pixels(),
                                    ratio.sensor(),
                                    photos)
                            : text(
                                    "%s sees %.2f times as coarsely as %s from the same height: 1 / (%.2f by focal length × %.2f by pixels across × %.2f by sensor size)%s.",
                                    kits.get(i).name(),
                                    1 / ratio.height(),
                                    own.name(),
                                    ratio.focal(),
                                    ratio.pixels(),
                                    ratio.sensor(),
                                    photos));
        }
        return sentences;
    }

    private static String text(String format, Object... figures) {
        return String.format(Locale.ROOT, format, figures);
    }
}
