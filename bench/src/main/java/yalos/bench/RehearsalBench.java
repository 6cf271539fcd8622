package yalos.bench;

import java.util.List;
import java.util.OptionalDouble;
import yalos.core.flight.Timeline;
import yalos.core.height.HeightChoice;
import yalos.core.plan.BlockPlan;
import yalos.core.plan.GroundRequest;
import yalos.core.rehearsal.Command;
import yalos.core.rehearsal.Script;
import yalos.core.rehearsal.SimulatedFlight;
import yalos.core.sortie.Sortie;
import yalos.core.sortie.Sorties;

/**
 * Flights simulated.
 *
 * @param simulatedMs of 45 minutes in the air, a tenth of a second at a time; the best of three
 * @param sampledMs of the same minutes, place and battery asked of the closed forms for each tenth of a second
 */
record RehearsalBench(double simulatedMs, double sampledMs) {
    private static final double SECONDS = 45 * 60;

    static RehearsalBench measure() {
        BlockPlan plan = Samples.squareKilometre()
                .over(new GroundRequest(
                        new SortieBench.Hills(), HeightChoice.USUAL, List.of(), List.of(), OptionalDouble.empty()))
                .plan();
        Sorties sorties = Sorties.of(Sorties.Given.usual(plan));
        double best = Double.POSITIVE_INFINITY;
        for (int i = 0; i < 3; i++) {
            best = Math.min(best, ms(() -> simulated(sorties)));
        }
        return new RehearsalBench(best, ms(() -> sampled(sorties)));
    }

    private static void simulated(Sorties sorties) {
        double flown = 0;
        for (int number = 1; flown < SECONDS; number = number % sorties.all().size() + 1) {
            SimulatedFlight flight = new SimulatedFlight(sorties, number, Script.calm(number));
            flight.press(Command.of(Command.Kind.START), "", "");
            while (!flight.over() && flown + flight.seconds() < SECONDS) {
                flight.step();
            }
            flown += flight.seconds();
        }
    }

    private static void sampled(Sorties sorties) {
        double flown = 0;
        double sum = 0;
        for (int at = 0; flown < SECONDS; at = (at + 1) % sorties.all().size()) {
            Sortie sortie = sorties.all().get(at);
            Timeline timeline = sortie.timeline();
            double whole = Math.min(sortie.seconds(), SECONDS - flown);
            for (double t = 0; t < whole; t += SimulatedFlight.STEP_S) {
                sum += timeline.at(t).place().upM() + sortie.tally().at(t);
            }
            flown += whole;
        }
        if (Double.isNaN(sum)) {
            throw new IllegalStateException("no flight");
        }
    }

    private static double ms(Runnable work) {
        long begin = System.nanoTime();
        work.run();
        return (System.nanoTime() - begin) / 1e6;
    }
}
