package yalos.core.day;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.EnumSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.junit.jupiter.api.Test;
import yalos.core.Samples;
import yalos.core.brief.Brief;
import yalos.core.kit.Aircraft;
import yalos.core.kit.Kit;
import yalos.core.kit.Payload;
import yalos.core.kit.Scanner;

/** Lines of a checklist as anybody writes them, and the list that a job brings by itself. */
class CheckListTest {
    private static List<CheckList.Check> read(String... lines) {
        return CheckList.read(List.of(lines), Map.of("return height", "84 m", "photos", "1,240"));
    }

    @Test
    void aLineTellsWhoWhatHowLongAndWhichFigure() {
        List<CheckList.Check> checks = read(
                "# At the car",
                "pilot: Return height {return height}",
                "SECOND: Base logs (60 s)",
                "# Panel",
                "Panel photographed (6 shots)",
                "both: {nothing known} of {photos}");
        assertThat(checks)
                .containsExactly(
                        new CheckList.Check(
                                "At the car", CheckList.Who.PILOT, "Return height 84 m", 0, 0, "return height"),
                        new CheckList.Check("At the car", CheckList.Who.SECOND, "Base logs (60 s)", 60, 0, ""),
                        new CheckList.Check("Panel", CheckList.Who.BOTH, "Panel photographed (6 shots)", 0, 6, ""),
                        new CheckList.Check(
                                "Panel",
                                CheckList.Who.BOTH,
                                "(nothing known: not known yet) of 1,240",
                                0,
                                0,
                                "photos"));
    }

    @Test
    void signsOfExpressionsAreOnlyText() {
        assertThat(read("cost $1 \\ {return height} (999999999 s)").get(0).text())
                .isEqualTo("cost $1 \\ 84 m (999999999 s)");
        assertThat(read("cost (999999999 s)").get(0).seconds()).isZero();
        assertThat(read("# only a heading", "pilot:")).isEmpty();
    }

    @Test
    void aScannersListHoldsStillAndFliesEights() {
        Kit camera = Kit.of(Aircraft.smallMultirotor(), Samples.twentyMegapixel());
        Kit scanner = camera.with(
                new Payload(camera.payload().heads(), Optional.of(new Scanner("scanner", 1.2, 240_000, 0.6, 190))));
        String flown = String.join("\n", CheckList.standard(Brief.EMPTY, scanner, true));
        assertThat(flown).contains("Still on the ground, switched on").contains("figures of eight");
        String photographed = String.join("\n", CheckList.standard(Brief.EMPTY, camera, true));
        assertThat(photographed)
                .doesNotContain("figures of eight")
                .contains("{return height}")
                .contains("(1 shot)");
        assertThat(String.join("\n", CheckList.standard(Brief.EMPTY, camera, false)))
                .contains("Flown without satellites")
                .doesNotContain("Satellites enough");
        String wing = String.join(
                "\n", CheckList.standard(Brief.EMPTY, Kit.of(Aircraft.smallWing(), Samples.twentyMegapixel()), true));
        assertThat(wing).contains("Surfaces move").doesNotContain("Rotors");
    }

    @Test
    void anEditRaisesTheEditionAndNothingElseDoes() {
        Papers papers = Papers.EXAMPLE.withChecks(List.of("gate shut"));
        assertThat(papers.edition()).isEqualTo(2);
        assertThat(papers.withChecks(List.of("gate shut")).edition()).isEqualTo(2);
        assertThat(papers.with(EnumSet.of(PackPart.DAY), Papers.Sheet.LETTER).edition())
                .isEqualTo(2);
        assertThat(Papers.card("Farm: ring at the door").get(0).what()).isEqualTo("Farm");
    }
}
