package yalos.core.exchange;

import io.jenetics.jpx.GPX;
import io.jenetics.jpx.Metadata;
import io.jenetics.jpx.WayPoint;
import java.io.IOException;
import java.io.OutputStream;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.OptionalDouble;
import javax.xml.stream.XMLOutputFactory;
import javax.xml.stream.XMLStreamException;
import javax.xml.stream.XMLStreamWriter;
import org.apache.commons.csv.CSVFormat;
import org.apache.commons.csv.CSVPrinter;
import yalos.core.fault.InputFault;
import yalos.core.geodesy.EastNorth;
import yalos.core.geodesy.Grid;
import yalos.core.geodesy.LonLat;
import yalos.core.terrain.Geoid;

/** Points on the ground as CSV, KML 2.2 and GPX 1.1. */
public final class PointFiles {
    /** Columns in the order that adjustment programs mostly take. */
    public static final String USUAL_ORDER =
            "name,easting,northing,height,role,kind,measured,latitude,longitude,ellipsoid,epsg,note";

    private PointFiles() {}

    /**
     * A point.
     *
     * @param role control or check
     * @param upM height above the geoid; empty where nobody knows
     * @param measured how often; 0 for a point that is only planned
     * @param accuracyM of its position and height as measured; empty for one that is only planned
     */
    public record Point(
            String name,
            String role,
            String kind,
            LonLat at,
            OptionalDouble upM,
            int measured,
            OptionalDouble accuracyM,
            String note) {
        /** Height above the ellipsoid. */
        public OptionalDouble ellipsoidM() {
            return upM.isPresent()
                    ? OptionalDouble.of(upM.getAsDouble() + Geoid.egm96().undulationM(at))
                    : OptionalDouble.empty();
        }

        String about() {
            return role + " point, " + kind + (measured == 0 ? ", planned" : ", measured " + measured + " ×")
                    + (note.isEmpty() ? "" : ", " + note);
        }
    }

    /** What a column of the CSV file is called, with its unit; places in the units of the grid. */
    private enum Column {
        NAME("name"),
        EASTING("easting"),
        NORTHING("northing"),
        HEIGHT("height_above_geoid_m"),
        ELLIPSOID("height_above_ellipsoid_m"),
        LATITUDE("latitude_deg"),
        LONGITUDE("longitude_deg"),
        ROLE("role"),
        KIND("kind"),
        MEASURED("times_measured"),
        ACCURACY("accuracy_m"),
        EPSG("epsg"),
        NOTE("note");

        private final String title;

        Column(String title) {
            this.title = title;
        }
    }

    /**
     * @param order names of columns, separated by commas
     * @throws InputFault for a column nobody knows
     */
    public static void csv(List<Point> points, Grid grid, String order, Appendable out) throws IOException {
        List<Column> columns = new ArrayList<>();
        for (String name : order.split("[,;\\s]+")) {
            columns.add(Arrays.stream(Column.values())
                    .filter(column -> column.name().equalsIgnoreCase(name))
                    .findFirst()
                    .orElseThrow(() -> new InputFault(
                            "order",
                            name,
                            "“%s” is no column; there are %s."
                                    .formatted(
                                            name,
                                            String.join(
                                                    ", ",
                                                    Arrays.stream(Column.values())
                                                            .map(column -> column.name()
                                                                    .toLowerCase(Locale.ROOT))
                                                            .toList())))));
        }
        CSVFormat format = CSVFormat.RFC4180
                .builder()
                .setHeader(columns.stream().map(column -> column.title).toArray(String[]::new))
                .get();
        try (CSVPrinter printer = new CSVPrinter(out, format)) {
            for (Point point : points) {
                EastNorth at = grid.toGrid(point.at());
                printer.printRecord(columns.stream().map(column -> cell(column, point, at, grid)));
            }
        }
    }

    private static String cell(Column column, Point point, EastNorth at, Grid grid) {
        return switch (column) {
            case NAME -> harmless(point.name());
            case EASTING -> figure(OptionalDouble.of(at.east()), 4);
            case NORTHING -> figure(OptionalDouble.of(at.north()), 4);
            case HEIGHT -> figure(point.upM(), 4);
            case ELLIPSOID -> figure(point.ellipsoidM(), 4);
            case LATITUDE -> figure(OptionalDouble.of(point.at().latDeg()), 9);
            case LONGITUDE -> figure(OptionalDouble.of(point.at().lonDeg()), 9);
            case ROLE -> point.role();
            case KIND -> point.kind();
            case MEASURED -> String.valueOf(point.measured());
            case ACCURACY -> figure(point.accuracyM(), 3);
            case EPSG -> String.valueOf(grid.epsg());
            case NOTE -> harmless(point.note());
        };
    }

    private static String figure(OptionalDouble figure, int decimals) {
        return figure.isEmpty() ? "" : String.format(Locale.ROOT, "%." + decimals + "f", figure.getAsDouble());
    }

    /** Text that a table program does not take for a formula. */
    private static String harmless(String text) {
        return text.matches("(?s)[=+\\-@\\t\\r].*") ? "'" + text : text;
    }

    /** A folder for each role; heights absolute, above the geoid. */
    public static void kml(String title, List<Point> points, OutputStream out) throws XMLStreamException {
        XMLStreamWriter xml = XMLOutputFactory.newInstance().createXMLStreamWriter(out, "UTF-8");
        xml.writeStartDocument("UTF-8", "1.0");
        xml.writeStartElement("kml");
        xml.writeDefaultNamespace("http://www.opengis.net/kml/2.2");
        xml.writeStartElement("Document");
        text(xml, "name", title);
        for (String role : points.stream().map(Point::role).distinct().toList()) {
            xml.writeStartElement("Folder");
            text(xml, "name", role);
            for (Point point : points) {
                if (point.role().equals(role)) {
                    placemark(xml, point);
                }
            }
            xml.writeEndElement();
        }
        xml.writeEndElement();
        xml.writeEndElement();
        xml.writeEndDocument();
        xml.close();
    }

    private static void placemark(XMLStreamWriter xml, Point point) throws XMLStreamException {
        xml.writeStartElement("Placemark");
        text(xml, "name", point.name());
        text(xml, "description", point.about());
        xml.writeStartElement("Point");
        String place = String.format(
                Locale.ROOT, "%.9f,%.9f", point.at().lonDeg(), point.at().latDeg());
        if (point.upM().isPresent()) {
            text(xml, "altitudeMode", "absolute");
            place += String.format(Locale.ROOT, ",%.3f", point.upM().getAsDouble());
        }
        text(xml, "coordinates", place);
        xml.writeEndElement();
        xml.writeEndElement();
    }

    private static void text(XMLStreamWriter xml, String name, String text) throws XMLStreamException {
        xml.writeStartElement(name);
        xml.writeCharacters(text);
        xml.writeEndElement();
    }

    /** Waypoints; elevations above the geoid. */
    public static void gpx(String title, List<Point> points, OutputStream out) throws IOException {
        GPX.Builder gpx =
                GPX.builder("Yalos").metadata(Metadata.builder().name(title).build());
        for (Point point : points) {
            WayPoint.Builder place = WayPoint.builder().name(point.name()).desc(point.about());
            point.upM().ifPresent(place::ele);
            gpx.addWayPoint(place.build(point.at().latDeg(), point.at().lonDeg()));
        }
        GPX.Writer.DEFAULT.write(gpx.build(), out);
    }
}
