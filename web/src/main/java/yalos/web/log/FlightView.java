package yalos.web.log;

import java.time.format.DateTimeFormatter;
import java.util.List;
import java.util.Locale;
import java.util.stream.Collectors;
import yalos.core.light.Sun;
import yalos.core.logbook.Difference;
import yalos.core.logbook.FlightRecord;
import yalos.core.logbook.FlightRecord.Crew;
import yalos.core.logbook.FlightRecord.Kind;
import yalos.core.logbook.FlightRecord.Pack;
import yalos.core.units.UnitChoice;
import yalos.core.units.UnitKind;
import yalos.web.log.FlightLog.Kept;

/**
 * A flight as lists and pages show it.
 *
 * @param state {@code left out}, {@code rehearsed} where it counts not; empty where it counts
 */
public record FlightView(
        long id,
        Long block,
        String job,
        String blockName,
        String start,
        String sortie,
        String minutes,
        String aircraft,
        String crew,
        String packs,
        String photos,
        String air,
        String sun,
        String source,
        String state,
        String why,
        List<Difference> differences,
        List<Line> lines,
        long incidents) {
    private static final DateTimeFormatter START = DateTimeFormatter.ofPattern("yyyy-MM-dd HH:mm", Locale.ROOT);

    /** Something that happened. */
    public record Line(String kind, String words) {}

    public static FlightView of(Kept kept, UnitChoice units) {
        FlightRecord flight = kept.flight();
        String state = !kept.row().leftOut.isEmpty() ? "left out" : kept.row().counted ? "" : "rehearsed";
        return new FlightView(
                kept.row().id,
                kept.row().blockId,
                kept.row().jobName,
                kept.row().blockName,
                START.format(flight.start()),
                flight.sortie() == 0 ? "" : String.valueOf(flight.sortie()),
                units.text(UnitKind.DURATION, flight.minutes() * 60),
                flight.aircraft(),
                crew(flight),
                flight.packs().stream().map(FlightView::pack).collect(Collectors.joining(", ")),
                flight.flown().photos().isPresent()
                        ? "%,d".formatted(flight.flown().photos().getAsInt())
                        : "–",
                air(flight, units),
                sun(flight),
                kept.source().words(),
                state,
                kept.row().leftOut,
                Difference.of(flight.planned(), flight.flown(), units),
                flight.happenings().stream()
                        .map(one -> new Line(
                                one.kind().words(),
                                (one.at().isEmpty() ? "" : one.at() + " ")
                                        + one.what()
                                        + (one.why().isEmpty() ? "" : ", because " + one.why())
                                        + (one.who().isEmpty() ? "" : " (" + one.who() + ")")))
                        .toList(),
                flight.happenings().stream()
                        .filter(one -> one.kind() == Kind.INCIDENT)
                        .count());
    }

    private static String crew(FlightRecord flight) {
        return flight.crew().stream()
                .map(one -> one.role().equals(Crew.PILOT) ? one.name() : one.name() + " (" + one.role() + ")")
                .collect(Collectors.joining(", "));
    }

    private static String pack(Pack pack) {
        return pack.taken().isPresent()
                ? String.format(
                        Locale.ROOT,
                        "%s %.0f→%.0f %%",
                        pack.name(),
                        pack.before().getAsDouble() * 100,
                        pack.after().getAsDouble() * 100)
                : pack.name();
    }

    private static String air(FlightRecord flight, UnitChoice units) {
        StringBuilder words = new StringBuilder();
        flight.air().windMps().ifPresent(wind -> words.append("wind ").append(units.text(UnitKind.SPEED, wind)));
        flight.air().fromRad().ifPresent(from -> words.append(" from %03.0f°".formatted(Math.toDegrees(from))));
        flight.air().gustMps().ifPresent(gust -> words.append(", gusts ").append(units.text(UnitKind.SPEED, gust)));
        flight.air().airK().ifPresent(air -> words.append(", ").append(units.text(UnitKind.TEMPERATURE, air)));
        if (!flight.air().words().isEmpty()) {
            words.append(words.isEmpty() ? "" : "; ").append(flight.air().words());
        }
        return words.toString().replaceFirst("^, ", "");
    }

    static String sun(FlightRecord flight) {
        return flight.sun().map(FlightView::sun).orElse("");
    }

    /** Where it stood; below the horizon it is night. */
    static String sun(Sun sun) {
        return sun.elevationRad() <= 0
                ? "below the horizon"
                : "%.0f° high, from %03.0f°"
                        .formatted(Math.toDegrees(sun.elevationRad()), Math.toDegrees(sun.azimuthRad()));
    }
}
