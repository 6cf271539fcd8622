package yalos.core.sortie;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import yalos.core.fault.InputFault;
import yalos.core.flight.Line;
import yalos.core.geodesy.PlanePoint;

/**
 * Two schools for blocks of many batteries: one scan with battery changes from the same place, or segments that overlap, each from its own launch point. Both computed.
 *
 * @param scan as one scan
 * @param segments one for each sortie of the scan, by its own launch point; fewer where some share one
 * @param photosMore taken twice, since each segment begins with the last strip of the one before
 * @param walkS for the crew from place to place
 */
public record Segments(Option scan, Option segments, int photosMore, double walkS) {
    /** More sorties than this ask the question at all (common practice). */
    public static final int FROM = 4;

    private static final double WALK_MPS = 1.1;
    private static final double PACKING_S = 300;

    /**
     * One of the two.
     *
     * @param seconds in the air
     * @param groundS for changes of batteries and of places
     * @param farthestM level distance of the farthest photo from its launch point
     */
    public record Option(int sorties, double seconds, double groundS, double farthestM) {}

    /**
     * @param spots where it could take off, see {@link LaunchSearch}
     * @param changeS to change a battery
     * @return empty where one of the two cannot be flown
     */
    public static Optional<Segments> of(Sorties scan, List<LaunchSearch.Spot> spots, double changeS) {
        Sorties.Given given = scan.given();
        List<PlanePoint> launches = new ArrayList<>(given.launches());
        spots.forEach(spot -> launches.add(spot.at()));
        int whole = stripStations(scan);
        try {
            Sorties parted = Sorties.of(new Sorties.Given(
                    given.plan(),
                    Surroundings.of(given.plan(), launches),
                    given.settings(),
                    launches,
                    given.draw(),
                    given.usable()));
            double again = again(parted);
            double walk = 0;
            int moves = 0;
            for (int i = 1; i < parted.all().size(); i++) {
                int before = parted.all().get(i - 1).launch();
                int after = parted.all().get(i).launch();
                if (before != after) {
                    walk += launches.get(before).distanceM(launches.get(after)) / WALK_MPS + PACKING_S;
                    moves++;
                }
            }
            double changes = changeS * (parted.all().size() - 1);
            int photos = whole * moves;
            return Optional.of(new Segments(
                    new Option(
                            scan.all().size(),
                            scan.seconds(),
                            changeS * (scan.all().size() - 1),
                            farthestM(scan)),
                    new Option(
                            parted.all().size(), parted.seconds() + again * moves, changes + walk, farthestM(parted)),
                    photos,
                    walk));
        } catch (InputFault cannot) {
            return Optional.empty();
        }
    }

    /** Photos of a usual strip. */
    private static int stripStations(Sorties scan) {
        List<Line> lines = scan.given().plan().flight().lines();
        return lines.isEmpty()
                ? 0
                : scan.given().plan().photos()
                        / Math.max(1, scan.given().plan().flight().strips());
    }

    /** Seconds of a usual strip with its turn. */
    private static double again(Sorties parted) {
        double[] photos = parted.given().plan().timeline().exposuresS();
        int strips = Math.max(1, parted.given().plan().flight().strips());
        return photos.length == 0 ? 0 : (photos[photos.length - 1] - photos[0]) / strips;
    }

    private static double farthestM(Sorties sorties) {
        double farthest = 0;
        for (Sortie sortie : sorties.all()) {
            PlanePoint at = sortie.homing().launch();
            farthest = Math.max(
                    farthest,
                    sortie.flight().exposures().stream()
                            .mapToDouble(photo -> photo.point().distanceM(at))
                            .max()
                            .orElse(0));
        }
        return farthest;
    }
}
