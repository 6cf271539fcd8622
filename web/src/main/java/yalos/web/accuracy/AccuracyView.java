package yalos.web.accuracy;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalDouble;
import yalos.core.accuracy.Axis;
import yalos.core.accuracy.Foreseen;
import yalos.core.accuracy.Residual;
import yalos.core.accuracy.Statement;
import yalos.core.units.UnitChoice;
import yalos.web.accuracy.AccuracyDesk.Found;
import yalos.web.accuracy.AccuracyDesk.Kept;
import yalos.web.control.Shown;

/** Figures of accuracy as pages and report show them. */
public final class AccuracyView {
    private static final double FOOT_M = 0.3048;
    private static final int FEW = 3;

    private AccuracyView() {}

    /** One line with its mood. */
    public record Line(String words, String detail, String mood) {}

    /** An axis of the table. */
    public record AxisRow(
            String axis,
            int count,
            String mean,
            String deviation,
            String rmse,
            String range,
            String worst,
            String out) {}

    /** A point of the table. */
    public record PointRow(
            long id,
            String point,
            String kind,
            String east,
            String north,
            String up,
            String surface,
            String source,
            boolean out,
            String leftOut) {}

    /** A length in metres, feet and tenths of a foot. */
    public record Threefold(String what, String metres, String feet, String tenths, String asked, String mood) {}

    static Line headline(Found found, UnitChoice units) {
        if (found.empty()) {
            return new Line("Nothing claimed yet.", "bring in the residuals of check points", "");
        }
        if (found.checks().isEmpty()) {
            return new Line(
                    "No accuracy can be claimed.",
                    "no independent check point: control points only say how well the adjustment fits them",
                    "stop");
        }
        Statement checks = found.checks().orElseThrow();
        List<String> parts = new ArrayList<>();
        boolean fails = false;
        if (checks.up().count() > 0) {
            parts.add("heights good to %s from %d check %s%s"
                    .formatted(
                            Shown.accuracy(units, checks.wholeUpM()),
                            checks.up().count(),
                            checks.up().count() == 1 ? "point" : "points",
                            asked(checks.wholeUpM(), found.asked().heightM(), units)));
            fails = over(checks.wholeUpM(), found.asked().heightM());
        }
        if (checks.east().count() > 0) {
            double each = checks.wholeLevelM() / Math.sqrt(2);
            parts.add("positions to %s along each axis from %d%s"
                    .formatted(
                            Shown.accuracy(units, each),
                            checks.east().count(),
                            asked(each, found.asked().positionM(), units)));
            fails |= over(each, found.asked().positionM());
        }
        boolean few = Math.max(checks.up().count(), checks.east().count()) < FEW;
        boolean nothingAsked =
                found.asked().heightM().isEmpty() && found.asked().positionM().isEmpty();
        return new Line(
                few ? "Too few to say." : fails ? "Fails." : nothingAsked ? "Measured." : "Passes.",
                String.join("; ", parts),
                fails ? "stop" : few || nothingAsked ? "mind" : "done");
    }

    private static boolean over(double found, OptionalDouble asked) {
        return asked.isPresent() && found > asked.getAsDouble();
    }

    private static String asked(double found, OptionalDouble asked, UnitChoice units) {
        return asked.isEmpty()
                ? ""
                : " (%s asked: %s)"
                        .formatted(
                                Shown.accuracy(units, asked.getAsDouble()),
                                found > asked.getAsDouble() ? "fails" : "passes");
    }

    static List<Line> says(Found found, UnitChoice units) {
        List<Line> lines = new ArrayList<>();
        found.checks().ifPresent(checks -> {
            if (!checks.enoughForClass()) {
                lines.add(new Line(
                        "%d check points state no class"
                                .formatted(Math.max(
                                        checks.up().count(), checks.east().count())),
                        "%d are wanted for one (ASPRS, Edition 2, 2023); the figures stand, with the range they leave open"
                                .formatted(Statement.LEAST_FOR_CLASS),
                        "mind"));
            } else {
                lines.add(new Line(
                        "Class: positions %s, heights %s"
                                .formatted(
                                        Shown.accuracy(units, checks.classLevelM()),
                                        Shown.accuracy(units, checks.classUpM())),
                        "the survey's own error counted in quadrature",
                        ""));
            }
            if (checks.up().count() > 0) {
                lines.add(new Line(
                        "95 %% of heights lie within %s".formatted(Shown.accuracy(units, checks.up95M())),
                        "NSSDA, 1.96 RMSE",
                        ""));
            }
            if (checks.east().count() > 0) {
                lines.add(
                        checks.level95M().isPresent()
                                ? new Line(
                                        "95 %% of positions lie within %s"
                                                .formatted(Shown.accuracy(
                                                        units, checks.level95M().getAsDouble())),
                                        "NSSDA",
                                        "")
                                : new Line(
                                        "No NSSDA figure for positions",
                                        "east and north differ too much for it to be defined",
                                        "mind"));
            }
            found.gsdM()
                    .ifPresent(gsd -> lines.add(new Line(
                            ratios(checks, gsd),
                            "of the planned GSD; heights of 1 to 3, positions of 1 are usual (common practice)",
                            "")));
            lines.add(new Line(
                    checks.withinTenthOfFoot()
                            ? "Heights are within a tenth of a foot"
                            : "Heights are not within a tenth of a foot",
                    "what clients often call survey grade (common practice)",
                    ""));
        });
        List<Residual> marks = found.kept().stream()
                .filter(one -> one.row().leftOut().isEmpty() && one.residual().kind() == Residual.Kind.BENCHMARK)
                .map(Kept::residual)
                .toList();
        if (!marks.isEmpty()) {
            Statement known = Statement.of(marks, 0, 0);
            lines.add(new Line(
                    "%d %s a shift of %s east, %s north, %s up"
                            .formatted(
                                    marks.size(),
                                    marks.size() == 1 ? "benchmark suggests" : "benchmarks suggest",
                                    Shown.accuracy(units, known.east().mean()),
                                    Shown.accuracy(units, known.north().mean()),
                                    Shown.accuracy(units, known.up().mean())),
                    "an estimate; nothing is moved here",
                    ""));
        }
        boolean many = found.checks().map(one -> one.residuals().size() >= FEW).orElse(false);
        if (many && found.foreseenUp().isEmpty() && found.foreseenLevel().isEmpty()) {
            lines.add(new Line(
                    "What Control foretold is being worked out",
                    "open the page again to see the residuals held against it",
                    ""));
        }
        foreseen("Heights", found.foreseenUp()).ifPresent(lines::add);
        foreseen("Positions", found.foreseenLevel()).ifPresent(lines::add);
        if (found.checks().isPresent() && found.control().isPresent()) {
            lines.add(new Line(
                    "Control points fit to %s, check points to %s in height"
                            .formatted(
                                    Shown.accuracy(
                                            units,
                                            found.control().orElseThrow().up().rmse()),
                                    Shown.accuracy(
                                            units,
                                            found.checks().orElseThrow().up().rmse())),
                    "only check points vouch for the map",
                    ""));
        }
        return lines;
    }

    private static String ratios(Statement checks, double gsd) {
        String up = checks.up().count() == 0
                ? ""
                : String.format(Locale.ROOT, "Heights %.1f GSD", checks.up().rmse() / gsd);
        String level = checks.east().count() == 0
                ? ""
                : String.format(Locale.ROOT, "positions %.1f GSD", checks.rmseLevelM() / gsd);
        return up.isEmpty() ? level : level.isEmpty() ? up : up + ", " + level;
    }

    private static Optional<Line> foreseen(String what, Optional<Foreseen> test) {
        return test.map(one -> switch (one.answer()) {
            case FITS ->
                new Line(
                        "%s are as Control foretold".formatted(what),
                        "%.1f times what was foretold, chi-square test of %d figures"
                                .formatted(one.ratio(), one.count()),
                        "done");
            case WORSE ->
                new Line(
                        "%s are %.1f times worse than Control foretold".formatted(what, one.ratio()),
                        "by chance in %s of cases (chi-square)".formatted(chance(one.chance())),
                        "mind");
            case TOO_GOOD ->
                new Line(
                        "%s are too good: %.1f of what Control foretold".formatted(what, one.ratio()),
                        "by chance in %s of cases (chi-square): were the check points used after all?"
                                .formatted(chance(one.chance())),
                        "mind");
        });
    }

    private static String chance(double chance) {
        return chance < 0.001 ? "less than 0.1 %" : String.format(Locale.ROOT, "%.1f %%", 100 * chance);
    }

    static List<AxisRow> axes(Statement statement, UnitChoice units) {
        List<AxisRow> rows = new ArrayList<>();
        axis("dE", statement.east(), units).ifPresent(rows::add);
        axis("dN", statement.north(), units).ifPresent(rows::add);
        axis("dH", statement.up(), units).ifPresent(rows::add);
        return rows;
    }

    private static Optional<AxisRow> axis(String name, Axis axis, UnitChoice units) {
        if (axis.count() == 0) {
            return Optional.empty();
        }
        Axis.Range range = axis.rmseRange();
        int outliers = 0;
        for (boolean out : axis.outliers()) {
            outliers += out ? 1 : 0;
        }
        return Optional.of(new AxisRow(
                name,
                axis.count(),
                Shown.accuracy(units, axis.mean()),
                Shown.accuracy(units, axis.deviation()),
                Shown.accuracy(units, axis.rmse()),
                "%s to %s"
                        .formatted(
                                Shown.accuracy(units, range.from()).split(" ")[0], Shown.accuracy(units, range.to())),
                Shown.accuracy(units, axis.worst()),
                outliers == 0 ? "" : outliers == 1 ? "1 outlier" : outliers + " outliers"));
    }

    static List<PointRow> points(Found found, UnitChoice units) {
        List<Kept> kept = found.kept();
        List<Long> out = new ArrayList<>();
        for (Residual.Kind kind : Residual.Kind.values()) {
            List<Kept> alike = kept.stream()
                    .filter(one ->
                            one.row().leftOut().isEmpty() && one.residual().kind() == kind)
                    .toList();
            Statement.of(alike.stream().map(Kept::residual).toList(), 0, 0)
                    .outliers()
                    .forEach(index -> out.add(alike.get(index).row().id()));
        }
        return kept.stream()
                .map(one -> new PointRow(
                        one.row().id(),
                        one.row().point(),
                        one.residual().kind().words(),
                        figure(one.residual().eastM(), units),
                        figure(one.residual().northM(), units),
                        figure(one.residual().upM(), units),
                        one.row().surface(),
                        one.row().source(),
                        out.contains(one.row().id()),
                        one.row().leftOut()))
                .toList();
    }

    private static String figure(OptionalDouble metres, UnitChoice units) {
        return metres.isEmpty() ? "–" : Shown.accuracy(units, metres.getAsDouble());
    }

    /** Against the brief, in metres, feet and tenths of a foot. */
    static List<Threefold> threefold(Found found) {
        List<Threefold> rows = new ArrayList<>();
        found.checks().ifPresent(checks -> {
            if (checks.up().count() > 0) {
                rows.add(threefold(
                        "heights, RMSE", checks.wholeUpM(), found.asked().heightM()));
                rows.add(threefold("heights, 95 %", checks.up95M(), OptionalDouble.empty()));
            }
            if (checks.east().count() > 0) {
                rows.add(threefold(
                        "positions, RMSE of an axis",
                        checks.wholeLevelM() / Math.sqrt(2),
                        found.asked().positionM()));
                checks.level95M()
                        .ifPresent(level -> rows.add(threefold("positions, 95 %", level, OptionalDouble.empty())));
            }
        });
        return rows;
    }

    private static Threefold threefold(String what, double metres, OptionalDouble asked) {
        return new Threefold(
                what,
                String.format(Locale.ROOT, "%.3f m", metres),
                String.format(Locale.ROOT, "%.3f ft", metres / FOOT_M),
                String.format(Locale.ROOT, "%.1f", metres / FOOT_M * 10),
                asked.isEmpty()
                        ? ""
                        : String.format(
                                Locale.ROOT,
                                "%.3f m asked: %s",
                                asked.getAsDouble(),
                                metres <= asked.getAsDouble() ? "passes" : "fails"),
                asked.isEmpty() ? "" : metres <= asked.getAsDouble() ? "done" : "stop");
    }

    /** Heights by what points lie on: grass lifts them. */
    static List<Line> surfaces(Map<String, Axis> bySurface, UnitChoice units) {
        return bySurface.entrySet().stream()
                .map(one -> new Line(
                        one.getKey(),
                        "%s in the mean, %s about it, %d %s"
                                .formatted(
                                        Shown.accuracy(units, one.getValue().mean()),
                                        Double.isNaN(one.getValue().deviation())
                                                ? "–"
                                                : Shown.accuracy(
                                                        units, one.getValue().deviation()),
                                        one.getValue().count(),
                                        one.getValue().count() == 1 ? "point" : "points"),
                        ""))
                .toList();
    }
}
