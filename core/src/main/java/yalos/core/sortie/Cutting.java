package yalos.core.sortie;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import yalos.core.fault.InputFault;
import yalos.core.fault.Patience;
import yalos.core.flight.Alignment;
import yalos.core.flight.Exposure;
import yalos.core.flight.Flight;
import yalos.core.flight.Hover;
import yalos.core.flight.Leg;
import yalos.core.flight.Line;
import yalos.core.flight.Place;
import yalos.core.flight.Tally;
import yalos.core.flight.Timeline;

/** Finds the cut of {@link Sorties}: what every station takes from and to every launch point, the {@link Split}, and each sortie flown for itself. */
final class Cutting {
    private static final double STEP_S = 4;
    private static final int MOST_STEPS = 600;
    private static final int ROUNDS = 8;
    private static final double CLOSE = 1e-9;
    private static final double MOST_CHECKED = 400;
    /** Margins that differ by less are the same. */
    private static final double SAME = 1e-6;

    private final Sorties.Given given;
    private final List<Homing> launches;
    private final Flight flight;
    private final Split split;
    /** Of a lidar's alignment, at each end of a sortie. */
    private final double alignS;

    Cutting(Sorties.Given given, List<Homing> launches) {
        this.given = given;
        this.launches = launches;
        this.flight = given.plan().flight();
        List<Exposure> photos = flight.exposures();
        this.alignS =
                flight.alignment().isPresent() ? Alignment.seconds(given.plan().timeline()) / 2 : 0;
        double align = alignS * given.draw().vertical(0);
        int n = photos.size();
        Tally tally = given.plan().timeline().tally(given.draw());
        double[][] out = new double[launches.size()][n];
        double[][] home = new double[launches.size()][n];
        for (int i = 0; i < n; i++) {
            Patience.check();
            Place place = place(photos.get(i));
            for (int k = 0; k < launches.size(); k++) {
                out[k][i] = launches.get(k).outTakes(given.draw(), place) + align;
                home[k][i] = launches.get(k).homeTakes(given.draw(), place) + align;
            }
        }
        int[] resume = new int[n];
        boolean[] ends = new boolean[n];
        List<Line> lines = flight.lines();
        for (int l = 0; l < lines.size(); l++) {
            Line line = lines.get(l);
            boolean strip = l + 1 == lines.size() || lines.get(l + 1).strip() != line.strip();
            int begin = line.firstExposure();
            for (int b = l; b > 0 && lines.get(b - 1).strip() == line.strip(); b--) {
                begin = lines.get(b - 1).firstExposure();
            }
            for (int i = line.firstExposure(); i < line.firstExposure() + line.exposures(); i++) {
                resume[i] =
                        i == begin ? i : Math.max(begin, i - given.settings().repeated());
                ends[i] = strip && i + 1 == line.firstExposure() + line.exposures();
            }
        }
        this.split = new Split(tally.atPhotos(), out, home, resume, ends);
    }

    Sorties done() {
        List<Double> usable = given.usable();
        if (usable.isEmpty() || usable.get(0) <= 0) {
            throw new InputFault(
                    "reserve",
                    usable.isEmpty() ? "none" : usable.get(0),
                    "Nothing is left to fly with: the charge at take-off is no more than the reserve. Charge, or look at the reserve of the kit.");
        }
        List<Sortie> fewest = List.of();
        List<Sortie> found = List.of();
        int used = 0;
        for (int batteries = 1; batteries <= usable.size(); batteries++) {
            double weakest = usable.get(batteries - 1);
            if (batteries == 1 || weakest < usable.get(batteries - 2)) {
                found = flown(weakest).orElse(List.of());
            }
            if (!found.isEmpty() && found.size() <= batteries) {
                return new Sorties(given, launches, found, batteries);
            }
            // More sorties than batteries: the best ones are charged again, the weakest perhaps not taken at all.
            if (!found.isEmpty() && (fewest.isEmpty() || found.size() <= fewest.size())) {
                fewest = found;
                used = batteries;
            }
        }
        if (fewest.isEmpty()) {
            throw unreachable(usable.get(0));
        }
        return new Sorties(given, launches, fewest, used);
    }

    /** Cut, flown, and cut again with less where a sortie by itself draws more than its share of the whole. */
    private Optional<List<Sortie>> flown(double usable) {
        double asked = usable;
        for (int round = 0; round < ROUNDS; round++) {
            Optional<List<Split.Piece>> pieces = split.cut(asked);
            if (pieces.isEmpty()) {
                return Optional.empty();
            }
            List<Sortie> sorties = new ArrayList<>();
            for (Split.Piece piece : pieces.get()) {
                sorties.add(sortie(sorties.size() + 1, piece, usable));
            }
            double missing = sorties.stream()
                    .mapToDouble(sortie -> -sortie.least().margin())
                    .max()
                    .orElse(0);
            if (missing <= CLOSE) {
                return Optional.of(sorties);
            }
            asked -= missing + CLOSE;
        }
        return Optional.empty();
    }

    private Sortie sortie(int number, Split.Piece piece, double usable) {
        Homing homing = launches.get(piece.launch());
        int start = split.resume()[piece.from()];
        Place begin = place(flight.exposures().get(start));
        Place end = place(flight.exposures().get(piece.to()));
        List<Leg> out = new ArrayList<>(homing.out(begin));
        List<Leg> home = new ArrayList<>(homing.home(end));
        if (alignS > 0) {
            out.add(new Hover(begin, alignS));
            home.add(0, new Hover(end, alignS));
        }
        Flight own = flight.part(start, piece.to(), out, home, Optional.of(homing.launch()), homing.takeOffUpM());
        Timeline timeline = Timeline.of(own, given.plan().timeline().pace());
        Tally tally = timeline.tally(given.draw());
        return new Sortie(
                number,
                piece.launch(),
                piece.from(),
                start,
                piece.to(),
                homing,
                timeline,
                tally,
                usable,
                least(homing, timeline, tally, usable));
    }

    /** Looked at every few seconds from take-off to the last photo, at every photo and at landing. */
    private Sortie.Least least(Homing homing, Timeline timeline, Tally tally, double usable) {
        double[] photosS = timeline.exposuresS();
        double[] photos = tally.atPhotos();
        int last = photosS.length - 1;
        Place turning = place(timeline.flight().exposures().get(last));
        // From the last photo on it is on its way home: what is left at landing belongs there.
        Sortie.Least least = new Sortie.Least(
                turning, photosS[last], usable - tally.whole(), homing.homeTakes(given.draw(), turning));
        int every = (int) Math.max(1, Math.ceil(photosS.length / MOST_CHECKED));
        for (int i = 0; i <= last; i++) {
            if (i % every == 0 || i == last) {
                Place place = place(timeline.flight().exposures().get(i));
                least = less(least, homing, place, photosS[i], usable - photos[i]);
            }
        }
        double step = Math.max(STEP_S, photosS[last] / MOST_STEPS);
        for (double at = 0; at < photosS[last]; at += step) {
            least = less(least, homing, timeline.at(at).place(), at, usable - tally.at(at));
        }
        return least;
    }

    private Sortie.Least less(Sortie.Least least, Homing homing, Place place, double seconds, double left) {
        double home = homing.homeTakes(given.draw(), place);
        return left - home < least.margin() - SAME ? new Sortie.Least(place, seconds, left - home, home) : least;
    }

    private InputFault unreachable(double usable) {
        int n = split.spent().length;
        for (int i = 0; i < n; i++) {
            double takes = Double.POSITIVE_INFINITY;
            for (int k = 0; k < launches.size(); k++) {
                takes = Math.min(takes, split.taken(new Split.Piece(i, i, k)));
            }
            if (!Double.isFinite(takes)) {
                return new InputFault(
                        "wind",
                        i + 1,
                        "The wind is stronger than the aircraft flies: it cannot get to station %d and home again. Wait for less wind."
                                .formatted(i + 1));
            }
            if (takes > usable) {
                return new InputFault(
                        "battery",
                        takes,
                        String.format(
                                Locale.ROOT,
                                "One battery does not reach station %d and home again from the nearest launch point: it would take %.1f %% of a full battery, and %.1f %% may be used. Move the launch point nearer, or add one.",
                                i + 1,
                                100 * takes,
                                100 * usable));
            }
        }
        return new InputFault(
                "battery",
                usable,
                "No cut was found that brings every sortie home with its reserve; move the launch point nearer, or add one.");
    }

    private static Place place(Exposure photo) {
        return Place.over(photo.point(), photo.upM());
    }
}
