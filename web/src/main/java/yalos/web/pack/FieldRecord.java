package yalos.web.pack;

import java.time.LocalDateTime;
import java.util.List;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import yalos.core.fault.InputFault;
import yalos.web.store.FieldMapper;
import yalos.web.store.FieldMapper.NoteRow;
import yalos.web.store.FieldMapper.SignatureRow;

/** What is signed and written down in the field: appended, never changed. */
@Service
class FieldRecord {
    private static final int LONGEST_NOTE = 2000;

    private final FieldMapper rows;

    FieldRecord(FieldMapper rows) {
        this.rows = rows;
    }

    /**
     * A line signed, or taken back.
     *
     * @param line key of the line, see {@link CheckDesk#key}
     * @param reads what the aircraft showed; may be empty
     */
    record Signature(
            String line, boolean signed, String person, String note, String reads, int edition, LocalDateTime at) {}

    @Transactional
    public void sign(long block, Signature one) {
        if (one.signed() && one.person().isBlank()) {
            throw new InputFault("person", one.person(), "Who signs? Write a name.");
        }
        rows.sign(
                block,
                new SignatureRow(
                        0,
                        cut(one.line(), 300),
                        one.signed(),
                        cut(one.person(), 80),
                        cut(one.note(), 300),
                        one.at(),
                        cut(one.reads(), 60),
                        one.edition()));
    }

    List<SignatureRow> signatures(long block) {
        return rows.signatures(block);
    }

    List<NoteRow> notes(long block) {
        return rows.notes(block);
    }

    @Transactional
    public void write(long block, String text, String person, LocalDateTime at) {
        if (text.isBlank()) {
            throw new InputFault("text", text, "Write what is to be kept.");
        }
        if (text.strip().length() > LONGEST_NOTE) {
            throw new InputFault(
                    "text", "long", "A note may have up to %,d letters; cut it in two.".formatted(LONGEST_NOTE));
        }
        rows.write(block, new NoteRow(0, text.strip(), cut(person, 80), at, now()));
    }

    static LocalDateTime now() {
        return LocalDateTime.now().withNano(0);
    }

    private static String cut(String text, int most) {
        String plain = text.strip().replaceAll("[\\p{Cntrl}]+", " ");
        return plain.length() > most ? plain.substring(0, most) : plain;
    }
}
