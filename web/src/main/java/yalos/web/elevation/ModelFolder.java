package yalos.web.elevation;

import java.io.IOException;
import java.io.InputStream;
import java.nio.file.Path;
import org.springframework.stereotype.Component;
import yalos.web.store.SafeFiles;

/** Files of models and pictures that come with an archive. */
@Component
public class ModelFolder {
    private final ModelFiles files;

    ModelFolder(ModelFiles files) {
        this.files = files;
    }

    /** What comes in, written aside; whoever asked deletes what is left of it. */
    public Path aside(InputStream content) throws IOException {
        try (content) {
            return files.aside(content);
        }
    }

    /** Puts a file to its place, under the number of its row. A transaction that fails leaves it to the next start's sweep. */
    public void keep(Path aside, long id, String ending) throws IOException {
        SafeFiles.keep(aside, files.file(id, ending));
    }
}
