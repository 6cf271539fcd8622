package yalos.web.history;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import yalos.core.geodesy.Geodesics;
import yalos.core.pattern.Patterns;
import yalos.core.pins.Quantity;
import yalos.core.units.Measure;
import yalos.core.units.UnitChoice;
import yalos.core.units.UnitKind;
import yalos.web.store.BlockFacts;
import yalos.web.store.GroundFacts;

/** How two states of a block differ in what was decided, in sentences. */
public final class FactsDifference {
    private FactsDifference() {}

    public static List<String> of(BlockFacts then, BlockFacts now, UnitChoice units) {
        List<String> changes = new ArrayList<>();
        if (!then.outline().equals(now.outline())) {
            changes.add("The outline changed: %s, now %s; %d corners, now %d."
                    .formatted(
                            units.areaText(then.outline().areaM2()),
                            units.areaText(now.outline().areaM2()),
                            then.outline().corners().size(),
                            now.outline().corners().size()));
        }
        if (!then.launch().equals(now.launch())) {
            changes.add(
                    then.launch().isPresent() && now.launch().isPresent()
                            ? "The launch point moved by %s."
                                    .formatted(units.text(
                                            UnitKind.DISTANCE,
                                            Geodesics.distanceM(
                                                    then.launch().get(),
                                                    now.launch().get())))
                            : "The launch point was " + (now.launch().isPresent() ? "set." : "taken away."));
        }
        if (!then.kit().equals(now.kit())) {
            changes.add(
                    then.kit().name().equals(now.kit().name())
                            ? "Figures of the kit “%s” changed."
                                    .formatted(now.kit().name())
                            : "The kit was “%s”, now “%s”."
                                    .formatted(then.kit().name(), now.kit().name()));
        }
        for (Quantity quantity : Quantity.values()) {
            pin(quantity, then.pins().of(quantity), now.pins().of(quantity)).ifPresent(changes::add);
        }
        ground(then.ground(), now.ground(), units, changes);
        if (!then.patterns().equals(now.patterns())) {
            changes.add(patterns(then.patterns(), now.patterns()));
        }
        if (!then.brief().equals(now.brief())) {
            changes.add("The brief changed.");
        }
        if (!then.control().equals(now.control())) {
            changes.add("Points on the ground: %d, now %d."
                    .formatted(
                            then.control().points().size(),
                            now.control().points().size()));
        }
        if (!then.field().sorties().equals(now.field().sorties())) {
            changes.add("How it is flown in sorties changed: launch points, heights, fences or charge.");
        }
        if (!then.field().day().equals(now.field().day())) {
            changes.add("The day changed: date, times, weather, limits or papers.");
        }
        if (!then.epsg().equals(now.epsg())) {
            changes.add("The grid changed.");
        }
        return changes;
    }

    private static String patterns(Patterns then, Patterns now) {
        return then.words().equals(now.words())
                ? "The patterns changed: other heights, overlaps, widths or axis."
                : "Flown were %s, now %s.".formatted(then.words(), now.words());
    }

    private static void ground(GroundFacts then, GroundFacts now, UnitChoice units, List<String> changes) {
        if (!then.models().equals(now.models())) {
            changes.add("The elevation models changed: %s, now %s."
                    .formatted(models(then.models().size()), models(now.models().size())));
        }
        if (!then.choice().equals(now.choice())) {
            if (then.choice().modelSigmaM() != now.choice().modelSigmaM()) {
                changes.add("The model was taken as good to %s, now to %s."
                        .formatted(
                                units.text(UnitKind.HEIGHT, then.choice().modelSigmaM()),
                                units.text(UnitKind.HEIGHT, now.choice().modelSigmaM())));
            }
            changes.add("Heights were %s with %s kept, now %s with %s."
                    .formatted(
                            then.choice().reference().words(),
                            units.text(UnitKind.HEIGHT, then.choice().clearanceM()),
                            now.choice().reference().words(),
                            units.text(UnitKind.HEIGHT, now.choice().clearanceM())));
        }
        if (!then.obstacles().equals(now.obstacles())) {
            changes.add("The obstacles changed: %d, now %d."
                    .formatted(then.obstacles().size(), now.obstacles().size()));
        }
        if (!then.zones().equals(now.zones())) {
            changes.add("The zones changed: %d, now %d."
                    .formatted(then.zones().size(), now.zones().size()));
        }
        if (!then.spanM().equals(now.spanM())) {
            changes.add(
                    now.spanM().isPresent()
                            ? "Holes of the model up to %s wide are spanned now."
                                    .formatted(units.text(
                                            UnitKind.DISTANCE, now.spanM().getAsDouble()))
                            : "Holes of the model are not spanned any more.");
        }
        if (!then.takeOffLevelM().equals(now.takeOffLevelM())) {
            changes.add("The measured level of the take-off point changed.");
        }
    }

    private static String models(int count) {
        return count == 0 ? "level ground" : count == 1 ? "1 model" : count + " models";
    }

    private static Optional<String> pin(Quantity quantity, Optional<Measure> then, Optional<Measure> now) {
        if (then.equals(now)) {
            return Optional.empty();
        }
        String before = then.map(Measure::asTyped).orElse("free");
        String after = now.map(Measure::asTyped).orElse("free");
        return Optional.of("%s: pinned %s, now %s.".formatted(quantity.label(), before, after));
    }
}
