package yalos.core.flight;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import yalos.core.camera.Pose;
import yalos.core.geodesy.PlanePoint;

/** Makes a flight of photos that were taken: those of one strip, one after the other, become a line. There are no ways between lines, for nobody knows how they were flown. */
public final class FlownLines {
    private static final double LEAST_S = 0.1;

    private FlownLines() {}

    /**
     * A photo that was taken.
     *
     * @param photo its numbers do not matter
     * @param strip it belongs to
     * @param seconds when; NaN where nobody knows
     */
    public record Release(Exposure photo, int strip, double seconds) {}

    /**
     * @param releases in the order taken
     * @param launch where it took off, as far as that is known
     * @param takeOffUpM height of the ground there
     */
    public static Flight of(List<Release> releases, Optional<PlanePoint> launch, double takeOffUpM) {
        List<Leg> legs = new ArrayList<>();
        List<Exposure> photos = new ArrayList<>();
        int line = 0;
        for (int from = 0, to; from < releases.size(); from = to) {
            int strip = releases.get(from).strip();
            to = from + 1;
            while (to < releases.size() && releases.get(to).strip() == strip) {
                to++;
            }
            line++;
            legs.add(line(releases.subList(from, to), line, photos.size()));
            for (Release one : releases.subList(from, to)) {
                Exposure photo = one.photo();
                photos.add(new Exposure(
                        photos.size() + 1, photo.pass(), line, photo.pose(), photo.lens(), photo.trackRad()));
            }
        }
        return new Flight(legs, photos, launch, takeOffUpM);
    }

    private static Line line(List<Release> run, int number, int first) {
        Pose begin = run.get(0).photo().pose();
        Release last = run.get(run.size() - 1);
        PlanePoint from = run.get(0).photo().point();
        PlanePoint to = last.photo().point();
        double track = from.distanceM(to) == 0 ? begin.yawRad() : from.bearingRad(to);
        double[] up = run.size() == 1
                ? Way.level(begin.upM())
                : run.stream().mapToDouble(one -> one.photo().upM()).toArray();
        double took = last.seconds() - run.get(0).seconds();
        double seconds = Double.isNaN(took) ? from.distanceM(to) : Math.max(LEAST_S, took);
        return new Line(
                1,
                number,
                run.get(0).strip(),
                from,
                to,
                track,
                up,
                Math.max(0.1, seconds == 0 ? 0.1 : from.distanceM(to) / seconds),
                first,
                run.size());
    }
}
