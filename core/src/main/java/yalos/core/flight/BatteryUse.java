package yalos.core.flight;

import java.util.ArrayList;
import java.util.List;

/**
 * How many battery sets does a flight take, when each must bring the aircraft home to be changed?
 *
 * <p>Flown as far as each set carries: to the last photo from which it still comes home with its reserve, home, changed, back to that
 * photo, on. Trips are straight at the height of the photo. Where the launch point is unknown there are no trips and the time is simply
 * parted. Sorties proper, cut for evenness and with energy instead of time, come later in the order of work.
 *
 * @param sets in whole sets; 0 where the flight cannot be flown at all
 * @param tripsS seconds flown to change batteries
 * @param leftS seconds left in the last set, its reserve untouched
 * @param carries whether each set carries on beyond the way out and home; if not, {@code sets} is the least it could be
 * @param changes of sets on the way, in their order; empty where the launch point is unknown
 */
public record BatteryUse(int sets, double tripsS, double leftS, boolean carries, List<Change> changes) {
    public BatteryUse {
        changes = List.copyOf(changes);
    }

    /** One that needs no change on the way, or of which nobody knows where. */
    public BatteryUse(int sets, double tripsS, double leftS, boolean carries) {
        this(sets, tripsS, leftS, carries, List.of());
    }

    /**
     * A fresh set put in.
     *
     * @param atS seconds of the timeline at which the aircraft turned home
     * @param usedS seconds of the fresh set that the way back to that place takes
     */
    public record Change(double atS, double usedS) {}

    /** So little over a set's time is rounding, not flying. */
    private static final double DUST_S = 1e-6;

    /**
     * @param usableS seconds that a set carries the aircraft, its reserve untouched
     */
    public static BatteryUse of(Timeline timeline, double usableS) {
        double total = timeline.totalS();
        if (!Double.isFinite(total)) {
            return new BatteryUse(0, 0, 0, false);
        }
        if (total <= usableS + DUST_S) {
            return new BatteryUse(1, 0, usableS - total, true);
        }
        if (timeline.flight().launch().isEmpty()) {
            int sets = (int) Math.ceil(total / usableS - 1e-9);
            return new BatteryUse(sets, 0, sets * usableS - total, true);
        }
        return new Cutting(timeline, usableS).use();
    }

    /**
     * What is in the aircraft at a moment.
     *
     * @param set its number, from 1
     * @param usedS seconds of it that are flown
     */
    public record Charge(int set, double usedS) {}

    /**
     * @param atS seconds of the timeline
     */
    public Charge at(double atS) {
        int set = 1;
        double used = atS;
        for (Change change : changes) {
            if (change.atS() <= atS) {
                set++;
                used = change.usedS() + atS - change.atS();
            }
        }
        return new Charge(set, used);
    }

    /** Walks along the photos and changes batteries where it must. */
    private static final class Cutting {
        private final Timeline timeline;
        private final double usableS;
        private final double[] photosS;
        private int sets = 1;
        private double tripsS;
        private final List<Change> changes = new ArrayList<>();

        Cutting(Timeline timeline, double usableS) {
            this.timeline = timeline;
            this.usableS = usableS;
            this.photosS = timeline.exposuresS();
        }

        BatteryUse use() {
            double total = timeline.totalS();
            double start = 0;
            double back = 0;
            int next = 0;
            while (back + total - start > usableS + DUST_S) {
                int cut = lastFrom(next, start, back);
                if (cut < 0) {
                    int least = (int) Math.ceil((total + tripsS) / usableS - 1e-9);
                    return new BatteryUse(Math.max(least, sets + 1), tripsS, 0, false);
                }
                Place place = placeOf(cut);
                tripsS += timeline.homeS(place) + timeline.backS(place);
                back = timeline.backS(place);
                start = photosS[cut];
                changes.add(new Change(start, back));
                next = cut + 1;
                sets++;
            }
            return new BatteryUse(sets, tripsS, usableS - (back + total - start), true, changes);
        }

        /** The last photo that a set reaches and still comes home from; -1 for none. The way home is only asked for from the far end. */
        private int lastFrom(int first, double startS, double backS) {
            int last = first;
            while (last < photosS.length && backS + photosS[last] - startS <= usableS) {
                last++;
            }
            for (int i = last - 1; i >= first; i--) {
                if (backS + photosS[i] - startS + timeline.homeS(placeOf(i)) <= usableS) {
                    return i;
                }
            }
            return -1;
        }

        private Place placeOf(int photo) {
            Exposure exposure = timeline.flight().exposures().get(photo);
            return new Place(exposure.pose().eastM(), exposure.pose().northM(), exposure.upM());
        }
    }
}
