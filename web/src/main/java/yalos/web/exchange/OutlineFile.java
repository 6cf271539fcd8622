package yalos.web.exchange;

import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.OptionalInt;
import yalos.core.exchange.Axes;
import yalos.core.exchange.FileKind;
import yalos.core.exchange.GpxOutlines;
import yalos.core.exchange.ImportedOutlines;
import yalos.core.exchange.KmlOutlines;
import yalos.core.exchange.KmzOutlines;
import yalos.core.exchange.ShapefileOutlines;
import yalos.core.exchange.TypedOutline;
import yalos.core.fault.InputFault;
import yalos.core.geodesy.Grid;

/**
 * A file an outline is to be taken from, held while the operator decides.
 *
 * @param name as given; only for messages
 * @param content its bytes
 * @param epsg the system somebody typed for it, where it does not name one itself
 */
public record OutlineFile(String name, byte[] content, OptionalInt epsg) {

    /** A file that says itself in which coordinate system it is, as most do. */
    public OutlineFile(String name, byte[] content) {
        this(name, content, OptionalInt.empty());
    }

    /** The same file read in a system that somebody typed for it. */
    OutlineFile in(int code) {
        return new OutlineFile(name, content, OptionalInt.of(code));
    }

    /**
     * Reads the file by what it holds, whatever its name says.
     *
     * @param grid in which typed grid positions are meant
     * @throws InputFault for a file that is empty, of an unknown kind, broken or hostile
     */
    public ImportedOutlines read(Axes axes, Optional<Grid> grid) {
        FileKind kind = FileKind.of(content);
        ImportedOutlines outlines = switch (kind) {
            case GEOJSON -> GeoJsonOutlines.read(content, axes);
            case KML -> KmlOutlines.read(content, axes);
            case KMZ -> KmzOutlines.read(content, axes);
            case GPX -> GpxOutlines.read(content);
            case SHAPEFILE -> ShapefileOutlines.read(content, axes, epsg);
            case GEOPACKAGE -> GeoPackageOutlines.read(content, axes, epsg);
            case TEXT -> TypedOutline.read(new String(content, StandardCharsets.UTF_8), grid);
            case UNKNOWN -> throw unknown();
        };
        if (kind.promisedBy(name)) {
            return outlines;
        }
        List<String> remarks = new ArrayList<>(outlines.remarks());
        remarks.add("“%s” holds %s, not what its name says; it was read as that.".formatted(name, kind.words()));
        return outlines.with(remarks);
    }

    private InputFault unknown() {
        String what = content.length == 0 ? "is empty" : "is none of these, whatever its name says";
        return new InputFault(
                "file",
                name,
                "“%s” %s. Outlines are read from GeoJSON, KML, KMZ, GPX, GeoPackages, zipped shapefiles and lists of coordinates."
                        .formatted(name, what));
    }
}
