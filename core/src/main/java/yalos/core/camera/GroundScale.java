package yalos.core.camera;

/**
 * What a vertical photo shows of level ground from one height: {@code GSD = p · H / f} and the footprint.
 *
 * <p>Wolf, Dewitt and Wilkinson, <i>Elements of Photogrammetry with Applications in GIS</i> (from memory). Exact for
 * level ground and an undistorted lens.
 *
 * @param camera the camera
 * @param heightM height above <em>that</em> ground, in metres
 */
public record GroundScale(Camera camera, double heightM) {

    /** The scale at which the camera's {@linkplain Camera#pitchM() pitch} covers the given length of ground. */
    public static GroundScale ofGsd(Camera camera, double gsdM) {
        return new GroundScale(camera, gsdM * camera.focalLengthM() / camera.pitchM());
    }

    /** The scale at which the footprint across the strip has the given width in metres. */
    public static GroundScale ofFootprintAcross(Camera camera, double acrossM) {
        return new GroundScale(camera, acrossM * camera.focalLengthM() / camera.sideAcrossM());
    }

    /** Ground covered by one pixel, in metres; the coarser of the axes where the pixels are not square. */
    public double gsdM() {
        return camera.pitchM() * heightM / camera.focalLengthM();
    }

    /** Ground covered by one pixel along the image's width, in metres. */
    public double gsdWideM() {
        double pitch = camera.sensor().squarePixels()
                ? camera.pitchM()
                : camera.sensor().pitchWideM();
        return pitch * heightM / camera.focalLengthM();
    }

    /** Ground covered by one pixel along the image's height, in metres. */
    public double gsdHighM() {
        double pitch = camera.sensor().squarePixels()
                ? camera.pitchM()
                : camera.sensor().pitchHighM();
        return pitch * heightM / camera.focalLengthM();
    }

    /** Ground covered by one pixel across the strip, in metres. */
    public double gsdAcrossM() {
        return camera.mount() == Mount.WIDTH_ACROSS ? gsdWideM() : gsdHighM();
    }

    /** Ground covered by one pixel along the strip, in metres: the axis in which motion blurs. */
    public double gsdAlongM() {
        return camera.mount() == Mount.WIDTH_ACROSS ? gsdHighM() : gsdWideM();
    }

    /** Ground width of a photo across the strip, edge to edge, in metres. */
    public double footprintAcrossM() {
        return camera.sideAcrossM() * heightM / camera.focalLengthM();
    }

    /** Ground length of a photo along the strip, edge to edge, in metres. */
    public double footprintAlongM() {
        return camera.sideAlongM() * heightM / camera.focalLengthM();
    }
}
