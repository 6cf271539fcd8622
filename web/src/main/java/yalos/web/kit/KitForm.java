package yalos.web.kit;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import yalos.core.fault.InputFault;
import yalos.core.fault.TypedDay;
import yalos.core.kit.Aircraft;
import yalos.core.kit.Head;
import yalos.core.kit.Kit;
import yalos.core.kit.Payload;
import yalos.core.kit.Scanner;
import yalos.core.units.Unit;
import yalos.web.store.CameraRow;

/**
 * A kit put together from the catalogue's aircraft, cameras with lens, and scanners. What the kit already holds can be kept
 * though the catalogue no longer has it.
 */
final class KitForm {
    private static final int MOST_HEADS = 6;
    private static final String KEEP = "keep";

    private final Catalogue catalogue;
    private final List<CameraRow> cameras;

    KitForm(Catalogue catalogue, List<CameraRow> cameras) {
        this.catalogue = catalogue;
        this.cameras = cameras;
    }

    /** The form for a kit that exists, or for a new one. */
    List<FormField> fields(Optional<Kit> kit) {
        List<FormField> fields = new ArrayList<>();
        fields.add(FormField.text("name", "Name", kit.map(Kit::name).orElse(""), ""));
        fields.add(FormField.choice("aircraft", "Aircraft", kit.isPresent() ? KEEP : first(), aircraft(kit)));
        for (int i = 0; i < MOST_HEADS; i++) {
            fields.addAll(head(i, kit));
        }
        Optional<Scanner> scanner = kit.flatMap(k -> k.payload().scanner());
        fields.add(FormField.choice("scanner", "Lidar scanner", scanner.isPresent() ? KEEP : "", scanners(scanner)));
        fields.add(FormField.text(
                "firmware", "Firmware", kit.map(k -> k.service().firmware()).orElse(""), ""));
        fields.add(FormField.text(
                "calibrated",
                "Camera calibrated on",
                kit.flatMap(k -> k.service().calibratedOn())
                        .map(LocalDate::toString)
                        .orElse(""),
                ""));
        return fields;
    }

    private String first() {
        return catalogue.aircraft().stream()
                .findFirst()
                .map(entry -> String.valueOf(entry.id()))
                .orElse("");
    }

    private List<FormField.Choice> aircraft(Optional<Kit> kit) {
        List<FormField.Choice> choices = new ArrayList<>();
        kit.ifPresent(k -> choices.add(new FormField.Choice(KEEP, k.aircraft().name() + ", as it is")));
        catalogue.aircraft().forEach(entry -> choices.add(choice(entry.id(), entry.name())));
        return choices;
    }

    private List<FormField.Choice> scanners(Optional<Scanner> held) {
        List<FormField.Choice> choices = new ArrayList<>(List.of(new FormField.Choice("", "none")));
        held.ifPresent(scanner -> choices.add(new FormField.Choice(KEEP, scanner.name() + ", as it is")));
        catalogue.scanners().forEach(entry -> choices.add(choice(entry.id(), entry.name())));
        return choices;
    }

    private List<FormField> head(int i, Optional<Kit> kit) {
        Optional<Head> head = kit.map(k -> k.payload().heads())
                .filter(heads -> i < heads.size())
                .map(heads -> heads.get(i));
        List<FormField.Choice> choices = new ArrayList<>(List.of(new FormField.Choice("", "none")));
        head.ifPresent(h -> choices.add(new FormField.Choice(KEEP, h.camera().name() + ", as it is")));
        for (CameraRow camera : cameras) {
            for (double lens : camera.lensesMm()) {
                choices.add(new FormField.Choice(
                        camera.id() + "/" + Typed.plain(lens),
                        camera.withLens(lens).name()));
            }
        }
        String title = i == 0 ? "Leading camera" : "Head " + (i + 1);
        return List.of(
                FormField.choice("camera" + i, title, head.isPresent() ? KEEP : "", choices),
                FormField.text("head" + i, "named", head.map(Head::name).orElse(i == 0 ? "camera" : ""), ""),
                FormField.text(
                        "files" + i,
                        "files at each release",
                        head.map(h -> String.valueOf(h.filesPerCapture())).orElse("1"),
                        ""),
                FormField.text(
                        "least" + i,
                        "not below",
                        head.map(h -> Typed.plain(h.leastHeightM())).orElse("0"),
                        "m"));
    }

    private static FormField.Choice choice(long id, String name) {
        return new FormField.Choice(String.valueOf(id), name);
    }

    /**
     * @param before the kit that is changed; empty for a new one
     * @throws InputFault for a kit without aircraft or camera, or a figure that cannot be
     */
    Kit read(Map<String, String> form, Optional<Kit> before) {
        Typed typed = new Typed(form);
        List<Head> heads = new ArrayList<>();
        for (int i = 0; i < MOST_HEADS; i++) {
            if (!typed.text("camera" + i).isEmpty()) {
                heads.add(head(typed, i, before));
            }
        }
        if (heads.isEmpty()) {
            throw new InputFault("camera0", "none", "Choose a leading camera; a scanner too carries one along.");
        }
        return new Kit(
                typed.name(),
                aircraft(typed, before),
                new Payload(heads, scanner(typed, before)),
                new Kit.Service(typed.text("firmware"), TypedDay.of("calibrated", typed.text("calibrated"))));
    }

    private Aircraft aircraft(Typed typed, Optional<Kit> before) {
        String chosen = typed.text("aircraft");
        if (chosen.equals(KEEP) && before.isPresent()) {
            return before.get().aircraft();
        }
        return catalogue.gear(GearKind.AIRCRAFT, number(chosen, "aircraft"), Aircraft.class);
    }

    private Optional<Scanner> scanner(Typed typed, Optional<Kit> before) {
        String chosen = typed.text("scanner");
        if (chosen.isEmpty()) {
            return Optional.empty();
        }
        if (chosen.equals(KEEP)) {
            return before.flatMap(kit -> kit.payload().scanner());
        }
        return Optional.of(catalogue.gear(GearKind.SCANNER, number(chosen, "scanner"), Scanner.class));
    }

    private Head head(Typed typed, int i, Optional<Kit> before) {
        String chosen = typed.text("camera" + i);
        String name = typed.text("head" + i).isEmpty() ? "head " + (i + 1) : typed.text("head" + i);
        int files = typed.whole("files" + i, "Files at each release");
        double least = typed.si("least" + i, Unit.METRE);
        if (chosen.equals(KEEP)) {
            Head held = before.map(kit -> kit.payload().heads())
                    .filter(heads -> i < heads.size())
                    .map(heads -> heads.get(i))
                    .orElseThrow(() -> new InputFault("camera" + i, chosen, "That head is gone; choose a camera."));
            return new Head(name, held.camera(), files, least);
        }
        String[] parts = chosen.split("/");
        long id = number(parts[0], "camera" + i);
        CameraRow row = cameras.stream()
                .filter(camera -> camera.id() == id)
                .findFirst()
                .orElseThrow(() -> new InputFault("camera" + i, chosen, "That camera is no longer in the catalogue."));
        double lens = parts.length > 1 ? Double.parseDouble(parts[1]) : row.focalLengthMm();
        return new Head(name, row.withLens(lens), files, least);
    }

    private static long number(String text, String field) {
        try {
            return Long.parseLong(text);
        } catch (NumberFormatException e) {
            throw new InputFault(field, text, "Choose one of the list.");
        }
    }
}
