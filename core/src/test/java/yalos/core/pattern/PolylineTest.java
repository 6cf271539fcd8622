package yalos.core.pattern;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import org.assertj.core.data.Offset;
import org.junit.jupiter.api.Test;
import yalos.core.geodesy.PlanePoint;

/** Lines with bends, by hand. */
class PolylineTest {
    /** 100 m north, then 100 m east. */
    private static final List<PlanePoint> CORNER =
            List.of(new PlanePoint(0, 0), new PlanePoint(0, 100), new PlanePoint(100, 100));

    /** A right angle rounded by 20 m passes its corner at 20 · (√2 − 1) = 8.28 m; the arc's points lie 20 m from its centre. */
    @Test
    void aBendIsRoundedWithinWhatItMayCut() {
        List<PlanePoint> rounded = Polyline.rounded(CORNER, 20, 8.3);
        PlanePoint centre = new PlanePoint(20, 80);
        List<PlanePoint> arc = rounded.subList(1, rounded.size() - 1);
        assertThat(arc)
                .hasSize(10)
                .allSatisfy(at -> assertThat(at.distanceM(centre)).isCloseTo(20, Offset.offset(1e-9)));
        assertThat(arc.get(0).distanceM(new PlanePoint(0, 80))).isLessThan(1e-9);
        assertThat(arc.get(9).distanceM(new PlanePoint(20, 100))).isLessThan(1e-9);
        // nine chords of 10° instead of the arc
        double chords = 9 * 2 * 20 * Math.sin(Math.toRadians(5));
        assertThat(Polyline.lengthM(rounded)).isCloseTo(80 + chords + 80, Offset.offset(1e-9));
        assertThat(Polyline.rounded(CORNER, 20, 8.2)).isEqualTo(CORNER);
    }

    /** The tangent of a right angle is as long as the radius, and each bend has half of the pieces beside it. */
    @Test
    void aBendWithoutRoomStays() {
        assertThat(Polyline.rounded(CORNER, 51, 1000)).isEqualTo(CORNER);
        assertThat(Polyline.rounded(CORNER, 49, 1000)).hasSizeGreaterThan(3);
    }

    @Test
    void aLeftBendIsRoundedLikeARightOne() {
        List<PlanePoint> left =
                CORNER.stream().map(at -> new PlanePoint(-at.xM(), at.yM())).toList();
        PlanePoint centre = new PlanePoint(-20, 80);
        List<PlanePoint> rounded = Polyline.rounded(left, 20, 9);
        assertThat(rounded.subList(1, rounded.size() - 1))
                .allSatisfy(at -> assertThat(at.distanceM(centre)).isCloseTo(20, Offset.offset(1e-9)));
    }

    /** Five places on 200 m: every 50 m, the third at the corner. */
    @Test
    void stationsStandEvenlyAndLookAlongTheirPiece() {
        List<Polyline.Station> stations = Polyline.stations(CORNER, 5);
        assertThat(stations)
                .extracting(station -> Math.round(station.at().xM()))
                .containsExactly(0L, 0L, 0L, 50L, 100L);
        assertThat(stations)
                .extracting(station -> Math.round(station.at().yM()))
                .containsExactly(0L, 50L, 100L, 100L, 100L);
        assertThat(stations.get(1).trackRad()).isCloseTo(0, Offset.offset(1e-9));
        assertThat(stations.get(3).trackRad()).isCloseTo(Math.PI / 2, Offset.offset(1e-9));
        assertThat(Polyline.stations(CORNER, 1).get(0).at().distanceM(new PlanePoint(0, 100)))
                .isLessThan(1e-9);
    }

    @Test
    void aLineIsPartedAtSharpBendsAlone() {
        assertThat(Polyline.parted(CORNER, Math.toRadians(80))).hasSize(2);
        assertThat(Polyline.parted(CORNER, Math.toRadians(90))).hasSize(1);
        assertThat(Math.toDegrees(Polyline.bendRad(CORNER.get(0), CORNER.get(1), CORNER.get(2))))
                .as("to the right")
                .isCloseTo(90, Offset.offset(1e-9));
    }
}
