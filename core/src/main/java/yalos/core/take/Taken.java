package yalos.core.take;

import java.util.Optional;
import java.util.OptionalDouble;
import yalos.core.geodesy.LonLat;
import yalos.core.terrain.Geoid;
import yalos.core.terrain.VerticalDatum.Zero;

/**
 * A photo of the take with all that is known of it.
 *
 * @param sha256 of the file; empty where it was not read to its end
 * @param refined its position from a table or log, which counts before its own
 * @param aside set aside by hand: a test shot, say
 * @param picture how good its picture is, once that was looked at
 */
public record Taken(PhotoFacts facts, String sha256, Optional<Fix> refined, boolean aside, Optional<Picture> picture) {

    /** A photo of which its file alone is known. */
    public static Taken of(PhotoFacts facts, String sha256) {
        return new Taken(facts, sha256, Optional.empty(), false, Optional.empty());
    }

    public String name() {
        return facts.name();
    }

    /** The same with a position from elsewhere. */
    public Taken refined(Fix fix) {
        return new Taken(facts, sha256, Optional.of(fix), aside, picture);
    }

    /** The same with its picture looked at. */
    public Taken seen(Picture seen) {
        return new Taken(facts, sha256, refined, aside, Optional.of(seen));
    }

    /** Where it was taken: as refined, else as the file says. */
    public Optional<Fix> fix() {
        return refined.isPresent() ? refined : own();
    }

    /** Where the file says that it was taken. */
    public Optional<Fix> own() {
        PhotoFacts.Position at = facts.position();
        return at.place()
                .map(place -> new Fix(
                        place,
                        up(place),
                        facts.view().magnetic()
                                ? OptionalDouble.empty()
                                : facts.view().directionDeg(),
                        facts.view().elevationDeg(),
                        OptionalDouble.empty(),
                        at.errorM(),
                        OptionalDouble.empty(),
                        Fix.Source.FILE));
    }

    private OptionalDouble up(LonLat place) {
        OptionalDouble height = facts.position().heightM();
        return height.isEmpty() || facts.position().zero() == Zero.GEOID
                ? height
                : OptionalDouble.of(height.getAsDouble() - Geoid.egm96().undulationM(place));
    }
}
