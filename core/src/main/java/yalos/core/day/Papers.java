package yalos.core.day;

import java.util.ArrayList;
import java.util.Collections;
import java.util.EnumSet;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import yalos.core.fault.InputFault;

/**
 * What is taken along on paper: what is gone through before take-off and after, what to do when something goes wrong, whom to ring, what the law asks here, and which parts the field pack has. Shipped as an example
 * that the operator edits; local law and the aircraft's manual come first.
 *
 * @param checks one line each, as {@link CheckList} reads them; empty for the list that follows from job, aircraft and payload
 * @param card one line each
 * @param contacts who, and how they are reached
 * @param laws what is asked here, one line each
 * @param leftOut parts of the field pack that are not wanted
 * @param sheet it is printed on
 * @param edition of the checklist, raised with each change by hand
 */
public record Papers(
        List<String> checks,
        List<Emergency> card,
        List<Emergency> contacts,
        List<String> laws,
        Set<PackPart> leftOut,
        Sheet sheet,
        int edition) {
    private static final int MOST = 200;
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
            List.of(),
            List.of(
                    new Emergency("Pause", "it stops and hangs; the battery goes on draining"),
                    new Emergency("Return", "it climbs to the return height and flies straight home"),
                    new Emergency("Land", "it comes down where it is, whatever is below"),
                    new Emergency("Motors off", "it falls; only to keep it from somebody"),
                    new Emergency("Link lost", "it does what is set; stand clear of the home point"),
                    new Emergency("Fire", "keep away, upwind; call the fire service; sand, not the hands")),
            List.of(),
            List.of(),
            EnumSet.noneOf(PackPart.class),
            Sheet.A4,
            1);

    /** Paper. */
    public enum Sheet {
        A4(210, 297),
        LETTER(215.9, 279.4);

        private final double wideMm;
        private final double highMm;

        Sheet(double wideMm, double highMm) {
            this.wideMm = wideMm;
            this.highMm = highMm;
        }

        public double wideMm() {
            return wideMm;
        }

        public double highMm() {
            return highMm;
        }

        public String words() {
            return this == A4 ? "A4" : "Letter";
        }
    }

    /** A list and a card alone; the rest as usual. */
    public Papers(List<String> checks, List<Emergency> card) {
        this(checks, card, List.of(), List.of(), EXAMPLE.leftOut, Sheet.A4, 1);
    }

    /** With another list, under the next edition where it differs. */
    public Papers withChecks(List<String> others) {
        int next = others.equals(checks) ? edition : edition + 1;
        return new Papers(others, card, contacts, laws, leftOut, sheet, next);
    }

    public Papers withCard(List<Emergency> other) {
        return new Papers(checks, other, contacts, laws, leftOut, sheet, edition);
    }

    /** With other words for whom to ring and what is asked here. */
    public Papers with(List<Emergency> people, List<String> asked) {
        return new Papers(checks, card, people, asked, leftOut, sheet, edition);
    }

    /** With other parts on other paper. */
    public Papers with(Set<PackPart> without, Sheet other) {
        return new Papers(checks, card, contacts, laws, without, other, edition);
    }

    public Papers {
        checks = checks.stream()
                .map(text -> line("check", text))
                .filter(text -> !text.isEmpty())
                .toList();
        card = List.copyOf(card);
        contacts = List.copyOf(contacts);
        laws = laws.stream()
                .map(text -> line("laws", text))
                .filter(text -> !text.isEmpty())
                .toList();
        leftOut = Collections.unmodifiableSet(
                leftOut.isEmpty() ? EnumSet.noneOf(PackPart.class) : EnumSet.copyOf(leftOut));
        if (Math.max(checks.size() + laws.size(), card.size() + contacts.size()) > MOST) {
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

    /** Lines as text, one each: what is done, a colon, its effect; or who, a colon, how they are reached. */
    public static List<Emergency> card(String text) {
        List<Emergency> lines = new ArrayList<>();
        for (String line : text.lines().filter(one -> !one.isBlank()).toList()) {
            int colon = line.indexOf(':');
            if (colon < 1) {
                throw new InputFault(
                        "card",
                        line,
                        "“%s” has no colon. Write what is done or who is meant, a colon, and the rest."
                                .formatted(line));
            }
            lines.add(new Emergency(line.substring(0, colon), line.substring(colon + 1)));
        }
        return lines;
    }
}
