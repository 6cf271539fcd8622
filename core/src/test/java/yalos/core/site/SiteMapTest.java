package yalos.core.site;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.List;
import org.junit.jupiter.api.Test;
import yalos.core.block.LocalPlane;
import yalos.core.block.Outline;
import yalos.core.fault.InputFault;
import yalos.core.geodesy.Grid;
import yalos.core.geodesy.LonLat;

/** Obstacles and zones at places whose distance is known. */
class SiteMapTest {
    private static final LocalPlane PLANE = LocalPlane.at(Grid.ofEpsg(32630), LonLat.of(-4.35, 54.51));

    private static LonLat at(double x, double y) {
        return PLANE.toLonLat(x, y);
    }

    private static SiteMap map(Obstacle... obstacles) {
        return new SiteMap(PLANE, List.of(obstacles), List.of());
    }

    @Test
    void aMastReachesAsFarAsItsRadiusAndTheCorridor() {
        SiteMap map = map(new Obstacle("mast", Obstacle.Kind.MAST, List.of(at(0, 0)), 30, 5));
        assertThat(map.obstacleM(14, 0, 10)).isEqualTo(30);
        assertThat(map.obstacleM(16, 0, 10)).isZero();
        assertThat(map.tallestM()).isEqualTo(30);
        assertThat(map.hasObstacles()).isTrue();
        assertThat(map.hasZones()).isFalse();
    }

    /** Two fields that must not be left, up to 120 m: within either of them, no higher, nothing is said. */
    @Test
    void whatMustNotBeLeftIsToldOutsideAllOfThem() {
        Zone west = new Zone(
                "west",
                Zone.Kind.KEEP_IN,
                Outline.ofRing(List.of(at(0, 0), at(100, 0), at(100, 100), at(0, 100))),
                0,
                120);
        Zone east = new Zone(
                "east",
                Zone.Kind.KEEP_IN,
                Outline.ofRing(List.of(at(90, 0), at(200, 0), at(200, 100), at(90, 100))),
                0,
                120);
        SiteMap map = new SiteMap(PLANE, List.of(), List.of(west, east));
        assertThat(map.hasZones()).isTrue();
        assertThat(map.zonesAt(50, 50, 75)).isEmpty();
        assertThat(map.zonesAt(150, 50, 0)).isEmpty();
        assertThat(map.zonesAt(50, 150, 75)).containsExactly(west);
        assertThat(map.zonesAt(150, 50, 130)).as("too high").containsExactly(west);
    }

    @Test
    void aLineStandsBetweenItsPoles() {
        SiteMap map = map(new Obstacle("line", Obstacle.Kind.LINE, List.of(at(0, 0), at(100, 0)), 18, 1));
        assertThat(map.obstacleM(50, 10, 10)).isEqualTo(18);
        assertThat(map.obstacleM(50, 12, 10)).isZero();
        assertThat(map.obstacleM(130, 0, 10)).isZero();
    }

    @Test
    void aBuildingFillsItsCorners() {
        SiteMap map = map(new Obstacle(
                "hall", Obstacle.Kind.BUILDING, List.of(at(0, 0), at(40, 0), at(40, 40), at(0, 40)), 12, 0));
        assertThat(map.obstacleM(20, 20, 1)).isEqualTo(12);
        assertThat(map.obstaclesNear(20, 20, 1)).extracting(Obstacle::name).containsExactly("hall");
        assertThat(map.obstacleM(60, 20, 5)).isZero();
    }

    @Test
    void theTallestOfSeveralCounts() {
        SiteMap map = map(
                new Obstacle("bush", Obstacle.Kind.TREE, List.of(at(0, 0)), 4, 3),
                new Obstacle("beech", Obstacle.Kind.TREE, List.of(at(2, 0)), 25, 6));
        assertThat(map.obstacleM(0, 0, 5)).isEqualTo(25);
    }

    @Test
    void aZoneHoldsBetweenItsFloorAndItsCeiling() {
        Zone zone = new Zone(
                "zone", Zone.Kind.CAUTION, Outline.ofRing(List.of(at(0, 0), at(50, 0), at(50, 50), at(0, 50))), 40, 90);
        SiteMap map = new SiteMap(PLANE, List.of(), List.of(zone));
        assertThat(map.zonesAt(25, 25, 60)).containsExactly(zone);
        assertThat(map.zonesAt(25, 25, 39)).isEmpty();
        assertThat(map.zonesAt(25, 25, 91)).isEmpty();
        assertThat(map.zonesAt(80, 25, 60)).isEmpty();
    }

    @Test
    void impossibleFiguresAreRefused() {
        assertThatThrownBy(() -> new Obstacle("x", Obstacle.Kind.LINE, List.of(at(0, 0)), 10, 1))
                .isInstanceOf(InputFault.class)
                .hasMessageContaining("2 to");
        assertThatThrownBy(() -> new Obstacle("x", Obstacle.Kind.MAST, List.of(at(0, 0)), Double.NaN, 1))
                .isInstanceOf(InputFault.class);
        assertThatThrownBy(() -> new Obstacle("x", Obstacle.Kind.MAST, List.of(at(0, 0)), 5000, 1))
                .isInstanceOf(InputFault.class);
        assertThatThrownBy(() -> new Zone("z", Zone.Kind.KEEP_OUT, Outline.EMPTY, 50, 40))
                .isInstanceOf(InputFault.class)
                .hasMessageContaining("ceiling");
    }
}
