package yalos.web.pack;

import java.util.Base64;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.UUID;
import org.springframework.web.util.HtmlUtils;
import yalos.core.block.Outline;
import yalos.core.control.ControlLayout;
import yalos.core.control.ControlPoint;
import yalos.core.flight.Exposure;
import yalos.core.flight.Flight;
import yalos.core.flight.Leg;
import yalos.core.flight.Line;
import yalos.core.flight.Way;
import yalos.core.geodesy.LonLat;
import yalos.core.geodesy.PlanePoint;
import yalos.core.plan.BlockPlan;
import yalos.core.site.Zone;
import yalos.core.sortie.Homing;
import yalos.core.sortie.Sortie;
import yalos.core.sortie.Sorties;
import yalos.core.terrain.HeightGrid;
import yalos.core.units.UnitChoice;
import yalos.core.units.UnitKind;
import yalos.web.sheet.GroundSheet;
import yalos.web.sheet.PlanSvg;

/**
 * The map page: the block and its sorties on relief with zones and control, drawn so that black ink alone tells all of it. An SVG that needs no style sheet, for PDF and for the file.
 */
final class PackMap {
    private static final String[] DASHES = {"", "7 3", "2 2.5", "9 3 2 3", "5 2 1 2 1 2", "12 4"};
    private static final String OUTLINE =
            "fill=\"none\" stroke=\"#000\" stroke-width=\"2.2\" stroke-dasharray=\"12 4 2 4\"";
    private static final int MOST_LINES = 4000;

    private final BlockPlan plan;
    private final PlanSvg paper;
    private final StringBuilder svg = new StringBuilder();
    /** Several stand in one document. */
    private final String clip = "neat-" + UUID.randomUUID();

    private PackMap(BlockPlan plan, UnitChoice units) {
        this.plan = plan;
        this.paper = PlanSvg.of(
                plan,
                units.unit(UnitKind.DISTANCE).size(),
                units.unit(UnitKind.DISTANCE).symbol());
    }

    /**
     * @param underlay a picture to lie under it, with the grid it covers; empty for relief alone
     */
    static String svg(
            BlockPlan plan,
            Optional<Sorties> sorties,
            ControlLayout control,
            UnitChoice units,
            Optional<Under> underlay) {
        PackMap map = new PackMap(plan, units);
        map.open();
        map.picture(underlay);
        map.zones(sorties);
        map.strips(sorties);
        map.path("outline", map.paper.outline(), OUTLINE);
        map.launches(sorties);
        map.points(control);
        map.close();
        return map.svg.toString();
    }

    /** Another flight over the same block, such as one planned earlier, over a picture. */
    static String svg(BlockPlan plan, Flight flight, UnitChoice units, Under underlay) {
        PackMap map = new PackMap(plan, units);
        map.open();
        map.picture(Optional.of(underlay));
        StringBuilder lines = new StringBuilder();
        StringBuilder links = new StringBuilder();
        flight.ways().stream().limit(MOST_LINES).forEach(way -> map.way(way instanceof Line ? lines : links, way));
        map.path("links", links.toString(), "fill=\"none\" stroke=\"#555\" stroke-width=\"0.6\"");
        map.path("strips", lines.toString(), "fill=\"none\" stroke=\"#000\" stroke-width=\"1.4\"");
        map.path("outline", map.paper.outline(), OUTLINE);
        map.close();
        return map.svg.toString();
    }

    /** A picture over a part of the block's plane. */
    record Under(byte[] png, HeightGrid grid) {}

    /** The relief of a plan as a picture; empty over level ground. */
    static Optional<Under> relief(BlockPlan plan) {
        return plan.overGround().map(known -> new Under(GroundSheet.picture(known.grid()), known.grid()));
    }

    private void open() {
        add(
                "<svg xmlns=\"http://www.w3.org/2000/svg\" xmlns:xlink=\"http://www.w3.org/1999/xlink\" class=\"map\" viewBox=\"-26 -4 %d %d\" width=\"%d\" height=\"%d\" font-family=\"'Source Sans 3'\" role=\"img\" aria-label=\"Map of the block\">",
                PlanSvg.WIDTH + 34, PlanSvg.HEIGHT + 66, PlanSvg.WIDTH + 34, PlanSvg.HEIGHT + 66);
        add(
                "<defs><clipPath id=\"%s\"><rect x=\"0\" y=\"0\" width=\"%d\" height=\"%d\"/></clipPath></defs><g clip-path=\"url(#%s)\">",
                clip, PlanSvg.WIDTH, PlanSvg.HEIGHT, clip);
    }

    private void picture(Optional<Under> under) {
        under.ifPresent(one -> {
            HeightGrid grid = one.grid();
            double x = paper.x(grid.west());
            double y = paper.y(grid.north());
            String data = "data:image/png;base64," + Base64.getEncoder().encodeToString(one.png());
            add(
                    "<image x=\"%.1f\" y=\"%.1f\" width=\"%.1f\" height=\"%.1f\" preserveAspectRatio=\"none\" xlink:href=\"%s\"/>",
                    x, y, paper.x(grid.east()) - x, paper.y(grid.south()) - y, data);
        });
    }

    private void zones(Optional<Sorties> sorties) {
        for (Zone zone : sorties.map(cut -> cut.given().around().zones()).orElse(List.of())) {
            boolean forbids = zone.kind() != Zone.Kind.CAUTION;
            StringBuilder path = new StringBuilder();
            for (Outline.Part part : zone.outline().parts()) {
                ring(path, part.outer());
                part.holes().forEach(hole -> ring(path, hole));
            }
            path(
                    "zone",
                    path.toString(),
                    "fill=\"#000\" fill-opacity=\"0.06\" fill-rule=\"evenodd\" stroke=\"#000\" stroke-width=\"%s\" stroke-dasharray=\"%s\""
                            .formatted(forbids ? "2" : "1", forbids ? "2 3" : "6 3"));
            PlanePoint at = plan.block().plane().toPlane(zone.outline().middle());
            text(paper.x(at.xM()), paper.y(at.yM()), "middle", 11, zone.name() + (forbids ? ": keep out" : ""));
        }
    }

    private void ring(StringBuilder path, List<LonLat> corners) {
        String command = "M";
        for (LonLat corner : corners) {
            PlanePoint at = plan.block().plane().toPlane(corner);
            path.append(String.format(Locale.ROOT, "%s%.1f %.1f", command, paper.x(at.xM()), paper.y(at.yM())));
            command = "L";
        }
        path.append("Z");
    }

    private void strips(Optional<Sorties> sorties) {
        if (sorties.isEmpty()) {
            path("links", paper.links(), "fill=\"none\" stroke=\"#444\" stroke-width=\"0.6\"");
            path("strips", paper.strips(), "fill=\"none\" stroke=\"#000\" stroke-width=\"1.4\"");
            return;
        }
        int drawn = 0;
        for (Sortie sortie : sorties.get().all()) {
            StringBuilder lines = new StringBuilder();
            StringBuilder links = new StringBuilder();
            for (Leg leg : sortie.flight().legs()) {
                if (leg instanceof Way way && drawn++ < MOST_LINES) {
                    way(way instanceof Line ? lines : links, way);
                }
            }
            String dash = DASHES[(sortie.number() - 1) % DASHES.length];
            path("links", links.toString(), "fill=\"none\" stroke=\"#555\" stroke-width=\"0.6\"");
            path(
                    "strips",
                    lines.toString(),
                    "fill=\"none\" stroke=\"#000\" stroke-width=\"1.6\" stroke-dasharray=\"" + dash + "\"");
        }
        for (Sortie sortie : sorties.get().all()) {
            if (sortie.flight().exposures().isEmpty()) {
                continue;
            }
            Exposure first = sortie.flight().exposures().get(0);
            double x = paper.x(first.point().xM());
            double y = paper.y(first.point().yM());
            add("<circle cx=\"%.1f\" cy=\"%.1f\" r=\"9\" fill=\"#fff\" stroke=\"#000\" stroke-width=\"1.4\"/>", x, y);
            text(x, y + 4, "middle", 12, String.valueOf(sortie.number()));
        }
    }

    private void way(StringBuilder path, Way way) {
        String command = "M";
        for (PlanePoint at : way.shape()) {
            path.append(String.format(Locale.ROOT, "%s%.1f %.1f", command, paper.x(at.xM()), paper.y(at.yM())));
            command = "L";
        }
    }

    private void launches(Optional<Sorties> sorties) {
        List<PlanePoint> places = sorties.map(
                        cut -> cut.launches().stream().map(Homing::launch).toList())
                .orElseGet(() -> plan.flight().launch().stream().toList());
        for (PlanePoint at : places) {
            double x = paper.x(at.xM());
            double y = paper.y(at.yM());
            add(
                    "<circle cx=\"%.1f\" cy=\"%.1f\" r=\"7\" fill=\"#fff\" stroke=\"#000\" stroke-width=\"2\"/><path d=\"M%.1f %.1fv-12M%.1f %.1fh12M%.1f %.1fv12M%.1f %.1fh-12\" stroke=\"#000\" stroke-width=\"1.4\"/>",
                    x, y, x, y, x, y, x, y, x, y);
        }
    }

    private void points(ControlLayout control) {
        for (ControlPoint point : control.points()) {
            PlanePoint at = plan.block().plane().toPlane(point.place());
            double x = paper.x(at.xM());
            double y = paper.y(at.yM());
            if (point.role() == ControlPoint.Role.CHECK) {
                add(
                        "<rect x=\"%.1f\" y=\"%.1f\" width=\"10\" height=\"10\" fill=\"#fff\" stroke=\"#000\" stroke-width=\"1.6\"/>",
                        x - 5, y - 5);
            } else {
                add(
                        "<path d=\"M%.1f %.1fl6.5 11h-13z\" fill=\"#000\" stroke=\"#fff\" stroke-width=\"0.8\"/>",
                        x, y - 7);
            }
            text(x + 9, y + 4, "start", 12, point.name());
        }
    }

    private void close() {
        add(
                "</g><rect x=\"0\" y=\"0\" width=\"%d\" height=\"%d\" fill=\"none\" stroke=\"#000\" stroke-width=\"1.4\"/>",
                PlanSvg.WIDTH, PlanSvg.HEIGHT);
        for (PlanSvg.Tick tick : paper.ticks()) {
            if (tick.below()) {
                add("<path d=\"M%.1f %dv-8\" stroke=\"#000\"/>", tick.at(), PlanSvg.HEIGHT);
                text(tick.at(), PlanSvg.HEIGHT + 14, "middle", 11, tick.label());
            } else {
                add("<path d=\"M0 %.1fh8\" stroke=\"#000\"/>", tick.at());
                add(
                        "<text transform=\"translate(-8 %.1f) rotate(-90)\" text-anchor=\"middle\" font-size=\"11\">%s</text>",
                        tick.at(), tick.label());
            }
        }
        for (PlanSvg.Part part : paper.scaleBar()) {
            add(
                    "<rect x=\"%.1f\" y=\"%d\" width=\"%.1f\" height=\"6\" fill=\"%s\" stroke=\"#000\"/>",
                    40 + part.x(), PlanSvg.HEIGHT + 40, part.width(), part.filled() ? "#000" : "#fff");
            text(40 + part.x(), PlanSvg.HEIGHT + 35, "middle", 11, part.label());
        }
        add("<path d=\"M%d 8l7 30l-7-5l-7 5z\" fill=\"#000\" stroke=\"#fff\"/>", PlanSvg.WIDTH - 24);
        text(PlanSvg.WIDTH - 24.0, 54, "middle", 13, "N");
        add("</svg>");
    }

    private void path(String what, String d, String look) {
        if (!d.isEmpty()) {
            add("<path class=\"%s\" d=\"%s\" %s/>", "m-" + what, d, look);
        }
    }

    /** Text with a white rim, so that it reads over relief. */
    private void text(double x, double y, String anchor, int size, String text) {
        String shown = HtmlUtils.htmlEscape(text, "UTF-8");
        add(
                "<text x=\"%.1f\" y=\"%.1f\" text-anchor=\"%s\" font-size=\"%d\" stroke=\"#fff\" stroke-width=\"3\" stroke-linejoin=\"round\">%s</text><text x=\"%.1f\" y=\"%.1f\" text-anchor=\"%s\" font-size=\"%d\">%s</text>",
                x, y, anchor, size, shown, x, y, anchor, size, shown);
    }

    private void add(String format, Object... parts) {
        svg.append(String.format(Locale.ROOT, format, parts));
    }
}
