package yalos.web.kit;

import java.util.List;
import java.util.Map;
import yalos.core.kit.Scanner;
import yalos.core.units.Unit;

/** A lidar scanner's figures as a form has them, and back. */
final class ScannerForm {
    private ScannerForm() {}

    static List<FormField> fields(Scanner scanner) {
        return List.of(
                FormField.text("name", "Name, by class", scanner.name(), ""),
                FormField.text("fov", "Field of view used", Typed.plain(Math.toDegrees(scanner.fieldOfViewRad())), "°"),
                FormField.text("pulses", "Pulses a second", Typed.plain(scanner.pulsesPerSecond()), ""),
                FormField.text("usable", "Share usable", Typed.plain(scanner.usableShare() * 100), "%"),
                FormField.text("range", "Greatest range", Typed.plain(scanner.maxRangeM()), "m"));
    }

    static Scanner read(Map<String, String> form) {
        Typed typed = new Typed(form);
        return new Scanner(
                typed.name(),
                typed.si("fov", Unit.DEGREE),
                typed.number("pulses"),
                typed.si("usable", Unit.PERCENT),
                typed.si("range", Unit.METRE));
    }
}
