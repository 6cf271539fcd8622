package yalos.core.take;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.OptionalDouble;
import org.junit.jupiter.api.Test;
import yalos.core.block.LocalPlane;
import yalos.core.fault.InputFault;
import yalos.core.geodesy.Grid;
import yalos.core.geodesy.LonLat;

/** A log made of circles and lines of known length. */
class TrackLogTest {
    private static final LonLat ORIGIN = LonLat.of(9.4, 47.6);
    private static final LocalPlane PLANE = LocalPlane.at(Grid.utmAt(ORIGIN), ORIGIN);
    private static final Instant BEGAN = Instant.parse("2026-06-18T08:00:00Z");

    private final List<TrackLog.Moment> moments = new ArrayList<>();
    private double seconds;

    private void at(double x, double y) {
        moments.add(TrackLog.Moment.of(
                BEGAN.plusMillis(Math.round(seconds * 1000)), PLANE.toLonLat(x, y), OptionalDouble.of(500 + x)));
        seconds += 0.5;
    }

    private void still(double x, double y, double howLong) {
        for (double t = 0; t < howLong; t += 0.5) {
            at(x, y);
        }
    }

    /** A full circle of radius 15 m through the origin, at 6 m/s. */
    private void circle(int sense) {
        for (int i = 1; i <= 31; i++) {
            double turn = 2 * Math.PI * i / 31;
            at(sense * (15 - 15 * Math.cos(turn)), 15 * Math.sin(turn));
        }
    }

    @Test
    void theAlignmentOfALidarIsFound() {
        still(0, 0, 32);
        circle(1);
        circle(-1);
        for (int i = 1; i <= 16; i++) {
            at(0, 4.0 * i);
        }
        still(0, 64, 28);
        TrackLog.Aligned found = new TrackLog(moments).aligned();

        assertThat(found.stillBeforeS()).isCloseTo(32, within(1.0));
        assertThat(found.stillAfterS()).isCloseTo(28, within(1.0));
        assertThat(found.eights()).isEqualTo(1);
        assertThat(found.straightS()).isCloseTo(8, within(1.0));
    }

    @Test
    void betweenMomentsItIsOnTheStraightLine() {
        at(0, 0);
        at(10, 0);
        TrackLog log = new TrackLog(moments);
        Fix fix = log.at(BEGAN.plusMillis(125)).orElseThrow();

        assertThat(PLANE.toPlane(fix.place()).xM()).isCloseTo(2.5, within(0.001));
        assertThat(fix.upM().orElseThrow()).isCloseTo(502.5, within(0.001));
        assertThat(fix.source()).isEqualTo(Fix.Source.LOG);
        assertThat(log.at(BEGAN.minusSeconds(1))).isEmpty();
        assertThat(log.at(BEGAN.plusSeconds(1))).isEmpty();
    }

    @Test
    void inAGapNothingIsGuessed() {
        at(0, 0);
        seconds += 20;
        at(100, 0);

        assertThat(new TrackLog(moments).at(BEGAN.plusSeconds(10))).isEmpty();
    }

    @Test
    void oneMomentIsNoLog() {
        assertThatThrownBy(() -> new TrackLog(List.of())).isInstanceOf(InputFault.class);
    }
}
