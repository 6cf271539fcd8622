package yalos.core.rehearsal;

import java.util.EnumSet;
import java.util.Optional;
import java.util.Set;
import yalos.core.camera.Camera;
import yalos.core.camera.Pose;
import yalos.core.ledger.CameraCard;
import yalos.core.pattern.StructureFlight;
import yalos.core.plan.BlockPlan;

/** The simulated camera: what becomes of a release of its shutter, by its card, its interval, the light, how it moves and what is wrong with it. */
final class Releases {
    /** The usual shutter of a bright day, where the plan's longest is longer. */
    private static final double BRIGHT_S = 1 / 800.0;

    private static final double CLOUD_STOPS = -2.1;
    private static final double DARK_STOPS = -1.3;
    private static final double BLUR_PX = 1.2;
    /** A hard gust turns the camera faster than it flies: so many pixels more, above so many metres a second and pixels together. */
    private static final double SHAKEN_PX = 2.5;

    private static final double SHAKEN_ABOVE = 4.5;
    private static final double LOW_SHARE = 0.88;
    /** So much of its stand-off a photo of an object may be too low. */
    private static final double OFF_SHARE = 0.5;

    private static final double SKIPS = 0.4;

    private final Camera camera;
    private final BlockPlan plan;
    private final double shutterS;
    private final boolean precise;
    private double lastS = Double.NEGATIVE_INFINITY;
    private int onCard;
    private int released;

    Releases(BlockPlan plan) {
        this.camera = plan.request().camera();
        this.plan = plan;
        this.shutterS = Math.min(BRIGHT_S, CameraCard.longestShutterS(plan));
        this.precise = plan.request().aircraft().positioning().horizontalM() < 1;
    }

    /**
     * A release.
     *
     * @param station of the plan, from 1; 0 for a test
     * @param seconds when
     * @param known where the aircraft believes it is, and {@code truly} where it is
     * @param groundMps over the ground
     * @param groundM height of the ground below
     * @param chance drawn for it, 0..1
     */
    record Release(
            int station, double seconds, Pose known, Pose truly, double groundMps, double groundM, double chance) {}

    Shot shot(Release one, FaultWatch faults, Receiver receiver, Air air) {
        Set<Shot.Flaw> flaws = EnumSet.noneOf(Shot.Flaw.class);
        boolean off = faults.mending(Fault.STUCK_SHUTTER, one.seconds());
        boolean skipped = faults.lasts(Fault.SKIPPED_PHOTOS) && one.chance() < SKIPS;
        boolean tooSoon = one.seconds() - lastS < camera.minIntervalS() - 1e-6;
        if (off || skipped || tooSoon || full() || faults.lasts(Fault.STUCK_SHUTTER)) {
            flaws.add(Shot.Flaw.MISSING);
        } else {
            lastS = one.seconds();
            onCard++;
        }
        if (one.station() == 0) {
            flaws.add(Shot.Flaw.TEST);
        }
        Optional<StructureFlight.OfPass> round = round(one.station());
        double gsdM = round.map(StructureFlight.OfPass::gsdM)
                .orElse(plan.design().scale().gsdM());
        double blur = one.groundMps() * shutterS / gsdM;
        double shaken = blur + Math.hypot(air.gustX(), air.gustY()) > SHAKEN_ABOVE ? blur + SHAKEN_PX : blur;
        if (shaken > BLUR_PX) {
            flaws.add(Shot.Flaw.BLURRED);
        }
        double stops = faults.lasts(Fault.CLOUD) ? CLOUD_STOPS : 0;
        if (stops < DARK_STOPS) {
            flaws.add(Shot.Flaw.DARK);
        }
        boolean fixed = receiver.solution() == Receiver.Solution.FIXED;
        if (!fixed && precise) {
            flaws.add(Shot.Flaw.UNFIXED);
        }
        double mostLow = round.map(pass -> OFF_SHARE * pass.standOffM())
                .orElse((1 - LOW_SHARE) * (one.known().upM() - one.groundM()));
        if (one.station() > 0 && one.known().upM() - one.truly().upM() > mostLow) {
            flaws.add(Shot.Flaw.LOW);
        }
        return new Shot(
                ++released,
                one.station(),
                one.seconds(),
                one.truly(),
                one.known(),
                flaws,
                shaken,
                stops,
                receiver.horizontalM(),
                fixed);
    }

    /** The pass round an object that a station belongs to; empty over the ground. */
    private Optional<StructureFlight.OfPass> round(int station) {
        return station == 0
                ? Optional.empty()
                : plan.structures()
                        .flatMap(objects -> objects.pass(
                                plan.flight().exposures().get(station - 1).pass()));
    }

    /** Whether the card holds no more. */
    boolean full() {
        return onCard
                >= Math.min(
                        camera.storage().photosPerFlight(),
                        camera.storage().cardBytes() / camera.storage().bytesPerPhoto());
    }

    /** Photos on the card. */
    int written() {
        return onCard;
    }
}
