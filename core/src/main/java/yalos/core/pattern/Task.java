package yalos.core.pattern;

import yalos.core.camera.Camera;
import yalos.core.camera.Lens;
import yalos.core.flight.FlightBuilder;
import yalos.core.flight.Pace;
import yalos.core.geodesy.PlanePoint;

/**
 * The settings of one pass that every pattern needs, whatever its shape.
 *
 * @param spacingM between neighbouring lines
 * @param baseM between neighbouring photos of a line
 * @param heightM above level ground
 * @param speedMps along lines and turns
 * @param camera that takes the photos
 */
public record Task(double spacingM, double baseM, double heightM, double speedMps, Camera camera) {

    /** The same, lines and photos so many times as far apart. */
    public Task sparser(double times) {
        return new Task(spacingM * times, baseM * times, heightM, speedMps, camera);
    }

    /** The same at another air base and speed. */
    public Task paced(double otherBaseM, double otherSpeedMps) {
        return new Task(spacingM, otherBaseM, heightM, otherSpeedMps, camera);
    }

    /** Photos a line needs so that every point of its reach lies between two of them. */
    int photosOver(double reachM) {
        return (int) Math.ceil(reachM / baseM - 1e-9) + 1;
    }

    /**
     * A line flown and photographed with these settings.
     *
     * @param pass its number, from 1
     * @param from first exposure
     * @param to last exposure
     * @param trackRad direction flown
     * @param photos evenly spread from end to end
     * @param gaze which way the camera looks
     * @param pace in what wind: a wing's nose points into it
     */
    FlightBuilder.Photographed photographed(
            int pass, PlanePoint from, PlanePoint to, double trackRad, int photos, Gaze gaze, Pace pace) {
        return new FlightBuilder.Photographed(
                pass,
                from,
                to,
                trackRad,
                heightM,
                speedMps,
                Lens.of(camera),
                gaze.look(camera, trackRad, pace.crabRad(trackRad, speedMps)),
                photos);
    }

    /** Length between the first and last photo of a line of that reach. */
    double lineLengthM(double reachM) {
        return (photosOver(reachM) - 1) * baseM;
    }
}
