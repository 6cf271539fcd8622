package yalos.core.exchange;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.StringReader;
import java.util.List;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.stream.IntStream;
import javax.xml.parsers.DocumentBuilderFactory;
import org.apache.commons.csv.CSVFormat;
import org.apache.commons.csv.CSVRecord;
import org.assertj.core.data.Offset;
import org.junit.jupiter.api.Test;
import org.w3c.dom.Document;
import org.w3c.dom.Element;
import org.w3c.dom.NodeList;
import yalos.core.Samples;
import yalos.core.block.Outline;
import yalos.core.flight.Exposure;
import yalos.core.geodesy.EastNorth;
import yalos.core.geodesy.LonLat;
import yalos.core.kit.Aircraft;
import yalos.core.kit.Kit;
import yalos.core.pins.Pins;
import yalos.core.pins.Quantity;
import yalos.core.plan.BlockPlan;
import yalos.core.plan.PlanRequest;
import yalos.core.units.Measure;
import yalos.core.units.Unit;

/** Read back by the general libraries for XML and CSV, do the files say what is flown? */
class PlanFilesTest {
    /** Due north, so that every figure can be told by hand: convergence at 4.35° west is that of the meridian 3° west. */
    private static final Pins NORTH = Pins.ofHeight(60).with(Quantity.DIRECTION, Measure.of(0, Unit.DEGREE));

    private static final BlockPlan PLAN =
            Samples.request(Samples.concaveWithHole(), NORTH).plan();
    private static final PlanSheetData DATA = new PlanSheetData("Fort & “wall” <north>", PLAN);

    private static Document xml(byte[] content) throws Exception {
        DocumentBuilderFactory factory = DocumentBuilderFactory.newInstance();
        factory.setNamespaceAware(true);
        return factory.newDocumentBuilder().parse(new ByteArrayInputStream(content));
    }

    private static List<Element> all(Document document, String name) {
        NodeList nodes = document.getElementsByTagNameNS("*", name);
        return IntStream.range(0, nodes.getLength())
                .mapToObj(i -> (Element) nodes.item(i))
                .toList();
    }

    private static String child(Element parent, String name) {
        return parent.getElementsByTagNameNS("*", name).item(0).getTextContent();
    }

    private static List<CSVRecord> records(PlanSheetData data) throws Exception {
        StringBuilder text = new StringBuilder();
        StationCsv.write(data, text);
        return CSVFormat.RFC4180
                .builder()
                .setHeader()
                .setSkipHeaderRecord(true)
                .get()
                .parse(new StringReader(text.toString()))
                .getRecords();
    }

    @Test
    void theTableHasALineForEachPhoto() throws Exception {
        List<CSVRecord> records = records(DATA);
        assertThat(records).hasSize(PLAN.photos());
        for (int i = 0; i < records.size(); i++) {
            CSVRecord record = records.get(i);
            Exposure exposure = PLAN.flight().exposures().get(i);
            assertThat(record.get("index")).isEqualTo(String.valueOf(i + 1));
            assertThat(record.get("strip")).isEqualTo(String.valueOf(exposure.line()));
            assertThat(record.get("epsg")).isEqualTo("32630");
            assertThat(record.get("height_above_takeoff_m")).isEqualTo("60.00");
            assertThat(record.get("height_above_ground_m")).isEqualTo("60.00");
            assertThat(record.get("height_above_geoid_m"))
                    .as("not known over level ground")
                    .isEmpty();
            assertThat(record.get("pitch_deg")).isEqualTo("-90.00");
            assertThat(Double.parseDouble(record.get("yaw_grid_deg")) % 180).isCloseTo(0, Offset.offset(0.01));
        }
    }

    /** Longitude and latitude are the grid's coordinates, to a millimetre, by the projection that the references hold. */
    @Test
    void bothPositionsOfAPhotoAreTheSamePlace() throws Exception {
        for (CSVRecord record : records(DATA)) {
            EastNorth grid =
                    Samples.UTM30.toGrid(LonLat.of(number(record, "longitude_deg"), number(record, "latitude_deg")));
            assertThat(grid.east()).isCloseTo(number(record, "easting"), Offset.offset(0.001));
            assertThat(grid.north()).isCloseTo(number(record, "northing"), Offset.offset(0.001));
        }
    }

    private static double number(CSVRecord record, String column) {
        return Double.parseDouble(record.get(column));
    }

    /** 4.35° west and 54.5° north: (−4.35° + 3°) sin 54.5° = −1.10° (first term of the series). */
    @Test
    void yawsDifferByTheConvergence() throws Exception {
        CSVRecord record = records(DATA).get(0);
        double convergence = number(record, "yaw_true_deg") - number(record, "yaw_grid_deg");
        double expected =
                (number(record, "longitude_deg") + 3) * Math.sin(Math.toRadians(number(record, "latitude_deg")));
        assertThat(convergence - 360 * Math.round(convergence / 360)).isCloseTo(expected, Offset.offset(0.02));
    }

    @Test
    void theMapFileHoldsBlockStripsAndStations() throws Exception {
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        PlanKml.write(DATA, out);
        Document document = xml(out.toByteArray());
        assertThat(child(document.getDocumentElement(), "name")).isEqualTo("Fort & “wall” <north>");
        assertThat(all(document, "innerBoundaryIs")).hasSize(1);
        List<Element> lines = all(document, "LineString");
        assertThat(lines).hasSize(PLAN.flight().lines().size());
        for (Element line : lines) {
            String[] tuples = child(line, "coordinates").strip().split("\\s+");
            assertThat(tuples).as("a level strip is its two ends").hasSize(2);
            assertThat(tuples).allMatch(tuple -> tuple.endsWith(",60.00"));
            assertThat(child(line, "altitudeMode")).isEqualTo("relativeToGround");
        }
        assertThat(all(document, "Point")).hasSize(PLAN.photos());
        for (Element ring : all(document, "LinearRing")) {
            String[] tuples = child(ring, "coordinates").strip().split("\\s+");
            assertThat(tuples[0]).as("rings are closed (OGC 12-007r2)").isEqualTo(tuples[tuples.length - 1]);
        }
    }

    @Test
    void theRouteRunsFromEndToEndOfEachStripInTheOrderFlown() throws Exception {
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        PlanGpx.write(DATA, out);
        Document document = xml(out.toByteArray());
        List<Element> route = all(document, "rtept");
        assertThat(route).hasSize(2 * DATA.strips().size());
        for (int i = 0; i < DATA.strips().size(); i++) {
            assertThat(child(route.get(2 * i), "name")).isEqualTo("strip " + (i + 1) + " start");
            assertThat(Double.parseDouble(route.get(2 * i).getAttribute("lat")))
                    .isCloseTo(DATA.strips().get(i).from().latDeg(), Offset.offset(1e-8));
            assertThat(Double.parseDouble(route.get(2 * i + 1).getAttribute("lon")))
                    .isCloseTo(DATA.strips().get(i).to().lonDeg(), Offset.offset(1e-8));
        }
        assertThat(all(document, "wpt")).hasSize(PLAN.photos());
        assertThat(all(document, "ele")).as("no height above the sea is known").isEmpty();
    }

    /** South of the equator and west of Greenwich nothing changes its sign. */
    @Test
    void southernPlacesKeepTheirSigns() throws Exception {
        Outline south = Outline.ofRing(List.of(
                LonLat.of(-70.01, -33.40),
                LonLat.of(-70.00, -33.40),
                LonLat.of(-70.00, -33.39),
                LonLat.of(-70.01, -33.39)));
        BlockPlan plan = new PlanRequest(
                        Kit.of(Aircraft.smallMultirotor(), Samples.twentyMegapixel()),
                        Pins.ofGsd(3),
                        south,
                        Optional.empty(),
                        OptionalInt.empty())
                .plan();
        List<CSVRecord> records = records(new PlanSheetData("South", plan));
        assertThat(records).allSatisfy(record -> {
            assertThat(number(record, "latitude_deg")).isBetween(-33.402, -33.388);
            assertThat(number(record, "longitude_deg")).isBetween(-70.012, -69.998);
            assertThat(record.get("epsg")).isEqualTo("32719");
            assertThat(number(record, "northing")).as("counted from 10 000 km").isBetween(6.29e6, 6.32e6);
        });
    }

    /** Whoever opens a file without the program must read what forbids flying it, and why figures are pinned. */
    @Test
    void everyFileCarriesStopsAndReasons() throws Exception {
        PlanSheetData data =
                new PlanSheetData("Stopped", PLAN, List.of("12 photos are left out."), List.of("Side 75 %: heather"));
        assertThat(records(data))
                .allSatisfy(line -> assertThat(line.get("stop")).isEqualTo("12 photos are left out."));
        assertThat(records(DATA))
                .allSatisfy(line -> assertThat(line.get("stop")).isEmpty());
        ByteArrayOutputStream kml = new ByteArrayOutputStream();
        PlanKml.write(data, kml);
        assertThat(child(xml(kml.toByteArray()).getDocumentElement(), "description"))
                .isEqualTo("STOP: 12 photos are left out.\nSide 75 %: heather");
        ByteArrayOutputStream gpx = new ByteArrayOutputStream();
        PlanGpx.write(data, gpx);
        assertThat(child(all(xml(gpx.toByteArray()), "metadata").get(0), "desc"))
                .contains("STOP: 12 photos are left out.");
    }
}
