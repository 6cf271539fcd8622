package yalos.core.exchange;

import java.util.Map;
import yalos.core.fault.InputFault;

/** Outlines from KMZ: a zip whose first KML is the document; see {@link SafeZip}. */
public final class KmzOutlines {
    private KmzOutlines() {}

    /**
     * @throws InputFault for a damaged or hostile zip, or one without a KML
     */
    public static ImportedOutlines read(byte[] content, Axes axes) {
        Map<String, byte[]> documents = SafeZip.files(content, "KMZ", name -> name.endsWith(".kml"));
        byte[] first = documents.values().stream()
                .findFirst()
                .orElseThrow(
                        () -> new InputFault(
                                "file",
                                "no .kml",
                                "The zip holds no .kml and no .shp file. A KMZ has a .kml, usually doc.kml; a zipped shapefile has a .shp, .shx, .dbf and .prj."));
        return KmlOutlines.read(first, axes);
    }
}
