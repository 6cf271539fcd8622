package yalos.web.keep;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.StringWriter;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.stereotype.Component;
import yalos.core.exchange.PointFiles;
import yalos.core.fault.InputFault;
import yalos.core.units.UnitChoice;
import yalos.web.block.Blocks;
import yalos.web.block.OpenBlock;
import yalos.web.block.PlanDesk;
import yalos.web.control.PointsOut;
import yalos.web.exchange.PlanFile;
import yalos.web.log.LogFiles;
import yalos.web.store.LogMapper.Wanted;
import yalos.web.store.Unreadable;

/** Copies of a block that any program opens, for the archive of its job. */
@Component
public class OpenCopies {
    private static final Logger LOG = LoggerFactory.getLogger(OpenCopies.class);
    private static final Set<String> POINTS = Set.of("csv", "geojson");

    private final Blocks blocks;
    private final PlanDesk plans;
    private final PointsOut points;
    private final LogFiles flights;

    OpenCopies(Blocks blocks, PlanDesk plans, PointsOut points, LogFiles flights) {
        this.blocks = blocks;
        this.plans = plans;
        this.points = points;
        this.flights = flights;
    }

    /** A file. */
    public record Copy(String name, byte[] content) {}

    /** What can be written of a block; a block that has no plan, or cannot be read, has fewer. */
    public List<Copy> of(long id) {
        List<Copy> all = new ArrayList<>();
        try {
            OpenBlock block = blocks.open(id);
            plans.plan(block.facts()).whole().ifPresent(whole -> {
                for (PlanFile file : PlanFile.values()) {
                    if (!file.key().equals("gpkg")) {
                        ByteArrayOutputStream bytes = new ByteArrayOutputStream();
                        written(() -> file.write(whole.sheet(block, UnitChoice.METRIC), bytes));
                        all.add(new Copy("plan." + file.key(), bytes.toByteArray()));
                    }
                }
            });
            if (!block.facts().control().points().isEmpty()) {
                POINTS.stream()
                        .sorted()
                        .forEach(format -> written(() -> all.add(
                                new Copy("points." + format, points.file(block, format, PointFiles.USUAL_ORDER)))));
            }
            StringWriter table = new StringWriter();
            StringWriter places = new StringWriter();
            written(() -> flights.csv(Wanted.ofBlock(id), table));
            written(() -> flights.geoJson(Wanted.ofBlock(id), places));
            all.add(new Copy("flights.csv", table.toString().getBytes(StandardCharsets.UTF_8)));
            all.add(new Copy("flights.geojson", places.toString().getBytes(StandardCharsets.UTF_8)));
        } catch (Unreadable | InputFault lost) {
            LOG.warn("block {} leaves without open copies: {}", id, lost.getMessage());
        }
        return all;
    }

    private interface Writing {
        void write() throws Exception;
    }

    private static void written(Writing writing) {
        try {
            writing.write();
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        } catch (RuntimeException plain) {
            throw plain;
        } catch (Exception other) {
            throw new IllegalStateException(other);
        }
    }
}
