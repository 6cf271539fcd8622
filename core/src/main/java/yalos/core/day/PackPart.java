package yalos.core.day;

import java.util.Arrays;
import java.util.Locale;
import java.util.Optional;

/** The parts of a field pack, in the order they are carried. */
public enum PackPart {
    MAP("Map", "block and sorties on relief, strips, control, zones"),
    SECTION("Section", "ground and path along the hardest strip"),
    PROOF("Proof", "adequate or not, in one picture"),
    LEDGER("Ledger", "every pinned value and its reason, what changed since it was issued"),
    SETTINGS("Set and read back", "return height, fences, speeds, as the aircraft must show them"),
    CAMERA("Camera card", "how the camera is set, and why"),
    PAYLOAD("Payload", "panel, scanner or camera, step by step"),
    KIT("Kit list", "what goes into the car"),
    CONTROL("Control", "points in walking order, cards for rover and base"),
    POINT_PHOTOS("Photos of control", "which photos will show each point"),
    LIGHT("Light", "windows of light and weather, shadows by the hour"),
    DAY("Day", "the day on one chart"),
    SORTIES("Sorties", "stations, minutes, batteries, margins"),
    CHECKS("Checklists", "ticked with time, timers, two people"),
    EMERGENCY("Emergency card", "what to do, and what the aircraft then does"),
    CONTACTS("Contacts", "whom to ring"),
    LIMITS("Limits and law", "limits of this plan, notes on what is asked here"),
    NOTES("Notes", "a page for handwriting");

    private final String title;
    private final String words;

    PackPart(String title, String words) {
        this.title = title;
        this.words = words;
    }

    public String title() {
        return title;
    }

    /** What it holds. */
    public String words() {
        return words;
    }

    /** Name in forms and files. */
    public String key() {
        return name().toLowerCase(Locale.ROOT).replace('_', '-');
    }

    public static Optional<PackPart> ofKey(String key) {
        return Arrays.stream(values()).filter(part -> part.key().equals(key)).findFirst();
    }
}
