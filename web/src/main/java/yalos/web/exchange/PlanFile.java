package yalos.web.exchange;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.OutputStream;
import java.nio.charset.StandardCharsets;
import java.util.Arrays;
import java.util.Locale;
import java.util.Optional;
import java.util.zip.ZipEntry;
import java.util.zip.ZipOutputStream;
import javax.xml.stream.XMLStreamException;
import yalos.core.exchange.PlanGpx;
import yalos.core.exchange.PlanKml;
import yalos.core.exchange.PlanSheetData;
import yalos.core.exchange.StationCsv;

/** The open files in which a plan, or a sortie of it, is handed out. */
public enum PlanFile {
    GEOJSON(
            "application/geo+json",
            (data, out) -> out.write(PlanGeoJson.file(data).toString().getBytes(StandardCharsets.UTF_8))),
    KML("application/vnd.google-earth.kml+xml", (data, out) -> {
        try {
            PlanKml.write(data, out);
        } catch (XMLStreamException e) {
            throw new IOException(e);
        }
    }),
    GPX("application/gpx+xml", PlanGpx::write),
    CSV("text/csv;charset=UTF-8", (data, out) -> {
        StringBuilder text = new StringBuilder();
        StationCsv.write(data, text);
        out.write(text.toString().getBytes(StandardCharsets.UTF_8));
    }),
    KMZ("application/vnd.google-earth.kmz", (data, out) -> {
        ZipOutputStream zip = new ZipOutputStream(out);
        zip.putNextEntry(new ZipEntry("doc.kml"));
        ByteArrayOutputStream kml = new ByteArrayOutputStream();
        KML.write(data, kml);
        zip.write(kml.toByteArray());
        zip.closeEntry();
        zip.finish();
    }),
    GPKG("application/geopackage+sqlite3", PlanGeoPackage::write);

    /** Writes a plan; what it writes to stays open for what comes after. */
    private interface Writer {
        void write(PlanSheetData data, OutputStream out) throws IOException;
    }

    private final String type;
    private final Writer writer;

    PlanFile(String type, Writer writer) {
        this.type = type;
        this.writer = writer;
    }

    /** Media type. */
    public String type() {
        return type;
    }

    /** Name in addresses, and the file's ending. */
    public String key() {
        return name().toLowerCase(Locale.ROOT);
    }

    public static Optional<PlanFile> ofKey(String key) {
        return Arrays.stream(values()).filter(file -> file.key().equals(key)).findFirst();
    }

    public void write(PlanSheetData data, OutputStream out) throws IOException {
        writer.write(data, out);
    }
}
