package yalos.core.take;

import java.time.Instant;
import java.time.LocalDateTime;
import java.time.ZoneOffset;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.OptionalInt;
import yalos.core.geodesy.LonLat;
import yalos.core.terrain.VerticalDatum.Zero;

/**
 * What a photo file says of itself; what it does not say is empty, never guessed.
 *
 * @param name of the file, without folders
 * @param bytes its size
 * @param readable how far it can be read
 * @param fault why no further; empty where all of it can be read
 * @param clock when it was taken by the camera's clock, with its fractions
 * @param offset of that clock's zone
 * @param gps when it was taken by the satellites' clock
 */
public record PhotoFacts(
        String name,
        long bytes,
        Readable readable,
        String fault,
        Optional<LocalDateTime> clock,
        Optional<ZoneOffset> offset,
        Optional<Instant> gps,
        Position position,
        View view,
        Camera camera) {

    /** How far a file can be read. */
    public enum Readable {
        ALL,
        METADATA,
        NOTHING
    }

    /**
     * Where it was taken, as the file has it.
     *
     * @param heightM above {@code zero}, in metres
     * @param errorM horizontal, one standard deviation or what the maker means by it
     * @param differential whether corrections were applied
     */
    public record Position(
            Optional<LonLat> place,
            OptionalDouble heightM,
            Zero zero,
            OptionalDouble errorM,
            Optional<Boolean> differential) {
        public static final Position NONE = new Position(
                Optional.empty(), OptionalDouble.empty(), Zero.GEOID, OptionalDouble.empty(), Optional.empty());
    }

    /**
     * Which way it looks.
     *
     * @param directionDeg clockwise from true north, or from magnetic north
     * @param magnetic whether from magnetic north
     * @param elevationDeg of the optical axis above the horizon, straight down -90
     */
    public record View(OptionalDouble directionDeg, boolean magnetic, OptionalDouble elevationDeg) {
        public static final View NONE = new View(OptionalDouble.empty(), false, OptionalDouble.empty());
    }

    /**
     * With what it was taken.
     *
     * @param focalMm focal length
     * @param exposureS exposure time
     * @param width stored columns, the orientation not applied; 0 where unknown
     * @param height stored rows
     * @param statedWidth columns that the file says the original has; 0 where it says nothing
     * @param statedHeight rows of the original
     * @param orientation 1 to 8 as EXIF has it; says how to show it and turns no geometry
     */
    public record Camera(
            String model,
            OptionalDouble focalMm,
            OptionalDouble exposureS,
            OptionalDouble fNumber,
            OptionalInt iso,
            int width,
            int height,
            int statedWidth,
            int statedHeight,
            int orientation) {
        public static final Camera NONE = new Camera(
                "",
                OptionalDouble.empty(),
                OptionalDouble.empty(),
                OptionalDouble.empty(),
                OptionalInt.empty(),
                0,
                0,
                0,
                0,
                1);

        /** Columns of the original, as far as the file says. */
        public int columns() {
            return statedWidth > 0 ? statedWidth : width;
        }
    }

    /** A file of which nothing can be read. */
    public static PhotoFacts unreadable(String name, long bytes, String fault) {
        return new PhotoFacts(
                name,
                bytes,
                Readable.NOTHING,
                fault,
                Optional.empty(),
                Optional.empty(),
                Optional.empty(),
                Position.NONE,
                View.NONE,
                Camera.NONE);
    }

    /** The same, of which less can be read than it seemed. */
    public PhotoFacts onlyMetadata(String why) {
        return new PhotoFacts(name, bytes, Readable.METADATA, why, clock, offset, gps, position, view, camera);
    }
}
