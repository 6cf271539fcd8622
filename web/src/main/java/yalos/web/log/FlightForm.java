package yalos.web.log;

import java.time.DateTimeException;
import java.time.LocalDateTime;
import java.time.ZoneId;
import java.time.format.DateTimeFormatter;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.OptionalInt;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Collectors;
import yalos.core.fault.InputFault;
import yalos.core.geodesy.LonLat;
import yalos.core.logbook.FlightRecord;
import yalos.core.logbook.FlightRecord.Air;
import yalos.core.logbook.FlightRecord.Crew;
import yalos.core.logbook.FlightRecord.Figures;
import yalos.core.logbook.FlightRecord.Happening;
import yalos.core.logbook.FlightRecord.Kind;
import yalos.core.logbook.FlightRecord.Pack;
import yalos.core.units.Measure;
import yalos.core.units.Unit;
import yalos.core.units.UnitChoice;
import yalos.core.units.UnitKind;
import yalos.web.shell.Person;
import yalos.web.store.BlockFacts;

/** A flight as a form shows and reads it: what there are several of has a line for each. */
public record FlightForm(
        String start,
        String minutes,
        String sortie,
        String aircraft,
        String payload,
        String crew,
        String packs,
        String photos,
        String wind,
        String gust,
        String from,
        String air,
        String weather,
        String satellites,
        String base,
        String happenings,
        String notes) {
    private static final DateTimeFormatter SHOWN = DateTimeFormatter.ofPattern("yyyy-MM-dd HH:mm", Locale.ROOT);
    private static final Pattern START =
            Pattern.compile("(\\d{4}-\\d{2}-\\d{2})[ T]+(\\d{1,2}):(\\d{2})(?::(\\d{2}))?");
    private static final Pattern PACK =
            Pattern.compile("(.+?)[\\s,;]+(\\d+(?:[.,]\\d+)?|-|–)\\s*%?[\\s,;]+(\\d+(?:[.,]\\d+)?|-|–)\\s*%?");
    private static final Pattern CLOCK = Pattern.compile("(\\d{1,2}:\\d{2}(?::\\d{2})?)\\s+(.*)");

    public FlightForm {
        start = or(start);
        minutes = or(minutes);
        sortie = or(sortie);
        aircraft = or(aircraft);
        payload = or(payload);
        crew = or(crew);
        packs = or(packs);
        photos = or(photos);
        wind = or(wind);
        gust = or(gust);
        from = or(from);
        air = or(air);
        weather = or(weather);
        satellites = or(satellites);
        base = or(base);
        happenings = or(happenings);
        notes = or(notes);
    }

    private static String or(String typed) {
        return typed == null ? "" : typed;
    }

    /** A form with what is known of a block. */
    static FlightForm of(BlockFacts facts) {
        String who = Person.present();
        return new FlightForm(
                "",
                "",
                "",
                facts.aircraft().name(),
                facts.kit().name(),
                who.isEmpty() ? "" : who + ", " + Crew.PILOT,
                "",
                "",
                "",
                "",
                "",
                "",
                "",
                "",
                "",
                "",
                "");
    }

    /** A flight as it stands, to be mended. */
    static FlightForm of(FlightRecord flight, UnitChoice units) {
        Air air = flight.air();
        return new FlightForm(
                SHOWN.format(flight.start()),
                number(flight.minutes(), 1),
                flight.sortie() == 0 ? "" : String.valueOf(flight.sortie()),
                flight.aircraft(),
                flight.payload(),
                flight.crew().stream()
                        .map(one -> one.name() + ", " + one.role())
                        .collect(Collectors.joining("\n")),
                flight.packs().stream()
                        .map(one -> one.name() + " " + percent(one.before()) + " " + percent(one.after()))
                        .collect(Collectors.joining("\n")),
                whole(flight.flown().photos()),
                shown(air.windMps(), UnitKind.SPEED, units),
                shown(air.gustMps(), UnitKind.SPEED, units),
                air.fromRad().isPresent() ? number(Math.toDegrees(air.fromRad().getAsDouble()), 0) : "",
                shown(air.airK(), UnitKind.TEMPERATURE, units),
                air.words(),
                whole(flight.satellites()),
                flight.base(),
                flight.happenings().stream().map(FlightForm::line).collect(Collectors.joining("\n")),
                flight.notes());
    }

    private static String whole(OptionalInt count) {
        return count.isPresent() ? String.valueOf(count.getAsInt()) : "";
    }

    private static String line(Happening one) {
        return one.kind().words()
                + (one.at().isEmpty() ? "" : " " + one.at())
                + " " + one.what()
                + (one.why().isEmpty() ? "" : " because " + one.why())
                + (one.who().isEmpty() ? "" : " / " + one.who());
    }

    private static String number(double value, int decimals) {
        return String.format(Locale.ROOT, "%." + decimals + "f", value).replaceAll("\\.0+$", "");
    }

    private static String percent(OptionalDouble share) {
        return share.isPresent() ? number(share.getAsDouble() * 100, 0) : "-";
    }

    private static String shown(OptionalDouble si, UnitKind kind, UnitChoice units) {
        return si.isPresent() ? units.text(kind, si.getAsDouble()) : "";
    }

    /**
     * The flight that was typed.
     *
     * @param before what the form began with: what it does not ask stays as it was
     * @throws InputFault naming the field
     */
    FlightRecord read(Optional<FlightRecord> before, ZoneId zone, Optional<LonLat> place, UnitChoice units) {
        LocalDateTime began = start(start);
        if (minutes.isBlank()) {
            throw new InputFault("minutes", minutes, "Say how long it was in the air, in minutes or as 12:30.");
        }
        double typed = Measure.typed("minutes", minutes, Unit.MINUTE).si() / 60;
        double lasted = before.map(FlightRecord::minutes)
                .filter(exact -> number(exact, 1).equals(minutes.strip()))
                .orElse(typed);
        OptionalInt taken = whole("photos", photos);
        Figures planned = before.map(FlightRecord::planned).orElse(Figures.NONE);
        Figures was = before.map(FlightRecord::flown).orElse(Figures.NONE);
        List<Pack> aboard = aboard();
        return new FlightRecord(
                kept(before, began),
                before.map(FlightRecord::zone).orElse(zone),
                lasted,
                whole("sortie", sortie).orElse(0),
                aircraft,
                payload,
                before.flatMap(FlightRecord::place).or(() -> place),
                people(),
                aboard,
                planned,
                new Figures(
                        taken, OptionalDouble.of(lasted), was.areaM2(), was.enough(), battery(aboard, was), was.gsdM()),
                new Air(
                        measure("wind", wind, units.unit(UnitKind.SPEED)),
                        measure("gust", gust, units.unit(UnitKind.SPEED)),
                        direction(),
                        measure("air", air, units.unit(UnitKind.TEMPERATURE)),
                        weather),
                whole("satellites", satellites),
                base,
                told(),
                notes);
    }

    /** To the second as it was, where the form only shows minutes of the same. */
    private static LocalDateTime kept(Optional<FlightRecord> before, LocalDateTime typed) {
        return before.map(FlightRecord::start)
                .filter(exact -> exact.withSecond(0).withNano(0).equals(typed))
                .orElse(typed);
    }

    private static OptionalDouble battery(List<Pack> aboard, Figures was) {
        OptionalDouble taken = aboard.stream()
                .map(Pack::taken)
                .filter(OptionalDouble::isPresent)
                .mapToDouble(OptionalDouble::getAsDouble)
                .reduce(Double::sum);
        return taken.isPresent() ? taken : was.battery();
    }

    private static LocalDateTime start(String typed) {
        Matcher parts = START.matcher(typed.strip());
        try {
            if (parts.matches()) {
                return LocalDateTime.parse("%sT%02d:%s:%s"
                        .formatted(
                                parts.group(1),
                                Integer.parseInt(parts.group(2)),
                                parts.group(3),
                                parts.group(4) == null ? "00" : parts.group(4)));
            }
        } catch (DateTimeException none) {
            // Told below.
        }
        throw new InputFault(
                "start", typed, "“%s” is no day and time such as 2026-05-14 10:42.".formatted(typed.strip()));
    }

    private List<Crew> people() {
        return crew.lines()
                .filter(line -> !line.isBlank())
                .map(line -> {
                    int comma = line.indexOf(',');
                    return comma < 0
                            ? new Crew(line, Crew.PILOT)
                            : new Crew(
                                    line.substring(0, comma),
                                    line.substring(comma + 1).toLowerCase(Locale.ROOT));
                })
                .toList();
    }

    private List<Pack> aboard() {
        List<Pack> all = new ArrayList<>();
        for (String line : packs.lines().filter(one -> !one.isBlank()).toList()) {
            Matcher parts = PACK.matcher(line.strip());
            all.add(
                    parts.matches()
                            ? new Pack(parts.group(1), share(parts.group(2)), share(parts.group(3)))
                            : new Pack(line, OptionalDouble.empty(), OptionalDouble.empty()));
        }
        return all;
    }

    private static OptionalDouble share(String text) {
        return text.equals("-") || text.equals("–")
                ? OptionalDouble.empty()
                : OptionalDouble.of(Double.parseDouble(text.replace(',', '.')) / 100);
    }

    private List<Happening> told() {
        List<Happening> all = new ArrayList<>();
        for (String line : happenings.lines().filter(one -> !one.isBlank()).toList()) {
            String rest = line.strip();
            Kind kind = Kind.EVENT;
            for (Kind one : Kind.values()) {
                if (rest.toLowerCase(Locale.ROOT).startsWith(one.words() + " ")) {
                    kind = one;
                    rest = rest.substring(one.words().length()).strip();
                }
            }
            String who = "";
            int slash = rest.lastIndexOf(" / ");
            if (slash >= 0) {
                who = rest.substring(slash + 3).strip();
                rest = rest.substring(0, slash);
            }
            String at = "";
            Matcher clock = CLOCK.matcher(rest);
            if (clock.matches()) {
                at = clock.group(1);
                rest = clock.group(2);
            }
            int because = kind == Kind.DECISION ? rest.indexOf(" because ") : -1;
            all.add(new Happening(
                    kind,
                    at,
                    because < 0 ? rest : rest.substring(0, because),
                    because < 0 ? "" : rest.substring(because + " because ".length()),
                    who));
        }
        return all;
    }

    private OptionalDouble direction() {
        OptionalDouble rad = measure("from", from, Unit.DEGREE);
        rad.ifPresent(value -> InputFault.within("from", Math.toDegrees(value), 0, 360, "°"));
        return rad;
    }

    private static OptionalDouble measure(String field, String typed, Unit usual) {
        return typed.isBlank()
                ? OptionalDouble.empty()
                : OptionalDouble.of(Measure.typed(field, typed, usual).si());
    }

    private static OptionalInt whole(String field, String typed) {
        OptionalDouble value = measure(field, typed, Unit.COUNT);
        if (value.isPresent() && value.getAsDouble() != Math.rint(value.getAsDouble())) {
            throw new InputFault(field, typed, "“%s” is no whole number.".formatted(typed.strip()));
        }
        return value.isPresent() ? OptionalInt.of((int) value.getAsDouble()) : OptionalInt.empty();
    }
}
