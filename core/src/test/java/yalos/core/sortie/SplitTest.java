package yalos.core.sortie;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.Random;
import org.assertj.core.data.Offset;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/** The cut against trying every cut of small rows. */
class SplitTest {
    /** Strips of three stations each, one step apart; home lies at the place of station 0. */
    private static Split row(Random random, int n, int launches, int repeated) {
        double[] spent = new double[n];
        double[][] way = new double[launches][n];
        int[] resume = new int[n];
        boolean[] ends = new boolean[n];
        for (int i = 0; i < n; i++) {
            spent[i] = (i == 0 ? 0 : spent[i - 1]) + 0.5 + random.nextDouble();
            for (int k = 0; k < launches; k++) {
                way[k][i] = 0.3 + 2 * random.nextDouble();
            }
            int begin = i - i % 3;
            resume[i] = i == begin ? i : Math.max(begin, i - repeated);
            ends[i] = i % 3 == 2;
        }
        return new Split(spent, way, way, resume, ends);
    }

    private record Worth(int pieces, int inside, double squares) {}

    /** Every way to cut, by brute force. */
    private static Optional<Worth> best(Split split, int from, double usable) {
        int n = split.spent().length;
        if (from == n) {
            return Optional.of(new Worth(0, 0, 0));
        }
        List<Worth> found = new ArrayList<>();
        for (int launch = 0; launch < split.out().length; launch++) {
            for (int to = from; to < n; to++) {
                if (comesHome(split, from, to, launch, usable)) {
                    double takes = split.taken(new Split.Piece(from, to, launch));
                    int inside = to + 1 < n && !split.ends()[to] ? 1 : 0;
                    best(split, to + 1, usable)
                            .ifPresent(rest -> found.add(
                                    new Worth(rest.pieces + 1, rest.inside + inside, rest.squares + takes * takes)));
                }
            }
        }
        return found.stream()
                .min((a, b) -> a.pieces != b.pieces
                        ? Integer.compare(a.pieces, b.pieces)
                        : a.inside != b.inside
                                ? Integer.compare(a.inside, b.inside)
                                : Double.compare(a.squares, b.squares));
    }

    private static boolean comesHome(Split split, int from, int to, int launch, double usable) {
        int start = split.resume()[from];
        for (int p = start; p <= to; p++) {
            double left = usable - split.out()[launch][start] - (split.spent()[p] - split.spent()[start]);
            if (left < split.home()[launch][p] - 1e-12) {
                return false;
            }
        }
        return true;
    }

    @ParameterizedTest
    @ValueSource(ints = {1, 2, 3})
    void noCutIsBetter(int launches) {
        for (int seed = 0; seed < 150; seed++) {
            Random random = new Random(1000L * launches + seed);
            Split split = row(random, 5 + random.nextInt(7), launches, random.nextInt(3));
            double usable = 3 + 6 * random.nextDouble();
            Optional<Worth> best = best(split, 0, usable);
            Optional<List<Split.Piece>> cut = split.cut(usable);
            assertThat(cut.isPresent()).isEqualTo(best.isPresent());
            if (best.isEmpty()) {
                continue;
            }
            List<Split.Piece> pieces = cut.get();
            assertThat(pieces).hasSize(best.get().pieces);
            assertThat(pieces.stream()
                            .mapToDouble(piece -> split.taken(piece) * split.taken(piece))
                            .sum())
                    .isCloseTo(best.get().squares, Offset.offset(1e-9));
            assertThat(pieces).allMatch(piece -> comesHome(split, piece.from(), piece.to(), piece.launch(), usable));
            assertThat(pieces.get(0).from()).isZero();
            for (int i = 1; i < pieces.size(); i++) {
                assertThat(pieces.get(i).from()).isEqualTo(pieces.get(i - 1).to() + 1);
            }
        }
    }

    @Test
    void aStationThatIsTooFarGivesNoCut() {
        Split split = new Split(
                new double[] {0, 1, 2},
                new double[][] {{1, 9, 1}},
                new double[][] {{1, 9, 1}},
                new int[] {0, 1, 2},
                new boolean[] {true, true, true});
        assertThat(split.cut(5)).isEmpty();
    }

    @Test
    void aRowThatFitsIsNotCut() {
        Split split = row(new Random(1), 9, 1, 2);
        assertThat(split.cut(1000))
                .hasValueSatisfying(pieces -> assertThat(pieces).hasSize(1));
    }
}
