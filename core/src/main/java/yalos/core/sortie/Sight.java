package yalos.core.sortie;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import yalos.core.fault.Patience;
import yalos.core.flight.Leg;
import yalos.core.flight.Place;
import yalos.core.flight.Way;
import yalos.core.geodesy.PlanePoint;
import yalos.core.terrain.HeightGrid;
import yalos.core.terrain.SightLine;

/**
 * What the pilot sees of the flight, over ground and obstacles, and how small it looks there. Local rules say how far is near enough; so do the eyes.
 *
 * @param samples looked at along the whole way, ways out and home included
 * @param hidden those out of sight
 * @param farthest the sample farthest from the eye
 * @param farthestM straight to it
 * @param arcMinutes the aircraft's size there; about one is the least an eye can make out at all, an outline takes several (textbook, from memory)
 * @param radioPoor samples at which the radio line is not clear
 * @param observer where a second pair of eyes sees most of what is hidden; empty where nothing is, or none would see it
 */
public record Sight(
        List<Place> samples,
        List<Place> hidden,
        Optional<Place> farthest,
        double farthestM,
        double arcMinutes,
        List<Place> radioPoor,
        Optional<Observer> observer) {
    private static final double STEP_M = 15;
    private static final int MOST_SAMPLES = 6000;
    private static final int MOST_RADIO = 600;
    private static final double ANTENNA_M = 1.3;
    /** 2.4 GHz, the longer of the two usual waves. */
    private static final double WAVE_M = 0.125;
    /** Of the first Fresnel zone, below which a link fades (textbook, from memory). */
    private static final double FRESNEL = 0.6;

    private static final int OBSERVER_PLACES = 900;
    private static final int OBSERVER_LOOKS = 250;
    private static final double ROOM_M = 5;

    /**
     * A place for an observer.
     *
     * @param sees share of what the pilot cannot see, 0..1
     */
    public record Observer(PlanePoint at, double sees) {}

    /** Share of the way that is out of the pilot's sight, 0..1. */
    public double hiddenShare() {
        return samples.isEmpty() ? 0 : (double) hidden.size() / samples.size();
    }

    /**
     * @param pilot where the pilot stands
     * @param eyeM above ground
     * @param spanM of the aircraft
     */
    public static Sight of(Sorties sorties, PlanePoint pilot, double eyeM, double spanM) {
        Surroundings around = sorties.given().around();
        HeightGrid surface = around.surface();
        double ground = around.takeOffM(pilot);
        List<Place> samples = samples(sorties);
        if (Double.isNaN(ground) || samples.isEmpty()) {
            return new Sight(samples, samples, Optional.empty(), 0, 0, samples, Optional.empty());
        }
        SightLine line = SightLine.forManyRays(surface);
        double eye = ground + eyeM;
        List<Place> hidden = new ArrayList<>();
        Place farthest = samples.get(0);
        double farthestM = 0;
        for (Place place : samples) {
            Patience.check();
            if (!sees(line, pilot, eye, place)) {
                hidden.add(place);
            }
            double distance = distanceM(pilot, eye, place);
            if (distance > farthestM) {
                farthestM = distance;
                farthest = place;
            }
        }
        List<Place> radioPoor = new ArrayList<>();
        int every = Math.max(1, samples.size() / MOST_RADIO);
        for (int i = 0; i < samples.size(); i += every) {
            if (!radioClear(surface, pilot, ground + ANTENNA_M, samples.get(i))) {
                radioPoor.add(samples.get(i));
            }
        }
        return new Sight(
                samples,
                hidden,
                Optional.of(farthest),
                farthestM,
                Math.toDegrees(Math.atan2(spanM, farthestM)) * 60,
                radioPoor,
                observer(around, line, hidden, pilot, eyeM));
    }

    /** Share of the looked-at way on which the radio line is not clear, 0..1. */
    public double radioPoorShare() {
        int every = Math.max(1, samples.size() / MOST_RADIO);
        int looked = (samples.size() + every - 1) / every;
        return looked == 0 ? 0 : (double) radioPoor.size() / looked;
    }

    private static List<Place> samples(Sorties sorties) {
        double length = sorties.all().stream()
                .mapToDouble(sortie -> sortie.flight().pathLengthM())
                .sum();
        double step = Math.max(STEP_M, length / MOST_SAMPLES);
        List<Place> samples = new ArrayList<>();
        for (Sortie sortie : sorties.all()) {
            for (Leg leg : sortie.flight().legs()) {
                if (leg instanceof Way way && way.lengthM() > 0) {
                    int steps = (int) Math.max(1, Math.round(way.lengthM() / step));
                    for (int i = 0; i < steps; i++) {
                        samples.add(way.placeAt(way.lengthM() * (i + 0.5) / steps));
                    }
                }
            }
        }
        return samples;
    }

    private static boolean sees(SightLine line, PlanePoint eyeAt, double eye, Place place) {
        return line.clear(place.xM(), place.yM(), place.upM(), eyeAt.xM(), eyeAt.yM(), eye);
    }

    private static double distanceM(PlanePoint from, double up, Place to) {
        return Math.hypot(from.distanceM(to.point()), to.upM() - up);
    }

    /** Whether ground and obstacles keep out of most of the first Fresnel zone, looked at every few metres. */
    private static boolean radioClear(HeightGrid surface, PlanePoint from, double up, Place to) {
        double length = distanceM(from, up, to);
        double level = from.distanceM(to.point());
        int steps = (int) Math.max(2, Math.min(400, level / 4));
        for (int i = 1; i < steps; i++) {
            double share = (double) i / steps;
            double x = from.xM() + (to.xM() - from.xM()) * share;
            double y = from.yM() + (to.yM() - from.yM()) * share;
            double zone = FRESNEL * Math.sqrt(WAVE_M * length * share * (1 - share));
            // Near the hand the ground is always near; what counts is what stands in the way.
            double needed = share * level < 10 ? 0 : zone;
            if (surface.at(x, y) > up + (to.upM() - up) * share - needed) {
                return false;
            }
        }
        return true;
    }

    private static Optional<Observer> observer(
            Surroundings around, SightLine line, List<Place> hidden, PlanePoint pilot, double eyeM) {
        if (hidden.isEmpty()) {
            return Optional.empty();
        }
        int every = Math.max(1, hidden.size() / OBSERVER_LOOKS);
        List<Place> looked = new ArrayList<>();
        for (int i = 0; i < hidden.size(); i += every) {
            looked.add(hidden.get(i));
        }
        HeightGrid ground = around.ground();
        double step = Math.sqrt((ground.east() - ground.west()) * (ground.north() - ground.south()) / OBSERVER_PLACES);
        Observer best = null;
        for (double x = ground.west() + step / 2; x < ground.east(); x += step) {
            for (double y = ground.south() + step / 2; y < ground.north(); y += step) {
                Patience.check();
                PlanePoint at = new PlanePoint(x, y);
                double up = around.groundM(at) + eyeM;
                if (Double.isNaN(up) || !around.hasRoom(at, ROOM_M)) {
                    continue;
                }
                double sees = (double) looked.stream()
                                .filter(place -> sees(line, at, up, place))
                                .count()
                        / looked.size();
                boolean more = best == null || sees > best.sees + 0.02;
                boolean nearer = best != null && sees >= best.sees && at.distanceM(pilot) < best.at.distanceM(pilot);
                if (sees > 0 && (more || nearer)) {
                    best = new Observer(at, sees);
                }
            }
        }
        return Optional.ofNullable(best);
    }
}
