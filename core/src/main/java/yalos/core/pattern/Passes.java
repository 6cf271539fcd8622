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
import yalos.core.site.Detour;

/**
 * Passes flown one after the other over level ground.
 *
 * @param passes decided, as they were flown; the one with number n stands at n - 1
 * @param asked for each of them, which of the added it belongs to, from 1; 0 is the main one
 * @param flight over level ground at height 0
 * @param waiting changes made by hand that find no strip near their place
 */
public record Passes(List<Pass> passes, List<Integer> asked, Flight flight, List<StripEdit> waiting) {
    public Passes {
        passes = List.copyOf(passes);
        asked = List.copyOf(asked);
        waiting = List.copyOf(waiting);
    }

    /** The same passes in a flight that does more besides. */
    public Passes with(Flight other) {
        return new Passes(passes, asked, other, waiting);
    }

    /** Whether a pass belongs to what was added, by its number from 1; 0 for the main one. Those round objects belong to none. */
    public boolean belongs(int pass, int toAdded) {
        return pass <= asked.size() && asked.get(pass - 1) == toAdded;
    }

    /**
     * @param block the ground to cover, margin included
     * @param launch where it takes off and lands; empty while nobody knows
     * @throws InputFault (field {@code stations}) when there would be far too many photos
     */
    public static Passes flown(PlaneBlock block, List<Pass> wanted, Pace pace, Optional<PlanePoint> launch) {
        Flying flying = new Flying(pace, launch, Detour.NONE);
        for (Pass pass : wanted) {
            flying.fly(block, pass, flying.decided.size());
        }
        return flying.landed();
    }

    /**
     * A main pass, and those that the operator adds to it.
     *
     * @param added with the settings that follow for each
     * @param detour round what ways between lines must not cross
     * @param start where the main pass begins; nearest to the launch point where empty
     * @throws InputFault also for settings of a pass that cannot be flown
     */
    public static Passes flown(
            PlaneBlock block,
            Pass main,
            List<Added> added,
            Pace pace,
            Optional<PlanePoint> launch,
            Detour detour,
            Optional<StartCorner> start) {
        Flying flying = new Flying(pace, launch, detour);
        start.ifPresent(corner -> flying.flight.beginNear(corner.of(block)));
        Pattern decided = flying.fly(block, main, 0);
        double mainRad = decided.directionRad().orElse(0);
        for (int i = 0; i < added.size(); i++) {
            Added one = added.get(i);
            int number = i + 1;
            one.wanted()
                    .passes(block, mainRad, one.setting())
                    .forEach(pass -> flying.fly(pass.over(), pass.pass(), number));
        }
        return flying.landed();
    }

    /** An added pass with what follows for it from the plan. */
    public record Added(AddedPass wanted, AddedPass.Setting setting) {}

    private static final class Flying {
        private final FlightBuilder flight;
        private final Pace pace;
        private final Optional<PlanePoint> launch;
        private final List<Pass> decided = new ArrayList<>();
        private final List<Integer> asked = new ArrayList<>();

        Flying(Pace pace, Optional<PlanePoint> launch, Detour detour) {
            this.flight = new FlightBuilder(pace, launch, detour);
            this.pace = pace;
            this.launch = launch;
        }

        Pattern fly(PlaneBlock block, Pass pass, int ofAdded) {
            pass.pattern().refuseFarTooMany(block, pass.task());
            Pattern pattern = pass.pattern().decided(block, pass.task(), pace, launch);
            pattern.fly(block, pass.task(), decided.size() + 1, flight);
            decided.add(new Pass(pattern, pass.task()));
            asked.add(ofAdded);
            return pattern;
        }

        Passes landed() {
            Flight flown = flight.landed();
            StripGrid.refuse(flown.exposures().size());
            return new Passes(decided, asked, flown, List.of());
        }
    }
}
