package yalos.core.rehearsal;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.ArrayList;
import java.util.EnumSet;
import java.util.HashSet;
import java.util.List;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.OptionalInt;
import java.util.Set;
import org.assertj.core.data.Offset;
import org.assertj.core.data.Percentage;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.EnumSource;
import yalos.core.FormulaGround;
import yalos.core.Samples;
import yalos.core.fault.InputFault;
import yalos.core.flight.Arc;
import yalos.core.flight.Leg;
import yalos.core.flight.Link;
import yalos.core.flight.Pace;
import yalos.core.flight.Way;
import yalos.core.geodesy.PlanePoint;
import yalos.core.height.HeightChoice;
import yalos.core.kit.Aircraft;
import yalos.core.kit.Kit;
import yalos.core.pins.Pins;
import yalos.core.pins.Quantity;
import yalos.core.plan.BlockPlan;
import yalos.core.plan.GroundRequest;
import yalos.core.plan.PlanRequest;
import yalos.core.sortie.Sortie;
import yalos.core.sortie.Sorties;
import yalos.core.units.Measure;
import yalos.core.units.Unit;
import yalos.core.wind.Wind;

/** The simulated aircraft against closed forms, against the clock and the energy of its sortie, and in everything that is pressed. */
class SimulatedFlightTest {
    private static Sorties sorties(Aircraft aircraft, double side, double windMps, double fromDeg) {
        Pins pins = Pins.ofGsd(2);
        Pins windy = windMps == 0
                ? pins
                : pins.with(Quantity.WIND, Measure.of(windMps, Unit.METRE_PER_SECOND))
                        .with(Quantity.WIND_FROM, Measure.of(fromDeg, Unit.DEGREE));
        PlanRequest request = new PlanRequest(
                Kit.of(aircraft, Samples.twentyMegapixel()),
                windy,
                Samples.square(side),
                Optional.of(Samples.at(-60, -40)),
                OptionalInt.of(32630));
        return Sorties.of(Sorties.Given.usual(request.over(ridge()).plan()));
    }

    /** Over level ground, where nothing comes between. */
    private static Sorties level() {
        return Sorties.of(Sorties.Given.usual(new PlanRequest(
                        Kit.of(Aircraft.smallMultirotor(), Samples.twentyMegapixel()),
                        Pins.ofGsd(2),
                        Samples.square(300),
                        Optional.of(Samples.at(-60, -40)),
                        OptionalInt.of(32630))
                .plan()));
    }

    private static GroundRequest ridge() {
        return new GroundRequest(
                FormulaGround.of(5, (x, y) -> 200 + 30 * Math.exp(-Math.pow((x - 40) / 120, 2))),
                HeightChoice.USUAL,
                List.of(),
                List.of(),
                OptionalDouble.empty());
    }

    private static Sorties rotor() {
        return sorties(Aircraft.smallMultirotor(), 300, 0, 0);
    }

    private static SimulatedFlight begun(Sorties sorties, Script script) {
        SimulatedFlight flight = new SimulatedFlight(sorties, 1, script);
        flight.press(Command.of(Command.Kind.START), "P", "");
        return flight;
    }

    private static Script still() {
        return new Script(1, 0, 1, 1, List.of());
    }

    private static void flyFor(SimulatedFlight flight, double seconds) {
        double end = flight.seconds() + seconds;
        while (flight.seconds() < end && !flight.over()) {
            flight.step();
        }
    }

    private static void flyOut(SimulatedFlight flight) {
        while (!flight.over()) {
            flight.step();
        }
    }

    /** {@code t = 2 v/a + (s - v²/a)/v} from a stand to a stand. */
    @ParameterizedTest
    @CsvSource({"100, 10, 2.5", "400, 15, 2.5", "30, 10, 2.5", "3, 12, 2.5"})
    void aStraightLegIsATrapezium(double length, double speed, double acceleration) {
        Pace pace = new Pace(Aircraft.smallMultirotor(), Optional.empty());
        Course course = new Course(
                List.of(new Link(
                        Link.Kind.TURN, new PlanePoint(0, 0), new PlanePoint(length, 0), Way.level(50), speed)),
                pace,
                0,
                0);
        double reached = 0;
        double[] took = new double[1];
        while (!course.done()) {
            course.step(0.1, (track, wanted) -> wanted, false, (leg, from, to, before, used) -> took[0] += used);
            reached = Math.max(reached, course.speedMps());
        }
        boolean full = length >= speed * speed / acceleration;
        double peak = full ? speed : Math.sqrt(acceleration * length);
        double expected = 2 * peak / acceleration + (full ? (length - speed * speed / acceleration) / speed : 0);
        assertThat(took[0]).isCloseTo(expected, Offset.offset(0.02));
        assertThat(reached).isLessThanOrEqualTo(peak + 1e-6);
    }

    /** A wing's circle: {@code 2 π r / v} in still air, and back at its start. */
    @Test
    void aCircleTakesItsTimeAndCloses() {
        Aircraft wing = Aircraft.smallWing();
        double radius = wing.turnRadiusM(18);
        assertThat(radius).isCloseTo(18 * 18 / (9.80665 * Math.tan(Math.toRadians(30))), Offset.offset(1e-9));
        Arc arc = Arc.turning(new PlanePoint(5, 7), 1, 2 * Math.PI, radius, 18);
        Course course = new Course(List.of(arc), new Pace(wing, Optional.empty()), 18, 1);
        double[] took = new double[1];
        while (!course.done()) {
            course.step(0.1, (track, wanted) -> wanted, false, (leg, from, to, before, used) -> took[0] += used);
        }
        assertThat(took[0]).isCloseTo(2 * Math.PI * radius / 18, Offset.offset(1e-6));
        assertThat(course.place().point().distanceM(new PlanePoint(5, 7))).isLessThan(1e-6);
    }

    /** Triangle of velocities: 18 m/s through the air, 6 m/s from the right: {@code sqrt(18² - 6²)} over the ground. */
    @Test
    void aWingsGroundSpeedIsThatOfTheTriangle() {
        Pace pace = new Pace(Aircraft.smallWing(), Optional.of(new Wind(Math.PI / 2, 6)));
        Course course = new Course(
                List.of(new Link(Link.Kind.TURN, new PlanePoint(0, 0), new PlanePoint(0, 500), Way.level(80), 18)),
                pace,
                18,
                0);
        course.step(10, pace::groundMps, false, (leg, from, to, before, used) -> {});
        assertThat(course.alongM()).isCloseTo(10 * Math.sqrt(18 * 18 - 36), Offset.offset(1e-6));
    }

    @ParameterizedTest
    @CsvSource({"rotor, 300, 0, 0", "rotor, 260, 7, 200", "wing, 900, 0, 0", "wing, 700, 6, 120"})
    void aCalmSortieTakesTheTimeAndTheEnergyThatWerePlanned(String what, double side, double wind, double from) {
        Aircraft aircraft = what.equals("wing") ? Aircraft.smallWing() : Aircraft.smallMultirotor();
        Sorties sorties = sorties(aircraft, side, wind, from);
        Sortie sortie = sorties.all().get(0);
        SimulatedFlight flight = begun(sorties, still());
        flyOut(flight);
        assertThat(flight.phase()).isEqualTo(Phase.LANDED);
        assertThat(flight.seconds()).isCloseTo(sortie.seconds(), Percentage.withPercentage(1.5));
        assertThat(1 - flight.charge()).isCloseTo(sortie.taken(), Percentage.withPercentage(2.5));
        assertThat(flight.taken()).hasSize(sortie.photos());
        assertThat(flight.photos()).isEqualTo(sortie.photos());
    }

    /** A photo stands where its station does, but for what the receiver does not know. */
    @Test
    void photosStandAtTheirStations() {
        Sorties sorties = rotor();
        SimulatedFlight flight = begun(sorties, still());
        flyOut(flight);
        for (Shot shot : flight.shots()) {
            var planned = sorties.given().plan().flight().exposures().get(shot.station() - 1);
            assertThat(Math.hypot(
                            shot.known().eastM() - planned.pose().eastM(),
                            shot.known().northM() - planned.pose().northM()))
                    .isLessThan(0.02);
            assertThat(Math.hypot(
                            shot.truly().eastM() - planned.pose().eastM(),
                            shot.truly().northM() - planned.pose().northM()))
                    .isLessThan(0.1);
            assertThat(shot.known().upM()).isCloseTo(planned.upM(), Offset.offset(0.05));
            assertThat(shot.good()).as(shot.flaws().toString()).isTrue();
        }
        double before = -1;
        for (Shot shot : flight.shots()) {
            assertThat(shot.seconds()).isGreaterThan(before);
            before = shot.seconds();
        }
    }

    private static String whole(SimulatedFlight flight) {
        return flight.samples() + "\n" + flight.shots() + "\n" + flight.events();
    }

    @Test
    void theSameSeedAndPressesGiveTheSameFlightToTheBit() {
        Sorties sorties = rotor();
        List<String> runs = new ArrayList<>();
        for (long seed : new long[] {42, 42, 43}) {
            Script script = new Script(seed, 1.2, 1, 1, List.of()).byChance();
            SimulatedFlight flight = begun(sorties, script);
            flyFor(flight, 60);
            if (flight.able().contains(Command.Kind.PAUSE)) {
                flight.press(Command.of(Command.Kind.PAUSE), "P", "cloud");
            }
            flyFor(flight, 20);
            if (flight.able().contains(Command.Kind.RESUME)) {
                flight.press(Command.of(Command.Kind.RESUME), "P", "");
            }
            flyFor(flight, 900);
            runs.add(whole(flight));
        }
        assertThat(runs.get(0)).isEqualTo(runs.get(1)).isNotEqualTo(runs.get(2));
    }

    @Test
    void itPausesHangsAndGoesOn() {
        SimulatedFlight flight = begun(rotor(), still());
        flyFor(flight, 60);
        double speed = flight.groundMps();
        flight.press(Command.of(Command.Kind.PAUSE), "P", "");
        flyFor(flight, speed / 2.5 + 1);
        assertThat(flight.groundMps()).isZero();
        var there = flight.known();
        double charge = flight.charge();
        flyFor(flight, 30);
        assertThat(flight.known().point().distanceM(there.point())).isLessThan(0.01);
        assertThat(flight.charge()).isLessThan(charge);
        assertThatThrownBy(() -> flight.press(Command.of(Command.Kind.PAUSE), "P", ""))
                .isInstanceOf(InputFault.class)
                .hasMessageContaining("hanging");
        flight.press(Command.of(Command.Kind.RESUME), "P", "");
        flyOut(flight);
        assertThat(flight.taken()).hasSize(flight.sortie().photos());
    }

    @Test
    void itReturnsAtItsHeightAndResumesAtAStationWithAFreshBattery() {
        SimulatedFlight flight = begun(rotor(), still());
        flyFor(flight, 80);
        int had = flight.taken().size();
        flight.press(Command.of(Command.Kind.RETURN), "P", "wind");
        double highest = 0;
        while (!flight.over()) {
            flight.step();
            highest = Math.max(highest, flight.known().upM());
        }
        double returnUp = flight.sortie().homing().returnUpM();
        assertThat(highest).isGreaterThanOrEqualTo(returnUp - 0.01);
        assertThat(flight.truly().point().distanceM(flight.sortie().homing().launch()))
                .isLessThan(0.2);
        assertThat(flight.taken().size()).isBetween(had, had + 2);
        Debrief early = Debrief.of(flight);
        assertThat(early.missing())
                .hasSize(flight.sortie().photos() - flight.taken().size());
        assertThat(early.strips()).isNotEmpty();
        int station = early.missing().get(0);
        assertThatThrownBy(() -> flight.press(Command.resumeAt(99_999), "P", ""))
                .hasMessageContaining("has the stations");
        flight.press(Command.resumeAt(station), "P", "");
        assertThat(flight.charge()).isEqualTo(1);
        flyOut(flight);
        assertThat(flight.taken()).hasSize(flight.sortie().photos());
        assertThat(Debrief.of(flight).missing()).isEmpty();
    }

    @Test
    void itLandsOnTheSpotAndIsNudgedAside() {
        SimulatedFlight flight = begun(level(), still());
        flyFor(flight, 60);
        flight.press(Command.of(Command.Kind.PAUSE), "P", "");
        flyFor(flight, 10);
        flight.press(Command.of(Command.Kind.LAND), "P", "");
        var spot = flight.known().point();
        flight.press(new Command(Command.Kind.NUDGE, 3, -2), "P", "");
        flyOut(flight);
        assertThat(flight.phase()).isEqualTo(Phase.LANDED);
        assertThat(flight.known().xM() - spot.xM()).isCloseTo(3, Offset.offset(0.3));
        assertThat(flight.known().yM() - spot.yM()).isCloseTo(-2, Offset.offset(0.3));
        assertThat(flight.aboveGroundM()).isCloseTo(0, Offset.offset(0.6));
        assertThatThrownBy(() -> new Command(Command.Kind.NUDGE, 50, 0)).isInstanceOf(InputFault.class);
    }

    /** A fall with drag: slower than free fall, no faster than the most; {@code t > sqrt(2 h / g)}. */
    @Test
    void motorsOffMeansThatItFalls() {
        SimulatedFlight flight = begun(rotor(), still());
        flyFor(flight, 60);
        double height = flight.aboveGroundM();
        double began = flight.seconds();
        flight.press(Command.of(Command.Kind.MOTORS_OFF), "P", "somebody below");
        flyOut(flight);
        assertThat(flight.phase()).isEqualTo(Phase.LOST);
        double took = flight.seconds() - began;
        assertThat(took).isBetween(Math.sqrt(2 * height / 9.80665) - 0.2, 3 * Math.sqrt(2 * height / 9.80665));
        assertThat(flight.impactMps()).isBetween(10.0, 25.0);
        assertThat(flight.able()).isEmpty();
    }

    @ParameterizedTest
    @EnumSource(Fault.class)
    void everyFaultShowsIsToldAndEnds(Fault fault) {
        Sorties sorties = rotor();
        Script script = new Script(5, 0.5, 1, 1, List.of(new Script.Planned(fault, fault == Fault.PERSON ? 1 : 0.3)));
        SimulatedFlight flight = begun(sorties, script);
        boolean shown = false;
        while (!flight.over()) {
            flight.step();
            shown |= flight.signs().contains(fault.sign());
        }
        assertThat(shown).isTrue();
        Debrief debrief = Debrief.of(flight);
        assertThat(debrief.lines()).hasSize(1);
        assertThat(debrief.lines().get(0).words()).contains("Nothing was done");
        assertThat(debrief.lines().get(0).better()).isEqualTo(fault.advice());
        Set<Fault> cost = EnumSet.of(
                Fault.SKIPPED_PHOTOS, Fault.STUCK_SHUTTER, Fault.CLOUD, Fault.HEIGHT, Fault.LOST_LINK, Fault.GUSTS);
        if (cost.contains(fault)) {
            assertThat(debrief.missing()).isNotEmpty();
            assertThat(debrief.causes().values().stream().mapToInt(n -> n).sum())
                    .isEqualTo(debrief.missing().size());
            assertThat(debrief.again()).isPresent();
            assertThat(debrief.againS()).isPositive();
        }
        if (EnumSet.of(Fault.BASE, Fault.PERSON, Fault.AIRCRAFT).contains(fault)) {
            assertThat(debrief.missing()).isEmpty();
        }
    }

    @Test
    void aStuckShutterIsMendedByWhoLooks() {
        Script script = new Script(5, 0.3, 1, 1, List.of(new Script.Planned(Fault.STUCK_SHUTTER, 0.3)));
        SimulatedFlight flight = begun(rotor(), script);
        while (flight.signs().isEmpty()) {
            flight.step();
        }
        flyFor(flight, 5);
        flight.press(Command.of(Command.Kind.PAUSE), "P", "");
        flight.press(Command.of(Command.Kind.CAMERA), "P", "");
        flyFor(flight, 10);
        assertThat(flight.signs()).isEmpty();
        int missing = Debrief.of(flight).missing().get(0);
        int first = flight.shots().stream()
                .filter(shot -> !shot.written())
                .mapToInt(Shot::station)
                .findFirst()
                .orElseThrow();
        flight.press(Command.resumeAt(first), "P", "");
        flyOut(flight);
        assertThat(flight.taken()).hasSize(flight.sortie().photos());
        assertThat(missing).isPositive();
        assertThat(Debrief.of(flight).lines().get(0).words()).contains("pause");
    }

    @Test
    void aLostLinkHearsNothingAndDoesWhatIsSet() {
        Script script = new Script(5, 0.3, 1, 1, List.of(new Script.Planned(Fault.LOST_LINK, 0.4)));
        SimulatedFlight flight = begun(rotor(), script);
        while (flight.phase() == Phase.FLYING) {
            flight.step();
        }
        assertThat(flight.phase()).isEqualTo(Phase.RETURNING);
        flight.press(Command.of(Command.Kind.PAUSE), "P", "");
        assertThat(flight.phase()).isEqualTo(Phase.RETURNING);
        assertThat(flight.events()).extracting(Event::kind).contains("unheard");
    }

    @Test
    void theBatteryCallsItHomeBeforeItIsTooLate() {
        Script script = new Script(5, 0.3, 1, 1, List.of(new Script.Planned(Fault.WEAK_BATTERY, 0.1)));
        SimulatedFlight flight = begun(sorties(Aircraft.smallMultirotor(), 600, 0, 0), script);
        flyOut(flight);
        assertThat(flight.phase()).isEqualTo(Phase.LANDED);
        assertThat(flight.charge()).isGreaterThan(0.15);
        assertThat(flight.events()).extracting(Event::words).contains("the battery asks for it");
    }

    @Test
    void anotherAircraftIsMadeRoomForByASinkToTenMetres() {
        SimulatedFlight flight = begun(level(), still());
        flyFor(flight, 60);
        flight.press(Command.of(Command.Kind.SINK), "P", "");
        flyFor(flight, 60);
        assertThat(flight.phase()).isEqualTo(Phase.HOLDING);
        assertThat(flight.aboveGroundM()).isCloseTo(10, Offset.offset(1.0));
    }

    /** After a sink it goes on at the station it had not taken yet. */
    @Test
    void whatSankGoesOnAtItsNextStation() {
        SimulatedFlight flight = begun(level(), still());
        flyFor(flight, 60);
        int had = flight.taken().size();
        flight.press(Command.of(Command.Kind.SINK), "P", "");
        flyFor(flight, 60);
        var low = flight.known();
        flight.press(Command.of(Command.Kind.RESUME), "P", "");
        flight.step();
        assertThat(flight.known().point().distanceM(low.point())).isLessThan(2);
        flyOut(flight);
        assertThat(flight.taken()).hasSize(flight.sortie().photos());
        assertThat(flight.shots().size())
                .isBetween(flight.sortie().photos(), flight.sortie().photos() + 1);
        assertThat(had).isPositive();
    }

    /** Behind a ridge the link fades. */
    @Test
    void whatSinksBehindARidgeIsHeardLess() {
        SimulatedFlight flight = begun(rotor(), still());
        flyFor(flight, 60);
        double heard = flight.link();
        flight.press(Command.of(Command.Kind.SINK), "P", "");
        flyFor(flight, 60);
        assertThat(flight.link()).isLessThan(heard - 0.4);
    }

    @Test
    void whatIsLeftIsToldAsItGoesOn() {
        SimulatedFlight flight = begun(rotor(), still());
        assertThat(flight.leftS()).isCloseTo(flight.sortie().seconds(), Percentage.withPercentage(1));
        assertThat(flight.stripsDone()).isZero();
        flyFor(flight, 100);
        double left = flight.leftS();
        assertThat(left).isCloseTo(flight.sortie().seconds() - 100, Offset.offset(8.0));
        double hang = flight.hangS();
        flight.press(Command.of(Command.Kind.PAUSE), "P", "");
        flyFor(flight, hang + 20);
        assertThat(flight.phase()).isEqualTo(Phase.RETURNING);
        flyOut(flight);
        assertThat(flight.charge()).isGreaterThan(0.2);
        int strips = flight.stripsDone();
        assertThat(strips).isBetween(1, flight.strips().size() - 1);
        assertThat(strips + Debrief.of(flight).strips().size())
                .isEqualTo(flight.strips().size());
    }

    /** Blind in a wind it drifts; the fence does what the day decides, since nobody has tried it. */
    @Test
    void whatDriftsIsStoppedByItsFence() {
        Set<String> seen = new HashSet<>();
        Sorties windy = sorties(Aircraft.smallMultirotor(), 300, 9, 230);
        for (double share = 0.3; share < 0.9; share += 0.1) {
            for (long seed = 1; seed <= 2; seed++) {
                Script script = new Script(seed, 1, 1, 1, List.of(new Script.Planned(Fault.SATELLITES, share)));
                SimulatedFlight flight = begun(windy, script);
                flyOut(flight);
                flight.events().stream()
                        .filter(event -> event.kind().equals("fence"))
                        .forEach(event -> seen.add(event.words().replaceAll(".*it ", "")));
                assertThat(flight.phase().inTheAir()).isFalse();
            }
        }
        assertThat(seen).containsExactlyInAnyOrder("stops", "turns home");
    }

    /** Planned 15 m above the ground, heights wrong by 14: it stops above the floor instead of striking the ground. */
    @Test
    void tooLowItStopsBeforeTheGround() {
        BlockPlan low = new PlanRequest(
                        Kit.of(Aircraft.smallMultirotor(), Samples.twentyMegapixel()),
                        Pins.ofHeight(15),
                        Samples.square(60),
                        Optional.of(Samples.at(-60, -40)),
                        OptionalInt.of(32630))
                .plan();
        Script script = new Script(5, 0, 1, 1, List.of(new Script.Planned(Fault.HEIGHT, 0)));
        SimulatedFlight flight = begun(Sorties.of(Sorties.Given.usual(low)), script);
        flyFor(flight, 60);
        assertThat(flight.events()).extracting(Event::kind).contains("floor");
        assertThat(flight.phase()).isEqualTo(Phase.HOLDING);
        assertThat(flight.aboveGroundM()).isBetween(-0.5, 5.0);
    }

    @Test
    void aWingCirclesWhileItWaits() {
        SimulatedFlight flight = begun(sorties(Aircraft.smallWing(), 900, 0, 0), still());
        flyFor(flight, 60);
        flight.press(Command.of(Command.Kind.PAUSE), "P", "");
        double charge = flight.charge();
        flyFor(flight, 20);
        assertThat(flight.groundMps()).isGreaterThan(10);
        assertThat(flight.charge()).isLessThan(charge);
        assertThat(flight.able()).doesNotContain(Command.Kind.SINK);
        flight.press(Command.of(Command.Kind.RETURN), "P", "");
        flyOut(flight);
        assertThat(flight.phase()).isEqualTo(Phase.LANDED);
    }

    @Test
    void whatIsPressedIsKeptAsWords() {
        for (Command command : List.of(
                Command.of(Command.Kind.PAUSE), Command.resumeAt(41), new Command(Command.Kind.NUDGE, 1.5, -2))) {
            assertThat(Command.read(command.text())).isEqualTo(command);
        }
        assertThatThrownBy(() -> Command.read("EXPLODE 1")).isInstanceOf(InputFault.class);
        assertThat(Set.of(Command.Kind.values()))
                .allMatch(kind -> !kind.effect().isBlank());
        assertThatThrownBy(() -> new SimulatedFlight(rotor(), 7, still())).isInstanceOf(InputFault.class);
    }

    @Test
    void theTakeIsAFlightThatIsProvedLikeAnyOther() {
        SimulatedFlight flight = begun(rotor(), still());
        flyOut(flight);
        Leg first = Debrief.of(flight).flown().legs().get(0);
        assertThat(first).isNotNull();
        assertThat(Debrief.of(flight).flown().exposures()).hasSize(flight.photos());
    }
}
