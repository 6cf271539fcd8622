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
import java.util.Collections;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.function.Consumer;
import java.util.function.LongSupplier;
import java.util.stream.Collectors;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.beans.factory.annotation.Value;
import org.springframework.stereotype.Service;
import org.springframework.transaction.PlatformTransactionManager;
import org.springframework.transaction.support.TransactionTemplate;
import yalos.core.block.PlaneBlock;
import yalos.core.fault.InputFault;
import yalos.core.geodesy.LonLat;
import yalos.core.plan.GroundRequest;
import yalos.core.terrain.ElevationModel;
import yalos.core.terrain.EsriGrid;
import yalos.core.terrain.GeoTiff;
import yalos.core.terrain.HeightGrid;
import yalos.core.terrain.Holes;
import yalos.core.terrain.Holes.Hole;
import yalos.core.terrain.VerticalDatum;
import yalos.core.units.UnitChoice;
import yalos.web.store.GearJson;
import yalos.web.store.GroundFacts;
import yalos.web.store.GroundFacts.ModelUse;
import yalos.web.store.ModelMapper;
import yalos.web.store.ModelMapper.ModelRow;
import yalos.web.store.SafeFiles;

/** Takes elevation models in, and answers for the ground of a block from them. */
@Service
public class Models {
    static final String ELEVATION = "ELEVATION";

    private static final Logger LOG = LoggerFactory.getLogger(Models.class);

    private static final int MOST_CELLS = 2_000_000;
    private static final int MOST_OFFERED = 5;
    private static final int KEPT = 12;
    private static final int KEPT_SPOTS = 1000;
    private static final double[] CELL_SIZES = {0.25, 0.5, 1, 2, 2.5, 5, 10, 20, 25, 50, 100, 200};

    private final ModelMapper rows;
    private final TransactionTemplate transactions;
    private final Path folder;
    private final Map<Key, GroundRequest.Surveyed> grounds = kept(KEPT);
    private final Map<Spot, Double> spots = kept(KEPT_SPOTS);

    Models(ModelMapper rows, PlatformTransactionManager transactions, @Value("${yalos.data}") Path data) {
        this.rows = rows;
        this.transactions = new TransactionTemplate(transactions);
        this.folder = data.resolve("models");
    }

    /** The last so many used. */
    private static <K, V> Map<K, V> kept(int most) {
        return Collections.synchronizedMap(new LinkedHashMap<>(16, 0.75f, true) {
            private static final long serialVersionUID = 1L;

            @Override
            protected boolean removeEldestEntry(Map.Entry<K, V> eldest) {
                return size() > most;
            }
        });
    }

    /** A place that was asked for. */
    private record Spot(List<ModelUse> models, LonLat at) {}

    /** What a piece of ground was asked for. */
    private record Key(
            List<ModelUse> models, double spanM, int epsg, double west, double east, double south, double north) {}

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
        Path copy = Files.createTempFile(folder, "copy", ".part");
        try {
            Files.copy(file(id), copy, StandardCopyOption.REPLACE_EXISTING);
            long own = kept(
                    copy,
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
        Files.createDirectories(folder);
        Path upload = Files.createTempFile(folder, "upload", ".part");
        try {
            Files.copy(content, upload, StandardCopyOption.REPLACE_EXISTING);
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
                long id = kept(
                        tiff,
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

    /** Row and file together or neither; everything slow was done before. */
    private long kept(Path aside, LongSupplier insert) {
        return transactions.execute(status -> {
            long id = insert.getAsLong();
            try {
                SafeFiles.keep(aside, file(id));
            } catch (IOException e) {
                throw new UncheckedIOException(e);
            }
            return id;
        });
    }

    /**
     * A model's file, open.
     *
     * @throws InputFault for a file that is gone or damaged since it was taken in, with the model's name and the cure
     */
    private GeoTiff opened(long id) {
        try {
            return GeoTiff.open(file(id));
        } catch (InputFault | UncheckedIOException fault) {
            String name = rows.byId(id).map(ModelRow::name).orElse("no " + id);
            throw new InputFault(
                    "model",
                    name,
                    "The file of elevation model “%s” is gone or damaged. Leave it out on the Ground stage, and bring it in again."
                            .formatted(name));
        }
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
        ModelRow row = row(job, id);
        try (GeoTiff raster = opened(id)) {
            ElevationModel model = ElevationModel.of(raster, OptionalInt.of(row.epsg()), datum);
            rows.state(id, GearJson.write(datum), Extent.of(model).stored());
        }
    }

    /** Takes away the files of a job's models and pictures; looked up now, done when it is run. */
    public Runnable filesOf(long job) {
        List<Long> ids = rows.ofJob(job).stream().map(ModelRow::id).toList();
        return () -> ids.forEach(this::deleteFiles);
    }

    private void deleteFiles(long id) {
        for (String ending : new String[] {".tif", ".pic", ".wld"}) {
            try {
                Files.deleteIfExists(folder.resolve(id + ending));
            } catch (IOException e) {
                LOG.warn("A file of a deleted job stays behind: {}", folder.resolve(id + ending), e);
            }
        }
    }

    private ModelRow row(long job, long id) {
        return rows.byId(id)
                .filter(row -> row.jobId() == job && row.kind().equals(ELEVATION))
                .orElseThrow(() -> new InputFault("model", id, "This job has no such model."));
    }

    private static String shortened(String name) {
        return name.length() > 200 ? name.substring(0, 200) : name;
    }

    private static Path asTiff(Path upload, OptionalInt epsg) throws IOException {
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
        Path tiff = Files.createTempFile(upload.getParent(), "grid", ".part");
        try (BufferedReader text = Files.newBufferedReader(upload, StandardCharsets.ISO_8859_1);
                OutputStream out = new BufferedOutputStream(Files.newOutputStream(tiff))) {
            EsriGrid.toGeoTiff(text, epsg, out);
            return tiff;
        } catch (InputFault | UncheckedIOException fault) {
            Files.deleteIfExists(tiff);
            throw fault;
        }
    }

    Path file(long id) {
        return folder.resolve(id + ".tif");
    }

    /** The ground as the core asks for it; empty for level ground with nothing on or over it. */
    public Optional<GroundRequest> ground(GroundFacts facts) {
        boolean level = facts.models().isEmpty();
        if (level && facts.obstacles().isEmpty() && facts.zones().isEmpty()) {
            return Optional.empty();
        }
        GroundRequest.Source source = level
                ? GroundRequest.LEVEL
                : new Stack(facts.models(), facts.spanM().orElse(0));
        return Optional.of(
                new GroundRequest(source, facts.choice(), facts.obstacles(), facts.zones(), facts.takeOffLevelM()));
    }

    /** Models one over the other, the first counting where it knows the ground. */
    private final class Stack implements GroundRequest.Source {
        private final List<ModelUse> models;
        private final double spanM;

        Stack(List<ModelUse> models, double spanM) {
            this.models = models;
            this.spanM = spanM;
        }

        @Override
        public GroundRequest.Surveyed over(PlaneBlock block, double bufferM) {
            double[] bounds = block.bounds();
            Key key = new Key(
                    models,
                    spanM,
                    block.plane().grid().epsg(),
                    block.plane().toGrid(bounds[0] - bufferM, 0).east(),
                    block.plane().toGrid(bounds[1] + bufferM, 0).east(),
                    block.plane().toGrid(0, bounds[2] - bufferM).north(),
                    block.plane().toGrid(0, bounds[3] + bufferM).north());
            GroundRequest.Surveyed known = grounds.get(key);
            if (known == null) {
                known = surveyed(stacked(models, block, bufferM));
                grounds.put(key, known);
            }
            return known;
        }

        private GroundRequest.Surveyed surveyed(HeightGrid grid) {
            Map<Boolean, List<Hole>> holes =
                    Holes.of(grid).stream().collect(Collectors.partitioningBy(hole -> hole.widthM() <= spanM));
            HeightGrid spanned = Holes.spanned(grid, holes.get(true));
            return new GroundRequest.Surveyed(spanned, holes.get(false), holes.get(true));
        }

        @Override
        public double heightM(LonLat at) {
            Spot spot = new Spot(models, at);
            Double known = spots.get(spot);
            if (known == null) {
                known = read(at);
                spots.put(spot, known);
            }
            return known;
        }

        private double read(LonLat at) {
            for (ModelUse use : models) {
                try (GeoTiff raster = opened(use.id())) {
                    ElevationModel model = ElevationModel.of(raster, OptionalInt.of(use.epsg()), use.datum());
                    double height = model.heightM(at);
                    if (!Double.isNaN(height)) {
                        return height;
                    }
                }
            }
            return Double.NaN;
        }

        @Override
        public Stack spanning(double widestM) {
            return new Stack(models, widestM);
        }
    }

    private HeightGrid stacked(List<ModelUse> models, PlaneBlock block, double bufferM) {
        double[] bounds = block.bounds();
        double width = bounds[1] - bounds[0] + 2 * bufferM;
        double height = bounds[3] - bounds[2] + 2 * bufferM;
        HeightGrid grid = null;
        for (ModelUse use : models) {
            try (GeoTiff raster = opened(use.id())) {
                ElevationModel model = ElevationModel.of(raster, OptionalInt.of(use.epsg()), use.datum());
                if (grid == null) {
                    double cell = cell(Math.max(model.cellM(), Math.sqrt(width * height / MOST_CELLS)));
                    grid = HeightGrid.level(
                            bounds[0] - bufferM,
                            bounds[3] + bufferM,
                            cell,
                            (int) Math.ceil(width / cell),
                            (int) Math.ceil(height / cell),
                            Double.NaN);
                }
                model.fill(grid, block.plane());
            }
        }
        return grid;
    }

    /** A round cell size near the one given. */
    private static double cell(double wanted) {
        for (double size : CELL_SIZES) {
            if (size >= wanted * 0.9) {
                return size;
            }
        }
        return wanted;
    }
}
