package yalos.web.elevation;

import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import java.util.function.LongSupplier;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.beans.factory.annotation.Value;
import org.springframework.stereotype.Component;
import org.springframework.transaction.PlatformTransactionManager;
import org.springframework.transaction.support.TransactionTemplate;
import yalos.web.shell.FirstData;
import yalos.web.store.ModelMapper;
import yalos.web.store.SafeFiles;

/** The files of models and pictures: beside the database, under the number of their row, kept with it or not at all. */
@Component
class ModelFiles implements FirstData {
    static final String MODEL = ".tif";
    static final String PICTURE = ".pic";
    static final String WORLD = ".wld";

    private static final Logger LOG = LoggerFactory.getLogger(ModelFiles.class);
    private static final Pattern FILE = Pattern.compile("(\\d{1,18})(\\.tif|\\.pic|\\.wld)");

    private final ModelMapper rows;
    private final TransactionTemplate transactions;
    private final Path folder;

    ModelFiles(ModelMapper rows, PlatformTransactionManager transactions, @Value("${yalos.data}") Path data) {
        this.rows = rows;
        this.transactions = new TransactionTemplate(transactions);
        this.folder = data.resolve("models");
    }

    Path file(long id, String ending) {
        return folder.resolve(id + ending);
    }

    /** A file written aside, in the same folder, so that it can be renamed to its place. */
    Path aside() throws IOException {
        Files.createDirectories(folder);
        return Files.createTempFile(folder, "aside", ".part");
    }

    /** What comes in, written aside. */
    Path aside(InputStream content) throws IOException {
        Path aside = aside();
        Files.copy(content, aside, StandardCopyOption.REPLACE_EXISTING);
        return aside;
    }

    /**
     * Keeps a row and its file; everything slow was done before.
     *
     * @param insert of the row, answering with its number
     * @return the number
     */
    long keep(Path aside, String ending, LongSupplier insert) {
        return transactions.execute(status -> {
            long id = insert.getAsLong();
            try {
                SafeFiles.keep(aside, file(id, ending));
            } catch (IOException e) {
                throw new UncheckedIOException(e);
            }
            return id;
        });
    }

    void delete(List<Long> ids) {
        for (long id : ids) {
            for (String ending : new String[] {MODEL, PICTURE, WORLD}) {
                try {
                    Files.deleteIfExists(file(id, ending));
                } catch (IOException e) {
                    LOG.warn("A file of a deleted job stays behind: {}", file(id, ending), e);
                }
            }
        }
    }

    /** At the start, files that no row knows go. A row without its file is said where it is used. */
    @Override
    public void write() {
        if (!Files.isDirectory(folder)) {
            return;
        }
        Set<Long> known = new HashSet<>(rows.ids());
        try (var files = Files.list(folder)) {
            for (Path file : files.toList()) {
                Matcher name = FILE.matcher(file.getFileName().toString());
                if (name.matches() && !known.contains(Long.parseLong(name.group(1)))) {
                    Files.delete(file);
                }
            }
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }
}
