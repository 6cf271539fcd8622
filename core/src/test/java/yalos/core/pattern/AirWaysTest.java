package yalos.core.pattern;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.offset;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.Random;
import java.util.function.DoubleBinaryOperator;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;
import yalos.core.flight.Place;
import yalos.core.geodesy.PlanePoint;
import yalos.core.site.Detour;
import yalos.core.site.Prism;

/** Ways beside, over and out from under solids: lengths by hand, and at random never nearer than what is kept clear. */
class AirWaysTest {
    private static final double CLEAR_M = 3;
    private static final Prism HOUSE = box(0, 0, 40, 20, 0, 15);
    private static final Prism DECK = box(-50, 60, 90, 68, 10, 11);

    private static Prism box(double west, double south, double east, double north, double bottom, double top) {
        return new Prism(
                List.of(
                        new PlanePoint(west, south),
                        new PlanePoint(east, south),
                        new PlanePoint(east, north),
                        new PlanePoint(west, north)),
                bottom,
                top);
    }

    private static AirWays ways(DoubleBinaryOperator ground, Prism... solids) {
        return new AirWays(List.of(solids), ground, (x, y) -> 0, Detour.NONE, CLEAR_M);
    }

    private static List<Place> whole(Place from, List<Place> between, Place to) {
        List<Place> way = new ArrayList<>();
        way.add(from);
        way.addAll(between);
        way.add(to);
        return way;
    }

    private static double length(List<Place> way) {
        return IntStream.range(1, way.size())
                .mapToDouble(i -> Math.hypot(
                        way.get(i - 1).point().distanceM(way.get(i).point()),
                        way.get(i).upM() - way.get(i - 1).upM()))
                .sum();
    }

    private static double nearest(List<Place> way, Prism... solids) {
        double nearest = Double.POSITIVE_INFINITY;
        for (int i = 1; i < way.size(); i++) {
            Place from = way.get(i - 1);
            Place to = way.get(i);
            for (int step = 0; step <= 200; step++) {
                double share = step / 200.0;
                PlanePoint at = new PlanePoint(
                        from.xM() + share * (to.xM() - from.xM()), from.yM() + share * (to.yM() - from.yM()));
                double up = from.upM() + share * (to.upM() - from.upM());
                for (Prism solid : solids) {
                    nearest = Math.min(nearest, solid.distanceM(at, up));
                }
            }
        }
        return nearest;
    }

    @Test
    void straightWhereNothingStands() {
        AirWays ways = ways((x, y) -> 0, HOUSE);
        assertThat(ways.between(new Place(-20, -20, 5), new Place(60, -20, 9))).contains(List.of());
        assertThat(ways.between(new Place(20, -20, 19), new Place(20, 40, 19)))
                .as("over the roof with more than is kept clear")
                .contains(List.of());
    }

    /** Past the two corners at the west end: longer than a string laid on the wall, shorter than round square corners 3.2 m off. */
    @Test
    void roundAHouseIsTheShortestWayBesideIt() {
        Place from = new Place(10, -10, 6);
        Place to = new Place(10, 30, 6);
        List<Place> way = whole(from, ways((x, y) -> 0, HOUSE).between(from, to).orElseThrow(), to);
        assertThat(nearest(way, HOUSE)).isGreaterThan(CLEAR_M - 0.25);
        assertThat(length(way)).isBetween(2 * Math.hypot(10, 10) + 20, 2 * Math.hypot(13.2, 6.8) + 26.4);
        assertThat(way).allSatisfy(place -> assertThat(place.upM()).isEqualTo(6, offset(1e-9)));
    }

    /** A hill on either side leaves no level way: up to the roof and what is kept clear, across, and down again. */
    @Test
    void overWhereTheGroundLeavesNoRoomBeside() {
        DoubleBinaryOperator valley = (x, y) -> x > -2 && x < 42 ? 0 : 30;
        Place from = new Place(20, -10, 6);
        Place to = new Place(20, 30, 6);
        List<Place> way = whole(from, ways(valley, HOUSE).between(from, to).orElseThrow(), to);
        assertThat(way).extracting(Place::upM).containsExactly(6.0, 18.0, 18.0, 6.0);
        assertThat(way).extracting(Place::xM).containsOnly(20.0);
    }

    @Test
    void outFromUnderADeckBeforeItClimbs() {
        AirWays ways = ways((x, y) -> 0, DECK);
        Place under = new Place(20, 65, 5);
        List<Place> out = ways.toOpenSky(under).orElseThrow();
        assertThat(out).hasSize(1);
        assertThat(out.get(0).upM()).isEqualTo(5);
        // North is nearer: its edge lies at 68, and 3.2 m are kept.
        assertThat(out.get(0).yM()).isBetween(71.0, 71.3);
        Place roof = new Place(20, 64, 16);
        List<Place> way = whole(under, ways.over(under, roof).orElseThrow(), roof);
        assertThat(nearest(way, DECK)).isGreaterThan(CLEAR_M - 0.25);
        assertThat(ways.toOpenSky(new Place(20, 64, 12))).as("on the deck").contains(List.of());
        // Between walls of ground on both sides, and at its ends too, there is no way out.
        DoubleBinaryOperator pit = (x, y) -> y > 59 && y < 69 && x > -51 && x < 91 ? 0 : 20;
        assertThat(ways(pit, DECK).toOpenSky(under)).isEmpty();
    }

    /** From and to places anywhere round three solids: each way found keeps its distance all along. */
    @Test
    void neverNearerThanIsKeptClear() {
        Prism[] solids = {HOUSE, DECK, box(60, -10, 70, 30, 0, 25)};
        AirWays ways = ways((x, y) -> 0, solids);
        Random random = new Random(12);
        int bent = 0;
        for (int run = 0; run < 300; run++) {
            Place from = place(random);
            Place to = place(random);
            if (nearest(List.of(from, from), solids) < CLEAR_M || nearest(List.of(to, to), solids) < CLEAR_M) {
                continue;
            }
            Optional<List<Place>> between = ways.between(from, to);
            assertThat(between).as("run %d", run).isPresent();
            List<Place> way = whole(from, between.get(), to);
            assertThat(nearest(way, solids)).as("run %d: %s", run, way).isGreaterThan(CLEAR_M - 0.25);
            bent += between.get().isEmpty() ? 0 : 1;
        }
        assertThat(bent).isGreaterThan(40);
    }

    private static Place place(Random random) {
        return new Place(160 * random.nextDouble() - 60, 120 * random.nextDouble() - 30, 4 + 30 * random.nextDouble());
    }
}
