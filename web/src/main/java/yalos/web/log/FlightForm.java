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

/** A flight as a form shows and reads it: what there are several of has a line for each. */
public final class FlightForm {
    private static final DateTimeFormatter SHOWN = DateTimeFormatter.ofPattern("yyyy-MM-dd HH:mm", Locale.ROOT);
    private static final Pattern START =
            Pattern.compile("(\\d{4}-\\d{2}-\\d{2})[ T]+(\\d{1,2}):(\\d{2})(?::(\\d{2}))?");
    private static final Pattern PACK =
            Pattern.compile("(.+?)[\\s,;]+(\\d+(?:[.,]\\d+)?|-|–)\\s*%?[\\s,;]+(\\d+(?:[.,]\\d+)?|-|–)\\s*%?");
    private static final Pattern CLOCK = Pattern.compile("(\\d{1,2}:\\d{2}(?::\\d{2})?)\\s+(.*)");

    private String start = "";
    private String minutes = "";
    private String sortie = "";
    private String aircraft = "";
    private String payload = "";
    private String crew = "";
    private String packs = "";
    private String photos = "";
    private String wind = "";
    private String gust = "";
    private String from = "";
    private String air = "";
    private String weather = "";
    private String satellites = "";
    private String base = "";
    private String happenings = "";
    private String notes = "";

    /** A flight as it stands, to be mended. */
    static FlightForm of(FlightRecord flight, UnitChoice units) {
        FlightForm form = new FlightForm();
        form.start = SHOWN.format(flight.start());
        form.minutes = number(flight.minutes(), 1);
        form.sortie = flight.sortie() == 0 ? "" : String.valueOf(flight.sortie());
        form.aircraft = flight.aircraft();
        form.payload = flight.payload();
        form.crew = flight.crew().stream()
                .map(one -> one.name() + ", " + one.role())
                .collect(Collectors.joining("\n"));
        form.packs = flight.packs().stream()
                .map(one -> one.name() + " " + percent(one.before()) + " " + percent(one.after()))
                .collect(Collectors.joining("\n"));
        form.photos = flight.flown().photos().isPresent()
                ? String.valueOf(flight.flown().photos().getAsInt())
                : "";
        form.wind = shown(flight.air().windMps(), UnitKind.SPEED, units);
        form.gust = shown(flight.air().gustMps(), UnitKind.SPEED, units);
        form.from = flight.air().fromRad().isPresent()
                ? number(Math.toDegrees(flight.air().fromRad().getAsDouble()), 0)
                : "";
        form.air = shown(flight.air().airK(), UnitKind.TEMPERATURE, units);
        form.weather = flight.air().words();
        form.satellites = flight.satellites().isPresent()
                ? String.valueOf(flight.satellites().getAsInt())
                : "";
        form.base = flight.base();
        form.happenings = flight.happenings().stream().map(FlightForm::line).collect(Collectors.joining("\n"));
        form.notes = flight.notes();
        return form;
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
        double lasted = Measure.typed("minutes", minutes, Unit.MINUTE).si() / 60;
        OptionalInt taken = whole("photos", photos);
        Figures planned = before.map(FlightRecord::planned).orElse(Figures.NONE);
        Figures was = before.map(FlightRecord::flown).orElse(Figures.NONE);
        List<Pack> aboard = packs();
        return new FlightRecord(
                kept(before, began),
                before.map(FlightRecord::zone).orElse(zone),
                before.map(FlightRecord::minutes)
                        .filter(exact -> number(exact, 1).equals(minutes.strip()))
                        .orElse(lasted),
                whole("sortie", sortie).orElse(0),
                aircraft,
                payload,
                before.flatMap(FlightRecord::place).or(() -> place),
                crew(),
                aboard,
                planned,
                new Figures(
                        taken, OptionalDouble.of(lasted), was.areaM2(), was.enough(), battery(aboard, was), was.gsdM()),
                new Air(
                        speed("wind", wind, units),
                        speed("gust", gust, units),
                        direction(),
                        measure("air", air, UnitKind.TEMPERATURE, units),
                        weather),
                whole("satellites", satellites),
                base,
                happenings(),
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

    private List<Crew> crew() {
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

    private List<Pack> packs() {
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

    private List<Happening> happenings() {
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
        OptionalDouble degrees = figure("from", from.replace("°", ""));
        degrees.ifPresent(value -> InputFault.within("from", value, 0, 360, "°"));
        return degrees.isPresent() ? OptionalDouble.of(Math.toRadians(degrees.getAsDouble())) : OptionalDouble.empty();
    }

    private static OptionalDouble speed(String field, String typed, UnitChoice units) {
        return measure(field, typed, UnitKind.SPEED, units);
    }

    private static OptionalDouble measure(String field, String typed, UnitKind kind, UnitChoice units) {
        return typed.isBlank()
                ? OptionalDouble.empty()
                : OptionalDouble.of(
                        Measure.typed(field, typed, units.unit(kind)).si());
    }

    private static OptionalDouble figure(String field, String typed) {
        if (typed.isBlank()) {
            return OptionalDouble.empty();
        }
        try {
            return OptionalDouble.of(Double.parseDouble(typed.strip().replace(',', '.')));
        } catch (NumberFormatException words) {
            throw new InputFault(field, typed, "“%s” is no figure.".formatted(typed.strip()));
        }
    }

    private static OptionalInt whole(String field, String typed) {
        OptionalDouble value = figure(field, typed);
        if (value.isPresent() && value.getAsDouble() != Math.rint(value.getAsDouble())) {
            throw new InputFault(field, typed, "“%s” is no whole number.".formatted(typed.strip()));
        }
        return value.isPresent() ? OptionalInt.of((int) value.getAsDouble()) : OptionalInt.empty();
    }

    public String getStart() {
        return start;
    }

    public void setStart(String typed) {
        start = typed;
    }

    public String getMinutes() {
        return minutes;
    }

    public void setMinutes(String typed) {
        minutes = typed;
    }

    public String getSortie() {
        return sortie;
    }

    public void setSortie(String typed) {
        sortie = typed;
    }

    public String getAircraft() {
        return aircraft;
    }

    public void setAircraft(String typed) {
        aircraft = typed;
    }

    public String getPayload() {
        return payload;
    }

    public void setPayload(String typed) {
        payload = typed;
    }

    public String getCrew() {
        return crew;
    }

    public void setCrew(String typed) {
        crew = typed;
    }

    public String getPacks() {
        return packs;
    }

    public void setPacks(String typed) {
        packs = typed;
    }

    public String getPhotos() {
        return photos;
    }

    public void setPhotos(String typed) {
        photos = typed;
    }

    public String getWind() {
        return wind;
    }

    public void setWind(String typed) {
        wind = typed;
    }

    public String getGust() {
        return gust;
    }

    public void setGust(String typed) {
        gust = typed;
    }

    public String getFrom() {
        return from;
    }

    public void setFrom(String typed) {
        from = typed;
    }

    public String getAir() {
        return air;
    }

    public void setAir(String typed) {
        air = typed;
    }

    public String getWeather() {
        return weather;
    }

    public void setWeather(String typed) {
        weather = typed;
    }

    public String getSatellites() {
        return satellites;
    }

    public void setSatellites(String typed) {
        satellites = typed;
    }

    public String getBase() {
        return base;
    }

    public void setBase(String typed) {
        base = typed;
    }

    public String getHappenings() {
        return happenings;
    }

    public void setHappenings(String typed) {
        happenings = typed;
    }

    public String getNotes() {
        return notes;
    }

    public void setNotes(String typed) {
        notes = typed;
    }
}
