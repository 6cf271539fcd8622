package yalos.core.sortie;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import yalos.core.fault.Patience;
import yalos.core.flight.Exposure;
import yalos.core.flight.Place;
import yalos.core.geodesy.PlanePoint;
import yalos.core.site.Obstacle;
import yalos.core.site.Zone;

/**
 * What coming home by itself would meet, strip by strip: the aircraft flies straight, whatever lies there.
 *
 * @param number of the strip in the flight, from 1
 * @param clearanceM least height over ground and obstacles on the straight ways home from its photos; not a number where nobody knows them
 * @param crossed keep-out zones on these ways
 * @param pauseS how long it could hang there at the worst of its photos and still come home with the reserve
 * @param below what stands below its photos, if anything: an aircraft that lands there lands on it
 */
public record LinkLoss(int number, double clearanceM, List<String> crossed, double pauseS, List<String> below) {
    private static final double STEP_M = 10;
    private static final int LOOKS = 4;

    /** Of every strip of all sorties. */
    public static List<LinkLoss> of(Sorties sorties) {
        Surroundings around = sorties.given().around();
        double reach = sorties.given().settings().marginM();
        Draw draw = sorties.given().draw();
        Map<Integer, LinkLoss> strips = new LinkedHashMap<>();
        for (Sortie sortie : sorties.all()) {
            double[] taken = sortie.tally().atPhotos();
            List<Exposure> photos = sortie.flight().exposures();
            for (int from = 0, to; from < photos.size(); from = to) {
                int strip = sortie.flight().line(photos.get(from).line()).strip();
                to = from + 1;
                while (to < photos.size()
                        && sortie.flight().line(photos.get(to).line()).strip() == strip) {
                    to++;
                }
                Patience.check();
                LinkLoss loss = strip(sortie, strip, photos.subList(from, to), taken, from, around, reach, draw);
                strips.merge(strip, loss, LinkLoss::worse);
            }
        }
        return List.copyOf(strips.values());
    }

    private static LinkLoss strip(
            Sortie sortie,
            int strip,
            List<Exposure> photos,
            double[] taken,
            int first,
            Surroundings around,
            double reach,
            Draw draw) {
        double clearance = Double.POSITIVE_INFINITY;
        double margin = Double.POSITIVE_INFINITY;
        List<String> crossed = new ArrayList<>();
        List<String> below = new ArrayList<>();
        int every = Math.max(1, (photos.size() - 1) / LOOKS);
        for (int i = 0; i < photos.size(); i++) {
            Exposure photo = photos.get(i);
            double home = sortie.homing().homeTakes(draw, Place.over(photo.point(), photo.upM()));
            margin = Math.min(margin, sortie.usable() - taken[first + i] - home);
            around.site().obstaclesNear(photo.point().xM(), photo.point().yM(), 2).stream()
                    .map(Obstacle::name)
                    .filter(name -> !below.contains(name))
                    .forEach(below::add);
            if (i % every == 0 || i + 1 == photos.size()) {
                clearance = Math.min(clearance, ReturnHeight.clearanceM(around, sortie.homing(), photo, reach));
                crossing(
                                around,
                                photo.point(),
                                sortie.homing().launch(),
                                sortie.homing().returnUpM())
                        .stream()
                        .filter(name -> !crossed.contains(name))
                        .forEach(crossed::add);
            }
        }
        return new LinkLoss(strip, clearance, crossed, Math.max(0, margin / draw.vertical(0)), below);
    }

    /** Zones on the straight way at a height. */
    private static List<String> crossing(Surroundings around, PlanePoint from, PlanePoint to, double upM) {
        if (!around.site().hasZones()) {
            return List.of();
        }
        List<String> names = new ArrayList<>();
        double length = from.distanceM(to);
        int steps = (int) Math.max(1, Math.ceil(length / STEP_M));
        for (int i = 0; i <= steps; i++) {
            double share = (double) i / steps;
            PlanePoint at = new PlanePoint(
                    from.xM() + (to.xM() - from.xM()) * share, from.yM() + (to.yM() - from.yM()) * share);
            double ground = around.groundM(at);
            double above = upM - (Double.isNaN(ground) ? 0 : ground);
            around.site().zonesAt(at.xM(), at.yM(), above).stream()
                    .filter(zone -> zone.kind() != Zone.Kind.CAUTION)
                    .map(Zone::name)
                    .filter(name -> !names.contains(name))
                    .forEach(names::add);
        }
        return names;
    }

    private LinkLoss worse(LinkLoss other) {
        List<String> both = new ArrayList<>(crossed);
        other.crossed.stream().filter(name -> !both.contains(name)).forEach(both::add);
        return new LinkLoss(
                number,
                Math.min(clearanceM, other.clearanceM),
                both,
                Math.min(pauseS, other.pauseS),
                below.isEmpty() ? other.below : below);
    }

    /** The strip on which a return would come nearest to what lies below; empty where nobody knows. */
    public static Optional<LinkLoss> nearest(List<LinkLoss> strips) {
        return strips.stream()
                .filter(loss -> !Double.isNaN(loss.clearanceM))
                .min(Comparator.comparingDouble(LinkLoss::clearanceM));
    }
}
