package yalos.web.ground;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.stream.Collectors;
import org.springframework.stereotype.Component;
import org.springframework.ui.Model;
import yalos.core.height.DesignPlane;
import yalos.core.height.HeightPlan;
import yalos.core.height.HeightReference;
import yalos.core.plan.BlockPlan;
import yalos.core.site.Obstacle;
import yalos.core.site.Zone;
import yalos.core.terrain.VerticalDatum;
import yalos.core.units.Unit;
import yalos.core.units.UnitChoice;
import yalos.core.units.UnitKind;
import yalos.web.block.Planned;
import yalos.web.block.StageBook;
import yalos.web.elevation.Models;
import yalos.web.store.BlockFacts;
import yalos.web.store.GroundFacts;

/** The part of the Ground page about terrain: models, heights, obstacles, zones. */
@Component
class ElevationPage {
    private final Models models;

    ElevationPage(Models models) {
        this.models = models;
    }

    /** A model of the job; {@code use} is empty for one the block leaves out. */
    public record ModelView(long id, String name, String about, int epsg, Optional<VerticalDatum> use, String offset) {}

    /** An obstacle or zone in its list. */
    public record ThingView(int at, String name, String about) {}

    /** A figure of the flown heights. */
    public record Line(String label, String figure) {}

    void fill(StageBook.Opened opened, Model model) {
        BlockFacts facts = opened.block().facts();
        GroundFacts ground = facts.ground();
        UnitChoice units = opened.units();
        model.addAttribute("models", models(opened.block().jobId(), ground, units));
        model.addAttribute("zeros", VerticalDatum.Zero.values());
        model.addAttribute("heightUnits", List.of(Unit.METRE, Unit.FOOT, Unit.US_SURVEY_FOOT));
        model.addAttribute("choice", ground.choice());
        model.addAttribute("references", HeightReference.values());
        model.addAttribute("planes", DesignPlane.values());
        model.addAttribute("heightFields", heightFields(ground, units));
        model.addAttribute("level", ground.models().isEmpty());
        model.addAttribute(
                "usedModels",
                models.ofJob(opened.block().jobId(), units).stream()
                        .filter(one -> ground.models().stream().anyMatch(use -> use.id() == one.id()))
                        .map(Models.Model::name)
                        .collect(Collectors.joining(", ")));
        model.addAttribute(
                "areaWords",
                units.text(UnitKind.AREA, opened.block().facts().outline().areaM2()));
        model.addAttribute(
                "others",
                facts.outline().isEmpty()
                        ? List.of()
                        : models.ofOthers(
                                opened.block().jobId(), facts.outline().middle(), units));
        model.addAttribute("hasPicture", ground.picture().isPresent());
        opened.planned()
                .whole()
                .map(Planned.Whole::plan)
                .flatMap(plan -> plan.heights().map(heights -> flown(plan, heights, units)))
                .ifPresent(lines -> model.addAttribute("flown", lines));
        model.addAttribute("kinds", Obstacle.Kind.values());
        model.addAttribute("zoneKinds", Zone.Kind.values());
        model.addAttribute("obstacles", obstacles(ground, units));
        model.addAttribute("zones", zones(ground, units));
    }

    /** A figure of the flying height that can be typed; {@code placeholder} stands where none is. */
    public record HeightField(String key, String label, String value, String placeholder) {}

    private static List<HeightField> heightFields(GroundFacts ground, UnitChoice units) {
        return List.of(
                new HeightField(
                        "clearance",
                        "Least clearance",
                        units.text(UnitKind.HEIGHT, ground.choice().clearanceM()),
                        ""),
                new HeightField(
                        "model-sigma",
                        "Model good to, 1 sigma",
                        ground.choice().modelSigmaM() == 0
                                ? ""
                                : units.text(UnitKind.HEIGHT, ground.choice().modelSigmaM()),
                        "taken as exact"),
                new HeightField(
                        "smoothing",
                        "Evened out over",
                        units.text(UnitKind.DISTANCE, ground.choice().smoothingM()),
                        ""),
                new HeightField(
                        "take-off-level",
                        "Take-off level, measured",
                        height(ground.takeOffLevelM(), units),
                        "above the geoid"),
                new HeightField("span", "Holes spanned up to", height(ground.spanM(), units), "none"));
    }

    private static String height(OptionalDouble m, UnitChoice units) {
        return m.isPresent() ? units.text(UnitKind.HEIGHT, m.getAsDouble()) : "";
    }

    private List<ModelView> models(long job, GroundFacts ground, UnitChoice units) {
        List<ModelView> views = new ArrayList<>();
        for (Models.Model one : models.ofJob(job, units)) {
            Optional<VerticalDatum> use = ground.models().stream()
                    .filter(used -> used.id() == one.id())
                    .map(GroundFacts.ModelUse::datum)
                    .findFirst();
            String offset = use.map(datum -> units.text(UnitKind.HEIGHT, datum.offsetM()))
                    .orElse("");
            views.add(new ModelView(one.id(), one.name(), one.about(), one.epsg(), use, offset));
        }
        return views;
    }

    private static List<Line> flown(BlockPlan plan, HeightPlan heights, UnitChoice units) {
        double[] above = heights.aboveGroundM();
        double perMetre = plan.design().scale().gsdM() / plan.design().scale().heightM();
        var relief = heights.relief();
        List<Line> lines = new ArrayList<>();
        heights.climbOutM()
                .ifPresent(climb -> lines.add(new Line(
                        "climb out before leaving, to", units.text(UnitKind.HEIGHT, climb) + " above take-off")));
        if (heights.choice().reference() == HeightReference.FOLLOW && !Double.isNaN(heights.takeOffM())) {
            double[] level = heights.otherwise(HeightReference.TAKE_OFF).aboveGroundM();
            lines.add(new Line(
                    "without following it would be",
                    "%s to %s above ground, GSD %s to %s"
                            .formatted(
                                    units.figure(UnitKind.HEIGHT, level[0]),
                                    units.text(UnitKind.HEIGHT, level[2]),
                                    units.figure(UnitKind.GSD, Math.max(0, level[0]) * perMetre),
                                    units.text(UnitKind.GSD, level[2] * perMetre))));
        }
        lines.addAll(
                0,
                List.of(
                        new Line(
                                "ground in the block",
                                "%s to %s, above the geoid"
                                        .formatted(
                                                units.figure(UnitKind.HEIGHT, relief.leastM()),
                                                units.text(UnitKind.HEIGHT, relief.mostM()))),
                        new Line(
                                "take-off point",
                                Double.isNaN(heights.takeOffM())
                                        ? "unknown"
                                        : units.text(UnitKind.HEIGHT, heights.takeOffM())),
                        new Line(
                                "photos above ground",
                                "%s to %s"
                                        .formatted(
                                                units.figure(UnitKind.HEIGHT, above[0]),
                                                units.text(UnitKind.HEIGHT, above[2]))),
                        new Line(
                                "GSD straight below",
                                "%s to %s"
                                        .formatted(
                                                units.figure(UnitKind.GSD, Math.max(0, above[0]) * perMetre),
                                                units.text(UnitKind.GSD, above[2] * perMetre))),
                        new Line("least clearance", clearance(heights, units)),
                        new Line(
                                "return height, at least",
                                units.text(
                                                UnitKind.HEIGHT,
                                                plan.returnAboveTakeOffM().orElse(Double.NaN))
                                        + " above take-off")));
        return lines;
    }

    /** What is kept above the model, and how much of it is for the model's error. */
    private static String clearance(HeightPlan heights, UnitChoice units) {
        double kept = heights.choice().keptM();
        double allowed = kept - heights.choice().clearanceM();
        String least = units.text(UnitKind.HEIGHT, heights.nearestSection().clearanceM());
        return allowed == 0
                ? least
                : "%s; kept are %s, %s of it for the model's error"
                        .formatted(least, units.text(UnitKind.HEIGHT, kept), units.text(UnitKind.HEIGHT, allowed));
    }

    private static List<ThingView> obstacles(GroundFacts ground, UnitChoice units) {
        List<ThingView> views = new ArrayList<>();
        for (Obstacle obstacle : ground.obstacles()) {
            views.add(new ThingView(
                    views.size(),
                    obstacle.name(),
                    "%s, %s high, %s round"
                            .formatted(
                                    obstacle.kind().words(),
                                    units.text(UnitKind.HEIGHT, obstacle.heightM()),
                                    units.text(UnitKind.DISTANCE, obstacle.radiusM()))));
        }
        return views;
    }

    private static List<ThingView> zones(GroundFacts ground, UnitChoice units) {
        List<ThingView> views = new ArrayList<>();
        for (Zone zone : ground.zones()) {
            String top =
                    Double.isInfinite(zone.ceilingM()) ? "up" : "to " + units.text(UnitKind.HEIGHT, zone.ceilingM());
            views.add(new ThingView(
                    views.size(),
                    zone.name(),
                    String.format(
                            Locale.ROOT,
                            "%s, from %s %s above ground",
                            zone.kind().words(),
                            units.text(UnitKind.HEIGHT, zone.floorM()),
                            top)));
        }
        return views;
    }
}
