package yalos.core.flight;

import java.util.List;

/** Where one leg goes over into the next: a corner that a multirotor brakes for, or a bend that it flies through. */
public final class Joint {
    private static final double SMOOTH = Math.cos(Math.toRadians(0.5));

    private Joint() {}

    /**
     * Whether the path goes on without a corner: straight into an arc, out of it, or along the straight piece between an arc and a line.
     *
     * @param before index of the leg before
     */
    public static boolean smooth(List<? extends Leg> legs, int before) {
        if (before < 0
                || before + 1 >= legs.size()
                || !(legs.get(before) instanceof Way one)
                || !(legs.get(before + 1) instanceof Way other)) {
            return false;
        }
        boolean bends = arc(legs, before)
                || arc(legs, before + 1)
                || one instanceof Line && arc(legs, before + 2)
                || other instanceof Line && arc(legs, before - 1);
        return bends && Math.cos(one.trackRadAt(one.lengthM()) - other.trackRadAt(0)) > SMOOTH;
    }

    private static boolean arc(List<? extends Leg> legs, int at) {
        return at >= 0 && at < legs.size() && legs.get(at) instanceof Arc;
    }
}
