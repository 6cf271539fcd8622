package yalos.core.site;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.offset;

import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.Random;
import java.util.Set;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;
import org.locationtech.jts.geom.Coordinate;
import org.locationtech.jts.geom.GeometryFactory;
import org.locationtech.jts.geom.Point;
import yalos.core.SampleObjects;
import yalos.core.Samples;
import yalos.core.block.LocalPlane;
import yalos.core.fault.InputFault;
import yalos.core.geodesy.Grid;
import yalos.core.geodesy.LonLat;
import yalos.core.geodesy.PlanePoint;

/** Solids against the geometry library and by hand; obstacles made objects and back. */
class PrismTest {
    /** An angle of two wings, 40 by 12 m and 28 m more to the north. */
    private static final List<PlanePoint> ANGLE = ring(0, 0, 40, 0, 40, 12, 12, 12, 12, 40, 0, 40);

    private static List<PlanePoint> ring(double... corners) {
        return IntStream.range(0, corners.length / 2)
                .mapToObj(i -> new PlanePoint(corners[2 * i], corners[2 * i + 1]))
                .toList();
    }

    @Test
    void wallsAreTheSameWhicheverWayTheFootprintWasDrawn() {
        List<PlanePoint> turned = new ArrayList<>(ANGLE);
        Collections.reverse(turned);
        Prism one = new Prism(ANGLE, 0, 9);
        Prism other = new Prism(turned, 0, 9);
        assertThat(other.plan().getArea()).isEqualTo(one.plan().getArea()).isEqualTo(40 * 12 + 28 * 12);
        assertThat(IntStream.range(0, 6)
                        .mapToDouble(other::facingRad)
                        .map(Math::sin)
                        .sum())
                .isEqualTo(
                        IntStream.range(0, 6)
                                .mapToDouble(one::facingRad)
                                .map(Math::sin)
                                .sum(),
                        offset(1e-9));
        // The south wall is the first, 40 m long, and faces south; the inner corner is the only one that bends inward.
        assertThat(one.wallM(0)).isEqualTo(40);
        assertThat(Math.toDegrees(one.facingRad(0))).isEqualTo(180, offset(1e-9));
        assertThat(IntStream.range(0, 6).filter(wall -> !one.outward(wall))).containsExactly(3);
    }

    /** Distance in the plane by the geometry library; upward by what is missing to the solid's heights. */
    @Test
    void distancesAgreeWithTheGeometryLibrary() {
        Prism angle = new Prism(ANGLE, 5, 14);
        GeometryFactory geometry = new GeometryFactory();
        Random random = new Random(8);
        int within = 0;
        for (int run = 0; run < 2000; run++) {
            double x = 100 * random.nextDouble() - 30;
            double y = 100 * random.nextDouble() - 30;
            double up = 30 * random.nextDouble();
            Point at = geometry.createPoint(new Coordinate(x, y));
            double aside = angle.plan().distance(at);
            double over = up < 5 ? 5 - up : up > 14 ? up - 14 : 0;
            assertThat(angle.asideM(new PlanePoint(x, y))).isEqualTo(aside, offset(1e-9));
            assertThat(angle.contains(x, y)).isEqualTo(angle.plan().covers(at));
            assertThat(angle.distanceM(new PlanePoint(x, y), up))
                    .isEqualTo(Math.sqrt(aside * aside + over * over), offset(1e-9));
            within += aside == 0 ? 1 : 0;
        }
        assertThat(within).isGreaterThan(100);
    }

    @Test
    void whatIsNoSolidIsRefused() {
        assertThatThrownBy(() -> new Prism(ANGLE, 9, 9)).isInstanceOf(InputFault.class);
        assertThatThrownBy(() -> new Prism(ring(0, 0, 10, 0), 0, 9))
                .isInstanceOf(InputFault.class)
                .hasMessageContaining("three corners");
    }

    @Test
    void obstaclesStandAsObjectsAndBack() {
        LonLat middle = Samples.at(80, 80);
        LocalPlane plane = LocalPlane.at(Grid.ofEpsg(32630), middle);
        List<LonLat> corners = SampleObjects.places(70, 70, 90, 70, 90, 80, 70, 80);
        Obstacle house = new Obstacle("house", Obstacle.Kind.BUILDING, corners, 12, 0);
        assertThat(StandingAs.obstacles(StandingAs.structure(house, plane))).containsExactly(house);
        Obstacle fence = new Obstacle("fence", Obstacle.Kind.LINE, SampleObjects.places(0, 0, 30, 0, 30, 40), 2, 0.5);
        assertThat(StandingAs.obstacles(StandingAs.structure(fence, plane))).containsExactly(fence);

        // A round one becomes eight walls, its corners where its edge was.
        Obstacle mast = new Obstacle("mast", Obstacle.Kind.MAST, List.of(middle), 20, 3);
        Structure.Part drum = StandingAs.structure(mast, plane).parts().get(0);
        assertThat(drum.places())
                .hasSize(8)
                .allSatisfy(at -> assertThat(plane.toPlane(at).distanceM(plane.toPlane(middle)))
                        .isEqualTo(3, offset(1e-6)));
        assertThat(drum.topM()).isEqualTo(20);

        Structure.Part sea = new Structure.Part(
                Structure.Kind.BODY, corners, 0, 40, 52, Structure.Counted.GEOID, Structure.Piers.NONE);
        assertThatThrownBy(() -> StandingAs.obstacles(new Structure("lighthouse", List.of(sea), Set.of(), "")))
                .isInstanceOf(InputFault.class)
                .hasMessageContaining("count from the geoid");
    }
}
