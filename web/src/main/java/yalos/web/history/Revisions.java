package yalos.web.history;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import tools.jackson.core.type.TypeReference;
import tools.jackson.databind.json.JsonMapper;
import yalos.core.fault.InputFault;
import yalos.core.ledger.Entry;
import yalos.core.pins.Quantity;
import yalos.core.units.UnitChoice;
import yalos.web.block.OpenBlock;
import yalos.web.block.PlanDesk;
import yalos.web.block.Planned;
import yalos.web.exchange.PlanGeoJson;
import yalos.web.shell.NotThere;
import yalos.web.store.BlockFacts;
import yalos.web.store.FactsJson;
import yalos.web.store.HistoryMapper;

/**
 * Issued revisions. A revision is frozen whole: the facts, every figure of the ledger and the plan's file, so that it reads the
 * same whatever the program computes later.
 */
@Service
class Revisions {
    private static final int LONGEST_NOTE = 300;
    private static final JsonMapper JSON = JsonMapper.builder().build();

    private final HistoryMapper rows;
    private final PlanDesk desk;

    Revisions(HistoryMapper rows, PlanDesk desk) {
        this.rows = rows;
        this.desk = desk;
    }

    /** A quantity then and now. */
    public record Difference(String label, String then, String now, String change) {}

    /** A revision held against the present plan. */
    public record Comparison(HistoryMapper.RevisionRow revision, List<Difference> figures, List<String> facts) {}

    /**
     * Freezes the present plan as the next revision.
     *
     * @throws InputFault when there is no plan, or the note is too long
     */
    @Transactional
    void issue(OpenBlock block, String note) {
        if (note.strip().length() > LONGEST_NOTE) {
            throw new InputFault("note", note, "Keep the note to %d characters.".formatted(LONGEST_NOTE));
        }
        Planned planned = desk.plan(block.facts());
        Planned.Whole whole = planned.whole()
                .orElseThrow(() -> planned.fault()
                        .orElse(new InputFault(
                                "plan", "none", "There is no plan to issue yet; draw an outline first.")));
        Map<String, Double> figures = new LinkedHashMap<>();
        for (Entry entry : whole.ledger().entries()) {
            if (Double.isFinite(entry.si())) {
                figures.put(entry.quantity().key(), entry.si());
            }
        }
        String plan = PlanGeoJson.file(whole.sheet(block, UnitChoice.METRIC)).toString();
        rows.issue(block.id(), note.strip(), FactsJson.write(block.facts()), JSON.writeValueAsString(figures), plan);
    }

    HistoryMapper.RevisionRow revision(long block, int number) {
        return rows.revision(block, number)
                .orElseThrow(() -> new NotThere("This block has no revision %d.".formatted(number)));
    }

    /** What changed since a revision, and by how much. */
    Comparison compare(OpenBlock block, int number, UnitChoice units) {
        HistoryMapper.RevisionRow revision = revision(block.id(), number);
        Map<String, Double> then = JSON.readValue(revision.figures(), new TypeReference<>() {});
        List<Difference> differences = new ArrayList<>();
        desk.plan(block.facts()).whole().ifPresent(whole -> {
            for (Entry entry : whole.ledger().entries()) {
                Double before = then.get(entry.quantity().key());
                if (before != null && Double.isFinite(entry.si())) {
                    difference(entry.quantity(), before, entry.si(), units).ifPresent(differences::add);
                }
            }
        });
        BlockFacts issued = FactsJson.read(revision.facts());
        return new Comparison(revision, differences, FactsDifference.of(issued, block.facts(), units));
    }

    private static Optional<Difference> difference(Quantity quantity, double then, double now, UnitChoice units) {
        String before = units.text(quantity.kind(), then);
        String after = units.text(quantity.kind(), now);
        if (before.equals(after)) {
            return Optional.empty();
        }
        String change = then == 0 ? "" : String.format(Locale.ROOT, "%+.1f %%", (now / then - 1) * 100);
        return Optional.of(new Difference(quantity.label(), before, after, change));
    }
}
