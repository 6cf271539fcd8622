package yalos.core.take;

import java.io.BufferedInputStream;
import java.io.BufferedReader;
import java.io.EOFException;
import java.io.IOException;
import java.io.InputStream;
import java.io.InputStreamReader;
import java.nio.charset.StandardCharsets;
import java.time.DateTimeException;
import java.time.Duration;
import java.time.Instant;
import java.time.LocalDateTime;
import java.time.ZoneOffset;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.TreeSet;
import java.util.zip.GZIPInputStream;
import java.util.zip.ZipException;
import yalos.core.fault.InputFault;
import yalos.core.fault.Patience;
import yalos.core.figures.Median;
import yalos.core.geodesy.Geocentric;

/**
 * What a base wrote while the aircraft flew: RINEX observation files (an open standard of the IGS and RTCM), version 2, 3 and 4, plain or gzipped. Head and epochs are read, no observation.
 *
 * @param version as the file says it
 * @param marker name of the mark
 * @param systems letters of the satellite systems seen
 * @param times of all complete epochs, in GPS time written as if it were UTC
 * @param headerIntervalS empty where the head says none
 * @param fewest satellites in an epoch
 * @param most satellites in an epoch
 * @param at approximate position of the mark; empty where there is none, or zeros
 * @param antenna height, east and north of the antenna over the mark, in metres; empty where the head says nothing
 * @param changes what changed while it ran
 * @param doubts what to look at, one sentence each
 */
public record BaseLog(
        String version,
        String marker,
        String systems,
        List<Instant> times,
        OptionalDouble headerIntervalS,
        int fewest,
        int most,
        Optional<Geocentric> at,
        Optional<double[]> antenna,
        String receiver,
        String antennaType,
        List<String> changes,
        List<String> doubts) {

    /** GPS time less UTC since 2017; a head that says otherwise counts. */
    static final int LEAP_S = 18;

    /** BeiDou's time less GPS time. */
    private static final int BEIDOU_S = -14;

    private static final double GAP = 1.5;
    private static final int MOST_EPOCHS = 3_000_000;
    private static final int LONGEST_LINE = 4000;
    private static final int LABEL = 60;
    private static final int MOST_HEAD_LINES = 5000;
    /** A day of ten epochs a second has fewer; a packed file may hold any number of empty ones. */
    private static final int MOST_LINES = 200_000_000;

    /** When the first epoch was. */
    public Instant first() {
        return times.get(0);
    }

    public Instant last() {
        return times.get(times.size() - 1);
    }

    /** Seconds from one epoch to the next, usually. */
    public double intervalS() {
        return times.size() < 2 ? headerIntervalS.orElse(Double.NaN) : Median.of(steps());
    }

    private double[] steps() {
        double[] steps = new double[times.size() - 1];
        for (int i = 1; i < times.size(); i++) {
            steps[i - 1] = Duration.between(times.get(i - 1), times.get(i)).toNanos() / 1e9;
        }
        return steps;
    }

    /** Steps over one and a half intervals. */
    public int gaps() {
        double[] steps = times.size() < 2 ? new double[0] : steps();
        double usual = Median.of(steps);
        int gaps = 0;
        for (double step : steps) {
            gaps += step > usual * GAP ? 1 : 0;
        }
        return gaps;
    }

    /** The longest time from one epoch to the next, and when it began. */
    public record Step(double seconds, Instant from) {}

    public Optional<Step> longestStep() {
        Step longest = null;
        for (int i = 1; i < times.size(); i++) {
            double step = Duration.between(times.get(i - 1), times.get(i)).toNanos() / 1e9;
            longest = longest == null || step > longest.seconds() ? new Step(step, times.get(i - 1)) : longest;
        }
        return Optional.ofNullable(longest);
    }

    /**
     * How long it ran before the first and after the last of some moments; negative where it did not.
     *
     * @param firstUtc of what it is to span
     */
    public double[] marginsS(Instant firstUtc, Instant lastUtc) {
        return marginsS(first(), last(), firstUtc, lastUtc);
    }

    /**
     * How long a log ran before the first and after the last of some moments.
     *
     * @param first of its epochs, by the satellites' clock, as {@code last}
     */
    public static double[] marginsS(Instant first, Instant last, Instant firstUtc, Instant lastUtc) {
        return new double[] {
            Duration.between(first, firstUtc).toNanos() / 1e9 + LEAP_S,
            Duration.between(lastUtc, last).toNanos() / 1e9 - LEAP_S
        };
    }

    /**
     * @throws InputFault for what is no such file, or cannot be used as it is
     * @throws IOException where the disk does not give it
     */
    public static BaseLog read(InputStream file) throws IOException {
        BufferedInputStream in = new BufferedInputStream(file);
        in.mark(2);
        int first = in.read();
        int second = in.read();
        in.reset();
        if (first < 0) {
            throw fault("empty", "The log is empty (0 bytes): copy it again from the base.");
        }
        boolean packed = first == 0x1f && second == 0x8b;
        try {
            return new Reading(packed ? new GZIPInputStream(in) : in).log();
        } catch (EOFException | ZipException damaged) {
            throw fault("gzip", "The packed log is damaged: copy it again from the base.");
        }
    }

    private static InputFault fault(String value, String sentence) {
        return new InputFault("file", value, sentence);
    }

    /** Reads one file, line by line. */
    private static final class Reading {
        private final BufferedReader lines;
        private final List<Instant> times = new ArrayList<>();
        private final TreeSet<Character> systems = new TreeSet<>();
        private final List<String> changes = new ArrayList<>();
        private final List<String> doubts = new ArrayList<>();
        private double version;
        private String written = "";
        private String marker = "";
        private String receiver = "";
        private String antennaType = "";
        private OptionalDouble interval = OptionalDouble.empty();
        private Optional<Geocentric> at = Optional.empty();
        private Optional<double[]> antenna = Optional.empty();
        private String clock = "";
        private char system = 'G';
        private int leap = LEAP_S;
        private int types;
        private int fewest = Integer.MAX_VALUE;
        private int most;
        private boolean cut;
        private boolean endsOpen;
        private boolean headed;
        private int number;

        Reading(InputStream in) {
            lines = new BufferedReader(new InputStreamReader(in, StandardCharsets.ISO_8859_1));
        }

        BaseLog log() throws IOException {
            head();
            headed = true;
            try {
                epochs();
            } catch (EOFException early) {
                cut = true;
            }
            if (times.isEmpty()) {
                throw fault("no epochs", "The log has a head and no epoch: the base wrote nothing down.");
            }
            doubts();
            return new BaseLog(
                    written,
                    marker,
                    text(),
                    List.copyOf(times),
                    interval,
                    fewest,
                    most,
                    at,
                    antenna,
                    receiver,
                    antennaType,
                    List.copyOf(changes),
                    List.copyOf(doubts));
        }

        private String text() {
            StringBuilder letters = new StringBuilder();
            systems.forEach(letters::append);
            return letters.toString();
        }

        /** The next line without its end; nothing at the end of the file. */
        private Optional<String> line() throws IOException {
            StringBuilder line = new StringBuilder();
            int letter;
            while ((letter = lines.read()) >= 0 && letter != '\n') {
                if (line.length() >= LONGEST_LINE) {
                    throw fault(
                            "line " + (number + 1),
                            "This is no RINEX file: line %d is longer than any of its lines.".formatted(number + 1));
                }
                line.append((char) letter);
            }
            if (letter < 0 && line.isEmpty()) {
                return Optional.empty();
            }
            endsOpen = letter < 0;
            number++;
            if (number > MOST_LINES || !headed && number > MOST_HEAD_LINES) {
                throw fault("lines", "The log has more lines than any base writes: it is damaged.");
            }
            int length = line.length();
            if (length > 0 && line.charAt(length - 1) == '\r') {
                line.setLength(length - 1);
            }
            return Optional.of(line.toString());
        }

        private static String cut(String line, int from, int to) {
            return line.length() <= from ? "" : line.substring(from, Math.min(to, line.length()));
        }

        private static String label(String line) {
            return cut(line, LABEL, LABEL + 20).strip();
        }

        private void head() throws IOException {
            String first = line().orElse("");
            String label = label(first);
            if (label.startsWith("CRINEX")) {
                throw fault(
                        "compact",
                        "The log is in the compact (Hatanaka) form. Expand it to RINEX first, and bring that.");
            }
            if (!label.equals("RINEX VERSION / TYPE")) {
                throw fault("no RINEX", "This is no RINEX file: its first line does not say a RINEX version.");
            }
            written = cut(first, 0, 9).strip();
            try {
                version = Double.parseDouble(written);
            } catch (NumberFormatException none) {
                version = 0;
            }
            if (version < 2 || version >= 5) {
                throw fault(written, "RINEX version %s is not known here; versions 2, 3 and 4 are.".formatted(written));
            }
            char type = cut(first, 20, 21).isEmpty() ? ' ' : first.charAt(20);
            if (type != 'O') {
                throw fault(
                        String.valueOf(type),
                        type == 'N' || type == 'G'
                                ? "This is a file of satellite orbits (navigation data), not the base's observations. Bring the observation file."
                                : "This is no file of observations. Bring the base's observation file.");
            }
            system = cut(first, 40, 41).isBlank() ? 'G' : first.charAt(40);
            for (Optional<String> line = line(); ; line = line()) {
                String one = line.orElseThrow(() -> fault(
                        "head", "The head of the log has no end (END OF HEADER): the file is cut off or damaged."));
                if (one.startsWith("> ") || label(one).isEmpty() && one.length() > LABEL) {
                    throw fault(
                            "head",
                            "The head of the log has no end (END OF HEADER) before line %d: the file is damaged."
                                    .formatted(number));
                }
                if (label(one).equals("END OF HEADER")) {
                    break;
                }
                if (label(one).isEmpty() && !one.isBlank()) {
                    throw fault(
                            "head",
                            "The head of the log has no end (END OF HEADER) before line %d: the file is damaged."
                                    .formatted(number));
                }
                record(one);
            }
        }

        private void record(String line) {
            switch (label(line)) {
                case "MARKER NAME" -> marker = words(line, 0, 60);
                case "REC # / TYPE / VERS" -> receiver = words(line, 20, 40);
                case "ANT # / TYPE" -> antennaType = words(line, 20, 40);
                case "APPROX POSITION XYZ" -> {
                    double[] xyz = three(line);
                    boolean known = xyz.length == 3 && Math.hypot(Math.hypot(xyz[0], xyz[1]), xyz[2]) > 1000;
                    at = known ? Optional.of(new Geocentric(xyz[0], xyz[1], xyz[2])) : Optional.empty();
                }
                case "ANTENNA: DELTA H/E/N" ->
                    antenna = Optional.of(three(line)).filter(one -> one.length == 3);
                case "INTERVAL" -> interval = figure(cut(line, 0, 10));
                case "LEAP SECONDS" -> leap = (int) figure(cut(line, 0, 6)).orElse(LEAP_S);
                case "TIME OF FIRST OBS" -> clock = cut(line, 48, 51).strip().toUpperCase(Locale.ROOT);
                case "# / TYPES OF OBSERV" ->
                    types = types > 0 ? types : (int) figure(cut(line, 0, 6)).orElse(0);
                default -> {
                    // what is observed is not read
                }
            }
        }

        /** Antennas are named in fixed columns, so spaces within stay. */
        private static String words(String line, int from, int to) {
            return cut(line, from, to).replaceAll("\\p{Cntrl}", "").strip();
        }

        private static double[] three(String line) {
            double[] found = new double[3];
            for (int i = 0; i < 3; i++) {
                OptionalDouble one = figure(cut(line, 14 * i, 14 * i + 14));
                if (one.isEmpty()) {
                    return new double[0];
                }
                found[i] = one.getAsDouble();
            }
            return found;
        }

        private static OptionalDouble figure(String text) {
            try {
                double value = Double.parseDouble(text.strip());
                return Double.isFinite(value) ? OptionalDouble.of(value) : OptionalDouble.empty();
            } catch (NumberFormatException none) {
                return OptionalDouble.empty();
            }
        }

        private void epochs() throws IOException {
            for (Optional<String> line = line(); line.isPresent(); line = line()) {
                if (!line.orElseThrow().isBlank()
                        && !(version < 3 ? older(line.orElseThrow()) : newer(line.orElseThrow()))) {
                    cut = true;
                    return;
                }
                Patience.check();
            }
        }

        /** An epoch of version 2; whether it is complete. */
        private boolean older(String line) throws IOException {
            int flag = whole(line, 28, 29);
            int count = whole(line, 29, 32);
            if (flag > 1 && flag < 6) {
                return event(line, flag, count, 1, 26);
            }
            Optional<Instant> time = time(line, 1, 26, true);
            StringBuilder satellites = new StringBuilder(cut(line, 32, 68));
            for (int more = 12; more < count; more += 12) {
                Optional<String> next = line();
                if (next.isEmpty()) {
                    return false;
                }
                satellites.append(cut(next.orElseThrow() + " ".repeat(36), 32, 68));
            }
            int each = Math.max(1, (types + 4) / 5);
            if (!skip(count * each, 14)) {
                return false;
            }
            for (int i = 0; i < count; i++) {
                String one = cut(satellites.toString(), 3 * i, 3 * i + 3);
                systems.add(one.isBlank() || one.charAt(0) == ' ' ? 'G' : one.charAt(0));
            }
            keep(time, count, flag);
            return true;
        }

        /** An epoch of version 3 or 4; whether it is complete. */
        private boolean newer(String line) throws IOException {
            if (!line.startsWith(">")) {
                throw damaged();
            }
            int flag = whole(line, 31, 32);
            int count = whole(line, 32, 35);
            if (flag > 1 && flag < 6) {
                return event(line, flag, count, 2, 29);
            }
            Optional<Instant> time = time(line, 2, 29, false);
            for (int i = 0; i < count; i++) {
                Optional<String> satellite = line();
                if (satellite.isEmpty() || endsOpen && satellite.orElseThrow().length() < 17) {
                    return false;
                }
                String one = satellite.orElseThrow();
                systems.add(one.isEmpty() || one.charAt(0) == ' ' ? 'G' : one.charAt(0));
            }
            keep(time, count, flag);
            return true;
        }

        private InputFault damaged() {
            return fault(
                    "line " + number,
                    "Line %d of the log should begin an epoch and does not: the file is damaged there."
                            .formatted(number));
        }

        /** Passes lines over; whether they were there. */
        private boolean skip(int count, int least) throws IOException {
            for (int i = 0; i < count; i++) {
                Optional<String> line = line();
                if (line.isEmpty()
                        || endsOpen && i == count - 1 && line.orElseThrow().length() < least) {
                    return false;
                }
            }
            return true;
        }

        private void keep(Optional<Instant> time, int count, int flag) {
            Instant when = time.orElseThrow(this::damaged);
            if (times.size() >= MOST_EPOCHS) {
                throw fault("epochs", "The log has more than 3,000,000 epochs; bring the part of the flight's day.");
            }
            times.add(when);
            fewest = Math.min(fewest, count);
            most = Math.max(most, count);
            if (flag == 1) {
                changes.add("%s GPS: the power failed before it".formatted(clockText(when)));
            }
        }

        private static String clockText(Instant when) {
            return when.toString().replace('T', ' ').replace("Z", "").replaceAll("\\.\\d+$", "");
        }

        /** Something happened: lines of a head follow. */
        private boolean event(String line, int flag, int count, int from, int to) throws IOException {
            Optional<Instant> time = time(line, from, to, version < 3);
            String when =
                    time.map(Reading::clockText).orElse(times.isEmpty() ? "" : clockText(times.get(times.size() - 1)));
            Optional<double[]> height = antenna;
            String type = antennaType;
            for (int i = 0; i < count; i++) {
                Optional<String> next = line();
                if (next.isEmpty()) {
                    return false;
                }
                record(next.orElseThrow());
            }
            boolean changed = !type.equals(antennaType)
                    || height.isPresent() && antenna.isPresent() && height.orElseThrow()[0] != antenna.orElseThrow()[0];
            if (changed) {
                changes.add("%s GPS: antenna %s, height %.4f m"
                        .formatted(when, antennaType, antenna.map(one -> one[0]).orElse(Double.NaN)));
                doubts.add("The antenna or its height changes during the log, at %s GPS.".formatted(when));
                // What stood at the beginning is what the head says.
                antenna = height;
                antennaType = type;
            } else if (flag == 2 || flag == 3) {
                changes.add("%s GPS: %s".formatted(when, flag == 2 ? "the antenna moves" : "a new site is occupied"));
                doubts.add("The base was moved during the log, at %s GPS.".formatted(when));
            }
            return true;
        }

        private static int whole(String line, int from, int to) {
            String text = cut(line, from, to).strip();
            return text.matches("\\d{1,3}") ? Integer.parseInt(text) : 0;
        }

        private Optional<Instant> time(String line, int from, int to, boolean shortYear) {
            String[] parts = cut(line, from, to).strip().split("\\s+");
            if (parts.length < 6) {
                return Optional.empty();
            }
            try {
                int year = Integer.parseInt(parts[0]);
                if (shortYear && year < 100) {
                    year += year < 80 ? 2000 : 1900;
                }
                double seconds = Double.parseDouble(parts[5]);
                Instant read = LocalDateTime.of(
                                year,
                                Integer.parseInt(parts[1]),
                                Integer.parseInt(parts[2]),
                                Integer.parseInt(parts[3]),
                                Integer.parseInt(parts[4]))
                        .toInstant(ZoneOffset.UTC)
                        .plusNanos(Math.round(seconds * 1e7) * 100);
                return Optional.of(read.plusSeconds(toGps()));
            } catch (NumberFormatException | DateTimeException none) {
                return Optional.empty();
            }
        }

        /** What is added to the file's clock for GPS time. */
        private int toGps() {
            String own = clock.isEmpty() ? (system == 'R' ? "GLO" : system == 'C' ? "BDT" : "GPS") : clock;
            return switch (own) {
                case "GLO" -> leap;
                case "BDT" -> -BEIDOU_S;
                default -> 0;
            };
        }

        private void doubts() {
            if (cut) {
                doubts.add(
                        "The file ends inside an epoch: copy it again from the base. Its %,d complete epochs were read."
                                .formatted(times.size()));
            }
            if (antenna.isEmpty()) {
                doubts.add("The log says no antenna height: find it in the notes before anything is worked out.");
            } else if (antenna.orElseThrow()[0] == 0) {
                doubts.add(
                        "The log says an antenna height of 0: right on a pillar only; otherwise it was never typed in.");
            }
            if (at.isEmpty()) {
                doubts.add("The log says no position of the base.");
            }
        }
    }
}
