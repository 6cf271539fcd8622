package yalos.core.finding;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import yalos.core.fault.InputFault;
import yalos.core.height.HeightReference;
import yalos.core.pins.Pins;
import yalos.core.pins.Quantity;
import yalos.core.plan.BlockPlan;
import yalos.core.proof.WeakGround;
import yalos.core.units.Measure;
import yalos.core.units.Unit;
import yalos.core.units.UnitChoice;
import yalos.core.units.UnitKind;

/** What mends a piece of weak ground, and what it costs in minutes. Every price is a plan of this block. */
public final class WeakSpotRemedies {
    private final BlockPlan plan;
    private final UnitChoice units;

    /**
     * @param units the operator reads
     */
    public WeakSpotRemedies(BlockPlan plan, UnitChoice units) {
        this.plan = plan;
        this.units = units;
    }

    /**
     * A remedy with its price.
     *
     * @param minutes more to fly; not a number where it is not known before it is planned
     */
    public record Priced(Remedy remedy, double minutes) {}

    /** What mends ground that is weak for this cause, each with its price; empty where nothing is known to. */
    public List<Priced> of(WeakGround.Cause cause) {
        List<Priced> remedies = new ArrayList<>();
        switch (cause) {
            case EDGE -> {
                int present =
                        (int) Math.ceil(plan.design().marginM() / plan.design().spacingM() - 1e-9);
                Measure margin = Measure.of(present + 1.0, Unit.COUNT);
                pin(
                                "Margin of " + (present + 1) + (present == 0 ? " strip" : " strips"),
                                Quantity.MARGIN_STRIPS,
                                margin)
                        .ifPresent(remedies::add);
            }
            case HIGH_GROUND -> {
                follow(remedies);
                more(Quantity.SIDE_OVERLAP, plan.design().sideOverlap(), "Side").ifPresent(remedies::add);
            }
            case GAPS, WEAK_RAYS -> {
                more(Quantity.SIDE_OVERLAP, plan.design().sideOverlap(), "Side").ifPresent(remedies::add);
                more(Quantity.FORWARD_OVERLAP, plan.design().forwardOverlap(), "Forward")
                        .ifPresent(remedies::add);
            }
            case HIDDEN_SIDE ->
                more(Quantity.SIDE_OVERLAP, plan.design().sideOverlap(), "Side").ifPresent(remedies::add);
            case LOW_GROUND -> {
                follow(remedies);
                Unit unit = units.unit(UnitKind.HEIGHT);
                double lower = Math.floor(unit.ofSi(plan.design().scale().heightM() * 0.92));
                Measure height = Measure.of(Math.max(1, lower), unit);
                pin("Fly at " + height.asTyped(), Quantity.HEIGHT, height).ifPresent(remedies::add);
            }
        }
        return remedies;
    }

    private void follow(List<Priced> remedies) {
        boolean level = plan.heights()
                .filter(heights -> heights.choice().reference() != HeightReference.FOLLOW)
                .isPresent();
        if (level) {
            remedies.add(new Priced(
                    new Remedy("Follow the ground", new Remedy.Heights(HeightReference.FOLLOW)), Double.NaN));
        }
    }

    private Optional<Priced> more(Quantity overlap, double present, String word) {
        double wanted = Math.min(92, Math.ceil(present * 100 / 5 + 0.2) * 5);
        return wanted <= present * 100
                ? Optional.empty()
                : pin(word + " " + (int) wanted + " %", overlap, Measure.of(wanted, Unit.PERCENT));
    }

    private Optional<Priced> pin(String label, Quantity quantity, Measure value) {
        try {
            Pins pins = plan.solution().pins().with(quantity, value);
            BlockPlan tried = plan.tried(pins);
            double minutes = (tried.flightTimeS() - plan.flightTimeS()) / 60;
            return Optional.of(new Priced(new Remedy(label, quantity, value), minutes));
        } catch (InputFault cannotBePlanned) {
            return Optional.empty();
        }
    }
}
