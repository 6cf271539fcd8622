package yalos.web.kit;

import java.math.BigDecimal;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import yalos.core.fault.InputFault;
import yalos.core.kit.Aircraft;
import yalos.core.kit.Battery;
import yalos.core.units.Measure;
import yalos.core.units.Unit;

/** An aircraft's figures as the Kit page has them, and back. Figures may be typed with any unit of their kind. */
final class AircraftForm {
    private AircraftForm() {}

    /** One line of the form. */
    public record Field(String key, String label, String value, String unit) {}

    static List<Field> fields(Aircraft aircraft) {
        Battery battery = aircraft.battery();
        String measured = battery.measured()
                .map(use -> plain(use.share() * 100) + " % in " + plain(use.minutes()) + " min")
                .orElse("");
        return List.of(
                new Field("name", "Kind", aircraft.name(), ""),
                new Field("maxSpeed", "Fastest while mapping", plain(aircraft.maxSpeedMps()), "m/s"),
                new Field("acceleration", "Acceleration", plain(aircraft.accelerationMps2()), "m/s²"),
                new Field("turnSpeed", "Speed in turns", plain(aircraft.turnSpeedMps()), "m/s"),
                new Field("climb", "Climb", plain(aircraft.climbMps()), "m/s"),
                new Field("descent", "Descent", plain(aircraft.descentMps()), "m/s"),
                new Field("nominal", "Endurance, nominal", plain(battery.nominalMinutes()), "min"),
                new Field("health", "Left of it with age", plain(battery.health() * 100), "%"),
                new Field("measured", "Measured use", measured, ""),
                new Field("reserve", "Reserve at landing", plain(battery.reserve() * 100), "%"),
                new Field("sets", "Battery sets carried", String.valueOf(battery.sets()), ""));
    }

    /**
     * @throws InputFault for a figure that is none or out of bounds
     */
    static Aircraft read(Map<String, String> form) {
        String name = form.getOrDefault("name", "").strip();
        if (name.isEmpty() || name.length() > 80) {
            throw new InputFault("name", name, "Name the kind of aircraft, by its class, in up to 80 characters.");
        }
        double sets = si(form, "sets", Unit.COUNT);
        if (sets != Math.rint(sets)) {
            throw new InputFault("sets", sets, "Battery sets are counted in whole sets.");
        }
        Battery battery = new Battery(
                si(form, "nominal", Unit.MINUTE) / 60,
                (int) sets,
                si(form, "reserve", Unit.PERCENT),
                si(form, "health", Unit.PERCENT),
                Battery.Use.typed(form.getOrDefault("measured", "")));
        return new Aircraft(
                name,
                si(form, "maxSpeed", Unit.METRE_PER_SECOND),
                number(form, "acceleration"),
                si(form, "turnSpeed", Unit.METRE_PER_SECOND),
                si(form, "climb", Unit.METRE_PER_SECOND),
                si(form, "descent", Unit.METRE_PER_SECOND),
                battery);
    }

    private static double si(Map<String, String> form, String key, Unit unit) {
        double si = Measure.typed(key, form.getOrDefault(key, ""), unit).si();
        return Math.round(si * 1e9) / 1e9;
    }

    private static double number(Map<String, String> form, String key) {
        return Measure.typed(key, form.getOrDefault(key, ""), Unit.COUNT).figure();
    }

    private static String plain(double figure) {
        double rounded = Double.parseDouble(String.format(Locale.ROOT, "%.4f", figure));
        return BigDecimal.valueOf(rounded).stripTrailingZeros().toPlainString();
    }
}
