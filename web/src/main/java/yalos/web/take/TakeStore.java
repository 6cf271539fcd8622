package yalos.web.take;

import java.util.List;
import java.util.Map;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import yalos.core.fault.InputFault;
import yalos.core.take.Fix;
import yalos.core.take.Taken;
import yalos.web.shell.NotThere;
import yalos.web.shell.Person;
import yalos.web.store.StoredPhoto;
import yalos.web.store.TakeMapper;
import yalos.web.store.TakeMapper.DecisionRow;
import yalos.web.store.TakeMapper.FileRow;
import yalos.web.store.TakeMapper.PhotoRow;
import yalos.web.work.Recent;

/** Keeps the takes of blocks: every change is one transaction; one of the photos makes a new version, and what was decided stays with its reason. */
@Service
public class TakeStore {
    private static final int LONGEST_WHAT = 500;
    private static final int LONGEST_REASON = 300;

    private final TakeMapper rows;
    /** Photos are many and asked for with every page; they are read once for a version. */
    private final Map<Long, Loaded> loaded = Recent.map(6);

    TakeStore(TakeMapper rows) {
        this.rows = rows;
    }

    /** A photo with the number of its row. */
    public record Kept(long id, String folder, Taken photo) {}

    /** All photos of a version; whoever works from them keeps what follows under this version, not under a newer one. */
    record Loaded(long version, List<Kept> photos) {}

    /** How many photos are there. */
    int count(long block) {
        return rows.count(block);
    }

    public long version(long block) {
        return rows.version(block);
    }

    /** All photos, in the order of their names. */
    @Transactional(readOnly = true)
    public List<Kept> photos(long block) {
        return loaded(block).photos();
    }

    /** All photos, with the version that they are of, or one before. */
    @Transactional(readOnly = true)
    Loaded loaded(long block) {
        long version = rows.version(block);
        Loaded known = loaded.get(block);
        if (known == null || known.version() != version) {
            List<Kept> photos = rows.photos(block).stream()
                    .map(row -> new Kept(row.id, row.folder, StoredPhoto.taken(row)))
                    .toList();
            known = new Loaded(version, photos);
            loaded.put(block, known);
        }
        return known;
    }

    /** Keeps photos; one of the same name in the same folder is replaced. */
    @Transactional
    public void append(long block, List<PhotoRow> photos) {
        for (PhotoRow row : photos) {
            rows.drop(block, row.folder, row.name);
            rows.append(row);
        }
        rows.grow(block);
    }

    /** Keeps what was seen on pictures, with the small one of each. */
    @Transactional
    public void seen(long block, Map<PhotoRow, byte[]> seen) {
        seen.forEach((row, small) -> {
            rows.seen(row);
            if (small.length > 0) {
                rows.keepSmall(row.id, small);
            }
        });
        rows.grow(block);
    }

    /** Sets a photo aside, or takes it back; with a reason that stays. */
    @Transactional
    public void aside(long block, long photo, boolean aside, String reason) {
        if (rows.aside(block, photo, aside, cut(reason, LONGEST_REASON)) == 0) {
            throw new InputFault("photo", photo, "There is no such photo any more; reload the page.");
        }
        rows.grow(block);
        String name = rows.photo(block, photo).orElseThrow().name;
        note(
                block,
                "%s %s%s"
                        .formatted(
                                name,
                                aside ? "set aside" : "taken back",
                                reason.isBlank() ? "" : ": " + reason.strip()));
    }

    /** Keeps positions from elsewhere, by the number of the photo's row. */
    @Transactional
    public void refine(long block, Map<Long, Fix> fixes, FileRow from) {
        fixes.forEach((id, fix) -> rows.refine(id, StoredPhoto.fix(fix)));
        rows.appendFile(block, from);
        rows.grow(block);
        note(block, "%s: positions of %,d photos".formatted(from.name(), fixes.size()));
    }

    /** Takes positions from elsewhere away again. */
    @Transactional
    public void unrefine(long block, Fix.Source source) {
        for (Kept one : photos(block)) {
            if (one.photo().refined().filter(fix -> fix.source() == source).isPresent()) {
                rows.refine(one.id(), "");
            }
        }
        rows.grow(block);
        note(block, "positions %s taken away".formatted(source.words()));
    }

    /** Keeps what was found in a file. */
    @Transactional
    public void file(long block, FileRow row) {
        rows.appendFile(block, row);
        note(block, row.name() + " brought in");
    }

    /**
     * A file that came with the photos.
     *
     * @throws NotThere for none
     */
    public FileRow file(long block, long file) {
        return rows.files(block).stream()
                .filter(row -> row.id() == file)
                .findFirst()
                .orElseThrow(() -> new NotThere("That file is gone already."));
    }

    @Transactional
    public void dropFile(long block, long file) {
        if (rows.dropFile(block, file) == 0) {
            throw new InputFault("file", file, "That file is gone already.");
        }
        note(block, "file %d taken away".formatted(file));
    }

    /** Forgets all photos; the files themselves stay where they are. */
    @Transactional
    public void dropAll(long block) {
        int gone = rows.dropAll(block);
        rows.grow(block);
        note(block, "all %,d photos taken off the list".formatted(gone));
    }

    @Transactional
    public void decide(long block, DecisionRow row) {
        if (row.reason().isBlank()) {
            throw new InputFault("reason", "", "Give a reason; it stays with the decision and stands in the report.");
        }
        rows.decide(block, row);
        note(block, "%s: %s".formatted(row.about(), row.reason()));
    }

    @Transactional
    public void takeBack(long block, long decision, String why) {
        if (rows.takeBack(block, decision, cut(why.isBlank() ? "taken back" : why, LONGEST_REASON)) == 0) {
            throw new InputFault("decision", decision, "There is no such decision any more.");
        }
        note(block, "a decision taken back: " + why);
    }

    /** Writes down that something happened. */
    void note(long block, String what) {
        rows.note(block, Person.present(), cut(what, LONGEST_WHAT));
    }

    static String cut(String text, int most) {
        String plain = text.strip();
        return plain.length() > most ? plain.substring(0, most) : plain;
    }
}
