package yalos.core.exchange;

import java.io.OutputStream;
import java.util.List;
import java.util.Locale;
import java.util.OptionalDouble;
import javax.xml.stream.XMLOutputFactory;
import javax.xml.stream.XMLStreamException;
import javax.xml.stream.XMLStreamWriter;
import yalos.core.block.Outline;
import yalos.core.flight.Exposure;
import yalos.core.geodesy.LonLat;

/**
 * A plan as KML 2.2 (OGC 07-147r2): folders for block, strips and stations. Over real ground
 * heights count from the geoid, as KML's absolute ones do; over level ground they are relative to it.
 */
public final class PlanKml {
    private static final String NAMESPACE = "http://www.opengis.net/kml/2.2";

    private final XMLStreamWriter xml;
    private final PlanSheetData data;

    private PlanKml(XMLStreamWriter xml, PlanSheetData data) {
        this.xml = xml;
        this.data = data;
    }

    /**
     * @throws XMLStreamException when the stream cannot be written
     */
    public static void write(PlanSheetData data, OutputStream out) throws XMLStreamException {
        XMLStreamWriter xml = XMLOutputFactory.newInstance().createXMLStreamWriter(out, "UTF-8");
        xml.writeStartDocument("UTF-8", "1.0");
        new PlanKml(xml, data).document();
        xml.writeEndDocument();
        xml.close();
    }

    private void document() throws XMLStreamException {
        xml.writeStartElement("kml");
        xml.writeDefaultNamespace(NAMESPACE);
        xml.writeStartElement("Document");
        text("name", data.title());
        if (!data.remarks().isEmpty()) {
            text("description", String.join("\n", data.remarks()));
        }
        lineStyle("block", "ff2c34a2");
        lineStyle("strip", "ff73561f");
        block();
        strips();
        stations();
        xml.writeEndElement();
        xml.writeEndElement();
    }

    private void lineStyle(String id, String colour) throws XMLStreamException {
        xml.writeStartElement("Style");
        xml.writeAttribute("id", id);
        xml.writeStartElement("LineStyle");
        text("color", colour);
        text("width", "2");
        xml.writeEndElement();
        xml.writeStartElement("PolyStyle");
        text("fill", "0");
        xml.writeEndElement();
        xml.writeEndElement();
    }

    private void block() throws XMLStreamException {
        folder("Block");
        xml.writeStartElement("Placemark");
        text("name", "Block");
        text("styleUrl", "#block");
        xml.writeStartElement("MultiGeometry");
        for (Outline.Part part : data.plan().request().outline().parts()) {
            xml.writeStartElement("Polygon");
            boundary("outerBoundaryIs", part.outer());
            for (List<LonLat> hole : part.holes()) {
                boundary("innerBoundaryIs", hole);
            }
            xml.writeEndElement();
        }
        xml.writeEndElement();
        xml.writeEndElement();
        xml.writeEndElement();
    }

    private void boundary(String element, List<LonLat> ring) throws XMLStreamException {
        xml.writeStartElement(element);
        xml.writeStartElement("LinearRing");
        StringBuilder coordinates = new StringBuilder();
        ring.forEach(corner -> coordinates.append(tuple(corner)).append(' '));
        text("coordinates", coordinates + tuple(ring.get(0)));
        xml.writeEndElement();
        xml.writeEndElement();
    }

    private void strips() throws XMLStreamException {
        folder("Strips");
        for (PlanSheetData.StripLine line : data.strips()) {
            xml.writeStartElement("Placemark");
            text("name", "Strip " + line.line().number());
            text("styleUrl", "#strip");
            xml.writeStartElement("LineString");
            text("altitudeMode", altitudeMode());
            StringBuilder places = new StringBuilder();
            for (Exposure at : data.along(line.line())) {
                places.append(place(data.position(at), at)).append(' ');
            }
            text("coordinates", places.toString().strip());
            xml.writeEndElement();
            xml.writeEndElement();
        }
        xml.writeEndElement();
    }

    private void stations() throws XMLStreamException {
        folder("Stations");
        for (PlanSheetData.StationPoint point : data.stations()) {
            xml.writeStartElement("Placemark");
            text("name", String.valueOf(point.number()));
            xml.writeStartElement("ExtendedData");
            value("strip", String.valueOf(point.exposure().line()));
            value("yawDeg", String.format(Locale.ROOT, "%.2f", point.yawDeg()));
            value("yawTrueDeg", String.format(Locale.ROOT, "%.2f", point.yawTrueDeg()));
            value("pitchDeg", String.format(Locale.ROOT, "%.2f", point.pitchDeg()));
            value("rollDeg", String.format(Locale.ROOT, "%.2f", point.rollDeg()));
            value("pass", String.valueOf(point.exposure().pass()));
            Exposure at = point.exposure();
            OptionalDouble aboveTakeOff = data.heights(at).aboveTakeOffM();
            if (aboveTakeOff.isPresent()) {
                value("heightAboveTakeOffM", String.format(Locale.ROOT, "%.2f", aboveTakeOff.getAsDouble()));
            }
            xml.writeEndElement();
            xml.writeStartElement("Point");
            text("altitudeMode", altitudeMode());
            text("coordinates", place(point.at(), at));
            xml.writeEndElement();
            xml.writeEndElement();
        }
        xml.writeEndElement();
    }

    private String altitudeMode() {
        return data.plan().heights().isPresent()
                ? "absolute"
                : data.plan().heightsUnknown() ? "clampToGround" : "relativeToGround";
    }

    /** Without a height where nobody knows it. */
    private String place(LonLat at, Exposure photo) {
        PlanSheetData.StationHeights heights = data.heights(photo);
        OptionalDouble height = heights.aboveGeoidM().isPresent() ? heights.aboveGeoidM() : heights.aboveGroundM();
        return height.isPresent() ? tuple(at, height.getAsDouble()) : tuple(at);
    }

    private void folder(String name) throws XMLStreamException {
        xml.writeStartElement("Folder");
        text("name", name);
    }

    private void value(String name, String value) throws XMLStreamException {
        xml.writeStartElement("Data");
        xml.writeAttribute("name", name);
        text("value", value);
        xml.writeEndElement();
    }

    private void text(String element, String text) throws XMLStreamException {
        xml.writeStartElement(element);
        xml.writeCharacters(text);
        xml.writeEndElement();
    }

    private static String tuple(LonLat at) {
        return String.format(Locale.ROOT, "%.9f,%.9f", at.lonDeg(), at.latDeg());
    }

    private static String tuple(LonLat at, double heightM) {
        return String.format(Locale.ROOT, "%s,%.2f", tuple(at), heightM);
    }
}
