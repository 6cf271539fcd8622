package yalos.core.flight;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;

/**
 * The shortest way forward from one place and direction to another that turns no tighter than a radius: three pieces, each an arc to the left, an
 * arc to the right or straight on.
 *
 * <p>Closed forms of the six words after Dubins 1957 (from memory). Exact to rounding; arcs within 1e-9 rad of a whole circle count as none, so that
 * ends which just touch do not go round once more. Plane geometry, still air.
 *
 * @param first piece
 * @param second piece
 * @param third piece
 */
public record Dubins(Piece first, Piece second, Piece third) {
    private static final double CIRCLE = 2 * Math.PI;
    private static final double HAIR = 1e-9;

    /** What a piece does. */
    public enum Kind {
        LEFT,
        STRAIGHT,
        RIGHT
    }

    /** A piece and its length in metres. */
    public record Piece(Kind kind, double lengthM) {}

    /** Length in metres. */
    public double lengthM() {
        return first.lengthM() + second.lengthM() + third.lengthM();
    }

    /**
     * The shortest of the six.
     *
     * @param eastM of the end, counted from the start
     * @param northM of the end, counted from the start
     * @param startRad direction at the start, clockwise from north
     * @param endRad direction at the end, clockwise from north
     * @param radiusM of the tightest turn
     */
    public static Dubins shortest(double eastM, double northM, double startRad, double endRad, double radiusM) {
        return new Words(eastM, northM, startRad, endRad, radiusM).shortest();
    }

    /** All there are of the six, the shortest first. */
    static List<Dubins> all(double eastM, double northM, double startRad, double endRad, double radiusM) {
        Words words = new Words(eastM, northM, startRad, endRad, radiusM);
        words.kept = new ArrayList<>();
        words.shortest();
        words.kept.sort(Comparator.comparingDouble(Dubins::lengthM));
        return words.kept;
    }

    /** Angles are mathematical here: counter-clockwise, from the line that joins the ends; lengths are in radii. */
    private static final class Words {
        private final double radiusM;
        private final double d;
        private final double a;
        private final double b;
        private final double sinA;
        private final double cosA;
        private final double sinB;
        private final double cosB;
        private final double cosDifference;
        private double leastM = Double.POSITIVE_INFINITY;
        private Dubins best;
        /** Every word, where they are wanted. */
        private List<Dubins> kept;

        Words(double eastM, double northM, double startRad, double endRad, double radiusM) {
            this.radiusM = radiusM;
            double distance = Math.sqrt(eastM * eastM + northM * northM);
            double joining = distance == 0 ? 0 : Math.atan2(northM, eastM);
            this.d = distance / radiusM;
            this.a = turn(Math.PI / 2 - startRad - joining);
            this.b = turn(Math.PI / 2 - endRad - joining);
            this.sinA = Math.sin(a);
            this.cosA = Math.cos(a);
            this.sinB = Math.sin(b);
            this.cosB = Math.cos(b);
            this.cosDifference = Math.cos(a - b);
        }

        Dubins shortest() {
            sameSide(Kind.LEFT, 2 + d * d - 2 * cosDifference + 2 * d * (sinA - sinB), 1);
            sameSide(Kind.RIGHT, 2 + d * d - 2 * cosDifference + 2 * d * (sinB - sinA), -1);
            changing(Kind.LEFT, Kind.RIGHT, d * d - 2 + 2 * cosDifference + 2 * d * (sinA + sinB), 1);
            changing(Kind.RIGHT, Kind.LEFT, d * d - 2 + 2 * cosDifference - 2 * d * (sinA + sinB), -1);
            threeArcs(Kind.RIGHT, Kind.LEFT, (6 - d * d + 2 * cosDifference + 2 * d * (sinA - sinB)) / 8, -1);
            threeArcs(Kind.LEFT, Kind.RIGHT, (6 - d * d + 2 * cosDifference - 2 * d * (sinA - sinB)) / 8, 1);
            return best;
        }

        /** Arc, straight, arc to the same side. */
        private void sameSide(Kind side, double squared, int sense) {
            double tangent = Math.atan2(sense * (cosB - cosA), d + sense * (sinA - sinB));
            offer(
                    side,
                    turn(sense * (tangent - a)),
                    Kind.STRAIGHT,
                    Math.sqrt(Math.max(0, squared)),
                    side,
                    turn(sense * (b - tangent)));
        }

        /** Arc, straight, arc to the other side; there is none between circles that overlap. */
        private void changing(Kind from, Kind to, double squared, int sense) {
            if (squared < -HAIR) {
                return;
            }
            double straight = Math.sqrt(Math.max(0, squared));
            double tangent =
                    Math.atan2(-sense * (cosA + cosB), d + sense * (sinA + sinB)) + sense * Math.atan2(2, straight);
            offer(from, turn(sense * (tangent - a)), Kind.STRAIGHT, straight, to, turn(sense * (tangent - b)));
        }

        /** Three arcs; there are none between circles far apart. */
        private void threeArcs(Kind outer, Kind inner, double cosine, int sense) {
            if (Math.abs(cosine) > 1 + HAIR) {
                return;
            }
            double middle = CIRCLE - Math.acos(Math.max(-1, Math.min(1, cosine)));
            double joining = Math.atan2(sense * (cosB - cosA), d + sense * (sinA - sinB));
            double start = turn(sense * (joining - a) + middle / 2);
            double end = turn(sense * (b - a) - start + middle);
            offer(outer, start, inner, middle, outer, end);
        }

        private void offer(Kind one, double first, Kind two, double second, Kind three, double third) {
            double length = (first + second + third) * radiusM;
            if (length < leastM || kept != null) {
                Dubins word = new Dubins(
                        new Piece(one, first * radiusM),
                        new Piece(two, second * radiusM),
                        new Piece(three, third * radiusM));
                best = length < leastM ? word : best;
                leastM = Math.min(leastM, length);
                if (kept != null) {
                    kept.add(word);
                }
            }
        }

        /** An angle from 0 to 2π; what is a hair short of a circle is none. */
        private static double turn(double angle) {
            double turned = angle % CIRCLE;
            if (turned < 0) {
                turned += CIRCLE;
            }
            return turned > CIRCLE - HAIR ? 0 : turned;
        }
    }
}
