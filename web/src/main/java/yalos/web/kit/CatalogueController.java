package yalos.web.kit;

import java.io.IOException;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.springframework.http.ContentDisposition;
import org.springframework.http.HttpHeaders;
import org.springframework.http.HttpStatus;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.multipart.MultipartFile;
import org.springframework.web.servlet.ModelAndView;
import org.springframework.web.servlet.mvc.support.RedirectAttributes;
import yalos.core.fault.InputFault;
import yalos.core.kit.Aircraft;
import yalos.core.kit.Kit;
import yalos.core.kit.Scanner;
import yalos.web.shell.NotThere;
import yalos.web.store.CameraMapper;

/** The catalogue: kits, aircraft, scanners; list, create, edit, copy, delete, hand out and take in. */
@Controller
class CatalogueController {
    private static final Scanner USUAL_SCANNER = new Scanner("light scanner", Math.toRadians(70), 240_000, 0.5, 190);

    private final Catalogue catalogue;
    private final CameraMapper cameras;

    CatalogueController(Catalogue catalogue, CameraMapper cameras) {
        this.catalogue = catalogue;
        this.cameras = cameras;
    }

    /** One entry of a list. */
    record Line(long id, String name, String about) {}

    @GetMapping("/catalogue")
    String list(Model model) {
        model.addAttribute(
                "kits",
                catalogue.kits().stream()
                        .map(entry -> new Line(entry.id(), entry.name(), about(entry.gear())))
                        .toList());
        model.addAttribute(
                "aircraft",
                catalogue.aircraft().stream()
                        .map(entry -> new Line(entry.id(), entry.name(), about(entry.gear())))
                        .toList());
        model.addAttribute(
                "scanners",
                catalogue.scanners().stream()
                        .map(entry -> new Line(entry.id(), entry.name(), about(entry.gear())))
                        .toList());
        model.addAttribute("damaged", catalogue.damaged());
        model.addAttribute("cameraCount", cameras.all().size());
        return "kit/catalogue";
    }

    private static String about(Kit kit) {
        String scanner = kit.payload().scanner().map(s -> ", " + s.name()).orElse("");
        int more = kit.payload().heads().size() - 1;
        return kit.aircraft().name() + "; " + kit.camera().name() + (more > 0 ? " and " + more + " heads more" : "")
                + scanner;
    }

    private static String about(Aircraft aircraft) {
        return "%s, up to %s m/s, %s min, wind up to %s m/s"
                .formatted(
                        aircraft.kind().words(),
                        Typed.plain(aircraft.maxSpeedMps()),
                        Typed.plain(aircraft.battery().nominalMinutes()),
                        Typed.plain(aircraft.windLimitMps()));
    }

    private static String about(Scanner scanner) {
        return "%s°, %s pulses/s, reaches %s m"
                .formatted(
                        Typed.plain(Math.toDegrees(scanner.fieldOfViewRad())),
                        Typed.plain(scanner.pulsesPerSecond()),
                        Typed.plain(scanner.maxRangeM()));
    }

    @GetMapping("/catalogue/{kind}/{id}")
    ModelAndView edit(@PathVariable String kind, @PathVariable String id) {
        GearKind gear = kind(kind);
        if (id.equals("new")) {
            return form(gear, 0, blank(gear), Optional.empty());
        }
        return form(gear, number(id), fieldsOf(gear, number(id)), Optional.empty());
    }

    @GetMapping("/catalogue/{kind}/{id}/copy")
    ModelAndView copy(@PathVariable String kind, @PathVariable long id) {
        GearKind gear = kind(kind);
        List<FormField> fields = fieldsOf(gear, id).stream()
                .map(field -> field.key().equals("name") ? field.holding(field.value() + ", copy") : field)
                .toList();
        return form(gear, 0, fields, Optional.empty()).addObject("from", id);
    }

    @PostMapping("/catalogue/{kind}/{id}")
    ModelAndView save(
            @PathVariable String kind,
            @PathVariable long id,
            @RequestParam(defaultValue = "0") long from,
            @RequestParam Map<String, String> form) {
        GearKind gear = kind(kind);
        long source = id == 0 ? from : id;
        try {
            Object read = read(gear, source, form);
            catalogue.keep(gear, id, new Typed(form).name(), read);
        } catch (InputFault fault) {
            List<FormField> shown = (source == 0 ? blank(gear) : fieldsOf(gear, source))
                    .stream()
                            .map(field -> field.holding(form.getOrDefault(field.key(), field.value())))
                            .toList();
            return form(gear, id, shown, Optional.of(fault)).addObject("from", from);
        }
        return new ModelAndView("redirect:/catalogue");
    }

    @PostMapping("/catalogue/{kind}/{id}/delete")
    String delete(@PathVariable String kind, @PathVariable long id) {
        catalogue.delete(kind(kind), id);
        return "redirect:/catalogue";
    }

    @GetMapping("/catalogue.json")
    ResponseEntity<byte[]> handOut() {
        return ResponseEntity.ok()
                .contentType(MediaType.APPLICATION_JSON)
                .header(
                        HttpHeaders.CONTENT_DISPOSITION,
                        ContentDisposition.attachment()
                                .filename("catalogue.json")
                                .build()
                                .toString())
                .body(catalogue.file().bytes());
    }

    @PostMapping("/catalogue/import")
    String takeIn(@RequestParam MultipartFile file, RedirectAttributes then) throws IOException {
        Catalogue.Brought brought = catalogue.add(CatalogueFile.read(file.getBytes()));
        String renamed = brought.renamed().isEmpty()
                ? ""
                : " Names that were taken became " + String.join(", ", brought.renamed()) + ".";
        then.addAttribute(
                "said",
                brought.added()
                        + (brought.added() == 1 ? " entry came in." : " entries came in.")
                        + (brought.known() == 0 ? "" : " " + brought.known() + " were there already.")
                        + renamed);
        return "redirect:/catalogue";
    }

    private KitForm kitForm() {
        return new KitForm(catalogue, cameras.all());
    }

    private Object read(GearKind gear, long source, Map<String, String> form) {
        return switch (gear) {
            case AIRCRAFT -> AircraftForm.read(form);
            case SCANNER -> ScannerForm.read(form);
            case KIT ->
                kitForm()
                        .read(
                                form,
                                source == 0 ? Optional.empty() : Optional.of(catalogue.gear(gear, source, Kit.class)));
        };
    }

    private List<FormField> blank(GearKind gear) {
        return switch (gear) {
            case AIRCRAFT -> AircraftForm.fields(Aircraft.smallMultirotor());
            case SCANNER -> ScannerForm.fields(USUAL_SCANNER);
            case KIT -> kitForm().fields(Optional.empty());
        };
    }

    private List<FormField> fieldsOf(GearKind gear, long id) {
        return switch (gear) {
            case AIRCRAFT -> AircraftForm.fields(catalogue.gear(gear, id, Aircraft.class));
            case SCANNER -> ScannerForm.fields(catalogue.gear(gear, id, Scanner.class));
            case KIT -> kitForm().fields(Optional.of(catalogue.gear(gear, id, Kit.class)));
        };
    }

    private static ModelAndView form(GearKind gear, long id, List<FormField> fields, Optional<InputFault> fault) {
        ModelAndView view = new ModelAndView("kit/gear");
        view.setStatus(fault.isPresent() ? HttpStatus.BAD_REQUEST : HttpStatus.OK);
        view.addObject("kind", gear.key());
        view.addObject("word", gear.word());
        view.addObject("id", id);
        view.addObject("from", 0);
        view.addObject("fields", fields);
        view.addObject("fault", fault.map(InputFault::getMessage).orElse(""));
        view.addObject("faultField", fault.map(InputFault::field).orElse(""));
        return view;
    }

    private static GearKind kind(String key) {
        return GearKind.ofKey(key).orElseThrow(() -> new NotThere("The catalogue has no “%s”.".formatted(key)));
    }

    private static long number(String id) {
        try {
            return Long.parseLong(id);
        } catch (NumberFormatException e) {
            throw new NotThere("There is no such entry.");
        }
    }
}
