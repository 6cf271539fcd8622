package yalos.web.ground;

import java.util.ArrayList;
import java.util.List;
import java.util.function.UnaryOperator;
import yalos.core.block.Outline;
import yalos.core.block.OutlineCheck;
import yalos.core.fault.InputFault;
import yalos.core.geodesy.Geodesics;
import yalos.core.geodesy.LonLat;

/** Changes to single corners of an outline. Corners count from 0 in their ring, rings over the whole outline. */
final class Corners {
    private Corners() {}

    static Outline moved(Outline outline, int ring, int corner, LonLat to) {
        return changed(outline, ring, corner, corners -> corners.set(corner, to));
    }

    /** A new corner behind the given one. */
    static Outline inserted(Outline outline, int ring, int corner, LonLat at) {
        return changed(outline, ring, corner, corners -> corners.add(corner + 1, at));
    }

    /** A new corner in the edge that grows least by it. */
    static Outline added(Outline outline, LonLat at) {
        int bestRing = -1;
        int bestCorner = 0;
        double least = Double.POSITIVE_INFINITY;
        for (int ring = 0; ring < outline.rings().size(); ring++) {
            List<LonLat> corners = outline.rings().get(ring);
            for (int corner = 0; corner < corners.size(); corner++) {
                LonLat from = corners.get(corner);
                LonLat to = corners.get((corner + 1) % corners.size());
                double more =
                        Geodesics.distanceM(from, at) + Geodesics.distanceM(at, to) - Geodesics.distanceM(from, to);
                if (more < least) {
                    least = more;
                    bestRing = ring;
                    bestCorner = corner;
                }
            }
        }
        if (bestRing < 0) {
            throw new InputFault(
                    "position", "none", "There is no outline yet. Draw one, or paste three corners and more.");
        }
        return inserted(outline, bestRing, bestCorner, at);
    }

    /** Without the corner; a ring left with two corners goes as a whole, the outer ring with its part. */
    static Outline removed(Outline outline, int ring, int corner) {
        if (outline.rings().get(checkedRing(outline, ring)).size() > 3) {
            return changed(outline, ring, corner, corners -> corners.remove(corner));
        }
        return withoutRing(outline, ring);
    }

    private static Outline withoutRing(Outline outline, int ring) {
        List<Outline.Part> kept = new ArrayList<>();
        int at = 0;
        for (Outline.Part part : outline.parts()) {
            boolean outer = at == ring;
            List<List<LonLat>> holes = new ArrayList<>();
            for (int h = 0; h < part.holes().size(); h++) {
                if (at + 1 + h != ring) {
                    holes.add(part.holes().get(h));
                }
            }
            if (!outer) {
                kept.add(new Outline.Part(part.outer(), holes));
            }
            at += part.rings().size();
        }
        return new Outline(kept);
    }

    private interface Edit {
        void on(List<LonLat> corners);
    }

    private static Outline changed(Outline outline, int ring, int corner, Edit edit) {
        int size = outline.rings().get(checkedRing(outline, ring)).size();
        if (corner < 0 || corner >= size) {
            throw new InputFault("corner", corner, "The outline has no corner %d any more.".formatted(corner + 1));
        }
        UnaryOperator<List<LonLat>> change = corners -> {
            List<LonLat> copy = new ArrayList<>(corners);
            edit.on(copy);
            return copy;
        };
        return OutlineCheck.sound(outline.withRing(ring, change));
    }

    private static int checkedRing(Outline outline, int ring) {
        if (ring < 0 || ring >= outline.rings().size()) {
            throw new InputFault("ring", ring, "The outline has no ring %d any more.".formatted(ring + 1));
        }
        return ring;
    }
}
