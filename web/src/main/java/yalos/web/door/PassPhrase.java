package yalos.web.door;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import org.springframework.beans.factory.annotation.Value;
import org.springframework.security.crypto.bcrypt.BCryptPasswordEncoder;
import org.springframework.stereotype.Component;
import yalos.core.fault.InputFault;
import yalos.web.store.SafeFiles;

/**
 * The pass phrase of a program that is open to the network: given in a file, or made at the first start, printed once, and kept hashed in
 * the data folder.
 */
@Component
final class PassPhrase {
    private static final int LEAST_LETTERS = 12;
    /** BCrypt reads no more of a phrase. */
    private static final int MOST_BYTES = 72;

    private final BCryptPasswordEncoder encoder = new BCryptPasswordEncoder(11);
    private final String hash;

    PassPhrase(Doorway doorway, @Value("${yalos.data}") Path data, @Value("${yalos.pass-phrase-file:}") String givenIn)
            throws IOException {
        this.hash = doorway.guarded() ? hash(data.resolve("pass-phrase"), givenIn) : "";
    }

    private String hash(Path kept, String givenIn) throws IOException {
        if (!givenIn.isBlank()) {
            String given = Files.readString(Path.of(givenIn)).strip();
            if (given.length() < LEAST_LETTERS || given.getBytes(StandardCharsets.UTF_8).length > MOST_BYTES) {
                throw new InputFault(
                        "pass-phrase-file",
                        given.length() + " letters",
                        "The pass phrase in %s must have %d to %d letters."
                                .formatted(givenIn, LEAST_LETTERS, MOST_BYTES));
            }
            return encoder.encode(given);
        }
        if (Files.exists(kept)) {
            return Files.readString(kept).strip();
        }
        String phrase = Secrets.phrase();
        String made = encoder.encode(phrase);
        SafeFiles.write(kept, made.getBytes(StandardCharsets.US_ASCII));
        System.out.println("Pass phrase for everybody who signs in, shown this once: " + phrase);
        return made;
    }

    boolean is(String typed) {
        return !hash.isEmpty()
                && typed.getBytes(StandardCharsets.UTF_8).length <= MOST_BYTES
                && encoder.matches(typed.strip(), hash);
    }
}
