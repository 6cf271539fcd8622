package yalos.core.site;

import static yalos.core.fault.InputFault.within;

import yalos.core.geodesy.PlanePoint;

/**
 * A box that stands or hangs in a block: a building, a pier, a deck.
 *
 * @param middle of its plan, in the block's plane
 * @param lengthM along its axis
 * @param widthM square to it
 * @param axisRad direction of its axis, clockwise from grid north
 * @param bottomM height of its underside, in the height system of the ground
 * @param topM height of its top
 */
public record Solid(PlanePoint middle, double lengthM, double widthM, double axisRad, double bottomM, double topM) {
    public Solid {
        within("lengthM", lengthM, 0.01, 10_000, "m");
        within("widthM", widthM, 0.01, 10_000, "m");
        within("heightM", topM - bottomM, 0.01, 2_000, "m");
    }
}
