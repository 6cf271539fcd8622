package yalos.web.door;

import java.util.regex.Pattern;

/** How much may be sent where: small files stay small, only elevation models and pictures may be as large as the server takes. */
final class UploadLimits {
    private static final long LARGE_BYTES = 2L << 30;
    /** 20 MB of file with the form round it. */
    private static final long SMALL_BYTES = 22_000_000;

    private static final Pattern LARGE =
            Pattern.compile("/blocks/\\d+/(models|picture|take/[a-z-]+)|/maps/file|/jobs/archive|/api/coverage");

    private UploadLimits() {}

    /** The most that a path takes. */
    static long mostBytes(String path) {
        return LARGE.matcher(path).matches() ? LARGE_BYTES : SMALL_BYTES;
    }

    /** What to say of more. */
    static String tooMuch(String path) {
        return LARGE.matcher(path).matches()
                ? "The file is larger than 2 GB. Cut it to the site, or resample it more coarsely; a map of any size can be laid into the data folder."
                : "The file is larger than 20 MB. An outline needs a few kB: export the boundary alone, without pictures.";
    }
}
