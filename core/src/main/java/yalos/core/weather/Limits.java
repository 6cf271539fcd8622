package yalos.core.weather;

import static yalos.core.fault.InputFault.within;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.OptionalDouble;
import yalos.core.units.UnitChoice;
import yalos.core.units.UnitKind;

/**
 * In what weather the operator flies. The aircraft's own wind limit counts besides; the law of the place decides.
 *
 * @param windMps strongest wind near the ground
 * @param gustMps strongest gusts
 * @param coldK coldest air
 * @param visibilityM least visibility
 * @param heightM above ground at which is flown, where the wind is stronger
 */
public record Limits(double windMps, double gustMps, double coldK, double visibilityM, double heightM) {
    /** Eight metres a second on the ground, twelve in gusts, no frost below minus five, five kilometres of sight (common practice). */
    public static final Limits USUAL = new Limits(8, 12, 268.15, 5000, 0);

    private static final double MIND_SHARE = 0.75;
    private static final double CLEAR = 0.2;
    private static final double OVERCAST = 0.9;
    private static final double FOG_M = 1000;
    private static final double HOT_K = 308.15;
    private static final double DAMP_MM = 0.1;

    public Limits {
        within("windLimit", windMps, 1, 40, "m/s");
        within("gustLimit", gustMps, 1, 60, "m/s");
        within("cold", coldK - 273.15, -40, 20, "°C");
        within("visibility", visibilityM, 100, 50_000, "m");
    }

    /** How the sky must be for the pictures to serve. */
    public enum Sky {
        /** As it is. */
        ANY,
        /** All clear or all overcast: index work compares light from field to field. */
        EVEN,
        /** No hard shadows: overcast serves best. */
        SOFT
    }

    /** What to do. */
    public enum Verdict {
        GO("go"),
        MIND("mind"),
        STOP("stop"),
        /** Nothing is known of that hour. */
        UNKNOWN("not known");

        private final String words;

        Verdict(String words) {
            this.words = words;
        }

        public String words() {
            return words;
        }

        /** The graver of the two; what is not known counts as a thing to mind. */
        public Verdict worse(Verdict other) {
            int own = this == UNKNOWN ? 1 : ordinal();
            int others = other == UNKNOWN ? 1 : other.ordinal();
            return others > own ? other : this;
        }
    }

    /**
     * An hour judged.
     *
     * @param reasons what speaks against flying, the gravest first; empty where nothing does
     */
    public record Judged(Verdict verdict, List<String> reasons) {}

    /** The limits with an aircraft's own wind limit, where that is less, flown at a height. */
    public Limits forAircraft(double aircraftMps, double flownM) {
        return new Limits(Math.min(windMps, aircraftMps), gustMps, coldK, visibilityM, flownM);
    }

    /** What an hour means, in the operator's units. */
    public Judged judge(WeatherHour hour, Sky sky, UnitChoice units) {
        List<String> stop = new ArrayList<>();
        List<String> mind = new ArrayList<>();
        boolean unknown = hour.windMps().isEmpty();
        upTo("wind", hour.windMps(), windMps, units, stop, mind);
        upTo("gusts", hour.gustMps(), gustMps, units, stop, mind);
        if (hour.gustMps().isPresent() && hour.windMps().isPresent()) {
            double gusty = hour.gustMps().getAsDouble() - hour.windMps().getAsDouble();
            if (gusty > windMps / 2 && hour.gustMps().getAsDouble() <= gustMps) {
                mind.add("gusts %s over the wind".formatted(units.text(UnitKind.SPEED, gusty)));
            }
        }
        hour.rainMm().ifPresent(rain -> {
            if (rain >= DAMP_MM) {
                stop.add(words("rain %.1f mm", rain));
            }
        });
        hour.visibilityM().ifPresent(far -> {
            if (far < FOG_M) {
                stop.add("fog, " + units.text(UnitKind.DISTANCE, far));
            } else if (far < visibilityM) {
                stop.add("sight %s, %s asked for"
                        .formatted(units.text(UnitKind.LENGTH, far), units.text(UnitKind.LENGTH, visibilityM)));
            }
        });
        hour.airK().ifPresent(air -> temperature(air, units, stop, mind));
        hour.cloud().ifPresent(cloud -> sky(sky, cloud, mind));
        List<String> all = new ArrayList<>(stop);
        all.addAll(mind);
        Verdict verdict =
                !stop.isEmpty() ? Verdict.STOP : unknown ? Verdict.UNKNOWN : mind.isEmpty() ? Verdict.GO : Verdict.MIND;
        if (unknown) {
            all.add("wind not known");
        }
        return new Judged(verdict, List.copyOf(all));
    }

    private void temperature(double air, UnitChoice units, List<String> stop, List<String> mind) {
        String shown = units.text(UnitKind.TEMPERATURE, air);
        double celsius = air - 273.15;
        if (air < coldK) {
            stop.add("%s, %s at the least".formatted(shown, units.text(UnitKind.TEMPERATURE, coldK)));
        } else if (celsius < 5) {
            mind.add(shown + ": warm the batteries");
        } else if (air > HOT_K) {
            mind.add(shown + ": let batteries cool in the shade");
        }
    }

    private static void sky(Sky sky, double cloud, List<String> mind) {
        boolean broken = cloud > CLEAR && cloud < OVERCAST;
        if (sky == Sky.EVEN && broken) {
            mind.add(words("sky %.0f %% cloud: neither clear nor overcast", 100 * cloud));
        } else if (sky == Sky.SOFT && cloud < OVERCAST) {
            mind.add(words("sky %.0f %% cloud: hard shadows", 100 * cloud));
        }
    }

    private static void upTo(
            String what, OptionalDouble value, double limit, UnitChoice units, List<String> stop, List<String> mind) {
        if (value.isEmpty()) {
            return;
        }
        double mps = value.getAsDouble();
        String shown = units.text(UnitKind.SPEED, mps);
        String most = units.figure(UnitKind.SPEED, limit);
        if (mps > limit) {
            stop.add("%s %s, limit %s".formatted(what, shown, most));
        } else if (mps > MIND_SHARE * limit) {
            mind.add("%s %s, near the limit of %s".formatted(what, shown, most));
        }
    }

    private static String words(String format, Object... figures) {
        return String.format(Locale.ROOT, format, figures);
    }
}
