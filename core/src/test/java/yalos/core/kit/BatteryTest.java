package yalos.core.kit;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.Optional;
import org.assertj.core.data.Offset;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import yalos.core.Samples;
import yalos.core.pins.Pins;
import yalos.core.pins.Quantity;
import yalos.core.plan.BlockPlan;
import yalos.core.units.Measure;
import yalos.core.units.Unit;

/** Cold takes capacity from a battery. */
class BatteryTest {
    /** 1 % for each kelvin below 20 °C, 1.5 % more below 0 °C, no less than half (common practice). */
    @ParameterizedTest
    @CsvSource({"35, 1", "20, 1", "10, 0.9", "0, 0.8", "-10, 0.65", "-20, 0.5", "-40, 0.5"})
    void coldLeavesLess(double celsius, double share) {
        assertThat(Battery.capacity(celsius + 273.15)).isCloseTo(share, Offset.offset(1e-9));
    }

    /** 30 min with a quarter in reserve carry 22.5 min at 20 °C, 18 min at freezing: a flight of 20 min takes a set more. */
    @Test
    void aColdDayTakesASetMore() {
        Battery battery = new Battery(30, Optional.empty(), 4, 0.25, 1, Optional.empty());
        assertThat(battery.usableMinutes(293.15)).isCloseTo(22.5, Offset.offset(1e-9));
        assertThat(battery.usableMinutes(273.15)).isCloseTo(18, Offset.offset(1e-9));
        BlockPlan warm = Samples.request(Samples.square(500), Pins.ofGsd(2)).plan();
        double minutes = warm.flightTimeS() / 60;
        assertThat(minutes).isBetween(12.0, 22.5);
        BlockPlan cold = Samples.request(
                        Samples.square(500), Pins.ofGsd(2).with(Quantity.TEMPERATURE, Measure.of(-20, Unit.CELSIUS)))
                .plan();
        assertThat(warm.batterySets()).isEqualTo(1);
        assertThat(cold.usableMinutes()).isCloseTo(warm.usableMinutes() / 2, Offset.offset(1e-9));
        assertThat(cold.batterySets()).isEqualTo(2);
    }
}
