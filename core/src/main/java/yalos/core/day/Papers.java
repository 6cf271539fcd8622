package yalos.core.day;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import yalos.core.fault.InputFault;

/**
 * What is gone through before take-off, and what to do when something goes wrong. Shipped as an example that the operator edits; local law and the aircraft's manual come first.
 *
 * @param checks one line each
 * @param card one line each
 */
public record Papers(List<String> checks, List<Emergency> card) {
    private static final int MOST = 60;
    private static final int LONGEST = 300;

    /**
     * What to do, and what the aircraft then does.
     *
     * @param what is pressed or done
     * @param effect on this aircraft, as its manual says and as it was tried
     */
    public record Emergency(String what, String effect) {
        public Emergency {
            what = line("what", what);
            effect = line("effect", effect);
        }
    }

    /** An example; nothing in it is law. */
    public static final Papers EXAMPLE = new Papers(
            List.of(
                    "Airspace: looked up for the day, notices and temporary restrictions read, authorisation at hand",
                    "Permission of the land owner, and of neighbours where they are overflown",
                    "People: nobody below who is not part of it; cordon or watcher where somebody may come",
                    "Traffic: roads, paths, railways and water below the flight looked at; times agreed",
                    "Landing zone: marked, clear of people and vehicles; who comes in is stopped, the aircraft waits or lands at the second place",
                    "Hand-over: who flies, who watches, who speaks; who takes over, and how it is said",
                    "Privacy: neighbours told, no windows and gardens in the pictures, pictures kept only as agreed",
                    "Wind measured at the ground, gusts too; sky and sight looked at",
                    "Compass and inertial unit: calibrated where the aircraft asks for it, away from steel; status clear",
                    "Home point where the aircraft stands; return height and fences set as planned",
                    "Distance fence tried: what it does there is known",
                    "Batteries at the same temperature, charge as planned, no swelling; cards empty",
                    "Same take-off place and heading as the sortie before"),
            List.of(
                    new Emergency("Pause", "it stops and hangs; the battery goes on draining"),
                    new Emergency("Return", "it climbs to the return height and flies straight home"),
                    new Emergency("Land", "it comes down where it is, whatever is below"),
                    new Emergency("Motors off", "it falls; only to keep it from somebody"),
                    new Emergency("Link lost", "it does what is set; stand clear of the home point"),
                    new Emergency("Fire", "keep away, upwind; call the fire service; sand, not the hands")));

    public Papers {
        checks = checks.stream()
                .map(text -> line("check", text))
                .filter(text -> !text.isEmpty())
                .toList();
        card = List.copyOf(card);
        if (checks.size() > MOST || card.size() > MOST) {
            throw new InputFault(
                    "checks", checks.size(), "More than %d lines are not read before a flight.".formatted(MOST));
        }
        Set<String> seen = new HashSet<>();
        checks.forEach(text -> {
            if (!seen.add(text)) {
                throw new InputFault("checks", text, "“%s” stands there twice.".formatted(text));
            }
        });
    }

    private static String line(String field, String text) {
        String plain = text.strip().replaceAll("[\\p{Cntrl}]+", " ");
        if (plain.length() > LONGEST) {
            throw new InputFault(
                    field, plain, "A line of more than %d letters is not read in the field.".formatted(LONGEST));
        }
        return plain;
    }

    /** A card as text, one line each: what, a colon, its effect. */
    public static List<Emergency> card(String text) {
        List<Emergency> lines = new ArrayList<>();
        for (String line : text.lines().filter(one -> !one.isBlank()).toList()) {
            int colon = line.indexOf(':');
            if (colon < 1) {
                throw new InputFault(
                        "card",
                        line,
                        "“%s” has no colon. Write what is done, a colon, and what the aircraft then does."
                                .formatted(line));
            }
            lines.add(new Emergency(line.substring(0, colon), line.substring(colon + 1)));
        }
        return lines;
    }
}
