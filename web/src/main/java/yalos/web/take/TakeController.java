package yalos.web.take;

import jakarta.servlet.http.HttpServletRequest;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.FileTime;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.springframework.beans.factory.annotation.Value;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.ResponseBody;
import org.springframework.web.multipart.MultipartFile;
import yalos.core.fault.InputFault;
import yalos.core.fault.Names;
import yalos.core.take.Fix;
import yalos.core.take.TakeMatch;
import yalos.core.terrain.VerticalDatum.Zero;
import yalos.web.block.Blocks;
import yalos.web.block.OpenBlock;
import yalos.web.block.PlanDesk;
import yalos.web.shell.Person;
import yalos.web.shell.Preferences;
import yalos.web.store.StoredPhoto;
import yalos.web.store.TakeMapper.PhotoRow;
import yalos.web.take.TakeDesk.Found;
import yalos.web.work.WorkQueue;

/** Brings a take in: photos from a folder of the machine or from the browser, and what comes with them. */
@Controller
class TakeController {
    private static final long BYTES_OF_A_PHOTO = 220_000_000;
    private static final long BYTES_OF_POINTS = 500_000_000;
    private static final Duration END = Duration.ofMinutes(10);

    private final Blocks blocks;
    private final TakeStore store;
    private final TakeReading reading;
    private final TakeFiles files;
    private final TakeDesk desk;
    private final TakeCopy copy;
    private final WorkQueue queue;
    private final PlanDesk plans;
    private final Preferences preferences;
    private final Path scratch;

    TakeController(
            Blocks blocks,
            TakeStore store,
            TakeReading reading,
            TakeFiles files,
            TakeDesk desk,
            TakeCopy copy,
            WorkQueue queue,
            PlanDesk plans,
            Preferences preferences,
            @Value("${yalos.data}") Path data) {
        this.blocks = blocks;
        this.store = store;
        this.reading = reading;
        this.files = files;
        this.desk = desk;
        this.copy = copy;
        this.queue = queue;
        this.plans = plans;
        this.preferences = preferences;
        this.scratch = data.resolve("scratch").toAbsolutePath();
    }

    private static String back(long id) {
        return "redirect:/blocks/" + id + "/take";
    }

    @PostMapping("/blocks/{id}/take/folder")
    String folder(@PathVariable long id, @RequestParam String folder) {
        reading.begin(blocks.open(id).id(), folder);
        return back(id);
    }

    @PostMapping("/blocks/{id}/take/call-off")
    String callOff(@PathVariable long id) {
        reading.callOff(id);
        copy.callOff(id);
        return back(id);
    }

    /** How far the reading is; asked by the page until it is done. */
    @GetMapping("/blocks/{id}/take/progress")
    String progress(@PathVariable long id, Model model) {
        model.addAttribute("block", blocks.open(id));
        model.addAttribute("reading", reading.of(id).orElse(null));
        return "take/progress";
    }

    /** Whether photos have come since the page was shown without any, from another page or device; then it brings its book anew. */
    @GetMapping("/blocks/{id}/take/fresh")
    String fresh(@PathVariable long id, Model model) {
        model.addAttribute("block", blocks.open(id));
        model.addAttribute("photoCount", store.count(id));
        return "take/fresh";
    }

    /** How far the proof of the take is; the page brings its book anew once it is done. */
    @GetMapping("/blocks/{id}/take/proving")
    String proving(@PathVariable long id, Model model) {
        OpenBlock block = blocks.open(id);
        Optional<Found> found = desk.of(block);
        model.addAttribute("block", block);
        model.addAttribute("provingTake", found.map(Found::running).orElse(false));
        model.addAttribute(
                "progress",
                found.map(known -> (int) Math.round(100 * known.progress())).orElse(100));
        return "take/proving";
    }

    /** Files that are known, so that the browser sends no file twice. */
    @GetMapping(path = "/blocks/{id}/take/known", produces = MediaType.APPLICATION_JSON_VALUE)
    @ResponseBody
    List<String> known(@PathVariable long id) {
        return reading.known(blocks.open(id).id()).toList();
    }

    /** What sending some photos did. */
    record Sent(int kept, List<String> faults) {}

    /**
     * Photos sent by the browser: each is read where the server laid it aside, and not kept.
     *
     * @param folder of each below the picked one
     * @param modified of each, in milliseconds
     */
    @PostMapping("/blocks/{id}/take/photos")
    Object photos(
            @PathVariable long id,
            @RequestParam List<MultipartFile> file,
            @RequestParam(defaultValue = "") List<String> folder,
            @RequestParam(defaultValue = "") List<Long> modified,
            @RequestParam(defaultValue = "false") boolean script,
            HttpServletRequest request)
            throws IOException {
        OpenBlock block = blocks.open(id);
        if (reading.count(block.id()) + file.size() > TakeReading.MOST_PHOTOS) {
            throw new InputFault(
                    "file",
                    file.size(),
                    "More than %,d photos are kept of no block.".formatted(TakeReading.MOST_PHOTOS));
        }
        List<String> faults = new ArrayList<>();
        int kept = 0;
        for (int i = 0; i < file.size(); i++) {
            MultipartFile sent = file.get(i);
            String name = Names.given(sent.getOriginalFilename(), "photo");
            if (sent.isEmpty() && file.size() == 1 && name.equals("photo")) {
                throw new InputFault("file", "nothing", "Choose photos, or drop a folder of them.");
            }
            Path laid = Files.createTempFile(scratch, "photo", ".part");
            try {
                sent.transferTo(laid);
                Files.setLastModifiedTime(laid, FileTime.fromMillis(i < modified.size() ? modified.get(i) : 0));
                String where = i < folder.size() ? TakeStore.cut(Names.clean(folder.get(i)), 300) : "";
                PhotoRow row = TakeReading.head(block.id(), where, name, laid, Person.present());
                byte[] small = queue.answer(
                        request, "Looking at a photo", BYTES_OF_A_PHOTO, END, work -> TakeReading.look(row, laid));
                store.append(block.id(), List.of(row));
                store.seen(block.id(), Map.of(row, small));
                kept++;
                String fault = StoredPhoto.taken(row).facts().fault();
                if (!fault.isEmpty()) {
                    faults.add(row.name + ": " + fault);
                }
            } finally {
                Files.deleteIfExists(laid);
            }
        }
        return script ? ResponseEntity.ok(new Sent(kept, faults)) : back(id);
    }

    /** Something done with a file laid aside. */
    private interface WithFile {
        void use(String name, Path file) throws IOException;
    }

    private void laid(MultipartFile sent, String what, WithFile use) throws IOException {
        if (sent.isEmpty()) {
            throw new InputFault("file", "nothing", what);
        }
        Path laid = Files.createTempFile(scratch, "take", ".part");
        try {
            sent.transferTo(laid);
            use.use(Names.given(sent.getOriginalFilename(), "file"), laid);
        } finally {
            Files.deleteIfExists(laid);
        }
    }

    @PostMapping("/blocks/{id}/take/positions")
    String positions(
            @PathVariable long id, @RequestParam MultipartFile file, @RequestParam(defaultValue = "") String zero)
            throws IOException {
        OpenBlock block = blocks.open(id);
        Optional<Zero> said = Arrays.stream(Zero.values())
                .filter(one -> one.name().equals(zero))
                .findFirst();
        laid(
                file,
                "Choose a table with a line for each photo: its name and its position.",
                (name, laid) -> files.positions(block, name, laid, said));
        return back(id);
    }

    /** Positions from a table or a log are taken away; the photos' own count again. */
    @PostMapping("/blocks/{id}/take/own-positions")
    String ownPositions(@PathVariable long id, @RequestParam Fix.Source source) {
        store.unrefine(blocks.open(id).id(), source);
        return back(id);
    }

    @PostMapping("/blocks/{id}/take/log")
    String log(
            @PathVariable long id,
            @RequestParam MultipartFile file,
            @RequestParam(defaultValue = "") String began,
            @RequestParam(defaultValue = "false") boolean all)
            throws IOException {
        OpenBlock block = blocks.open(id);
        Map<Long, Instant> times = new HashMap<>();
        Optional<Found> found = desk.of(block);
        found.ifPresent(known -> {
            TakeMatch match = known.take().match();
            for (int i = 0; i < match.photos().size(); i++) {
                int at = i;
                match.instant(i)
                        .ifPresent(when -> times.put(known.kept().get(at).id(), when));
            }
        });
        Instant day = times.values().stream().findFirst().orElseGet(Instant::now);
        laid(
                file,
                "Choose a log: GPX with times, a table with a time on each line, or GeoJSON.",
                (name, laid) -> files.log(
                        block,
                        name,
                        laid,
                        times,
                        all,
                        TakeFiles.began(
                                began,
                                block.facts()
                                        .field()
                                        .day()
                                        .clock(block.facts().outline().middle())
                                        .getRules()
                                        .getOffset(day))));
        return back(id);
    }

    @PostMapping("/blocks/{id}/take/base")
    String base(@PathVariable long id, @RequestParam MultipartFile file) throws IOException {
        OpenBlock block = blocks.open(id);
        laid(file, "Choose the base's observation file (RINEX).", (name, laid) -> files.base(block, name, laid));
        return back(id);
    }

    @PostMapping("/blocks/{id}/take/laser")
    String laser(@PathVariable long id, @RequestParam List<MultipartFile> file, HttpServletRequest request)
            throws IOException {
        OpenBlock block = blocks.open(id);
        Map<String, Path> laid = new LinkedHashMap<>();
        try {
            for (MultipartFile one : file) {
                if (one.isEmpty() && file.size() == 1) {
                    throw new InputFault("file", "nothing", "Choose the strips, as LAS files.");
                }
                Path part = Files.createTempFile(scratch, "strip", ".part");
                laid.put(Names.given(one.getOriginalFilename(), "strip"), part);
                one.transferTo(part);
            }
            queue.answer(request, "Reading the strips", BYTES_OF_POINTS, END, work -> {
                files.laser(block, new ArrayList<>(laid.keySet()), new ArrayList<>(laid.values()));
                return true;
            });
        } finally {
            for (Path part : laid.values()) {
                Files.deleteIfExists(part);
            }
        }
        return back(id);
    }

    /** Laser strips of a file: how dense, how well every two agree, where not, and a slice across two. */
    @GetMapping("/blocks/{id}/take/strips/{file}")
    String strips(@PathVariable long id, @PathVariable long file, Model model) {
        OpenBlock block = blocks.open(id);
        model.addAttribute("block", block);
        StripsPage.fill(store.file(block.id(), file), plans.plan(block.facts()).whole(), preferences.units(), model);
        return "take/strips";
    }

    @PostMapping("/blocks/{id}/take/files/{file}/remove")
    String remove(@PathVariable long id, @PathVariable long file) {
        store.dropFile(blocks.open(id).id(), file);
        return back(id);
    }

    /** Takes all photos off the list. */
    @PostMapping("/blocks/{id}/take/clear")
    String clear(@PathVariable long id) {
        reading.callOff(id);
        store.dropAll(blocks.open(id).id());
        return back(id);
    }

    @GetMapping("/blocks/{id}/take/manifest.sha256")
    ResponseEntity<String> manifest(@PathVariable long id) {
        return ResponseEntity.ok()
                .contentType(MediaType.parseMediaType("text/plain;charset=UTF-8"))
                .header("Content-Disposition", "attachment; filename=\"take-%d.sha256\"".formatted(id))
                .body(TakeCopy.manifest(store.photos(blocks.open(id).id())));
    }

    @PostMapping("/blocks/{id}/take/copy")
    String copy(@PathVariable long id, @RequestParam String folder) {
        copy.compare(blocks.open(id).id(), reading.folder(folder));
        return back(id);
    }

    @PostMapping("/blocks/{id}/take/copy-list")
    String copyList(@PathVariable long id, @RequestParam MultipartFile file) throws IOException {
        if (file.isEmpty()) {
            throw new InputFault("file", "nothing", "Choose the list of sums of the second copy.");
        }
        copy.compareList(blocks.open(id).id(), Names.given(file.getOriginalFilename(), "list"), file.getBytes());
        return back(id);
    }
}
