package yalos.core.measured;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.nio.charset.Charset;
import java.nio.charset.StandardCharsets;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.OptionalInt;
import org.assertj.core.data.Offset;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;
import org.locationtech.proj4j.BasicCoordinateTransform;
import org.locationtech.proj4j.CRSFactory;
import org.locationtech.proj4j.ProjCoordinate;
import yalos.core.Samples;
import yalos.core.block.LocalPlane;
import yalos.core.exchange.PointTable;
import yalos.core.exchange.TypedPosition;
import yalos.core.fault.InputFault;
import yalos.core.geodesy.EastNorth;
import yalos.core.geodesy.Geocentric;
import yalos.core.geodesy.Geodesics;
import yalos.core.geodesy.Grid;
import yalos.core.geodesy.LonLat;
import yalos.core.geodesy.PlanePoint;
import yalos.core.measured.Observation.Solution;
import yalos.core.terrain.Geoid;
import yalos.core.terrain.VerticalDatum.Zero;
import yalos.core.units.Unit;

/** Points as they come from the field: read, doubted, judged, shifted. */
class MeasuringTest {
    private static final LonLat MIDDLE = at(412_700, 6_041_550);
    private static final LocalPlane PLANE = LocalPlane.at(Samples.UTM30, MIDDLE);

    private static LonLat at(double east, double north) {
        return Samples.UTM30.toLonLat(new EastNorth(east, north));
    }

    private static Observation good(String name, double east, double north, double up) {
        return new Observation(
                name,
                Optional.of(LocalDateTime.of(2026, 5, 14, 10, 0)),
                at(east, north),
                OptionalDouble.of(up),
                OptionalInt.of(30),
                OptionalDouble.of(0.011),
                OptionalDouble.of(0.018),
                OptionalDouble.of(0.01),
                Solution.FIXED,
                OptionalInt.of(17),
                OptionalDouble.of(1.8),
                "");
    }

    private static List<String> words(Observation one) {
        return ObservationRules.remarks(one, 30, OptionalDouble.of(1.8)).stream()
                .map(ObservationRules.Remark::words)
                .toList();
    }

    @Test
    void aGoodMeasurementHasNothingAgainstIt() {
        assertThat(words(good("1", 412_700, 6_041_550, 380))).isEmpty();
    }

    /** Common practice: 2 cm wanted, never above 5 cm; fixed; 5 epochs at least; one pole all day. */
    @Test
    void whatIsNotGoodEnoughIsSaidWithItsFigure() {
        Observation one = good("1", 412_700, 6_041_550, 380);
        Observation bad = new Observation(
                "1",
                one.at(),
                one.place(),
                OptionalDouble.empty(),
                OptionalInt.of(3),
                OptionalDouble.of(0.031),
                OptionalDouble.of(0.074),
                OptionalDouble.of(0.06),
                Solution.FLOAT,
                OptionalInt.of(5),
                OptionalDouble.of(2),
                "");
        assertThat(words(bad))
                .containsExactlyInAnyOrder(
                        "no height",
                        "position to 3.1 cm, 2 cm wanted",
                        "height to 7.4 cm, never above 5 cm",
                        "RMS 6.0 cm, never above 5 cm",
                        "float solution, not fixed",
                        "3 epochs, at least 5",
                        "5 satellites only",
                        "pole 2.000 m, 1.800 m the rest of the day");
        assertThat(ObservationRules.rejects(ObservationRules.remarks(bad, 30, OptionalDouble.empty())))
                .isTrue();
        Observation bare = new Observation(
                "1",
                Optional.empty(),
                one.place(),
                one.upM(),
                OptionalInt.empty(),
                OptionalDouble.empty(),
                OptionalDouble.empty(),
                OptionalDouble.empty(),
                Solution.UNKNOWN,
                OptionalInt.empty(),
                OptionalDouble.empty(),
                "");
        List<ObservationRules.Remark> remarks = ObservationRules.remarks(bare, 30, OptionalDouble.empty());
        assertThat(remarks).hasSize(4).noneMatch(ObservationRules.Remark::rejects);
    }

    @Test
    void thePoleOfTheDayIsWhatMostHave() {
        List<Observation> all = List.of(good("1", 0 + 412_700, 6_041_550, 1), good("2", 412_710, 6_041_550, 1));
        assertThat(ObservationRules.usualPoles(all)).isEqualTo(Map.of(Optional.of(LocalDate.of(2026, 5, 14)), 1.8));
    }

    /** By hand: 1 and 3 cm weigh 9 to 1, so the mean lies a tenth of the way; 20 mm and 10 mm apart. */
    @Test
    void twoMeasurementsOfAPointAreWeighedAndCompared() {
        Observation one = good("1", 412_700, 6_041_550, 380);
        Observation two = new Observation(
                "1",
                one.at(),
                PLANE.toLonLat(
                        PLANE.toPlane(one.place()).xM() + 0.02,
                        PLANE.toPlane(one.place()).yM()),
                OptionalDouble.of(380.01),
                one.epochs(),
                OptionalDouble.of(0.033),
                OptionalDouble.of(0.054),
                one.rmsM(),
                Solution.FIXED,
                one.satellites(),
                one.poleM(),
                "");
        MeasuredPoint mean = MeasuredPoint.of(PLANE, List.of(one, two));
        assertThat(PLANE.toPlane(mean.place()).xM() - PLANE.toPlane(one.place()).xM())
                .isCloseTo(0.002, Offset.offset(1e-5));
        assertThat(mean.upM().getAsDouble()).isCloseTo(380.001, Offset.offset(1e-5));
        assertThat(mean.apartM()).isCloseTo(0.02, Offset.offset(1e-5));
        assertThat(mean.heightApartM()).isCloseTo(0.01, Offset.offset(1e-9));
        assertThat(mean.agrees()).isTrue();
    }

    /** Against the geocentric conversion of a general-purpose library (proj4j), all over the earth; and back. */
    @ParameterizedTest
    @CsvSource({"-4.35, 54.51, 420", "172.6, -43.5, 12", "0, 0, 8848", "-179.9, 89.99, 100", "30, -89.5, 2800"})
    void earthCentredCoordinatesAreThoseOfTheLibrary(double lon, double lat, double height) {
        CRSFactory factory = new CRSFactory();
        BasicCoordinateTransform transform = new BasicCoordinateTransform(
                factory.createFromParameters("a", "+proj=longlat +datum=WGS84 +no_defs"),
                factory.createFromParameters("b", "+proj=geocent +datum=WGS84 +units=m +no_defs"));
        ProjCoordinate out = new ProjCoordinate();
        transform.transform(new ProjCoordinate(lon, lat, height), out);
        Geocentric here = Geocentric.of(LonLat.of(lon, lat), height);
        assertThat(here.xM()).isCloseTo(out.x, Offset.offset(1e-4));
        assertThat(here.yM()).isCloseTo(out.y, Offset.offset(1e-4));
        assertThat(here.zM()).isCloseTo(out.z, Offset.offset(1e-4));
        Geocentric.Place back = here.place();
        assertThat(back.at().lonDeg()).isCloseTo(lon, Offset.offset(1e-10));
        assertThat(back.at().latDeg()).isCloseTo(lat, Offset.offset(1e-10));
        assertThat(back.ellipsoidM()).isCloseTo(height, Offset.offset(1e-5));
    }

    /** A base 1.2 m east, 0.8 m north and 2.5 m up of what was assumed: points a kilometre away move alike to a millimetre. */
    @Test
    void aBasePutRightMovesEverythingByOneVector() {
        LonLat assumed = MIDDLE;
        double height = 430;
        EastNorth grid = Samples.UTM30.toGrid(assumed);
        LonLat truly = Samples.UTM30.toLonLat(new EastNorth(grid.east() + 1.2, grid.north() + 0.8));
        BaseShift shift = BaseShift.between(assumed, height, truly, height + 2.5);
        double[] local = shift.eastNorthUp();
        assertThat(local[0]).isCloseTo(1.2, Offset.offset(0.04));
        assertThat(local[2]).isCloseTo(2.5, Offset.offset(1e-4));
        Observation point = good("1", 413_700, 6_041_550, 380);
        Observation moved = shift.moved(point);
        EastNorth before = Samples.UTM30.toGrid(point.place());
        EastNorth after = Samples.UTM30.toGrid(moved.place());
        assertThat(after.east() - before.east()).isCloseTo(1.2, Offset.offset(1e-3));
        assertThat(after.north() - before.north()).isCloseTo(0.8, Offset.offset(1e-3));
        assertThat(moved.upM().getAsDouble() - 380).isCloseTo(2.5, Offset.offset(2e-3));
        Observation back =
                BaseShift.between(truly, height + 2.5, assumed, height).moved(moved);
        assertThat(back.upM().getAsDouble()).isCloseTo(380, Offset.offset(1e-5));
    }

    /** Pythagoras: 1.7 m slant to a rim of 0.1 m radius, 3 cm above the reference point. */
    @Test
    void antennaHeightsAreReducedByHand() {
        assertThat(AntennaHeight.ofSlant(1.7, 0.1, 0.03))
                .isCloseTo(Math.sqrt(2.89 - 0.01) - 0.03, Offset.offset(1e-12));
        assertThat(AntennaHeight.groundM(382.4, 1.8)).isCloseTo(380.6, Offset.offset(1e-9));
        assertThatThrownBy(() -> AntennaHeight.ofSlant(0.08, 0.1, 0)).hasMessageContaining("longer than");
    }

    @Test
    void benchmarksSuggestAShiftAndTellWhetherTheyAgree() {
        Benchmarks.Mark one = new Benchmarks.Mark("BM 1", at(412_700, 6_041_550), 380.10);
        Benchmarks.Residual first = Benchmarks.residual(
                PLANE, one, MeasuredPoint.of(PLANE, List.of(good("BM 1", 412_700, 6_041_550, 380.05))));
        assertThat(first.upM()).isCloseTo(0.05, Offset.offset(1e-9));
        Benchmarks alone = Benchmarks.of(List.of(first));
        assertThat(alone.agree()).isFalse();
        Benchmarks both = Benchmarks.of(List.of(first, new Benchmarks.Residual("BM 2", 0.01, -0.01, 0.07)));
        assertThat(both.upM()).isCloseTo(0.06, Offset.offset(1e-9));
        assertThat(both.agree()).isTrue();
        Benchmarks apart = Benchmarks.of(List.of(first, new Benchmarks.Residual("BM 2", 0, 0, -0.4)));
        assertThat(apart.agree()).isFalse();
    }

    /** By hand: two marks 100 m apart, turned by 90° and drawn out by a tenth, moved by 5 and 7 m. */
    @Test
    void marksTellATurnAndAScale() {
        List<PlanePoint> measured = List.of(new PlanePoint(0, 0), new PlanePoint(100, 0));
        List<PlanePoint> known = List.of(new PlanePoint(55, -48), new PlanePoint(55, 62));
        Helmert helmert = Helmert.of(measured, known);
        assertThat(helmert.turnRad()).isCloseTo(Math.PI / 2, Offset.offset(1e-12));
        assertThat(helmert.scale()).isCloseTo(1.1, Offset.offset(1e-12));
        assertThat(helmert.eastM()).isEqualTo(5);
        assertThat(helmert.northM()).isEqualTo(7);
        assertThat(helmert.leftM()).isLessThan(1e-9);
        assertThatThrownBy(() -> Helmert.of(measured.subList(0, 1), known.subList(0, 1)))
                .hasMessageContaining("Two marks");
    }

    /** A system of degrees other than WGS84 is shifted: OSGB36 lies 80 to 130 m from it in these parts (common practice). */
    @Test
    void degreesOfAnotherDatumAreBroughtToWgs84() {
        ObservationFrame frame = ObservationFrame.of(OptionalInt.of(4277));
        ObservationReading reading = read(table("name,lat,lon,z\nA1,54.5,-4.35,380\n"), frame);
        double off = Geodesics.distanceM(
                LonLat.of(-4.35, 54.5), reading.rows().get(0).observation().place());
        assertThat(off).isBetween(60.0, 140.0);
    }

    private static LonLat degrees(String latitude, String longitude) {
        return TypedPosition.read(latitude + ", " + longitude, Optional.empty());
    }

    private static ObservationReading read(PointTable table, ObservationFrame frame) {
        return ObservationReading.of(
                ObservationColumn.guessed(table.heading(), table.rows()), table.rows(), frame, MeasuringTest::degrees);
    }

    private static PointTable table(String text) {
        return PointTable.read(text.getBytes(StandardCharsets.UTF_8));
    }

    private static final ObservationFrame GRID = ObservationFrame.of(OptionalInt.of(32630));

    @ParameterizedTest
    @ValueSource(
            strings = {
                "Point,Easting (m),Northing (m),Height (m),HRMS,VRMS,Status,Sats\nA1,412700.123,6041550.456,380.5,0.011,0.018,Fixed,17\n",
                "\uFEFFname;e;n;z;hrms;vrms;solution;sv\nA1;412700,123;6041550,456;380,5;0,011;0,018;FIX;17\n;;;;;;;\n",
                "point\teasting\tnorthing\televation\thacc\tvacc\tfix type\tsatellites\n\"A1\"\t412700.123\t6041550.456\t380.5\t0.011\t0.018\t4\t17",
                "pt e n h hrms vrms status sat\nA1 412700.123 6041550.456 380.5 0.011 0.018 fixed 17",
            })
    void tablesOfAllKindsSayTheSame(String text) {
        ObservationReading reading = read(table(text), GRID);
        assertThat(reading.faults()).isEmpty();
        Observation one = reading.rows().get(0).observation();
        EastNorth at = Samples.UTM30.toGrid(one.place());
        assertThat(reading.rows()).hasSize(1);
        assertThat(one.point()).isEqualTo("A1");
        assertThat(at.east()).isCloseTo(412_700.123, Offset.offset(1e-3));
        assertThat(one.upM().getAsDouble()).isEqualTo(380.5);
        assertThat(one.horizontalM().getAsDouble()).isEqualTo(0.011);
        assertThat(one.solution()).isEqualTo(Solution.FIXED);
        assertThat(one.satellites().getAsInt()).isEqualTo(17);
    }

    @Test
    void withoutHeadingTheFiguresTell() {
        assertThat(read(table("A1,412700.1,6041550.4,380.5\nA2,412710,6041560,381"), GRID)
                        .rows())
                .hasSize(2);
        ObservationReading degrees = read(
                table("A1;54°30'00\"N;4°20'30\"W;380,5\nA2;54,5005;-4,3416;380,6"),
                ObservationFrame.of(OptionalInt.empty()));
        assertThat(degrees.faults()).isEmpty();
        assertThat(degrees.rows().get(0).observation().place().lonDeg()).isCloseTo(-4.341667, Offset.offset(1e-6));
    }

    @Test
    void crookedRowsAreToldAndTheOthersStay() {
        ObservationReading reading = read(
                table("name,e,n,z,date\nA1,412700,6041550,380,2026-02-30\nA2,four,6041550,380,\nA3,412700,,380,\n"
                        + "A4,412700,6041550,,2026-05-14 10:42\n,412700,6041550,380,\nA6,412700,6041550,380,14.5.2026 9:05:00\n"
                        + "A7,412700,6041550,380,1066-10-14\n"),
                GRID);
        assertThat(reading.rows()).extracting(ObservationReading.Row::number).containsExactly(4, 6);
        assertThat(reading.rows().get(0).observation().upM()).isEmpty();
        assertThat(reading.rows().get(1).observation().at()).contains(LocalDateTime.of(2026, 5, 14, 9, 5));
        assertThat(reading.faults()).hasSize(5).anyMatch(fault -> fault.startsWith("Row 1: “2026-02-30” is no date"));
        assertThat(reading.faults()).anyMatch(fault -> fault.contains("“four” is no figure for the easting"));
    }

    @Test
    void filesThatAreNoTableAreRefused() {
        assertThatThrownBy(() -> table("\n;;;\n")).hasMessageContaining("no row with anything");
        assertThatThrownBy(() -> table("name,easting,northing\n")).hasMessageContaining("no row below it");
        assertThatThrownBy(() -> PointTable.read(new byte[] {80, 75, 3, 4, 0, 0, 0}))
                .hasMessageContaining("Save the sheet as CSV");
        assertThatThrownBy(() -> table("a,b,c\n\"x,1,2\n"))
                .isInstanceOf(InputFault.class)
                .hasMessageContaining("Row ");
        StringBuilder many = new StringBuilder("name,e,n,z\n");
        for (int i = 0; i < 50_000; i++) {
            many.append('P').append(i).append(",412700,6041550,380\n");
        }
        assertThatThrownBy(() -> table(many.toString())).hasMessageContaining("50,001 rows");
        assertThatThrownBy(() -> read(table("foo,bar,baz\n1,2,3\n"), GRID)).hasMessageContaining("Say which column");
        PointTable old = PointTable.read("name;e;n;note\nA1;1;2;Hütte\n".getBytes(Charset.forName("windows-1252")));
        assertThat(old.rows().get(0)).contains("Hütte");
    }

    private static List<ReadingDoubts.Doubt> doubts(String text, ObservationFrame frame) {
        PointTable table = table(text);
        return new ReadingDoubts(MIDDLE, 400, other -> read(table, other), other -> read(table, other), at -> 380)
                .of(frame);
    }

    private static String row(String name, double e, double n, double z) {
        return name + "," + e + "," + n + "," + z + "\n";
    }

    private static final String HEADING = "name,e,n,z\n";

    @Test
    void swappedAxesFeetAndZonesAreSeenAndCured() {
        String swapped = HEADING + row("A1", 6_041_550, 412_700, 380) + row("A2", 6_041_500, 412_750, 381);
        List<ReadingDoubts.Doubt> found = doubts(swapped, GRID);
        assertThat(found).hasSize(1);
        assertThat(found.get(0).cure()).contains(GRID.turned());
        assertThat(doubts(swapped, GRID.turned())).isEmpty();

        double ft = 0.3048;
        String feet =
                HEADING + row("A1", 412_700 / ft, 6_041_550 / ft, 380) + row("A2", 412_720 / ft, 6_041_550 / ft, 380);
        assertThat(doubts(feet, GRID).get(0).cure()).contains(GRID.in(Unit.FOOT));
        String survey = HEADING + row("A1", 412_700.0 * 3937 / 1200, 6_041_550.0 * 3937 / 1200, 380);
        assertThat(doubts(survey, GRID).get(0).cure().orElseThrow().unit()).isIn(Unit.US_SURVEY_FOOT, Unit.FOOT);

        EastNorth other = Grid.ofEpsg(32629).toGrid(MIDDLE);
        String zone = HEADING + row("A1", other.east(), other.north(), 380);
        assertThat(doubts(zone, GRID).get(0).press()).isEqualTo("Read them in UTM zone 29N");
        String site = HEADING + row("A1", 612_700, 5_041_550, 380);
        assertThat(doubts(site, GRID).get(0).words()).contains("another site's file");
        assertThat(doubts(site, GRID).get(0).cure()).isEmpty();
    }

    @Test
    void heightsOfTheEllipsoidAndInFeetAreSeenAndCured() {
        double undulation = Geoid.egm96().undulationM(MIDDLE);
        String ellipsoid = HEADING + row("A1", 412_700, 6_041_550, 380 + undulation);
        ReadingDoubts.Doubt doubt = doubts(ellipsoid, GRID).get(0);
        assertThat(doubt.words()).contains("Heights stand %.1f m above the model".formatted(undulation));
        assertThat(doubt.cure()).contains(GRID.from(Zero.ELLIPSOID));
        assertThat(doubts(ellipsoid, GRID.from(Zero.ELLIPSOID))).isEmpty();
        String feet = HEADING + row("A1", 412_700, 6_041_550, 380 / 0.3048);
        assertThat(doubts(feet, GRID).get(0).cure()).contains(GRID.heightsIn(Unit.FOOT));
    }

    @Test
    void repeatedNamesAndStrayPointsAreSeenAndCured() {
        String text = HEADING
                + row("A1", 412_700, 6_041_550, 380)
                + row("A1", 412_700.02, 6_041_550, 380)
                + row("A2", 412_750, 6_041_550, 380)
                + row("a2", 412_750, 6_041_600, 380)
                + row("A3", 415_750, 6_041_550, 380);
        List<ReadingDoubts.Doubt> found = doubts(text, GRID);
        assertThat(found).hasSize(2);
        assertThat(found.get(0).words()).contains("Point A3 lies 305");
        assertThat(found.get(0).cure()).contains(GRID.without(5));
        assertThat(found.get(1).words()).isEqualTo("a2 is one name for places up to 50 m apart.");
        ObservationReading cured = read(table(text), found.get(1).cure().orElseThrow());
        List<String> names = new ArrayList<>();
        cured.rows().forEach(row -> names.add(row.observation().point()));
        assertThat(names).containsExactly("A1", "A1-2", "A2", "a2-2", "A3");
    }
}
