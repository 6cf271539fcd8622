package yalos.web.door;

import java.security.SecureRandom;
import java.util.Base64;
import yalos.web.store.Sha256;

/** Random tokens, and what is kept of them. */
final class Secrets {
    private static final SecureRandom RANDOM = new SecureRandom();
    /** Without letters that are taken for one another. */
    private static final String LETTERS = "abcdefghjkmnpqrstuvwxyz23456789";

    private Secrets() {}

    /** 256 random bits as text for a cookie or a header. */
    static String token() {
        byte[] bytes = new byte[32];
        RANDOM.nextBytes(bytes);
        return Base64.getUrlEncoder().withoutPadding().encodeToString(bytes);
    }

    /** A pass phrase to be typed: four times five letters, about 99 random bits. */
    static String phrase() {
        StringBuilder phrase = new StringBuilder();
        for (int i = 0; i < 20; i++) {
            phrase.append(i > 0 && i % 5 == 0 ? "-" : "").append(LETTERS.charAt(RANDOM.nextInt(LETTERS.length())));
        }
        return phrase.toString();
    }

    /** SHA-256 of a random token: enough, since nobody can try 2^256 of them. */
    static String hash(String token) {
        return Sha256.hex(token);
    }
}
