package yalos.web.elevation;

import java.io.BufferedOutputStream;
import java.io.BufferedReader;
import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.util.List;
import java.util.OptionalInt;
import java.util.function.Consumer;
import java.util.function.Function;
import org.springframework.stereotype.Service;
import yalos.core.fault.InputFault;
import yalos.core.geodesy.LonLat;
import yalos.core.terrain.ElevationModel;
import yalos.core.terrain.EsriGrid;
import yalos.core.terrain.GeoTiff;
import yalos.core.terrain.VerticalDatum;
import yalos.core.units.UnitChoice;
import yalos.web.store.GearJson;
import yalos.web.store.GroundFacts.ModelUse;
import yalos.web.store.ModelMapper;
import yalos.web.store.ModelMapper.ModelRow;

/** Takes elevation models in, lists them, and asks them. */
@Service
public class Models {
    static final String ELEVATION = "ELEVATION";

    private static final int MOST_OFFERED = 5;

    private final ModelMapper rows;
    private final ModelFiles files;

    Models(ModelMapper rows, ModelFiles files) {
        this.rows = rows;
        this.files = files;
    }

    /** A model of a job as a page lists it. */
    public record Model(long id, String name, String about, int epsg) {}

    public List<Model> ofJob(long job, UnitChoice units) {
        return rows.ofJob(job).stream()
                .filter(row -> row.kind().equals(ELEVATION))
                .map(row -> listed(row, units))
                .toList();
    }

    private static Model listed(ModelRow row, UnitChoice units) {
        String about =
                Extent.read(row.extent()).map(extent -> extent.about(units)).orElse(row.about());
        return new Model(row.id(), row.name(), about, row.epsg());
    }

    /** Models that other jobs have of a place, such as terrain made from an earlier flight there; the newest first. */
    public List<Model> ofOthers(long job, LonLat place, UnitChoice units) {
        return rows.ofOthers(job).stream()
                .filter(row -> Extent.read(row.extent())
                        .filter(extent -> extent.holds(place))
                        .isPresent())
                .limit(MOST_OFFERED)
                .map(row -> listed(row, units))
                .toList();
    }

    /**
     * A copy of another job's model for this one, so that neither loses it with the other.
     *
     * @throws InputFault for no such model
     */
    public ModelUse borrowed(long job, long id) throws IOException {
        ModelRow row = rows.byId(id)
                .filter(one -> one.kind().equals(ELEVATION))
                .orElseThrow(() -> new InputFault("model", id, "That model is there no more. Reload the page."));
        Path copy = files.aside();
        try {
            Files.copy(files.file(id, ModelFiles.MODEL), copy, StandardCopyOption.REPLACE_EXISTING);
            long own = files.keep(
                    copy,
                    ModelFiles.MODEL,
                    () -> rows.insert(job, ELEVATION, row.name(), row.epsg(), row.about(), row.datum(), row.extent()));
            return use(job, own);
        } finally {
            Files.deleteIfExists(copy);
        }
    }

    /**
     * Takes a file in: a GeoTIFF as it is, an Esri ASCII grid rewritten as one. Nothing is kept of a file that cannot be read.
     *
     * @param epsg named by the operator; the file's own where empty
     * @param check looks at the model before it is kept, and may refuse it
     * @return how the block is to use it
     * @throws InputFault for a file that is no elevation model, or does not say where it lies
     */
    public ModelUse take(
            long job,
            String name,
            InputStream content,
            OptionalInt epsg,
            VerticalDatum datum,
            Consumer<ElevationModel> check)
            throws IOException {
        Path upload = files.aside(content);
        try {
            Path tiff = asTiff(upload, epsg);
            try (GeoTiff raster = GeoTiff.open(tiff)) {
                if (raster.isPicture()) {
                    throw new InputFault(
                            "file",
                            name,
                            "“%s” is a picture of red, green and blue, not heights. Bring it in as a picture."
                                    .formatted(name));
                }
                ElevationModel model = ElevationModel.of(raster, epsg, datum);
                check.accept(model);
                String extent = Extent.of(model).stored();
                long id = files.keep(
                        tiff,
                        ModelFiles.MODEL,
                        () -> rows.insert(
                                job,
                                ELEVATION,
                                shortened(name),
                                model.epsg(),
                                "elevation model",
                                GearJson.write(datum),
                                extent));
                return new ModelUse(id, model.epsg(), datum);
            } finally {
                Files.deleteIfExists(tiff);
            }
        } finally {
            Files.deleteIfExists(upload);
        }
    }

    /**
     * Asks a model as a block uses it.
     *
     * @throws InputFault for a file that is gone or damaged since it was taken in, with the model's name and the cure; and for whatever the
     *     question finds wrong
     */
    <T> T with(ModelUse use, Function<ElevationModel, T> question) {
        try (GeoTiff raster = GeoTiff.open(files.file(use.id(), ModelFiles.MODEL))) {
            return question.apply(ElevationModel.of(raster, OptionalInt.of(use.epsg()), use.datum()));
        } catch (InputFault fault) {
            throw fault.field().equals("file") ? lost(use.id()) : fault;
        } catch (UncheckedIOException gone) {
            throw lost(use.id());
        }
    }

    private InputFault lost(long id) {
        String name = rows.byId(id).map(ModelRow::name).orElse("no " + id);
        return new InputFault(
                "model",
                name,
                "The file of elevation model “%s” is gone or damaged. Leave it out on the Ground stage, and bring it in again."
                        .formatted(name));
    }

    /**
     * How a block may use a model that its job has: in the height system last stated for it.
     *
     * @throws InputFault for a model of another job, or none
     */
    public ModelUse use(long job, long id) {
        ModelRow row = row(job, id);
        return new ModelUse(id, row.epsg(), GearJson.read(row.datum(), VerticalDatum.class));
    }

    /** States a model's height system anew, for every use from now on. */
    public void state(long job, long id, VerticalDatum datum) {
        ModelUse use = new ModelUse(id, row(job, id).epsg(), datum);
        rows.state(id, GearJson.write(datum), with(use, Extent::of).stored());
    }

    /** Takes away the files of a job's models and pictures; looked up now, done when it is run. */
    public Runnable filesOf(long job) {
        List<Long> ids = rows.ofJob(job).stream().map(ModelRow::id).toList();
        return () -> files.delete(ids);
    }

    private ModelRow row(long job, long id) {
        return rows.byId(id)
                .filter(row -> row.jobId() == job && row.kind().equals(ELEVATION))
                .orElseThrow(() -> new InputFault("model", id, "This job has no such model."));
    }

    private static String shortened(String name) {
        return name.length() > 200 ? name.substring(0, 200) : name;
    }

    private Path asTiff(Path upload, OptionalInt epsg) throws IOException {
        byte[] start = new byte[64];
        int read;
        try (InputStream in = Files.newInputStream(upload)) {
            read = in.readNBytes(start, 0, start.length);
        }
        if (read == 0) {
            throw new InputFault("file", "empty", "The file is empty.");
        }
        if (!EsriGrid.looksLikeOne(start)) {
            return upload;
        }
        Path tiff = files.aside();
        try (BufferedReader text = Files.newBufferedReader(upload, StandardCharsets.ISO_8859_1);
                OutputStream out = new BufferedOutputStream(Files.newOutputStream(tiff))) {
            EsriGrid.toGeoTiff(text, epsg, out);
            return tiff;
        } catch (InputFault | UncheckedIOException fault) {
            Files.deleteIfExists(tiff);
            throw fault;
        }
    }
}
