package yalos.core.take;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.time.Duration;
import java.time.Instant;
import java.util.Arrays;
import java.util.List;
import java.util.zip.GZIPInputStream;
import org.junit.jupiter.api.DynamicTest;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.TestFactory;
import yalos.core.Reference;
import yalos.core.fault.InputFault;

/** Reference section 18: logs written from the published formats, their epochs counted by another reader. */
class BaseLogTest {
    /** First and last photo of role planned in take_expected.csv. */
    private static final Instant FIRST = Instant.parse("2026-06-18T08:14:59.887Z");

    private static final Instant LAST = Instant.parse("2026-06-18T08:16:37.930Z");

    @TestFactory
    List<DynamicTest> everyLogIsReadOrRefused() {
        return Reference.rows("rinex_expected.csv")
                .map(row -> DynamicTest.dynamicTest(row.text("file"), () -> {
                    if (row.text("expected").startsWith("refuse")) {
                        refused(row);
                    } else {
                        read(row);
                    }
                }))
                .toList();
    }

    private static BaseLog log(String file) throws IOException {
        return BaseLog.read(new ByteArrayInputStream(Reference.bytes("rinex/" + file)));
    }

    private static void refused(Reference.Row row) throws IOException {
        if (row.text("expected").startsWith("refuse or warn")) {
            assertThat(log(row.text("file")).doubts()).isNotEmpty();
            return;
        }
        assertThatThrownBy(() -> log(row.text("file"))).isInstanceOf(InputFault.class);
    }

    private static void read(Reference.Row row) throws IOException {
        BaseLog log = log(row.text("file"));

        assertThat(log.version()).isEqualTo(row.text("version"));
        assertThat(log.marker()).isEqualTo(row.text("marker"));
        assertThat(log.systems().chars().sorted().toArray())
                .isEqualTo(row.text("systems").chars().sorted().toArray());
        same(log.first(), row.text("first_epoch_gps"));
        same(log.last(), row.text("last_epoch_gps"));
        assertThat(log.headerIntervalS().isPresent()).isEqualTo(!row.isEmpty("interval_header_s"));
        assertThat(log.intervalS()).isCloseTo(row.number("interval_median_s"), within(1e-3));
        assertThat(log.times()).hasSize(row.whole("epochs"));
        assertThat(log.gaps()).isEqualTo(row.whole("gaps"));
        assertThat(log.longestStep().orElseThrow().seconds()).isCloseTo(row.number("longest_step_s"), within(1e-3));
        if (!row.isEmpty("longest_step_from_gps")) {
            same(log.longestStep().orElseThrow().from(), row.text("longest_step_from_gps"));
        }
        assertThat(log.fewest()).isEqualTo(row.whole("satellites_min"));
        assertThat(log.most()).isEqualTo(row.whole("satellites_max"));
        assertThat(log.antenna().isPresent()).isEqualTo(!row.isEmpty("antenna_h_m"));
        log.antenna().ifPresent(heights -> {
            assertThat(heights[0]).isEqualTo(row.number("antenna_h_m"));
            assertThat(heights[1]).isEqualTo(row.number("antenna_e_m"));
            assertThat(heights[2]).isEqualTo(row.number("antenna_n_m"));
        });
        assertThat(log.receiver()).isEqualTo(row.text("receiver_type"));
        assertThat(log.antennaType()).isEqualTo(row.text("antenna_type"));
        assertThat(log.at().isPresent()).isEqualTo(!row.isEmpty("lat_deg"));
        log.at().ifPresent(at -> {
            assertThat(at.place().at().latDeg()).isCloseTo(row.number("lat_deg"), within(1e-8));
            assertThat(at.place().at().lonDeg()).isCloseTo(row.number("lon_deg"), within(1e-8));
            assertThat(at.place().ellipsoidM()).isCloseTo(row.number("height_ellipsoid_m"), within(0.001));
        });
        double[] margins = log.marginsS(FIRST, LAST);
        assertThat(margins[0]).isCloseTo(row.number("margin_before_s"), within(0.001));
        assertThat(margins[1]).isCloseTo(row.number("margin_after_s"), within(0.001));
        assertThat(log.doubts().isEmpty()).isEqualTo(row.text("expected").equals("ok"));
    }

    private static void same(Instant found, String text) {
        assertThat(Math.abs(Duration.between(found, Instant.parse(text + "Z")).toMillis()))
                .isLessThanOrEqualTo(1);
    }

    @Test
    void aLogCutAnywhereIsReadAsFarAsItGoesOrRefused() throws IOException {
        byte[] whole = Reference.bytes("rinex/base0020.26o.gz");
        byte[] plain = new GZIPInputStream(new ByteArrayInputStream(whole)).readAllBytes();
        for (int length = 0; length < 12_000; length += 97) {
            readOrRefused(Arrays.copyOf(plain, length));
        }
        for (int length = 0; length < whole.length; length += length < 40 ? 1 : 997) {
            readOrRefused(Arrays.copyOf(whole, length));
        }
    }

    private static void readOrRefused(byte[] cut) throws IOException {
        try {
            assertThat(BaseLog.read(new ByteArrayInputStream(cut)).times()).isNotEmpty();
        } catch (InputFault told) {
            assertThat(told.getMessage()).isNotBlank();
        }
    }

    @Test
    void oneEndlessLineIsRefused() {
        assertThatThrownBy(() -> BaseLog.read(
                        new ByteArrayInputStream("x".repeat(100_000).getBytes(StandardCharsets.US_ASCII))))
                .isInstanceOf(InputFault.class)
                .hasMessageContaining("longer");
    }
}
