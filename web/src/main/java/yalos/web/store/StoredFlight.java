package yalos.web.store;

import static yalos.web.store.Plain.maybe;
import static yalos.web.store.Plain.or;
import static yalos.web.store.Plain.orNull;

import java.time.DateTimeException;
import java.time.LocalDateTime;
import java.time.ZoneId;
import java.util.List;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.OptionalInt;
import tools.jackson.core.JacksonException;
import tools.jackson.databind.DeserializationFeature;
import tools.jackson.databind.json.JsonMapper;
import yalos.core.geodesy.LonLat;
import yalos.core.logbook.FlightRecord;
import yalos.core.logbook.FlightRecord.Air;
import yalos.core.logbook.FlightRecord.Crew;
import yalos.core.logbook.FlightRecord.Figures;
import yalos.core.logbook.FlightRecord.Happening;
import yalos.core.logbook.FlightRecord.Kind;
import yalos.core.logbook.FlightRecord.Pack;

/** A flight of the log as it is stored: plain JSON; SI, shares 0 to 1, angles in radians. */
public record StoredFlight(
        Integer form,
        String start,
        String zone,
        Double minutes,
        Integer sortie,
        String aircraft,
        String payload,
        Double lon,
        Double lat,
        List<StoredCrew> crew,
        List<StoredPack> packs,
        StoredFigures planned,
        StoredFigures flown,
        StoredAir air,
        Integer satellites,
        String base,
        List<StoredHappening> happenings,
        String notes) {
    private static final int PRESENT = 1;
    private static final JsonMapper JSON = JsonMapper.builder()
            .disable(DeserializationFeature.FAIL_ON_UNKNOWN_PROPERTIES)
            .build();

    record StoredCrew(String name, String role) {}

    record StoredPack(String name, Double before, Double after) {}

    record StoredFigures(Integer photos, Double minutes, Double areaM2, Double enough, Double battery, Double gsdM) {
        static StoredFigures of(Figures figures) {
            return new StoredFigures(
                    figures.photos().isPresent() ? figures.photos().getAsInt() : null,
                    orNull(figures.minutes()),
                    orNull(figures.areaM2()),
                    orNull(figures.enough()),
                    orNull(figures.battery()),
                    orNull(figures.gsdM()));
        }

        static Figures figures(StoredFigures stored) {
            return stored == null
                    ? Figures.NONE
                    : new Figures(
                            stored.photos == null ? OptionalInt.empty() : OptionalInt.of(stored.photos),
                            maybe(stored.minutes),
                            maybe(stored.areaM2),
                            maybe(stored.enough),
                            maybe(stored.battery),
                            maybe(stored.gsdM));
        }
    }

    record StoredAir(Double windMps, Double gustMps, Double fromRad, Double airK, String words) {}

    record StoredHappening(String kind, String at, String what, String why, String who) {}

    /** A flight as text. */
    public static String write(FlightRecord flight) {
        return JSON.writeValueAsString(new StoredFlight(
                PRESENT,
                flight.start().toString(),
                flight.zone().getId(),
                flight.minutes(),
                flight.sortie(),
                flight.aircraft(),
                flight.payload(),
                flight.place().map(LonLat::lonDeg).orElse(null),
                flight.place().map(LonLat::latDeg).orElse(null),
                flight.crew().stream()
                        .map(one -> new StoredCrew(one.name(), one.role()))
                        .toList(),
                flight.packs().stream()
                        .map(one -> new StoredPack(one.name(), orNull(one.before()), orNull(one.after())))
                        .toList(),
                StoredFigures.of(flight.planned()),
                StoredFigures.of(flight.flown()),
                new StoredAir(
                        orNull(flight.air().windMps()),
                        orNull(flight.air().gustMps()),
                        orNull(flight.air().fromRad()),
                        orNull(flight.air().airK()),
                        flight.air().words()),
                flight.satellites().isPresent() ? flight.satellites().getAsInt() : null,
                flight.base(),
                flight.happenings().stream()
                        .map(one -> new StoredHappening(one.kind().name(), one.at(), one.what(), one.why(), one.who()))
                        .toList(),
                flight.notes()));
    }

    /**
     * A flight from its text.
     *
     * @throws Unreadable for what is none, or of a newer form
     */
    public static FlightRecord read(String text) {
        try {
            StoredFlight stored = JSON.readValue(text, StoredFlight.class);
            if (or(stored.form, 0) > PRESENT) {
                throw new Unreadable("The flight was written by a newer Yalos (form %d). Update the program."
                        .formatted(stored.form));
            }
            return stored.flight();
        } catch (JacksonException | DateTimeException broken) {
            throw new Unreadable("The flight cannot be read: " + broken.getMessage(), broken);
        }
    }

    private FlightRecord flight() {
        StoredAir blown = air == null ? new StoredAir(null, null, null, null, "") : air;
        return new FlightRecord(
                LocalDateTime.parse(start),
                ZoneId.of(or(zone, "UTC")),
                or(minutes, 0),
                or(sortie, 0),
                or(aircraft, ""),
                or(payload, ""),
                lon == null || lat == null ? Optional.empty() : Optional.of(LonLat.of(lon, lat)),
                or(crew).stream()
                        .map(one -> new Crew(one.name(), or(one.role(), "")))
                        .toList(),
                or(packs).stream()
                        .map(one -> new Pack(one.name(), maybe(one.before()), maybe(one.after())))
                        .toList(),
                StoredFigures.figures(planned),
                StoredFigures.figures(flown),
                new Air(
                        maybe(blown.windMps()),
                        maybe(blown.gustMps()),
                        maybe(blown.fromRad()),
                        maybe(blown.airK()),
                        or(blown.words(), "")),
                satellites == null ? OptionalInt.empty() : OptionalInt.of(satellites),
                or(base, ""),
                or(happenings).stream()
                        .map(one -> new Happening(
                                Plain.word(one.kind(), Kind.EVENT),
                                or(one.at(), ""),
                                or(one.what(), ""),
                                or(one.why(), ""),
                                or(one.who(), "")))
                        .toList(),
                or(notes, ""));
    }

    /** Charge that is known, as the row holds it. */
    public static Double charge(OptionalDouble share) {
        return orNull(share);
    }
}
