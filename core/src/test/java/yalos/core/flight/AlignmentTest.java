package yalos.core.flight;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.List;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.OptionalInt;
import org.assertj.core.data.Offset;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import yalos.core.FormulaGround;
import yalos.core.Samples;
import yalos.core.block.Outline;
import yalos.core.finding.Finding;
import yalos.core.finding.Findings;
import yalos.core.geodesy.LonLat;
import yalos.core.height.HeightChoice;
import yalos.core.kit.Aircraft;
import yalos.core.kit.Kit;
import yalos.core.pattern.AddedPass;
import yalos.core.pattern.AlignmentPass;
import yalos.core.pattern.Crossing;
import yalos.core.pattern.Patterns;
import yalos.core.pins.Pins;
import yalos.core.plan.BlockPlan;
import yalos.core.plan.GroundRequest;
import yalos.core.plan.PlanRequest;
import yalos.core.site.Zone;
import yalos.core.units.Measure;
import yalos.core.units.Unit;
import yalos.core.units.UnitChoice;

/** A lidar's alignment before and after; lengths and times by hand. */
class AlignmentTest {
    private static PlanRequest request(Aircraft aircraft, AddedPass... added) {
        return new PlanRequest(
                        Kit.of(aircraft, Samples.twentyMegapixel()),
                        Pins.ofGsd(2),
                        Samples.square(300),
                        Optional.of(Samples.at(-80, -80)),
                        OptionalInt.of(32630))
                .with(Patterns.SINGLE.with(List.of(added)));
    }

    private static Aircraft aircraft(String kind) {
        return kind.equals("wing") ? Aircraft.smallWing() : Aircraft.smallMultirotor();
    }

    /** At 10 m/s and 25° of bank a circle has 10² / (9.80665 · tan 25°) = 21.87 m; 5 s are 50 m, gathering 10 m/s at 2 m/s² takes 25 m. */
    @Test
    void lengthsByHand() {
        assertThat(Alignment.radiusM(10)).isCloseTo(21.868, Offset.offset(0.001));
        assertThat(Alignment.radiusM(1)).as("no tighter").isEqualTo(8);
        Aircraft rotor = Aircraft.smallMultirotor();
        double gathered = 100 / (2 * rotor.accelerationMps2());
        assertThat(Alignment.USUAL.runM(rotor, 10)).isCloseTo(50 + gathered, Offset.offset(1e-9));
        assertThat(Alignment.USUAL.runM(Aircraft.smallWing(), 15)).isCloseTo(75, Offset.offset(1e-9));
        Alignment.Room room = Alignment.USUAL.room(rotor, 10);
        assertThat(room.acrossM()).isCloseTo(4 * 21.868, Offset.offset(0.01));
        assertThat(room.alongM()).isCloseTo(50 + gathered + 21.868, Offset.offset(0.01));
    }

    /** Ground, climb, way out, eights, run into the first line; run on, eights, way home, sinking, ground: joined from end to end, all photos as before. */
    @ParameterizedTest
    @ValueSource(strings = {"rotor", "wing"})
    void itLeadsInAndOut(String kind) {
        BlockPlan plain = request(aircraft(kind)).plan();
        BlockPlan plan = request(aircraft(kind), AlignmentPass.USUAL).plan();
        List<Leg> legs = plan.flight().legs();
        assertThat(plan.flight().alignment()).contains(Alignment.USUAL);
        assertThat(legs.get(0)).isInstanceOf(Hover.class);
        assertThat(legs.get(1)).isInstanceOf(Climb.class);
        assertThat(legs.get(legs.size() - 1)).isInstanceOf(Hover.class);
        Leg before = null;
        double still = 0;
        int circles = 0;
        for (Leg leg : legs) {
            if (before != null) {
                assertThat(before.end().point().distanceM(leg.start().point())).isLessThan(1e-6);
                assertThat(before.end().upM()).isCloseTo(leg.start().upM(), Offset.offset(1e-6));
            }
            before = leg;
            still += leg instanceof Hover hover ? hover.seconds() : 0;
            circles += leg instanceof Arc arc && Math.abs(arc.sweepRad()) > 6.28 ? 1 : 0;
        }
        assertThat(still).isEqualTo(60);
        assertThat(circles).as("two eights at each end").isEqualTo(8);
        assertThat(plan.flight().exposures()).isEqualTo(plain.flight().exposures());
        // Into the first line along its own direction.
        int first = legs.indexOf(plan.flight().lines().get(0));
        Link run = (Link) legs.get(first - 1);
        assertThat(run.kind()).isEqualTo(Link.Kind.ALIGN);
        assertThat(Math.cos(run.trackRadAt(0) - plan.flight().lines().get(0).trackRad()))
                .isCloseTo(1, Offset.offset(1e-9));
        // Eight circles of 2 π r, two runs, a minute on the ground; the way out and home changes by the rest.
        double speed = plan.design().speedMps();
        double more = 8 * 2 * Math.PI * Alignment.radiusM(speed) / speed + 60;
        assertThat(plan.flightTimeS()).isGreaterThan(plain.flightTimeS() + more);
        // Full speed round the eights; the runs take their 5 s each and what it takes to gather speed and to brake.
        assertThat(Alignment.seconds(plan.timeline())).isBetween(more + 10, more + 30);
    }

    /** Over a slope the eights are flown at the height the first strip begins with, and the aircraft stands on the ground. */
    @Test
    void itIsLaidOverTheGround() {
        BlockPlan plan = request(Aircraft.smallMultirotor(), AlignmentPass.USUAL)
                .over(new GroundRequest(
                        FormulaGround.of(5, (x, y) -> 200 + x / 10),
                        HeightChoice.USUAL,
                        List.of(),
                        List.of(),
                        OptionalDouble.empty()))
                .plan();
        Flight flight = plan.flight();
        assertThat(flight.alignment()).isPresent();
        assertThat(flight.legs().get(0).start().upM()).isCloseTo(flight.takeOffUpM(), Offset.offset(1e-9));
        assertThat(flight.legs().get(flight.legs().size() - 1).end().upM())
                .isCloseTo(flight.takeOffUpM(), Offset.offset(1e-9));
        for (int i = 1; i < flight.legs().size(); i++) {
            assertThat(flight.legs().get(i - 1).end().upM())
                    .as("leg %d", i)
                    .isCloseTo(flight.legs().get(i).start().upM(), Offset.offset(1e-6));
        }
    }

    @Test
    void aZoneBesideTheBlockIsFoundByTheEights() {
        BlockPlan free =
                request(Aircraft.smallMultirotor(), AlignmentPass.USUAL).plan();
        Arc eight = (Arc) free.flight().legs().stream()
                .filter(Arc.class::isInstance)
                .findFirst()
                .orElseThrow();
        var at = free.block()
                .plane()
                .toLonLat(eight.centre().xM(), eight.centre().yM());
        Zone zone = new Zone(
                "garden",
                Zone.Kind.CAUTION,
                Outline.ofRing(List.of(
                        LonLat.of(at.lonDeg() - 5e-4, at.latDeg() - 3e-4),
                        LonLat.of(at.lonDeg() + 5e-4, at.latDeg() - 3e-4),
                        LonLat.of(at.lonDeg(), at.latDeg() + 3e-4))),
                0,
                Double.POSITIVE_INFINITY);
        List<Finding> findings = Findings.of(
                request(Aircraft.smallMultirotor(), AlignmentPass.USUAL)
                        .over(new GroundRequest(
                                GroundRequest.LEVEL,
                                HeightChoice.USUAL,
                                List.of(),
                                List.of(zone),
                                OptionalDouble.empty()))
                        .plan(),
                UnitChoice.METRIC);
        assertThat(findings).anyMatch(finding -> finding.key().equals("zone-garden"));
        assertThat(findings).anyMatch(finding -> finding.key().equals("alignment-room"));
    }

    @Test
    void besideOtherPassesItStandsAtBothEndsOfAll() {
        BlockPlan plan = request(Aircraft.smallMultirotor(), Crossing.SQUARE, AlignmentPass.USUAL)
                .plan();
        assertThat(plan.flight().lines().stream().mapToInt(Line::pass).distinct())
                .hasSize(2);
        assertThat(plan.flight().legs().stream()
                        .filter(leg -> leg instanceof Link link && link.kind() == Link.Kind.ALIGN))
                .hasSize(2);
    }

    @Test
    void whatIsNoAlignmentIsRefused() {
        assertThatThrownBy(() -> new AlignmentPass(Measure.of(0, Unit.SECOND), Measure.of(0, Unit.SECOND), 0))
                .hasMessageContaining("Nothing of the alignment is left");
        assertThatThrownBy(() -> new AlignmentPass(Measure.of(30, Unit.SECOND), Measure.of(5, Unit.SECOND), 40))
                .hasMessageContaining("10");
    }
}
