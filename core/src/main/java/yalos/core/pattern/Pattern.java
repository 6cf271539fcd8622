package yalos.core.pattern;

import java.util.List;
import java.util.Optional;
import java.util.OptionalDouble;
import yalos.core.block.PlaneBlock;
import yalos.core.fault.InputFault;
import yalos.core.flight.FlightBuilder;
import yalos.core.flight.Pace;
import yalos.core.geodesy.PlanePoint;
import yalos.core.wind.Wind;

/**
 * How a pass lies over a block: a strategy with its own settings. Whoever plans knows only this; directions, orders and shapes are the
 * pattern's own affair.
 */
public interface Pattern {
    /** More photos than any day of flying; beyond it a setting is surely mistyped. */
    int MOST_PHOTOS = 200_000;

    /** The pattern with all that was left open decided for this block. */
    Pattern decided(PlaneBlock block, Task task, Pace pace, Optional<PlanePoint> launch);

    /**
     * Flies a decided pattern.
     *
     * @param pass its number, from 1
     * @throws InputFault (field {@code stations}) when there would be more photos than {@value #MOST_PHOTOS}
     */
    void fly(PlaneBlock block, Task task, int pass, FlightBuilder flight);

    /** Refuses settings whose photos, roughly counted from the area, are far too many, before anything is laid out. */
    void refuseFarTooMany(PlaneBlock block, Task task);

    /** Direction of its lines, clockwise from grid north, 0 to π, for showing; empty where it is not decided or there is none. */
    OptionalDouble directionRad();

    /** The pattern as each school would turn it in a wind, this one first. */
    List<School> inWind(Wind wind);

    /** The pattern turned by a quarter. */
    Pattern across();

    /** Which way its camera looks. */
    Gaze gaze();

    /** The pattern with its camera looking otherwise. */
    Pattern looking(Gaze otherwise);

    /** A way of turning a pattern, by the name practice has for it. */
    record School(String name, Pattern pattern) {}
}
