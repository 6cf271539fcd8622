package yalos.core.flight;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.List;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.OptionalInt;
import java.util.Random;
import org.assertj.core.data.Percentage;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;
import yalos.core.FormulaGround;
import yalos.core.Samples;
import yalos.core.block.Outline;
import yalos.core.finding.Finding;
import yalos.core.finding.Findings;
import yalos.core.geodesy.PlanePoint;
import yalos.core.height.HeightChoice;
import yalos.core.kit.Aircraft;
import yalos.core.kit.Kit;
import yalos.core.pattern.Patterns;
import yalos.core.pattern.StartCorner;
import yalos.core.pins.Pins;
import yalos.core.pins.Quantity;
import yalos.core.plan.BlockPlan;
import yalos.core.plan.GroundRequest;
import yalos.core.plan.PlanRequest;
import yalos.core.rehearsal.Command;
import yalos.core.rehearsal.Script;
import yalos.core.rehearsal.SimulatedFlight;
import yalos.core.site.Zone;
import yalos.core.sortie.Sortie;
import yalos.core.sortie.Sorties;
import yalos.core.units.Measure;
import yalos.core.units.Unit;
import yalos.core.units.UnitChoice;
import yalos.core.wind.Wind;

/** A multirotor's bends: by closed form, as one path, never slower than square, and flown as they are timed. */
class RoundTurnTest {
    private static final Aircraft ROTOR = Aircraft.smallMultirotor();
    private static final double LATERAL = 9.80665 * Math.tan(ROTOR.bankRad());
    private static final Patterns ROUNDED = Patterns.SINGLE.turning(new Patterns.Turns(false, true));

    private static Turn back(double aside, double ahead) {
        return new Turn(new PlanePoint(0, 0), 0, new PlanePoint(aside, ahead), Math.PI);
    }

    private static Pace pace() {
        return new Pace(ROTOR, Optional.empty(), true);
    }

    /** A half circle on lines 30 m apart: {@code v² = r g tan(bank)} and {@code t = π r / v}, less what the lines need not brake. */
    @Test
    void aHalfCircleByClosedForm() {
        RoundTurn round = RoundTurn.of(back(30, 0), ROTOR, 10, 1).orElseThrow();
        double speed = Math.sqrt(15 * LATERAL);
        assertThat(round.radiusM()).isEqualTo(15);
        assertThat(round.speedMps()).isCloseTo(speed, within(1e-9));
        assertThat(round.straightM()).isZero();
        double a = ROTOR.accelerationMps2();
        double corner = ROTOR.turnSpeedMps();
        double lessBraking = 2 * ((10 - corner) * (10 - corner) - (10 - speed) * (10 - speed)) / (2 * a * 10);
        assertThat(pace().turnS(back(30, 0), 10)).isCloseTo(Math.PI * 15 / speed - lessBraking, within(1e-9));
        // On lines 60 m apart it is as fast as they are: two quarters of the circle of that speed and a straight.
        RoundTurn wide = RoundTurn.of(back(-60, 0), ROTOR, 10, 1).orElseThrow();
        assertThat(wide.radiusM()).isCloseTo(100 / LATERAL, within(1e-9));
        assertThat(wide.speedMps()).isCloseTo(10, within(1e-9));
        assertThat(wide.straightM()).isCloseTo(60 - 2 * 100 / LATERAL, within(1e-9));
    }

    /** Anywhere beside and ahead or behind: from the line without a kink into the next, which it meets in its place and direction. */
    @Test
    void isOneBendFromLineToLine() {
        Random random = new Random(2);
        for (int run = 0; run < 400; run++) {
            double track = 2 * Math.PI * random.nextDouble();
            PlanePoint from = new PlanePoint(100 * random.nextDouble(), 100 * random.nextDouble());
            double aside = (10 + 60 * random.nextDouble()) * (random.nextBoolean() ? 1 : -1);
            PlanePoint to = from.moved(track, 80 * random.nextDouble() - 40).moved(track + Math.PI / 2, aside);
            Turn turn = new Turn(from, track, to, track + Math.PI);
            double share = run % 2 == 0 ? 1 : 0.7;
            Optional<RoundTurn> round = RoundTurn.of(turn, ROTOR, 10, share);
            List<Way> ways = round.orElseThrow().ways();
            PlanePoint here = from;
            double heading = track;
            for (Way way : ways) {
                assertThat(way.pointAt(0).distanceM(here)).isLessThan(1e-4);
                assertThat(Math.cos(way.trackRadAt(0) - heading)).isGreaterThan(1 - 1e-6);
                here = way.pointAt(way.lengthM());
                heading = way.trackRadAt(way.lengthM());
                if (way instanceof Arc arc) {
                    assertThat(arc.speedMps() * arc.speedMps() / arc.radiusM()).isLessThanOrEqualTo(LATERAL + 1e-9);
                    assertThat(arc.speedMps()).isLessThanOrEqualTo(10);
                }
            }
            assertThat(here.distanceM(to)).isLessThan(1e-4);
            assertThat(Math.cos(heading - track - Math.PI)).isGreaterThan(1 - 1e-6);
        }
    }

    /** Too near, not back beside it, or a wing: no bend. */
    @Test
    void elsewhereItTurnsAsBefore() {
        assertThat(RoundTurn.of(back(0.5, 0), ROTOR, 10, 1)).isEmpty();
        assertThat(RoundTurn.of(new Turn(new PlanePoint(0, 0), 0, new PlanePoint(30, 0), Math.PI / 2), ROTOR, 10, 1))
                .isEmpty();
        Turn far = back(30, -600);
        assertThat(pace().turnS(far, 10)).isLessThanOrEqualTo(new Pace(ROTOR, Optional.empty()).turnS(far, 10));
        assertThat(new Pace(Aircraft.smallWing(), Optional.empty(), true).rounding())
                .isFalse();
    }

    private static Pins wind(Pins pins, double windMps) {
        return windMps == 0
                ? pins
                : pins.with(Quantity.WIND, Measure.of(windMps, Unit.METRE_PER_SECOND))
                        .with(Quantity.WIND_FROM, Measure.of(250, Unit.DEGREE));
    }

    private static BlockPlan plan(Outline outline, Patterns patterns, double windMps) {
        return plan(outline, patterns, wind(Pins.ofGsd(2), windMps));
    }

    private static BlockPlan plan(Outline outline, Patterns patterns, Pins pins) {
        return new PlanRequest(
                        Kit.of(ROTOR, Samples.twentyMegapixel()),
                        pins,
                        outline,
                        Optional.of(Samples.at(100, -40)),
                        OptionalInt.of(32630))
                .with(patterns)
                .plan();
    }

    /** Random concave outlines, still and windy: quicker as a whole, with the photos of a sweep, and near what was foretold. */
    @ParameterizedTest
    @CsvSource({"1, 0", "2, 0", "3, 8", "4, 0", "5, 8", "6, 0"})
    void isQuickerOverAnyOutline(long seed, double windMps) {
        BlockPlan square = plan(Samples.random(seed), Patterns.SINGLE, windMps);
        BlockPlan round = plan(Samples.random(seed), ROUNDED, windMps);
        assertThat(round.flightTimeS()).isLessThan(square.flightTimeS());
        // Foretold turn by turn for the same strips; the whole may turn them and does better still.
        assertThat(square.flightTimeS() - square.timeline().roundingSavesS()).isGreaterThan(round.flightTimeS() * 0.99);
        Flight flight = round.flight();
        assertThat(flight.legs()).anyMatch(Arc.class::isInstance);
        for (int i = 1; i < flight.legs().size(); i++) {
            Place before = flight.legs().get(i - 1).end();
            Place after = flight.legs().get(i).start();
            assertThat(before.point().distanceM(after.point())).as("leg %d", i).isLessThan(1e-4);
        }
    }

    /** The same strips from the same corner, square and rounded: the difference is what was foretold turn by turn, asked of either. */
    @ParameterizedTest
    @CsvSource({"1, 20, 0", "2, 75, 0", "4, 130, 0", "3, 40, 8", "5, 160, 6"})
    void whatIsForetoldComesTrue(long seed, double direction, double windMps) {
        Patterns cornered = Patterns.SINGLE.begun(Optional.of(StartCorner.SOUTH_WEST));
        Pins pins = wind(Pins.ofGsd(2), windMps).with(Quantity.DIRECTION, Measure.of(direction, Unit.DEGREE));
        BlockPlan square = plan(Samples.random(seed), cornered, pins);
        BlockPlan round = plan(Samples.random(seed), cornered.turning(new Patterns.Turns(false, true)), pins);
        assertThat(round.photos()).isEqualTo(square.photos());
        double saved = square.flightTimeS() - round.flightTimeS();
        assertThat(saved).isPositive();
        assertThat(square.timeline().roundingSavesS()).isCloseTo(saved, Percentage.withPercentage(2));
        assertThat(round.timeline().roundingSavesS())
                .isCloseTo(square.timeline().roundingSavesS(), Percentage.withPercentage(0.1));
    }

    /** Nowhere on the clock does the speed jump where the path is smooth, and on arcs the bank holds. */
    @Test
    void thereIsNoStopAtABend() {
        Timeline clock = plan(Samples.square(300), ROUNDED, 0).timeline();
        for (int i = 1; i < clock.spans().size(); i++) {
            boolean smooth = Joint.smooth(clock.flight().legs(), i - 1);
            double corner = clock.spans().get(i).fromS();
            double slow = clock.at(corner - 1e-6).groundMps();
            double after = clock.at(corner + 1e-6).groundMps();
            if (smooth) {
                assertThat(Math.abs(slow - after)).as("leg %d", i).isLessThan(0.01);
                assertThat(slow).isGreaterThan(5);
            } else if (clock.flight().legs().get(i) instanceof Line
                    && !(clock.flight().legs().get(i - 1) instanceof Climb)) {
                assertThat(after).isLessThan(2);
            }
        }
    }

    /** Over a ridge, to the end: the simulated aircraft takes as long as the clock says, and all photos. */
    @ParameterizedTest
    @ValueSource(doubles = {0, 6})
    void isFlownAsItIsTimed(double windMps) {
        GroundRequest ridge = new GroundRequest(
                FormulaGround.of(5, (x, y) -> 200 + 30 * Math.exp(-Math.pow((x - 40) / 120, 2))),
                HeightChoice.USUAL,
                List.of(),
                List.of(),
                OptionalDouble.empty());
        Pins pins = Pins.ofGsd(2).with(Quantity.WIND, Measure.of(windMps, Unit.METRE_PER_SECOND));
        Sorties sorties = Sorties.of(Sorties.Given.usual(new PlanRequest(
                        Kit.of(ROTOR, Samples.twentyMegapixel()),
                        pins.with(Quantity.WIND_FROM, Measure.of(200, Unit.DEGREE)),
                        Samples.square(250),
                        Optional.of(Samples.at(-60, -40)),
                        OptionalInt.of(32630))
                .with(ROUNDED)
                .over(ridge)
                .plan()));
        SimulatedFlight flight = new SimulatedFlight(sorties, 1, new Script(1, windMps, 200, 1, List.of()));
        flight.press(Command.of(Command.Kind.START), "P", "");
        while (!flight.over()) {
            flight.step();
        }
        Sortie first = sorties.all().get(0);
        assertThat(first.flight().legs()).anyMatch(Arc.class::isInstance);
        assertThat(flight.photos()).isEqualTo(first.photos());
        assertThat(flight.seconds()).isCloseTo(first.seconds(), Percentage.withPercentage(1.5));
    }

    /** A keep-out zone along the ends of the strips leaves no room for bends there: they are square, and stay out of it. */
    @Test
    void bendsStayOutOfZones() {
        Outline square = Samples.square(240);
        Zone yard =
                new Zone("yard", Zone.Kind.KEEP_OUT, Samples.outline(-60, 241, 300, 241, 300, 300, -60, 300), 0, 200);
        GroundRequest ground = new GroundRequest(
                FormulaGround.of(5, (x, y) -> 100),
                HeightChoice.USUAL,
                List.of(),
                List.of(yard),
                OptionalDouble.empty());
        BlockPlan plan = new PlanRequest(
                        Kit.of(ROTOR, Samples.twentyMegapixel()),
                        Pins.ofGsd(2).with(Quantity.DIRECTION, Measure.of(0, Unit.DEGREE)),
                        square,
                        Optional.of(Samples.at(100, -40)),
                        OptionalInt.of(32630))
                .with(ROUNDED)
                .over(ground)
                .plan();
        double north = plan.block().plane().toPlane(Samples.at(120, 241)).yM();
        int bends = 0;
        int squares = 0;
        for (Leg leg : plan.flight().legs()) {
            if (leg instanceof Arc arc) {
                bends++;
                assertThat(arc.shape()).allSatisfy(at -> assertThat(at.yM()).isLessThan(north));
            }
            squares += leg instanceof Link link && link.kind() == Link.Kind.TURN ? 1 : 0;
        }
        assertThat(bends).isGreaterThan(0);
        assertThat(squares).isGreaterThan(0);
    }

    /**
     * A bend through the east into a wind from there of 9 m/s: the fastest airspeed of 15 m/s leaves 6 m/s over the ground at its most easterly piece, and it
     * is held all round, {@code t = π r / v}.
     */
    @Test
    void windSlowsABend() {
        Pace windy = new Pace(ROTOR, Optional.of(new Wind(Math.PI / 2, 9)), true);
        Arc arc = (Arc)
                RoundTurn.of(back(30, 0), ROTOR, 10, 1).orElseThrow().ways().get(0);
        double[] done = windy.arcS(arc);
        assertThat(done[done.length - 1]).isCloseTo(Math.PI * 15 / 6, Percentage.withPercentage(1));
        assertThat(windy.heldMps(arc, true)).isCloseTo(6, within(0.06));
    }

    /** Files hold no turns, so it is said that the aircraft is to be set so, how far bends reach, and what they save. */
    @Test
    void theAircraftIsToBeSetSo() {
        BlockPlan plan = plan(Samples.square(300), ROUNDED, 0);
        List<Finding> said = Findings.of(plan, UnitChoice.METRIC);
        Finding rounded = said.stream()
                .filter(one -> one.key().equals("turns-rounded"))
                .findFirst()
                .orElseThrow();
        double apart = plan.design().spacingM();
        assertThat(rounded.sentence())
                .contains("up to %.1f m beyond the strips".formatted(apart / 2))
                .contains("min longer");
        assertThat(Findings.of(plan(Samples.square(300), Patterns.SINGLE, 0), UnitChoice.METRIC))
                .noneMatch(one -> one.key().equals("turns-rounded"));
    }
}
