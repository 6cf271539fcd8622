package yalos.web.strips;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.RequestParam;
import yalos.core.camera.Camera;
import yalos.core.camera.ObliqueScale;
import yalos.core.fault.InputFault;
import yalos.core.pattern.CircleShots;
import yalos.core.units.Measure;
import yalos.core.units.Unit;
import yalos.core.units.UnitChoice;
import yalos.core.units.UnitKind;
import yalos.web.block.Blocks;
import yalos.web.block.OpenBlock;
import yalos.web.shell.Preferences;

/** Scale for walls, tilted views and circles round an object, with the block's camera. Keeps nothing. */
@Controller
class ObjectController {
    private final Blocks blocks;
    private final Preferences preferences;

    ObjectController(Blocks blocks, Preferences preferences) {
        this.blocks = blocks;
        this.preferences = preferences;
    }

    /** A figure with what it says. */
    record Line(String label, String figure) {}

    @GetMapping("/blocks/{id}/object")
    String object(
            @PathVariable long id,
            @RequestParam(defaultValue = "10 m") String distance,
            @RequestParam(defaultValue = "60 m") String height,
            @RequestParam(defaultValue = "-60") String tilt,
            @RequestParam(defaultValue = "25 m") String radius,
            @RequestParam(defaultValue = "80 %") String overlap,
            @RequestParam(defaultValue = "3 m/s") String speed,
            Model model) {
        OpenBlock block = blocks.open(id);
        UnitChoice units = preferences.units();
        model.addAttribute("block", block);
        model.addAttribute("distance", distance);
        model.addAttribute("height", height);
        model.addAttribute("tilt", tilt);
        model.addAttribute("radius", radius);
        model.addAttribute("overlap", overlap);
        model.addAttribute("speed", speed);
        model.addAttribute("camera", block.facts().camera().name());
        model.addAttribute("fault", "");
        try {
            Camera camera = block.facts().camera();
            double distanceM = si("distance", distance, units.unit(UnitKind.DISTANCE), 0.5, 2000);
            double heightM = si("height", height, units.unit(UnitKind.HEIGHT), 1, 1500);
            double pitch = si("tilt", tilt, Unit.DEGREE, -Math.PI / 2, Math.PI / 2);
            double radiusM = si("radius", radius, units.unit(UnitKind.DISTANCE), 1, 2000);
            double share = si("overlap", overlap, Unit.PERCENT, 0.1, 0.98);
            double mps = si("speed", speed, units.unit(UnitKind.SPEED), 0.1, 30);
            model.addAttribute("wall", wall(camera, distanceM, share, units));
            model.addAttribute("tilted", tilted(camera, pitch, heightM, units));
            model.addAttribute("conventions", conventions(pitch));
            model.addAttribute("circle", circle(camera, radiusM, pitch, share, mps, units));
        } catch (InputFault fault) {
            model.addAttribute("fault", fault.getMessage());
        }
        return "strips/object";
    }

    private static double si(String field, String text, Unit unit, double least, double most) {
        Measure typed = Measure.typed(field, text, unit);
        double si = typed.si();
        if (si < least - 1e-9 || si > most + 1e-9) {
            throw new InputFault(
                    field,
                    text,
                    "%s must be between %s and %s; %s is not."
                            .formatted(
                                    Character.toUpperCase(field.charAt(0)) + field.substring(1),
                                    Measure.ofSi(least, typed.unit()).asTyped(),
                                    Measure.ofSi(most, typed.unit()).asTyped(),
                                    typed.asTyped()));
        }
        return si;
    }

    private static List<Line> wall(Camera camera, double distanceM, double overlap, UnitChoice units) {
        double across = camera.sideAcrossM() * distanceM / camera.focalLengthM();
        double along = camera.sideAlongM() * distanceM / camera.focalLengthM();
        return List.of(
                new Line("GSD on the wall", units.text(UnitKind.GSD, ObliqueScale.gsdAtM(camera, distanceM))),
                new Line(
                        "a photo shows",
                        units.figure(UnitKind.DISTANCE, across) + " × " + units.text(UnitKind.DISTANCE, along)),
                new Line("between photos", units.text(UnitKind.DISTANCE, along * (1 - overlap))));
    }

    private static List<Line> tilted(Camera camera, double pitchRad, double heightM, UnitChoice units) {
        ObliqueScale oblique = new ObliqueScale(camera, pitchRad, heightM);
        List<Line> lines = new ArrayList<>();
        for (ObliqueScale.Part part : ObliqueScale.Part.values()) {
            lines.add(new Line(
                    part.name().toLowerCase(Locale.ROOT) + " ground",
                    oblique.at(part)
                            .map(sight -> "%s across, %s along, %s away, %s ahead"
                                    .formatted(
                                            units.text(UnitKind.GSD, sight.acrossM()),
                                            units.text(UnitKind.GSD, sight.alongM()),
                                            units.text(UnitKind.DISTANCE, sight.slantM()),
                                            units.text(UnitKind.DISTANCE, sight.aheadM())))
                            .orElse("at or above the horizon")));
        }
        return lines;
    }

    /** One tilt, as the several conventions write it. */
    private static List<Line> conventions(double pitchRad) {
        double degrees = Math.toDegrees(pitchRad);
        return List.of(
                new Line("here: −90° is straight down", text("%.0f°", degrees)),
                new Line("from straight down: 0° is straight down", text("%.0f°", 90 + degrees)),
                new Line("from straight down, signed: +90° is level", text("%+.0f°", 90 + degrees)),
                new Line("depression below level", text("%.0f°", -degrees)));
    }

    private static List<Line> circle(
            Camera camera, double radiusM, double pitchRad, double overlap, double mps, UnitChoice units) {
        double away = radiusM / Math.max(0.05, Math.cos(pitchRad));
        double along = camera.sideAlongM() * away / camera.focalLengthM();
        CircleShots shots = CircleShots.of(radiusM, along, overlap, mps);
        return List.of(
                new Line("from the middle", units.text(UnitKind.DISTANCE, away)),
                new Line("GSD at the middle", units.text(UnitKind.GSD, ObliqueScale.gsdAtM(camera, away))),
                new Line("photos on the circle", String.valueOf(shots.photos())),
                new Line("between photos", units.text(UnitKind.DISTANCE, shots.arcM())),
                new Line("a photo every", units.text(UnitKind.INTERVAL, shots.intervalS())),
                new Line(
                        "camera's shortest interval",
                        units.text(UnitKind.INTERVAL, camera.minIntervalS())
                                + (shots.intervalS() < camera.minIntervalS() ? ": fly slower" : "")),
                new Line("bank a wing needs", text("%.0f°", Math.toDegrees(shots.bankRad()))));
    }

    private static String text(String format, double figure) {
        return String.format(Locale.ROOT, format, figure).replace('-', '−');
    }
}
