package yalos.core.flight;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.stream.Stream;
import org.assertj.core.data.Offset;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.MethodSource;
import yalos.core.Reference;
import yalos.core.geodesy.PlanePoint;
import yalos.core.kit.Aircraft;

/** The way round from one line into the next. */
class TurnTest {
    private static final PlanePoint HERE = new PlanePoint(100, 50);

    static Stream<Reference.Row> orders() {
        return Reference.rows("strip_order.csv");
    }

    /** Independent reference: shortest paths of Dubins (1957) between neighbouring lines flown opposite ways. */
    @ParameterizedTest
    @MethodSource("orders")
    void aWingsTurnIsTheShortestForwardPath(Reference.Row row) {
        for (int away = 1; away <= 3; away++) {
            String column = "turn_back_%d_away_m".formatted(away);
            if (!row.isEmpty(column)) {
                double apart = away * row.number("spacing_m");
                assertThat(Dubins.shortest(apart, 0, 0, Math.PI, row.number("radius_m"))
                                .lengthM())
                        .isCloseTo(row.number(column), Offset.offset(1e-6));
            }
        }
    }

    /** Left and right, near and far, abreast or not: the arcs arrive where and how they must, and are as long as the formula says. */
    @ParameterizedTest
    @CsvSource({"30, 0", "-30, 0", "90, 0", "-200, 0", "35, 60", "35, -60", "-120, 25", "-20, -45"})
    void theArcsArriveAtTheNextLineFlownTheOtherWay(double across, double along) {
        Aircraft wing = Aircraft.smallWing();
        double track = 0.7;
        PlanePoint to = HERE.moved(track, along).moved(track + Math.PI / 2, across);
        Turn turn = new Turn(HERE, track, to, track + Math.PI);
        List<Way> ways = turn.ways(wing, 16);
        PlanePoint at = HERE;
        double heading = track;
        double length = 0;
        for (Way way : ways) {
            assertThat(way.pointAt(0).distanceM(at)).isLessThan(1e-9);
            assertThat(Math.cos(way.trackRadAt(0) - heading)).as("no kink").isCloseTo(1, Offset.offset(1e-12));
            at = way.pointAt(way.lengthM());
            heading = way.trackRadAt(way.lengthM());
            length += way.lengthM();
        }
        assertThat(at.distanceM(to)).isLessThan(1e-9);
        assertThat(Math.cos(heading - track)).isCloseTo(-1, Offset.offset(1e-12));
        assertThat(length).isCloseTo(turn.lengthM(wing, 16), Offset.offset(1e-9));
    }

    @Test
    void aMultirotorFliesStraightAcross() {
        Turn turn = new Turn(HERE, 0, new PlanePoint(130, 90), Math.PI);
        List<Way> ways = turn.ways(Aircraft.smallMultirotor(), 10);
        assertThat(ways).hasSize(1);
        assertThat(ways.get(0).lengthM()).isCloseTo(50, Offset.offset(1e-12));
        assertThat(ways.get(0).pointAt(50).distanceM(new PlanePoint(130, 90))).isLessThan(1e-9);
    }

    @Test
    void anArcIsDrawnAndLiesOnItsCircle() {
        Arc arc = Arc.turning(HERE, Math.PI / 2, Math.toRadians(-200), 25, 16);
        assertThat(arc.lengthM()).isCloseTo(25 * Math.toRadians(200), Offset.offset(1e-9));
        assertThat(arc.pointAt(0).distanceM(HERE)).isLessThan(1e-9);
        assertThat(arc.trackRadAt(0)).isCloseTo(Math.PI / 2, Offset.offset(1e-12));
        // flown east and turning left, the centre lies to the north
        assertThat(arc.centre().distanceM(new PlanePoint(100, 75))).isLessThan(1e-9);
        assertThat(arc.shape())
                .hasSize(21)
                .allSatisfy(point -> assertThat(point.distanceM(arc.centre())).isCloseTo(25, Offset.offset(1e-9)));
    }
}
