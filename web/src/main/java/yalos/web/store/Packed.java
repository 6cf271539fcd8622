package yalos.web.store;

import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.util.Base64;
import java.util.zip.Deflater;
import java.util.zip.DeflaterOutputStream;
import java.util.zip.Inflater;
import java.util.zip.InflaterInputStream;

/**
 * Facts packed into text (deflate, RFC 1951, with a dictionary of what facts usually hold, in base 64): a change takes some hundred bytes. The
 * same text always packs alike.
 */
final class Packed {
    private static final String MARK = "z1:";
    private static final int MOST_BYTES = 64_000_000;
    /** Frozen like a form of facts: another dictionary is another mark. */
    private static final byte[] DICTIONARY = dictionary();

    private Packed() {}

    private static byte[] dictionary() {
        try (InputStream in = Packed.class.getResourceAsStream("/store/dictionary-1.txt")) {
            return in.readAllBytes();
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    static String of(String text) {
        ByteArrayOutputStream bytes = new ByteArrayOutputStream();
        Deflater deflater = new Deflater(Deflater.BEST_COMPRESSION, true);
        deflater.setDictionary(DICTIONARY);
        try (DeflaterOutputStream out = new DeflaterOutputStream(bytes, deflater)) {
            out.write(text.getBytes(StandardCharsets.UTF_8));
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        } finally {
            deflater.end();
        }
        return MARK + Base64.getEncoder().withoutPadding().encodeToString(bytes.toByteArray());
    }

    /**
     * The text of a packed one; any other as it stands, such as what was stored before there was packing.
     *
     * @throws Unreadable for one that is damaged, or larger than any facts are
     */
    static String plain(String stored) {
        if (!stored.startsWith(MARK)) {
            return stored;
        }
        Inflater inflater = new Inflater(true);
        inflater.setDictionary(DICTIONARY);
        try (InputStream in = new InflaterInputStream(
                new ByteArrayInputStream(Base64.getDecoder().decode(stored.substring(MARK.length()))), inflater)) {
            byte[] bytes = in.readNBytes(MOST_BYTES + 1);
            if (bytes.length > MOST_BYTES) {
                throw new Unreadable("It is larger than any facts are.");
            }
            return new String(bytes, StandardCharsets.UTF_8);
        } catch (IOException | IllegalArgumentException damaged) {
            throw new Unreadable("It is damaged: " + damaged.getMessage(), damaged);
        } finally {
            inflater.end();
        }
    }
}
