package yalos.core.sortie;

import java.util.Optional;
import yalos.core.fault.Patience;
import yalos.core.flight.Exposure;
import yalos.core.geodesy.PlanePoint;

/** How high must the aircraft come home, so that every straight way home clears all that lies and stands on it? */
public final class ReturnHeight {
    private static final int PHOTOS = 300;

    private ReturnHeight() {}

    /**
     * @param aboveTakeOffM in whole metres, the margin included
     * @param top highest thing on any of the ways, above the geoid
     * @param photo from which that way leads home
     */
    public record Needed(double aboveTakeOffM, Surroundings.Top top, Exposure photo) {}

    /**
     * Over the ways from about {@value #PHOTOS} photos, each looked at every five metres and as far to the side as the margin is wide.
     *
     * @param marginM kept above it
     * @return empty where no ground is known on any of them
     */
    public static Optional<Needed> of(Surroundings around, PlanePoint launch, double takeOffUpM, double marginM) {
        Surroundings.Top highest = new Surroundings.Top(Double.NEGATIVE_INFINITY, launch);
        Exposure from = null;
        for (Exposure photo : around.photos(PHOTOS)) {
            Patience.check();
            Surroundings.Top top = around.topBetween(photo.point(), launch, marginM);
            if (top.upM() > highest.upM()) {
                highest = top;
                from = photo;
            }
        }
        if (from == null) {
            return Optional.empty();
        }
        double above = Math.ceil(highest.upM() + marginM - takeOffUpM - 0.01);
        return Optional.of(new Needed(above, highest, from));
    }

    /** How far above everything on the way home from a photo a set return height is; negative where it would fly into it. */
    public static double clearanceM(Surroundings around, Homing homing, Exposure photo, double reachM) {
        double up = Math.max(homing.returnUpM(), photo.upM());
        return up - around.topBetween(photo.point(), homing.launch(), reachM).upM();
    }
}
