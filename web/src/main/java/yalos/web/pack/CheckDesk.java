package yalos.web.pack;

import java.time.LocalDateTime;
import java.time.format.DateTimeFormatter;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.Function;
import org.springframework.stereotype.Component;
import yalos.core.day.CheckList;
import yalos.core.day.Papers;
import yalos.core.fault.InputFault;
import yalos.core.sortie.Sorties;
import yalos.core.units.UnitChoice;
import yalos.web.block.OpenBlock;
import yalos.web.block.PlanDesk;
import yalos.web.block.Planned;
import yalos.web.shell.Preferences;
import yalos.web.sorties.SortieDesk;
import yalos.web.store.BlockFacts;
import yalos.web.store.FactsJson;
import yalos.web.store.FieldMapper;
import yalos.web.store.FieldMapper.SignatureRow;
import yalos.web.store.HistoryMapper;
import yalos.web.store.Unreadable;
import yalos.web.work.Recent;
import yalos.web.work.TookTooLong;

/**
 * The checklist of a block as it stands: its lines with the figures of the present plan, what changed since the last issued revision, and who signed. A line is signed as it read then, so that another figure opens
 * it again.
 */
@Component
class CheckDesk {
    private static final DateTimeFormatter WHEN = DateTimeFormatter.ofPattern("d MMM uuuu, HH:mm");
    private static final String CHANGED = "Changed since revision %d";

    private final PlanDesk plans;
    private final SortieDesk desk;
    private final HistoryMapper history;
    private final FieldMapper rows;
    private final Preferences preferences;
    private final Map<BlockFacts, Optional<Sorties>> cut = Recent.map(20);

    CheckDesk(PlanDesk plans, SortieDesk desk, HistoryMapper history, FieldMapper rows, Preferences preferences) {
        this.plans = plans;
        this.desk = desk;
        this.history = history;
        this.rows = rows;
        this.preferences = preferences;
    }

    /**
     * A line as it stands.
     *
     * @param at number in the list, from 0
     * @param key what it is signed under: its heading and words, figures in metric units
     * @param by who signed it or took it back, and when
     * @param figure name of a figure that can be read back; empty for none
     */
    public record Line(
            int at,
            String key,
            String section,
            boolean opens,
            String who,
            String text,
            int seconds,
            int shots,
            String figure,
            boolean signed,
            String by) {
        /** The same line where the one shown before stands under a heading. */
        Line under(String before) {
            return new Line(at, key, section, !section.equals(before), who, text, seconds, shots, figure, signed, by);
        }
    }

    /**
     * A list as it stands.
     *
     * @param reopened lines that were signed with other figures
     */
    public record Standing(List<Line> lines, PlanFigures figures, List<String> reopened, int edition) {
        long signed() {
            return lines.stream().filter(Line::signed).count();
        }

        String words() {
            return "%d of %d signed".formatted(signed(), lines.size());
        }
    }

    /** Lines as they are written: the operator's, or those that follow from the job. */
    static List<String> written(BlockFacts facts) {
        Papers papers = facts.field().day().papers();
        return papers.checks().isEmpty()
                ? CheckList.standard(
                        facts.brief(), facts.kit(), facts.field().sorties().satellites())
                : papers.checks();
    }

    Standing of(OpenBlock block) {
        BlockFacts facts = block.facts();
        UnitChoice units = preferences.units();
        PlanFigures figures = figures(block.id(), facts, units);
        List<String> written = new ArrayList<>(written(facts));
        List<String> elsewhere = figures.linesElsewhere();
        if (!elsewhere.isEmpty()) {
            written.add("# At another launch point");
            written.addAll(elsewhere);
        }
        Optional<Issued> then = then(block, units);
        List<CheckList.Check> checks = new ArrayList<>(changed(then, figures, PlanFigures.Figure::text));
        checks.addAll(CheckList.read(written, figures.texts()));
        List<CheckList.Check> metric = new ArrayList<>(changed(then, figures, PlanFigures.Figure::metric));
        metric.addAll(CheckList.read(written, figures.metric()));
        Map<String, SignatureRow> last = new LinkedHashMap<>();
        rows.signatures(block.id()).forEach(row -> last.put(row.line(), row));
        List<Line> lines = new ArrayList<>();
        Map<String, Integer> times = new HashMap<>();
        String section = "";
        for (CheckList.Check check : checks) {
            CheckList.Check known = metric.get(lines.size());
            // The same words twice are two lines.
            int nth = times.merge(known.section() + known.text(), 1, Integer::sum);
            String again = nth > 1 ? " (" + nth + ")" : "";
            String text = check.text() + again;
            String key = key(known.section(), known.text() + again);
            SignatureRow row = last.get(key);
            boolean opens = !check.section().equals(section);
            section = check.section();
            lines.add(new Line(
                    lines.size(),
                    key,
                    section,
                    opens,
                    check.who() == CheckList.Who.BOTH ? "" : check.who().words(),
                    text,
                    check.seconds(),
                    check.shots(),
                    figures.of(check.figure())
                            .filter(figure -> figure.si().isPresent())
                            .map(figure -> check.figure())
                            .orElse(""),
                    row != null && row.signed(),
                    row == null ? "" : by(row)));
        }
        return new Standing(
                lines,
                figures,
                reopened(lines, last),
                facts.field().day().papers().edition());
    }

    /** What a signature is kept under: headings tell the panel before from the panel after. */
    static String key(String section, String text) {
        return cut(section.isEmpty() ? text : section + ": " + text);
    }

    private static String cut(String text) {
        return text.length() > 300 ? text.substring(0, 300) : text;
    }

    private static String by(SignatureRow row) {
        return (row.signed() ? "signed by " : "taken back by ")
                + row.person()
                + ", "
                + row.signedAt().format(WHEN)
                + (row.reads().isEmpty() ? "" : ", read " + row.reads())
                + (row.note().isEmpty() ? "" : ": " + row.note());
    }

    /** Lines signed that the list does not have any more, as they are: their figure is another now, or they were edited. */
    private static List<String> reopened(List<Line> lines, Map<String, SignatureRow> last) {
        return last.values().stream()
                .filter(SignatureRow::signed)
                .filter(row -> lines.stream().noneMatch(line -> line.key().equals(row.line())))
                .map(SignatureRow::line)
                .toList();
    }

    PlanFigures figures(long block, BlockFacts facts, UnitChoice units) {
        Optional<Planned.Whole> whole = plans.plan(facts).whole();
        if (whole.isEmpty()) {
            return PlanFigures.none(units);
        }
        Optional<Sorties> sorties = desk.of(block, facts, whole.get().plan()).sorties();
        return PlanFigures.of(facts, whole.get().plan(), sorties, units);
    }

    /** The figures of what was issued: cut for itself, so that the present block's sorties are not disturbed. */
    private PlanFigures issued(BlockFacts facts, UnitChoice units) {
        Optional<Planned.Whole> whole = plans.plan(facts).whole();
        if (whole.isEmpty()) {
            return PlanFigures.none(units);
        }
        Optional<Sorties> known = cut.get(facts);
        if (known == null) {
            try {
                known = Optional.of(desk.cut(facts, whole.get().plan(), desk.means(facts)));
            } catch (InputFault | TookTooLong none) {
                known = Optional.empty();
            }
            cut.put(facts, known);
        }
        return PlanFigures.of(facts, whole.get().plan(), known, units);
    }

    /** A line for every figure that is not what the last issued revision had. */
    private static List<CheckList.Check> changed(
            Optional<Issued> issued, PlanFigures now, Function<PlanFigures.Figure, String> words) {
        List<CheckList.Check> lines = new ArrayList<>();
        issued.ifPresent(then -> {
            for (String name : now.names()) {
                PlanFigures.Figure is = now.of(name).orElseThrow();
                then.figures()
                        .of(name)
                        .filter(was -> !was.metric().equals(is.metric()))
                        .ifPresent(was -> lines.add(new CheckList.Check(
                                CHANGED.formatted(then.number()),
                                CheckList.Who.PILOT,
                                "%s is %s now, was %s: changed on the aircraft too"
                                        .formatted(name, words.apply(is), words.apply(was)),
                                0,
                                0,
                                name)));
            }
        });
        return lines;
    }

    /** What was issued last. */
    record Issued(int number, LocalDateTime at, PlanFigures figures) {}

    Optional<Issued> then(OpenBlock block, UnitChoice units) {
        return history.revisions(block.id()).stream().findFirst().flatMap(row -> {
            try {
                BlockFacts facts = FactsJson.read(
                        history.revision(block.id(), row.number()).orElseThrow().facts());
                return Optional.of(new Issued(row.number(), row.issuedAt(), issued(facts, units)));
            } catch (Unreadable older) {
                return Optional.empty();
            }
        });
    }
}
