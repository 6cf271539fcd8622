package yalos.core.pattern;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import yalos.core.block.PlaneBlock;
import yalos.core.fault.InputFault;
import yalos.core.flight.Flight;
import yalos.core.flight.FlightBuilder;
import yalos.core.flight.Pace;
import yalos.core.geodesy.PlanePoint;

/**
 * Passes flown one after the other over level ground.
 *
 * @param passes decided, as they were flown
 * @param flight over level ground at height 0
 */
public record Passes(List<Pass> passes, Flight flight) {
    public Passes {
        passes = List.copyOf(passes);
    }

    /**
     * @param block the ground to cover, margin included
     * @param launch where it takes off and lands; empty while nobody knows
     * @throws InputFault (field {@code stations}) when there would be far too many photos
     */
    public static Passes flown(PlaneBlock block, List<Pass> wanted, Pace pace, Optional<PlanePoint> launch) {
        FlightBuilder flight = new FlightBuilder(pace.aircraft(), launch);
        List<Pass> decided = new ArrayList<>();
        for (Pass pass : wanted) {
            pass.pattern().refuseFarTooMany(block, pass.task());
            Pattern pattern = pass.pattern().decided(block, pass.task(), pace, launch);
            pattern.fly(block, pass.task(), decided.size() + 1, flight);
            decided.add(new Pass(pattern, pass.task()));
        }
        return new Passes(decided, flight.landed());
    }
}
