package yalos.core.exchange;

import java.util.ArrayList;
import java.util.List;
import javax.xml.stream.XMLStreamException;
import javax.xml.stream.XMLStreamReader;
import yalos.core.block.Outline;
import yalos.core.fault.InputFault;
import yalos.core.geodesy.LonLat;

/** Outlines from KML (OGC 07-147r2): every polygon of a placemark; a closed line string counts as one too. */
public final class KmlOutlines implements SafeXml.Visitor {
    private final ImportedOutlines.Collector found = new ImportedOutlines.Collector();
    private final List<Outline.Part> parts = new ArrayList<>();
    private final Axes axes;
    private String name = "";
    private boolean inPlacemark;
    private boolean inHole;
    private boolean inPolygon;
    private List<LonLat> outer = List.of();
    private List<List<LonLat>> holes = new ArrayList<>();

    private KmlOutlines(Axes axes) {
        this.axes = axes;
    }

    /**
     * @throws InputFault for broken or hostile XML, coordinates out of range, or no area
     */
    public static ImportedOutlines read(byte[] content, Axes axes) {
        KmlOutlines reader = new KmlOutlines(axes);
        SafeXml.walk(content, "KML", reader);
        return reader.found.finish("KML");
    }

    @Override
    public void start(XMLStreamReader at) throws XMLStreamException {
        switch (at.getLocalName()) {
            case "Placemark" -> {
                inPlacemark = true;
                name = "";
                parts.clear();
            }
            case "name" -> {
                if (inPlacemark) {
                    name = at.getElementText();
                }
            }
            case "Polygon" -> {
                inPolygon = true;
                outer = List.of();
                holes = new ArrayList<>();
            }
            case "innerBoundaryIs" -> inHole = true;
            case "coordinates" -> ring(at);
            default -> {
                // styles and the like
            }
        }
    }

    @Override
    public void end(String element) {
        switch (element) {
            case "innerBoundaryIs" -> inHole = false;
            case "Polygon" -> {
                inPolygon = false;
                if (!outer.isEmpty()) {
                    parts.add(new Outline.Part(outer, holes));
                }
            }
            case "Placemark" -> {
                inPlacemark = false;
                if (!parts.isEmpty()) {
                    found.add(name, new Outline(parts));
                }
            }
            default -> {
                // nothing ends with the others
            }
        }
    }

    private void ring(XMLStreamReader at) throws XMLStreamException {
        int line = at.getLocation().getLineNumber();
        List<LonLat> corners = corners(at.getElementText(), line);
        String called = name.isBlank() ? "line " + line : name;
        if (inPolygon) {
            List<LonLat> ring = found.ring(corners, called);
            if (inHole) {
                holes.add(ring);
            } else {
                outer = ring;
            }
        } else if (corners.size() > 3 && corners.get(0).equals(corners.get(corners.size() - 1))) {
            parts.add(new Outline.Part(found.ring(corners, called), List.of()));
        } else {
            found.line(name, corners);
        }
    }

    private List<LonLat> corners(String text, int line) {
        List<LonLat> corners = new ArrayList<>();
        for (String tuple : text.strip().split("\\s+")) {
            String[] figures = tuple.split(",");
            if (figures.length < 2) {
                throw unreadable(tuple, line);
            }
            try {
                corners.add(axes.of(Double.parseDouble(figures[0]), Double.parseDouble(figures[1])));
            } catch (NumberFormatException e) {
                throw unreadable(tuple, line);
            }
        }
        return corners;
    }

    private static InputFault unreadable(String tuple, int line) {
        return new InputFault(
                "file",
                tuple,
                "The KML has “%s” at line %d where longitude,latitude should stand."
                        .formatted(tuple.length() > 40 ? tuple.substring(0, 40) + "…" : tuple, line));
    }
}
