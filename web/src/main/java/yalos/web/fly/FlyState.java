package yalos.web.fly;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import yalos.core.block.LocalPlane;
import yalos.core.flight.Place;
import yalos.core.geodesy.EastNorth;
import yalos.core.geodesy.PlanePoint;
import yalos.core.rehearsal.Command;
import yalos.core.rehearsal.Event;
import yalos.core.rehearsal.Phase;
import yalos.core.rehearsal.Sample;
import yalos.core.rehearsal.Shot;
import yalos.core.rehearsal.SimulatedFlight;
import yalos.core.units.UnitChoice;
import yalos.core.units.UnitKind;

/**
 * A moment of a simulated flight as a page shows it. Places are easting and northing in the job's grid, in turn.
 *
 * @param charge of the battery in percent; {@code home} what coming home needs of it
 * @param trail what was flown since the viewer's last moment
 * @param shots photos since then: easting, northing, and 1 for a good one, 0 for another, in turn
 * @param able what can be pressed
 * @param signs of what goes wrong
 * @param events the last ones, the newest first
 * @param profile above the geoid now, and along the strip, for the section
 */
record FlyState(
        long run,
        long tick,
        String clock,
        String phase,
        String mood,
        String headline,
        double east,
        double north,
        double yawDeg,
        int charge,
        int home,
        List<Figure> figures,
        int strip,
        double[] trail,
        double[] shots,
        int samples,
        int allShots,
        List<String> able,
        List<String> signs,
        List<Told> events,
        int speed,
        boolean over,
        double upM) {
    private static final int EVENTS = 14;

    /** A figure of the panel. */
    record Figure(String key, String label, String text, String mood) {}

    /** An event. */
    record Told(String clock, String words, String who) {}

    static FlyState of(LiveRun run, SimulatedFlight flight, UnitChoice units, int samples, int shots) {
        LocalPlane plane = flight.sorties().given().plan().block().plane();
        Place here = flight.truly();
        EastNorth at = plane.toGrid(here.point());
        List<Sample> log = flight.samples();
        int from = Math.min(samples, log.size());
        double[] trail = new double[2 * (log.size() - from)];
        for (int i = from; i < log.size(); i++) {
            EastNorth place = plane.toGrid(log.get(i).truly().point());
            trail[2 * (i - from)] = cm(place.east());
            trail[2 * (i - from) + 1] = cm(place.north());
        }
        List<Shot> all = flight.shots();
        int first = Math.min(shots, all.size());
        double[] taken = new double[3 * (all.size() - first)];
        for (int i = first; i < all.size(); i++) {
            Shot shot = all.get(i);
            EastNorth place = plane.toGrid(
                    new PlanePoint(shot.truly().eastM(), shot.truly().northM()));
            taken[3 * (i - first)] = cm(place.east());
            taken[3 * (i - first) + 1] = cm(place.north());
            taken[3 * (i - first) + 2] = shot.good() ? 1 : 0;
        }
        int charge = (int) Math.floor(100 * flight.charge());
        int home = (int) Math.ceil(100 * flight.home());
        List<Event> events = flight.events();
        List<Told> told = new ArrayList<>();
        for (int i = events.size() - 1; i >= Math.max(0, events.size() - EVENTS); i--) {
            Event event = events.get(i);
            told.add(new Told(clock(event.seconds()), event.words(), event.who()));
        }
        return new FlyState(
                run.id(),
                flight.ticks(),
                clock(flight.seconds()),
                flight.phase().name(),
                mood(flight, charge, home),
                headline(flight, charge, home),
                cm(at.east()),
                cm(at.north()),
                Math.toDegrees(flight.yawRad()),
                charge,
                home,
                figures(flight, units),
                flight.strip(),
                trail,
                taken,
                log.size(),
                all.size(),
                run.ended()
                        ? List.of()
                        : flight.able().stream()
                                .map(Command.Kind::name)
                                .sorted()
                                .toList(),
                flight.signs(),
                told,
                run.speed(),
                flight.over(),
                here.upM());
    }

    private static String mood(SimulatedFlight flight, int charge, int home) {
        if (flight.phase() == Phase.LOST || flight.phase().inTheAir() && charge <= home) {
            return "stop";
        }
        return flight.phase().inTheAir() && charge - home < 8 || !flight.signs().isEmpty() ? "mind" : "done";
    }

    /** Where it is, what is left, whether it still comes home. */
    private static String headline(SimulatedFlight flight, int charge, int home) {
        int photos = flight.sortie().photos();
        int taken = flight.taken().size();
        return switch (flight.phase()) {
            case READY ->
                "Ready: sortie %d, %,d photos".formatted(flight.sortie().number(), photos);
            case LANDED ->
                taken == photos ? "Landed, all photos taken" : "Landed, %,d photos missing".formatted(photos - taken);
            case LOST -> "Lost";
            default ->
                charge > home
                        ? "Comes home with %d %% to spare; %,d photos left".formatted(charge - home, photos - taken)
                        : "It does not come home with its reserve any more";
        };
    }

    private static List<Figure> figures(SimulatedFlight flight, UnitChoice units) {
        List<Figure> figures = new ArrayList<>();
        double above = flight.aboveGroundM();
        double takeOff = flight.sortie().homing().takeOffUpM();
        figures.add(new Figure(
                "photos",
                "photos",
                "%d of %d".formatted(flight.taken().size(), flight.sortie().photos()),
                flight.shots().stream().anyMatch(shot -> shot.station() > 0 && !shot.good()) ? "mind" : ""));
        figures.add(new Figure(
                "strips",
                "strips done",
                "%d of %d".formatted(flight.stripsDone(), flight.strips().size()),
                ""));
        double left = flight.leftS();
        figures.add(new Figure("left", "until it lands", Double.isNaN(left) ? "–" : clock(left) + " min", ""));
        figures.add(new Figure("hang", "may hang for", clock(flight.hangS()) + " min", ""));
        figures.add(new Figure("speed", "speed", units.text(UnitKind.SPEED, flight.groundMps()), ""));
        figures.add(new Figure(
                "ground",
                "above ground",
                Double.isNaN(above) ? "unknown" : units.text(UnitKind.HEIGHT, Math.max(0, above)),
                ""));
        figures.add(new Figure(
                "height",
                "above take-off",
                units.text(UnitKind.HEIGHT, flight.known().upM() - takeOff),
                ""));
        figures.add(new Figure("distance", "from the pilot", units.text(UnitKind.DISTANCE, flight.distanceM()), ""));
        figures.add(new Figure(
                "sight", "sight", flight.inSight() ? "in sight" : "out of sight", flight.inSight() ? "" : "mind"));
        figures.add(new Figure(
                "wind",
                "wind",
                "%s from %03.0f°"
                        .formatted(
                                units.text(UnitKind.SPEED, flight.windMps()),
                                Math.toDegrees(flight.windFromRad()) % 360),
                ""));
        figures.add(new Figure(
                "satellites",
                "satellites",
                "%d, %s".formatted(flight.satellites(), flight.solution()),
                flight.satellites() < 8 ? "mind" : ""));
        figures.add(new Figure(
                "link",
                "link",
                String.format(Locale.ROOT, "%.0f %%", 100 * flight.link()),
                flight.link() < 0.15 ? "mind" : ""));
        return figures;
    }

    static String clock(double seconds) {
        long whole = (long) Math.floor(seconds);
        return "%d:%02d".formatted(whole / 60, whole % 60);
    }

    private static double cm(double metres) {
        return Math.round(metres * 100) / 100.0;
    }
}
