package yalos.web.demo;

import java.util.List;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.Set;
import java.util.stream.IntStream;
import yalos.core.block.Outline;
import yalos.core.geodesy.EastNorth;
import yalos.core.geodesy.LonLat;
import yalos.core.pattern.Facade;
import yalos.core.pattern.Rings;
import yalos.core.pattern.StandOff;
import yalos.core.pattern.StructurePass;
import yalos.core.pattern.Structures;
import yalos.core.pattern.UnderDeck;
import yalos.core.site.Structure;
import yalos.core.units.Measure;
import yalos.core.units.Unit;

/** The two objects of the demo: the ruined beacon tower on its mound, and the tramway's small bridge. */
final class DemoObjects {
    static final EastNorth TOWER = new EastNorth(412_690, 6_041_575);
    static final EastNorth BRIDGE = new EastNorth(412_841, 6_041_276);
    private static final double REACH_M = 45;

    private DemoObjects() {}

    /** The ruined beacon tower with its plinth, by facade and rings. */
    static Structures tower() {
        String name = "beacon tower";
        Structure tower = new Structure(
                name,
                List.of(body(round(TOWER, 5.2, 4), 1.5), body(round(TOWER, 3.4, 8), 9)),
                Set.of(),
                "Upper courses loose: keep 3 m clear, nobody below.");
        StructurePass.Habit habit = StructurePass.Habit.USUAL;
        Facade facade = Facade.usual(name, StandOff.ofGsd(Measure.of(2, Unit.MILLIMETRE)));
        Rings rings = new Rings(
                name,
                StandOff.of(Measure.of(12, Unit.METRE)),
                Optional.empty(),
                Optional.of(Measure.of(11, Unit.METRE)),
                Optional.of(Measure.of(16, Unit.METRE)),
                OptionalInt.of(2),
                OptionalInt.of(36),
                Optional.of(Measure.of(5, Unit.METRE)),
                habit);
        return new Structures(List.of(tower), List.of(facade, rings), Measure.of(3, Unit.METRE), true, false);
    }

    /** The tramway's small bridge: its sides by facade, its deck from below. */
    static Structures bridge() {
        String name = "tramway bridge";
        Structure.Part deck = new Structure.Part(
                Structure.Kind.DECK,
                DemoJob.ring(new double[] {412_826, 6_041_275, 412_856, 6_041_277}),
                3.6,
                8,
                8.9,
                Structure.Counted.GROUND,
                new Structure.Piers(2, 1.2, 3));
        Structure bridge = new Structure(name, List.of(deck), Set.of("1.roof"), "");
        StructurePass.Habit habit = StructurePass.Habit.USUAL;
        UnderDeck under =
                new UnderDeck(name, StandOff.of(Measure.of(4, Unit.METRE)), Measure.of(90, Unit.DEGREE), habit);
        Facade sides = new Facade(
                name,
                StandOff.of(Measure.of(6, Unit.METRE)),
                false,
                Measure.of(0, Unit.DEGREE),
                Measure.of(0, Unit.DEGREE),
                true,
                false,
                habit);
        return new Structures(List.of(bridge), List.of(sides, under), Measure.of(2, Unit.METRE), true, true);
    }

    /** The outline of a block round an object. */
    static Outline square(EastNorth middle) {
        return Outline.ofRing(round(middle, REACH_M * Math.sqrt(2), 4));
    }

    /** Corners evenly round a place, the first to the north-east. */
    private static List<LonLat> round(EastNorth middle, double reachM, int corners) {
        return IntStream.range(0, corners)
                .mapToObj(i -> Math.PI / 4 - 2 * Math.PI * i / corners)
                .map(at -> DemoJob.GRID.toLonLat(
                        new EastNorth(middle.east() + reachM * Math.sin(at), middle.north() + reachM * Math.cos(at))))
                .toList();
    }

    private static Structure.Part body(List<LonLat> footprint, double topM) {
        return new Structure.Part(
                Structure.Kind.BODY, footprint, 0, 0, topM, Structure.Counted.GROUND, Structure.Piers.NONE);
    }
}
