package yalos.core.exchange;

import java.util.List;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.OptionalInt;
import yalos.core.fault.InputFault;
import yalos.core.flight.Flight;
import yalos.core.geodesy.LonLat;
import yalos.core.plan.BlockPlan;

/**
 * A plan made earlier, as it comes out of an open file: stations, or a path along which photos are taken as far apart as the block's plan takes them. It becomes a flight that is proved like any other.
 *
 * @param spots one after the other, as flown
 * @param stations whether each is a photo; corners of a path otherwise
 * @param zero what its heights count from, as far as the file says
 */
public record EarlierPlan(List<Spot> spots, boolean stations, Optional<Zero> zero) {
    static final int MOST = 50_000;

    /** What heights count from. */
    public enum Zero {
        TAKE_OFF("the take-off"),
        GROUND("the ground below"),
        GEOID("the geoid"),
        ELLIPSOID("the ellipsoid");

        private final String words;

        Zero(String words) {
            this.words = words;
        }

        public String words() {
            return words;
        }
    }

    /**
     * A photo or a corner.
     *
     * @param upM in metres above what the plan's heights count from
     * @param yawDeg of the image's top, clockwise from true north
     * @param pitchDeg of the camera, -90 straight down
     * @param strip number it belongs to
     */
    public record Spot(
            LonLat place,
            OptionalDouble upM,
            OptionalDouble yawDeg,
            OptionalDouble pitchDeg,
            OptionalDouble rollDeg,
            OptionalInt strip) {
        /** A place without angles. */
        public static Spot at(LonLat place, OptionalDouble upM) {
            return new Spot(
                    place,
                    upM,
                    OptionalDouble.empty(),
                    OptionalDouble.empty(),
                    OptionalDouble.empty(),
                    OptionalInt.empty());
        }
    }

    public EarlierPlan {
        spots = List.copyOf(spots);
        if (spots.size() < 2) {
            throw new InputFault(
                    "file",
                    spots.size(),
                    "The file has no stations and no path: points one after the other, or a line, are what a flight is made of.");
        }
        if (spots.size() > MOST) {
            throw new InputFault(
                    "file",
                    spots.size(),
                    "The file has %,d places; up to %,d are read. Bring it block by block."
                            .formatted(spots.size(), MOST));
        }
    }

    /**
     * The flight, over the ground of a block's plan and through its camera.
     *
     * @param from what heights count from
     * @param above used where the file has no heights
     * @throws InputFault where it lies far from the block, or heights would be guessed
     */
    public Flight flown(BlockPlan plan, Zero from, OptionalDouble above) {
        return new EarlierFlight(this, plan, from, above).flight();
    }
}
