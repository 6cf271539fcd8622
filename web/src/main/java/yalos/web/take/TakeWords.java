package yalos.web.take;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Set;
import tools.jackson.databind.json.JsonMapper;
import yalos.web.store.TakeMapper.FileRow;
import yalos.web.take.TakeBook.FileView;
import yalos.web.take.TakeFiles.StoredBase;
import yalos.web.take.TakeFiles.StoredLaser;
import yalos.web.take.TakeFiles.StoredLog;
import yalos.web.take.TakeFiles.StoredPair;
import yalos.web.take.TakeFiles.StoredPositions;

/** What was found in a file that came with the photos, in a line and its doubts. */
final class TakeWords {
    private static final JsonMapper JSON = JsonMapper.builder().build();
    /** Strips that agree no better are looked at (common practice). */
    private static final double AGREE_M = 0.05;

    private static final double STILL_S = 25;
    private static final Set<String> KINDS =
            Set.of(TakeFiles.POSITIONS, TakeFiles.LOG, TakeFiles.BASE, TakeFiles.LASER, TakeCopy.COPY);

    private TakeWords() {}

    /** Whether a file came with the photos; others tell of the delivered map. */
    static boolean told(FileRow row) {
        return KINDS.contains(row.kind());
    }

    static FileView of(FileRow row) {
        return switch (row.kind()) {
            case TakeFiles.POSITIONS -> positions(row, JSON.readValue(row.found(), StoredPositions.class));
            case TakeFiles.LOG -> log(row, JSON.readValue(row.found(), StoredLog.class));
            case TakeFiles.BASE -> base(row, JSON.readValue(row.found(), StoredBase.class));
            case TakeFiles.LASER -> laser(row, JSON.readValue(row.found(), StoredLaser.class));
            default -> copy(row, JSON.readValue(row.found(), TakeCopy.StoredCopy.class));
        };
    }

    private static FileView positions(FileRow row, StoredPositions found) {
        return new FileView(
                row.id(),
                "positions",
                row.name(),
                "%,d of %,d rows are photos of the take; the photos' own positions are %+.2f m east, %+.2f m north, %+.2f m up of these"
                        .formatted(found.photos(), found.rows(), found.shiftE(), found.shiftN(), found.shiftUp()),
                found.rows() > found.photos()
                        ? List.of("%,d rows name no photo of the take".formatted(found.rows() - found.photos()))
                        : List.of());
    }

    private static FileView log(FileRow row, StoredLog found) {
        List<String> doubts = new ArrayList<>();
        if (found.stillBefore() < STILL_S) {
            doubts.add("standing still before: %.0f s (a lidar wants 30)".formatted(found.stillBefore()));
        }
        if (found.stillAfter() < STILL_S) {
            doubts.add("standing still after: %.0f s (a lidar wants 30)".formatted(found.stillAfter()));
        }
        return new FileView(
                row.id(),
                "flight log",
                row.name(),
                "%,d moments, positions of %,d photos; still %.0f s before and %.0f s after, longest straight run %.0f s, %d figure-%s"
                        .formatted(
                                found.moments(),
                                found.photos(),
                                found.stillBefore(),
                                found.stillAfter(),
                                found.straight(),
                                found.eights(),
                                found.eights() == 1 ? "eight" : "eights"),
                doubts);
    }

    private static FileView base(FileRow row, StoredBase found) {
        List<String> doubts = new ArrayList<>(found.doubts());
        if (found.gaps() > 0) {
            doubts.add("%d %s, the longest %.0f s"
                    .formatted(found.gaps(), found.gaps() == 1 ? "gap" : "gaps", found.longest()));
        }
        return new FileView(
                row.id(),
                "base log",
                row.name(),
                "RINEX %s, %s, %,d epochs of %s s, %d to %d satellites%s"
                        .formatted(
                                found.version(),
                                found.marker().isEmpty() ? "no mark named" : found.marker(),
                                found.epochs(),
                                plain(found.interval()),
                                found.fewest(),
                                found.most(),
                                found.antenna() == null
                                        ? ""
                                        : ", antenna %.4f m over the mark".formatted(found.antenna())),
                doubts);
    }

    private static String plain(double seconds) {
        return seconds == Math.rint(seconds)
                ? String.format(Locale.ROOT, "%.0f", seconds)
                : String.format(Locale.ROOT, "%.2f", seconds);
    }

    private static FileView laser(FileRow row, StoredLaser found) {
        List<String> doubts = new ArrayList<>(found.doubts());
        for (StoredPair pair : found.pairs()) {
            if (Math.abs(pair.median()) > AGREE_M || pair.spread() > AGREE_M) {
                doubts.add("%s and %s are %+.1f cm apart, spread %.1f cm"
                        .formatted(pair.a(), pair.b(), 100 * pair.median(), 100 * pair.spread()));
            }
        }
        String agree = found.pairs().isEmpty()
                ? "no two strips overlap"
                : "strips agree within %.1f cm, spread %.1f cm"
                        .formatted(
                                100
                                        * found.pairs().stream()
                                                .mapToDouble(pair -> Math.abs(pair.median()))
                                                .max()
                                                .orElse(0),
                                100
                                        * found.pairs().stream()
                                                .mapToDouble(StoredPair::spread)
                                                .max()
                                                .orElse(0));
        return new FileView(
                row.id(),
                "laser strips",
                row.name(),
                "%d %s, %,d points, %.1f on a square metre; %s"
                        .formatted(
                                found.strips().size(),
                                found.strips().size() == 1 ? "strip" : "strips",
                                found.points(),
                                found.cells() == 0 ? 0 : (double) found.points() / found.cells(),
                                agree),
                doubts);
    }

    private static FileView copy(FileRow row, TakeCopy.StoredCopy found) {
        return new FileView(
                row.id(),
                "second copy",
                found.where(),
                "%,d the same, %,d missing, %,d not the same".formatted(found.same(), found.missing(), found.other()),
                found.names());
    }
}
