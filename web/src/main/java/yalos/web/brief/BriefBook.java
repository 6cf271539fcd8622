package yalos.web.brief;

import java.util.ArrayList;
import java.util.List;
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
import yalos.core.plan.BlockPlan;
import yalos.core.units.UnitChoice;
import yalos.core.units.UnitKind;
import yalos.web.block.Planned;
import yalos.web.block.Stage;
import yalos.web.block.StageBook;
import yalos.web.store.BlockFacts;

/** The field book's page of the Brief stage. */
@Component
class BriefBook implements StageBook {

    /** One piece of advice; {@code state} is {@code followed}, {@code accepted}, {@code overruled} or empty. */
    public record AdviceRow(
            String key,
            String label,
            String text,
            String reason,
            String source,
            String state,
            String note,
            boolean pins) {}

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
            model.addAttribute("pack", PackList.of(brief, plan));
            model.addAttribute("schools", Schools.of(plan, units));
        });
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
                "in all, of %.1f h".formatted(brief.day().dayMinutes() / 60),
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
        boolean followed = advice.followedBy(facts.pins());
        String state = followed
                ? "followed"
                : ruling.map(said -> said.accepted() ? advice.pins().isEmpty() ? "accepted" : "" : "overruled")
                        .orElse("");
        return new AdviceRow(
                advice.key(),
                advice.label(),
                advice.text(),
                advice.reason(),
                advice.source(),
                state,
                ruling.map(Brief.Ruling::note).orElse(""),
                !advice.pins().isEmpty());
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
        chain.add(new Link(
                "battery sets", plan.map(p -> String.valueOf(p.batterySets())).orElse("–")));
        return chain;
    }
}
