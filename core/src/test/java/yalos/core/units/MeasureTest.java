package yalos.core.units;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import org.assertj.core.data.Offset;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;
import yalos.core.fault.InputFault;

class MeasureTest {
    @ParameterizedTest
    @CsvSource({
        "80,        METRE,            80",
        "80 m,      METRE,            80",
        "260ft,     METRE,            79.248",
        "300 ft,    METRE,            91.44",
        "'1,5',     METRE,            1.5",
        "1/1000 s,  SECOND,           0.001",
        "24:40,     MINUTE,           1480",
        "1:02:30,   MINUTE,           3750",
        "25 mph,    METRE_PER_SECOND, 11.176",
        "70 %,      PERCENT,          0.7",
        "0.8in,     CENTIMETRE,       0.02032",
        "1000 ftUS, METRE,            304.8006096012192",
    })
    void readsWhatOperatorsType(String text, Unit unit, double si) {
        assertThat(Measure.typed("f", text, unit).si()).isCloseTo(si, Offset.offset(1e-9));
    }

    @Test
    void whatWasTypedInFeetStaysInFeet() {
        Measure measure = Measure.typed("height", "300 ft", Unit.METRE);
        assertThat(measure.asTyped()).isEqualTo("300 ft");
        assertThat(measure.si()).isEqualTo(91.44);
    }

    @ParameterizedTest
    @ValueSource(strings = {"", "abc", "12 kg", "1e999", "NaN", "Infinity", "1,500", "1/0 s"})
    void refusesWhatIsNoFigure(String text) {
        assertThatThrownBy(() -> Measure.typed("height", text, text.contains("s") ? Unit.SECOND : Unit.METRE))
                .isInstanceOf(InputFault.class);
    }

    @Test
    void showsFiguresAsTheLedgerDoes() {
        assertThat(UnitChoice.METRIC.text(UnitKind.GSD, 0.02)).isEqualTo("2.00 cm");
        assertThat(UnitChoice.METRIC.text(UnitKind.ANGLE, Math.toRadians(64))).isEqualTo("064°");
        assertThat(UnitChoice.METRIC.figure(UnitKind.DURATION, 1480)).isEqualTo("24:40");
        assertThat(UnitChoice.METRIC.figure(UnitKind.SHUTTER, 0.001)).isEqualTo("1/1000");
        assertThat(UnitChoice.METRIC.text(UnitKind.SHUTTER, 0.0005)).isEqualTo("1/2000 s");
        assertThat(UnitChoice.METRIC.text(UnitKind.COUNT, 6697)).isEqualTo("6,697");
        assertThat(UnitChoice.METRIC.figure(UnitKind.COUNT, 6697))
                .as("as it is typed")
                .isEqualTo("6697");
        assertThat(UnitChoice.FEET.text(UnitKind.HEIGHT, 91.44)).isEqualTo("300.0 ft");
        assertThat(UnitChoice.METRIC.text(UnitKind.HEIGHT, -1234567.89)).isEqualTo("-1,234,567.9 m");
        assertThat(UnitChoice.METRIC.areaText(812)).isEqualTo("812 m²");
        assertThat(Measure.typed("h", "1,234.5 m", Unit.METRE).si()).isEqualTo(1234.5);
        assertThat(Measure.typed("h", "-1,234,567 ft", Unit.METRE).figure()).isEqualTo(-1234567);
        assertThat(UnitChoice.FEET.text(UnitKind.SPEED, 10)).isEqualTo("22.4 mph");
    }

    /** Fahrenheit and Celsius meet at -40; water freezes at 32 °F. */
    @Test
    void temperaturesHaveTheirOwnZero() {
        assertThat(Measure.of(-40, Unit.CELSIUS).si())
                .isCloseTo(Measure.of(-40, Unit.FAHRENHEIT).si(), Offset.offset(1e-9));
        assertThat(Measure.typed("t", "32 °F", Unit.CELSIUS).si()).isCloseTo(273.15, Offset.offset(1e-9));
        assertThat(UnitChoice.METRIC.text(UnitKind.TEMPERATURE, 273.15)).isEqualTo("0 °C");
        assertThat(UnitChoice.METRIC.with(UnitKind.TEMPERATURE, Unit.FAHRENHEIT).text(UnitKind.TEMPERATURE, 293.15))
                .isEqualTo("68 °F");
    }

    @Test
    void timesAboveAnHourAreHoursAndMinutesAndCanBeTypedSo() {
        assertThat(UnitChoice.METRIC.text(UnitKind.DURATION, 4200)).isEqualTo("1 h 10 min");
        assertThat(UnitChoice.METRIC.text(UnitKind.DURATION, 3599.6)).isEqualTo("1 h 00 min");
        assertThat(Measure.typed("t", "1 h 10", Unit.MINUTE).si()).isEqualTo(4200);
        assertThat(Measure.typed("t", "2h05 min", Unit.MINUTE).si()).isEqualTo(7500);
    }

    @Test
    void aUnitOfNoneOfThePagesKeepsItsDigits() {
        assertThat(UnitKind.DISTANCE.figure(Measure.of(0.05, Unit.MILE).si(), Unit.MILE))
                .isEqualTo("0.05");
        assertThat(UnitKind.DISTANCE.figure(Measure.of(1234.5, Unit.INCH).si(), Unit.INCH))
                .isEqualTo("1235");
    }
}
