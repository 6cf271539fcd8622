package yalos.web.control;

import java.util.Locale;
import yalos.core.control.Foretold.Sigma;
import yalos.core.control.Foretold.Verdict;
import yalos.core.units.Unit;
import yalos.core.units.UnitChoice;
import yalos.core.units.UnitKind;

/** Figures of the stage as they are read. */
public final class Shown {
    private Shown() {}

    /** An accuracy in the operator's small unit, with as many digits as it deserves. */
    public static String accuracy(UnitChoice units, double metres) {
        if (!Double.isFinite(metres)) {
            return "–";
        }
        Unit unit = units.unit(UnitKind.GSD);
        double figure = unit.ofSi(metres);
        double tenth = unit == Unit.INCH ? 4 : unit == Unit.MILLIMETRE ? 0 : 10;
        return String.format(Locale.ROOT, Math.abs(figure) < tenth ? "%.1f %s" : "%.0f %s", figure, unit.symbol());
    }

    /** The same with a figure more, for legends whose steps lie close together. */
    public static String fine(UnitChoice units, double metres) {
        Unit unit = units.unit(UnitKind.GSD);
        int decimals = unit == Unit.INCH ? 3 : unit == Unit.MILLIMETRE ? 1 : 2;
        return String.format(Locale.ROOT, "%." + decimals + "f %s", unit.ofSi(metres), unit.symbol());
    }

    /** Positions and heights of one place. */
    static String pair(UnitChoice units, Sigma sigma) {
        return accuracy(units, sigma.horizontalM()) + " / " + accuracy(units, sigma.verticalM());
    }

    static String words(Verdict verdict) {
        return switch (verdict) {
            case NOT_ASKED -> "nothing asked";
            case ENOUGH -> "enough";
            case EDGE -> "enough but for its worst place";
            case NOT_ENOUGH -> "not enough";
        };
    }

    static String mood(Verdict verdict) {
        return switch (verdict) {
            case NOT_ASKED -> "";
            case ENOUGH -> "done";
            case EDGE -> "mind";
            case NOT_ENOUGH -> "stop";
        };
    }
}
