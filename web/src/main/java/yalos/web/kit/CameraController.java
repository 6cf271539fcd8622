package yalos.web.kit;

import java.util.List;
import java.util.Optional;
import org.springframework.http.HttpStatus;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.ModelAttribute;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.servlet.ModelAndView;
import yalos.core.camera.Camera;
import yalos.core.camera.Mount;
import yalos.core.camera.Shutter;
import yalos.core.fault.InputFault;
import yalos.web.shell.NotThere;
import yalos.web.shell.Preferences;
import yalos.web.store.CameraMapper;
import yalos.web.store.CameraRow;

/** The catalogue of cameras: list, create, edit, duplicate, delete. Blocks keep the camera as they took it. */
@Controller
class CameraController {
    private final CameraMapper rows;
    private final Preferences preferences;

    CameraController(CameraMapper rows, Preferences preferences) {
        this.rows = rows;
        this.preferences = preferences;
    }

    @GetMapping("/cameras")
    String list(Model model) {
        model.addAttribute(
                "cameras",
                rows.all().stream()
                        .map(row -> CameraView.of(row, preferences.units()))
                        .toList());
        model.addAttribute("damaged", rows.damaged());
        return "kit/cameras";
    }

    @GetMapping("/cameras/new")
    ModelAndView create() {
        return form(0, CameraForm.empty(), Optional.empty(), List.of());
    }

    @GetMapping("/cameras/{id}")
    ModelAndView edit(@PathVariable long id) {
        return form(id, CameraForm.of(row(id)), Optional.empty(), List.of());
    }

    @GetMapping("/cameras/{id}/copy")
    ModelAndView copy(@PathVariable long id) {
        CameraRow row = row(id);
        return form(0, CameraForm.of(row.named(row.name() + ", copy")), Optional.empty(), List.of());
    }

    /** Keeps a camera; figures that are hard to believe are asked about once. */
    @PostMapping("/cameras/{id}")
    ModelAndView save(
            @PathVariable long id,
            @ModelAttribute CameraForm camera,
            @RequestParam(defaultValue = "false") boolean sure) {
        Camera checked;
        String lenses;
        try {
            checked = camera.camera();
            lenses = camera.lenses();
            refuseTakenName(id, checked.name());
        } catch (InputFault fault) {
            return form(id, camera, Optional.of(fault), List.of());
        }
        if (!sure && !checked.doubts().isEmpty()) {
            return form(id, camera, Optional.empty(), checked.doubts());
        }
        CameraRow row = CameraRow.of(id, checked, lenses);
        if (id == 0) {
            rows.insert(row);
        } else {
            row(id);
            rows.update(row);
        }
        return new ModelAndView("redirect:/cameras");
    }

    @PostMapping("/cameras/{id}/delete")
    String delete(@PathVariable long id) {
        row(id);
        rows.delete(id);
        return "redirect:/cameras";
    }

    private void refuseTakenName(long id, String name) {
        rows.named(name).filter(other -> other != id).ifPresent(other -> {
            throw new InputFault("name", name, "There is a camera called “%s” already.".formatted(name));
        });
    }

    private CameraRow row(long id) {
        return rows.byId(id).orElseThrow(() -> new NotThere("There is no such camera; it may have been deleted."));
    }

    private ModelAndView form(long id, CameraForm form, Optional<InputFault> fault, List<Camera.Doubt> doubts) {
        ModelAndView view = new ModelAndView("kit/camera");
        view.setStatus(fault.isPresent() ? HttpStatus.BAD_REQUEST : HttpStatus.OK);
        view.addObject("id", id);
        view.addObject("camera", form);
        view.addObject("faultField", fault.map(f -> fieldOf(f.field())).orElse(""));
        view.addObject("fault", fault.map(InputFault::getMessage).orElse(""));
        view.addObject("doubts", doubts);
        view.addObject("shutters", Shutter.Kind.values());
        view.addObject("mounts", Mount.values());
        return view;
    }

    /** The core knows some fields by the names of the plan service. */
    private static String fieldOf(String field) {
        return switch (field) {
            case "pixelsAcross" -> "pixelsWide";
            case "pixelsAlong" -> "pixelsHigh";
            case "sensorAcrossMm" -> "sensorWidthMm";
            case "sensorAlongMm" -> "sensorHeightMm";
            default -> field;
        };
    }
}
