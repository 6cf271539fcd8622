package yalos.web.pack;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import yalos.core.flight.Line;
import yalos.core.height.HeightPlan;
import yalos.core.height.LegSection;
import yalos.core.plan.BlockPlan;
import yalos.core.units.RoundFigures;
import yalos.core.units.UnitChoice;
import yalos.core.units.UnitKind;
import yalos.web.figure.Chart;

/** The long section along the hardest strip, for paper. */
record PackSection(String svg, String words) {
    /** What charts ask of a style sheet, in black and grey; an SVG in a PDF sees no other. */
    private static final String STYLE = "<style>text{font-family:'Source Sans 3';font-size:11px;fill:#000}"
            + ".c-tick{fill:#333}.c-grid{stroke:#ccc;fill:none}.c-axis{stroke:#000;fill:none}"
            + ".c-line{stroke:#000;stroke-width:1.6;fill:none}.c-pin{stroke:#000;stroke-dasharray:3 3;fill:none}"
            + ".c-dot{fill:#000}.c-go{fill:#d8d8d8}.c-mind{fill:#a9a9a9}.c-stop{fill:#5a5a5a}.c-night{fill:#777}"
            + ".c-sortie,.c-work{fill:#fff;stroke:#000}.c-charge{fill:#eee;stroke:#555}.c-wait{fill:#fff;stroke:#777;stroke-dasharray:2 2}"
            + ".c-ground{fill:#ddd;stroke:#000}.c-reserve{fill:#bbb}.c-needed{fill:#e4e4e4}</style>";

    /** Of the strip that comes nearest to the ground or what stands on it; empty over level ground. */
    static Optional<PackSection> hardest(BlockPlan plan, UnitChoice units) {
        return plan.heights().flatMap(heights -> hardest(plan, heights, units));
    }

    private static Optional<PackSection> hardest(BlockPlan plan, HeightPlan heights, UnitChoice units) {
        LegSection worst = null;
        for (Line line : plan.flight().lines()) {
            LegSection one = heights.section(line.number());
            boolean nearer = worst == null || one.clearanceM() < worst.clearanceM();
            if (line.lengthM() > 0 && Double.isFinite(one.clearanceM()) && nearer) {
                worst = one;
            }
        }
        return Optional.ofNullable(worst).map(section -> drawn(section, units));
    }

    private static PackSection drawn(LegSection section, UnitChoice units) {
        double unit = units.unit(UnitKind.HEIGHT).size();
        List<double[]> steps = new ArrayList<>();
        double least = Double.POSITIVE_INFINITY;
        double most = Double.NEGATIVE_INFINITY;
        int every = Math.max(1, section.groundM().length / 400);
        for (int i = 0; i < section.groundM().length; i += every) {
            double ground = section.groundM()[i];
            double top = section.topM()[i];
            double path = section.pathM()[Math.min(i, section.pathM().length - 1)];
            if (Double.isFinite(ground) && Double.isFinite(path)) {
                steps.add(new double[] {section.alongM(i) / unit, ground / unit, top / unit, path / unit});
                least = Math.min(least, ground / unit);
                most = Math.max(most, Math.max(top, path) / unit);
            }
        }
        double room = Math.max(1, (most - least) * 0.08);
        double floor = least - room;
        double length = section.lengthM() / unit;
        double[] base = new double[steps.size()];
        Arrays.fill(base, floor);
        String svg = new Chart(860, 220, "Section along strip " + section.line())
                .within(46, 10, 14, 26)
                .over(0, length, floor, most + room)
                .axes(
                        step(length),
                        step(most - floor),
                        value -> String.format(Locale.ROOT, "%.0f", value),
                        value -> String.format(Locale.ROOT, "%.0f", value))
                .band("c-ground", column(steps, 0), column(steps, 1), base)
                .line("c-pin", column(steps, 0), column(steps, 2))
                .line("c-line", column(steps, 0), column(steps, 3))
                .text("c-tick", 856, 216, "end", units.unit(UnitKind.HEIGHT).symbol())
                .svg();
        return new PackSection(
                styled(svg),
                "Strip %d comes nearest to what lies below: %s. Heights above the geoid; dashed, what stands within reach of the path."
                        .formatted(section.line(), units.text(UnitKind.HEIGHT, section.clearanceM())));
    }

    private static double[] column(List<double[]> rows, int at) {
        return rows.stream().mapToDouble(row -> row[at]).toArray();
    }

    /** A step that makes about five ticks. */
    private static double step(double range) {
        return RoundFigures.from(range / 5);
    }

    /** A chart that brings its own style. */
    static String styled(String chart) {
        String sized = chart.replaceFirst(
                "<svg class=\"chart\" viewBox=\"0 0 (\\d+) (\\d+)\"",
                "<svg xmlns=\"http://www.w3.org/2000/svg\" class=\"chart\" viewBox=\"0 0 $1 $2\" width=\"$1\" height=\"$2\"");
        return sized.replaceFirst("(<svg[^>]*>)", "$1" + java.util.regex.Matcher.quoteReplacement(STYLE));
    }
}
