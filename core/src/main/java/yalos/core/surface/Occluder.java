package yalos.core.surface;

import java.util.List;

/** What stands between a place and a camera: terrain, solids, or several of them. */
public interface Occluder {
    /** Nothing stands in the way of anything. */
    Occluder NONE = (from, eyeX, eyeY, eyeZ) -> Sight.FREE;

    /** Prepares for lines from the places in a box to one eye. */
    Sight towards(Box from, double eyeX, double eyeY, double eyeZ);

    /**
     * The same where it is known better than by a box where the places lie: what stands wholly beyond them is then not looked at again and again.
     *
     * @param hull x and y of places between which all of them lie, seen from above
     */
    default Sight towards(Box from, double[] hull, double eyeX, double eyeY, double eyeZ) {
        return towards(from, eyeX, eyeY, eyeZ);
    }

    /** Lines of sight to one eye. */
    interface Sight {
        /** No line from the box can be blocked. */
        Sight FREE = (x, y, z) -> true;

        /** Whether nothing stands between a place in the box and the eye. */
        boolean clear(double x, double y, double z);
    }

    /** Whatever any of them hides is hidden. */
    static Occluder all(List<Occluder> occluders) {
        return new Occluders(occluders);
    }
}
