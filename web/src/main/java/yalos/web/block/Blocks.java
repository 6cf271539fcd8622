package yalos.web.block;

import java.util.function.UnaryOperator;
import org.springframework.stereotype.Service;
import org.springframework.transaction.PlatformTransactionManager;
import org.springframework.transaction.annotation.Transactional;
import org.springframework.transaction.support.TransactionTemplate;
import yalos.core.fault.InputFault;
import yalos.web.shell.NotThere;
import yalos.web.shell.Person;
import yalos.web.shell.StaleVersion;
import yalos.web.store.BlockFacts;
import yalos.web.store.FactsJson;
import yalos.web.store.JobMapper;

/** Opens blocks and changes them, one step after the other. Each call is one transaction, written through at its end. */
@Service
public class Blocks {
    private static final int LONGEST_LABEL = 200;

    private final JobMapper rows;
    private final PlanDesk desk;
    private final Summaries summaries;
    private final TransactionTemplate transaction;

    Blocks(JobMapper rows, PlanDesk desk, Summaries summaries, PlatformTransactionManager transactions) {
        this.rows = rows;
        this.desk = desk;
        this.summaries = summaries;
        this.transaction = new TransactionTemplate(transactions);
    }

    /**
     * @throws NotThere when there is no such block
     */
    @Transactional(readOnly = true)
    public OpenBlock open(long id) {
        return rows.block(id).map(Blocks::opened).orElseThrow(() -> gone(id));
    }

    private NotThere gone(long id) {
        return rows.binnedOf(id)
                .map(job -> new NotThere(
                        "Its job, “%s”, lies in the bin. Put it back on the page Safe keeping.".formatted(job.name())))
                .orElseGet(() -> new NotThere("There is no block " + id + "."));
    }

    /**
     * Changes the facts and keeps the step. Nothing is kept when the facts stay the same. The plan, which may take long, is made in no
     * transaction, so that it holds up nobody; whether the block is still the same is asked once more when the step is kept.
     *
     * @param version the state the change was made for
     * @param label what was done, for the undo button
     * @throws StaleVersion when the block has changed since
     * @throws InputFault when the change cannot be planned
     */
    public OpenBlock change(long id, long version, String label, UnaryOperator<BlockFacts> change) {
        JobMapper.BlockRow row = present(id, version, label);
        BlockFacts before = FactsJson.read(row.facts());
        BlockFacts after = change.apply(before);
        if (after.equals(before)) {
            return opened(row);
        }
        String written = FactsJson.write(after);
        desk.refuseUnplannable(before, after);
        transaction.executeWithoutResult(kept -> keep(row, label, written, after));
        return open(id);
    }

    private void keep(JobMapper.BlockRow row, String label, String written, BlockFacts after) {
        move(row, row.head() + 1, label);
        rows.deleteStepsAfter(row.id(), row.head());
        rows.keepStep(row.id(), row.head() + 1, shortened(label), written, Person.present());
        summaries.keep(written, after);
    }

    /** The plan of a block as it stands, or why there is none. */
    public Planned plan(long id) {
        return desk.plan(open(id).facts());
    }

    /**
     * Does all that a change does, and takes it back before anybody sees it.
     *
     * @return the plan that the change would have given
     * @throws InputFault when the change cannot be planned
     */
    public Planned rehearse(long id, UnaryOperator<BlockFacts> change) {
        JobMapper.BlockRow row = rows.block(id).orElseThrow(() -> gone(id));
        BlockFacts before = FactsJson.read(row.facts());
        BlockFacts after = change.apply(before);
        String written = FactsJson.write(after);
        desk.refuseUnplannable(before, after);
        transaction.executeWithoutResult(kept -> {
            kept.setRollbackOnly();
            keep(row, "rehearsed", written, after);
        });
        return desk.plan(after);
    }

    @Transactional
    public OpenBlock undo(long id, long version) {
        JobMapper.BlockRow row = present(id, version, "undo");
        if (row.head() > 1) {
            move(row, row.head() - 1, "undo");
        }
        return open(id);
    }

    @Transactional
    public OpenBlock redo(long id, long version) {
        JobMapper.BlockRow row = present(id, version, "redo");
        if (row.head() < row.lastSeq()) {
            move(row, row.head() + 1, "redo");
        }
        return open(id);
    }

    /**
     * Goes to any step that is kept; the steps after it stay until something is changed.
     *
     * @throws NotThere when there is no such step
     */
    @Transactional
    public void goTo(long id, long version, int seq) {
        JobMapper.BlockRow row = present(id, version, "step " + seq);
        rows.stepLabel(id, seq).orElseThrow(() -> new NotThere("There is no step " + seq + " any more."));
        move(row, seq, "step " + seq);
    }

    /**
     * Who a block is, whatever its facts hold.
     *
     * @param head the step it stands at
     */
    public record Named(long id, long jobId, String jobName, String name, long version, int head) {}

    /** A block without its facts: also of one whose facts cannot be read. */
    @Transactional(readOnly = true)
    public Named named(long id) {
        return rows.block(id)
                .map(row -> new Named(row.id(), row.jobId(), row.jobName(), row.name(), row.version(), row.head()))
                .orElseThrow(() -> gone(id));
    }

    private JobMapper.BlockRow present(long id, long version, String wanted) {
        JobMapper.BlockRow row = rows.block(id).orElseThrow(() -> gone(id));
        if (row.version() != version) {
            throw new StaleVersion(row.label(), wanted);
        }
        return row;
    }

    private void move(JobMapper.BlockRow row, int head, String wanted) {
        if (rows.moveHead(row.id(), row.version(), head) == 0) {
            String present = rows.block(row.id()).map(JobMapper.BlockRow::label).orElse("deleted");
            throw new StaleVersion(present, wanted);
        }
    }

    private static String shortened(String label) {
        return label.length() > LONGEST_LABEL ? label.substring(0, LONGEST_LABEL) : label;
    }

    private static OpenBlock opened(JobMapper.BlockRow row) {
        return new OpenBlock(
                row.id(),
                row.jobId(),
                row.jobName(),
                row.name(),
                row.version(),
                row.label(),
                row.madeAt(),
                row.head() > 1,
                row.head() < row.lastSeq(),
                FactsJson.read(row.facts()));
    }
}
