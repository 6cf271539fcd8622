package yalos.core.control;

import yalos.core.block.Outline;
import yalos.core.fault.Names;

/** Ground on which no target can lie, drawn by the operator. */
public record Avoided(String name, Kind kind, Outline outline) {
    /** Why not. */
    public enum Kind {
        TREES("trees overhead"),
        WATER("water"),
        TRAFFIC("traffic"),
        CLOSED("no access");

        private final String words;

        Kind(String words) {
            this.words = words;
        }

        public String words() {
            return words;
        }
    }

    public Avoided {
        name = Names.given(name, kind.words());
    }
}
