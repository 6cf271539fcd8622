package yalos.web.store;

import java.nio.charset.StandardCharsets;
import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.util.HexFormat;

/** SHA-256, in hexadecimal. */
public final class Sha256 {
    private Sha256() {}

    /** Of the text's UTF-8. */
    public static String hex(String text) {
        return hex(text.getBytes(StandardCharsets.UTF_8));
    }

    public static String hex(byte[] content) {
        return HexFormat.of().formatHex(digest().digest(content));
    }

    /** For what comes piece by piece. */
    public static MessageDigest digest() {
        try {
            return MessageDigest.getInstance("SHA-256");
        } catch (NoSuchAlgorithmException never) {
            throw new IllegalStateException(never);
        }
    }
}
