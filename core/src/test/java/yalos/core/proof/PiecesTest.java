package yalos.core.proof;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.Arrays;
import java.util.List;
import org.junit.jupiter.api.Test;

class PiecesTest {
    /** Rows of a drawing: a letter is a kind, a dot is none. */
    private static List<int[]> pieces(String... rows) {
        String cells = String.join("", rows);
        return Pieces.of(rows[0].length(), rows.length, at -> cells.charAt(at) == '.' ? Pieces.NONE : cells.charAt(at));
    }

    private static List<Integer> sizes(List<int[]> pieces) {
        return pieces.stream().map(piece -> piece.length).toList();
    }

    @Test
    void aCellBetweenJoinsAndTwoPart() {
        assertThat(sizes(pieces("a.a..a"))).containsExactly(2, 1);
        assertThat(sizes(pieces("a..", "...", "..a"))).as("across a corner").containsExactly(2);
    }

    @Test
    void kindsArePiecesOfTheirOwnThoughTheyLieTogether() {
        List<int[]> pieces = pieces("aab", "abb");
        assertThat(sizes(pieces)).containsExactly(3, 3);
        assertThat(Arrays.stream(pieces.get(0)).sorted()).containsExactly(0, 1, 3);
    }

    @Test
    void theEndOfARowDoesNotTouchTheNext() {
        assertThat(sizes(pieces("...a", "....", "....", "a..."))).containsExactly(1, 1);
        assertThat(pieces("....", "....")).isEmpty();
    }
}
