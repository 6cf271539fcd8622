package yalos.web.sorties;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import org.springframework.ui.Model;
import yalos.core.sortie.FenceAct;
import yalos.core.sortie.Fences;
import yalos.core.sortie.Homing;
import yalos.core.sortie.LinkLoss;
import yalos.core.sortie.ReturnHeight;
import yalos.core.sortie.SortieSettings;
import yalos.core.sortie.Sorties;
import yalos.core.units.Times;
import yalos.core.units.UnitChoice;
import yalos.core.units.UnitKind;
import yalos.web.store.BlockFacts;

/** What is set on the aircraft before take-off, what coming home by itself meets, and what the pilot sees of it. */
final class ReadBack {
    private ReadBack() {}

    /** A figure to set on the aircraft. */
    public record SetRow(String what, String figure, String why) {}

    /** Return height, fences, and what coming home by itself would meet. */
    static void heights(Sorties sorties, BlockFacts facts, SortieDesk.Found found, UnitChoice units, Model model) {
        SortieSettings settings = facts.field().sorties();
        List<SetRow> rows = new ArrayList<>();
        for (int i = 0; i < sorties.launches().size(); i++) {
            Homing homing = sorties.launches().get(i);
            String from = sorties.launches().size() == 1 ? "" : ", " + Listed.launchName(facts, i);
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
                                        Times.pause(loss.pauseS()),
                                        loss.crossed().isEmpty()
                                                ? ""
                                                : ", straight home crosses " + String.join(", ", loss.crossed()),
                                        loss.below().isEmpty()
                                                ? ""
                                                : ", stands over " + String.join(", ", loss.below())))
                        .toList());
    }

    static void sight(SortieDesk.Found found, BlockFacts facts, UnitChoice units, Model model) {
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
}
