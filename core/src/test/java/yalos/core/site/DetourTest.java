package yalos.core.site;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.OptionalInt;
import java.util.Random;
import org.assertj.core.data.Offset;
import org.junit.jupiter.api.Test;
import yalos.core.Samples;
import yalos.core.block.LocalPlane;
import yalos.core.block.Outline;
import yalos.core.flight.Leg;
import yalos.core.flight.Line;
import yalos.core.flight.Link;
import yalos.core.flight.Way;
import yalos.core.geodesy.LonLat;
import yalos.core.geodesy.PlanePoint;
import yalos.core.height.HeightChoice;
import yalos.core.kit.Aircraft;
import yalos.core.kit.Kit;
import yalos.core.pattern.AddedPass;
import yalos.core.pattern.Crossing;
import yalos.core.pattern.Patterns;
import yalos.core.pins.Pins;
import yalos.core.pins.Quantity;
import yalos.core.plan.BlockPlan;
import yalos.core.plan.GroundRequest;
import yalos.core.plan.PlanRequest;
import yalos.core.units.Measure;
import yalos.core.units.Unit;

/** Ways round what must not be flown over. */
class DetourTest {
    private static final LocalPlane PLANE = LocalPlane.at(Samples.UTM30, Samples.at(0, 0));

    private static Zone keepOut(double... corners) {
        return new Zone("yard", Zone.Kind.KEEP_OUT, Samples.outline(corners), 0, Double.POSITIVE_INFINITY);
    }

    private static PlanePoint at(double east, double north) {
        return PLANE.toPlane(Samples.at(east, north));
    }

    private static double lengthM(Detour detour, PlanePoint from, PlanePoint to) {
        double length = 0;
        PlanePoint here = from;
        for (PlanePoint by : detour.between(from, to)) {
            length += here.distanceM(by);
            here = by;
        }
        return length + here.distanceM(to);
    }

    /** By hand: from 100 m west to 100 m east of a square of 100 m, at its middle, 10 m clear of it: 2 · √(90² + 60²) + 120 m. */
    @Test
    void roundASquareOnTheShorterSide() {
        Detour detour = Detour.of(PLANE, List.of(keepOut(0, 0, 100, 0, 100, 100, 0, 100)), 75);
        double scale = PLANE.toPlane(Samples.at(100, 0)).distanceM(PLANE.toPlane(Samples.at(0, 0))) / 100;
        double byHand = 2 * Math.hypot(100 * scale - 10, 50 * scale + 10) + 100 * scale + 20;
        assertThat(lengthM(detour, at(-100, 50), at(200, 50))).isCloseTo(byHand, Offset.offset(0.01));
        assertThat(detour.between(at(-100, 50), at(200, 50))).hasSize(2);
        assertThat(detour.between(at(-100, 150), at(200, 150))).isEmpty();
    }

    @Test
    void whatHangsHigherOrOnlyWarnsIsNotGoneRound() {
        Zone high = new Zone("airway", Zone.Kind.KEEP_OUT, Samples.square(100), 120, 500);
        Zone care = new Zone("road", Zone.Kind.CAUTION, Samples.square(100), 0, 50);
        assertThat(Detour.of(PLANE, List.of(high, care), 75).between(at(-100, 50), at(200, 50)))
                .isEmpty();
    }

    /** No corner of a way is worth leaving out, and none of it runs through an area: a property of shortest ways. */
    @Test
    void waysAreTautAndClear() {
        Random random = new Random(7);
        List<Zone> zones = new ArrayList<>();
        for (int i = 0; i < 12; i++) {
            double east = random.nextInt(900);
            double north = random.nextInt(900);
            zones.add(keepOut(east, north, east + 80, north + 10, east + 70, north + 90, east + 5, north + 60));
        }
        Detour detour = Detour.of(PLANE, zones, 75);
        int turned = 0;
        for (int i = 0; i < 60; i++) {
            PlanePoint from = at(-60, random.nextInt(1000));
            PlanePoint to = at(1080, random.nextInt(1000));
            List<PlanePoint> way = new ArrayList<>(List.of(from));
            way.addAll(detour.between(from, to));
            way.add(to);
            for (int k = 1; k < way.size(); k++) {
                assertThat(detour.clear(way.get(k - 1), way.get(k))).isTrue();
            }
            for (int k = 1; k + 1 < way.size(); k++) {
                assertThat(detour.clear(way.get(k - 1), way.get(k + 1))).isFalse();
                turned++;
            }
        }
        assertThat(turned).isPositive();
    }

    /** A yard between launch point and block, and one between the arms of a U: no way of the flight runs through either. */
    @Test
    void aFlightGoesRoundKeepOutZones() {
        List<Zone> zones = List.of(
                keepOut(-120, 150, -40, 150, -40, 350, -120, 350), keepOut(230, 240, 350, 240, 350, 600, 230, 600));
        PlanRequest request = new PlanRequest(
                Kit.of(Aircraft.smallMultirotor(), Samples.twentyMegapixel()),
                Pins.ofGsd(2),
                Samples.concaveWithHole(),
                Optional.of(Samples.at(-200, 250)),
                OptionalInt.of(32630));
        BlockPlan plan = request.over(new GroundRequest(
                        GroundRequest.LEVEL, HeightChoice.USUAL, List.of(), zones, OptionalDouble.empty()))
                .plan();
        Detour detour =
                Detour.of(plan.block().plane(), zones, plan.design().scale().heightM());
        int ways = 0;
        Leg before = null;
        for (Leg leg : plan.flight().legs()) {
            if (before != null) {
                assertThat(before.end().point().distanceM(leg.start().point())).isLessThan(1e-6);
            }
            before = leg;
            if (leg instanceof Way way && !(way instanceof Line)) {
                assertThat(detour.clear(way.pointAt(0), way.pointAt(way.lengthM())))
                        .isTrue();
                ways++;
            }
        }
        assertThat(ways).isPositive();
    }

    /** A zone from 90 m up hangs over a main pass at 75 m and in the way of a crossing at 110 m: ways between them must not rise into it. */
    @Test
    void theHighestPassDecidesWhatIsGoneRound() {
        List<Zone> zones = List.of(new Zone(
                "airway",
                Zone.Kind.KEEP_OUT,
                Samples.outline(230, 240, 350, 240, 350, 600, 230, 600),
                90,
                Double.POSITIVE_INFINITY));
        AddedPass.Own higher =
                new AddedPass.Own(Optional.of(Measure.of(110, Unit.METRE)), Optional.empty(), Optional.empty());
        BlockPlan plan = new PlanRequest(
                        Kit.of(Aircraft.smallMultirotor(), Samples.twentyMegapixel()),
                        Pins.ofGsd(2),
                        Samples.concaveWithHole(),
                        Optional.of(Samples.at(-200, 250)),
                        OptionalInt.of(32630))
                .with(Patterns.SINGLE.adding(Crossing.SQUARE.with(higher)))
                .over(new GroundRequest(
                        GroundRequest.LEVEL, HeightChoice.USUAL, List.of(), zones, OptionalDouble.empty()))
                .plan();
        Detour round = Detour.of(plan.block().plane(), zones, 110);
        int led = 0;
        for (Leg leg : plan.flight().legs()) {
            if (leg instanceof Link link && link.kind() != Link.Kind.HOME) {
                assertThat(round.clear(link.pointAt(0), link.pointAt(link.lengthM())))
                        .isTrue();
                led++;
            }
        }
        assertThat(led).isPositive();
    }

    /** An L that must not be left: from the end of one arm to that of the other by its inner corner, 10 m clear of it. */
    @Test
    void withinWhatMustNotBeLeft() {
        Zone ell = new Zone(
                "field",
                Zone.Kind.KEEP_IN,
                Samples.outline(0, 0, 600, 0, 600, 100, 100, 100, 100, 600, 0, 600),
                0,
                Double.POSITIVE_INFINITY);
        Detour detour = Detour.of(PLANE, List.of(ell), 75);
        PlanePoint from = at(550, 50);
        PlanePoint to = at(50, 550);
        PlanePoint inner = at(100, 100);
        PlanePoint corner = new PlanePoint(inner.xM() - 10, inner.yM() - 10);
        assertThat(detour.between(from, to)).hasSize(1);
        assertThat(detour.between(from, to).get(0).distanceM(corner)).isLessThan(0.5);
        assertThat(lengthM(detour, from, to))
                .isCloseTo(from.distanceM(corner) + corner.distanceM(to), Offset.offset(0.01));
    }

    /** A yard behind the end of a wing's first strip: its shortest turn would run through it, and none does. */
    @Test
    void aWingTurnsClearOfKeepOutZones() {
        PlanRequest request = new PlanRequest(
                Kit.of(Aircraft.smallWing(), Samples.twentyMegapixel()),
                Pins.ofGsd(3).with(Quantity.DIRECTION, Measure.of(90, Unit.DEGREE)),
                Samples.square(500),
                Optional.empty(),
                OptionalInt.of(32630));
        BlockPlan free = request.plan();
        List<Line> lines = free.flight().lines();
        List<Zone> zones = List.of(yardBehind(free.block().plane(), lines.get(0), lines.get(1)));
        Detour detour = Detour.of(free.block().plane(), zones, 75);
        assertThat(crossing(free, detour))
                .as("turns that cross, were nothing there")
                .isPositive();
        BlockPlan plan = request.over(new GroundRequest(
                        GroundRequest.LEVEL, HeightChoice.USUAL, List.of(), zones, OptionalDouble.empty()))
                .plan();
        assertThat(crossing(plan, detour)).isZero();
        assertThat(plan.flight().exposures()).hasSameSizeAs(free.flight().exposures());
        Leg before = null;
        for (Leg leg : plan.flight().legs()) {
            if (before != null) {
                assertThat(before.end().point().distanceM(leg.start().point())).isLessThan(1e-6);
            }
            before = leg;
        }
    }

    /** A few metres wide, where the turn from one line to the next swings round, clear of both lines drawn out. */
    private static Zone yardBehind(LocalPlane plane, Line from, Line to) {
        double x = from.to().xM() + Math.sin(from.trackRad()) * 62;
        double y = (from.to().yM() + to.from().yM()) / 2;
        List<LonLat> ring = List.of(
                plane.toLonLat(x - 4, y - 2),
                plane.toLonLat(x + 4, y - 2),
                plane.toLonLat(x + 4, y + 2),
                plane.toLonLat(x - 4, y + 2));
        return new Zone("yard", Zone.Kind.KEEP_OUT, Outline.ofRing(ring), 0, Double.POSITIVE_INFINITY);
    }

    private static long crossing(BlockPlan plan, Detour detour) {
        return plan.flight().legs().stream()
                .filter(leg -> leg instanceof Way way && !(way instanceof Line))
                .map(Way.class::cast)
                .filter(way -> {
                    for (double along = 0; along < way.lengthM(); along += 5) {
                        double next = Math.min(way.lengthM(), along + 5);
                        if (!detour.clear(way.pointAt(along), way.pointAt(next))) {
                            return true;
                        }
                    }
                    return false;
                })
                .count();
    }

    @Test
    void insideAnAreaTheWayIsStraightAndAFindingSaysSo() {
        Detour detour = Detour.of(PLANE, List.of(keepOut(0, 0, 100, 0, 100, 100, 0, 100)), 75);
        LonLat inside = Samples.at(50, 50);
        assertThat(detour.between(PLANE.toPlane(inside), at(300, 50))).isEmpty();
    }
}
