package yalos.core.camera;

/** Which side of the image lies across the strip. Usually the long one, for the widest strip spacing. */
public enum Mount {
    /** The image's width lies across the strip, its height along it. */
    WIDTH_ACROSS,
    /** The camera is turned by a quarter: the image's height lies across the strip. */
    HEIGHT_ACROSS
}
