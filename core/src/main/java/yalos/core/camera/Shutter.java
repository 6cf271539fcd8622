package yalos.core.camera;

import static yalos.core.fault.InputFault.within;

/**
 * How a camera exposes.
 *
 * @param kind mechanical and global shutters expose the whole image at once
 * @param readoutS time a rolling shutter takes from the first row to the last, in seconds; 0 for the others
 */
public record Shutter(Kind kind, double readoutS) {
    /** The kinds of shutter that matter to a moving camera. */
    public enum Kind {
        MECHANICAL("mechanical"),
        GLOBAL("global electronic"),
        ROLLING("rolling electronic");

        private final String words;

        Kind(String words) {
            this.words = words;
        }

        /** What it is called on the page. */
        public String words() {
            return words;
        }
    }

    public Shutter {
        within("readoutS", readoutS, 0, 1, "s");
        if (kind != Kind.ROLLING) {
            readoutS = 0;
        }
    }

    /** A mechanical shutter. */
    public static Shutter mechanical() {
        return new Shutter(Kind.MECHANICAL, 0);
    }

    /** An electronic shutter that exposes the whole image at once. */
    public static Shutter global() {
        return new Shutter(Kind.GLOBAL, 0);
    }

    /** A rolling shutter that reads its rows over so many seconds. */
    public static Shutter rolling(double readoutS) {
        return new Shutter(Kind.ROLLING, readoutS);
    }
}
