package yalos.web.demo;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.util.EnumSet;
import java.util.List;
import java.util.Map;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.beans.factory.annotation.Value;
import org.springframework.boot.autoconfigure.condition.ConditionalOnProperty;
import org.springframework.stereotype.Component;
import yalos.core.rehearsal.Command;
import yalos.core.rehearsal.Fault;
import yalos.web.block.OpenBlock;
import yalos.web.fly.Crew;
import yalos.web.take.TakeReading;
import yalos.web.work.Order;
import yalos.web.work.WorkQueue;

/**
 * The hill fort's take: what the simulated aircraft brought home from its sorties, with what went wrong. Its photos are painted into the data folder, a few at a time so that everybody else's work goes between, and read as
 * anybody's are.
 */
@Component
@ConditionalOnProperty("yalos.demo")
class DemoTake {
    private static final Logger LOG = LoggerFactory.getLogger(DemoTake.class);
    private static final int AT_ONCE = 6;
    /** From one take-off to the next. */
    private static final int BETWEEN_MIN = 16;

    private static final Duration END = Duration.ofMinutes(3);

    private final Crew crew;
    private final TakeReading reading;
    private final WorkQueue queue;
    private final Path folder;
    private final boolean photos;

    DemoTake(
            Crew crew,
            TakeReading reading,
            WorkQueue queue,
            @Value("${yalos.data}") Path data,
            @Value("${yalos.demo-take:true}") boolean photos) {
        this.photos = photos;
        this.crew = crew;
        this.reading = reading;
        this.queue = queue;
        this.folder = data.resolve("takes").resolve("thornwane").toAbsolutePath();
    }

    /** Rehearses all sorties, the first last, and has their photos painted; the first alone where none are wanted ({@code yalos.demo-take}). */
    void begin(OpenBlock block) {
        try {
            Files.createDirectories(folder);
        } catch (IOException notKept) {
            LOG.warn("the demo's take has no folder: {}", notKept.getMessage());
            return;
        }
        for (int sortie = photos ? crew.sorties(block) : 1; sortie >= 1; sortie--) {
            boolean first = sortie == 1;
            crew.rehearse(
                    block,
                    sortie,
                    6 + sortie,
                    first
                            ? Map.of(
                                    Fault.STUCK_SHUTTER,
                                    List.of(Command.Kind.PAUSE, Command.Kind.CAMERA, Command.Kind.RESUME))
                            : Map.of(),
                    first ? EnumSet.of(Fault.STUCK_SHUTTER, Fault.GUSTS) : EnumSet.noneOf(Fault.class),
                    "A. Pilot");
            if (photos) {
                paint(block, crew.brought(block, (sortie - 1) * BETWEEN_MIN), 0);
            }
        }
    }

    /** Some photos, then the rest as work of its own. */
    private void paint(OpenBlock block, Crew.Brought brought, int from) {
        queue.submit(new Order("demo", "The demo's photos", 40_000_000, END), work -> {
            int to = Math.min(brought.count(), from + AT_ONCE);
            for (int i = from; i < to; i++) {
                work.check();
                brought.write(i, folder);
            }
            if (to < brought.count()) {
                paint(block, brought, to);
            } else if (brought.sortie() == 1) {
                reading.begin(block.id(), folder.toString());
            }
            return true;
        });
    }
}
