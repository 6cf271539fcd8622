package yalos.core.sortie;

import yalos.core.flight.Exposure;
import yalos.core.flight.Flight;
import yalos.core.flight.Place;
import yalos.core.flight.Tally;
import yalos.core.flight.Timeline;

/**
 * One take-off to one landing.
 *
 * @param number from 1
 * @param launch index of its launch point
 * @param from index of the first station that it has to take, from 0 in the plan's flight
 * @param start index of the station it begins with: before {@code from} where it goes on within a strip
 * @param to index of its last station
 * @param homing its ways out and home
 * @param timeline of its own flight, on the clock
 * @param tally of what it draws
 * @param usable what its battery has for it, the reserve untouched
 * @param least where the way home leaves least
 */
public record Sortie(
        int number,
        int launch,
        int from,
        int start,
        int to,
        Homing homing,
        Timeline timeline,
        Tally tally,
        double usable,
        Least least) {

    /**
     * The moment of a sortie at which going home would leave least.
     *
     * @param place where it is then
     * @param seconds since take-off
     * @param margin over the reserve, as a share of a full battery
     * @param home what the way home takes from there
     */
    public record Least(Place place, double seconds, double margin, double home) {}

    public Flight flight() {
        return timeline.flight();
    }

    /** From take-off to landing. */
    public double seconds() {
        return timeline.totalS();
    }

    /** What it takes, as a share of a full battery. */
    public double taken() {
        return tally.whole();
    }

    /** What is left at landing over the reserve. */
    public double spare() {
        return usable - taken();
    }

    /** Photos it takes, those taken again included. */
    public int photos() {
        return to - start + 1;
    }

    /** Stations of the sortie before, taken again. */
    public int repeated() {
        return from - start;
    }

    /** Its last photo. */
    public Exposure last() {
        return flight().exposures().get(flight().exposures().size() - 1);
    }

    /**
     * What is left over the reserve if it turned home then.
     *
     * @param seconds since take-off
     */
    public double marginAt(Draw draw, double seconds) {
        return usable
                - tally.at(seconds)
                - homing.homeTakes(draw, timeline.at(seconds).place());
    }
}
