package yalos.web.sorties;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import org.springframework.stereotype.Component;
import org.springframework.ui.Model;
import yalos.core.day.Slot;
import yalos.core.geodesy.EastNorth;
import yalos.core.geodesy.LonLat;
import yalos.core.geodesy.PlanePoint;
import yalos.core.kit.Battery;
import yalos.core.plan.BlockPlan;
import yalos.core.sortie.FenceAct;
import yalos.core.sortie.LaunchSearch;
import yalos.core.sortie.LostLink;
import yalos.core.sortie.Segments;
import yalos.core.sortie.Sortie;
import yalos.core.sortie.SortieSettings;
import yalos.core.sortie.Sorties;
import yalos.core.units.Times;
import yalos.core.units.UnitChoice;
import yalos.core.units.UnitKind;
import yalos.core.wind.Wind;
import yalos.web.block.OpenBlock;
import yalos.web.block.Planned;
import yalos.web.block.Stage;
import yalos.web.block.StageBook;
import yalos.web.store.BlockFacts;

/** The field book's page of the Sorties stage: how many, what is left on the worst way home, when; then heights, sight, light, weather, papers. */
@Component
public class SortiesBook implements StageBook {

    private final SortieDesk desk;
    private final Fleet fleet;

    SortiesBook(SortieDesk desk, Fleet fleet) {
        this.desk = desk;
        this.fleet = fleet;
    }

    /** One sortie in the table. */
    public record Row(
            int number,
            String stations,
            int photos,
            String time,
            String battery,
            String left,
            String margin,
            String mood,
            String more,
            String launch) {}

    /** A launch point that can be changed; the block's own has no place in the list. */
    public record LaunchRow(int index, String name, String place, String words) {}

    /** A place that was found, with its reasons. */
    public record SpotRow(String words, String place) {}

    @Override
    public Stage stage() {
        return Stage.SORTIES;
    }

    @Override
    public Optional<Standing> standing(OpenBlock block, Planned planned) {
        Optional<SortieDesk.Found> found = desk.known(block.facts());
        if (found.isEmpty()) {
            return Optional.of(new Standing("not cut yet", ""));
        }
        String worst = SortieWarnings.of(found.get(), block.facts(), UnitChoice.METRIC).stream()
                .map(Warned::mood)
                .min(Comparator.comparing(mood -> !mood.equals("stop")))
                .orElse("done");
        return Optional.of(found.get()
                .sorties()
                .map(sorties -> sorties.all().size())
                .map(count -> new Standing(count == 1 ? "1 sortie" : count + " sorties", worst))
                .orElse(new Standing("cannot be flown", "stop")));
    }

    @Override
    public void fill(Opened opened, Model model) {
        BlockFacts facts = opened.block().facts();
        UnitChoice units = opened.units();
        model.addAttribute("settings", facts.field().sorties());
        model.addAttribute("typedSorties", TypedSettings.of(facts, units));
        model.addAttribute("acts", FenceAct.values());
        model.addAttribute("losses", LostLink.values());
        model.addAttribute("day", facts.field().day());
        model.addAttribute("date", SortieDesk.date(facts));
        model.addAttribute("dateSet", facts.field().day().date().isPresent());
        model.addAttribute("sorties", List.of());
        model.addAttribute("warnings", List.of());
        opened.planned().whole().map(Planned.Whole::plan).ifPresent(plan -> planned(opened, plan, facts, units, model));
    }

    private void planned(Opened opened, BlockPlan plan, BlockFacts facts, UnitChoice units, Model model) {
        SortieDesk.Found found = desk.of(opened.block().id(), facts, plan);
        model.addAttribute("running", found.running());
        model.addAttribute("step", found.step());
        model.addAttribute("whyNot", found.fault());
        found.sorties().ifPresent(sorties -> cut(sorties, found, plan, facts, units, model));
        model.addAttribute("launches", launches(facts, plan, found, units));
        model.addAttribute(
                "spots",
                found.spots().stream().map(spot -> spot(spot, plan, units)).toList());
        List<Slot> slots = SortieDesk.slots(facts, plan, found, units);
        SkyView.light(found, facts, plan, slots, units, model);
        SkyView.windOfDay(found, facts, plan, slots, units, model);
        SkyView.weather(facts, plan, units, model);
        energy(found, facts, plan, units, model);
        model.addAttribute("warnings", SortieWarnings.of(found, facts, units));
    }

    private void cut(
            Sorties sorties, SortieDesk.Found found, BlockPlan plan, BlockFacts facts, UnitChoice units, Model model) {
        List<Charged> charged = Charged.of(sorties, found.packs());
        List<Row> rows = new ArrayList<>();
        for (Sortie sortie : sorties.all()) {
            rows.add(row(sortie, charged.get(sortie.number() - 1), sorties, facts, units));
        }
        int count = rows.size();
        Sortie worst = sorties.all().stream()
                .min(Comparator.comparingDouble(
                        sortie -> charged.get(sortie.number() - 1).marginAtWorst()))
                .orElseThrow();
        Charged worstCharge = charged.get(worst.number() - 1);
        model.addAttribute("sorties", rows);
        model.addAttribute("headline", count == 1 ? "1 sortie" : count + " sorties");
        model.addAttribute(
                "leastMargin",
                "least margin home %s, in sortie %d after %s"
                        .formatted(
                                Percent.margin(worstCharge.marginAtWorst()),
                                worst.number(),
                                Times.minutes(worst.least().seconds())));
        model.addAttribute("total", total(sorties, plan, units));
        gear(sorties, plan, model);
        ReadBack.heights(sorties, facts, found, units, model);
        ReadBack.sight(found, facts, units, model);
        found.segments().ifPresent(parts -> model.addAttribute("segments", segments(parts, units)));
    }

    private static String total(Sorties sorties, BlockPlan plan, UnitChoice units) {
        Optional<Wind> wind = plan.timeline().pace().wind();
        String air = wind.map(blowing -> "a wind of %s from %s at flying height"
                        .formatted(
                                units.text(UnitKind.SPEED, blowing.speedMps()),
                                units.text(
                                        UnitKind.ANGLE,
                                        blowing.fromRad() + plan.block().plane().convergenceRad())))
                .orElse("still air; pin the day's wind in Strips");
        int byMinutes = plan.batterySets();
        String strips = byMinutes == sorties.all().size() || byMinutes == 0
                ? ""
                : " Strips counts %d by minutes; energy, the ways home and these batteries make it %d."
                        .formatted(byMinutes, sorties.all().size());
        return "%s in the air all together, planned for %s.%s".formatted(Times.minutes(sorties.seconds()), air, strips);
    }

    private static Row row(Sortie sortie, Charged charged, Sorties sorties, BlockFacts facts, UnitChoice units) {
        double hover = sorties.given().draw().vertical(0);
        Battery battery = facts.aircraft().battery();
        double spareS = sortie.spare()
                / sorties.given().draw().level(sorties.given().plan().design().speedMps());
        String repeated = sortie.repeated() == 0
                ? ""
                : " It takes the last %d stations before the cut again.".formatted(sortie.repeated());
        String more =
                "%s of the battery used. It may stop for %s at the worst place and still come home; room for %s of pictures besides, the reserve untouched.%s"
                        .formatted(
                                Percent.of(charged.charge() - charged.left()),
                                Times.pause(Math.max(0, sortie.least().margin()) / hover),
                                Times.pause(Math.max(0, spareS)),
                                repeated);
        String storage = units.text(UnitKind.DATA, sorties.bytes(sortie));
        return new Row(
                sortie.number(),
                (sortie.start() + 1) + "–" + (sortie.to() + 1),
                sortie.photos(),
                units.text(UnitKind.DURATION, sortie.seconds()),
                charged.name().isEmpty()
                        ? Percent.of(charged.charge())
                        : charged.name() + ", " + Percent.of(charged.charge()),
                Percent.margin(charged.left()),
                Percent.margin(charged.marginAtWorst()),
                charged.left() < battery.reserve() - 1e-6 ? "stop" : "done",
                more + " " + storage + ".",
                sorties.launches().size() == 1 ? "" : Listed.launchName(facts, sortie.launch()));
    }

    /** What cards take, and what is the same between sorties. */
    private static void gear(Sorties sorties, BlockPlan plan, Model model) {
        int count = sorties.all().size();
        double card = plan.cardShare();
        int cards = (int) Math.max(1, Math.ceil(card));
        model.addAttribute(
                "cards",
                "%d card%s for all of it, filled to %s%s."
                        .formatted(
                                cards,
                                cards == 1 ? "" : "s",
                                Percent.of(card / cards),
                                count > 1 ? "; one card a sortie loses less when one fails" : ""));
        if (count > 1) {
            model.addAttribute(
                    "between",
                    "Between sorties: same take-off place and heading, same home point, gauge read, card looked at.");
        }
    }

    private static String segments(Segments parts, UnitChoice units) {
        Segments.Option scan = parts.scan();
        Segments.Option own = parts.segments();
        boolean more = parts.scan().sorties() > Segments.FROM;
        return "One scan with changes from here: %d sorties, %s in the air, %s on the ground, farthest %s. Segments with a strip in common, each from the best of the places above: %d sorties, %s in the air, %s on the ground, farthest %s, %d photos more.%s"
                .formatted(
                        scan.sorties(),
                        Times.minutes(scan.seconds()),
                        Times.minutes(scan.groundS()),
                        units.text(UnitKind.DISTANCE, scan.farthestM()),
                        own.sorties(),
                        Times.minutes(own.seconds()),
                        Times.minutes(own.groundS()),
                        units.text(UnitKind.DISTANCE, own.farthestM()),
                        parts.photosMore(),
                        more ? " Beyond four batteries practitioners part the block." : "");
    }

    private static List<LaunchRow> launches(
            BlockFacts facts, BlockPlan plan, SortieDesk.Found found, UnitChoice units) {
        List<LaunchRow> rows = new ArrayList<>();
        List<SortieSettings.Launch> more = facts.field().sorties().launches();
        boolean own = facts.launch().isPresent();
        for (int i = 0; i < more.size(); i++) {
            int launch = i + (own ? 1 : 0);
            String words = found.sorties()
                    .map(sorties -> {
                        List<String> flown = sorties.all().stream()
                                .filter(sortie -> sortie.launch() == launch)
                                .map(sortie -> String.valueOf(sortie.number()))
                                .toList();
                        return flown.isEmpty() ? "no sortie needs it" : "sorties " + String.join(", ", flown);
                    })
                    .orElse("");
            rows.add(
                    new LaunchRow(i, more.get(i).name(), typed(plan, more.get(i).place()), words));
        }
        return rows;
    }

    static String typed(BlockPlan plan, LonLat place) {
        EastNorth at = plan.block().plane().grid().toGrid(place);
        return String.format(Locale.ROOT, "%.2f %.2f", at.east(), at.north());
    }

    private static SpotRow spot(LaunchSearch.Spot spot, BlockPlan plan, UnitChoice units) {
        PlanePoint at = spot.at();
        String level = Math.abs(spot.levelM()) < 1
                ? ""
                : ", %s %s the block's mean"
                        .formatted(
                                units.text(UnitKind.HEIGHT, Math.abs(spot.levelM())),
                                spot.levelM() > 0 ? "above" : "below");
        String words = "%d sortie%s, about %s in the air; %s in sight, farthest %s; slope %.0f°%s%s%s"
                .formatted(
                        spot.sorties(),
                        spot.sorties() == 1 ? "" : "s",
                        Times.minutes(spot.seconds()),
                        Percent.margin(spot.seen()),
                        units.text(UnitKind.DISTANCE, spot.farthestM()),
                        Math.toDegrees(spot.slopeRad()),
                        level,
                        spot.roomM() < 200
                                ? "; " + units.text(UnitKind.DISTANCE, spot.roomM()) + " from what stands there"
                                : "",
                        spot.zoneM() < 200
                                ? "; " + units.text(UnitKind.DISTANCE, spot.zoneM()) + " from a zone or traffic"
                                : "");
        return new SpotRow(words, typed(plan, plan.block().plane().toLonLat(at.xM(), at.yM())));
    }

    private void energy(SortieDesk.Found found, BlockFacts facts, BlockPlan plan, UnitChoice units, Model model) {
        found.draw().ifPresent(draw -> {
            model.addAttribute("reasons", draw.reasons(units));
            model.addAttribute("curve", EnergyCharts.curve(draw, plan, units));
            model.addAttribute(
                    "speeds",
                    "Mapping at %s it draws %.1f %% a minute; hovering %.1f %%; longest in the air at %s, farthest at %s."
                            .formatted(
                                    units.text(UnitKind.SPEED, plan.design().speedMps()),
                                    6000 * draw.level(plan.design().speedMps()),
                                    6000 * draw.vertical(0),
                                    units.text(UnitKind.SPEED, draw.slowMps()),
                                    units.text(
                                            UnitKind.SPEED,
                                            draw.farthestMps(facts.aircraft().maxSpeedMps()))));
        });
        int named = fleet.batteries().size();
        model.addAttribute("named", named == 0 ? "no battery has a name yet" : named + " named");
    }
}
