package yalos.web.accuracy;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.time.LocalDate;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import org.apache.commons.csv.CSVFormat;
import org.apache.commons.csv.CSVPrinter;
import org.springframework.stereotype.Component;
import org.thymeleaf.context.Context;
import org.thymeleaf.spring6.SpringTemplateEngine;
import yalos.core.accuracy.Residual;
import yalos.core.units.UnitChoice;
import yalos.web.accuracy.AccuracyDesk.Found;
import yalos.web.block.OpenBlock;
import yalos.web.pack.PackWriter;
import yalos.web.pack.Pdf;
import yalos.web.shell.Preferences;
import yalos.web.store.AccuracyMapper.ResidualRow;

/** The statement for a client: what was asked, what was found, point by point, by which method, within which limits. One template gives the page and the PDF. */
@Component
class AccuracyReport {
    private final AccuracyDesk desk;
    private final Differences differences;
    private final SpringTemplateEngine templates;
    private final Preferences preferences;

    AccuracyReport(
            AccuracyDesk desk, Differences differences, SpringTemplateEngine templates, Preferences preferences) {
        this.desk = desk;
        this.differences = differences;
        this.templates = templates;
        this.preferences = preferences;
    }

    String html(OpenBlock block) {
        return template(block, true);
    }

    byte[] pdf(OpenBlock block) {
        return Pdf.of(template(block, false));
    }

    private String template(OpenBlock block, boolean file) {
        UnitChoice units = preferences.units();
        Found found = desk.of(block);
        Context context = new Context(Locale.UK);
        context.setVariable("block", block);
        context.setVariable("made", LocalDate.now().toString());
        context.setVariable("style", PackWriter.resource("static/css/pack.css"));
        context.setVariable("fonts", file ? PackWriter.fonts() : "");
        context.setVariable("headline", AccuracyView.headline(found, units));
        context.setVariable("says", AccuracyView.says(found, units));
        context.setVariable(
                "axes", found.checks().map(one -> AccuracyView.axes(one, units)).orElse(List.of()));
        context.setVariable(
                "controlAxes",
                found.control().map(one -> AccuracyView.axes(one, units)).orElse(List.of()));
        context.setVariable("threefold", AccuracyView.threefold(found));
        context.setVariable("suspicions", found.suspicions());
        context.setVariable("points", AccuracyView.points(found, units));
        context.setVariable("surfaces", AccuracyView.surfaces(found.bySurface(), units));
        context.setVariable("note", found.note());
        context.setVariable("differences", differences.views(block.id(), units));
        List<Residual> checks = found.kept().stream()
                .filter(one -> one.row().leftOut().isEmpty() && one.residual().kind() == Residual.Kind.CHECK)
                .map(AccuracyDesk.Kept::residual)
                .toList();
        context.setVariable("charts", AccuracyCharts.of(checks, units));
        context.setVariable("map", ResidualMap.svg(block, found, units));
        context.setVariable(
                "grid",
                Optional.of(block.facts())
                        .flatMap(facts -> facts.grid())
                        .map(grid -> grid.shortName())
                        .orElse("no grid"));
        context.setVariable("asked", asked(found));
        context.setVariable("surveyLevelMm", Math.round(found.note().surveyLevel() * 1000));
        context.setVariable("surveyUpMm", Math.round(found.note().surveyUp() * 1000));
        return templates.process("accuracy/report", context);
    }

    private static String asked(Found found) {
        String heights = found.asked().heightM().isEmpty()
                ? ""
                : String.format(
                        Locale.ROOT,
                        "heights to %.3f m",
                        found.asked().heightM().getAsDouble());
        String level = found.asked().positionM().isEmpty()
                ? ""
                : String.format(
                        Locale.ROOT,
                        "positions to %.3f m along each axis",
                        found.asked().positionM().getAsDouble());
        return heights.isEmpty() && level.isEmpty()
                ? "no accuracy was asked for"
                : heights + (heights.isEmpty() || level.isEmpty() ? "" : ", ") + level + " (one standard deviation)";
    }

    String csv(OpenBlock block) {
        StringBuilder text = new StringBuilder();
        CSVFormat format = CSVFormat.RFC4180
                .builder()
                .setHeader(
                        "point",
                        "role",
                        "dE_m",
                        "dN_m",
                        "dH_m",
                        "height_m",
                        "longitude",
                        "latitude",
                        "surface",
                        "source",
                        "left_out")
                .get();
        try (CSVPrinter printer = new CSVPrinter(text, format)) {
            for (AccuracyDesk.Kept one : desk.figures(block).kept()) {
                ResidualRow row = one.row();
                printer.printRecord(
                        row.point(),
                        one.residual().kind().words(),
                        figure(row.east(), 4),
                        figure(row.north(), 4),
                        figure(row.up(), 4),
                        figure(row.height(), 3),
                        figure(row.lon(), 8),
                        figure(row.lat(), 8),
                        row.surface(),
                        row.source(),
                        row.leftOut());
            }
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
        return text.toString();
    }

    private static String figure(Double value, int decimals) {
        return value == null ? "" : String.format(Locale.ROOT, "%." + decimals + "f", value);
    }
}
