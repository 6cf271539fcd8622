package yalos.core.plan;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;
import static yalos.core.SampleObjects.AREA;
import static yalos.core.SampleObjects.LAUNCH;
import static yalos.core.SampleObjects.facade;
import static yalos.core.SampleObjects.house;
import static yalos.core.SampleObjects.metres;
import static yalos.core.SampleObjects.rings;
import static yalos.core.SampleObjects.round;
import static yalos.core.SampleObjects.tower;

import java.util.ArrayList;
import java.util.Collection;
import java.util.List;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.OptionalInt;
import java.util.TreeSet;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.EnumSource;
import yalos.core.FormulaGround;
import yalos.core.Samples;
import yalos.core.flight.Arc;
import yalos.core.flight.Exposure;
import yalos.core.flight.Flight;
import yalos.core.flight.Leg;
import yalos.core.flight.Link;
import yalos.core.geodesy.PlanePoint;
import yalos.core.height.HeightChoice;
import yalos.core.height.HeightReference;
import yalos.core.kit.Aircraft;
import yalos.core.kit.Kit;
import yalos.core.pattern.PathClearance;
import yalos.core.pattern.Patterns;
import yalos.core.pattern.StructurePass;
import yalos.core.pattern.Structures;
import yalos.core.pins.Pins;
import yalos.core.site.Structure;
import yalos.core.site.Zone;

/** What is flown again is flown as it was planned: every photo from its place, over the same ground and round the same objects. */
class FlyAgainTest {
    private static BlockPlan plan(HeightReference reference, boolean alone, Structure object, StructurePass... passes) {
        Structures structures = passes.length == 0
                ? Structures.NONE
                : new Structures(List.of(object), List.of(passes), metres(3), alone, false);
        return new PlanRequest(
                        Kit.of(Aircraft.smallMultirotor(), Samples.twentyMegapixel()),
                        Pins.ofGsd(2),
                        AREA,
                        Optional.of(LAUNCH),
                        OptionalInt.of(32630))
                .with(Patterns.SINGLE.with(structures))
                .over(new GroundRequest(
                        FormulaGround.of(2, (x, y) -> 300 + 0.1 * x + 4 * Math.sin(y / 15)),
                        HeightChoice.USUAL.with(reference),
                        List.of(),
                        List.of(),
                        OptionalDouble.empty()))
                .plan();
    }

    /** The planned stations that a flight again holds, in its order; each photo must have one, pose and lens and all. */
    private static List<Integer> stations(BlockPlan plan, Flight again) {
        List<Integer> stations = new ArrayList<>();
        int last = 0;
        for (Exposure photo : again.exposures()) {
            int after = last;
            Exposure planned = plan.flight().exposures().stream()
                    .filter(one -> one.id() > after)
                    .min((a, b) -> Double.compare(off(a, photo), off(b, photo)))
                    .orElseThrow();
            assertThat(off(planned, photo)).as("%s for %s", photo, planned).isLessThan(1e-6);
            assertThat(photo.lens()).isEqualTo(planned.lens());
            assertThat(photo.pass()).isEqualTo(planned.pass());
            stations.add(planned.id());
            last = planned.id();
        }
        return stations;
    }

    /** Metres and radians together. */
    private static double off(Exposure a, Exposure b) {
        return a.point().distanceM(b.point())
                + Math.abs(a.upM() - b.upM())
                + Math.abs(Math.IEEEremainder(a.pose().yawRad() - b.pose().yawRad(), 2 * Math.PI))
                + Math.abs(a.pose().pitchRad() - b.pose().pitchRad())
                + Math.abs(a.pose().rollRad() - b.pose().rollRad());
    }

    private static void isOnePath(Flight flight) {
        Leg before = null;
        for (Leg leg : flight.legs()) {
            if (before != null) {
                assertThat(leg.start().point().distanceM(before.end().point())).isLessThan(1e-6);
                assertThat(leg.start().upM())
                        .as("%s after %s", leg, before)
                        .isCloseTo(before.end().upM(), within(1e-3));
            }
            before = leg;
        }
    }

    private static FlyAgain again(BlockPlan plan, Collection<Integer> missing) {
        FlyAgain again = FlyAgain.of(plan, missing).orElseThrow();
        isOnePath(again.flight());
        assertThat(again.seconds()).isPositive().isLessThan(plan.flightTimeS());
        return again;
    }

    @ParameterizedTest
    @EnumSource(HeightReference.class)
    void overGroundEachPhotoIsTakenFromItsPlace(HeightReference reference) {
        BlockPlan plan = plan(reference, false, house());
        int middle = plan.photos() / 2;
        List<Integer> missing = List.of(1, middle, middle + 1, plan.photos());
        List<Integer> stations = stations(plan, again(plan, missing).flight());
        assertThat(stations).isSorted().doesNotHaveDuplicates().containsAll(missing);
        assertThat(stations.size()).isLessThanOrEqualTo(8);
    }

    @Test
    void roundObjectsToo() {
        BlockPlan plan = plan(HeightReference.FOLLOW, false, tower(), rings("tower", 8), facade("tower", 8));
        int rings = round(plan).passes().get(0).number();
        List<Exposure> all = plan.flight().exposures();
        int ring = all.stream()
                .filter(photo -> photo.pass() == rings)
                .findFirst()
                .orElseThrow()
                .id();
        List<Integer> missing = List.of(10, ring + 4, ring + 5, plan.photos() - 5);
        FlyAgain again = again(plan, missing);

        assertThat(stations(plan, again.flight())).isSorted().contains(10, ring + 3, ring + 4, ring + 5, ring + 6);
        assertThat(new TreeSet<>(stations(plan, again.flight()))).containsAll(missing);
        assertThat(again.flight().legs().stream().filter(Arc.class::isInstance))
                .as("between photos of a ring it flies on along the ring")
                .hasSizeGreaterThanOrEqualTo(3);
        PathClearance path = PathClearance.of(
                again.flight(), round(plan).built(), round(plan).scene().ground());
        assertThat(path.nearest().orElseThrow().m()).isGreaterThan(2.5);
        assertThat(again.flight().exposures().stream()
                        .mapToDouble(Exposure::upM)
                        .max()
                        .orElseThrow())
                .isLessThan(420);
    }

    /** Nothing is flown over the ground: nothing of it is flown again either. */
    @Test
    void whereObjectsAreFlownAlone() {
        BlockPlan plan = plan(HeightReference.FOLLOW, true, house(), facade("house", 8));
        List<Integer> missing = Stream.of(3, 4, plan.photos()).toList();
        FlyAgain again = again(plan, missing);
        assertThat(stations(plan, again.flight()))
                .containsExactlyElementsOf(new TreeSet<>(stations(plan, again.flight())))
                .containsAll(missing);
        assertThat(again.flight().exposures()).hasSizeLessThan(9);
    }

    /** Missing over the ground alone, with objects that were photographed well. */
    @Test
    void whatIsGoodRoundObjectsIsLeftAlone() {
        BlockPlan plan = plan(HeightReference.FOLLOW, false, house(), facade("house", 8));
        FlyAgain again = again(plan, List.of(5));
        assertThat(stations(plan, again.flight())).containsExactly(4, 5, 6);
    }

    @Test
    void allOfItIsThePlan() {
        BlockPlan plan = plan(HeightReference.STEPPED, false, tower(), rings("tower", 8));
        List<Integer> all = plan.flight().exposures().stream().map(Exposure::id).toList();
        FlyAgain again = FlyAgain.of(plan, all).orElseThrow();
        assertThat(stations(plan, again.flight())).containsExactlyElementsOf(all);
        assertThat(again.seconds()).isCloseTo(plan.timeline().totalS(), within(1.0));
    }

    /** A zone between what is missing on two sides of it: flown again round it as the plan was. */
    @Test
    void roundAZoneBetween() {
        Zone yard = new Zone("yard", Zone.Kind.KEEP_OUT, Samples.outline(50, 60, 110, 60, 110, 100, 50, 100), 0, 400);
        BlockPlan plan = new PlanRequest(
                        Kit.of(Aircraft.smallMultirotor(), Samples.twentyMegapixel()),
                        Pins.ofGsd(2),
                        AREA,
                        Optional.of(LAUNCH),
                        OptionalInt.of(32630))
                .over(new GroundRequest(
                        FormulaGround.of(2, (x, y) -> 300 + 0.1 * x),
                        HeightChoice.USUAL,
                        List.of(),
                        List.of(yard),
                        OptionalDouble.empty()))
                .plan();
        PlanePoint southWest = plan.block().plane().toPlane(Samples.at(50, 60));
        PlanePoint northEast = plan.block().plane().toPlane(Samples.at(110, 100));
        int round = 0;
        for (int first = 1; first < plan.photos(); first += 7) {
            FlyAgain again = again(plan, List.of(first, plan.photos() + 1 - first));
            int turns = 0;
            for (Leg leg : again.flight().legs()) {
                // Strips that the plan itself flies across the zone are a finding's affair.
                if (leg instanceof Link link
                        && !inZone(link.from(), southWest, northEast)
                        && !inZone(link.to(), southWest, northEast)) {
                    for (double along = 0; along <= link.lengthM(); along += 0.5) {
                        assertThat(inZone(link.pointAt(along), southWest, northEast))
                                .as("%s after %d", link, first)
                                .isFalse();
                    }
                    turns += link.kind() == Link.Kind.TURN ? 1 : 0;
                }
            }
            round += turns > 1 ? 1 : 0;
        }
        assertThat(round).as("some go round a corner").isPositive();
    }

    private static boolean inZone(PlanePoint at, PlanePoint southWest, PlanePoint northEast) {
        return at.xM() > southWest.xM()
                && at.xM() < northEast.xM()
                && at.yM() > southWest.yM()
                && at.yM() < northEast.yM();
    }
}
