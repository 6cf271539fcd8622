package yalos.core.take;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import java.util.function.IntPredicate;
import java.util.stream.IntStream;
import yalos.core.figures.Median;
import yalos.core.geodesy.PlanePoint;

/**
 * What is wrong with each picture of a take, judged against the others of the same ground: what is smooth there, as a meadow or a lake, is smooth in all of them, and no blur.
 */
public final class PictureJudge {
    private static final double CLIPPED = 0.02;
    private static final double DARK = 16;
    private static final double BRIGHT = 239;
    private static final double EMPTY = 3;
    private static final double PLAIN = 7;
    private static final double BLURRED = 0.5;
    private static final int NEIGHBOURS = 6;
    private static final double DARKER = 0.8;
    private static final double OTHER_LINE_S = 15;
    private static final double GAMMA = 2.2;

    private final List<Taken> photos;
    private final TakeMatch match;
    private final List<Optional<PlanePoint>> places;
    private final List<List<Flaw>> flaws = new ArrayList<>();
    private final PlaceGrid grid;

    private PictureJudge(List<Taken> photos, TakeMatch match, List<Optional<PlanePoint>> places) {
        this.photos = photos;
        this.match = match;
        this.places = places;
        this.grid = PlaceGrid.of(places);
    }

    /**
     * @param places of the photos in the block's plane, as far as they are known
     * @return for each photo what is wrong with it, the worst first; nothing for one that was not looked at
     */
    public static List<List<Flaw>> of(List<Taken> photos, TakeMatch match, List<Optional<PlanePoint>> places) {
        return new PictureJudge(photos, match, places).judged();
    }

    private List<List<Flaw>> judged() {
        for (int i = 0; i < photos.size(); i++) {
            flaws.add(new ArrayList<>(alone(i)));
        }
        boolean[] lit = sound();
        for (int i = 0; i < photos.size(); i++) {
            if (lit[i]) {
                blur(i, lit).ifPresent(flaws.get(i)::add);
            }
        }
        clouds(lit);
        flaws.forEach(all -> all.sort(Comparator.comparing(Flaw::kind)));
        return flaws;
    }

    /** Of the flight, looked at, and nothing wrong with it by itself. */
    private boolean[] sound() {
        boolean[] sound = new boolean[photos.size()];
        for (int i = 0; i < sound.length; i++) {
            sound[i] = flaws.get(i).isEmpty()
                    && photos.get(i).picture().isPresent()
                    && match.photos().get(i).role().ofFlight()
                    && !match.photos().get(i).otherLens();
        }
        return sound;
    }

    private List<Flaw> alone(int i) {
        Taken photo = photos.get(i);
        if (!match.photos().get(i).role().ofFlight()) {
            return List.of();
        }
        if (photo.facts().readable() != PhotoFacts.Readable.ALL) {
            return List.of(new Flaw(Flaw.Kind.CUT, 0, photo.facts().fault()));
        }
        if (photo.picture().isEmpty()) {
            return List.of();
        }
        Picture seen = photo.picture().orElseThrow();
        if (seen.white() > CLIPPED || seen.mean() > BRIGHT) {
            return List.of(
                    new Flaw(Flaw.Kind.OVER, seen.white(), "%.0f %% of it burnt out".formatted(100 * seen.white())));
        }
        if (seen.black() > CLIPPED || seen.mean() < DARK) {
            return List.of(new Flaw(
                    Flaw.Kind.UNDER,
                    seen.black(),
                    "%.0f %% of it black, mean level %.0f of 255".formatted(100 * seen.black(), seen.mean())));
        }
        if (seen.deviation() < EMPTY) {
            return List.of(new Flaw(
                    Flaw.Kind.EMPTY,
                    seen.deviation(),
                    "contrast %.1f of 255: nothing to tie it to its neighbours by".formatted(seen.deviation())));
        }
        return List.of();
    }

    /** Against the middle of the pictures next to it. */
    private Optional<Flaw> blur(int i, boolean[] sound) {
        Picture own = photos.get(i).picture().orElseThrow();
        List<Integer> near = near(i, other -> sound[other]);
        if (near.size() < 2) {
            return Optional.empty();
        }
        double usual = Median.of(near.stream()
                .map(other -> photos.get(other).picture().orElseThrow().sharpness())
                .toList());
        if (own.sharpness() > usual * BLURRED) {
            return own.deviation() < PLAIN
                    ? Optional.of(new Flaw(
                            Flaw.Kind.PLAIN,
                            own.deviation(),
                            "contrast %.1f of 255: few points to tie it by".formatted(own.deviation())))
                    : Optional.empty();
        }
        Blur found = Blur.of(usualLikeness(near, usual), own.likeness());
        double share = own.sharpness() / usual;
        return Optional.of(
                found.motion()
                        ? new Flaw(
                                Flaw.Kind.MOTION,
                                found.px(),
                                "smeared over about %.0f px %s; %.0f %% of its neighbours' detail"
                                        .formatted(found.px(), way(found.directionDeg()), 100 * share))
                        : new Flaw(
                                Flaw.Kind.FOCUS,
                                found.px(),
                                "unsharp by about %.1f px all round; %.0f %% of its neighbours' detail"
                                        .formatted(found.px(), 100 * share)));
    }

    /** The mean of the sharp neighbours'. */
    private double[][] usualLikeness(List<Integer> near, double usual) {
        double[][] mean = new double[Picture.DIRECTIONS.length][Picture.LAGS];
        int count = 0;
        for (int other : near) {
            Picture one = photos.get(other).picture().orElseThrow();
            if (one.sharpness() >= usual * 0.9) {
                count++;
                for (int d = 0; d < mean.length; d++) {
                    for (int lag = 0; lag < Picture.LAGS; lag++) {
                        mean[d][lag] += (one.likeness()[d][lag] - mean[d][lag]) / count;
                    }
                }
            }
        }
        return mean;
    }

    /** Which way of the picture. */
    private static String way(double degrees) {
        if (degrees > 60 && degrees < 120) {
            return "up and down";
        }
        return degrees < 30 || degrees > 150 ? "from side to side" : "aslant";
    }

    /** The photos taken nearest to one, of those that may be. */
    private List<Integer> near(int i, IntPredicate may) {
        if (places.get(i).isEmpty()) {
            // By its time it lies between its neighbours in the row.
            return IntStream.rangeClosed(Math.max(0, i - 3), Math.min(photos.size() - 1, i + 3))
                    .filter(other -> other != i && may.test(other))
                    .boxed()
                    .toList();
        }
        return grid.nearest(i, NEIGHBOURS, may);
    }

    /** Less light than over the same ground before or after, in several photos one after the other. */
    private void clouds(boolean[] sound) {
        double[] share = new double[photos.size()];
        for (int i = 0; i < photos.size(); i++) {
            share[i] = Double.NaN;
            int own = i;
            if (sound[i] && places.get(i).isPresent()) {
                double at = match.photos().get(i).seconds();
                List<Integer> near = near(
                        i,
                        other -> sound[other]
                                && Math.abs(match.photos().get(other).seconds() - at) > OTHER_LINE_S
                                && places.get(other)
                                                .orElseThrow()
                                                .distanceM(places.get(own).orElseThrow())
                                        < grid.usualM() * 6);
                if (near.size() >= 2) {
                    share[i] = light(i)
                            / Median.quantile(
                                    near.stream().mapToDouble(this::light).toArray(), 0.7);
                }
            }
        }
        List<Integer> inTime = IntStream.range(0, photos.size())
                .filter(i -> !Double.isNaN(match.photos().get(i).seconds()))
                .boxed()
                .sorted(Comparator.comparingDouble(i -> match.photos().get(i).seconds()))
                .toList();
        for (int k = 0; k < inTime.size(); k++) {
            int i = inTime.get(k);
            long dark = IntStream.rangeClosed(Math.max(0, k - 2), Math.min(inTime.size() - 1, k + 2))
                    .filter(n -> share[inTime.get(n)] < DARKER)
                    .count();
            if (share[i] < DARKER && dark >= 2) {
                flaws.get(i)
                        .add(new Flaw(
                                Flaw.Kind.CLOUD,
                                1 - share[i],
                                "%.0f %% less light than its neighbours: a cloud, perhaps"
                                        .formatted(100 * (1 - share[i]))));
            }
        }
    }

    /** Levels as they would be at one exposure: what the camera made up for is taken out. */
    private double light(int i) {
        PhotoFacts.Camera camera = photos.get(i).facts().camera();
        double exposure = camera.exposureS().orElse(1)
                * camera.iso().orElse(100)
                / Math.pow(camera.fNumber().orElse(1), 2);
        return photos.get(i).picture().orElseThrow().mean() * Math.pow(exposure, -1 / GAMMA);
    }
}
