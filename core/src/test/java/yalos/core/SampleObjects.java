package yalos.core;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.Set;
import yalos.core.block.Outline;
import yalos.core.geodesy.LonLat;
import yalos.core.kit.Aircraft;
import yalos.core.kit.Kit;
import yalos.core.pattern.Circles;
import yalos.core.pattern.Facade;
import yalos.core.pattern.Patterns;
import yalos.core.pattern.Rings;
import yalos.core.pattern.StandOff;
import yalos.core.pattern.StructurePass;
import yalos.core.pattern.Structures;
import yalos.core.pattern.UnderDeck;
import yalos.core.pins.Pins;
import yalos.core.plan.BlockPlan;
import yalos.core.plan.PlanProof;
import yalos.core.plan.PlanRequest;
import yalos.core.plan.StructurePlan;
import yalos.core.proof.StructureProof;
import yalos.core.site.Prism;
import yalos.core.site.Structure;
import yalos.core.units.Measure;
import yalos.core.units.Unit;

/** Made-up objects on a block of 160 m, passes round them and plans of both, that many tests share. */
public final class SampleObjects {
    private SampleObjects() {}

    public static final LonLat LAUNCH = Samples.at(20, 20);
    public static final Outline AREA = Samples.square(160);

    public static Measure metres(double m) {
        return Measure.of(m, Unit.METRE);
    }

    public static Measure degrees(double deg) {
        return Measure.of(deg, Unit.DEGREE);
    }

    public static List<LonLat> places(double... corners) {
        List<LonLat> places = new ArrayList<>();
        for (int i = 0; i < corners.length; i += 2) {
            places.add(Samples.at(corners[i], corners[i + 1]));
        }
        return places;
    }

    public static Structure.Part body(double bottom, double top, double... corners) {
        return new Structure.Part(
                Structure.Kind.BODY, places(corners), 0, bottom, top, Structure.Counted.GROUND, Structure.Piers.NONE);
    }

    public static Structure house() {
        return new Structure("house", List.of(body(0, 12, 70, 70, 90, 70, 90, 80, 70, 80)), Set.of(), "");
    }

    public static Structure angle() {
        return new Structure(
                "angle", List.of(body(0, 9, 60, 60, 100, 60, 100, 72, 72, 72, 72, 100, 60, 100)), Set.of(), "");
    }

    public static Structure tower() {
        return new Structure(
                "tower",
                List.of(body(0, 3, 74, 74, 86, 74, 86, 86, 74, 86), body(3, 24, 77, 77, 83, 77, 83, 83, 77, 83)),
                Set.of(),
                "");
    }

    public static Structure bridge(int piers) {
        Structure.Part deck = new Structure.Part(
                Structure.Kind.DECK,
                places(40, 80, 120, 80),
                6,
                14,
                15,
                Structure.Counted.GROUND,
                new Structure.Piers(piers, 2, 5));
        return new Structure("bridge", List.of(deck), Set.of(), "");
    }

    public static Facade facade(String object, double off) {
        return new Facade(
                object,
                StandOff.of(metres(off)),
                false,
                degrees(20),
                degrees(45),
                true,
                false,
                StructurePass.Habit.USUAL);
    }

    public static Rings rings(String object, double off) {
        return Rings.usual(object, StandOff.of(metres(off)));
    }

    public static UnderDeck under(double off, double up) {
        return new UnderDeck("bridge", StandOff.of(metres(off)), degrees(up), StructurePass.Habit.USUAL);
    }

    public static Circles circles(double radius) {
        return new Circles(
                metres(radius),
                Measure.of(50, Unit.PERCENT),
                metres(30),
                false,
                OptionalInt.empty(),
                Optional.empty(),
                StructurePass.Habit.USUAL);
    }

    public static BlockPlan plan(
            Aircraft aircraft, boolean alone, double clear, Structure object, StructurePass... passes) {
        Structures structures = new Structures(List.of(object), List.of(passes), metres(clear), alone, false);
        return new PlanRequest(
                        Kit.of(aircraft, Samples.twentyMegapixel()),
                        Pins.ofGsd(2),
                        AREA,
                        Optional.of(LAUNCH),
                        OptionalInt.of(32630))
                .with(Patterns.SINGLE.with(structures))
                .plan();
    }

    public static BlockPlan plan(Structure object, StructurePass... passes) {
        return plan(Aircraft.smallMultirotor(), true, 3, object, passes);
    }

    public static StructurePlan round(BlockPlan plan) {
        return plan.structures().orElseThrow();
    }

    public static Prism solid(BlockPlan plan) {
        return round(plan).built().get(0).solid();
    }

    public static StructureProof proof(BlockPlan plan) {
        return StructurePlan.faces(plan, PlanProof.Accuracy.ANY, 4000, share -> true)
                .orElseThrow();
    }
}
