package yalos.web.kit;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.function.Function;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.RequestParam;
import yalos.core.fault.InputFault;
import yalos.core.kit.Kit;
import yalos.core.plan.BlockPlan;
import yalos.core.trial.KitComparison;
import yalos.core.units.UnitChoice;
import yalos.core.units.UnitKind;
import yalos.web.block.Blocks;
import yalos.web.block.OpenBlock;
import yalos.web.block.PlanDesk;
import yalos.web.block.Planned;
import yalos.web.shell.Preferences;

/** Kits side by side on one block, at equal GSD or at equal height. */
@Controller
class ComparisonController {
    private static final int MOST_KITS = 5;

    private final Blocks blocks;
    private final PlanDesk desk;
    private final Catalogue catalogue;
    private final Preferences preferences;

    ComparisonController(Blocks blocks, PlanDesk desk, Catalogue catalogue, Preferences preferences) {
        this.blocks = blocks;
        this.desk = desk;
        this.catalogue = catalogue;
        this.preferences = preferences;
    }

    /** A kit that can be ticked. */
    record Choice(long id, String name, boolean chosen) {}

    /** A quantity with its figure for each kit. */
    record Row(String label, List<String> figures) {}

    @GetMapping("/blocks/{id}/compare")
    String compare(
            @PathVariable long id,
            @RequestParam(required = false) List<Long> kit,
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
        List<KitComparison.Column> columns = KitComparison.of(plan, kits, held);
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
        model.addAttribute("rows", rows(columns, units));
        model.addAttribute("explained", explained(kits, columns, held));
        return "kit/compare";
    }

    private static boolean sameGear(Kit one, Kit other) {
        return one.aircraft().equals(other.aircraft()) && one.payload().equals(other.payload());
    }

    private static List<Row> rows(List<KitComparison.Column> columns, UnitChoice units) {
        List<Row> rows = new ArrayList<>();
        rows.add(row(
                columns,
                "Height above ground",
                p -> units.text(UnitKind.HEIGHT, p.design().scale().heightM())));
        rows.add(row(
                columns, "GSD", p -> units.text(UnitKind.GSD, p.design().scale().gsdM())));
        rows.add(row(
                columns,
                "Strip spacing",
                p -> units.text(UnitKind.DISTANCE, p.design().spacingM())));
        rows.add(row(columns, "Strips", p -> String.valueOf(p.flight().lines().size())));
        rows.add(row(columns, "Photos", p -> String.valueOf(p.photos())));
        rows.add(row(columns, "Files", p -> String.valueOf(p.files())));
        rows.add(row(
                columns,
                "Ground speed",
                p -> units.text(UnitKind.SPEED, p.design().speedMps()) + ", held by "
                        + p.design().binding().limit().words()));
        rows.add(row(columns, "Flight time", p -> units.text(UnitKind.DURATION, p.flightTimeS())));
        rows.add(row(columns, "Battery sets", p -> String.valueOf(p.batterySets())));
        rows.add(row(columns, "Storage", p -> units.text(UnitKind.DATA, p.storageBytes())));
        rows.add(row(
                columns,
                "Motion blur",
                p -> units.text(UnitKind.PIXELS, p.design().blurPx())));
        rows.add(row(
                columns,
                "Point density",
                p -> p.request()
                        .kit()
                        .payload()
                        .scanner()
                        .map(scanner -> units.text(UnitKind.DENSITY, p.design().pointsPerM2(scanner)))
                        .orElse("–")));
        rows.add(row(
                columns,
                "Best positions by",
                p -> p.request().aircraft().positioning().words()));
        rows.add(row(
                columns, "Over your ceiling", p -> p.design().scale().heightM() > p.ceilingM() + 1e-6 ? "yes" : "no"));
        return rows;
    }

    private static Row row(List<KitComparison.Column> columns, String label, Function<BlockPlan, String> figure) {
        return new Row(
                label,
                columns.stream()
                        .map(column -> column.plan().map(figure).orElse("–"))
                        .toList());
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
