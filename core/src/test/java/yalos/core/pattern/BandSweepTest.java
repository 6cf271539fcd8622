package yalos.core.pattern;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.Random;
import java.util.stream.LongStream;
import org.assertj.core.data.Offset;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;
import org.locationtech.jts.geom.CoordinateXY;
import org.locationtech.jts.geom.Envelope;
import org.locationtech.jts.geom.Geometry;
import org.locationtech.jts.geom.GeometryFactory;
import org.locationtech.jts.geom.LinearRing;
import org.locationtech.jts.geom.Polygon;
import org.locationtech.jts.geom.util.AffineTransformation;
import yalos.core.Samples;
import yalos.core.block.Outline;
import yalos.core.block.PlaneBlock;
import yalos.core.geodesy.PlanePoint;

/** Strips as the general geometry library cuts them: block and band are intersected, and the shadow of the result is the strip. */
class BandSweepTest {
    private static final GeometryFactory GEOMETRY = new GeometryFactory();
    private static final Offset<Double> CLOSE = Offset.offset(1e-6);

    static LongStream seeds() {
        return LongStream.range(0, 25);
    }

    private static Polygon polygon(double[][] rings) {
        LinearRing[] holes = new LinearRing[rings.length - 1];
        for (int i = 1; i < rings.length; i++) {
            holes[i - 1] = ring(rings[i]);
        }
        return GEOMETRY.createPolygon(ring(rings[0]), holes);
    }

    private static LinearRing ring(double[] flat) {
        CoordinateXY[] corners = new CoordinateXY[flat.length / 2 + 1];
        for (int i = 0; i < corners.length; i++) {
            int at = 2 * (i % (corners.length - 1));
            corners[i] = new CoordinateXY(flat[at], flat[at + 1]);
        }
        return GEOMETRY.createLinearRing(corners);
    }

    @ParameterizedTest
    @MethodSource("seeds")
    void agreesWithTheGeometryLibrary(long seed) {
        Outline outline = seed % 5 == 0 ? Samples.concaveWithHole() : Samples.random(seed);
        double[][] rings = PlaneBlock.of(outline, Samples.UTM30).rings();
        Random random = new Random(seed);
        double direction = Math.PI * random.nextDouble();
        double spacing = 15 + 60 * random.nextDouble();
        BandSweep sweep = new BandSweep(rings, spacing, 0);
        sweep.sweep(direction);
        // turned so that the strips run along y: along is y, across is x
        Geometry turned = AffineTransformation.rotationInstance(direction).transform(polygon(rings));
        for (int band = 0; band < sweep.bands(); band++) {
            double low = sweep.middle(band) - spacing / 2;
            Geometry inside = turned.intersection(GEOMETRY.toGeometry(new Envelope(low, low + spacing, -2000, 2000)));
            double length = 0;
            for (int strip = 0; strip < sweep.strips(band); strip++) {
                length += sweep.to(band, strip) - sweep.from(band, strip);
            }
            assertThat(length).as("band %d", band).isCloseTo(shadow(inside), CLOSE);
            if (!inside.isEmpty()) {
                Envelope bounds = inside.getEnvelopeInternal();
                assertThat(sweep.from(band, 0)).isCloseTo(bounds.getMinY(), CLOSE);
                assertThat(sweep.to(band, sweep.strips(band) - 1)).isCloseTo(bounds.getMaxY(), CLOSE);
            }
        }
    }

    /** Length of the union of the pieces' shadows on the strip; a piece is connected, so its shadow has no gap. */
    private static double shadow(Geometry pieces) {
        Geometry shadows = GEOMETRY.createGeometryCollection();
        for (int i = 0; i < pieces.getNumGeometries(); i++) {
            Envelope bounds = pieces.getGeometryN(i).getEnvelopeInternal();
            if (bounds.getArea() > 0) {
                shadows = shadows.union(GEOMETRY.toGeometry(new Envelope(0, 1, bounds.getMinY(), bounds.getMaxY())));
            }
        }
        return shadows.getArea();
    }

    /** A block of 100 m by 60 m at a spacing of 25 m: 100 m across make 4 bands, 60 m make 3, centred (75 m for 60 m). */
    @Test
    void bandsAreCentredOnTheBlock() {
        double[][] ring = {{0, 0, 100, 0, 100, 60, 0, 60}};
        BandSweep sweep = new BandSweep(ring, 25, 0);
        sweep.sweep(0);
        assertThat(sweep.bands()).isEqualTo(4);
        assertThat(sweep.middle(0)).isCloseTo(12.5, CLOSE);
        assertThat(sweep.from(0, 0)).isCloseTo(0, CLOSE);
        assertThat(sweep.to(0, 0)).isCloseTo(60, CLOSE);
        PlanePoint point = sweep.point(60, 3);
        assertThat(point.xM()).isCloseTo(87.5, CLOSE);
        assertThat(point.yM()).isCloseTo(60, CLOSE);

        sweep.sweep(Math.PI / 2);
        assertThat(sweep.bands()).isEqualTo(3);
        // to the east across grows to the south: from y = 60 + 7.5 down; the first band's middle is 55 m north
        assertThat(sweep.point(0, 0).yM()).isCloseTo(55, CLOSE);
        assertThat(sweep.point(0, 2).yM()).isCloseTo(5, CLOSE);
    }

    /** A gap is flown through where it is shorter than the bridge, and splits the strip where it is longer. */
    @Test
    void aGapSplitsTheStripUnlessItIsShort() {
        double[][] two = {{0, 0, 20, 0, 20, 40, 0, 40}, {0, 70, 20, 70, 20, 100, 0, 100}};
        BandSweep split = new BandSweep(two, 20, 29.9);
        split.sweep(0);
        assertThat(split.strips(0)).isEqualTo(2);
        assertThat(split.from(0, 1) - split.to(0, 0)).isCloseTo(30, CLOSE);
        BandSweep bridged = new BandSweep(two, 20, 30.1);
        bridged.sweep(0);
        assertThat(bridged.strips(0)).isEqualTo(1);
        assertThat(bridged.to(0, 0)).isCloseTo(100, CLOSE);
    }
}
