package yalos.core.take;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import java.util.stream.IntStream;
import yalos.core.camera.Lens;
import yalos.core.camera.Pose;
import yalos.core.figures.Median;
import yalos.core.flight.Exposure;
import yalos.core.flight.Flight;
import yalos.core.flight.FlownLines;
import yalos.core.geodesy.PlanePoint;
import yalos.core.plan.BlockPlan;

/**
 * A take as a flight: its good photos where they were taken and as they hung. It is proved like any plan.
 *
 * <p>Places and angles are those of the photo, as well as they are known; what is not known is the station's. Heights are the photos' own where the plan knows its ground, unless all of them stand off the plan's by so much
 * that they must count from something else: then their common part is taken out. KNOWN LIMITS: an angle of the image's top is taken for the aircraft's heading where the file has one.
 *
 * @param flight of the photos that are of use
 * @param used index in the take of each of its photos
 * @param loweredM taken out of all heights; 0 where they were believed
 * @param placed how many stand where the photo says, the others at their station
 */
public record TakenFlight(Flight flight, List<Integer> used, double loweredM, int placed) {
    /** Constant heights off by more count from something else, or come from the air's pressure. */
    private static final double BELIEVED_M = 3;

    /**
     * @param flaws of each photo, as judged
     */
    public static TakenFlight of(BlockPlan plan, List<Taken> photos, TakeMatch match, List<List<Flaw>> flaws) {
        return new Making(plan, photos, match, flaws).flight();
    }

    /** Whether a photo shows the ground well enough to count. */
    public static boolean useful(TakeMatch.Matched one, List<Flaw> flaws) {
        return one.role().ofFlight()
                && flaws.stream().noneMatch(flaw -> flaw.kind().useless());
    }

    /** Makes one. */
    private static final class Making {
        private final BlockPlan plan;
        private final List<Taken> photos;
        private final TakeMatch match;
        private final List<List<Flaw>> flaws;
        private final double lowered;
        private int placed;

        Making(BlockPlan plan, List<Taken> photos, TakeMatch match, List<List<Flaw>> flaws) {
            this.plan = plan;
            this.photos = photos;
            this.match = match;
            this.flaws = flaws;
            boolean believed = plan.overGround().isPresent() && Math.abs(match.shiftM()[2]) <= BELIEVED_M;
            this.lowered = believed ? 0 : match.shiftM()[2];
        }

        TakenFlight flight() {
            List<Integer> inTime = IntStream.range(0, photos.size())
                    .filter(i -> useful(match.photos().get(i), flaws.get(i)))
                    .boxed()
                    .sorted(Comparator.comparingDouble((Integer i) -> order(i))
                            .thenComparing(i -> photos.get(i).name()))
                    .toList();
            List<FlownLines.Release> releases = new ArrayList<>();
            List<Integer> used = new ArrayList<>();
            int strip = 1;
            for (int i : inTime) {
                int station = match.photos().get(i).station();
                Optional<Exposure> planned =
                        station > 0 ? Optional.of(plan.flight().exposures().get(station - 1)) : Optional.empty();
                strip = planned.map(Exposure::line).orElse(strip);
                Optional<Exposure> photo = photo(i, planned, releases);
                if (photo.isPresent()) {
                    releases.add(new FlownLines.Release(
                            photo.orElseThrow(), strip, match.photos().get(i).seconds()));
                    used.add(i);
                }
            }
            return new TakenFlight(
                    FlownLines.of(
                            releases, plan.flight().launch(), plan.flight().takeOffUpM()),
                    used,
                    lowered,
                    placed);
        }

        /** By time; without one, by the station's. */
        private double order(int i) {
            TakeMatch.Matched one = match.photos().get(i);
            if (!Double.isNaN(one.seconds())) {
                return one.seconds();
            }
            return one.station() > 0 ? match.stations().get(one.station() - 1).plannedS() : Double.MAX_VALUE;
        }

        private Optional<Exposure> photo(int i, Optional<Exposure> planned, List<FlownLines.Release> before) {
            Optional<Fix> fix = match.photos().get(i).frozen()
                    ? Optional.empty()
                    : photos.get(i).fix();
            Optional<PlanePoint> place = fix.map(Fix::place).map(plan.block().plane()::toPlane);
            if (place.isEmpty() && planned.isEmpty()) {
                return Optional.empty();
            }
            placed += place.isPresent() ? 1 : 0;
            PlanePoint at = place.orElseGet(() -> planned.orElseThrow().point());
            Optional<Exposure> like = planned.isPresent() || before.isEmpty()
                    ? planned
                    : Optional.of(before.get(before.size() - 1).photo());
            double usualUp = like.map(Exposure::upM).orElseGet(this::usualUp);
            double up = fix.isPresent() && fix.orElseThrow().upM().isPresent()
                    ? fix.orElseThrow().upM().getAsDouble() - lowered
                    : usualUp;
            double convergence = plan.block().plane().convergenceRad();
            Pose turned = like.map(Exposure::pose).orElse(Pose.vertical(0, 0, 0, 0));
            Pose pose = new Pose(
                    at.xM(),
                    at.yM(),
                    up,
                    fix.isPresent() && fix.orElseThrow().yawDeg().isPresent()
                            ? Math.toRadians(fix.orElseThrow().yawDeg().getAsDouble()) - convergence
                            : turned.yawRad(),
                    fix.isPresent() && fix.orElseThrow().pitchDeg().isPresent()
                            ? Math.toRadians(fix.orElseThrow().pitchDeg().getAsDouble())
                            : turned.pitchRad(),
                    fix.isPresent() && fix.orElseThrow().rollDeg().isPresent()
                            ? Math.toRadians(fix.orElseThrow().rollDeg().getAsDouble())
                            : turned.rollRad());
            return Optional.of(new Exposure(
                    1,
                    like.map(Exposure::pass).orElse(1),
                    1,
                    pose,
                    lens(i, like),
                    like.map(Exposure::trackRad).orElse(0.0)));
        }

        private double usualUp() {
            return Median.of(
                    plan.flight().exposures().stream().map(Exposure::upM).toList());
        }

        /** The plan's lens, or one as much longer as the file says. */
        private Lens lens(int i, Optional<Exposure> like) {
            Lens lens = like.map(Exposure::lens).orElse(Lens.of(plan.request().camera()));
            double own = photos.get(i).facts().camera().focalMm().orElse(0);
            double usual = plan.request().camera().focalLengthM() * 1000;
            if (!match.photos().get(i).otherLens() || own == 0) {
                return lens;
            }
            double longer = own / usual;
            return new Lens(
                    lens.width(),
                    lens.height(),
                    lens.fx() * longer,
                    lens.fy() * longer,
                    lens.cx(),
                    lens.cy(),
                    lens.distortion());
        }
    }
}
