package yalos.bench;

import java.util.List;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.stream.IntStream;
import yalos.core.block.Outline;
import yalos.core.camera.Camera;
import yalos.core.camera.Mount;
import yalos.core.camera.Sensor;
import yalos.core.camera.Shutter;
import yalos.core.geodesy.EastNorth;
import yalos.core.geodesy.Grid;
import yalos.core.geodesy.LonLat;
import yalos.core.kit.Aircraft;
import yalos.core.kit.Kit;
import yalos.core.pins.Pins;
import yalos.core.pins.Quantity;
import yalos.core.plan.PlanRequest;
import yalos.core.units.Measure;
import yalos.core.units.Unit;

/** The blocks that are measured. Invented. */
final class Samples {
    private static final Grid GRID = Grid.ofEpsg(32630);

    private Samples() {}

    static Camera camera() {
        return new Camera(
                "20-megapixel 4/3-inch camera",
                Sensor.ofMillimetres(5280, 3956, 17.3, 13.0),
                12.29e-3,
                Shutter.mechanical(),
                0.7,
                Mount.WIDTH_ACROSS,
                Camera.Storage.of(10, 128, 100_000));
    }

    /** A concave block of seven corners whose plan has about 1,500 stations. */
    static PlanRequest block(boolean fixedDirection) {
        double[] corners = {0, 0, 860, 40, 980, 520, 700, 700, 560, 520, 300, 780, -60, 500};
        Pins pins = Pins.ofGsd(1.8);
        if (fixedDirection) {
            pins = pins.with(Quantity.DIRECTION, Measure.of(35, Unit.DEGREE));
        }
        return request(corners, pins);
    }

    /** A square kilometre with about 1,500 photos. */
    static PlanRequest squareKilometre() {
        Pins pins = Pins.ofGsd(2.44).with(Quantity.DIRECTION, Measure.of(20, Unit.DEGREE));
        return request(new double[] {0, 0, 1000, 0, 1000, 1000, 0, 1000}, pins);
    }

    private static PlanRequest request(double[] corners, Pins pins) {
        List<LonLat> ring = IntStream.range(0, corners.length / 2)
                .mapToObj(i -> GRID.toLonLat(new EastNorth(412_000 + corners[2 * i], 6_041_000 + corners[2 * i + 1])))
                .toList();
        return new PlanRequest(
                Kit.of(Aircraft.smallMultirotor(), camera()),
                pins,
                Outline.ofRing(ring),
                Optional.of(ring.get(0)),
                OptionalInt.of(32630));
    }
}
