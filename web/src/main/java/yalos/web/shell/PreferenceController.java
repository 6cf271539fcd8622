package yalos.web.shell;

import java.time.Duration;
import java.util.List;
import java.util.Map;
import org.springframework.http.HttpHeaders;
import org.springframework.http.ResponseCookie;
import org.springframework.http.ResponseEntity;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;
import yalos.core.units.Unit;
import yalos.core.units.UnitChoice;
import yalos.core.units.UnitKind;

/** Units and look: chosen in the frame, sent back to the page one came from. */
@Controller
class PreferenceController {
    private final Preferences preferences;

    PreferenceController(Preferences preferences) {
        this.preferences = preferences;
    }

    /** One kind of quantity with the units it can be read in. */
    record KindView(UnitKind kind, List<Unit> choices, Unit chosen) {}

    @GetMapping("/units")
    String units(@RequestParam(defaultValue = "/jobs") String back, Model model) {
        UnitChoice units = preferences.units();
        model.addAttribute("back", Here.path(back));
        model.addAttribute(
                "kinds",
                List.of(UnitKind.values()).stream()
                        .filter(kind -> kind.choices().size() > 1)
                        .map(kind -> new KindView(
                                kind,
                                kind.choices().stream()
                                        .map(UnitKind.Shown::unit)
                                        .toList(),
                                units.unit(kind)))
                        .toList());
        return "units";
    }

    @PostMapping("/units")
    String keepUnits(@RequestParam Map<String, String> form, @RequestParam(defaultValue = "/jobs") String back) {
        String preset = form.getOrDefault("preset", "");
        UnitChoice units = switch (preset) {
            case "metric" -> UnitChoice.METRIC;
            case "feet" -> UnitChoice.FEET;
            default -> chosen(form);
        };
        preferences.keep(units);
        return "redirect:" + Here.path(back);
    }

    private static UnitChoice chosen(Map<String, String> form) {
        UnitChoice units = UnitChoice.METRIC;
        for (UnitKind kind : UnitKind.values()) {
            for (UnitKind.Shown shown : kind.choices()) {
                if (shown.unit().name().equals(form.get(kind.name()))) {
                    units = units.with(kind, shown.unit());
                }
            }
        }
        return units;
    }

    @PostMapping("/look")
    ResponseEntity<Void> look(@RequestParam String look, @RequestParam(defaultValue = "/jobs") String back) {
        ResponseCookie cookie = ResponseCookie.from(Look.COOKIE, Look.of(look).key())
                .path("/")
                .maxAge(Duration.ofDays(3650))
                .sameSite("Strict")
                .build();
        return ResponseEntity.status(303)
                .header(HttpHeaders.SET_COOKIE, cookie.toString())
                .header(HttpHeaders.LOCATION, Here.path(back))
                .build();
    }
}
