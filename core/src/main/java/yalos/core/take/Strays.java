package yalos.core.take;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.OptionalDouble;
import java.util.TreeMap;
import java.util.function.Function;
import java.util.stream.IntStream;
import yalos.core.figures.Median;
import yalos.core.geodesy.PlanePoint;

/** What lies among the photos of a flight and is none of them: copies, photos from elsewhere, another camera's; and photos of it through another lens. */
final class Strays {
    private static final double ELSEWHERE_M = 500;
    private static final double OTHER_DAY_S = 6 * 3600.0;
    /** Of a camera that took so large a share, photos are no strays. */
    private static final double SECOND_CAMERA = 0.25;

    private static final double FOCAL_OFF = 0.02;

    private final List<Taken> photos;
    private final List<Station> stations;
    private final Clocks clocks;
    private final PlanePoint[] at;
    private final Role[] roles;
    private final String[] why;
    private final boolean[] otherLens;
    /** Of the stations: west, east, south, north. */
    private final double[] box = {
        Double.POSITIVE_INFINITY, Double.NEGATIVE_INFINITY, Double.POSITIVE_INFINITY, Double.NEGATIVE_INFINITY
    };

    /**
     * @param at places of the photos, null where unknown
     * @param roles filled in for strays, null for what may be of the flight
     * @param why filled in where something is to be said
     * @param otherLens filled in
     */
    Strays(
            List<Taken> photos,
            List<Station> stations,
            Clocks clocks,
            PlanePoint[] at,
            Role[] roles,
            String[] why,
            boolean[] otherLens) {
        this.photos = photos;
        this.stations = stations;
        this.clocks = clocks;
        this.at = at;
        this.roles = roles;
        this.why = why;
        this.otherLens = otherLens;
        for (Station one : stations) {
            box[0] = Math.min(box[0], one.at().xM());
            box[1] = Math.max(box[1], one.at().xM());
            box[2] = Math.min(box[2], one.at().yM());
            box[3] = Math.max(box[3], one.at().yM());
        }
    }

    /** Gives a role to everything that is no photo of the flight. */
    void sort() {
        copies();
        for (int i = 0; i < photos.size(); i++) {
            Taken photo = photos.get(i);
            if (roles[i] == null && photo.aside()) {
                roles[i] = Role.ASIDE;
            }
            if (roles[i] == null && photo.facts().readable() == PhotoFacts.Readable.NOTHING) {
                roles[i] = Role.NO_PICTURE;
                why[i] = photo.facts().fault();
            }
        }
        elsewhere();
        cameras();
    }

    /** Of files that are the same to the bit the first counts. */
    private void copies() {
        Map<String, Integer> first = new HashMap<>();
        List<Integer> byName = IntStream.range(0, photos.size())
                .boxed()
                .sorted(Comparator.comparing(i -> photos.get(i).name()))
                .toList();
        for (int i : byName) {
            String sum = photos.get(i).sha256();
            if (!sum.isEmpty() && photos.get(i).facts().bytes() > 0) {
                Integer before = first.putIfAbsent(sum, i);
                if (before != null) {
                    roles[i] = Role.COPY;
                    why[i] = "the same file as " + photos.get(before).name();
                }
            }
        }
    }

    private void elsewhere() {
        double[] middle = IntStream.range(0, photos.size())
                .filter(i -> roles[i] == null && !Double.isNaN(clocks.seconds()[i]) && (at[i] == null || near(at[i])))
                .mapToDouble(i -> clocks.seconds()[i])
                .toArray();
        double usual = Median.of(middle);
        for (int i = 0; i < photos.size(); i++) {
            if (roles[i] != null) {
                continue;
            }
            if (at[i] != null && !near(at[i])) {
                roles[i] = Role.ELSEWHERE;
                why[i] = "%,.1f km from the block".formatted(nearest(at[i]) / 1000);
            } else if (middle.length > 0 && Math.abs(clocks.seconds()[i] - usual) > OTHER_DAY_S) {
                roles[i] = Role.ELSEWHERE;
                why[i] = "taken %,.0f hours from the others".formatted(Math.abs(clocks.seconds()[i] - usual) / 3600);
            }
        }
    }

    private boolean near(PlanePoint place) {
        // Most photos lie among the stations; only of the others is the nearest looked for.
        return stations.isEmpty() || among(place) || nearest(place) < ELSEWHERE_M;
    }

    private boolean among(PlanePoint place) {
        return place.xM() >= box[0] && place.xM() <= box[1] && place.yM() >= box[2] && place.yM() <= box[3];
    }

    private double nearest(PlanePoint place) {
        return stations.stream()
                .mapToDouble(one -> one.at().distanceM(place))
                .min()
                .orElse(0);
    }

    private void cameras() {
        Map<String, Integer> models = counts(photo -> photo.facts().camera().model());
        int all = models.values().stream().mapToInt(Integer::intValue).sum();
        String usual = most(models);
        for (int i = 0; i < photos.size(); i++) {
            String model = photos.get(i).facts().camera().model();
            if (roles[i] == null
                    && !model.isEmpty()
                    && !model.equals(usual)
                    && models.get(model) < all * SECOND_CAMERA) {
                roles[i] = Role.OTHER_CAMERA;
                why[i] = "by a " + model;
            }
        }
        lenses();
    }

    private Map<String, Integer> counts(Function<Taken, String> of) {
        Map<String, Integer> counts = new TreeMap<>();
        for (int i = 0; i < photos.size(); i++) {
            String key = roles[i] == null ? of.apply(photos.get(i)) : "";
            if (!key.isEmpty()) {
                counts.merge(key, 1, Integer::sum);
            }
        }
        return counts;
    }

    private static String most(Map<String, Integer> counts) {
        return counts.entrySet().stream()
                .max(Map.Entry.comparingByValue())
                .map(Map.Entry::getKey)
                .orElse("");
    }

    /** Photos whose focal length or size is not that of most of the same camera. */
    private void lenses() {
        Map<String, List<Integer>> byModel = new HashMap<>();
        for (int i = 0; i < photos.size(); i++) {
            if (roles[i] == null) {
                byModel.computeIfAbsent(photos.get(i).facts().camera().model(), model -> new ArrayList<>())
                        .add(i);
            }
        }
        byModel.values().forEach(alike -> {
            double focal = Median.of(alike.stream()
                    .map(i -> photos.get(i).facts().camera().focalMm())
                    .filter(OptionalDouble::isPresent)
                    .map(OptionalDouble::getAsDouble)
                    .toList());
            Map<String, Integer> sizes = new TreeMap<>();
            alike.forEach(i -> sizes.merge(size(i), 1, Integer::sum));
            sizes.remove("");
            String usual = most(sizes);
            for (int i : alike) {
                OptionalDouble own = photos.get(i).facts().camera().focalMm();
                boolean other = own.isPresent() && Math.abs(own.getAsDouble() / focal - 1) > FOCAL_OFF;
                boolean size = !size(i).isEmpty() && !size(i).equals(usual) && sizes.get(size(i)) < alike.size() / 4.0;
                otherLens[i] = other || size;
                if (other) {
                    why[i] = "focal length %.1f mm, the others %.1f mm".formatted(own.getAsDouble(), focal);
                } else if (size) {
                    why[i] = size(i) + " pixels, the others " + usual;
                }
            }
        });
    }

    private String size(int i) {
        PhotoFacts.Camera camera = photos.get(i).facts().camera();
        return camera.width() == 0 ? "" : camera.width() + " × " + camera.height();
    }
}
