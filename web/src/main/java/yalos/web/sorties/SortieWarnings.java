package yalos.web.sorties;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import java.util.function.Function;
import yalos.core.sortie.FenceAct;
import yalos.core.sortie.Homing;
import yalos.core.sortie.LinkLoss;
import yalos.core.sortie.LostLink;
import yalos.core.sortie.Sight;
import yalos.core.sortie.SortieSettings;
import yalos.core.sortie.Sorties;
import yalos.core.units.UnitChoice;
import yalos.core.units.UnitKind;
import yalos.web.store.BlockFacts;

/** What can hurt, or cost the day, of a block's sorties; the gravest first. */
final class SortieWarnings {
    /** Below it a battery is charged before it goes to the field (common practice). */
    private static final double FULL = 0.9;

    /** Of the way; more of it unseen needs an observer. */
    private static final double DARK = 0.02;

    private static final double SMALL_ARC_MIN = 3;

    private final SortieDesk.Found found;
    private final BlockFacts facts;
    private final UnitChoice units;
    private final SortieSettings settings;
    private final List<Warned> said = new ArrayList<>();

    private SortieWarnings(SortieDesk.Found found, BlockFacts facts, UnitChoice units) {
        this.found = found;
        this.facts = facts;
        this.units = units;
        this.settings = facts.field().sorties();
    }

    static List<Warned> of(SortieDesk.Found found, BlockFacts facts, UnitChoice units) {
        SortieWarnings warnings = new SortieWarnings(found, facts, units);
        found.sorties().ifPresent(sorties -> {
            warnings.batteries(sorties);
            warnings.launches(sorties);
            warnings.machine();
            warnings.home();
            found.sight().ifPresent(warnings::sight);
        });
        warnings.said.sort(Comparator.comparing(warning -> !warning.mood().equals("stop")));
        return List.copyOf(warnings.said);
    }

    private void stop(String words) {
        said.add(new Warned("stop", words));
    }

    private void mind(String words) {
        said.add(new Warned("mind", words));
    }

    private void batteries(Sorties sorties) {
        int sets = sorties.batteries();
        int all = sorties.given().usable().size();
        int count = sorties.all().size();
        if (count > sets && facts.field().day().chargers() > 0) {
            mind("%d sorties and %d battery sets: the day waits for charging.".formatted(count, sets));
        } else if (count > sets) {
            stop("%d sorties and %d battery sets: nothing charges on site. Bring more, or set a charger below."
                    .formatted(count, sets));
        } else if (count == all) {
            mind("Every battery set is needed; none is spare.");
        }
        Charged.of(sorties, found.packs()).stream()
                .filter(one -> one.charge() < FULL)
                .findFirst()
                .ifPresent(low -> mind("%s is at %s at take-off; practitioners fly with 90 %% or more."
                        .formatted(
                                low.name().isEmpty() ? "The battery" : "Battery " + low.name(),
                                Percent.of(low.charge()))));
    }

    private void launches(Sorties sorties) {
        for (int i = 0; i < sorties.launches().size(); i++) {
            int number = i + 1;
            Homing homing = sorties.launches().get(i);
            sorties.forbidding(i)
                    .forEach(zone -> stop("Launch point %d lies in “%s”, where nobody may fly. Move it."
                            .formatted(number, zone.name())));
            double above = homing.returnUpM() - homing.takeOffUpM();
            sorties.needed(i)
                    .filter(one -> above < one.aboveTakeOffM() - 0.5)
                    .ifPresent(one -> stop(
                            "Return height %s clears what stands on the way home by %s only; %s would keep the margin."
                                    .formatted(
                                            units.text(UnitKind.HEIGHT, above),
                                            units.text(
                                                    UnitKind.HEIGHT,
                                                    homing.returnUpM()
                                                            - one.top().upM()),
                                            units.text(UnitKind.HEIGHT, one.aboveTakeOffM()))));
        }
    }

    private void machine() {
        if (settings.fence() == FenceAct.UNKNOWN) {
            mind(
                    "Nobody has tried yet what this aircraft does at its distance fence: stop or come home. Try it on site.");
        }
        if (!settings.satellites()) {
            stop(
                    "Flown without satellite positioning: no return home by itself, no fences, no stations by position. Fly by hand and in sight, or not at all.");
        }
    }

    private void home() {
        List<String> crossed = named(LinkLoss::crossed);
        if (!crossed.isEmpty() && settings.lostLink() != LostLink.LAND) {
            stop("Coming home by itself it flies straight over %s. The plan goes round; the aircraft will not."
                    .formatted(String.join(" and ", crossed)));
        }
        List<String> below = named(LinkLoss::below);
        if (settings.lostLink() == LostLink.LAND && !below.isEmpty()) {
            stop("Set to land where it is, it would come down on %s.".formatted(String.join(" or ", below)));
        }
    }

    private List<String> named(Function<LinkLoss, List<String>> of) {
        return found.losses().stream()
                .flatMap(loss -> of.apply(loss).stream())
                .distinct()
                .toList();
    }

    private void sight(Sight sight) {
        double hidden = sight.hiddenShare();
        if (hidden > 0) {
            Optional<String> observer = sight.observer()
                    .map(one -> "; an observer at the eye on the sheet sees %s of that."
                            .formatted(Percent.margin(one.sees())));
            said.add(new Warned(
                    hidden > DARK ? "stop" : "mind",
                    (hidden < 0.005 ? "A little" : Percent.of(hidden))
                            + " of the way is out of the pilot's sight"
                            + observer.orElse(".")));
        }
        if (sight.arcMinutes() > 0 && sight.arcMinutes() < SMALL_ARC_MIN) {
            mind(
                    "At its farthest the aircraft is %.1f minutes of arc wide: a speck whose way it points nobody sees. Keep nearer, or say so to the observer."
                            .formatted(sight.arcMinutes()));
        }
    }
}
