package yalos.web.maps;

import jakarta.servlet.http.HttpServletRequest;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.time.Duration;
import java.util.List;
import java.util.Optional;
import java.util.concurrent.Semaphore;
import java.util.concurrent.TimeUnit;
import org.springframework.http.CacheControl;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.multipart.MultipartFile;
import yalos.core.basemap.MapAddress;
import yalos.core.basemap.MapWindow;
import yalos.core.basemap.TileMatrix;
import yalos.core.basemap.TilePyramid;
import yalos.core.block.Outline;
import yalos.core.fault.InputFault;
import yalos.core.geodesy.Grid;
import yalos.web.shell.NotThere;
import yalos.web.store.FactsJson;
import yalos.web.store.JobMapper;
import yalos.web.store.MapMapper.AddressRow;
import yalos.web.work.Order;
import yalos.web.work.WorkQueue;

/** The shelf of maps, which of them lies under a job's sheets, and their squares in the job's grid. */
@Controller
class MapsController {
    private static final int SIZE = 256;
    private static final int FINEST = 17;
    private static final double COARSEST_PIXEL = 512;
    private static final int AT_ONCE = 6;
    private static final long BYTES_TO_KEEP = 10_000_000;
    private static final int USUAL_ZOOM = 19;

    private final MapShelf shelf;
    private final JobMapper jobs;
    private final WorkQueue queue;
    private final MapPainter painter = new MapPainter();
    private final Semaphore free = new Semaphore(AT_ONCE);

    MapsController(MapShelf shelf, JobMapper jobs, WorkQueue queue) {
        this.queue = queue;
        this.shelf = shelf;
        this.jobs = jobs;
    }

    /** A map as the page lists it. */
    record MapView(
            String of,
            String name,
            String about,
            String size,
            String fault,
            boolean laid,
            boolean web,
            boolean active,
            String attribution) {}

    @GetMapping("/maps")
    String maps(@RequestParam(defaultValue = "0") long block, Model model) {
        fill(block, model);
        return "maps/maps";
    }

    private void fill(long block, Model model) {
        Optional<Long> job = job(block);
        String laid = job.map(shelf::laid).orElse("");
        model.addAttribute(
                "maps", shelf.all().stream().map(map -> view(map, laid)).toList());
        model.addAttribute("block", job.isPresent() ? block : 0);
        model.addAttribute("laid", laid);
    }

    private Optional<Long> job(long block) {
        return block == 0 ? Optional.empty() : jobs.block(block).map(JobMapper.BlockRow::jobId);
    }

    private MapView view(MapShelf.OnShelf map, String laid) {
        String about = map.map().map(MapsController::about).orElse("");
        Optional<AddressRow> row = map.address();
        String fault = map.fault().isEmpty()
                ? row.filter(AddressRow::active).flatMap(shelf::trouble).orElse("")
                : map.fault();
        return new MapView(
                map.of(),
                map.name(),
                row.map(web -> web.address() + (web.layers().isEmpty() ? "" : ", layers " + web.layers()))
                        .orElse(about),
                size(map.bytes()),
                fault,
                map.of().equals(laid),
                row.isPresent(),
                row.filter(AddressRow::active).isPresent(),
                map.map().map(TilePyramid::attribution).orElse(""));
    }

    private static String about(TilePyramid map) {
        List<TileMatrix> levels = map.levels();
        double unitM = map.system().unitM(map.middle().map(at -> at.latDeg()).orElse(0.0));
        double finest = levels.get(levels.size() - 1).pixelX() * unitM;
        return "%d %s, the finest of %s a pixel"
                .formatted(
                        levels.size(),
                        levels.size() == 1 ? "level" : "levels",
                        finest >= 1 ? "%.0f m".formatted(finest) : "%.0f cm".formatted(finest * 100));
    }

    private static String size(long bytes) {
        return bytes >= 1L << 30
                ? "%.1f GB".formatted(bytes / 1e9)
                : bytes >= 100_000 ? "%.1f MB".formatted(bytes / 1e6) : "%.0f kB".formatted(bytes / 1e3);
    }

    @PostMapping("/maps/file")
    String take(@RequestParam MultipartFile file, @RequestParam(defaultValue = "0") long block) throws IOException {
        if (file.isEmpty()) {
            throw new InputFault("file", "none", "Choose a file first.");
        }
        shelf.take(Optional.ofNullable(file.getOriginalFilename()).orElse(""), file.getInputStream());
        return back(block);
    }

    @PostMapping("/maps/address")
    String add(
            @RequestParam String name,
            @RequestParam String address,
            @RequestParam(defaultValue = "") String layers,
            @RequestParam(defaultValue = "") String attribution,
            @RequestParam(defaultValue = "") String finest,
            @RequestParam(defaultValue = "false") boolean home,
            @RequestParam(defaultValue = "0") long block) {
        if (name.isBlank() || name.length() > 80) {
            throw new InputFault("name", name, "Give the map a name of up to 80 characters.");
        }
        if (attribution.length() > 300) {
            throw new InputFault("attribution", attribution, "Keep the line beside the map to 300 characters.");
        }
        MapAddress checked = new MapAddress(address, layers);
        shelf.add(new AddressRow(
                0, name.strip(), checked.address(), checked.layers(), attribution.strip(), zoom(finest), home, false));
        return back(block);
    }

    private static int zoom(String typed) {
        if (typed.isBlank()) {
            return USUAL_ZOOM;
        }
        try {
            int zoom = Integer.parseInt(typed.strip());
            if (zoom >= 1 && zoom <= TileMatrix.FINEST) {
                return zoom;
            }
        } catch (NumberFormatException ignored) {
            // said below
        }
        throw new InputFault(
                "finest", typed, "The finest level is a whole number from 1 to %d.".formatted(TileMatrix.FINEST));
    }

    /** @param act {@code on}, {@code off} or {@code remove} */
    @PostMapping("/maps/change")
    String change(@RequestParam String of, @RequestParam String act, @RequestParam(defaultValue = "0") long block)
            throws IOException {
        MapShelf.OnShelf map = shelf.find(of).orElseThrow(() -> new NotThere("There is no such map any more."));
        if (act.equals("remove")) {
            shelf.remove(map);
        } else {
            map.address().ifPresent(row -> shelf.activate(row.id(), act.equals("on")));
        }
        return back(block);
    }

    /** Lays a map under the sheets of a block's job, or takes it away. */
    @PostMapping("/maps/lay")
    String lay(@RequestParam long block, @RequestParam(defaultValue = "") String of) {
        shelf.lay(job(block).orElseThrow(() -> new NotThere("There is no block " + block + ".")), of);
        return "redirect:/blocks/" + block + "/ground";
    }

    private static String back(long block) {
        return "redirect:/maps" + (block == 0 ? "" : "?block=" + block);
    }

    /** Fetches what the sheets of a block are likely to show of a web map, so that it is there without network. */
    @PostMapping("/maps/keep")
    String keep(@RequestParam String of, @RequestParam long block, HttpServletRequest request, Model model) {
        JobMapper.BlockRow row = jobs.block(block).orElseThrow(() -> new NotThere("There is no block " + block + "."));
        TilePyramid map = shelf.find(of)
                .flatMap(MapShelf.OnShelf::map)
                .orElseThrow(() -> new NotThere("There is no such map any more."));
        Outline outline = FactsJson.read(row.facts()).outline();
        if (outline.isEmpty()) {
            throw new InputFault("outline", "none", "Draw the outline first; what is kept follows from it.");
        }
        Surroundings.Kept kept = queue.answer(
                request,
                "The map",
                BYTES_TO_KEEP,
                Order.USUAL,
                work -> Surroundings.of(outline).keep(map, work));
        fill(block, model);
        model.addAttribute("kept", kept.words());
        return "maps/maps";
    }

    /**
     * A square of {@value #SIZE} pixels in a grid, counted from the grid's origin to the east and to the south.
     *
     * @param z 0 for pixels of 512 grid units, each step half of that
     */
    @GetMapping("/maps/squares")
    ResponseEntity<byte[]> square(
            @RequestParam String of,
            @RequestParam int epsg,
            @RequestParam int z,
            @RequestParam long x,
            @RequestParam long y)
            throws InterruptedException {
        if (z < 0 || z > FINEST) {
            throw new NotThere("There is no such square.");
        }
        MapShelf.OnShelf map = shelf.find(of).orElseThrow(() -> new NotThere("There is no such map any more."));
        TilePyramid tiles = map.map().orElseThrow(() -> new NotThere(map.fault()));
        double pixel = COARSEST_PIXEL / (1 << z);
        MapWindow window = new MapWindow(Grid.ofEpsg(epsg), x * SIZE * pixel, -y * SIZE * pixel, pixel, SIZE);
        if (!free.tryAcquire(20, TimeUnit.SECONDS)) {
            return ResponseEntity.status(503).header("Retry-After", "5").build();
        }
        try {
            MapPainter.Painted painted = painter.paint(map.of() + ' ' + map.state(), tiles, window);
            return ResponseEntity.ok()
                    .contentType(MediaType.IMAGE_PNG)
                    .cacheControl(
                            painted.whole()
                                    ? CacheControl.maxAge(Duration.ofHours(8)).cachePrivate()
                                    : CacheControl.noStore())
                    .body(painted.png());
        } catch (IOException unread) {
            throw new UncheckedIOException(unread);
        } finally {
            free.release();
        }
    }
}
