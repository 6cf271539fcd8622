package yalos.core.finding;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import yalos.core.geodesy.PlanePoint;
import yalos.core.pins.Quantity;
import yalos.core.units.Measure;
import yalos.core.units.Unit;
import yalos.core.units.UnitChoice;
import yalos.core.units.UnitKind;

/** Gathers findings and words their figures in the operator's units. */
final class Collected {
    private final UnitChoice units;
    private final List<Finding> found = new ArrayList<>();

    Collected(UnitChoice units) {
        this.units = units;
    }

    UnitChoice units() {
        return units;
    }

    void add(Finding.Level level, String key, String sentence, Remedy... remedies) {
        found.add(new Finding(level, key, sentence, Optional.empty(), List.of(remedies)));
    }

    /**
     * @param place where it can be seen
     */
    void addAt(Finding.Level level, String key, String sentence, PlanePoint place, List<Remedy> remedies) {
        found.add(new Finding(level, key, sentence, Optional.of(place), remedies));
    }

    /** The worst first. */
    List<Finding> sorted() {
        return found.stream().sorted(Comparator.comparing(Finding::level)).toList();
    }

    Remedy remedy(String label, Quantity quantity, double si) {
        return new Remedy(label, pin(quantity, si));
    }

    /** A height to see the ground finer from. */
    Remedy.Finer nearer(double heightM) {
        return new Remedy.Finer(pin(Quantity.HEIGHT, heightM));
    }

    /** A pinned demand that is asked for less strictly. */
    Remedy less(String label, Quantity demand, double si) {
        return new Remedy(label, new Remedy.Less(pin(demand, si)));
    }

    Remedy.Pin pin(Quantity quantity, double si) {
        return new Remedy.Pin(quantity, Measure.ofSi(si, units.unit(quantity.kind())));
    }

    String text(Quantity quantity, double si) {
        return units.text(quantity.kind(), si);
    }

    String text(UnitKind kind, double si) {
        return units.text(kind, si);
    }

    String height(double m) {
        return units.text(UnitKind.HEIGHT, m);
    }

    /** To a whole step of the operator's unit below; never less than one step. */
    double down(UnitKind kind, double si, double step) {
        Unit unit = units.unit(kind);
        return unit.toSi(Math.max(step, Math.floor(unit.ofSi(si) / step + 1e-9) * step));
    }

    /** To a whole step of the operator's unit above. */
    double up(UnitKind kind, double si, double step) {
        Unit unit = units.unit(kind);
        return unit.toSi(Math.ceil(unit.ofSi(si) / step - 1e-9) * step);
    }

    /** A short length: as a GSD below half a metre, as a distance above. */
    String length(double m) {
        return m < 0.5 ? units.text(UnitKind.GSD, m) : units.text(UnitKind.DISTANCE, m);
    }

    static String percent(double share) {
        return String.format(Locale.ROOT, share < 0.0995 ? "%.1f %%" : "%.0f %%", share * 100);
    }
}
