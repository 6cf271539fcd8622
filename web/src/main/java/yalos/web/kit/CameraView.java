package yalos.web.kit;

import java.util.List;
import java.util.Locale;
import yalos.core.camera.Camera;
import yalos.core.camera.GroundScale;
import yalos.core.units.Unit;
import yalos.core.units.UnitChoice;
import yalos.core.units.UnitKind;
import yalos.web.store.CameraRow;

/** A camera with what follows from its figures. */
public record CameraView(
        long id,
        String name,
        String pixels,
        String sensor,
        String focal,
        String pitch,
        String fieldOfView,
        String heightForTwoCm,
        String interval,
        String shutter,
        List<String> doubts) {

    static CameraView of(CameraRow row, UnitChoice units) {
        return of(row.id(), row.camera(), units);
    }

    static CameraView of(long id, Camera camera, UnitChoice units) {
        double height = GroundScale.ofGsd(camera, 0.02).heightM();
        return new CameraView(
                id,
                camera.name(),
                camera.sensor().pixelsWide() + " × " + camera.sensor().pixelsHigh(),
                text(
                        "%.2f × %.2f mm",
                        camera.sensor().widthM() * 1000, camera.sensor().heightM() * 1000),
                text("%.2f mm", camera.focalLengthM() * 1000),
                text("%.2f µm", camera.pitchM() * 1e6),
                text(
                        "%.0f° × %.0f°",
                        Math.toDegrees(camera.fieldOfViewAcrossRad()), Math.toDegrees(camera.fieldOfViewAlongRad())),
                units.text(UnitKind.HEIGHT, height),
                UnitKind.INTERVAL.figure(camera.minIntervalS(), Unit.SECOND) + " s",
                camera.shutter().kind().words(),
                camera.doubts().stream().map(Camera.Doubt::question).toList());
    }

    private static String text(String format, Object... figures) {
        return String.format(Locale.ROOT, format, figures);
    }
}
