package yalos.core.rehearsal;

import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.Optional;

/** What goes wrong in a rehearsal: how it shows, what is done about it (common practice), and what comes of it where nothing is. */
public enum Fault {
    LOST_LINK(
            "the link is lost",
            "the picture stands still, the link shows nothing",
            "Stand clear of the home point and wait; it does what is set. Raise the antenna, walk to where you see it.",
            60,
            Command.Kind.RETURN,
            Command.Kind.PAUSE),
    WEAK_BATTERY(
            "the battery is weaker than it says",
            "its charge falls much faster than planned",
            "Come home at once; watch what coming home needs, not what is left.",
            Double.POSITIVE_INFINITY,
            Command.Kind.RETURN,
            Command.Kind.LAND),
    GUSTS(
            "gusts come up",
            "it is pushed about, wind and battery use jump",
            "Come home before it gets worse; the way home against the wind takes longer.",
            240,
            Command.Kind.RETURN,
            Command.Kind.PAUSE,
            Command.Kind.LAND),
    SKIPPED_PHOTOS(
            "photos are missing",
            "stations pass, the count of photos stands behind",
            "Pause and look; fly the strip again slower, or with another card.",
            45,
            Command.Kind.PAUSE,
            Command.Kind.RESUME_AT),
    STUCK_SHUTTER(
            "the shutter sticks",
            "no photo is counted any more",
            "Pause, take a test photo, switch the camera off and on, go on where it stopped.",
            Double.POSITIVE_INFINITY,
            Command.Kind.CAMERA,
            Command.Kind.PAUSE),
    SATELLITES(
            "satellites are lost",
            "the count of satellites drops, it drifts with the wind",
            "Take over by hand, hold it against the wind, land where it is safe.",
            50,
            Command.Kind.LAND,
            Command.Kind.PAUSE),
    PERSON(
            "somebody stands in the landing zone",
            "your second sees somebody walk to where it will land",
            "Stop the landing: pause, or nudge it aside; the second speaks to them.",
            90,
            Command.Kind.PAUSE,
            Command.Kind.NUDGE,
            Command.Kind.CALL),
    AIRCRAFT(
            "another aircraft comes near",
            "you hear it; it is low",
            "Get down: sink where it is, at once; everybody else has the right of way.",
            60,
            Command.Kind.SINK,
            Command.Kind.LAND,
            Command.Kind.PAUSE),
    CLOUD(
            "a cloud covers the field",
            "photos turn dark",
            "Pause as long as the battery lets you, or come home; fly the dark strips again.",
            150,
            Command.Kind.PAUSE,
            Command.Kind.RETURN),
    BASE(
            "the base has stopped logging",
            "its log lamp is out",
            "Start it again, write down when; what was flown between may have to be flown again.",
            Double.POSITIVE_INFINITY,
            Command.Kind.BASE),
    HEIGHT(
            "heights count from the wrong zero",
            "it flies lower than the plan says",
            "Stop, climb, come home; read the height reference and the take-off level back before you go again.",
            Double.POSITIVE_INFINITY,
            Command.Kind.RETURN,
            Command.Kind.PAUSE);

    private final String words;
    private final String sign;
    private final String advice;
    private final double lastsS;
    private final List<Command.Kind> answers;

    Fault(String words, String sign, String advice, double lastsS, Command.Kind... answers) {
        this.words = words;
        this.sign = sign;
        this.advice = advice;
        this.lastsS = lastsS;
        this.answers = List.of(answers);
    }

    public String words() {
        return words;
    }

    /** How it shows. */
    public String sign() {
        return sign;
    }

    /** What is better done. */
    public String advice() {
        return advice;
    }

    /** How long it lasts; infinite until something is done about it. */
    double lastsS() {
        return lastsS;
    }

    /** What an operator does about it, the best first. */
    List<Command.Kind> answers() {
        return answers;
    }

    /** Name in forms. */
    public String key() {
        return name().toLowerCase(Locale.ROOT).replace('_', '-');
    }

    public static Optional<Fault> ofKey(String key) {
        return Arrays.stream(values()).filter(fault -> fault.key().equals(key)).findFirst();
    }
}
