package yalos.core.day;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import yalos.core.brief.Brief;
import yalos.core.brief.Purpose;
import yalos.core.brief.Site;
import yalos.core.kit.AircraftKind;
import yalos.core.kit.Kit;
import yalos.core.kit.Positioning;

/**
 * A checklist, written as plain lines that anybody can edit:
 *
 * <pre>
 * # At the take-off place          a heading
 * pilot: Return height {return height}   who does it, and a figure of this plan that the aircraft must show
 * second: Base logs (60 s)         a timer
 * Panel photographed (6 shots)     a count
 * </pre>
 *
 * <p>The list of a job follows from its purpose, aircraft and payload; an operator makes it theirs. All of it is common practice; the aircraft's manual, the licence and local law come first.
 */
public final class CheckList {
    private static final Pattern TIMER = Pattern.compile("\\((\\d{1,4}) s\\)");
    private static final Pattern SHOTS = Pattern.compile("\\((\\d{1,3}) shots?\\)");
    private static final Pattern FIGURE = Pattern.compile("\\{([^{}]{1,120})}");

    private CheckList() {}

    /** Who of two does a line. */
    public enum Who {
        PILOT,
        SECOND,
        BOTH;

        public String words() {
            return name().toLowerCase(Locale.ROOT);
        }
    }

    /**
     * A line to be ticked.
     *
     * @param section heading it stands under; may be empty
     * @param who does it
     * @param text as read out, figures put in
     * @param seconds to wait; 0 for none
     * @param shots to take; 0 for none
     * @param figure name of the figure that the aircraft must show; empty for none
     */
    public record Check(String section, Who who, String text, int seconds, int shots, String figure) {}

    /**
     * A list read.
     *
     * @param lines as written
     * @param figures of the plan by name, as they are read out
     */
    public static List<Check> read(List<String> lines, Map<String, String> figures) {
        List<Check> checks = new ArrayList<>();
        String section = "";
        for (String line : lines) {
            if (line.startsWith("#")) {
                section = line.substring(1).strip();
                continue;
            }
            Who who = Who.BOTH;
            String text = line.strip();
            for (Who one : Who.values()) {
                String prefix = one.name() + ":";
                if (text.regionMatches(true, 0, prefix, 0, prefix.length())) {
                    who = one;
                    text = text.substring(prefix.length()).strip();
                    break;
                }
            }
            String figure = "";
            Matcher asked = FIGURE.matcher(text);
            StringBuilder read = new StringBuilder();
            while (asked.find()) {
                String known = figures.get(asked.group(1).strip());
                figure = known == null ? figure : asked.group(1).strip();
                asked.appendReplacement(
                        read,
                        Matcher.quoteReplacement(
                                known == null ? "(" + asked.group(1).strip() + ": not known yet)" : known));
            }
            asked.appendTail(read);
            if (!read.isEmpty()) {
                checks.add(new Check(section, who, read.toString(), count(TIMER, text), count(SHOTS, text), figure));
            }
        }
        return checks;
    }

    private static int count(Pattern pattern, String text) {
        Matcher found = pattern.matcher(text);
        return found.find() ? Integer.parseInt(found.group(1)) : 0;
    }

    /** Names of figures that a list may ask for, with what they mean. */
    public static Map<String, String> figureNames() {
        Map<String, String> names = new LinkedHashMap<>();
        names.put("return height", "above take-off");
        names.put("distance fence", "from the launch point");
        names.put("height limit", "above take-off");
        names.put("height", "nominal, above the ground");
        names.put("speed", "while mapping");
        names.put("shutter", "longest");
        names.put("interval", "between photos");
        names.put("photos", "of the whole plan");
        names.put("sorties", "take-offs");
        names.put("wind limit", "for going up");
        names.put("firmware", "of the kit");
        names.put("calibrated", "when the camera was");
        return names;
    }

    /**
     * The list of a job.
     *
     * @param satellites whether it is flown with satellite positioning
     */
    public static List<String> standard(Brief brief, Kit kit, boolean satellites) {
        List<String> lines = new ArrayList<>();
        boolean base = brief.positioning() == Positioning.RTK_BASE || brief.positioning() == Positioning.PPK;
        boolean lidar = kit.payload().scannerLeads();
        boolean heads = kit.payload().heads().size() > 1;
        boolean panel = brief.purpose().filter(one -> one == Purpose.CROP_INDEX).isPresent();
        boolean wing = kit.aircraft().kind().wing();
        before(lines, brief);
        if (base) {
            base(lines);
        }
        if (brief.day().targets() > 0) {
            lines.add("# Control");
            lines.add("second: Targets laid, flat, numbered; photographed with their surroundings");
            lines.add("second: Pole height measured before the first point and after the last");
            lines.add("second: Positions and spread of points checked before the first take-off");
        }
        aircraft(lines, wing, kit.aircraft().kind() == AircraftKind.VERTICAL_TAKE_OFF_WING, satellites);
        camera(lines);
        if (heads) {
            lines.add("Every head shows the same count before take-off; bands are the right way up");
        }
        if (panel) {
            panel(lines, "before");
        }
        if (lidar) {
            lidarBefore(lines);
        }
        lines.add("# Before each take-off");
        lines.add("pilot: Battery as planned, its charge read out");
        lines.add("second: Wind measured, gusts too: no more than {wind limit}");
        lines.add(
                "second: Landing zone clear; who comes in is stopped, the aircraft waits or lands at the second place");
        lines.add("both: Who flies, who watches, who speaks; who takes over, and how it is said");
        lines.add("pilot: Test photo taken, looked at, to be set aside later (1 shot)");
        lines.add("# After landing");
        if (lidar) {
            lidarAfter(lines);
        }
        if (panel) {
            panel(lines, "after");
        }
        lines.add("pilot: Battery charge, minutes and photos written down");
        lines.add("second: Photo count against the plan's {photos}; a sample looked at sharp");
        lines.add("second: Second copy made before leaving");
        if (base) {
            lines.add("second: Base log stopped only now; antenna height measured again");
        }
        return lines;
    }

    private static void before(List<String> lines, Brief brief) {
        lines.add("# Before leaving");
        lines.add(
                "pilot: Airspace looked up for the day, notices and temporary restrictions read, authorisation at hand");
        lines.add("pilot: Permission of the land owner, and of neighbours where they are overflown");
        lines.add(
                "pilot: Firmware {firmware} on aircraft, controller and payload, known to work together; no update on the day");
        lines.add("pilot: Camera calibrated {calibrated}; compass and scanner looked up");
        lines.add(
                "second: Cards formatted in the camera; file format as on the camera card; no software on the list that cannot read it");
        lines.add(
                "second: Tablet charged, shaded, other apps closed; this pack kept on it; on the same network as the aircraft needs");
        lines.add("# At the site");
        if (brief.site().difficulties().contains(Site.Difficulty.PEOPLE)) {
            lines.add("second: Cones and tape set; a watcher where somebody may come");
        }
        lines.add("both: People: nobody below who is not part of it; privacy: no windows and gardens in the pictures");
        lines.add("both: Traffic: roads, paths, railways and water below looked at; times agreed");
        lines.add("second: Landing zone marked; a second place to land chosen");
        lines.add("both: Wires, masts and trees against the map; what is new is written down");
    }

    private static void base(List<String> lines) {
        lines.add("# Base");
        lines.add("second: Mark, antenna height and kind written down, measured twice");
        lines.add("second: Satellite lamp steady, log lamp blinking, battery above half");
        lines.add("second: Logging at 1 s or faster, all systems; log on before the aircraft starts (60 s)");
        lines.add(
                "pilot: Mode read out: fixed, age of corrections below 2 s; or corrections off and own log on for later");
    }

    private static void aircraft(List<String> lines, boolean wing, boolean lifts, boolean satellites) {
        lines.add("# Aircraft");
        lines.add("pilot: Compass and inertial unit: calibrated where it asks for it, away from steel; status clear");
        if (wing) {
            lines.add("pilot: Surfaces move the right way; airspeed reads and falls back to zero");
        }
        if (!wing || lifts) {
            lines.add("pilot: Rotors whole, tight, the right ones; arms locked");
        }
        lines.add(
                satellites
                        ? "pilot: Satellites enough and steady; home point where the aircraft stands (30 s)"
                        : "pilot: Flown without satellites: home point, fence and return do not work; slow, near, in sight");
        lines.add("pilot: Return height {return height}");
        lines.add("pilot: Distance fence {distance fence}");
        lines.add("pilot: Height limit {height limit}");
        lines.add("pilot: Speed while mapping {speed}");
        lines.add("pilot: Distance fence tried: what it does there is known");
        lines.add("pilot: After a change of payload or settings: off and on again, settings read once more");
        lines.add("pilot: Hover low after take-off, controls tried, sound as usual (10 s)");
    }

    private static void camera(List<String> lines) {
        lines.add("# Camera");
        lines.add("pilot: Shutter {shutter} or shorter, exposure not locked, whole sensor, single photos");
        lines.add("pilot: Interval {interval}");
        lines.add("pilot: Focus set once, then by hand; angle of the camera locked");
        lines.add("second: Lens clean, filter off, card empty and locked in");
    }

    private static void panel(List<String> lines, String when) {
        lines.add("# Panel " + when);
        lines.add("second: Panel flat, in full sun, no shadow of anybody; number of the panel read out");
        lines.add("second: Panel photographed by every head (3 shots)");
        lines.add("second: Light sensor on, level, nothing above it");
    }

    private static void lidarBefore(List<String> lines) {
        lines.add("# Scanner before");
        lines.add("pilot: Still on the ground, switched on, nobody touches it (60 s)");
        lines.add("pilot: Log runs: scanner, inertial unit, satellites");
        lines.add("pilot: Straight and fast in a clear lane (10 s), then two figures of eight");
    }

    private static void lidarAfter(List<String> lines) {
        lines.add("pilot: Straight and fast (10 s), two figures of eight before landing");
        lines.add("pilot: Still on the ground before it is switched off (60 s)");
    }
}
