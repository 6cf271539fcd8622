package yalos.core.rehearsal;

import java.util.Set;
import yalos.core.camera.Pose;

/**
 * A release of the shutter.
 *
 * @param number in the order taken, from 1, as files are named
 * @param station of the plan, from 1; 0 for one that was pressed for
 * @param seconds since the rehearsal began
 * @param truly the image's pose as it was
 * @param known the same as the aircraft believed
 * @param flaws what is wrong with it
 * @param blurPx motion over the ground while it was exposed
 * @param stops by which it is too bright, or too dark where negative
 * @param sigmaM of its position as it is written into the file
 * @param fixed whether ambiguities were fixed
 */
public record Shot(
        int number,
        int station,
        double seconds,
        Pose truly,
        Pose known,
        Set<Flaw> flaws,
        double blurPx,
        double stops,
        double sigmaM,
        boolean fixed) {

    /** What may be wrong with a photo. */
    public enum Flaw {
        TEST("test photo"),
        MISSING("not written"),
        BLURRED("blurred"),
        DARK("too dark"),
        BRIGHT("too bright"),
        UNFIXED("position not fixed"),
        LOW("from too low");

        private final String words;

        Flaw(String words) {
            this.words = words;
        }

        public String words() {
            return words;
        }
    }

    public Shot {
        flaws = Set.copyOf(flaws);
    }

    /** Whether there is a file of it. */
    public boolean written() {
        return !flaws.contains(Flaw.MISSING);
    }

    /** Whether its station need not be flown again: a file that is sharp and well exposed; how its position is known is another matter. */
    public boolean good() {
        return station > 0
                && written()
                && !flaws.contains(Flaw.BLURRED)
                && !flaws.contains(Flaw.DARK)
                && !flaws.contains(Flaw.BRIGHT)
                && !flaws.contains(Flaw.LOW);
    }
}
