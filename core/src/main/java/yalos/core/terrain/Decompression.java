package yalos.core.terrain;

import java.util.Arrays;
import java.util.Optional;
import java.util.zip.DataFormatException;
import java.util.zip.Inflater;

/** Ways in which the blocks of a TIFF are packed (TIFF 6.0, 1992, and its technical notes, from memory). */
enum Decompression {
    NONE {
        @Override
        boolean unpack(byte[] packed, byte[] into) {
            if (packed.length < into.length) {
                return false;
            }
            System.arraycopy(packed, 0, into, 0, into.length);
            return true;
        }
    },
    DEFLATE {
        @Override
        boolean unpack(byte[] packed, byte[] into) {
            Inflater inflater = new Inflater();
            try {
                inflater.setInput(packed);
                int at = 0;
                while (at < into.length) {
                    int got = inflater.inflate(into, at, into.length - at);
                    if (got <= 0) {
                        return false;
                    }
                    at += got;
                }
                return true;
            } catch (DataFormatException e) {
                return false;
            } finally {
                inflater.end();
            }
        }
    },
    PACKBITS {
        @Override
        boolean unpack(byte[] packed, byte[] into) {
            int from = 0;
            int at = 0;
            while (at < into.length) {
                if (from >= packed.length) {
                    return false;
                }
                int head = packed[from++];
                if (head >= 0) {
                    int count = head + 1;
                    if (from + count > packed.length || at + count > into.length) {
                        return false;
                    }
                    System.arraycopy(packed, from, into, at, count);
                    from += count;
                    at += count;
                } else if (head != -128) {
                    int count = 1 - head;
                    if (from >= packed.length || at + count > into.length) {
                        return false;
                    }
                    Arrays.fill(into, at, at + count, packed[from++]);
                    at += count;
                }
            }
            return true;
        }
    },
    LZW {
        private static final int CLEAR = 256;
        private static final int END = 257;
        private static final int MOST_CODES = 4096;

        @Override
        boolean unpack(byte[] packed, byte[] into) {
            int[] prefix = new int[MOST_CODES];
            byte[] suffix = new byte[MOST_CODES];
            int[] length = new int[MOST_CODES];
            for (int i = 0; i < 256; i++) {
                suffix[i] = (byte) i;
                length[i] = 1;
            }
            int next = END + 1;
            int width = 9;
            int before = -1;
            long bits = 0;
            int held = 0;
            int from = 0;
            int at = 0;
            while (at < into.length) {
                while (held < width) {
                    if (from >= packed.length) {
                        return false;
                    }
                    bits = bits << 8 | packed[from++] & 0xff;
                    held += 8;
                }
                int code = (int) (bits >> held - width) & (1 << width) - 1;
                held -= width;
                if (code == END) {
                    return false;
                }
                if (code == CLEAR) {
                    next = END + 1;
                    width = 9;
                    before = -1;
                    continue;
                }
                if (before < 0) {
                    if (code > 255) {
                        return false;
                    }
                    into[at++] = (byte) code;
                    before = code;
                    continue;
                }
                if (code > next || next >= MOST_CODES && code >= next) {
                    return false;
                }
                if (next < MOST_CODES) {
                    prefix[next] = before;
                    length[next] = length[before] + 1;
                    suffix[next] = first(code == next ? before : code, prefix, suffix);
                    next++;
                }
                int count = length[code];
                int walk = code;
                for (int i = at + count - 1; i >= at; i--) {
                    if (i < into.length) {
                        into[i] = suffix[walk];
                    }
                    walk = prefix[walk];
                }
                at += count;
                before = code;
                if (next + 1 >= 1 << width && width < 12) {
                    width++;
                }
            }
            return true;
        }

        private byte first(int code, int[] prefix, byte[] suffix) {
            int walk = code;
            while (walk > 255) {
                walk = prefix[walk];
            }
            return suffix[walk];
        }
    };

    /** Fills a block; answers false for data that is damaged or too short. */
    abstract boolean unpack(byte[] packed, byte[] into);

    /** Of the tag's value; empty for one that is not read. */
    static Optional<Decompression> ofTag(int tag) {
        return switch (tag) {
            case 1 -> Optional.of(NONE);
            case 5 -> Optional.of(LZW);
            case 8, 32946 -> Optional.of(DEFLATE);
            case 32773 -> Optional.of(PACKBITS);
            default -> Optional.empty();
        };
    }
}
