package yalos.web.kit;

import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalDouble;
import yalos.core.fault.InputFault;
import yalos.core.kit.Aircraft;
import yalos.core.kit.AircraftKind;
import yalos.core.kit.Battery;
import yalos.core.kit.Endurance;
import yalos.core.kit.Positioning;
import yalos.core.units.Unit;

/** An aircraft's figures as a form has them, and back. Figures may be typed with any unit of their kind. */
final class AircraftForm {
    private AircraftForm() {}

    static List<FormField> fields(Aircraft aircraft) {
        Battery battery = aircraft.battery();
        Endurance endurance = battery.endurance();
        String measured = battery.measured()
                .map(use -> Typed.plain(use.share() * 100) + " % in " + Typed.plain(use.minutes()) + " min")
                .orElse("");
        return List.of(
                FormField.text("name", "Name, by class", aircraft.name(), ""),
                FormField.choice(
                        "kind",
                        "Kind",
                        aircraft.kind().name(),
                        Arrays.stream(AircraftKind.values())
                                .map(kind -> new FormField.Choice(kind.name(), kind.words()))
                                .toList()),
                FormField.text("maxSpeed", "Fastest while mapping", Typed.plain(aircraft.maxSpeedMps()), "m/s"),
                FormField.text("slowest", "Slowest in the air, wings", Typed.plain(aircraft.slowestMps()), "m/s"),
                FormField.text("transit", "Out to the block", Typed.plain(aircraft.transitMps()), "m/s"),
                FormField.text("return", "Home", Typed.plain(aircraft.returnMps()), "m/s"),
                FormField.text("acceleration", "Acceleration", Typed.plain(aircraft.accelerationMps2()), "m/s²"),
                FormField.text("turnSpeed", "Speed in turns", Typed.plain(aircraft.turnSpeedMps()), "m/s"),
                FormField.text("bank", "Bank in turns, wings", Typed.plain(Math.toDegrees(aircraft.bankRad())), "°"),
                FormField.text("climb", "Climb", Typed.plain(aircraft.climbMps()), "m/s"),
                FormField.text("descent", "Descent", Typed.plain(aircraft.descentMps()), "m/s"),
                FormField.text("wind", "Wind limit, at the ground", Typed.plain(aircraft.windLimitMps()), "m/s"),
                FormField.text("weather", "Weather class", aircraft.weatherClass(), ""),
                FormField.choice(
                        "positioning",
                        "Best positions by",
                        aircraft.positioning().name(),
                        Arrays.stream(Positioning.values())
                                .filter(mode -> mode != Positioning.CONTROL)
                                .map(mode -> new FormField.Choice(mode.name(), mode.words()))
                                .toList()),
                FormField.text("nominal", "Endurance, nominal", Typed.plain(battery.nominalMinutes()), "min"),
                FormField.text(
                        "rtk",
                        "with the RTK link on",
                        battery.rtkMinutes().map(Typed::plain).orElse(""),
                        "min"),
                FormField.text("health", "Left of it with age", Typed.plain(battery.health() * 100), "%"),
                FormField.text("measured", "Measured use", measured, ""),
                FormField.text("hover", "Longest hover", minutes(endurance.hoverMinutes()), "min"),
                FormField.text("longest", "Longest flight, still air", minutes(endurance.longestMinutes()), "min"),
                FormField.text("longestAt", "reached at", minutes(endurance.longestAtMps()), "m/s"),
                FormField.text("reserve", "Reserve at landing", Typed.plain(battery.reserve() * 100), "%"),
                FormField.text("sets", "Battery sets carried", String.valueOf(battery.sets()), ""));
    }

    private static String minutes(OptionalDouble figure) {
        return figure.isPresent() ? Typed.plain(figure.getAsDouble()) : "";
    }

    private static OptionalDouble minutes(Typed typed, String field) {
        return typed.text(field).isEmpty()
                ? OptionalDouble.empty()
                : OptionalDouble.of(typed.si(field, Unit.MINUTE) / 60);
    }

    /**
     * @throws InputFault for a figure that is none or out of bounds
     */
    static Aircraft read(Map<String, String> form) {
        Typed typed = new Typed(form);
        Battery battery = new Battery(
                typed.si("nominal", Unit.MINUTE) / 60,
                typed.text("rtk").isEmpty() ? Optional.empty() : Optional.of(typed.si("rtk", Unit.MINUTE) / 60),
                typed.whole("sets", "Battery sets"),
                typed.si("reserve", Unit.PERCENT),
                typed.si("health", Unit.PERCENT),
                Battery.Use.typed(typed.text("measured")),
                new Endurance(
                        minutes(typed, "hover"),
                        minutes(typed, "longest"),
                        typed.text("longestAt").isEmpty()
                                ? OptionalDouble.empty()
                                : OptionalDouble.of(typed.si("longestAt", Unit.METRE_PER_SECOND))));
        if (battery.rtkMinutes()
                .filter(minutes -> minutes > battery.nominalMinutes())
                .isPresent()) {
            throw new InputFault(
                    "rtk",
                    typed.text("rtk"),
                    "With the link on it flies %s min, longer than the %s min without. The link takes power; are the two exchanged?"
                            .formatted(Typed.plain(battery.rtkMinutes().get()), Typed.plain(battery.nominalMinutes())));
        }
        return new Aircraft(
                typed.name(),
                typed.choice("kind", AircraftKind.class),
                typed.si("maxSpeed", Unit.METRE_PER_SECOND),
                typed.si("transit", Unit.METRE_PER_SECOND),
                typed.si("return", Unit.METRE_PER_SECOND),
                typed.si("slowest", Unit.METRE_PER_SECOND),
                typed.number("acceleration"),
                typed.si("turnSpeed", Unit.METRE_PER_SECOND),
                typed.si("bank", Unit.DEGREE),
                typed.si("climb", Unit.METRE_PER_SECOND),
                typed.si("descent", Unit.METRE_PER_SECOND),
                typed.si("wind", Unit.METRE_PER_SECOND),
                typed.text("weather"),
                typed.choice("positioning", Positioning.class),
                battery);
    }
}
