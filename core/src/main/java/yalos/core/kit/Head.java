package yalos.core.kit;

import yalos.core.camera.Camera;
import yalos.core.fault.InputFault;

/**
 * One of the cameras that a payload releases together.
 *
 * @param name what the head is for, such as {@code near infrared}
 * @param camera with the lens in use
 * @param leastHeightM below which its pictures no longer serve, such as bands that no longer register; 0 for none
 * @param filesPerCapture files it writes at each release, one for each band or format
 */
public record Head(String name, Camera camera, int filesPerCapture, double leastHeightM) {
    public Head {
        InputFault.within("filesPerCapture", filesPerCapture, 1, 50, "files");
        InputFault.within("leastHeightM", leastHeightM, 0, 500, "m");
    }

    /** The only head of a payload with one camera. */
    public static Head of(Camera camera) {
        return new Head("camera", camera, 1, 0);
    }
}
