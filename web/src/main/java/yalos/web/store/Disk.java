package yalos.web.store;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import org.springframework.beans.factory.annotation.Value;
import org.springframework.stereotype.Component;

/** Whether the disk under the data folder still takes changes. Asked before each, so that the database never runs into its end. */
@Component
public class Disk {
    private final Path data;
    private final long leastBytes;

    /**
     * @param leastMegabytes kept free: what the database writes while it tidies up
     */
    Disk(@Value("${yalos.data}") Path data, @Value("${yalos.least-megabytes:32}") long leastMegabytes) {
        this.data = data;
        this.leastBytes = leastMegabytes << 20;
    }

    /**
     * Why nothing can be changed now, and how to mend it; empty where all is well.
     *
     * @param bytes that are about to be written besides
     */
    public String trouble(long bytes) {
        try {
            long free = Files.getFileStore(data).getUsableSpace();
            if (!Files.isWritable(data)) {
                return "The disk under %s cannot be written. Make it writable; until then everything can be read and nothing changed."
                        .formatted(data);
            }
            return free - bytes < leastBytes
                    ? "The disk under %s is full: %d MB are free, %d MB are needed. Make room; until then everything can be read and nothing changed."
                            .formatted(data, free >> 20, (leastBytes + bytes) >> 20)
                    : "";
        } catch (IOException gone) {
            return "The data folder %s cannot be reached: %s".formatted(data, gone.getMessage());
        }
    }
}
