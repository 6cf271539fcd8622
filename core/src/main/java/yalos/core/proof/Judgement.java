package yalos.core.proof;

import static java.util.stream.Collectors.counting;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.Collections;
import java.util.Comparator;
import java.util.EnumMap;
import java.util.EnumSet;
import java.util.List;
import java.util.Map;
import java.util.OptionalDouble;
import java.util.Set;
import java.util.function.DoubleUnaryOperator;
import java.util.function.Function;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import yalos.core.geodesy.PlanePoint;
import yalos.core.kit.Positioning;

/** Is every cell of a proof given what is asked for? Where not, which connected pieces of ground lack what, and why. */
public final class Judgement {
    /** Shares given enough from which a plan is adequate, or nearly. */
    private static final double ADEQUATE = 0.998;

    private static final double NEARLY = 0.95;
    private static final int MOST_SPOTS = 12;
    /** Weak ground that is this share of the block is no edge, though it touches it. */
    static final double NEARLY_ALL = 0.9;
    /** Smaller pieces are specks: below both this size and this share of the block nobody flies again for them. */
    private static final double LEAST_SPOT_M2 = 4;

    private static final double LEAST_SPOT = 0.0002;
    /** So many cells of a piece are asked why it is far. */
    private static final int CELLS_ASKED = 25;
    /** A GSD so many times the one asked for still counts as enough (common practice: the scale within a tenth). */
    public static final double GSD_TOLERANCE = 1.1;
    /** Ground nearer to the photos than this share of the usual depth counts as high, farther as low. */
    private static final double NEARER = 0.93;

    private final GroundProof proof;
    private final Asked asked;
    private final byte[] cells;
    private final Flown flown;
    private final float[] gsdM;
    private final List<WeakGround> spots;
    /** Found when first asked for: it sorts all cells. */
    private volatile OptionalDouble medianHeightSigmaM;

    private Specks specks = new Specks(0, 0);

    /**
     * What is asked of every cell.
     *
     * @param photos that see it, at least
     * @param gsdM of them on average, at most: matching and picture maps take from all of them, not from the finest alone; those from much farther off do not
     *     count where as many as are asked for see it from near
     * @param positionSigmaM expected of its position along each axis of the plane, at most
     * @param heightSigmaM expected of its height, at most
     * @param nearestGsdM mean GSD of them, at least: nearer to the aircraft a pinned overlap is lost
     */
    public record Asked(
            int photos,
            OptionalDouble gsdM,
            OptionalDouble positionSigmaM,
            OptionalDouble heightSigmaM,
            OptionalDouble nearestGsdM) {

        /** Photos alone. */
        public static Asked photos(int least) {
            return new Asked(
                    least,
                    OptionalDouble.empty(),
                    OptionalDouble.empty(),
                    OptionalDouble.empty(),
                    OptionalDouble.empty());
        }

        /** What a proof must know to be judged so. */
        public Set<SurfaceProof.Layer> layers() {
            Set<SurfaceProof.Layer> layers = EnumSet.of(SurfaceProof.Layer.COUNT_WITHOUT_OCCLUSION);
            layers.add(SurfaceProof.Layer.GSD);
            if (positionSigmaM.isPresent() || heightSigmaM.isPresent()) {
                layers.add(SurfaceProof.Layer.ACCURACY);
            }
            return layers;
        }
    }

    /**
     * What the judged photos are known by.
     *
     * @param gsdM planned, to tell high ground from low
     * @param far why ground is farther from the photos than planned
     * @param positioning how the cameras' positions are known
     */
    public record Flown(double gsdM, Far far, Positioning positioning) {
        /** What heights are good to at best where photos have a GSD; a little more is allowed, as of every GSD. */
        double heightAtBestM(double seenGsdM) {
            return RuleOfThumb.heightM(seenGsdM / GSD_TOLERANCE, positioning);
        }

        double positionAtBestM(double seenGsdM) {
            return RuleOfThumb.positionM(seenGsdM / GSD_TOLERANCE, positioning);
        }
    }

    /** Why a place is seen from farther off than planned. */
    @FunctionalInterface
    public interface Far {
        /** A level path: what lies low is far from it. */
        Far LEVEL = (place, gsdM) -> WeakGround.Cause.LOW_GROUND;

        /**
         * @param place in the block's plane
         * @param gsdM with which it is seen
         */
        WeakGround.Cause why(PlanePoint place, double gsdM);
    }

    /** Holds a proof, which knows the {@linkplain Asked#layers() layers asked for}, against what is asked. */
    public Judgement(GroundProof proof, Asked asked, Flown flown) {
        this(proof, asked, flown, proof.gsdMeanM());
    }

    /**
     * The same with photos added to a plan: what its own photos show is not made coarser by those that come besides.
     *
     * @param planned judgement of the same cells without them
     */
    public Judgement(GroundProof proof, Judgement planned) {
        this(proof, planned.asked, planned.flown, planned.gsdM);
    }

    private Judgement(GroundProof proof, Asked asked, Flown flown, float[] gsdM) {
        this.gsdM = gsdM;
        this.proof = proof;
        this.asked = asked;
        this.flown = flown;
        this.cells = new byte[proof.columns() * proof.rows()];
        for (int row = 0; row < proof.rows(); row++) {
            for (int column = 0; column < proof.columns(); column++) {
                int at = proof.index(column, row);
                Adequacy none = proof.unknown(column, row) ? Adequacy.UNKNOWN : Adequacy.OUTSIDE;
                cells[at] = (byte) (proof.inside(column, row) ? judge(at) : none).ordinal();
            }
        }
        this.spots = largestSpots();
    }

    private Adequacy judge(int at) {
        if (proof.counts()[at] < asked.photos()) {
            return proof.countsWithoutOcclusion()[at] >= asked.photos() ? Adequacy.HIDDEN : Adequacy.TOO_FEW;
        }
        if (asked.gsdM().isPresent() && gsdM[at] > asked.gsdM().getAsDouble() * GSD_TOLERANCE) {
            return Adequacy.TOO_COARSE;
        }
        if (asked.positionSigmaM().isPresent()
                && !(positionGoodToM(at) <= asked.positionSigmaM().getAsDouble())) {
            return Adequacy.OFF;
        }
        if (asked.heightSigmaM().isPresent()
                && !(heightGoodToM(at) <= asked.heightSigmaM().getAsDouble())) {
            return Adequacy.INACCURATE;
        }
        boolean near = asked.nearestGsdM().isPresent()
                && gsdM[at] < asked.nearestGsdM().getAsDouble();
        return near ? Adequacy.LOW_OVERLAP : Adequacy.ENOUGH;
    }

    /** What is judged. */
    public GroundProof proof() {
        return proof;
    }

    /** What is asked of every cell. */
    public Asked asked() {
        return asked;
    }

    /** The judgement on a cell, by its index in the proof's layers. */
    public Adequacy at(int index) {
        return Adequacy.values()[cells[index]];
    }

    /** How the cameras' positions are known. */
    public Positioning positioning() {
        return flown.positioning();
    }

    /** The GSD of the ground that is seen worst, each place by the mean of its photos, in metres; not a number where nothing is seen. */
    public double coarsestM() {
        return IntStream.range(0, cells.length)
                .filter(at -> at(at).known() && !Float.isNaN(gsdM[at]))
                .mapToDouble(at -> gsdM[at])
                .max()
                .orElse(Double.NaN);
    }

    /** Share of the block that is judged too coarse and is coarser than this, 0..1. */
    public double shareCoarserThan(double limitM) {
        long coarser = IntStream.range(0, cells.length)
                .filter(at -> at(at) == Adequacy.TOO_COARSE && gsdM[at] > limitM)
                .count();
        return coarser / Math.max(1.0, inside());
    }

    /** Expected accuracy of heights that half of the known block reaches, in metres; empty where it was not asked for. */
    public OptionalDouble medianHeightSigmaM() {
        OptionalDouble known = medianHeightSigmaM;
        if (known == null) {
            known = median();
            medianHeightSigmaM = known;
        }
        return known;
    }

    private OptionalDouble median() {
        float[] sigmas = proof.sigmaVerticalM();
        double[] known = IntStream.range(0, sigmas.length)
                .filter(at -> at(at).known() && !Float.isNaN(sigmas[at]))
                .mapToDouble(at -> sigmas[at])
                .sorted()
                .toArray();
        return known.length == 0 ? OptionalDouble.empty() : OptionalDouble.of(known[known.length / 2]);
    }

    /**
     * What heights, or positions along each axis of the plane, are good to on the ground that is given enough but for them: one standard deviation in metres. Empty where nothing else is enough,
     * or rays fix nothing.
     *
     * @param lack inaccurate for heights, off for positions
     * @param butFor so small a share of that ground
     */
    public OptionalDouble goodToM(Adequacy lack, double butFor) {
        double[] sorted = IntStream.range(0, cells.length)
                .filter(at -> at(at) == Adequacy.ENOUGH || at(at) == lack)
                .mapToDouble(at -> lack == Adequacy.INACCURATE ? heightGoodToM(at) : positionGoodToM(at))
                .map(sigma -> Double.isNaN(sigma) ? Double.POSITIVE_INFINITY : sigma)
                .sorted()
                .toArray();
        int at = (int) Math.ceil(sorted.length * (1 - butFor)) - 1;
        return at < 0 || Double.isInfinite(sorted[at]) ? OptionalDouble.empty() : OptionalDouble.of(sorted[at]);
    }

    /** By the rays of a place, which promise more than is had in practice, and by what its GSD is good for at best. */
    private double heightGoodToM(int at) {
        return Math.max(proof.sigmaVerticalM()[at], flown.heightAtBestM(gsdM[at]));
    }

    private double positionGoodToM(int at) {
        return Math.max(proof.sigmaHorizontalM()[at] / Math.sqrt(2), flown.positionAtBestM(gsdM[at]));
    }

    /** Share of the block that is given enough, 0..1; unknown ground is part of the block and never given enough. */
    public double share() {
        return share(Adequacy.ENOUGH);
    }

    /** Share of the block that is judged so, 0..1. */
    public double share(Adequacy judged) {
        long so = 0;
        for (byte cell : cells) {
            so += cell == judged.ordinal() ? 1 : 0;
        }
        return so / Math.max(1.0, inside());
    }

    /** Cells of the block, known or not. */
    private long inside() {
        long inside = 0;
        for (byte cell : cells) {
            inside += cell == Adequacy.OUTSIDE.ordinal() ? 0 : 1;
        }
        return inside;
    }

    /** The answer in two words; the share says the rest. */
    public String verdict() {
        double unknown = share(Adequacy.UNKNOWN);
        if (unknown > 0) {
            return "not proved, the ground of " + Shares.percent(unknown) + " is unknown";
        }
        return share() > ADEQUATE ? "adequate" : share() > NEARLY ? "adequate but for weak spots" : "not adequate";
    }

    private boolean weak(int at) {
        return cells[at] != Adequacy.ENOUGH.ordinal() && !nothingKnown(at);
    }

    private boolean nothingKnown(int at) {
        return !at(at).known();
    }

    /**
     * Weak ground too small or too much of it to be listed.
     *
     * @param count how many pieces
     * @param areaM2 of all of them together
     */
    public record Specks(int count, double areaM2) {}

    /** What is weak besides the {@linkplain #spots() spots}. */
    public Specks specks() {
        return specks;
    }

    /**
     * The first cell that is judged so, in the block's plane.
     *
     * @throws IllegalArgumentException when there is none
     */
    public PlanePoint anyPlace(Adequacy judged) {
        for (int at = 0; at < cells.length; at++) {
            if (at(at) == judged) {
                return place(at);
            }
        }
        throw new IllegalArgumentException("no cell is judged " + judged);
    }

    /** The largest pieces of weak ground, the largest first. */
    public List<WeakGround> spots() {
        return spots;
    }

    private List<WeakGround> largestSpots() {
        List<Piece> found = new ArrayList<>(
                Pieces.of(proof.columns(), proof.rows(), at -> weak(at) ? cells[at] : Pieces.NONE).stream()
                        .map(this::piece)
                        .toList());
        found.sort(Comparator.comparingInt(Piece::size).reversed());
        double least = Math.max(LEAST_SPOT_M2, LEAST_SPOT * proof.asked() * cellM2());
        int listed = 0;
        while (listed < Math.min(MOST_SPOTS, found.size()) && found.get(listed).size() * cellM2() >= least) {
            listed++;
        }
        List<Piece> left = found.subList(listed, found.size());
        specks = new Specks(left.size(), left.stream().mapToInt(Piece::size).sum() * cellM2());
        return found.subList(0, listed).stream().map(this::spot).toList();
    }

    private double cellM2() {
        return proof.grid().cellX() * proof.grid().cellY();
    }

    /**
     * Cells that lie together and lack the same.
     *
     * @param edge whether the block ends next to one of them
     * @param worst the cell that has least of what they lack
     */
    private record Piece(Adequacy lack, int[] cells, boolean edge, int worst) {
        int size() {
            return cells.length;
        }
    }

    private Piece piece(int[] found) {
        Adequacy lack = at(found[0]);
        boolean edge = found.length < proof.asked() * NEARLY_ALL
                && Arrays.stream(found).anyMatch(this::atEdge);
        int worst = Arrays.stream(found)
                .reduce((worse, at) -> worse(lack, at, worse) ? at : worse)
                .orElseThrow();
        return new Piece(lack, found, edge, worst);
    }

    /** Whether the block ends next to a cell. */
    private boolean atEdge(int at) {
        int column = at % proof.columns();
        int row = at / proof.columns();
        return column == 0
                || row == 0
                || column == proof.columns() - 1
                || row == proof.rows() - 1
                || nothingKnown(at - 1)
                || nothingKnown(at + 1)
                || nothingKnown(at - proof.columns())
                || nothingKnown(at + proof.columns());
    }

    private boolean worse(Adequacy lack, int at, int other) {
        return lack == Adequacy.TOO_COARSE ? gsdM[at] > gsdM[other] : proof.counts()[at] < proof.counts()[other];
    }

    private WeakGround spot(Piece piece) {
        PlanePoint worst = place(piece.worst());
        return new WeakGround(
                cause(piece),
                piece.size() * cellM2(),
                worst.xM(),
                worst.yM(),
                proof.counts()[piece.worst()],
                piece.cells());
    }

    private PlanePoint place(int at) {
        return new PlanePoint(proof.grid().x(at % proof.columns()), proof.grid().y(at / proof.columns()));
    }

    /**
     * What keeps a result from being as good as was asked: where positions or pixels alone forbid it, more rays do not help.
     *
     * @param photosM how well the photos' positions are known
     * @param atBestM what a GSD gives at best
     */
    private WeakGround.Cause notGoodEnough(
            Piece piece, OptionalDouble asked, double photosM, DoubleUnaryOperator atBestM) {
        double most = asked.orElse(Double.POSITIVE_INFINITY);
        if (RuleOfThumb.gsdM(1, most, photosM).isEmpty()) {
            return WeakGround.Cause.UNSURE_PHOTOS;
        }
        if (atBestM.applyAsDouble(flown.gsdM()) > most) {
            return WeakGround.Cause.LARGE_PIXELS;
        }
        if (atBestM.applyAsDouble(gsdM[piece.worst()]) > most) {
            return tooFar(piece);
        }
        return piece.edge() ? WeakGround.Cause.EDGE : WeakGround.Cause.WEAK_RAYS;
    }

    /** Why photos are coarser in a place than they were planned: what is said of most of its cells, by some of them. */
    private WeakGround.Cause tooFar(Piece piece) {
        int step = Math.max(1, piece.size() / CELLS_ASKED);
        Map<WeakGround.Cause, Long> said = IntStream.iterate(0, i -> i < piece.size(), i -> i + step)
                .map(i -> piece.cells()[i])
                .mapToObj(at -> flown.far().why(place(at), gsdM[at]))
                .collect(Collectors.groupingBy(
                        Function.identity(), () -> new EnumMap<>(WeakGround.Cause.class), counting()));
        return Collections.max(said.entrySet(), Map.Entry.comparingByValue()).getKey();
    }

    private WeakGround.Cause cause(Piece piece) {
        return switch (piece.lack()) {
            case HIDDEN -> WeakGround.Cause.HIDDEN_SIDE;
            case TOO_COARSE -> tooFar(piece);
            case LOW_OVERLAP -> WeakGround.Cause.HIGH_GROUND;
            case INACCURATE ->
                notGoodEnough(piece, asked.heightSigmaM(), flown.positioning().verticalM(), flown::heightAtBestM);
            case OFF ->
                notGoodEnough(piece, asked.positionSigmaM(), flown.positioning().horizontalM(), flown::positionAtBestM);
            default -> {
                boolean high = proof.gsdBestM()[piece.worst()] < flown.gsdM() * NEARER;
                yield piece.edge()
                        ? WeakGround.Cause.EDGE
                        : high ? WeakGround.Cause.HIGH_GROUND : WeakGround.Cause.GAPS;
            }
        };
    }
}
