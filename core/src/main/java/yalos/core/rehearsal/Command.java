package yalos.core.rehearsal;

import java.util.EnumSet;
import java.util.Locale;
import java.util.Set;
import yalos.core.fault.InputFault;
import yalos.core.kit.AircraftKind;

/**
 * What an operator presses, with up to two figures.
 *
 * @param first station number to resume at; metres to the right for a nudge
 * @param second metres ahead (grid north) for a nudge
 */
public record Command(Kind kind, double first, double second) {
    private static final double FARTHEST_NUDGE_M = 5;

    /** All that can be pressed. */
    public enum Kind {
        START("take off", "it takes off and flies the sortie"),
        PAUSE("pause", "it stops and hangs; a wing circles; the battery goes on draining"),
        RESUME("go on", "it goes on from where it hangs"),
        RESUME_AT("go on at a station", "it flies there, with a fresh battery if it stands on the ground, and goes on"),
        RETURN("return", "it climbs to the return height and flies straight home"),
        LAND("land here", "it comes down where it is, whatever is below"),
        SINK("sink", "it comes down to ten metres above the ground, and hangs"),
        NUDGE("nudge", "it moves aside by so much while it sinks"),
        MOTORS_OFF("motors off", "it falls; only to keep it from somebody"),
        TEST("test photo", "one photo, to be set aside"),
        CAMERA("camera off and on", "it takes six seconds, and photos go on"),
        BASE("start the base again", "the second needs a minute to get there"),
        CALL("speak to them", "the second asks people to step back");

        private final String words;
        private final String effect;

        Kind(String words, String effect) {
            this.words = words;
            this.effect = effect;
        }

        public String words() {
            return words;
        }

        /** What it does. */
        public String effect() {
            return effect;
        }
    }

    public Command {
        if (kind == Kind.NUDGE) {
            InputFault.within("right", first, -FARTHEST_NUDGE_M, FARTHEST_NUDGE_M, "m");
            InputFault.within("ahead", second, -FARTHEST_NUDGE_M, FARTHEST_NUDGE_M, "m");
        }
    }

    /** What can be pressed in a phase of flight on such an aircraft. */
    static Set<Kind> able(Phase phase, AircraftKind aircraft) {
        Set<Kind> able = switch (phase) {
            case READY -> EnumSet.of(Kind.START, Kind.TEST);
            case FLYING -> EnumSet.of(Kind.PAUSE, Kind.RETURN, Kind.LAND, Kind.SINK);
            case HOLDING -> EnumSet.of(Kind.RESUME, Kind.RESUME_AT, Kind.RETURN, Kind.LAND, Kind.SINK, Kind.TEST);
            case RETURNING, LANDING -> EnumSet.of(Kind.PAUSE, Kind.LAND, Kind.NUDGE);
            case LANDED -> EnumSet.of(Kind.RESUME_AT);
            default -> EnumSet.noneOf(Kind.class);
        };
        if (phase.inTheAir() && phase != Phase.FALLING) {
            able.add(Kind.MOTORS_OFF);
        }
        if (aircraft == AircraftKind.FIXED_WING) {
            able.remove(Kind.SINK);
            able.remove(Kind.NUDGE);
        }
        if (phase != Phase.LOST) {
            able.addAll(EnumSet.of(Kind.CAMERA, Kind.BASE, Kind.CALL));
        }
        return able;
    }

    public static Command of(Kind kind) {
        return new Command(kind, 0, 0);
    }

    /** Goes on at a station of the plan, from 1. */
    public static Command resumeAt(int station) {
        return new Command(Kind.RESUME_AT, station, 0);
    }

    /** As it is kept. */
    public String text() {
        return String.format(Locale.ROOT, "%s %s %s", kind.name(), first, second);
    }

    /**
     * As it was kept.
     *
     * @throws InputFault for what is no command
     */
    public static Command read(String text) {
        String[] parts = text.strip().split(" ");
        try {
            return new Command(
                    Kind.valueOf(parts[0]),
                    parts.length > 1 ? Double.parseDouble(parts[1]) : 0,
                    parts.length > 2 ? Double.parseDouble(parts[2]) : 0);
        } catch (IllegalArgumentException unknown) {
            throw new InputFault("command", text, "“%s” cannot be pressed.".formatted(text));
        }
    }

    /** In words, with its figure. */
    public String words() {
        return switch (kind) {
            case RESUME_AT -> "go on at station %.0f".formatted(first);
            case NUDGE -> String.format(Locale.ROOT, "nudge %+.1f m right, %+.1f m ahead", first, second);
            default -> kind.words();
        };
    }
}
