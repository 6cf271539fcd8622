package yalos.core.exchange;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.OptionalInt;
import javax.xml.stream.XMLStreamException;
import org.assertj.core.data.Offset;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import yalos.core.FormulaGround;
import yalos.core.Samples;
import yalos.core.exchange.EarlierPlan.Zero;
import yalos.core.fault.InputFault;
import yalos.core.flight.Exposure;
import yalos.core.flight.Flight;
import yalos.core.height.HeightChoice;
import yalos.core.kit.Aircraft;
import yalos.core.kit.Kit;
import yalos.core.kit.Positioning;
import yalos.core.pins.Pins;
import yalos.core.plan.BlockPlan;
import yalos.core.plan.GroundRequest;
import yalos.core.plan.PlanProof;
import yalos.core.plan.PlanRequest;

/** Plans from open files, held against the plan they were written from. */
class EarlierPlanTest {
    private static BlockPlan plan() {
        return new PlanRequest(
                        Kit.of(Aircraft.smallMultirotor(), Samples.twentyMegapixel()),
                        Pins.ofGsd(2),
                        Samples.square(250),
                        Optional.of(Samples.at(-60, -40)),
                        OptionalInt.of(32630))
                .over(new GroundRequest(
                        FormulaGround.of(5, (x, y) -> 200 + 20 * Math.sin(x / 70)),
                        HeightChoice.USUAL,
                        List.of(),
                        List.of(),
                        OptionalDouble.empty()))
                .plan();
    }

    private static byte[] bytes(String text) {
        return text.getBytes(StandardCharsets.UTF_8);
    }

    @Test
    void ourOwnTableComesBackAsTheSameFlightWithTheSameProof() throws IOException {
        BlockPlan plan = plan();
        StringBuilder text = new StringBuilder();
        StationCsv.write(new PlanSheetData("round", plan), text);
        EarlierPlan read =
                EarlierFiles.csv(bytes(text.toString()), plan.block().plane().grid());
        assertThat(read.zero()).contains(Zero.GEOID);
        Flight flight = read.flown(plan, Zero.GEOID, OptionalDouble.empty());
        List<Exposure> before = plan.flight().exposures();
        assertThat(flight.exposures()).hasSameSizeAs(before);
        assertThat(flight.lines()).hasSameSizeAs(plan.flight().lines());
        for (int i = 0; i < before.size(); i++) {
            Exposure one = flight.exposures().get(i);
            assertThat(one.point().distanceM(before.get(i).point())).isLessThan(0.001);
            assertThat(one.upM()).isCloseTo(before.get(i).upM(), Offset.offset(0.006));
            assertThat(Math.cos(one.pose().yawRad() - before.get(i).pose().yawRad()))
                    .isGreaterThan(Math.cos(Math.toRadians(0.02)));
        }
        PlanProof proof = PlanProof.of(plan, 4);
        double own = proof.judged(plan.flight(), Positioning.RTK_BASE, PlanProof.Accuracy.ANY)
                .share();
        double again = proof.judged(flight, Positioning.RTK_BASE, PlanProof.Accuracy.ANY)
                .share();
        assertThat(again).isCloseTo(own, Offset.offset(0.002));
        assertThat(PlanProof.glance(plan, Positioning.RTK_BASE, PlanProof.Accuracy.ANY)
                        .share())
                .isCloseTo(own, Offset.offset(0.02));
    }

    @Test
    void kmlAndGpxOfOursComeBack() throws IOException, XMLStreamException {
        BlockPlan plan = plan();
        PlanSheetData data = new PlanSheetData("round", plan);
        ByteArrayOutputStream kml = new ByteArrayOutputStream();
        PlanKml.write(data, kml);
        EarlierPlan fromKml = EarlierFiles.kml(kml.toByteArray());
        assertThat(fromKml.stations()).isTrue();
        ByteArrayOutputStream gpx = new ByteArrayOutputStream();
        PlanGpx.write(data, gpx);
        EarlierPlan fromGpx = EarlierFiles.gpx(gpx.toByteArray());
        assertThat(fromGpx.spots().size()).isGreaterThan(2);
        Flight flight = fromGpx.flown(plan, Zero.GEOID, OptionalDouble.of(300));
        assertThat(flight.exposures()).isNotEmpty();
        assertThat(fromKml.spots().size()).isGreaterThanOrEqualTo(plan.photos());
    }

    @Test
    void aPathTakesPhotosAsFarApartAsThePlan() {
        BlockPlan plan = plan();
        double base = plan.design().baseM();
        var plane = plan.block().plane();
        var a = plane.toLonLat(-125, 0);
        var b = plane.toLonLat(125, 0);
        String kml =
                "<kml><Document><Placemark><LineString><altitudeMode>relativeToGround</altitudeMode><coordinates>%s,%s,75 %s,%s,75</coordinates></LineString></Placemark></Document></kml>"
                        .formatted(a.lonDeg(), a.latDeg(), b.lonDeg(), b.latDeg());
        EarlierPlan path = EarlierFiles.kml(bytes(kml));
        assertThat(path.stations()).isFalse();
        assertThat(path.zero()).contains(Zero.GROUND);
        Flight flight = path.flown(plan, Zero.GROUND, OptionalDouble.empty());
        assertThat(flight.exposures()).hasSize((int) Math.floor(250 / base) + 1);
        assertThat(flight.lines()).hasSize(1);
        Exposure photo = flight.exposures().get(3);
        assertThat(photo.upM()
                        - plan.overGround()
                                .orElseThrow()
                                .grid()
                                .at(photo.pose().eastM(), photo.pose().northM()))
                .isCloseTo(75, Offset.offset(1e-6));
        assertThat(flight.exposures()
                        .get(0)
                        .point()
                        .distanceM(flight.exposures().get(1).point()))
                .isCloseTo(base, Offset.offset(0.01));
    }

    @Test
    void heightsAreNeverGuessed() {
        BlockPlan plan = plan();
        EarlierPlan bare = EarlierFiles.csv(
                bytes("lat,lon\n54.5,-4.35\n54.5,-4.349\n"),
                plan.block().plane().grid());
        assertThat(bare.zero()).isEmpty();
        assertThatThrownBy(() -> bare.flown(plan, Zero.TAKE_OFF, OptionalDouble.empty()))
                .isInstanceOf(InputFault.class)
                .hasMessageContaining("no heights");
        assertThat(bare.flown(plan, Zero.TAKE_OFF, OptionalDouble.of(90))
                        .exposures()
                        .get(0)
                        .upM())
                .isEqualTo(plan.flight().takeOffUpM() + 90);
    }

    @ParameterizedTest
    @CsvSource({
        "'lat,lon\n1,2\n1,2.001', km from this block",
        "'a,b\n1,2\n3,4', needs a heading with latitude",
        "'lat,lon\n54.5,-4.35\nx,-4.34', Row 3: “x” is no figure",
        "'lat,lon\n54.5,-4.35', no stations and no path",
    })
    void crookedTablesAreToldWhatIsWrong(String text, String sentence) {
        BlockPlan plan = plan();
        assertThatThrownBy(
                        () -> EarlierFiles.csv(bytes(text), plan.block().plane().grid())
                                .flown(plan, Zero.GEOID, OptionalDouble.of(80)))
                .isInstanceOf(InputFault.class)
                .hasMessageContaining(sentence);
    }

    @Test
    void hostileXmlIsRefused() {
        String bomb = "<!DOCTYPE kml [<!ENTITY a \"aaaa\">]><kml>&a;</kml>";
        assertThatThrownBy(() -> EarlierFiles.kml(bytes(bomb))).isInstanceOf(InputFault.class);
        assertThatThrownBy(() -> EarlierFiles.kml(
                        bytes("<kml><Placemark><Point><coordinates>x,y</coordinates></Point></Placemark></kml>")))
                .isInstanceOf(InputFault.class)
                .hasMessageContaining("no place");
        assertThatThrownBy(() -> EarlierFiles.gpx(bytes("<gpx><wpt lat=\"200\" lon=\"0\"/></gpx>")))
                .isInstanceOf(InputFault.class);
    }
}
