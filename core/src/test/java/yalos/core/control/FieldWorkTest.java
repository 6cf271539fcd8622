package yalos.core.control;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.OptionalInt;
import org.assertj.core.data.Offset;
import org.junit.jupiter.api.Test;
import yalos.core.FormulaGround;
import yalos.core.Samples;
import yalos.core.block.Outline;
import yalos.core.control.ControlPoint.Role;
import yalos.core.fault.InputFault;
import yalos.core.geodesy.LonLat;
import yalos.core.geodesy.PlanePoint;
import yalos.core.height.HeightChoice;
import yalos.core.kit.Aircraft;
import yalos.core.kit.Kit;
import yalos.core.kit.Positioning;
import yalos.core.pins.Pins;
import yalos.core.plan.BlockPlan;
import yalos.core.plan.GroundRequest;
import yalos.core.plan.PlanRequest;

/** The crew's work on the ground, against figures worked out by hand. */
class FieldWorkTest {
    private static final BlockPlan LEVEL = plan(Optional.empty(), Optional.empty());

    private static BlockPlan plan(Optional<GroundRequest.Source> source, Optional<LonLat> launch) {
        PlanRequest request = new PlanRequest(
                Kit.of(Aircraft.smallMultirotor(), Samples.twentyMegapixel()),
                Pins.ofGsd(2.5),
                Samples.square(300),
                launch,
                OptionalInt.of(32630));
        return source.map(ground -> request.over(
                        new GroundRequest(ground, HeightChoice.USUAL, List.of(), List.of(), OptionalDouble.empty())))
                .orElse(request)
                .plan();
    }

    private static LonLat place(double x, double y) {
        return LEVEL.block().plane().toLonLat(x, y);
    }

    private static ControlLayout at(double... places) {
        ControlLayout layout = ControlLayout.NONE;
        for (int i = 0; i < places.length; i += 2) {
            layout = layout.plus(ControlPoint.target(layout.nextName(), Role.CONTROL, place(places[i], places[i + 1])));
        }
        return layout;
    }

    private static List<MarkedPlace> marked(BlockPlan plan, ControlLayout layout) {
        return layout.points().stream()
                .map(point -> MarkedPlace.of(plan, point))
                .toList();
    }

    /** 100 m east, 100 m north, back: 341.4 m at 1.1 m/s. */
    @Test
    void levelWalksTakeTheirLength() {
        BlockPlan plan = plan(Optional.empty(), Optional.of(place(0, 0)));
        Walk walk = Walk.of(plan, at(100, 100, 100, 0));
        assertThat(walk.order()).containsExactlyInAnyOrder(0, 1);
        assertThat(walk.lengthM()).isCloseTo(341.42, Offset.offset(0.05));
        assertThat(walk.seconds()).isCloseTo(341.42 / 1.1, Offset.offset(0.1));
        assertThat(walk.climbM()).isZero();
        assertThat(walk.fromLaunch()).isTrue();
    }

    /** Naismith: 60 m up a slope of 1 in 5, 300 m long, take 300 / 1.1 s and an hour's tenth; down costs nothing more. */
    @Test
    void climbCounts() {
        BlockPlan hill = plan(Optional.of(FormulaGround.of(5, (x, y) -> 100 + x / 5)), Optional.of(place(-140, 0)));
        Walk walk = Walk.of(hill, at(140, 0));
        assertThat(walk.climbM()).isCloseTo(56, Offset.offset(0.2));
        assertThat(walk.seconds()).isCloseTo(2 * 280 / 1.1 + 56 * 6, Offset.offset(3.0));
    }

    /** A tarn across the straight way, 80 m to each side: the way bends round its corners, 10 m clear. */
    @Test
    void waterIsWalkedRound() {
        Outline tarn = Outline.ofRing(List.of(place(-10, -80), place(10, -80), place(10, 80), place(-10, 80)));
        ControlLayout layout = at(100, 0).avoiding(List.of(new Avoided("tarn", Avoided.Kind.WATER, tarn)));
        Walk walk = Walk.of(plan(Optional.empty(), Optional.of(place(-100, 0))), layout);
        double half = Math.hypot(80, 90) + 20;
        assertThat(walk.lengthM()).isCloseTo(2 * (half + Math.hypot(80, 90) + 20), Offset.offset(1.0));
        assertThat(walk.way().size()).isGreaterThan(4);
    }

    @Test
    void crewTimeAddsUp() {
        CrewTime time = CrewTime.of(600, 5, 30, Positioning.PPK);
        assertThat(time.totalS()).isEqualTo(900 + 600 + 5 * (120 + 30 + 30) + 600 + 5 * 20);
        assertThat(CrewTime.of(600, 5, 180, Positioning.PPK).pointsS() - time.pointsS())
                .isEqualTo(5 * (150 + 60));
        assertThat(CrewTime.of(0, 0, 30, Positioning.RTK_NETWORK).totalS()).isZero();
    }

    /** Points at the middles of the halves of a square of 300 m: their hull is a quarter of it. */
    @Test
    void spreadIsTheShareOfTheHull() {
        Spread spread = Spread.of(LEVEL, marked(LEVEL, at(-75, -75, 75, -75, 75, 75, -75, 75)));
        assertThat(spread.hullShare()).isCloseTo(0.25, Offset.offset(0.001));
        assertThat(spread.heightShare()).isEqualTo(1);
        assertThat(spread.inLine()).isFalse();
        assertThat(Spread.of(LEVEL, marked(LEVEL, at(-100, -100, 0, 1, 100, 100)))
                        .inLine())
                .isTrue();
        BlockPlan slope = plan(Optional.of(FormulaGround.of(5, (x, y) -> 100 + x / 5)), Optional.empty());
        double share = Spread.of(slope, marked(slope, at(-50, 0, 50, 0))).heightShare();
        assertThat(share).isBetween(0.33, 0.42);
    }

    /** Straight below a photo a point lies in its middle; with yaw 64° and a step to the side the pixel is that of the projection. */
    @Test
    void photosOfAPointAreThoseThatSeeIt() {
        var photo = LEVEL.flight().exposures().get(LEVEL.photos() / 2);
        List<PointPhotos.Seen> seen = PointPhotos.of(
                LEVEL, new MarkedPlace(photo.pose().eastM(), photo.pose().northM(), 0));
        assertThat(seen.get(0).photo()).isEqualTo(photo);
        assertThat(seen.get(0).fromMiddle()).isLessThan(1e-6);
        assertThat(seen.get(0).gsdM()).isCloseTo(0.025, Offset.offset(1e-4));
        assertThat(seen).isSortedAccordingTo(Comparator.comparingDouble(PointPhotos.Seen::fromMiddle));
        PointPhotos.Seen other = seen.get(3);
        double level = Math.hypot(
                other.photo().pose().eastM() - photo.pose().eastM(),
                other.photo().pose().northM() - photo.pose().northM());
        double pixels = Math.hypot(
                other.u() - other.photo().lens().width() / 2.0,
                other.v() - other.photo().lens().height() / 2.0);
        assertThat(pixels * 0.025).isCloseTo(level, Offset.offset(0.01));
        assertThat(Math.tan(other.angleRad()) * photo.upM()).isCloseTo(level, Offset.offset(1e-6));
        assertThat(PointPhotos.of(LEVEL, new MarkedPlace(5000, 0, 0))).isEmpty();
        assertThat(PointPhotos.of(LEVEL, new MarkedPlace(0, 0, Double.NaN))).isEmpty();
    }

    @Test
    void targetsAreTenPixelsAndNoLessThanTwentyCentimetres() {
        assertThat(Targets.sideM(0.01)).isCloseTo(0.2, Offset.offset(1e-9));
        assertThat(Targets.sideM(0.025)).isCloseTo(0.25, Offset.offset(1e-9));
        assertThat(Targets.sideM(0.041)).isCloseTo(0.45, Offset.offset(1e-9));
    }

    @Test
    void spotLevelsAreStakedUpOneRowAndDownTheNext() {
        List<PlanePoint> stakes = Targets.spotLevels(new PlanePoint(0, 0), new PlanePoint(25, -30), 10);
        assertThat(stakes).hasSize(3 * 4);
        assertThat(stakes.get(3)).isEqualTo(new PlanePoint(0, -30));
        assertThat(stakes.get(4)).isEqualTo(new PlanePoint(10, -30));
        for (int i = 1; i < stakes.size(); i++) {
            assertThat(stakes.get(i).distanceM(stakes.get(i - 1))).isEqualTo(10);
        }
        assertThatThrownBy(() -> Targets.spotLevels(new PlanePoint(0, 0), new PlanePoint(9000, 9000), 1))
                .isInstanceOf(InputFault.class)
                .hasMessageContaining("81,018,001 stakes");
    }

    @Test
    void namesAreUniqueAndPlain() {
        ControlLayout two = at(0, 0, 10, 10);
        assertThat(two.nextName()).isEqualTo("3");
        assertThatThrownBy(() -> two.plus(ControlPoint.target("2", Role.CHECK, place(1, 1))))
                .hasMessageContaining("There is a point 2 already");
        assertThatThrownBy(() -> ControlPoint.target("=1+1", Role.CHECK, place(1, 1)))
                .hasMessageContaining("begins with a letter or figure");
        assertThatThrownBy(() -> two.without("9")).hasMessageContaining("no point 9");
        assertThat(two.changed("1", point -> point.as(Role.CHECK)).of(Role.CHECK))
                .hasSize(1);
    }
}
