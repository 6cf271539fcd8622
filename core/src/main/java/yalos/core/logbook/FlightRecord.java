package yalos.core.logbook;

import java.time.LocalDateTime;
import java.time.ZoneId;
import java.util.List;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.OptionalInt;
import yalos.core.fault.InputFault;
import yalos.core.geodesy.LonLat;
import yalos.core.light.Sun;

/**
 * One flight as it stands in the log.
 *
 * @param start by the clock of the place
 * @param zone of that clock
 * @param minutes from take-off to landing
 * @param place it was flown from; empty where nobody knows
 * @param satellites fewest that were used at once
 * @param base what positions were measured against; may be empty
 */
public record FlightRecord(
        LocalDateTime start,
        ZoneId zone,
        double minutes,
        int sortie,
        String aircraft,
        String payload,
        Optional<LonLat> place,
        List<Crew> crew,
        List<Pack> packs,
        Figures planned,
        Figures flown,
        Air air,
        OptionalInt satellites,
        String base,
        List<Happening> happenings,
        String notes) {
    private static final int LONGEST_MIN = 24 * 60;
    private static final int MOST_CREW = 20;
    private static final int MOST_PACKS = 20;
    private static final int MOST_HAPPENINGS = 500;
    private static final int LONGEST_NAME = 80;
    private static final int LONGEST_NOTES = 2000;

    /** Who was there, as what. */
    public record Crew(String name, String role) {
        /** The role that counts hours of flying. */
        public static final String PILOT = "pilot";

        public Crew {
            name = checked("crew", name, LONGEST_NAME);
            role = role.strip().isEmpty() ? PILOT : role.strip();
            if (name.isEmpty()) {
                throw new InputFault("crew", role, "Name whoever was “%s”.".formatted(role));
            }
        }
    }

    /**
     * A battery with its charge before and after, 0..1; empty where nobody read it.
     */
    public record Pack(String name, OptionalDouble before, OptionalDouble after) {
        public Pack {
            name = checked("battery", name, LONGEST_NAME);
            if (name.isEmpty()) {
                throw new InputFault("battery", name, "A battery goes by the name that is written on it.");
            }
            before.ifPresent(share -> InputFault.within("charge", share * 100, 0, 100, "%"));
            after.ifPresent(share -> InputFault.within("charge", share * 100, 0, 100, "%"));
            if (before.isPresent() && after.isPresent() && after.getAsDouble() > before.getAsDouble()) {
                throw new InputFault(
                        "charge",
                        name,
                        "Battery %s landed with %.0f %% and took off with %.0f %%; are the two swapped?"
                                .formatted(name, after.getAsDouble() * 100, before.getAsDouble() * 100));
            }
        }

        /** Share of a full charge that was taken; empty where one of the readings is missing. */
        public OptionalDouble taken() {
            return before.isPresent() && after.isPresent()
                    ? OptionalDouble.of(before.getAsDouble() - after.getAsDouble())
                    : OptionalDouble.empty();
        }
    }

    /**
     * Planned or flown.
     *
     * @param areaM2 given enough
     * @param enough share of the block given enough, 0..1
     * @param battery share of a full charge taken, 0..1
     */
    public record Figures(
            OptionalInt photos,
            OptionalDouble minutes,
            OptionalDouble areaM2,
            OptionalDouble enough,
            OptionalDouble battery,
            OptionalDouble gsdM) {
        public static final Figures NONE = new Figures(
                OptionalInt.empty(),
                OptionalDouble.empty(),
                OptionalDouble.empty(),
                OptionalDouble.empty(),
                OptionalDouble.empty(),
                OptionalDouble.empty());

        public Figures {
            photos.ifPresent(count -> InputFault.within("photos", count, 0, 1_000_000, ""));
            minutes.ifPresent(time -> InputFault.within("minutes", time, 0, LONGEST_MIN, "min"));
        }
    }

    /**
     * Wind and weather.
     *
     * @param fromRad direction the wind comes from, clockwise from north
     */
    public record Air(
            OptionalDouble windMps, OptionalDouble gustMps, OptionalDouble fromRad, OptionalDouble airK, String words) {
        public static final Air UNKNOWN = new Air(
                OptionalDouble.empty(), OptionalDouble.empty(), OptionalDouble.empty(), OptionalDouble.empty(), "");

        public Air {
            windMps.ifPresent(wind -> InputFault.within("wind", wind, 0, 60, "m/s"));
            gustMps.ifPresent(gust -> InputFault.within("gust", gust, 0, 80, "m/s"));
            words = checked("weather", words, 200);
        }
    }

    /** What can stand in a log besides figures. */
    public enum Kind {
        EVENT("event"),
        INCIDENT("incident"),
        DECISION("decision");

        private final String words;

        Kind(String words) {
            this.words = words;
        }

        public String words() {
            return words;
        }
    }

    /**
     * Something that happened or was decided.
     *
     * @param at clock or minutes of the flight, as told; may be empty
     * @param why reason of a decision; may be empty
     */
    public record Happening(Kind kind, String at, String what, String why, String who) {
        public Happening {
            what = checked("what", what, 500);
            why = checked("why", why, 500);
            if (what.isEmpty()) {
                throw new InputFault("what", what, "Say what happened.");
            }
            if (kind == Kind.DECISION && why.isEmpty()) {
                throw new InputFault("why", what, "A decision stands with its reason: “%s”, because?".formatted(what));
            }
        }
    }

    public FlightRecord {
        aircraft = checked("aircraft", aircraft, 120);
        payload = checked("payload", payload, 200);
        base = checked("base", base, 200);
        notes = checked("notes", notes, LONGEST_NOTES);
        if (aircraft.isEmpty()) {
            throw new InputFault("aircraft", aircraft, "Name the aircraft; its hours are counted by it.");
        }
        if (!(minutes > 0) || minutes > LONGEST_MIN) {
            throw new InputFault(
                    "minutes", minutes, "A flight lasts more than nothing and less than a day; in minutes.");
        }
        InputFault.within("sortie", sortie, 0, 1000, "");
        most("crew", crew.size(), MOST_CREW);
        most("batteries", packs.size(), MOST_PACKS);
        most("events", happenings.size(), MOST_HAPPENINGS);
        crew = List.copyOf(crew);
        packs = List.copyOf(packs);
        happenings = List.copyOf(happenings);
        for (int i = 0; i < packs.size(); i++) {
            for (int j = 0; j < i; j++) {
                if (packs.get(i).name().equals(packs.get(j).name())) {
                    throw new InputFault(
                            "battery",
                            packs.get(i).name(),
                            "Battery %s stands twice.".formatted(packs.get(i).name()));
                }
            }
        }
    }

    private static void most(String field, int count, int most) {
        if (count > most) {
            throw new InputFault(field, count, "A flight has up to %d %s.".formatted(most, field));
        }
    }

    private static String checked(String field, String text, int most) {
        String plain = text == null ? "" : text.strip();
        if (plain.length() > most) {
            throw new InputFault(field, plain.length(), "Keep it to %d letters.".formatted(most));
        }
        return plain;
    }

    /** Whoever flew: the first pilot; empty where none is named. */
    public String pilot() {
        return crew.stream()
                .filter(one -> one.role().equals(Crew.PILOT))
                .map(Crew::name)
                .findFirst()
                .orElse("");
    }

    /** Where the sun stood at take-off. */
    public Optional<Sun> sun() {
        return place.map(at -> Sun.at(at, start.atZone(zone).toInstant()));
    }
}
