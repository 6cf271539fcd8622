package yalos.core.sortie;

import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import yalos.core.kit.Battery;
import yalos.core.pins.Defaults;
import yalos.core.pins.Quantity;
import yalos.core.plan.BlockPlan;

/** What batteries have for a sortie, their reserve untouched, as shares of a full one of the kit at 20 °C. */
public final class Packs {
    private Packs() {}

    /**
     * A battery with a name.
     *
     * @param name written on it
     * @param cycles so far
     * @param capacity measured share of what it held when new, 0..1
     * @param charge now, 0..1
     */
    public record Pack(String name, int cycles, double capacity, double charge) {}

    /** For each battery set, the best first: the named ones, or as many as the kit carries. */
    public static List<Double> usable(BlockPlan plan, SortieSettings settings, List<Pack> packs) {
        Battery battery = plan.request().aircraft().battery();
        double air = plan.request().pins().siOr(Quantity.TEMPERATURE, Defaults.TEMPERATURE_K);
        if (packs.isEmpty()) {
            return Collections.nCopies(battery.sets(), usable(battery, 1, settings.charge(), air));
        }
        // Minutes as measured are those of the batteries as they are; figures of a new one shrink with each one's age.
        double own = battery.measured().isPresent() ? 1 : battery.health();
        List<Double> usable = new ArrayList<>();
        for (Pack pack : packs) {
            usable.add(usable(battery, pack.capacity() / own, pack.charge(), air));
        }
        usable.sort(Collections.reverseOrder());
        return usable;
    }

    /**
     * What of a battery may be flown: what is charged less the reserve, in the cold of the day.
     *
     * @param capacity over that of the kit's
     */
    public static double usable(Battery battery, double capacity, double charge, double airK) {
        return capacity * (charge * Battery.capacity(airK) - battery.reserve() * Battery.capacity(airK));
    }
}
