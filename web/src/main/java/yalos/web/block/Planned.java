package yalos.web.block;

import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.ConcurrentHashMap;
import yalos.core.brief.Brief;
import yalos.core.exchange.PlanSheetData;
import yalos.core.fault.InputFault;
import yalos.core.finding.Case;
import yalos.core.finding.Finding;
import yalos.core.finding.Findings;
import yalos.core.finding.Mends;
import yalos.core.ledger.Ledger;
import yalos.core.plan.BlockPlan;
import yalos.core.proof.Coverage;
import yalos.core.proof.Judgement;
import yalos.core.proof.StructureProof;
import yalos.core.units.UnitChoice;
import yalos.web.store.BlockFacts;

/**
 * What follows from a block's facts: a plan, or the fault that keeps it from having one.
 *
 * @param whole the plan with its ledger and coverage
 * @param fault why there is no plan
 */
public record Planned(Optional<Whole> whole, Optional<InputFault> fault) {

    /** A plan with what every page shows of it. */
    public static final class Whole {
        private final BlockPlan plan;
        private final Ledger ledger;
        private volatile Judged judged;

        Whole(BlockPlan plan, Brief brief) {
            this.plan = plan;
            this.ledger = Ledger.of(plan);
            this.judged = new Judged(Case.of(plan, brief));
        }

        public BlockPlan plan() {
            return plan;
        }

        public Ledger ledger() {
            return ledger;
        }

        public Coverage coverage() {
            return judged.one.coverage();
        }

        /** Every place held against what is pinned and asked, as finely as was judged so far. */
        public Judgement judgement() {
            return judged.one.judgement();
        }

        /** The faces of objects, coarsely proved; empty without objects. */
        public Optional<StructureProof> faces() {
            return judged.one.faces();
        }

        /** Faces proved more finely take the place of the first ones, everywhere that their share is shown. */
        public void facesFiner(StructureProof finer) {
            judged = new Judged(judged.one.with(finer));
        }

        /** A finer judgement takes the place of the first one, everywhere that a share is shown. */
        public void judgedFiner(Judgement finer) {
            judged = new Judged(judged.one.with(finer));
        }

        /** What cures a finding, tried; see {@link Mends}. */
        public List<Mends.Mend> mends(Finding finding, UnitChoice units) {
            return judged.mends(finding, units);
        }

        /** What a practitioner would say, in the operator's units; the worst first. */
        public List<Finding> findings(UnitChoice units) {
            return judged.findings(units);
        }

        /** The plan for a file: with what forbids flying it, and why figures are pinned. */
        public PlanSheetData sheet(OpenBlock block, UnitChoice units) {
            List<String> stops = Findings.stops(findings(units)).stream()
                    .map(Finding::headline)
                    .toList();
            return new PlanSheetData(block.jobName() + ", " + block.name(), plan, stops, reasons(block.facts()));
        }

        private static List<String> reasons(BlockFacts facts) {
            return facts.notes().entrySet().stream()
                    .sorted(Map.Entry.comparingByKey())
                    .map(note -> "%s%s: %s"
                            .formatted(
                                    note.getKey().label(),
                                    facts.pins()
                                            .of(note.getKey())
                                            .map(pin -> " " + pin.asTyped())
                                            .orElse(""),
                                    note.getValue()))
                    .toList();
        }
    }

    /** A case with what was said of it: its findings once for each choice of units, the mends of each once. */
    private static final class Judged {
        private final Case one;
        private final Map<UnitChoice, List<Finding>> findings = new ConcurrentHashMap<>();
        private final Map<Finding, List<Mends.Mend>> mends = new ConcurrentHashMap<>();

        Judged(Case one) {
            this.one = one;
        }

        List<Finding> findings(UnitChoice units) {
            return findings.computeIfAbsent(units, chosen -> Findings.of(one, chosen));
        }

        List<Mends.Mend> mends(Finding finding, UnitChoice units) {
            List<Finding> said = findings(units);
            return mends.computeIfAbsent(finding, wanted -> Mends.of(one, said, wanted, units));
        }
    }

    static Planned of(Whole whole) {
        return new Planned(Optional.of(whole), Optional.empty());
    }

    static Planned not(InputFault fault) {
        return new Planned(Optional.empty(), Optional.of(fault));
    }
}
