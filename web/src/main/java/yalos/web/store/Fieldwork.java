package yalos.web.store;

import yalos.core.control.ControlLayout;
import yalos.core.day.DaySettings;
import yalos.core.sortie.SortieSettings;

/**
 * What is decided about working in the field, from which no plan follows: points on the ground, sorties, the day.
 *
 * @param control points, and what is taken for granted of them
 * @param sorties launch points, heights, fences
 * @param day date, weather, order of the day, papers
 */
public record Fieldwork(ControlLayout control, SortieSettings sorties, DaySettings day) {
    public static final Fieldwork NONE = new Fieldwork(ControlLayout.NONE, SortieSettings.USUAL, DaySettings.USUAL);

    public Fieldwork with(ControlLayout other) {
        return new Fieldwork(other, sorties, day);
    }

    public Fieldwork with(SortieSettings other) {
        return new Fieldwork(control, other, day);
    }

    public Fieldwork with(DaySettings other) {
        return new Fieldwork(control, sorties, other);
    }

    /** Habits without places and dates: for another block, or the next season. */
    public Fieldwork habits() {
        return new Fieldwork(ControlLayout.NONE.with(control.assumptions()), sorties.withoutPlaces(), day.anyDay());
    }

    /** The places and dates of this one with the habits of another. */
    Fieldwork withHabitsOf(Fieldwork other) {
        return new Fieldwork(
                control.with(other.control.assumptions()),
                other.sorties.withLaunches(sorties.launches()).withPilot(sorties.pilot()),
                day);
    }
}
