package yalos.core.surface;

import java.util.List;
import java.util.function.Function;

/** Several things that stand in the way, each for itself. */
record Occluders(List<Occluder> all) implements Occluder {
    @Override
    public Sight towards(Box from, double eyeX, double eyeY, double eyeZ) {
        return together(one -> one.towards(from, eyeX, eyeY, eyeZ));
    }

    @Override
    public Sight towards(Box from, double[] hull, double eyeX, double eyeY, double eyeZ) {
        return together(one -> one.towards(from, hull, eyeX, eyeY, eyeZ));
    }

    private Sight together(Function<Occluder, Sight> each) {
        List<Sight> sights =
                all.stream().map(each).filter(sight -> sight != Sight.FREE).toList();
        return switch (sights.size()) {
            case 0 -> Sight.FREE;
            case 1 -> sights.get(0);
            default -> (x, y, z) -> sights.stream().allMatch(sight -> sight.clear(x, y, z));
        };
    }
}
