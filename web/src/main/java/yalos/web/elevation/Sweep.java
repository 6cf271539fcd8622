package yalos.web.elevation;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.HashSet;
import java.util.Set;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Stream;
import org.springframework.beans.factory.annotation.Value;
import org.springframework.stereotype.Component;
import yalos.web.shell.FirstData;
import yalos.web.store.ModelMapper;

/** At the start: files of models and pictures that no row knows go. A row without its file is said where it is used. */
@Component
class Sweep implements FirstData {
    private static final Pattern FILE = Pattern.compile("(\\d{1,18})\\.(tif|pic|wld)");

    private final ModelMapper rows;
    private final Path folder;

    Sweep(ModelMapper rows, @Value("${yalos.data}") Path data) {
        this.rows = rows;
        this.folder = data.resolve("models");
    }

    @Override
    public void write() {
        if (!Files.isDirectory(folder)) {
            return;
        }
        Set<Long> known = new HashSet<>(rows.ids());
        try (Stream<Path> files = Files.list(folder)) {
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
