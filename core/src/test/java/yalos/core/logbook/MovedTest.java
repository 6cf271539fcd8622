package yalos.core.logbook;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.List;
import java.util.OptionalDouble;
import org.junit.jupiter.api.Test;
import yalos.core.FormulaGround;
import yalos.core.Samples;
import yalos.core.block.Outline;
import yalos.core.height.HeightChoice;
import yalos.core.pins.Pins;
import yalos.core.plan.BlockPlan;
import yalos.core.plan.GroundRequest;

/** How far photos lie from those of an earlier plan, where geometry says it: a block pushed aside, its ground raised. */
class MovedTest {
    private static final Outline FIELD = Samples.outline(0, 0, 300, 0, 300, 200, 0, 200);

    private static BlockPlan over(Outline outline, double groundM) {
        return Samples.request(outline, Pins.ofHeight(80))
                .over(new GroundRequest(
                        FormulaGround.of(5, (x, y) -> groundM),
                        HeightChoice.USUAL,
                        List.of(),
                        List.of(),
                        OptionalDouble.empty()))
                .plan();
    }

    @Test
    void theSamePlanMovesNothing() {
        Moved moved = Moved.between(over(FIELD, 200), over(FIELD, 200));
        assertThat(moved.same()).isTrue();
        assertThat(moved.words()).isEqualTo("All %,d photos are taken where they were.".formatted(moved.photos()));
    }

    /** 3 and 4 make 5; the grid's scale there is within a thousandth of one. */
    @Test
    void aBlockPushedAsideMovesAllOfThemAsFar() {
        BlockPlan pushed = over(Samples.outline(3, 4, 303, 4, 303, 204, 3, 204), 200);
        Moved moved = Moved.between(over(FIELD, 200), pushed);
        assertThat(moved.now()).isEqualTo(moved.photos());
        assertThat(moved.levelM()).isCloseTo(5, within(0.01));
        assertThat(moved.upM()).isCloseTo(0, within(1e-6));
        assertThat(moved.same()).isFalse();
        assertThat(moved.words()).contains("the farthest lies 5.0");
    }

    @Test
    void raisedGroundRaisesThemAsMuch() {
        Moved moved = Moved.between(over(FIELD, 200), over(FIELD, 207));
        assertThat(moved.levelM()).isCloseTo(0, within(1e-6));
        assertThat(moved.upM()).isCloseTo(7, within(1e-3));
        assertThat(moved.same()).isFalse();
    }

    @Test
    void whereThereAreMoreOrFewerThatIsAllThatIsSaid() {
        Moved moved = Moved.between(over(FIELD, 200), over(Samples.square(400), 200));
        assertThat(moved.same()).isFalse();
        assertThat(moved.now()).isGreaterThan(moved.photos());
        assertThat(moved.words())
                .isEqualTo(
                        "%,d photos then, %,d now: the lines are not the same.".formatted(moved.photos(), moved.now()));
    }
}
