package yalos.web.take;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.stream.IntStream;
import yalos.core.figures.Median;
import yalos.core.ledger.CameraCard;
import yalos.core.plan.FlyAgain;
import yalos.core.proof.Judgement;
import yalos.core.proof.Shares;
import yalos.core.take.Flaw;
import yalos.core.take.PhotoFacts;
import yalos.core.take.Role;
import yalos.core.take.Take;
import yalos.core.take.TakeMatch;
import yalos.core.units.Times;
import yalos.core.units.UnitChoice;
import yalos.core.units.UnitKind;
import yalos.web.store.TakeMapper.DecisionRow;
import yalos.web.take.TakeDesk.Found;

/** Figures of a take as its pages show them. */
public final class TakeView {
    private static final double FAR_SHIFT_M = 20;
    private static final double HIGH_SHIFT_M = 3;
    private static final double CLOCK_S = 2;
    private static final double MIXED = 0.1;
    /** Smaller pictures are previews and say nothing of the camera. */
    private static final int LEAST_COLUMNS = 1500;

    private static final double SIZE_OFF = 0.03;
    /** Files write the nominal focal length, plans the true one. */
    private static final double FOCAL_OFF = 0.06;

    private static final double SHUTTER_OFF = 1.05;

    private TakeView() {}

    /** A line of what was found, with how many. */
    public record Line(String words, String detail, String mood, String show) {}

    /** A gap with its number. */
    public record GapRow(int number, String area, String cause, String decided) {}

    /** What is still to be flown, as a plan. */
    static Optional<FlyAgain> again(Found found, List<DecisionRow> decisions) {
        return FlyAgain.of(found.take().plan(), Decisions.open(found, decisions));
    }

    static String again(FlyAgain again) {
        return "%,d photos on %d %s of strips, %s in the air, %d battery %s"
                .formatted(
                        again.flight().exposures().size(),
                        again.flight().lines().size(),
                        again.flight().lines().size() == 1 ? "piece" : "pieces",
                        Times.minutes(again.seconds()),
                        again.sets(),
                        again.sets() == 1 ? "set" : "sets");
    }

    /** The answer first: complete or not, and what it takes to be. */
    static Line headline(Found found, List<DecisionRow> decisions) {
        if (found.take().match().stations().isEmpty()) {
            return new Line(
                    "Not matched.", "the plan has no stations of known height to hold photos against", "mind", "");
        }
        int lacking = found.take().lacking().size();
        Optional<FlyAgain> again = again(found, decisions);
        if (lacking == 0) {
            return new Line("Complete.", "every station has a good photo", "done", "");
        }
        String missing = "%,d of %,d stations lack a good photo"
                .formatted(lacking, found.take().match().stations().size());
        if (again.isEmpty()) {
            return new Line(
                    "Complete enough.",
                    missing
                            + (found.taken().isPresent()
                                    ? ", yet all ground is given what the plan gives"
                                    : ", all decided"),
                    "done",
                    "");
        }
        return new Line(
                "Not complete.",
                missing + ": fly again " + Times.minutes(again.orElseThrow().seconds()),
                "stop",
                "");
    }

    /** Planned beside flown. */
    static List<Line> estimates(Take take, Optional<Found> proved, UnitChoice units) {
        List<Line> lines = new ArrayList<>();
        int flight = (int) take.match().photos().stream()
                .filter(one -> one.role().ofFlight())
                .count();
        int files = take.match().filesEach();
        lines.add(new Line(
                "photos",
                "%,d of the flight, %,d planned%s"
                        .formatted(
                                flight,
                                take.match().stations().size() * files,
                                files > 1 ? " (%d files each release)".formatted(files) : ""),
                "",
                ""));
        double planned = take.plan().timeline().totalS();
        lines.add(new Line(
                "in the air",
                take.seconds() == 0
                        ? "no times in the photos; %s planned".formatted(Times.minutes(planned))
                        : "%s from the first photo to the last, %s planned with the ways out and home"
                                .formatted(Times.minutes(take.seconds()), Times.minutes(planned)),
                "",
                ""));
        proved.flatMap(Found::taken)
                .ifPresent(taken -> lines.add(new Line(
                        "area given enough",
                        "%s of %s, planned %s"
                                .formatted(
                                        units.text(
                                                UnitKind.AREA,
                                                taken.share() * take.plan().areaM2()),
                                        units.text(UnitKind.AREA, take.plan().areaM2()),
                                        proved.flatMap(Found::planned)
                                                .map(plan -> units.text(
                                                        UnitKind.AREA,
                                                        plan.share()
                                                                * take.plan().areaM2()))
                                                .orElse("–")),
                        "",
                        "")));
        return lines;
    }

    /** Everything that is to be known of the photos, the worst first, each with its number. */
    static List<Line> findings(Take take, UnitChoice units) {
        List<Line> lines = new ArrayList<>();
        TakeMatch match = take.match();
        if (match.hoursOff()) {
            lines.add(new Line(
                    "The camera's clock stands %s%s off"
                            .formatted(
                                    match.clockOffsetS().orElse(0) < 0 ? "−" : "+",
                                    units.text(
                                            UnitKind.DURATION,
                                            Math.abs(match.clockOffsetS().orElse(0)))),
                    "Its zone or summer time is set wrong. Times here are put right by the satellites' clock.",
                    "mind",
                    ""));
        } else if (Math.abs(match.clockOffsetS().orElse(0)) > CLOCK_S) {
            lines.add(new Line(
                    "The camera's clock stands %+.2f s off"
                            .formatted(match.clockOffsetS().orElse(0)),
                    "Against the satellites' time in the files; put right here.",
                    "",
                    ""));
        }
        double[] shift = match.shiftM();
        double far = Math.hypot(shift[0], shift[1]);
        if (far > 0.05 || Math.abs(shift[2]) > 0.05) {
            lines.add(new Line(
                    "Photos stand %s east, %s north, %s up of their stations"
                            .formatted(metres(shift[0], units), metres(shift[1], units), metres(shift[2], units)),
                    far > FAR_SHIFT_M
                            ? "All by the same: another datum, or the base on a wrong mark."
                            : Math.abs(shift[2]) > HIGH_SHIFT_M
                                    ? "Heights count from something else than the plan's, such as the ellipsoid or the air's pressure; their constant part is taken out here."
                                    : "The part that all share.",
                    far > FAR_SHIFT_M || Math.abs(shift[2]) > HIGH_SHIFT_M ? "mind" : "",
                    ""));
        }
        settings(take, lines);
        roles(take, lines);
        long frozen = match.photos().stream().filter(TakeMatch.Matched::frozen).count();
        if (frozen > 0) {
            lines.add(new Line(
                    "%d %s a position that stood still".formatted(frozen, frozen == 1 ? "photo has" : "photos have"),
                    "The receiver wrote the last place again; they are matched by their time.",
                    "mind",
                    "frozen"));
        }
        long lenses =
                match.photos().stream().filter(TakeMatch.Matched::otherLens).count();
        if (lenses > 0) {
            boolean mixed = lenses > MIXED * match.photos().size();
            lines.add(new Line(
                    "%d with another focal length or size".formatted(lenses),
                    mixed
                            ? "Two cameras, or a zoom that moved: sort them before they are worked on."
                            : "A zoom or crop that was touched.",
                    "mind",
                    "lens"));
        }
        for (Flaw.Kind kind : Flaw.Kind.values()) {
            long count = take.flaws().stream()
                    .filter(all -> all.stream().anyMatch(flaw -> flaw.kind() == kind))
                    .count();
            if (count > 0) {
                lines.add(new Line(
                        "%d %s".formatted(count, kind.words()),
                        "",
                        kind.useless() ? "stop" : "mind",
                        kind.name().toLowerCase(Locale.ROOT)));
            }
        }
        lines.sort(Comparator.comparingInt(line -> List.of("stop", "mind", "").indexOf(line.mood())));
        return lines;
    }

    /** Whether the camera was set as the plan wants it: size, lens, shutter. */
    private static void settings(Take take, List<Line> lines) {
        List<PhotoFacts.Camera> cameras = IntStream.range(0, take.photos().size())
                .filter(i -> take.match().photos().get(i).role().ofFlight()
                        && !take.match().photos().get(i).otherLens())
                .mapToObj(i -> take.photos().get(i).facts().camera())
                .toList();
        double wide = Median.of(cameras.stream()
                .map(PhotoFacts.Camera::columns)
                .filter(columns -> columns >= LEAST_COLUMNS)
                .map(Integer::doubleValue)
                .toList());
        int planned = take.plan().request().camera().sensor().pixelsWide();
        int high = take.plan().request().camera().sensor().pixelsHigh();
        boolean alike = Math.abs(wide / planned - 1) < SIZE_OFF || Math.abs(wide / high - 1) < SIZE_OFF;
        if (!Double.isNaN(wide) && !alike) {
            lines.add(new Line(
                    "Photos are %.0f pixels wide, the plan's camera %d".formatted(wide, planned),
                    "Cropped, resized, or another camera: the plan's GSD and overlaps do not hold.",
                    "mind",
                    ""));
        }
        double focal = Median.of(cameras.stream()
                .filter(camera -> camera.focalMm().isPresent())
                .map(camera -> camera.focalMm().getAsDouble())
                .toList());
        double wanted = take.plan().request().camera().focalLengthM() * 1000;
        if (Math.abs(focal / wanted - 1) > FOCAL_OFF) {
            lines.add(new Line(
                    "Focal length %.1f mm, the plan's %.1f mm".formatted(focal, wanted),
                    "Another lens, or a zoom that was moved.",
                    "mind",
                    ""));
        }
        double longest = CameraCard.longestShutterS(take.plan());
        long slow = cameras.stream()
                .filter(camera -> camera.exposureS().orElse(0) > longest * SHUTTER_OFF)
                .count();
        if (slow > 0) {
            lines.add(new Line(
                    "%d exposed longer than 1/%.0f s".formatted(slow, Math.floor(1 / longest)),
                    "At the planned speed they move by more than the blur allowed.",
                    "mind",
                    ""));
        }
    }

    private static void roles(Take take, List<Line> lines) {
        for (Role role : Role.values()) {
            int count = take.match().count(role);
            if (count > 0 && role != Role.PLANNED) {
                String more = switch (role) {
                    case TEST -> "Not of the flight; leave them out of the processing, keep the files.";
                    case PANEL -> "Kept apart for the calibration.";
                    case COPY -> "The same to the bit; one of each counts.";
                    case ELSEWHERE -> "Another place or day; they do not belong here.";
                    case EXTRA -> "Of the flight, at no station: turns, second releases.";
                    case UNKNOWN -> "Neither time nor place in the file.";
                    case NO_PICTURE -> "Nothing of them can be read.";
                    default -> "";
                };
                String mood = role == Role.NO_PICTURE
                                || role == Role.UNKNOWN
                                || role == Role.ELSEWHERE
                                || role == Role.OTHER_CAMERA
                        ? "mind"
                        : "";
                lines.add(new Line(
                        "%d %s".formatted(count, many(role, count)),
                        more,
                        mood,
                        role.name().toLowerCase(Locale.ROOT)));
            }
        }
    }

    private static String many(Role role, int count) {
        return switch (role) {
            case TEST -> count == 1 ? "test shot" : "test shots";
            case PANEL -> count == 1 ? "photo of the panel" : "photos of the panel";
            case COPY -> count == 1 ? "copy of another" : "copies of others";
            case NO_PICTURE -> count == 1 ? "file without a picture" : "files without a picture";
            default -> role.words();
        };
    }

    private static String metres(double m, UnitChoice units) {
        return "%+.2f %s"
                .formatted(
                        units.unit(UnitKind.DISTANCE).ofSi(m),
                        units.unit(UnitKind.DISTANCE).symbol());
    }

    static List<GapRow> gaps(Found found, List<DecisionRow> decisions, UnitChoice units) {
        List<GapRow> rows = new ArrayList<>();
        for (int i = 0; i < found.gaps().size(); i++) {
            Take.Gap gap = found.gaps().get(i);
            String decided = Decisions.of(i, gap, decisions)
                    .map(one -> Decisions.Kind.of(one.kind()).words() + ": " + one.reason())
                    .orElse("");
            rows.add(new GapRow(i + 1, units.text(UnitKind.AREA, gap.ground().areaM2()), gap.cause(), decided));
        }
        return rows;
    }

    /** Photos in the order in which they are looked at: the worst first. */
    static List<Integer> worstFirst(Take take) {
        return IntStream.range(0, take.photos().size())
                .boxed()
                .sorted(Comparator.comparingDouble((Integer i) -> badness(take, i))
                        .reversed())
                .toList();
    }

    private static double badness(Take take, int i) {
        List<Flaw> flaws = take.flaws().get(i);
        if (!flaws.isEmpty()) {
            return 100
                    - flaws.get(0).kind().ordinal() * 10
                    + Math.min(9, flaws.get(0).figure());
        }
        TakeMatch.Matched one = take.match().photos().get(i);
        return one.otherLens() ? 15 : one.frozen() ? 12 : one.role() == Role.PLANNED ? 0 : 5;
    }

    /** A photo on the contact sheet. */
    public record Tile(
            long id,
            String name,
            String role,
            String station,
            String mood,
            List<String> words,
            boolean aside,
            boolean pictured) {}

    static Tile tile(Found found, int i, UnitChoice units) {
        Take take = found.take();
        TakeMatch.Matched one = take.match().photos().get(i);
        List<String> words = new ArrayList<>();
        take.flaws().get(i).forEach(flaw -> words.add(flaw.kind().words() + ": " + flaw.words()));
        if (!one.why().isEmpty()) {
            words.add(one.why());
        }
        boolean bad = take.flaws().get(i).stream().anyMatch(flaw -> flaw.kind().useless())
                || one.role() == Role.NO_PICTURE
                || one.role() == Role.UNKNOWN;
        String station = one.station() > 0
                ? "station %d%s"
                        .formatted(
                                one.station(),
                                Double.isNaN(one.offM())
                                        ? ""
                                        : ", " + units.text(UnitKind.DISTANCE, one.offM()) + " off")
                : "";
        return new Tile(
                found.kept().get(i).id(),
                take.photos().get(i).name(),
                one.role().words(),
                station,
                bad ? "stop" : words.isEmpty() ? "done" : "mind",
                words,
                take.photos().get(i).aside(),
                take.photos().get(i).picture().isPresent());
    }

    /** Whether a photo is one of those asked for. */
    static boolean shown(Take take, int i, String show) {
        TakeMatch.Matched one = take.match().photos().get(i);
        return switch (show) {
            case "" -> true;
            case "flawed" -> !take.flaws().get(i).isEmpty();
            case "frozen" -> one.frozen();
            case "lens" -> one.otherLens();
            default ->
                one.role().name().equalsIgnoreCase(show)
                        || take.flaws().get(i).stream()
                                .anyMatch(flaw -> flaw.kind().name().equalsIgnoreCase(show));
        };
    }

    static String share(Optional<Judgement> judgement) {
        return judgement.map(one -> Shares.percent(one.share())).orElse("–");
    }
}
