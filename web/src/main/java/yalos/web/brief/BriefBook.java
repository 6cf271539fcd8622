package yalos.web.brief;

import java.time.LocalDate;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalDouble;
import org.springframework.stereotype.Component;
import org.springframework.ui.Model;
import yalos.core.brief.Advice;
import yalos.core.brief.Brief;
import yalos.core.brief.Crop;
import yalos.core.brief.PackList;
import yalos.core.brief.Priority;
import yalos.core.brief.Purpose;
import yalos.core.brief.Site;
import yalos.core.brief.Surface;
import yalos.core.kit.Positioning;
import yalos.core.light.Daylight;
import yalos.core.plan.BlockPlan;
import yalos.core.plan.PlanProof;
import yalos.core.proof.RuleOfThumb;
import yalos.core.proof.Shares;
import yalos.core.trial.DetailCurve;
import yalos.core.units.UnitChoice;
import yalos.core.units.UnitKind;
import yalos.web.block.Planned;
import yalos.web.block.Stage;
import yalos.web.block.StageBook;
import yalos.web.store.BlockFacts;
import yalos.web.work.PageWork;
import yalos.web.work.Recent;

/** The field book's page of the Brief stage. */
@Component
class BriefBook implements StageBook {
    private static final int KEPT = 16;

    private final PageWork work;
    /** Many whole plans each, and asked for anew whenever the page is opened. */
    private final Map<Asked, Weighed> weighed = Recent.map(KEPT);

    private record Asked(BlockFacts facts, UnitChoice units) {}

    /** Other ways on this block: each school's plan, and what detail costs. */
    private record Weighed(List<Schools.Question> schools, List<CurvePoint> curve) {}

    BriefBook(PageWork work) {
        this.work = work;
    }

    /** One piece of advice; {@code state} is {@code followed}, {@code noted}, {@code overruled} or empty. */
    public record AdviceRow(
            String key,
            String label,
            String text,
            String reason,
            String source,
            String state,
            String note,
            String press) {}

    /** One link of the chain from the need to the cost. */
    public record Link(String name, String figure) {}

    @Override
    public Stage stage() {
        return Stage.BRIEF;
    }

    @Override
    public void fill(Opened opened, Model model) {
        BlockFacts facts = opened.block().facts();
        Brief brief = facts.brief();
        UnitChoice units = opened.units();
        model.addAttribute("brief", brief);
        model.addAttribute("purposes", Purpose.values());
        model.addAttribute("surfaces", Surface.values());
        model.addAttribute("priorities", Priority.values());
        model.addAttribute("positionings", Positioning.values());
        model.addAttribute("grades", BriefForm.Grade.values());
        model.addAttribute("grade", BriefForm.Grade.of(brief));
        model.addAttribute("smallest", length(brief.smallestM(), units));
        model.addAttribute("horizontal", length(brief.horizontalM(), units));
        model.addAttribute("vertical", length(brief.verticalM(), units));
        model.addAttribute("due", brief.due().map(Object::toString).orElse(""));
        model.addAttribute(
                "advice",
                Advice.of(brief, units).stream()
                        .map(advice -> row(advice, facts))
                        .toList());
        model.addAttribute(
                "openAdvice",
                Advice.of(brief, units).stream()
                        .map(advice -> row(advice, facts))
                        .filter(row -> row.state().isEmpty())
                        .count());
        model.addAttribute("chain", chain(brief, opened.planned(), units));
        model.addAttribute("difficulties", Site.Difficulty.values());
        model.addAttribute("cropStages", Crop.Stage.values());
        model.addAttribute("cropUses", Crop.Use.values());
        model.addAttribute("plant", length(brief.crop().plantM(), units));
        model.addAttribute(
                "crop",
                brief.purpose()
                        .filter(purpose -> purpose == Purpose.CROP_INDEX || purpose == Purpose.STAND_COUNT)
                        .isPresent());
        opened.planned().whole().map(Planned.Whole::plan).ifPresent(plan -> {
            model.addAttribute("day", day(brief, plan, units));
            model.addAttribute("daylight", daylight(brief, plan));
            model.addAttribute("pack", PackList.of(brief, plan));
            Weighed other = weighed(facts, plan, units);
            model.addAttribute("schools", other.schools());
            model.addAttribute("curve", other.curve());
        });
    }

    private Weighed weighed(BlockFacts facts, BlockPlan plan, UnitChoice units) {
        return Recent.once(
                weighed,
                new Asked(facts, units),
                () -> work.answer(
                        "The comparison",
                        () -> new Weighed(Schools.of(plan, units), curve(facts.brief(), plan, units))));
    }

    /** The light of the day the result is due; of today where no day is given. By the clock of this machine, which is in the field with its operator. */
    private static String daylight(Brief brief, BlockPlan plan) {
        LocalDate day = brief.due().orElseGet(LocalDate::now);
        String when = brief.due().isPresent() ? "On the day it is due, " + day : "Today";
        return "%s: %s."
                .formatted(when, Daylight.words(plan.request().outline().middle(), day, ZoneId.systemDefault()));
    }

    /** How the day is spent, with its sum at the end. */
    private static List<Link> day(Brief brief, BlockPlan plan, UnitChoice units) {
        double flying = plan.flightTimeS() / 60;
        List<Link> lines = new ArrayList<>();
        brief.day()
                .entries(flying, plan.batterySets())
                .forEach(entry ->
                        lines.add(new Link(entry.what(), units.text(UnitKind.DURATION, entry.minutes() * 60))));
        lines.add(new Link(
                "in all, of " + units.text(UnitKind.DURATION, brief.day().dayMinutes() * 60),
                units.text(UnitKind.DURATION, brief.day().totalMinutes(flying, plan.batterySets()) * 60)));
        return lines;
    }

    private static String length(OptionalDouble m, UnitChoice units) {
        if (m.isEmpty()) {
            return "";
        }
        return m.getAsDouble() < 0.5
                ? units.text(UnitKind.GSD, m.getAsDouble())
                : units.text(UnitKind.DISTANCE, m.getAsDouble());
    }

    private static AdviceRow row(Advice advice, BlockFacts facts) {
        Optional<Brief.Ruling> ruling =
                Optional.ofNullable(facts.brief().rulings().get(advice.key()));
        boolean followed = advice.followedBy(facts.brief(), facts.pins());
        String state = followed
                ? "followed"
                : ruling.map(said -> said.accepted() ? advice.changes() ? "" : "noted" : "overruled")
                        .orElse("");
        return new AdviceRow(
                advice.key(),
                advice.label(),
                advice.text(),
                advice.reason(),
                advice.source(),
                state,
                ruling.map(Brief.Ruling::note).orElse(""),
                !advice.pins().isEmpty() ? "Accept and pin" : advice.mode().isPresent() ? "Accept" : "Noted");
    }

    private static List<Link> chain(Brief brief, Planned planned, UnitChoice units) {
        List<Link> chain = new ArrayList<>();
        chain.add(new Link(
                "need",
                brief.smallestM().isPresent()
                        ? length(brief.smallestM(), units)
                        : brief.purpose().map(Purpose::words).orElse("–")));
        Optional<BlockPlan> plan = planned.whole().map(Planned.Whole::plan);
        chain.add(new Link(
                "GSD",
                plan.map(p -> units.text(UnitKind.GSD, p.design().scale().gsdM()))
                        .orElse("–")));
        chain.add(new Link(
                "height",
                plan.map(p -> units.text(UnitKind.HEIGHT, p.design().scale().heightM()))
                        .orElse("–")));
        chain.add(new Link(
                "time",
                plan.map(p -> units.text(UnitKind.DURATION, p.flightTimeS())).orElse("–")));
        chain.add(
                new Link("sets", plan.map(p -> String.valueOf(p.batterySets())).orElse("–")));
        chain.add(new Link(
                "heights to",
                planned.whole().map(whole -> heights(whole, units)).orElse("–")));
        chain.add(new Link(
                "verdict",
                planned.whole()
                        .map(whole -> "%s given enough: %s"
                                .formatted(
                                        Shares.percent(whole.judgement().share()),
                                        whole.judgement().verdict()))
                        .orElse("–")));
        return chain;
    }

    private static String heights(Planned.Whole whole, UnitChoice units) {
        OptionalDouble sigma = whole.judgement().medianHeightSigmaM();
        return sigma.isPresent() ? units.text(UnitKind.GSD, sigma.getAsDouble()) : "not asked";
    }

    /**
     * The plan at one GSD of the curve.
     *
     * @param x of its point, 0..100
     * @param y of its point, 0..100 from the top
     * @param chosen whether it is the plan as it stands
     * @param advised whether the brief's advice lies nearest to it
     */
    public record CurvePoint(
            double x, double y, String gsd, String time, int sets, String heights, boolean chosen, boolean advised) {}

    /** What detail costs on this block: time, sets and accuracy over GSD, each a true plan of it; empty where none can be flown. */
    private static List<CurvePoint> curve(Brief brief, BlockPlan plan, UnitChoice units) {
        double present = plan.design().scale().gsdM();
        OptionalDouble advised = Advice.of(brief, units).stream()
                .filter(advice -> advice.key().equals("gsd"))
                .flatMap(advice -> advice.pins().stream())
                .mapToDouble(pin -> pin.value().si())
                .findFirst();
        List<BlockPlan> plans = DetailCurve.of(plan);
        if (plans.isEmpty()) {
            return List.of();
        }
        double slowest =
                plans.stream().mapToDouble(BlockPlan::flightTimeS).max().orElse(1);
        double least = plans.get(0).design().scale().gsdM();
        double most = plans.get(plans.size() - 1).design().scale().gsdM();
        double nearest = plans.stream()
                .mapToDouble(other -> other.design().scale().gsdM())
                .boxed()
                .min(Comparator.comparingDouble(gsd -> Math.abs(gsd - advised.orElse(Double.NaN))))
                .orElse(Double.NaN);
        return plans.stream()
                .map(other -> {
                    double gsd = other.design().scale().gsdM();
                    double sigma = RuleOfThumb.heightM(gsd, PlanProof.able(plan, brief.positioning()));
                    return new CurvePoint(
                            100 * (gsd - least) / Math.max(1e-9, most - least),
                            100 - 100 * other.flightTimeS() / slowest,
                            units.text(UnitKind.GSD, gsd),
                            units.text(UnitKind.DURATION, other.flightTimeS()),
                            other.batterySets(),
                            units.text(UnitKind.GSD, sigma),
                            Math.abs(gsd - present) < 1e-9,
                            advised.isPresent() && gsd == nearest);
                })
                .toList();
    }
}
