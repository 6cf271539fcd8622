package yalos.core.energy;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.stream.Stream;
import org.assertj.core.data.Offset;
import org.assertj.core.data.Percentage;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;
import yalos.core.Reference;

/** Against the independent reference: 40 digits, golden section, roots of polynomials. */
class PowerTest {
    private static final Percentage CLOSE = Percentage.withPercentage(1e-6);

    static Stream<Reference.Row> craft() {
        return Reference.rows("rotor_power.csv");
    }

    static Stream<Reference.Row> fits() {
        return Reference.rows("fit.csv").filter(row -> row.whole("b_solvable") == 1);
    }

    @ParameterizedTest
    @MethodSource("craft")
    void powerIsThatOfTheReference(Reference.Row row) {
        RotorCraft craft = new RotorCraft(
                row.number("mass_kg"),
                row.whole("rotors"),
                row.number("rotor_radius_m"),
                row.number("air_density_kg_m3"),
                row.number("drag_area_m2"),
                row.number("solidity"),
                row.number("cd0"),
                row.number("tip_speed_m_s"));
        RotorCraft.Power power = craft.at(row.number("airspeed_m_s"));
        assertThat(craft.discAreaM2()).isCloseTo(row.number("disc_area_m2"), CLOSE);
        assertThat(power.inducedMps()).isCloseTo(row.number("induced_velocity_m_s"), CLOSE);
        assertThat(power.inducedW()).isCloseTo(row.number("induced_power_w"), CLOSE);
        assertThat(power.parasiteW()).isCloseTo(row.number("parasite_power_w"), Offset.offset(1e-6));
        assertThat(power.profileW()).isCloseTo(row.number("profile_power_w"), CLOSE);
        assertThat(power.totalW()).isCloseTo(row.number("total_power_w"), CLOSE);
        assertThat(craft.slowestPowerMps()).isCloseTo(row.number("speed_least_power_m_s"), Offset.offset(1e-4));
        assertThat(craft.bestRangeMps()).isCloseTo(row.number("speed_best_range_m_s"), Offset.offset(1e-4));
    }

    @ParameterizedTest
    @MethodSource("fits")
    void aCurveGoesThroughTheThreeFigures(Reference.Row row) {
        double hover = row.number("usable_energy_wh") * 3600 / row.number("hover_endurance_s");
        double least = row.number("usable_energy_wh") * 3600 / row.number("longest_endurance_s");
        double speed = row.number("speed_longest_endurance_m_s");
        PowerCurve curve = PowerCurve.through(hover, least, speed, row.number("b_induced_share"));
        assertThat(curve.at(0)).isCloseTo(hover, CLOSE);
        assertThat(curve.at(speed)).isCloseTo(least, CLOSE);
        assertThat(curve.at(speed * 0.99)).isGreaterThan(least);
        assertThat(curve.at(speed * 1.01)).isGreaterThan(least);
        assertThat(curve.hoverMps()).isCloseTo(row.number("b_vh_m_s"), CLOSE);
        assertThat(curve.dragWs3M3()).isCloseTo(row.number("b_k_w_s3_m3"), CLOSE);
        assertThat(curve.at(2 * speed)).isCloseTo(row.number("b_power_at_2_ve_w"), CLOSE);
        assertThat(curve.bestRangeMps(speed)).isCloseTo(row.number("b_speed_best_range_m_s"), Offset.offset(1e-5));
    }

    @Test
    void figuresThatNoRotorHasAreRefusedInASentence() {
        assertThatThrownBy(() -> PowerCurve.through(500, 520, 8, PowerCurve.USUAL_INDUCED))
                .hasMessageContaining("longer than the longest hover");
        assertThatThrownBy(() -> PowerCurve.through(500, 60, 8, PowerCurve.USUAL_INDUCED))
                .hasMessageContaining("No rotor saves so much");
    }
}
