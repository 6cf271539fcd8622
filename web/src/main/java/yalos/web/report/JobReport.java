package yalos.web.report;

import java.nio.charset.StandardCharsets;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalDouble;
import org.springframework.stereotype.Component;
import org.thymeleaf.context.Context;
import org.thymeleaf.spring6.SpringTemplateEngine;
import yalos.core.control.ControlLayout;
import yalos.core.control.ControlPoint;
import yalos.core.logbook.Totals;
import yalos.core.pins.Quantity;
import yalos.core.proof.Shares;
import yalos.core.units.UnitChoice;
import yalos.core.units.UnitKind;
import yalos.web.accuracy.AccuracySaid;
import yalos.web.block.Blocks;
import yalos.web.block.OpenBlock;
import yalos.web.block.PlanDesk;
import yalos.web.block.Planned;
import yalos.web.brief.BriefWords;
import yalos.web.control.MeasuredPoints;
import yalos.web.keep.OpenCopies;
import yalos.web.log.FlightLog;
import yalos.web.log.FlightView;
import yalos.web.pack.PackWriter;
import yalos.web.pack.Pdf;
import yalos.web.shell.NotThere;
import yalos.web.shell.Preferences;
import yalos.web.store.AccuracyMapper;
import yalos.web.store.BlockFacts;
import yalos.web.store.HistoryMapper;
import yalos.web.store.JobMapper;
import yalos.web.store.LogMapper.Wanted;
import yalos.web.store.Sha256;
import yalos.web.store.Unreadable;
import yalos.web.take.FlownTake;
import yalos.web.take.TakeView;

/** Writes the report of a job, block by block. What is not known is left out or said to be missing; nothing is claimed for it. */
@Component
class JobReport {
    private static final int MOST_FLIGHTS = 200;

    private final JobMapper jobs;
    private final Blocks blocks;
    private final PlanDesk plans;
    private final PackWriter packs;
    private final FlightLog log;
    private final FlownTake takes;
    private final AccuracySaid accuracy;
    private final MeasuredPoints measured;
    private final HistoryMapper history;
    private final OpenCopies copies;
    private final SpringTemplateEngine templates;
    private final Preferences preferences;

    JobReport(
            JobMapper jobs,
            Blocks blocks,
            PlanDesk plans,
            PackWriter packs,
            FlightLog log,
            FlownTake takes,
            AccuracySaid accuracy,
            MeasuredPoints measured,
            HistoryMapper history,
            OpenCopies copies,
            SpringTemplateEngine templates,
            Preferences preferences) {
        this.jobs = jobs;
        this.blocks = blocks;
        this.plans = plans;
        this.packs = packs;
        this.log = log;
        this.takes = takes;
        this.accuracy = accuracy;
        this.measured = measured;
        this.history = history;
        this.copies = copies;
        this.templates = templates;
        this.preferences = preferences;
    }

    /** A line of a two-column table. */
    public record Line(String label, String words) {}

    /** A file that is handed over. */
    public record Handed(String name, String size, String sum) {}

    /** All that is said of one block. */
    public record Part(
            String name,
            String asked,
            String client,
            List<Line> plan,
            String map,
            List<FlightView> flights,
            String flown,
            String coverage,
            List<TakeView.GapRow> gaps,
            Optional<AccuracySaid.Said> accuracy,
            AccuracyMapper.NoteRow note,
            List<Line> control,
            List<Line> changes,
            List<Handed> files) {}

    /** Waits until the takes of a job are proved. Not to be asked by work in the queue, which would wait for itself. */
    void settle(long job) {
        jobs.job(job).orElseThrow(() -> new NotThere("There is no such job; it may be deleted."));
        for (JobMapper.BlockRow block : jobs.blocksOf(job)) {
            if (takes.any(block.id()) && block.readable().isPresent()) {
                takes.settle(blocks.open(block.id()));
            }
        }
    }

    String html(long job) {
        return template(job, true);
    }

    byte[] pdf(long job) {
        return Pdf.of(template(job, false));
    }

    private String template(long job, boolean file) {
        JobMapper.JobRow row =
                jobs.job(job).orElseThrow(() -> new NotThere("There is no such job; it may be deleted."));
        List<Part> parts = new ArrayList<>();
        List<String> lost = new ArrayList<>();
        for (JobMapper.BlockRow block : jobs.blocksOf(job)) {
            try {
                parts.add(part(blocks.open(block.id())));
            } catch (Unreadable unreadable) {
                lost.add(block.name() + ": " + unreadable.getMessage());
            }
        }
        Map<String, Object> said = new HashMap<>();
        said.put("job", row.name());
        said.put("made", LocalDate.now().toString());
        said.put("parts", parts);
        said.put("lost", lost);
        said.put("style", PackWriter.resource("static/css/pack.css"));
        said.put("fonts", file ? PackWriter.fonts() : "");
        return templates.process("report/report", new Context(Locale.UK, said));
    }

    private Part part(OpenBlock block) {
        UnitChoice units = preferences.units();
        BlockFacts facts = block.facts();
        Planned planned = plans.plan(facts);
        List<FlightLog.Kept> flights = log.flights(Wanted.ofBlock(block.id()), 0, MOST_FLIGHTS);
        Totals totals = log.totals(Wanted.ofBlock(block.id()));
        Optional<FlownTake.Coverage> coverage = takes.any(block.id()) ? takes.coverage(block) : Optional.empty();
        return new Part(
                block.name(),
                BriefWords.of(facts.brief(), units),
                facts.brief().client(),
                plan(planned, facts, units),
                planned.whole()
                        .map(whole -> packs.map(block, whole.plan(), units))
                        .orElse(""),
                flights.stream().map(kept -> FlightView.of(kept, units)).toList(),
                totals.flights() == 0
                        ? "No flight that counts stands in the log."
                        : "%d %s, %s in the air, %,d good photos."
                                .formatted(
                                        totals.flights(),
                                        totals.flights() == 1 ? "flight" : "flights",
                                        units.text(UnitKind.DURATION, totals.minutes() * 60),
                                        totals.photos()),
                coverage(planned, coverage, flights),
                coverage.isPresent() ? takes.gaps(block, units) : List.of(),
                accuracy.of(block, units),
                accuracy.note(block),
                control(block),
                changes(block, flights),
                files(block));
    }

    private static List<Line> plan(Planned planned, BlockFacts facts, UnitChoice units) {
        List<Line> lines = new ArrayList<>();
        lines.add(new Line("Flown with", facts.kit().name()));
        lines.add(new Line("Pattern", facts.patterns().words()));
        planned.whole()
                .ifPresent(whole -> whole.ledger().entries().stream()
                        .filter(entry -> List.of(
                                        Quantity.GSD,
                                        Quantity.HEIGHT,
                                        Quantity.FORWARD_OVERLAP,
                                        Quantity.SIDE_OVERLAP,
                                        Quantity.SPEED,
                                        Quantity.STRIPS,
                                        Quantity.PHOTOS,
                                        Quantity.AREA)
                                .contains(entry.quantity()))
                        .filter(entry -> Double.isFinite(entry.si()))
                        .forEach(entry -> lines.add(new Line(
                                entry.quantity().label(),
                                units.text(entry.quantity().kind(), entry.si())))));
        facts.grid().ifPresent(grid -> lines.add(new Line("Grid", grid.shortName())));
        return lines;
    }

    private static String coverage(
            Planned planned, Optional<FlownTake.Coverage> coverage, List<FlightLog.Kept> flights) {
        if (coverage.flatMap(FlownTake.Coverage::flown).isPresent()) {
            return "As flown %s of the block is given what was asked; planned were %s."
                    .formatted(
                            Shares.percent(
                                    coverage.orElseThrow().flown().orElseThrow().share()),
                            coverage.orElseThrow()
                                    .planned()
                                    .map(one -> Shares.percent(one.share()))
                                    .orElse("–"));
        }
        OptionalDouble told = FlightLog.covered(
                flights.stream().filter(FlightLog.Kept::counts).toList());
        return told.stream()
                .mapToObj(
                        share -> "By the log %s of the block is given what was asked.".formatted(Shares.percent(share)))
                .findFirst()
                .orElseGet(() -> planned.whole()
                        .map(whole -> "As planned %s of the block is given what was asked; as flown it was not proved."
                                .formatted(Shares.percent(whole.judgement().share())))
                        .orElse("There is no plan to prove."));
    }

    private List<Line> control(OpenBlock block) {
        List<Line> lines = new ArrayList<>();
        Map<String, Integer> counts = measured.counts(block.id());
        for (ControlPoint.Role role : ControlPoint.Role.values()) {
            List<ControlPoint> points = block.facts().control().of(role);
            long found = points.stream()
                    .filter(point -> counts.keySet().stream()
                            .anyMatch(name -> ControlLayout.key(name).equals(ControlLayout.key(point.name()))))
                    .count();
            if (!points.isEmpty()) {
                lines.add(new Line(
                        role.words() + " points",
                        "%d, measured %d; %s".formatted(points.size(), found, role.meaning())));
            }
        }
        measured.base(block.id())
                .ifPresent(base -> lines.add(new Line(
                        "base",
                        "%s, %s"
                                .formatted(
                                        base.name(),
                                        base.known() ? "place known" : "place taken from its own position"))));
        return lines;
    }

    private List<Line> changes(OpenBlock block, List<FlightLog.Kept> flights) {
        List<Line> lines = new ArrayList<>();
        block.facts()
                .notes()
                .forEach((quantity, why) -> lines.add(new Line(
                        quantity.label(),
                        block.facts()
                                        .pins()
                                        .of(quantity)
                                        .map(measure -> measure.asTyped() + ", because ")
                                        .orElse("")
                                + why)));
        block.facts()
                .brief()
                .rulings()
                .forEach((key, ruling) -> lines.add(new Line(
                        key.replace('-', ' '),
                        (ruling.accepted() ? "accepted" : "declined")
                                + (ruling.note().isEmpty() ? "" : ", because " + ruling.note()))));
        flights.forEach(kept -> kept.flight().happenings().stream()
                .filter(one -> !one.why().isEmpty())
                .forEach(one -> lines.add(new Line(
                        kept.flight().start().toLocalDate() + (one.at().isEmpty() ? "" : " " + one.at()),
                        one.what() + ", because " + one.why()))));
        history.revisions(block.id())
                .forEach(row -> lines.add(new Line(
                        "revision " + row.number(),
                        "issued %s%s"
                                .formatted(
                                        row.issuedAt().toLocalDate(), row.note().isEmpty() ? "" : ": " + row.note()))));
        return lines;
    }

    private List<Handed> files(OpenBlock block) {
        List<Handed> files = new ArrayList<>();
        copies.of(block.id())
                .forEach(copy -> files.add(new Handed(
                        copy.name(),
                        "%,d kB".formatted((copy.content().length + 1023) / 1024),
                        Sha256.hex(copy.content()))));
        if (takes.any(block.id())) {
            String manifest = takes.manifest(block);
            byte[] sums = manifest.getBytes(StandardCharsets.UTF_8);
            long photos = manifest.lines().count();
            files.add(new Handed(
                    "photos.sha256, the sums of %,d photos".formatted(photos),
                    "%,d kB".formatted((sums.length + 1023) / 1024),
                    Sha256.hex(sums)));
        }
        return files;
    }
}
