package yalos.core.brief;

import java.util.EnumSet;
import java.util.Set;

/**
 * What the site is like, as far as it changes the plan.
 *
 * @param bareEarth whether the ground itself is wanted, without plants and buildings
 * @param vegetation whether grass or undergrowth hides the ground
 * @param difficulties what will make the day harder
 */
public record Site(boolean bareEarth, boolean vegetation, Set<Difficulty> difficulties) {
    public static final Site PLAIN = new Site(false, false, Set.of());

    public Site {
        difficulties = difficulties.isEmpty() ? Set.of() : EnumSet.copyOf(difficulties);
    }

    /** Something about a site that a practitioner asks about before going. */
    public enum Difficulty {
        RELIEF(
                "wide relief",
                "follow the ground, or plan on its highest part: overlap is least there, GSD coarsest in the hollows"),
        EXTENT("far ends out of sight", "split the block, or launch from several places within sight of what is flown"),
        TAKE_OFF("little room to take off", "find and clear a launch place first; look up for branches and wires"),
        OBSTACLES("masts, wires or tall trees", "measure their heights; set height and return height above them"),
        PEOPLE("people or traffic", "agree on times, set cordons and a watcher; your rules on distance come first"),
        NO_NETWORK("no mobile network", "corrections by network fail: carry a base, or log for PPK");

        private final String words;
        private final String advice;

        Difficulty(String words, String advice) {
            this.words = words;
            this.advice = advice;
        }

        /** What it is called on the page. */
        public String words() {
            return words;
        }

        /** What practitioners do about it (common practice). */
        public String advice() {
            return advice;
        }
    }
}
