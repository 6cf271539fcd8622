package yalos.core.kit;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.Optional;
import org.assertj.core.data.Offset;
import org.junit.jupiter.api.Test;
import yalos.core.fault.InputFault;

class BatteryTest {
    /** Trade figure (common practice): 42 % in 12 minutes is 28.6 minutes from full to empty. */
    @Test
    void measuredUseCountsMoreThanTheNominalFigure() {
        Battery battery = new Battery(35, Optional.empty(), 3, 0.25, 0.9, Battery.Use.typed("42 % in 12 min"));
        assertThat(battery.fullMinutes()).isCloseTo(12 / 0.42, Offset.offset(1e-9));
        assertThat(battery.usableMinutes()).isCloseTo(21.43, Offset.offset(0.01));
        assertThat(new Battery(30, Optional.empty(), 3, 0.2, 0.5, Optional.empty()).usableMinutes())
                .isCloseTo(12, Offset.offset(1e-9));
        assertThatThrownBy(() -> Battery.Use.typed("half of it"))
                .isInstanceOf(InputFault.class)
                .hasMessageContaining("42 %");
    }
}
