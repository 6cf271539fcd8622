package yalos.web.sorties;

import java.time.Instant;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.OptionalDouble;
import org.springframework.stereotype.Component;
import org.springframework.ui.Model;
import yalos.core.day.DayLight;
import yalos.core.day.DayPlan;
import yalos.core.day.Slot;
import yalos.core.day.Window;
import yalos.core.fault.InputFault;
import yalos.core.geodesy.EastNorth;
import yalos.core.geodesy.LonLat;
import yalos.core.geodesy.PlanePoint;
import yalos.core.kit.Battery;
import yalos.core.light.Daylight;
import yalos.core.light.SameSun;
import yalos.core.light.SunDay;
import yalos.core.plan.BlockPlan;
import yalos.core.sortie.FenceAct;
import yalos.core.sortie.Fences;
import yalos.core.sortie.Homing;
import yalos.core.sortie.LaunchSearch;
import yalos.core.sortie.LinkLoss;
import yalos.core.sortie.LostLink;
import yalos.core.sortie.ReturnHeight;
import yalos.core.sortie.Segments;
import yalos.core.sortie.Sortie;
import yalos.core.sortie.SortieSettings;
import yalos.core.sortie.Sorties;
import yalos.core.units.UnitChoice;
import yalos.core.units.UnitKind;
import yalos.core.weather.Limits;
import yalos.core.weather.Limits.Verdict;
import yalos.core.weather.WeatherHour;
import yalos.core.wind.Wind;
import yalos.web.block.OpenBlock;
import yalos.web.block.Planned;
import yalos.web.block.Stage;
import yalos.web.block.StageBook;
import yalos.web.store.BlockFacts;

/** The field book's page of the Sorties stage: how many, what is left on the worst way home, when; then heights, sight, light, weather, papers. */
@Component
class SortiesBook implements StageBook {

    /** A wind that differs by more is worth planning for. */
    private static final double WIND_OFF_MPS = 1;

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

    /** A line that must be read. */
    public record Warning(String mood, String words) {}

    /** A launch point that can be changed; the block's own has no place in the list. */
    public record LaunchRow(int index, String name, String place, String words) {}

    /** A place that was found, with its reasons. */
    public record SpotRow(String words, String place) {}

    /** An hour of weather as it is shown. */
    public record HourRow(
            int at, String time, String wind, String aloft, String rest, String verdict, String mood, String why) {}

    /** An hour of light. */
    public record LightRow(int minute, String time, String sun, String shaded, String photos) {}

    /** A figure to set on the aircraft. */
    public record SetRow(String what, String figure, String why) {}

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
                .map(Warning::mood)
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
        light(found, facts, plan, units, model);
        windOfDay(found, facts, plan, units, model);
        weather(facts, plan, units, model);
        energy(found, facts, plan, units, model);
        model.addAttribute("warnings", SortieWarnings.of(found, facts, units));
        model.addAttribute("signed", signed(opened.block().id(), facts));
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
                                Percent.minutes(worst.least().seconds())));
        model.addAttribute("total", total(sorties, plan, units));
        gear(sorties, plan, model);
        heights(sorties, facts, found, units, model);
        sight(found, facts, units, model);
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
        return "%s in the air all together, planned for %s.%s"
                .formatted(Percent.minutes(sorties.seconds()), air, strips);
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
                                Percent.pause(Math.max(0, sortie.least().margin()) / hover),
                                Percent.pause(Math.max(0, spareS)),
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
                sorties.launches().size() == 1 ? "" : launchName(facts, sortie.launch()));
    }

    private static String launchName(BlockFacts facts, int index) {
        boolean own = facts.launch().isPresent();
        if (own && index == 0) {
            return "launch point";
        }
        return facts.field().sorties().launches().get(index - (own ? 1 : 0)).name();
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

    /** Return height, fences, and what coming home by itself would meet. */
    private void heights(Sorties sorties, BlockFacts facts, SortieDesk.Found found, UnitChoice units, Model model) {
        SortieSettings settings = facts.field().sorties();
        List<SetRow> rows = new ArrayList<>();
        for (int i = 0; i < sorties.launches().size(); i++) {
            Homing homing = sorties.launches().get(i);
            String from = sorties.launches().size() == 1 ? "" : ", " + launchName(facts, i);
            Optional<ReturnHeight.Needed> needed = sorties.needed(i);
            double above = homing.returnUpM() - homing.takeOffUpM();
            String why = needed.map(one ->
                            "the highest thing on any straight way home stands %s above take-off, on the way from station %d; %s kept"
                                    .formatted(
                                            units.text(
                                                    UnitKind.HEIGHT, one.top().upM() - homing.takeOffUpM()),
                                            one.photo().id(),
                                            units.text(UnitKind.HEIGHT, settings.marginM())))
                    .orElse("no ground is known on the way");
            rows.add(new SetRow("return height" + from, units.text(UnitKind.HEIGHT, above) + " above take-off", why));
            double route = sorties.all().stream()
                    .flatMap(sortie -> sortie.flight().exposures().stream())
                    .mapToDouble(photo -> photo.upM() - homing.takeOffUpM())
                    .max()
                    .orElse(0);
            if (above < route) {
                rows.add(new SetRow(
                        "route" + from,
                        "up to " + units.text(UnitKind.HEIGHT, route),
                        "above the return height: from there it comes home at the height it has"));
            }
            Fences fences = Fences.of(sorties, i);
            rows.add(new SetRow(
                    "distance fence" + from,
                    units.text(UnitKind.DISTANCE, fences.fenceM()),
                    "the farthest place lies %s out; at the fence it %s"
                            .formatted(
                                    units.text(UnitKind.DISTANCE, fences.farthestM()),
                                    settings.fence() == FenceAct.UNKNOWN
                                            ? "does what is still to be tried"
                                            : settings.fence().words())));
            rows.add(new SetRow(
                    "height limit" + from,
                    units.text(UnitKind.HEIGHT, fences.ceilingM()) + " above take-off",
                    "nothing is flown above %s; your legal ceiling counts above the ground below, and comes first"
                            .formatted(units.text(UnitKind.HEIGHT, fences.highestM()))));
            fences.lowestNear()
                    .ifPresent(low -> rows.add(new SetRow(
                            "lowest over “" + low.zone() + "”",
                            units.text(UnitKind.HEIGHT, low.aboveM()),
                            "above ground and what stands there")));
        }
        rows.add(new SetRow(
                "climb-out",
                units.text(
                        UnitKind.HEIGHT,
                        sorties.launches().get(0).returnUpM()
                                - sorties.launches().get(0).takeOffUpM()),
                "straight up to the return height before it leaves the launch point"));
        model.addAttribute("toSet", rows);
        losses(found, settings, units, model);
    }

    private static void losses(SortieDesk.Found found, SortieSettings settings, UnitChoice units, Model model) {
        if (found.losses().isEmpty()) {
            return;
        }
        Optional<LinkLoss> nearest = LinkLoss.nearest(found.losses());
        String clear = nearest.map(loss -> "coming home clears everything by %s or more (from strip %d)"
                        .formatted(units.text(UnitKind.HEIGHT, loss.clearanceM()), loss.number()))
                .orElse("what lies on the way home is not known");
        model.addAttribute(
                "lost",
                "At a lost link it %s; %s.".formatted(settings.lostLink().words(), clear));
        model.addAttribute(
                "lostStrips",
                found.losses().stream()
                        .map(loss -> "strip %d: clear by %s, may hang for %s%s%s"
                                .formatted(
                                        loss.number(),
                                        Double.isNaN(loss.clearanceM())
                                                ? "nobody knows what"
                                                : units.text(UnitKind.HEIGHT, loss.clearanceM()),
                                        Percent.pause(loss.pauseS()),
                                        loss.crossed().isEmpty()
                                                ? ""
                                                : ", straight home crosses " + String.join(", ", loss.crossed()),
                                        loss.below().isEmpty()
                                                ? ""
                                                : ", stands over " + String.join(", ", loss.below())))
                        .toList());
    }

    private static void sight(SortieDesk.Found found, BlockFacts facts, UnitChoice units, Model model) {
        found.sight().ifPresent(sight -> {
            double hidden = sight.hiddenShare();
            model.addAttribute(
                    "sight",
                    "%s of the way is in sight%s; farthest %s, where the aircraft looks %s′ wide."
                            .formatted(
                                    Percent.margin(1 - hidden),
                                    facts.field().sorties().pilot().isPresent()
                                            ? " from the pilot's place"
                                            : " from the launch point",
                                    units.text(UnitKind.DISTANCE, sight.farthestM()),
                                    String.format(Locale.ROOT, "%.1f", sight.arcMinutes())));
            model.addAttribute(
                    "radio",
                    "The radio line is clear on %s of it.".formatted(Percent.margin(1 - sight.radioPoorShare())));
        });
    }

    private static String segments(Segments parts, UnitChoice units) {
        Segments.Option scan = parts.scan();
        Segments.Option own = parts.segments();
        boolean more = parts.scan().sorties() > Segments.FROM;
        return "One scan with changes from here: %d sorties, %s in the air, %s on the ground, farthest %s. Segments with a strip in common, each from the best of the places above: %d sorties, %s in the air, %s on the ground, farthest %s, %d photos more.%s"
                .formatted(
                        scan.sorties(),
                        Percent.minutes(scan.seconds()),
                        Percent.minutes(scan.groundS()),
                        units.text(UnitKind.DISTANCE, scan.farthestM()),
                        own.sorties(),
                        Percent.minutes(own.seconds()),
                        Percent.minutes(own.groundS()),
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
                        Percent.minutes(spot.seconds()),
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

    private static void light(SortieDesk.Found found, BlockFacts facts, BlockPlan plan, UnitChoice units, Model model) {
        Optional<DayLight> light = found.light();
        if (light.isEmpty()) {
            return;
        }
        DayLight day = light.get();
        ZoneId zone = day.zone();
        LonLat place = plan.request().outline().middle();
        model.addAttribute("sunWords", upAndDown(day) + Daylight.words(place, day.date(), zone));
        model.addAttribute(
                "shades", day.hours().stream().map(SortiesBook::lightRow).toList());
        List<Slot> slots = SortieDesk.slots(facts, plan, found, units);
        double needed = found.sorties()
                .map(sorties -> sorties.seconds() / 60
                        + facts.field().day().changeMin() * (sorties.all().size() - 1))
                .orElse(30.0);
        List<Window> windows = Window.best(slots, needed);
        model.addAttribute(
                "windows", windows.stream().map(one -> window(one, units)).toList());
        model.addAttribute(
                "bestWindow",
                windows.isEmpty()
                        ? "no hour of this day serves"
                        : "best %s to %s"
                                .formatted(
                                        DayPlan.clock(windows.get(0).from()),
                                        DayPlan.clock(windows.get(0).to())));
        facts.field().day().earlier().ifPresent(earlier -> {
            Instant then = earlier.atZone(zone).toInstant();
            model.addAttribute(
                    "sameSun",
                    SameSun.of(place, then, day.date())
                            .map(same -> sameSun(same, zone))
                            .orElse("The sun was down on that flight, or stays down on this day."));
        });
    }

    /** Sunrise, sunset and how long the sun is high enough; nothing where it does not rise. */
    private static String upAndDown(DayLight day) {
        SunDay sun = day.sun();
        if (sun.alwaysDown()) {
            return "";
        }
        String up = sun.alwaysUp()
                ? "the sun does not set; "
                : String.format(
                        Locale.ROOT,
                        "sunrise %s, sunset %s; ",
                        sun.rise().map(at -> DayPlan.clock(day.minute(at))).orElse("–"),
                        sun.set().map(at -> DayPlan.clock(day.minute(at))).orElse("–"));
        return up;
    }

    private static String sameSun(SameSun same, ZoneId zone) {
        String at = String.format(Locale.ROOT, "%tR", same.at().atZone(zone));
        String stood = String.format(
                Locale.ROOT,
                "%.0f° high in %03.0f°",
                Math.toDegrees(same.before().elevationRad()),
                Math.toDegrees(same.before().azimuthRad()));
        return same.asHigh()
                ? String.format(
                        Locale.ROOT,
                        "The same sun at %s: it stood %s, then stands as high, %.0f° further %s.",
                        at,
                        stood,
                        Math.abs(Math.toDegrees(same.turnedRad())),
                        same.turnedRad() >= 0 ? "to the right" : "to the left")
                : String.format(
                        Locale.ROOT,
                        "The sun stood %s; on this day it gets no higher than %.0f°, at %s.",
                        stood,
                        Math.toDegrees(same.then().elevationRad()),
                        at);
    }

    private static LightRow lightRow(DayLight.Hour hour) {
        return new LightRow(
                hour.minute(),
                DayPlan.clock(hour.minute()),
                String.format(Locale.ROOT, "%.0f°", Math.toDegrees(hour.sun().elevationRad())),
                Percent.of(hour.shaded()),
                hour.photos().hotSpots() + hour.photos().glints() == 0
                        ? "–"
                        : Percent.of(hour.photos().hotSpots()) + " / "
                                + Percent.of(hour.photos().glints()));
    }

    private static Warning window(Window window, UnitChoice units) {
        String sun = String.format(
                Locale.ROOT,
                "sun %.0f° to %.0f°",
                Math.max(0, Math.toDegrees(window.lowestRad())),
                Math.toDegrees(window.highestRad()));
        String wind = Double.isNaN(window.windMps())
                ? "weather not known"
                : "wind up to " + units.text(UnitKind.SPEED, window.windMps());
        return new Warning(
                window.verdict() == Verdict.GO ? "done" : "mind",
                "%s to %s%s: %s, %s%s"
                        .formatted(
                                DayPlan.clock(window.from()),
                                DayPlan.clock(window.to()),
                                window.fits() ? "" : ", too short for all of it",
                                sun,
                                wind,
                                window.reasons().isEmpty() ? "" : "; mind " + String.join(", ", window.reasons())));
    }

    /** The strongest wind of the hours in which sorties are flown, beside the one that is planned for. */
    private static void windOfDay(
            SortieDesk.Found found, BlockFacts facts, BlockPlan plan, UnitChoice units, Model model) {
        if (found.light().isEmpty() || found.sorties().isEmpty()) {
            return;
        }
        List<Slot> slots = SortieDesk.slots(facts, plan, found, units);
        DayPlan.Given given = DayController.given(facts, found, slots);
        DayController.windiest(DayPlan.of(given, DayController.start(facts, found, given)), facts)
                .ifPresent(hour -> {
                    double aloft = hour.aloftMps(SortieDesk.limits(facts, plan).heightM())
                            .orElse(0);
                    double planned =
                            plan.timeline().pace().wind().map(Wind::speedMps).orElse(0.0);
                    if (Math.abs(aloft - planned) > WIND_OFF_MPS && aloft >= Wind.NEGLIGIBLE_MPS) {
                        model.addAttribute(
                                "windHour",
                                "Of the hours flown %s has most wind, %s at flying height; the plan stands for %s."
                                        .formatted(
                                                String.format(Locale.ROOT, "%tR", hour.at()),
                                                units.text(UnitKind.SPEED, aloft),
                                                planned == 0 ? "still air" : units.text(UnitKind.SPEED, planned)));
                        model.addAttribute("windHourAt", hour.at().toString());
                    }
                });
    }

    private static void weather(BlockFacts facts, BlockPlan plan, UnitChoice units, Model model) {
        Limits limits = SortieDesk.limits(facts, plan);
        List<HourRow> rows = new ArrayList<>();
        List<WeatherHour> hours = facts.field().day().weather();
        for (int i = 0; i < hours.size(); i++) {
            WeatherHour hour = hours.get(i);
            if (!hour.at().toLocalDate().equals(SortieDesk.date(facts))) {
                continue;
            }
            Limits.Judged judged = limits.judge(hour, SortieDesk.needs(facts).sky(), units);
            rows.add(new HourRow(
                    i,
                    String.format(Locale.ROOT, "%tR", hour.at()),
                    shown(hour.windMps(), UnitKind.SPEED, units)
                            + (hour.gustMps().isPresent()
                                    ? " / "
                                            + units.figure(
                                                    UnitKind.SPEED,
                                                    hour.gustMps().getAsDouble())
                                    : ""),
                    shown(hour.aloftMps(limits.heightM()), UnitKind.SPEED, units),
                    shown(hour.airK(), UnitKind.TEMPERATURE, units)
                            + (hour.cloud().isPresent()
                                    ? ", " + Percent.of(hour.cloud().getAsDouble())
                                    : ""),
                    judged.verdict().words(),
                    judged.verdict().name().toLowerCase(Locale.ROOT),
                    String.join(", ", judged.reasons())));
        }
        model.addAttribute("hours", rows);
        model.addAttribute("otherDays", hours.size() - rows.size());
        model.addAttribute(
                "limitWords",
                "Limits: wind %s, gusts %s, no colder than %s, sight %s; the aircraft's own %s."
                        .formatted(
                                units.text(UnitKind.SPEED, limits.windMps()),
                                units.text(UnitKind.SPEED, limits.gustMps()),
                                units.text(UnitKind.TEMPERATURE, limits.coldK()),
                                units.text(UnitKind.LENGTH, limits.visibilityM()),
                                units.text(UnitKind.SPEED, facts.aircraft().windLimitMps())));
    }

    private static String shown(OptionalDouble figure, UnitKind kind, UnitChoice units) {
        return figure.isPresent() ? units.text(kind, figure.getAsDouble()) : "–";
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

    private String signed(long block, BlockFacts facts) {
        long all = facts.field().day().papers().checks().size();
        long done = PapersController.open(
                        fleet.signatures(block), facts.field().day().papers())
                .stream()
                .filter(PapersController.Line::signed)
                .count();
        return done + " of " + all + " lines signed";
    }

    /** Refuses in a sentence what is no number of the list. */
    static <T> T at(List<T> list, int index, String field) {
        if (index < 0 || index >= list.size()) {
            throw new InputFault(field, index, "It is gone already; reload the page.");
        }
        return list.get(index);
    }
}
