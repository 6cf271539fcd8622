package yalos.core.sortie;

import static yalos.core.fault.InputFault.within;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.OptionalDouble;
import yalos.core.fault.InputFault;
import yalos.core.fault.Names;
import yalos.core.geodesy.LonLat;

/**
 * How a plan is flown in sorties, as the operator decides.
 *
 * @param launches places to take off from besides the block's launch point; each sortie takes the one from which it needs least
 * @param pilot where the pilot stands; at the launch point where empty
 * @param eyeM height of the pilot's eye above ground
 * @param spanM what of the aircraft is seen, across; by its kind where empty
 * @param charge share of a full battery at take-off, 0..1
 * @param repeated stations flown again when a sortie goes on within a strip
 * @param returnM height above take-off to come home at; what clears everything where empty
 * @param marginM kept above all ground and obstacles on the way home
 * @param fenceM beyond the farthest place of the sortie, for the distance fence
 * @param fence what the aircraft does there, as tried on site
 * @param lostLink what it does when the link is lost
 * @param satellites whether it is flown with satellite positioning at all
 */
public record SortieSettings(
        List<Launch> launches,
        Optional<LonLat> pilot,
        double eyeM,
        OptionalDouble spanM,
        double charge,
        int repeated,
        OptionalDouble returnM,
        double marginM,
        double fenceM,
        FenceAct fence,
        LostLink lostLink,
        boolean satellites) {
    /** Common practice for small aircraft. */
    public static final SortieSettings USUAL = new SortieSettings(
            List.of(),
            Optional.empty(),
            1.6,
            OptionalDouble.empty(),
            1,
            2,
            OptionalDouble.empty(),
            20,
            50,
            FenceAct.UNKNOWN,
            LostLink.RETURN,
            true);

    private static final int MOST_LAUNCHES = 12;

    /** A place to take off from. */
    public record Launch(String name, LonLat place) {
        public Launch {
            name = Names.given(name, "launch point");
        }
    }

    public SortieSettings {
        launches = List.copyOf(launches);
        if (launches.size() > MOST_LAUNCHES) {
            throw new InputFault(
                    "launches",
                    launches.size(),
                    "More than %d launch points are not compared.".formatted(MOST_LAUNCHES));
        }
        within("eye", eyeM, 0.5, 30, "m");
        spanM.ifPresent(span -> within("span", span, 0.05, 20, "m"));
        within("charge", charge * 100, 20, 100, "%");
        within("repeated", repeated, 0, 20, "stations");
        returnM.ifPresent(height -> within("returnHeight", height, 5, 1000, "m"));
        within("margin", marginM, 2, 200, "m");
        within("fenceMargin", fenceM, 5, 2000, "m");
    }

    public SortieSettings withLaunches(List<Launch> others) {
        return new SortieSettings(
                others, pilot, eyeM, spanM, charge, repeated, returnM, marginM, fenceM, fence, lostLink, satellites);
    }

    /** With one launch point more. */
    public SortieSettings plus(Launch launch) {
        List<Launch> more = new ArrayList<>(launches);
        more.add(launch);
        return withLaunches(more);
    }

    public SortieSettings withPilot(Optional<LonLat> place) {
        return new SortieSettings(
                launches, place, eyeM, spanM, charge, repeated, returnM, marginM, fenceM, fence, lostLink, satellites);
    }

    /** The same without its places. */
    public SortieSettings withoutPlaces() {
        return withLaunches(List.of()).withPilot(Optional.empty());
    }
}
