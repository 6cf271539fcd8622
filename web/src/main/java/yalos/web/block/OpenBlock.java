package yalos.web.block;

import java.time.LocalDateTime;
import yalos.web.store.BlockFacts;

/**
 * A block as it stands now.
 *
 * @param version grows with every change; a form that was made for another one is not applied
 * @param label of the last change
 * @param canUndo whether an earlier step is kept
 * @param canRedo whether a later step is kept
 */
public record OpenBlock(
        long id,
        long jobId,
        String jobName,
        String name,
        long version,
        String label,
        LocalDateTime savedAt,
        boolean canUndo,
        boolean canRedo,
        BlockFacts facts) {}
