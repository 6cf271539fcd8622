package yalos.core;

import java.util.List;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.Random;
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
import yalos.core.plan.PlanRequest;

/** Made-up blocks and generic cameras that many tests share. */
public final class Samples {
    public static final Grid UTM30 = Grid.ofEpsg(32630);

    private Samples() {}

    public static Camera twentyMegapixel() {
        return camera(Sensor.ofMillimetres(5280, 3956, 17.3, 13.0), 12.29);
    }

    public static Camera camera(Sensor sensor, double focalMm) {
        return new Camera(
                "test camera",
                sensor,
                focalMm / 1000,
                Shutter.mechanical(),
                0.7,
                Mount.WIDTH_ACROSS,
                Camera.Storage.of(10, 128, 100_000));
    }

    /** An outline from eastings and northings in turn, metres from 412 000 E, 6 041 000 N in UTM 30N. */
    public static Outline outline(double... corners) {
        return Outline.ofRing(IntStream.range(0, corners.length / 2)
                .mapToObj(i -> at(corners[2 * i], corners[2 * i + 1]))
                .toList());
    }

    public static LonLat at(double east, double north) {
        return UTM30.toLonLat(new EastNorth(412_000 + east, 6_041_000 + north));
    }

    public static Outline square(double side) {
        return outline(0, 0, side, 0, side, side, 0, side);
    }

    /** A block like a thick letter U open to the north, with a hole in its foot. */
    public static Outline concaveWithHole() {
        List<LonLat> outer = outline(0, 0, 600, 0, 600, 500, 420, 500, 400, 180, 180, 200, 160, 480, 0, 500)
                .parts()
                .get(0)
                .outer();
        List<LonLat> hole =
                outline(250, 40, 350, 50, 340, 130, 260, 120).parts().get(0).outer();
        return new Outline(List.of(new Outline.Part(outer, List.of(hole))));
    }

    /** A star-shaped ring of random radii round the middle: concave, never crossing itself. */
    public static Outline random(long seed) {
        Random random = new Random(seed);
        int corners = 4 + random.nextInt(12);
        double[] ring = new double[2 * corners];
        for (int i = 0; i < corners; i++) {
            double angle = 2 * Math.PI * (i + 0.2 + 0.6 * random.nextDouble()) / corners;
            double radius = 80 + 300 * random.nextDouble();
            ring[2 * i] = 500 + radius * Math.cos(angle);
            ring[2 * i + 1] = 500 + radius * Math.sin(angle);
        }
        return outline(ring);
    }

    public static PlanRequest request(Outline outline, Pins pins) {
        return new PlanRequest(
                Kit.of(Aircraft.smallMultirotor(), twentyMegapixel()),
                pins,
                outline,
                Optional.empty(),
                OptionalInt.of(32630));
    }
}
