package yalos.core.sortie;

import java.util.Comparator;
import java.util.Optional;
import yalos.core.flight.Leg;
import yalos.core.flight.Place;
import yalos.core.flight.Way;
import yalos.core.geodesy.PlanePoint;
import yalos.core.site.Zone;

/**
 * What to set on the aircraft before it takes off from a launch point: how far and how high it may go.
 *
 * @param farthestM level distance of the farthest place of its sorties
 * @param fenceM the same with the margin, in whole tens of metres
 * @param highestM above take-off, return height included
 * @param ceilingM the same with five metres to spare, whole
 * @param lowestNear least height above ground and obstacles where a zone of caution lies beneath, and its name; empty where none does
 */
public record Fences(double farthestM, double fenceM, double highestM, double ceilingM, Optional<Low> lowestNear) {
    private static final double SPARE_M = 5;
    private static final double STEP_M = 15;

    /** A low place over something that asks for caution. */
    public record Low(String zone, double aboveM, PlanePoint at) {}

    /**
     * @param launch index of the launch point
     */
    public static Fences of(Sorties sorties, int launch) {
        Surroundings around = sorties.given().around();
        Homing homing = sorties.launches().get(launch);
        double farthest = 0;
        double highest = homing.returnUpM();
        Low low = null;
        for (Sortie sortie : sorties.all()) {
            if (sortie.launch() != launch) {
                continue;
            }
            for (Leg leg : sortie.flight().legs()) {
                highest =
                        Math.max(highest, Math.max(leg.start().upM(), leg.end().upM()));
                if (leg instanceof Way way) {
                    int steps = (int) Math.max(1, Math.ceil(way.lengthM() / STEP_M));
                    for (int i = 0; i <= steps; i++) {
                        Place place = way.placeAt(way.lengthM() * i / steps);
                        farthest = Math.max(farthest, place.point().distanceM(homing.launch()));
                        highest = Math.max(highest, place.upM());
                        low = lower(around, place, low);
                    }
                }
            }
        }
        double above = highest - homing.takeOffUpM();
        return new Fences(
                farthest,
                Math.ceil((farthest + sorties.given().settings().fenceM()) / 10) * 10,
                above,
                Math.ceil(above + SPARE_M),
                Optional.ofNullable(low));
    }

    private static Low lower(Surroundings around, Place place, Low low) {
        if (!around.site().hasZones()) {
            return low;
        }
        double ground = around.groundM(place.point());
        double above = place.upM() - ground - around.site().obstacleM(place.xM(), place.yM(), STEP_M);
        return around.site().zonesAt(place.xM(), place.yM(), 0).stream()
                .filter(zone -> zone.kind() == Zone.Kind.CAUTION)
                .map(zone -> new Low(zone.name(), above, place.point()))
                .filter(one -> low == null || one.aboveM() < low.aboveM())
                .min(Comparator.comparingDouble(Low::aboveM))
                .orElse(low);
    }
}
