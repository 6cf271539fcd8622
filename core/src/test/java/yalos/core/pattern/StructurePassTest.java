package yalos.core.pattern;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;
import static yalos.core.SampleObjects.angle;
import static yalos.core.SampleObjects.body;
import static yalos.core.SampleObjects.bridge;
import static yalos.core.SampleObjects.circles;
import static yalos.core.SampleObjects.degrees;
import static yalos.core.SampleObjects.facade;
import static yalos.core.SampleObjects.house;
import static yalos.core.SampleObjects.metres;
import static yalos.core.SampleObjects.places;
import static yalos.core.SampleObjects.plan;
import static yalos.core.SampleObjects.proof;
import static yalos.core.SampleObjects.rings;
import static yalos.core.SampleObjects.round;
import static yalos.core.SampleObjects.solid;
import static yalos.core.SampleObjects.tower;
import static yalos.core.SampleObjects.under;

import java.util.List;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.Set;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import yalos.core.Samples;
import yalos.core.fault.InputFault;
import yalos.core.flight.Exposure;
import yalos.core.flight.Leg;
import yalos.core.flight.Place;
import yalos.core.geodesy.PlanePoint;
import yalos.core.kit.Aircraft;
import yalos.core.plan.BlockPlan;
import yalos.core.proof.FaceAdequacy;
import yalos.core.proof.FaceProof;
import yalos.core.proof.StructureProof;
import yalos.core.site.Prism;
import yalos.core.site.Structure;
import yalos.core.units.Measure;
import yalos.core.units.Unit;

/** What is flown round objects: how far off, which way it looks, that it goes round and never through, and that all faces are seen. */
class StructurePassTest {
    /** Every leg begins where the one before ends, and nothing comes nearer to the object than is to be kept. */
    private static void isOnePath(BlockPlan plan, double clear) {
        Place here = null;
        for (Leg leg : plan.flight().legs()) {
            if (here != null) {
                assertThat(leg.start().point().distanceM(here.point()))
                        .as(leg.toString())
                        .isLessThan(1e-6);
                assertThat(leg.start().upM()).as(leg.toString()).isCloseTo(here.upM(), within(1e-6));
            }
            here = leg.end();
        }
        PathClearance path = PathClearance.of(
                plan.flight(), round(plan).built(), round(plan).scene().ground());
        assertThat(path.nearest().orElseThrow().m())
                .as(path.nearest().toString())
                .isGreaterThan(clear - 0.5);
        assertThat(round(plan).flown().orElseThrow().reached()).isTrue();
        assertThat(plan.flightTimeS()).isPositive().isFinite();
        double[] seconds = plan.timeline().exposuresS();
        double interval = plan.request().kit().payload().slowestIntervalS();
        for (int i = 1; i < seconds.length; i++) {
            assertThat(seconds[i] - seconds[i - 1])
                    .as("between photos %d and %d", i, i + 1)
                    .isGreaterThan(interval - 1e-3);
        }
    }

    /** On a radius of 30 m with 18 photos at 10 m/s: 10.47 m and 1.05 s between photos, a bank of 18.8° (hand, common practice). */
    @Test
    void figuresOfARing() {
        CircleShots ring = CircleShots.with(30, 18, 10);
        assertThat(ring.arcM()).isCloseTo(10.47, within(0.005));
        assertThat(ring.intervalS()).isCloseTo(1.05, within(0.005));
        assertThat(Math.toDegrees(ring.bankRad())).isCloseTo(18.8, within(0.05));
    }

    /** GSD from the stand-off: d · pitch / f; 17.3 mm over 5280 pixels behind 12.29 mm give 2.666 mm from 10 m (hand). */
    @ParameterizedTest
    @ValueSource(doubles = {5, 10, 20, 37.5})
    void gsdFollowsFromTheStandOffAndBack(double off) {
        Facade pass = facade("house", off);
        BlockPlan plan = plan(house(), pass);
        double gsd = pass.gsdM(round(plan).scene());
        assertThat(gsd).isCloseTo(off * 0.0173 / 5280 / 0.01229, within(off * 2e-6));
        StandOff back = StandOff.ofGsd(Measure.of(gsd * 1000, Unit.MILLIMETRE));
        assertThat(back.metres(Samples.twentyMegapixel())).isCloseTo(off, within(1e-9));
    }

    @Test
    void aFacadeStandsSquareToItsWallsAndRoundsTheCorners() {
        BlockPlan plan = plan(
                house(),
                new Facade(
                        "house",
                        StandOff.of(metres(8)),
                        false,
                        degrees(0),
                        degrees(0),
                        true,
                        false,
                        StructurePass.Habit.USUAL));
        isOnePath(plan, 3);
        Prism solid = solid(plan);
        double top = 0;
        double low = 100;
        for (Exposure photo : plan.flight().exposures()) {
            assertThat(solid.asideM(photo.point())).isCloseTo(8, within(1e-6));
            assertThat(photo.pose().pitchRad()).isZero();
            PlanePoint seen = photo.point().moved(photo.pose().yawRad(), 8);
            assertThat(solid.asideM(seen))
                    .as("looks square at the wall or its corner")
                    .isLessThan(1e-6);
            top = Math.max(top, photo.upM());
            low = Math.min(low, photo.upM());
        }
        assertThat(low).isCloseTo(3, within(1e-9));
        assertThat(top).isCloseTo(12, within(1e-9));
        // Spacing along walls and between runs keeps the overlaps: 80 % of 11.26 m, 70 % of 8.46 m.
        assertThat(plan.flight()
                        .exposures()
                        .get(0)
                        .point()
                        .distanceM(plan.flight().exposures().get(1).point()))
                .isBetween(1.0, 8 * 17.3 / 12.29 * 0.2 + 1e-9);
        assertThat(plan.flight().strips()).isEqualTo((int) Math.ceil(9 / (8 * 13.0 / 12.29 * 0.3)) + 1);
    }

    @Test
    void allWallsAndTheRoofOfAHouseAreSeen() {
        BlockPlan plan = plan(house(), facade("house", 8));
        isOnePath(plan, 3);
        StructureProof proof = proof(plan);
        assertThat(proof.faces()).hasSize(5);
        for (FaceProof face : proof.faces()) {
            if (!face.key().endsWith("roof")) {
                assertThat(face.share()).as(face.words()).isGreaterThan(0.97);
            }
        }
        assertThat(proof.areaM2()).isCloseTo(2 * (20 + 10) * 12 + 200, within(4.0));
    }

    /** Turning the house turns everything; counts stay. */
    @Test
    void upAndDownSeesTheSameWalls() {
        Facade upright = new Facade(
                "house", StandOff.of(metres(8)), true, degrees(20), degrees(0), true, false, StructurePass.Habit.USUAL);
        BlockPlan plan = plan(house(), upright);
        isOnePath(plan, 3);
        assertThat(proof(plan).faces().stream()
                        .filter(face -> !face.key().endsWith("roof"))
                        .mapToDouble(FaceProof::share))
                .allMatch(share -> share > 0.97);
    }

    @Test
    void insideABendNothingComesTooNear() {
        BlockPlan plan = plan(angle(), facade("angle", 6));
        isOnePath(plan, 3);
        StructureFlight.OfPass pass = round(plan).passes().get(0);
        assertThat(pass.leftOut()).containsKey(StructureFlight.LeftOut.NEAR);
        assertThat(proof(plan).share()).isGreaterThan(0.8);
    }

    @Test
    void facesThatNeedNoPhotosGetNone() {
        Structure one = new Structure("house", house().parts(), Set.of("1.2", "1.3", "1.4", "1.roof"), "");
        Facade plain = new Facade(
                "house", StandOff.of(metres(8)), false, degrees(0), degrees(0), true, false, StructurePass.Habit.USUAL);
        BlockPlan plan = plan(one, plain);
        isOnePath(plan, 3);
        assertThat(plan.flight().exposures())
                .allMatch(photo -> photo.pose().northM() < solid(plan).corner(0).yM());
        assertThat(proof(plan).faces()).hasSize(1);
    }

    @Test
    void ringsLookAtTheAxisFromTheirRadius() {
        BlockPlan plan = plan(tower(), rings("tower", 12));
        isOnePath(plan, 3);
        double r = solid(plan).reachM() + 12;
        PlanePoint axis = solid(plan).middle();
        for (Exposure photo : plan.flight().exposures()) {
            assertThat(photo.point().distanceM(axis)).isCloseTo(r, within(1e-6));
            PlanePoint ahead = photo.point().moved(photo.pose().yawRad(), r);
            assertThat(ahead.distanceM(axis)).isLessThan(1e-6);
        }
        Rings pass = (Rings) round(plan).wanted().passes().get(0);
        CircleShots shots = pass.shots(round(plan).scene());
        assertThat(plan.photos()).isEqualTo(shots.photos() * plan.flight().strips());
        double circle = 2 * Math.PI * r * (shots.photos() - 1) / shots.photos();
        double flown = plan.flight().lines().stream()
                .mapToDouble(line -> line.lengthM())
                .sum();
        assertThat(flown).isZero();
        assertThat(plan.flight().pathLengthM())
                .isGreaterThan(circle * plan.flight().strips());
        assertThat(proof(plan).faces().stream()
                        .filter(face -> face.built().part() == 2 && !face.key().endsWith("roof"))
                        .mapToDouble(FaceProof::share))
                .allMatch(share -> share > 0.99);
    }

    /** What of the plinth's top the tower stands on, and of the tower what stands in the plinth, nobody can see. */
    @Test
    void partsThatTouchAreNotToBeSeen() {
        BlockPlan plan = plan(tower(), rings("tower", 12));
        FaceProof plinth = proof(plan).faces().stream()
                .filter(face -> face.key().equals("1.roof"))
                .findFirst()
                .orElseThrow();
        assertThat(plinth.areaM2()).isCloseTo(144 - 36, within(6.0));
        assertThat(plinth.verdicts()).contains(FaceAdequacy.NONE);
    }

    @Test
    void underADeckItLooksStraightUpAndLeavesThePiersAside() {
        BlockPlan plan = plan(bridge(2), under(5, 90));
        isOnePath(plan, 3);
        StructureFlight.OfPass pass = round(plan).passes().get(0);
        assertThat(pass.leftOut().get(StructureFlight.LeftOut.NEAR)).isPositive();
        assertThat(plan.flight().exposures())
                .allMatch(photo ->
                        Math.abs(photo.upM() - 9) < 1e-9 && photo.pose().pitchRad() == Math.PI / 2);
        BlockPlan free = plan(bridge(0), under(5, 90));
        isOnePath(free, 3);
        FaceProof underside = proof(free).faces().stream()
                .filter(face -> face.key().equals("1.under"))
                .findFirst()
                .orElseThrow();
        assertThat(underside.share()).isEqualTo(1);
        assertThat(underside.areaM2()).isCloseTo(480, within(5.0));
        isOnePath(plan(bridge(2), under(5, 60)), 3);
    }

    @Test
    void circlesOverlapByHalf() {
        BlockPlan plan = plan(house(), circles(40));
        isOnePath(plan, 3);
        Circles pass = circles(40);
        List<PlanePoint> middles = pass.middles(round(plan).scene());
        assertThat(middles).hasSize(16);
        assertThat(middles.get(0).distanceM(middles.get(1))).isCloseTo(40, within(1e-9));
        double slant = Math.hypot(40, 30);
        int photos = (int) Math.ceil(2 * Math.PI * 40 / (slant * 17.3 / 12.29 * 0.2));
        assertThat(plan.photos()).isEqualTo(16 * photos);
        assertThat(plan.flight().exposures())
                .allMatch(photo -> Math.abs(photo.pose().pitchRad() + Math.atan2(30, 40)) < 1e-9);
    }

    /** After the strips over the ground, in one flight with one way home; the ground's own photos stay as they were. */
    @Test
    void theyFollowTheStripsInOneFlight() {
        BlockPlan alone = plan(Aircraft.smallMultirotor(), true, 3, house(), facade("house", 8));
        BlockPlan both = plan(Aircraft.smallMultirotor(), false, 3, house(), facade("house", 8));
        isOnePath(both, 3);
        int ground = both.passes().flight().exposures().size();
        assertThat(both.photos()).isEqualTo(ground + alone.photos());
        assertThat(both.flight().exposures().get(ground).pass()).isEqualTo(2);
        assertThat(both.flightTimeS()).isGreaterThan(alone.flightTimeS());
        assertThat(both.flight().exposures()).extracting(Exposure::id).doesNotHaveDuplicates();
        assertThat(both.flight().lines()).extracting(line -> line.number()).doesNotHaveDuplicates();
    }

    @Test
    void floorAndCeilingAreNeverCrossed() {
        StructurePass.Habit strict = new StructurePass.Habit(
                StructurePass.Habit.USUAL.forward(),
                StructurePass.Habit.USUAL.side(),
                Optional.empty(),
                Optional.of(metres(6)),
                Optional.of(metres(10)));
        BlockPlan plan = plan(
                tower(),
                new Facade("tower", StandOff.of(metres(8)), false, degrees(20), degrees(45), true, false, strict));
        isOnePath(plan, 3);
        assertThat(plan.flight().exposures()).allMatch(photo -> photo.upM() >= 6 - 0.01 && photo.upM() <= 10.01);
        assertThat(round(plan).passes().get(0).leftOut()).containsKey(StructureFlight.LeftOut.CEILING);
    }

    @Test
    void whatCannotBeFlownSaysWhy() {
        assertThat(fault(plan(house(), facade("house", 2)))).contains("less than the 3.0 m to be kept");
        assertThat(fault(plan(house(), facade("barn", 8)))).contains("no object “barn”");
        assertThat(fault(plan(house(), under(5, 90)))).contains("no object “bridge”");
        Rings inside = new Rings(
                "house",
                StandOff.of(metres(5)),
                Optional.of(metres(6)),
                Optional.empty(),
                Optional.empty(),
                OptionalInt.empty(),
                OptionalInt.empty(),
                Optional.empty(),
                StructurePass.Habit.USUAL);
        assertThat(fault(plan(house(), inside))).contains("The radius must be 14.2 m or more");
        assertThatThrownBy(() -> body(5, 4, 0, 0, 5, 0, 5, 5))
                .isInstanceOf(InputFault.class)
                .hasMessageContaining("top");
        assertThatThrownBy(() -> body(0, 4, 0, 0, 5, 5, 5, 0, 0, 5))
                .isInstanceOf(InputFault.class)
                .hasMessageContaining("crosses itself");
        assertThatThrownBy(() -> new Structure.Part(
                        Structure.Kind.WALL,
                        places(5, 5, 5, 5),
                        1,
                        0,
                        4,
                        Structure.Counted.GROUND,
                        Structure.Piers.NONE))
                .isInstanceOf(InputFault.class)
                .hasMessageContaining("length is nothing");
    }

    private static String fault(BlockPlan plan) {
        return round(plan).passes().get(0).fault().orElseThrow().getMessage();
    }

    /** A ring so low that it meets the ground loses its photos there, and a radius larger than the block is flown all the same. */
    @Test
    void aRingThatMeetsTheGroundIsLeftOut() {
        Rings low = new Rings(
                "house",
                StandOff.of(metres(8)),
                Optional.of(metres(150)),
                Optional.of(metres(1)),
                Optional.of(metres(10)),
                OptionalInt.of(2),
                OptionalInt.of(40),
                Optional.empty(),
                StructurePass.Habit.USUAL);
        BlockPlan plan = plan(house(), low);
        assertThat(round(plan).passes().get(0).leftOut()).containsEntry(StructureFlight.LeftOut.GROUND, 40);
        assertThat(plan.photos()).isEqualTo(40);
    }

    private static Structure.Part roundTower(double radius, double bottom, double top, int corners) {
        double[] ring = new double[2 * corners];
        for (int i = 0; i < corners; i++) {
            ring[2 * i] = 80 + radius * Math.sin(-2 * Math.PI * i / corners);
            ring[2 * i + 1] = 80 + radius * Math.cos(-2 * Math.PI * i / corners);
        }
        return body(bottom, top, ring);
    }

    /** Two drums of nearly five hundred walls in all: every one is flown along and proved; more than six hundred are refused. */
    @Test
    void fiveHundredFacesAreFlownAndProved() {
        Structure drums =
                new Structure("drums", List.of(roundTower(15, 0, 8, 390), roundTower(6, 8, 14, 100)), Set.of(), "");
        BlockPlan plan = plan(drums, facade("drums", 8));
        isOnePath(plan, 3);
        StructureProof proof = proof(plan);
        assertThat(proof.faces()).hasSize(492);
        // Round the larger drum at 23 m the overlap asks for a photo every 2.25 m, a turn of 15° for one every 6 m: 65
        // of
        // them, not one for every corner.
        assertThat(plan.flight().exposures().stream()
                        .filter(photo -> photo.upM() == 3 && photo.pose().pitchRad() == 0))
                .hasSizeBetween(64, 80);
        assertThat(proof.share()).isGreaterThan(0.9);
        Structure more =
                new Structure("more", List.of(roundTower(15, 0, 8, 390), roundTower(6, 8, 14, 390)), Set.of(), "");
        assertThatThrownBy(() -> new Structures(List.of(more), List.of(), metres(3), false, false))
                .isInstanceOf(InputFault.class)
                .hasMessageContaining("600 are the most");
    }
}
