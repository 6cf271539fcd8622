package yalos.core.pattern;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import yalos.core.fault.InputFault;
import yalos.core.geodesy.PlanePoint;
import yalos.core.site.Prism;
import yalos.core.site.Structure;
import yalos.core.site.Structure.Built;
import yalos.core.units.Measure;

/**
 * Runs below a deck, the camera looking up at its underside: along its axis, side by side.
 *
 * @param name of the object
 * @param off below the underside
 * @param up how far above level the camera looks; 90° is straight up
 */
public record UnderDeck(String name, StandOff off, Measure up, Habit habit) implements StructurePass {
    /** Without satellites and near things nobody flies faster (common practice). */
    private static final double SLOW_MPS = 2;

    public UnderDeck {
        InputFault.within("up", Math.toDegrees(up.si()), 20, 90, "°");
    }

    /** The same from another stand-off. */
    public UnderDeck from(StandOff other) {
        return new UnderDeck(name, other, up, habit);
    }

    @Override
    public UnderDeck with(Habit other) {
        return new UnderDeck(name, off, up, other);
    }

    @Override
    public String key() {
        return "under-deck";
    }

    @Override
    public Optional<String> object() {
        return Optional.of(name);
    }

    @Override
    public String words() {
        return "runs under “%s”, %s, looking up at %s".formatted(name, off.words(), up.asTyped());
    }

    @Override
    public double standOffM(Scene scene) {
        return off.metres(scene.camera());
    }

    @Override
    public List<Run> runs(Scene scene) {
        List<Built> decks = scene.required(name).stream()
                .filter(one -> one.kind() == Structure.Kind.DECK && one.wants(one.undersideKey()))
                .toList();
        if (decks.isEmpty()) {
            throw new InputFault(
                    "object",
                    name,
                    "“%s” has no deck whose underside needs photos. Add a part that is a deck, or switch its underside on."
                            .formatted(name));
        }
        double d = standOffM(scene);
        if (d < scene.clearM() - 1e-9) {
            throw new InputFault(
                    "standOff",
                    "%.2f m".formatted(d),
                    "%.2f m below the deck is less than the %.1f m to be kept from everything. Stand off farther, or keep less clear."
                            .formatted(d, scene.clearM()));
        }
        List<Run> runs = new ArrayList<>();
        for (Built deck : decks) {
            under(scene, deck, d, runs);
        }
        return runs;
    }

    private void under(Scene scene, Built deck, double d, List<Run> runs) {
        List<PlanePoint> axis = deck.axis().isEmpty() ? middleLine(deck.solid()) : deck.axis();
        double level = deck.solid().bottomM() - d;
        double wide = deck.widthM() > 0 ? deck.widthM() : widthM(deck.solid());
        double base = scene.alongM(d) * (1 - habit.forward().si());
        double spacing = scene.acrossM(d) * (1 - habit.side().si());
        double usual = Math.min(SLOW_MPS, scene.speedMps(habit, gsdM(scene), base, true));
        double speed = habit.speed().map(Measure::si).orElse(usual);
        // A camera that looks ahead must begin as far before the deck as it looks.
        double ahead = d / Math.tan(Math.max(up.si(), Math.toRadians(20)));
        boolean back = false;
        for (double aside : Habit.spread(-wide / 2, wide / 2, spacing)) {
            List<Shot> shots = new ArrayList<>();
            for (int leg = 0; leg + 1 < axis.size(); leg++) {
                PlanePoint from = axis.get(back ? axis.size() - 1 - leg : leg);
                PlanePoint to = axis.get(back ? axis.size() - 2 - leg : leg + 1);
                double track = from.bearingRad(to);
                double right = back ? -aside : aside;
                for (double along : Habit.spread(-ahead, from.distanceM(to) + ahead, base)) {
                    PlanePoint at = from.moved(track, along).moved(track + Math.PI / 2, right);
                    shots.add(Shot.straight(at, level, track, Math.min(up.si(), Math.PI / 2)));
                }
            }
            runs.add(new Run(shots, speed));
            back = !back;
        }
    }

    /** The line through the middle of a footprint, along its longest wall. */
    private static List<PlanePoint> middleLine(Prism solid) {
        double track = solid.longestRad();
        double[] reach = solid.reachesM(track);
        return List.of(solid.middle().moved(track, reach[0]), solid.middle().moved(track, reach[1]));
    }

    /** Width of a deck's footprint across its middle line. */
    private static double widthM(Prism solid) {
        double[] reach = solid.reachesM(solid.longestRad());
        return 2 * Math.max(-reach[2], reach[3]);
    }
}
