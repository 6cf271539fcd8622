package yalos.core.finding;

import static yalos.core.finding.Finding.Level.*;

import java.util.List;
import java.util.function.Consumer;
import java.util.stream.Stream;
import yalos.core.brief.Brief;
import yalos.core.brief.Contradictions;
import yalos.core.brief.Purpose;
import yalos.core.kit.Positioning;
import yalos.core.pins.Quantity;
import yalos.core.plan.BlockPlan;
import yalos.core.units.Times;
import yalos.core.units.UnitKind;

/** What of the brief does this plan, this kit or this day not keep? */
final class BriefFindings {
    /** What clients call survey grade: a tenth of a foot, rounded up (common practice). */
    private static final double SURVEY_GRADE_M = 0.05;

    static final List<Rule> RULES = Rule.all(
            BriefFindings::new,
            List.<Consumer<BriefFindings>>of(
                    BriefFindings::contradictions,
                    BriefFindings::positioning,
                    BriefFindings::calibration,
                    BriefFindings::speedForAccuracy,
                    BriefFindings::day,
                    BriefFindings::scannerMissing,
                    BriefFindings::bandsMissing));

    private final Brief brief;
    private final BlockPlan plan;
    private final Collected found;

    private BriefFindings(Case one, Collected found) {
        this.brief = one.brief();
        this.plan = one.plan();
        this.found = found;
    }

    private void contradictions() {
        // Accuracy is judged place by place; the rule of thumb is for the brief's advice alone.
        Contradictions.of(brief, plan, found.units()).stream()
                .filter(contradiction -> !contradiction.key().startsWith("accuracy-"))
                .forEach(contradiction ->
                        found.add(MIND, contradiction.key(), contradiction.sentence(), mends(contradiction)));
    }

    /** The figure that is asked for, and what may keep it from being had. */
    private Remedy[] mends(Contradictions.Contradiction contradiction) {
        List<Remedy> pins = contradiction.mend().stream()
                .map(pin -> new Remedy("Pin " + pin.value().asTyped(), pin.quantity(), pin.value()))
                .toList();
        return pins.isEmpty()
                ? new Remedy[0]
                : Stream.concat(pins.stream(), Candidates.costsLetGo(plan)).toArray(Remedy[]::new);
    }

    private void positioning() {
        Positioning able = plan.request().aircraft().positioning();
        Positioning wanted = brief.positioning();
        boolean better = wanted != Positioning.CONTROL && wanted.horizontalM() < able.horizontalM() - 1e-9;
        if (better && brief.purpose().isPresent()) {
            found.add(
                    MIND,
                    "positioning-missing",
                    "The brief counts on %s, good to %s; this aircraft offers %s, good to %s. Lay control points, or take another kit."
                            .formatted(
                                    wanted.words(),
                                    found.length(wanted.horizontalM()),
                                    able.words(),
                                    found.length(able.horizontalM())));
        }
    }

    private void calibration() {
        boolean surveyGrade = brief.horizontalM().orElse(1) <= SURVEY_GRADE_M;
        int heads = plan.request().kit().payload().heads().size();
        if (surveyGrade && heads > 1) {
            found.add(
                    MIND,
                    "calibration",
                    "%s is asked for, and the payload has %d heads; payloads of several heads seldom keep a calibration stable enough for survey grade."
                            .formatted(found.length(brief.horizontalM().getAsDouble()), heads));
        }
    }

    /** On a short flight at high accuracy, half the speed is cheap. */
    private void speedForAccuracy() {
        double speed = plan.design().speedMps();
        double minutes = plan.flightTimeS() / 60;
        double more = plan.flight().linesLengthM() / speed / 60;
        double left = plan.usableMinutes() - minutes;
        boolean fine = brief.verticalM().orElse(1) <= SURVEY_GRADE_M;
        if (fine && more <= left && speed > 4 && !plan.request().pins().has(Quantity.SPEED)) {
            double half = found.down(UnitKind.SPEED, speed / 2, 0.1);
            found.add(
                    NOTE,
                    "half-speed",
                    "Heights to %s are asked for and the block is small: at half the speed it takes about %s more, still on one battery set, and blur halves."
                            .formatted(found.length(brief.verticalM().getAsDouble()), Times.minutes(more * 60)),
                    found.remedy("Fly at " + found.text(Quantity.SPEED, half), Quantity.SPEED, half));
        }
    }

    private void day() {
        if (brief.purpose().isEmpty() || !Double.isFinite(plan.flightTimeS())) {
            return;
        }
        double total = brief.day().totalMinutes(plan.flightTimeS() / 60, plan.batterySets());
        if (total > brief.day().dayMinutes()) {
            found.add(
                    MIND,
                    "day-too-long",
                    "The day takes %s with travel, set-up, targets and battery changes; %s are planned."
                            .formatted(
                                    found.text(UnitKind.DURATION, total * 60),
                                    found.text(UnitKind.DURATION, brief.day().dayMinutes() * 60)));
        }
    }

    private void bandsMissing() {
        boolean index =
                brief.purpose().filter(purpose -> purpose == Purpose.CROP_INDEX).isPresent();
        int files = plan.request().kit().payload().filesPerCapture();
        if (index && !KitFit.spectral(plan.request().kit().payload())) {
            found.add(
                    STOP,
                    "no-bands",
                    "%d %s at each release: this payload has no bands beyond red, green and blue, and a crop index needs them. The Kit stage names a kit that has them."
                            .formatted(files, files == 1 ? "file" : "files"));
        }
    }

    private void scannerMissing() {
        boolean lidar =
                brief.purpose().filter(purpose -> purpose == Purpose.LIDAR).isPresent();
        if (lidar && !plan.request().kit().payload().scannerLeads()) {
            found.add(
                    MIND,
                    "no-scanner",
                    "The brief asks for lidar and the kit carries no scanner: 0 points will be measured by it. Choose a kit with one.");
        }
    }
}
