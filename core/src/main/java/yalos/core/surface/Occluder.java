package yalos.core.surface;

import java.util.List;

/** What stands between a place and a camera: terrain, solids, or several of them. */
public interface Occluder {
    /** Nothing stands in the way of anything. */
    Occluder NONE = (from, eyeX, eyeY, eyeZ) -> Sight.FREE;

    /** Prepares for lines from the places in a box to one eye. */
    Sight towards(Box from, double eyeX, double eyeY, double eyeZ);

    /** Lines of sight to one eye. */
    interface Sight {
        /** No line from the box can be blocked. */
        Sight FREE = (x, y, z) -> true;

        /** Whether nothing stands between a place in the box and the eye. */
        boolean clear(double x, double y, double z);
    }

    /** Whatever any of them hides is hidden. */
    static Occluder all(List<Occluder> occluders) {
        return (from, eyeX, eyeY, eyeZ) -> {
            List<Sight> sights = occluders.stream()
                    .map(one -> one.towards(from, eyeX, eyeY, eyeZ))
                    .filter(sight -> sight != Sight.FREE)
                    .toList();
            return switch (sights.size()) {
                case 0 -> Sight.FREE;
                case 1 -> sights.get(0);
                default -> (x, y, z) -> sights.stream().allMatch(sight -> sight.clear(x, y, z));
            };
        };
    }
}
