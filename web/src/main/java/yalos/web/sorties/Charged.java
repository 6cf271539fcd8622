package yalos.web.sorties;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import yalos.core.kit.Battery;
import yalos.core.pins.Defaults;
import yalos.core.pins.Quantity;
import yalos.core.sortie.Packs;
import yalos.core.sortie.Packs.Pack;
import yalos.core.sortie.Sortie;
import yalos.core.sortie.Sorties;

/**
 * The battery of a sortie, and what its gauge will show.
 *
 * @param name of the battery; empty for one of the kit's sets
 * @param charge at take-off, as its gauge shows it, 0..1
 * @param left at landing, 0..1
 * @param marginAtWorst what its gauge would show over the reserve if it turned home at the worst moment
 */
public record Charged(String name, double charge, double left, double marginAtWorst) {

    /** The best battery to the sortie that takes most, round by round where there are fewer batteries than sorties. */
    public static List<Charged> of(Sorties sorties, List<Pack> packs) {
        Battery battery = sorties.given().plan().request().aircraft().battery();
        double air = sorties.given().plan().request().pins().siOr(Quantity.TEMPERATURE, Defaults.TEMPERATURE_K);
        double cold = Battery.capacity(air);
        List<Sortie> all = sorties.all();
        Charged[] charged = new Charged[all.size()];
        if (packs.isEmpty()) {
            double charge = sorties.given().settings().charge();
            for (int i = 0; i < charged.length; i++) {
                charged[i] = shown("", charge, cold, all.get(i), battery);
            }
            return List.of(charged);
        }
        double own = battery.measured().isPresent() ? 1 : battery.health();
        List<Pack> best = new ArrayList<>(packs);
        best.sort(
                Comparator.comparingDouble(pack -> -Packs.usable(battery, pack.capacity() / own, pack.charge(), air)));
        best = best.subList(0, Math.min(best.size(), sorties.batteries()));
        for (int from = 0; from < all.size(); from += best.size()) {
            List<Sortie> round = new ArrayList<>(all.subList(from, Math.min(all.size(), from + best.size())));
            round.sort(Comparator.comparingDouble(sortie -> -sortie.taken()));
            for (int i = 0; i < round.size(); i++) {
                Pack pack = best.get(i);
                // In a second round it has been charged again.
                double charge = from == 0 ? pack.charge() : 1;
                charged[round.get(i).number() - 1] =
                        shown(pack.name(), charge, cold * pack.capacity() / own, round.get(i), battery);
            }
        }
        return List.of(charged);
    }

    private static Charged shown(String name, double charge, double holds, Sortie sortie, Battery battery) {
        double left = charge - sortie.taken() / holds;
        double worst = (sortie.least().margin() - sortie.usable()) / holds + charge - battery.reserve();
        return new Charged(name, charge, left, worst);
    }
}
