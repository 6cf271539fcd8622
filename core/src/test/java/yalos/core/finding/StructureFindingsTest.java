package yalos.core.finding;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.OptionalInt;
import java.util.Set;
import java.util.function.DoubleBinaryOperator;
import org.junit.jupiter.api.Test;
import yalos.core.FormulaGround;
import yalos.core.Samples;
import yalos.core.block.Outline;
import yalos.core.brief.Brief;
import yalos.core.flight.Exposure;
import yalos.core.geodesy.LonLat;
import yalos.core.height.HeightChoice;
import yalos.core.kit.Aircraft;
import yalos.core.kit.Kit;
import yalos.core.pattern.Circles;
import yalos.core.pattern.Facade;
import yalos.core.pattern.PathClearance;
import yalos.core.pattern.Patterns;
import yalos.core.pattern.Rings;
import yalos.core.pattern.StandOff;
import yalos.core.pattern.StructureFlight;
import yalos.core.pattern.StructurePass;
import yalos.core.pattern.Structures;
import yalos.core.pins.Pins;
import yalos.core.plan.BlockPlan;
import yalos.core.plan.GroundRequest;
import yalos.core.plan.PlanProof;
import yalos.core.plan.PlanRequest;
import yalos.core.plan.StructurePlan;
import yalos.core.site.Obstacle;
import yalos.core.site.Structure;
import yalos.core.site.Zone;
import yalos.core.trial.FaceRemedies;
import yalos.core.units.Measure;
import yalos.core.units.Unit;
import yalos.core.units.UnitChoice;

/** What is said of objects on hard ground: a slope, a cliff, a hole in the model, wings, zones, ceilings, the other hemisphere. */
class StructureFindingsTest {
    private static final Outline AREA = Samples.square(160);

    private static Structure house(double top) {
        Structure.Part part = new Structure.Part(
                Structure.Kind.BODY,
                List.of(Samples.at(70, 70), Samples.at(90, 70), Samples.at(90, 82), Samples.at(70, 82)),
                0,
                0,
                top,
                Structure.Counted.GROUND,
                Structure.Piers.NONE);
        return new Structure("house", List.of(part), Set.of(), "");
    }

    private static Facade facade(double off, StructurePass.Habit habit) {
        return new Facade(
                "house",
                StandOff.of(Measure.of(off, Unit.METRE)),
                false,
                Measure.of(20, Unit.DEGREE),
                Measure.of(45, Unit.DEGREE),
                true,
                true,
                habit);
    }

    private static Rings rings(double radius) {
        return new Rings(
                "house",
                StandOff.of(Measure.of(10, Unit.METRE)),
                Optional.of(Measure.of(radius, Unit.METRE)),
                Optional.of(Measure.of(8, Unit.METRE)),
                Optional.of(Measure.of(14, Unit.METRE)),
                OptionalInt.of(2),
                OptionalInt.of(36),
                Optional.empty(),
                StructurePass.Habit.USUAL);
    }

    private static StructurePass.Habit fast(double mps) {
        return new StructurePass.Habit(
                StructurePass.Habit.USUAL.forward(),
                StructurePass.Habit.USUAL.side(),
                Optional.of(Measure.of(mps, Unit.METRE_PER_SECOND)),
                Optional.empty(),
                Optional.empty());
    }

    private static PlanRequest request(Aircraft aircraft, Structure object, StructurePass... passes) {
        return new PlanRequest(
                        Kit.of(aircraft, Samples.twentyMegapixel()),
                        Pins.ofGsd(2),
                        AREA,
                        Optional.of(Samples.at(20, 20)),
                        OptionalInt.of(32630))
                .with(Patterns.SINGLE.with(
                        new Structures(List.of(object), List.of(passes), Measure.of(4, Unit.METRE), true, false)));
    }

    private static BlockPlan plan(DoubleBinaryOperator shape, List<Zone> zones, StructurePass... passes) {
        return BlockPlan.of(request(Aircraft.smallMultirotor(), house(9), passes)
                .over(new GroundRequest(
                        FormulaGround.of(2, shape), HeightChoice.USUAL, List.of(), zones, OptionalDouble.empty())));
    }

    private static List<String> said(BlockPlan plan) {
        return Findings.of(Case.of(plan, Brief.EMPTY), UnitChoice.METRIC).stream()
                .map(finding -> finding.level().word() + " " + finding.key())
                .toList();
    }

    private static void isClear(BlockPlan plan) {
        StructurePlan objects = plan.structures().orElseThrow();
        PathClearance path =
                PathClearance.of(plan.flight(), objects.built(), objects.scene().ground());
        assertThat(path.nearest().orElseThrow().m()).isGreaterThan(3.7);
        assertThat(path.lowest().orElseThrow().m()).as(path.lowest().toString()).isGreaterThan(3.7);
        assertThat(objects.flown().orElseThrow().reached()).isTrue();
    }

    @Test
    void onASlopeTheLowestRunFollowsTheFoot() {
        BlockPlan plan = plan((x, y) -> 200 + 0.3 * x, List.of(), facade(8, StructurePass.Habit.USUAL));
        isClear(plan);
        StructurePlan objects = plan.structures().orElseThrow();
        double lowest = plan.flight().exposures().stream()
                .mapToDouble(Exposure::upM)
                .min()
                .orElseThrow();
        double foot = objects.built().get(0).solid().bottomM();
        assertThat(lowest - foot)
                .as("the downhill wall is flown from its own foot")
                .isBetween(-0.1, 3.0);
        assertThat(StructurePlan.faces(plan, PlanProof.Accuracy.ANY, 3000, share -> true)
                        .orElseThrow()
                        .share())
                .isGreaterThan(0.97);
        assertThat(said(plan)).noneMatch(one -> one.startsWith("stop"));
    }

    @Test
    void besideACliffNothingComesNearTheRock() {
        BlockPlan plan = plan((x, y) -> y > 12 ? 230 : 200, List.of(), facade(8, StructurePass.Habit.USUAL));
        isClear(plan);
        assertThat(said(plan)).noneMatch(one -> one.startsWith("stop"));
    }

    @Test
    void overAHoleInTheModelNothingIsGuessed() {
        BlockPlan plan = plan(
                (x, y) -> Math.hypot(x, y) < 15 ? Double.NaN : 200, List.of(), facade(8, StructurePass.Habit.USUAL));
        assertThat(said(plan)).contains("stop object-ground", "stop round-fault");
        assertThat(plan.flight().exposures()).isEmpty();
    }

    @Test
    void zonesAndCeilingsStop() {
        Zone over = new Zone("road", Zone.Kind.KEEP_OUT, Samples.outline(60, 50, 100, 50, 100, 66, 60, 66), 0, 200);
        assertThat(said(plan((x, y) -> 200, List.of(over), facade(8, StructurePass.Habit.USUAL))))
                .contains("stop round-zone-road");
        BlockPlan high = BlockPlan.of(request(Aircraft.smallMultirotor(), house(140), rings(30)));
        BlockPlan tall = high.round(new Structures(
                List.of(house(140)),
                List.of(facade(8, StructurePass.Habit.USUAL)),
                Measure.of(4, Unit.METRE),
                true,
                false));
        assertThat(said(tall)).contains("stop round-ceiling");
    }

    /** Between the launch point and the house; no photo is taken there. What is to be kept out of is gone round, the rest is told. */
    @Test
    void zonesOnTheWayToAnObjectAreGoneRoundOrTold() {
        assertThat(said(plan((x, y) -> 200, List.of(strip(Zone.Kind.KEEP_OUT)), facade(8, StructurePass.Habit.USUAL))))
                .noneMatch(one -> one.contains("zone"));
        Finding finding = zone(
                plan((x, y) -> 200, List.of(strip(Zone.Kind.CAUTION)), facade(8, StructurePass.Habit.USUAL)),
                "round-zone-strip");
        assertThat(finding.level()).isEqualTo(Finding.Level.MIND);
        assertThat(finding.sentence())
                .contains("enters “strip” (caution, from 0.0 m to 200.0 m above ground)", "0 photos are taken in it");
    }

    private static Zone strip(Zone.Kind kind) {
        return new Zone("strip", kind, Samples.outline(-100, 40, 200, 40, 200, 50, -100, 50), 0, 200);
    }

    @Test
    void aZoneThatIsNotToBeLeftIsLeftOnTheWayToAnObject() {
        Zone round = new Zone("yard", Zone.Kind.KEEP_IN, Samples.outline(50, 50, 110, 50, 110, 102, 50, 102), 0, 200);
        Finding finding =
                zone(plan((x, y) -> 200, List.of(round), facade(8, StructurePass.Habit.USUAL)), "round-zone-yard");
        assertThat(finding.level()).isEqualTo(Finding.Level.STOP);
        assertThat(finding.sentence())
                .contains("leaves “yard” (keep in, from 0.0 m to 200.0 m above ground)", "0 photos are taken outside");
    }

    private static Finding zone(BlockPlan plan, String key) {
        return Findings.of(Case.of(plan, Brief.EMPTY), UnitChoice.METRIC).stream()
                .filter(finding -> finding.key().equals(key))
                .findFirst()
                .orElseThrow();
    }

    /** A mast beside the house: photos within reach of it are left out, and the path keeps clear of it. */
    @Test
    void obstaclesOfTheSiteAreKeptClearToo() {
        Obstacle mast = new Obstacle("mast", Obstacle.Kind.MAST, List.of(Samples.at(80, 62)), 30, 0.5);
        BlockPlan plan =
                BlockPlan.of(request(Aircraft.smallMultirotor(), house(9), facade(8, StructurePass.Habit.USUAL))
                        .over(new GroundRequest(
                                FormulaGround.of(2, (x, y) -> 200),
                                HeightChoice.USUAL,
                                List.of(mast),
                                List.of(),
                                OptionalDouble.empty())));
        isClear(plan);
        var at = plan.block().plane().toPlane(Samples.at(80, 62));
        assertThat(plan.flight().exposures())
                .isNotEmpty()
                .allMatch(photo -> photo.point().distanceM(at) > 4 || photo.upM() > 233);
        assertThat(plan.structures().orElseThrow().passes().get(0).leftOut()).containsKey(StructureFlight.LeftOut.NEAR);
    }

    @Test
    void wingsTurnButCannotStand() {
        BlockPlan rings = BlockPlan.of(request(Aircraft.smallWing(), house(9), rings(60)));
        assertThat(said(rings)).doesNotContain("stop round-wing");
        BlockPlan tight = BlockPlan.of(request(Aircraft.smallWing(), house(9), rings(25), facade(8, fast(18))));
        assertThat(said(tight)).contains("stop round-wing");
    }

    /** Radius 30 m at 15 m/s asks for a bank of 37.4° (hand: atan(225 / (9.80665 · 30))); 36 photos there come every 0.35 s. */
    @Test
    void bankIntervalAndBlurAreHeldAgainstWhatIsAble() {
        Rings quick = rings(30).with(fast(15));
        assertThat(said(BlockPlan.of(request(Aircraft.smallMultirotor(), house(9), quick))))
                .contains("mind round-bank", "stop round-interval", "mind round-blur");
        assertThat(said(BlockPlan.of(request(Aircraft.smallMultirotor(), house(9), rings(30)))))
                .noneMatch(one -> one.contains("round-bank") || one.contains("round-interval"));
    }

    @Test
    void circlesLargerThanTheBlockAreSaid() {
        Circles large = new Circles(
                Measure.of(150, Unit.METRE),
                Measure.of(50, Unit.PERCENT),
                Measure.of(40, Unit.METRE),
                true,
                OptionalInt.of(24),
                Optional.empty(),
                StructurePass.Habit.USUAL);
        assertThat(said(BlockPlan.of(request(Aircraft.smallMultirotor(), house(9), large))))
                .contains("note circles-large", "note circles-following");
    }

    @Test
    void remediesAreTriedBeforeTheyAreOffered() {
        Facade plain = new Facade(
                "house",
                StandOff.of(Measure.of(8, Unit.METRE)),
                false,
                Measure.of(0, Unit.DEGREE),
                Measure.of(0, Unit.DEGREE),
                true,
                false,
                StructurePass.Habit.USUAL);
        BlockPlan plan = BlockPlan.of(request(Aircraft.smallMultirotor(), house(9), plain));
        assertThat(said(plan)).contains("mind faces-weak");
        List<FaceRemedies.Remedy> remedies = FaceRemedies.of(plan, PlanProof.Accuracy.ANY);
        assertThat(remedies).extracting(FaceRemedies.Remedy::key).contains("roof-1");
        for (FaceRemedies.Remedy remedy : remedies) {
            double share = StructurePlan.faces(
                            plan.round(remedy.structures()), PlanProof.Accuracy.ANY, 3000, part -> true)
                    .orElseThrow()
                    .share();
            assertThat(share).isEqualTo(remedy.share()).isGreaterThan(remedy.before());
        }
    }

    /** South of the equator and in another grid everything is as it is here. */
    @Test
    void southOfTheEquatorItIsTheSame() {
        List<LonLat> corners = List.of(
                LonLat.of(149.1000, -35.3000),
                LonLat.of(149.1002, -35.3000),
                LonLat.of(149.1002, -35.2999),
                LonLat.of(149.1000, -35.2999));
        Structure.Part part = new Structure.Part(
                Structure.Kind.BODY, corners, 0, 0, 9, Structure.Counted.GROUND, Structure.Piers.NONE);
        Structure house = new Structure("house", List.of(part), Set.of(), "");
        Outline area = Outline.ofRing(List.of(
                LonLat.of(149.099, -35.301),
                LonLat.of(149.101, -35.301),
                LonLat.of(149.101, -35.299),
                LonLat.of(149.099, -35.299)));
        BlockPlan plan = BlockPlan.of(new PlanRequest(
                        Kit.of(Aircraft.smallMultirotor(), Samples.twentyMegapixel()),
                        Pins.ofGsd(2),
                        area,
                        Optional.of(LonLat.of(149.0995, -35.3005)),
                        OptionalInt.empty())
                .with(Patterns.SINGLE.with(new Structures(
                        List.of(house),
                        List.of(facade(8, StructurePass.Habit.USUAL)),
                        Measure.of(4, Unit.METRE),
                        true,
                        false))));
        isClear(plan);
        assertThat(StructurePlan.faces(plan, PlanProof.Accuracy.ANY, 3000, share -> true)
                        .orElseThrow()
                        .share())
                .isGreaterThan(0.97);
    }

    /** Strips at 30 m over a house of 28 m, 4 m to be kept: 2 m are left. At 60 m nothing is said of it. */
    @Test
    void stripsThatComeTooNearAnObjectStop() {
        assertThat(said(strips(30))).contains("stop object-near");
        assertThat(said(strips(60))).doesNotContain("stop object-near");
        assertThat(sentence(strips(30), "object-near"))
                .contains("within 2.0 m of “house”")
                .contains("4.0 m are to be kept");
    }

    private static BlockPlan strips(double heightM) {
        Structures kept = new Structures(List.of(house(28)), List.of(), Measure.of(4, Unit.METRE), false, false);
        return new PlanRequest(
                        Kit.of(Aircraft.smallMultirotor(), Samples.twentyMegapixel()),
                        Pins.ofHeight(heightM),
                        AREA,
                        Optional.of(Samples.at(20, 20)),
                        OptionalInt.of(32630))
                .with(Patterns.SINGLE.with(kept))
                .plan();
    }

    private static String sentence(BlockPlan plan, String key) {
        return Findings.of(Case.of(plan, Brief.EMPTY), UnitChoice.METRIC).stream()
                .filter(finding -> finding.key().equals(key))
                .map(Finding::sentence)
                .findFirst()
                .orElseThrow();
    }

    /** Rock on both sides leaves no way round the house but over it, which a ceiling of 7 m above its foot forbids. */
    @Test
    void aWayOverTheCeilingOfItsPassStops() {
        DoubleBinaryOperator gorge = (x, y) -> Math.abs(x) < 13 ? 200 : 240;
        StructurePass.Habit low = new StructurePass.Habit(
                StructurePass.Habit.USUAL.forward(),
                StructurePass.Habit.USUAL.side(),
                Optional.empty(),
                Optional.empty(),
                Optional.of(Measure.of(7, Unit.METRE)));
        BlockPlan plan = plan(gorge, List.of(), facade(8, low));
        assertThat(said(plan)).contains("stop round-limits").anyMatch(one -> one.endsWith("round-left-out"));
        assertThat(said(plan(gorge, List.of(), facade(8, StructurePass.Habit.USUAL))))
                .doesNotContain("stop round-limits");
    }

    /** What is near, alone and left out is said of every such flight. */
    @Test
    void cautionsOfFlyingNearWallsAreNeverMissing() {
        BlockPlan plan = plan((x, y) -> 200, List.of(), facade(8, StructurePass.Habit.USUAL));
        assertThat(said(plan)).contains("note near-walls", "note objects-alone");
        assertThat(sentence(plan, "near-walls")).contains("8.0 m off").contains("people away from below");
        assertThat(sentence(plan, "objects-alone")).contains("all %,d photos".formatted(plan.photos()));
        assertThat(said(strips(60))).doesNotContain("note near-walls", "note objects-alone");
    }
}
