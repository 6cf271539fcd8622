package yalos.core.finding;

import static yalos.core.finding.Finding.Level.*;
import static yalos.core.pins.Quantity.GSD;

import java.util.List;
import java.util.OptionalDouble;
import java.util.function.Consumer;
import java.util.stream.Stream;
import yalos.core.geodesy.PlanePoint;
import yalos.core.plan.BlockPlan;
import yalos.core.proof.Adequacy;
import yalos.core.proof.Coverage;
import yalos.core.proof.Judgement;
import yalos.core.proof.Shares;
import yalos.core.proof.WeakSpot;

/** Is every bit of the block given what was pinned and asked, on the real ground? */
final class CoverageFindings {
    /** Below this share of the block a weak rim is not worth a word. */
    static final double WORTH_SAYING = 0.002;

    /** Ground this many times coarser than asked does not show what it was flown for; more than a weak rim of it stops a plan. */
    private static final double USELESS = 2;

    static final List<Rule> RULES = Rule.all(
            CoverageFindings::new,
            List.<Consumer<CoverageFindings>>of(
                    CoverageFindings::noMargin,
                    CoverageFindings::seenTooFewTimes,
                    CoverageFindings::tooCoarse,
                    CoverageFindings::inaccurate,
                    CoverageFindings::overlapLost));

    /** Lacking on more of the block than this it stops a plan. */
    private static final double MOST = 0.5;

    private final BlockPlan plan;
    private final Coverage coverage;
    private final Judgement judgement;
    private final Collected found;
    private final Candidates candidates;
    private final boolean scannerLeads;

    private CoverageFindings(Case one, Collected found) {
        this.plan = one.plan();
        this.coverage = one.coverage();
        this.judgement = one.judgement();
        this.found = found;
        this.candidates = new Candidates(plan, judgement, found);
        this.scannerLeads = plan.request().kit().payload().scannerLeads();
    }

    /** Schools differ; what one strip and two more would give is found by trying. */
    private void noMargin() {
        boolean edgeTold = coverage.shareShort() >= WORTH_SAYING;
        if (plan.design().marginM() > 0 || edgeTold || scannerLeads) {
            return;
        }
        found.add(
                NOTE,
                "no-margin",
                "0 strips beyond the edge: the outermost ground is seen from one side only. It is measured less well there; one strip more is common practice for surveys.",
                candidates.margin().stream().limit(2).toArray(Remedy[]::new));
    }

    private void seenTooFewTimes() {
        double share = coverage.shareShort();
        if (scannerLeads || share < WORTH_SAYING || coverage.weakSpots().isEmpty()) {
            return;
        }
        WeakSpot worst = coverage.weakSpots().get(0);
        boolean edge = coverage.weakSpots().stream().allMatch(WeakSpot::atEdge);
        boolean whole = share > 0.9;
        String where = whole ? "" : edge ? ", along the edge," : ", inside and along the edge,";
        List<Remedy> remedies = edge && !whole
                ? candidates.margin()
                : Stream.of(Adequacy.TOO_FEW, Adequacy.HIDDEN)
                        .flatMap(lack -> candidates.of(lack).stream())
                        .distinct()
                        .toList();
        found.addAt(
                worst.leastPhotos() == 0 || share > MOST ? STOP : MIND,
                "seen-too-few-times",
                "%s of the block%s is seen on fewer than %d photos, some of it on only %d; %s in all."
                        .formatted(Shares.percent(share), where, coverage.asked(), worst.leastPhotos(), area()),
                new PlanePoint(worst.x(), worst.y()),
                remedies);
    }

    private String area() {
        double cell = coverage.count().cellM() * coverage.count().cellM();
        return found.units().areaText(coverage.shareShort() * coverage.cells() * cell);
    }

    /** A plan that is coarser than asked from the start is told by its own finding. */
    private void tooCoarse() {
        OptionalDouble asked = plan.askedGsdM();
        double share = judgement.share(Adequacy.TOO_COARSE);
        if (scannerLeads || share < WORTH_SAYING || plan.design().scale().gsdM() > asked.orElseThrow() * (1 + 1e-6)) {
            return;
        }
        Worst worst = worst(Adequacy.TOO_COARSE);
        found.addAt(
                judgement.shareCoarserThan(asked.getAsDouble() * USELESS) >= WORTH_SAYING ? STOP : MIND,
                "too-coarse",
                "%s of the block is photographed coarser than %s, up to %s. The mean of the photos that see a place is judged, since matching and picture maps take from all of them; those from more than twice as far as the nearest do not count where %d see it from nearer. 10 %% over is allowed.%s"
                        .formatted(
                                Shares.percent(share),
                                found.text(GSD, asked.getAsDouble()),
                                found.text(GSD, judgement.coarsestM()),
                                judgement.asked().photos(),
                                worst.why()),
                worst.place(),
                candidates.of(Adequacy.TOO_COARSE));
    }

    /** Where the whole relief costs overlap, that says it; this tells pieces of it. */
    private void overlapLost() {
        double share = judgement.share(Adequacy.LOW_OVERLAP);
        if (scannerLeads || share < WORTH_SAYING || GroundFindings.losesOverlap(plan)) {
            return;
        }
        Worst worst = worst(Adequacy.LOW_OVERLAP);
        found.addAt(
                MIND,
                "overlap-lost",
                "%s of the block lies so near below the aircraft that a pinned overlap is lost; 2 %% less is allowed.%s"
                        .formatted(Shares.percent(share), worst.why()),
                worst.place(),
                candidates.of(Adequacy.LOW_OVERLAP));
    }

    private void inaccurate() {
        told(
                Adequacy.INACCURATE,
                "height-accuracy",
                "heights",
                judgement.asked().heightSigmaM());
        told(Adequacy.OFF, "position-accuracy", "positions", judgement.asked().positionSigmaM());
    }

    private void told(Adequacy lack, String key, String what, OptionalDouble asked) {
        double share = judgement.share(lack);
        if (asked.isEmpty() || scannerLeads || share < WORTH_SAYING) {
            return;
        }
        Worst worst = worst(lack);
        found.addAt(
                share > MOST ? STOP : MIND,
                key,
                "On %s of the block %s come out worse than the %s asked for. Expected from rays, image matching and %s; check points on site decide.%s"
                        .formatted(
                                Shares.percent(share),
                                what,
                                found.length(asked.getAsDouble()),
                                judgement.positioning().words(),
                                worst.why()),
                worst.place(),
                candidates.of(lack));
    }

    /** Where it is worst, and why; specks alone have no cause of their own. */
    private record Worst(PlanePoint place, String why) {}

    private Worst worst(Adequacy lack) {
        return judgement.spots().stream()
                .filter(spot -> judgement.at(spot.cells()[0]) == lack)
                .findFirst()
                .map(spot -> new Worst(
                        new PlanePoint(spot.x(), spot.y()),
                        " Why: " + spot.cause().words() + "."))
                .orElseGet(() -> new Worst(judgement.anyPlace(lack), " It lies in many small specks."));
    }
}
