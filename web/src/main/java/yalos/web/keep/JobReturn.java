package yalos.web.keep;

import java.io.EOFException;
import java.io.IOException;
import java.io.InputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.zip.ZipException;
import java.util.zip.ZipFile;
import org.springframework.jdbc.core.JdbcTemplate;
import org.springframework.stereotype.Service;
import org.springframework.transaction.PlatformTransactionManager;
import org.springframework.transaction.support.TransactionTemplate;
import tools.jackson.databind.json.JsonMapper;
import yalos.core.fault.InputFault;
import yalos.web.block.Summaries;
import yalos.web.elevation.ModelFolder;
import yalos.web.store.JobMapper;

/**
 * Brings an archive back as a new job: whole, or not at all. Nothing of it is believed: names, sizes, sums, numbers, facts are all looked at before the first row is kept.
 */
@Service
public class JobReturn {
    private static final JsonMapper JSON = JsonMapper.builder().build();

    private final JdbcTemplate database;
    private final TransactionTemplate transaction;
    private final ModelFolder models;
    private final ArchiveCheck check;
    private final JobMapper jobs;
    private final Summaries summaries;

    JobReturn(
            JdbcTemplate database,
            PlatformTransactionManager transactions,
            ModelFolder models,
            ArchiveCheck check,
            JobMapper jobs,
            Summaries summaries) {
        this.database = database;
        this.transaction = new TransactionTemplate(transactions);
        this.models = models;
        this.check = check;
        this.jobs = jobs;
        this.summaries = summaries;
    }

    /**
     * What came of it.
     *
     * @param name under which it is kept
     * @param renamed whether there was a job of its name already
     * @param copies flights that stood in the log already, whose copies count no hours
     */
    public record Brought(long job, String name, boolean renamed, int blocks, int copies) {}

    /**
     * @throws InputFault for what is no archive, a newer one, one that was changed or is not whole; nothing is kept then
     */
    public Brought bring(Path file, JobArchive.Going going) throws IOException {
        try (ZipFile zip = new ZipFile(file.toFile())) {
            Map<String, Manifest.Part> parts = check.parts(zip, going);
            Map<String, Path> aside = new LinkedHashMap<>();
            try {
                for (String name : parts.keySet()) {
                    if (name.startsWith("models/")) {
                        going.check();
                        aside.put(name, models.aside(stream(zip, name)));
                    }
                }
                Brought brought =
                        transaction.execute(kept -> new ArchiveRows(database, models, zip, aside, going).read());
                jobs.blocksOf(brought.job())
                        .forEach(block -> block.readable().ifPresent(facts -> summaries.keep(block.facts(), facts)));
                return brought;
            } finally {
                for (Path one : aside.values()) {
                    Files.deleteIfExists(one);
                }
            }
        } catch (EOFException | ZipException broken) {
            throw new InputFault("file", broken.getMessage(), "The file is no zip, or it was cut off. Copy it again.");
        }
    }

    static InputStream stream(ZipFile zip, String name) throws IOException {
        return zip.getInputStream(zip.getEntry(name));
    }
}
