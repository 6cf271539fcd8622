package yalos.core.sortie;

import static yalos.core.fault.InputFault.within;

import java.time.LocalDate;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.OptionalDouble;
import yalos.core.flight.Pace;
import yalos.core.kit.Battery;
import yalos.core.wind.Wind;

/**
 * A flight as its battery felt it: so much of it in so many minutes, at a ground speed, in a wind and a temperature. It corrects what the model says of the same flight.
 *
 * @param on day of it
 * @param share of a full battery, 0..1
 * @param minutes in the air
 * @param groundMps while mapping; empty for the plan's
 * @param windMps at flying height; 0 for still air
 * @param airK temperature of the air
 * @param note what was flown
 */
public record Consumption(
        LocalDate on,
        double share,
        double minutes,
        OptionalDouble groundMps,
        double windMps,
        double airK,
        String note) {
    /** A flight that the model misses by more is told: something else was measured. */
    private static final double DOUBTFUL = 0.4;

    public Consumption {
        within("share", share * 100, 3, 100, "%");
        within("minutes", minutes, 1, 300, "min");
        within("wind", windMps, 0, 30, "m/s");
        within("temperature", airK - 273.15, -40, 60, "°C");
        groundMps.ifPresent(speed -> within("speed", speed, 0.5, 60, "m/s"));
    }

    /**
     * What it took over what the model says of it. Mapping goes there and back: half of it against the wind, half with it; the cold takes of the battery as {@link Battery#capacity} says.
     */
    public double ratio(Draw draw, Pace pace, double planMps) {
        double ground = groundMps.orElse(planMps);
        Pace blown = new Pace(pace.aircraft(), windMps > 0 ? Optional.of(new Wind(0, windMps)) : Optional.empty());
        double modelled = 0;
        for (double track : new double[] {0, Math.PI}) {
            double held = blown.groundMps(track, ground);
            modelled += draw.level(blown.airspeedMps(track, held)) / 2;
        }
        return share / (minutes * 60) / (modelled / Battery.capacity(airK));
    }

    /** What the flights say of a model together: the mean of their ratios, by their minutes; 1 without flights. */
    public static double ratio(List<Consumption> flights, Draw draw, Pace pace, double planMps) {
        double minutes = flights.stream().mapToDouble(Consumption::minutes).sum();
        return minutes == 0
                ? 1
                : flights.stream()
                                .mapToDouble(flight -> flight.minutes * flight.ratio(draw, pace, planMps))
                                .sum()
                        / minutes;
    }

    /** The model as the flights correct it; the same without flights. */
    public static Draw corrected(List<Consumption> flights, Draw draw, Pace pace, double planMps) {
        if (flights.isEmpty()) {
            return draw;
        }
        double ratio = ratio(flights, draw, pace, planMps);
        return draw.times(
                ratio,
                String.format(
                        Locale.ROOT,
                        "%d measured flight%s took %.0f %% %s than these figures say; corrected by it",
                        flights.size(),
                        flights.size() == 1 ? "" : "s",
                        Math.abs(100 * (ratio - 1)),
                        ratio >= 1 ? "more" : "less"));
    }

    /** Whether a ratio is so far from 1 that something else was measured than the aircraft's figures say. */
    public static boolean doubtful(double ratio) {
        return Math.abs(ratio - 1) > DOUBTFUL;
    }
}
