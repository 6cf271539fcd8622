package yalos.web.block;

import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.stereotype.Component;
import yalos.core.plan.BlockPlan;
import yalos.web.store.BlockFacts;
import yalos.web.store.FactsJson;
import yalos.web.store.JobMapper;
import yalos.web.store.SummaryMapper;
import yalos.web.store.SummaryMapper.ListRow;
import yalos.web.store.SummaryMapper.SummaryRow;
import yalos.web.store.Unreadable;
import yalos.web.work.Busy;
import yalos.web.work.Order;
import yalos.web.work.WorkQueue;

/**
 * What lists of blocks show. It is reckoned once for each state of a block, when that state is made, and kept; a list only reads. What is
 * missing, as after a new version of the program, is made up for in the background, one block at a time.
 */
@Component
public class Summaries {
    private static final long BYTES_OF_A_PLAN = 20_000_000;
    private static final Logger LOG = LoggerFactory.getLogger(Summaries.class);

    private final SummaryMapper rows;
    private final JobMapper blocks;
    private final PlanDesk desk;
    private final Set<Long> waiting = ConcurrentHashMap.newKeySet();
    private final WorkQueue queue;

    Summaries(SummaryMapper rows, JobMapper blocks, PlanDesk desk, WorkQueue queue) {
        this.queue = queue;
        this.rows = rows;
        this.blocks = blocks;
        this.desk = desk;
    }

    /** All blocks, job by job. */
    public List<ListRow> all() {
        return caughtUp(rows.all(SummaryMapper.FIGURES));
    }

    public List<ListRow> ofJob(long job) {
        return caughtUp(rows.ofJob(job, SummaryMapper.FIGURES));
    }

    private List<ListRow> caughtUp(List<ListRow> listed) {
        listed.stream().filter(row -> !row.known()).forEach(row -> {
            if (waiting.add(row.id())) {
                makeUpLater(row.id());
            }
        });
        return listed;
    }

    /** When the queue has enough to do, the next look at the list asks again. */
    private void makeUpLater(long block) {
        try {
            queue.submit(new Order("lists", "The list", BYTES_OF_A_PLAN), work -> {
                makeUp(block);
                return true;
            });
        } catch (Busy enoughToDo) {
            waiting.remove(block);
        }
    }

    /** A block whose facts cannot be read keeps its place among those waiting, so that it is not tried again and again. */
    private void makeUp(long block) {
        try {
            blocks.block(block).ifPresent(row -> keep(row.facts(), FactsJson.read(row.facts())));
            waiting.remove(block);
        } catch (Unreadable e) {
            LOG.warn("Block {}: {}", block, e.getMessage());
        } catch (RuntimeException e) {
            LOG.error("The summary of block {} could not be made", block, e);
        }
    }

    /** Keeps what a list shows of facts, as they are stored. */
    public void keep(String stored, BlockFacts facts) {
        String hash = FactsJson.hash(stored);
        if (rows.known(hash, SummaryMapper.FIGURES).isPresent()) {
            return;
        }
        Optional<BlockPlan> plan = desk.plan(facts).whole().map(Planned.Whole::plan);
        rows.keep(new SummaryRow(
                hash,
                SummaryMapper.FIGURES,
                facts.outline().isEmpty() ? null : facts.outline().areaM2(),
                plan.map(p -> p.design().scale().gsdM()).orElse(null),
                plan.map(BlockPlan::photos).orElse(null),
                plan.map(BlockPlan::flightTimeS).filter(Double::isFinite).orElse(null),
                Thumbnail.path(facts)));
    }
}
