package yalos.core.logbook;

import java.util.List;
import yalos.core.flight.Exposure;
import yalos.core.geodesy.PlanePoint;
import yalos.core.plan.BlockPlan;

/**
 * How far the photos of a plan lie from those of an earlier one, each from the one of its number.
 *
 * @param photos then
 * @param now photos now; where they are not as many nothing else is known
 * @param levelM of the farthest, on the ground
 * @param upM of the one whose height changed most
 */
public record Moved(int photos, int now, double levelM, double upM) {
    private static final double SAME_M = 1e-3;

    public static Moved between(BlockPlan then, BlockPlan now) {
        List<Exposure> was = then.flight().exposures();
        List<Exposure> is = now.flight().exposures();
        double level = 0;
        double up = 0;
        for (int i = 0; i < was.size() && was.size() == is.size(); i++) {
            PlanePoint there = now.block()
                    .plane()
                    .toPlane(then.block().plane().toLonLat(was.get(i).point()));
            level = Math.max(level, there.distanceM(is.get(i).point()));
            up = Math.max(up, Math.abs(was.get(i).upM() - is.get(i).upM()));
        }
        return new Moved(was.size(), is.size(), level, up);
    }

    /** Whether every photo is taken where it was, to a millimetre. */
    public boolean same() {
        return photos == now && levelM < SAME_M && upM < SAME_M;
    }

    /** In a sentence. */
    public String words() {
        if (photos != now) {
            return "%,d photos then, %,d now: the lines are not the same.".formatted(photos, now);
        }
        return same()
                ? "All %,d photos are taken where they were.".formatted(photos)
                : "%,d photos; the farthest lies %.2f m beside and %.2f m above or below where it was."
                        .formatted(photos, levelM, upM);
    }
}
