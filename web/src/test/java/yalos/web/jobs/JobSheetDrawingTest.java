package yalos.web.jobs;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Optional;
import org.assertj.core.data.Offset;
import org.junit.jupiter.api.Test;
import yalos.core.Samples;
import yalos.core.block.Outline;
import yalos.core.kit.Aircraft;
import yalos.core.kit.Kit;
import yalos.core.pins.Pins;
import yalos.core.units.UnitChoice;
import yalos.web.store.BlockFacts;

/** The job's drawing by hand: the sheet is 900 by 420 with an edge of 40, so there is room for 820 by 340. */
class JobSheetDrawingTest {
    private static JobSheet.Listed listed(int number, Outline outline) {
        BlockFacts facts = BlockFacts.empty(
                        Optional.of(Samples.at(500, 500)),
                        1,
                        Kit.of(Aircraft.smallMultirotor(), Samples.twentyMegapixel()),
                        Pins.ofGsd(2))
                .with(outline);
        return new JobSheet.Listed(number, "block " + number, facts);
    }

    private static JobSheet sheet(UnitChoice units) {
        Outline west = Samples.square(1000);
        Outline east = Samples.outline(1100, 500, 2100, 500, 2100, 1000, 1100, 1000);
        return JobSheet.of(List.of(listed(1, west), listed(2, east)), units).orElseThrow();
    }

    /** 2100 m by 1000 m: 340 / 1000 to the metre. The south-western corner lies at 450 − 1050 · 0.34 = 93 and 210 + 500 · 0.34 = 380. */
    @Test
    void northIsUpAndAllOfItFits() {
        JobSheet sheet = sheet(UnitChoice.METRIC);
        assertThat(sheet.shapes()).extracting(JobSheet.Shape::number).containsExactly(1, 2);
        assertThat(sheet.shapes().get(0).path()).startsWith("M93.0 380.0").endsWith("Z");
        JobSheet.Shape east = sheet.shapes().get(1);
        assertThat(east.x()).isCloseTo(450 + (1600 - 1050) * 0.34, Offset.offset(0.2));
        assertThat(east.y()).as("750 m north is above the middle").isCloseTo(210 - 250 * 0.34, Offset.offset(0.2));
        assertThat(sheet.launches()).as("one place for both blocks").hasSize(1);
    }

    /** A sixth of the sheet is 441 m: 200 m are the round length below it, 1000 ft in feet. */
    @Test
    void theScaleBarIsRoundInTheOperatorsUnit() {
        JobSheet metric = sheet(UnitChoice.METRIC);
        assertThat(metric.scaleText()).isEqualTo("200 m");
        assertThat(metric.scaleWidth()).isCloseTo(200 * 0.34, Offset.offset(0.1));
        JobSheet feet = sheet(UnitChoice.FEET);
        assertThat(feet.scaleText()).isEqualTo("1000 ft");
        assertThat(feet.scaleWidth()).isCloseTo(1000 * 0.3048 * 0.34, Offset.offset(0.1));
    }

    @Test
    void withoutAnOutlineThereIsNothingToDraw() {
        assertThat(JobSheet.of(List.of(listed(1, Outline.EMPTY)), UnitChoice.METRIC))
                .isEmpty();
    }
}
