package yalos.web.jobs;

import java.util.List;
import java.util.Optional;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import org.springframework.transaction.support.TransactionSynchronization;
import org.springframework.transaction.support.TransactionSynchronizationManager;
import yalos.core.fault.InputFault;
import yalos.core.fault.Names;
import yalos.core.geodesy.LonLat;
import yalos.core.kit.Aircraft;
import yalos.core.kit.Kit;
import yalos.core.pins.Pins;
import yalos.web.block.Summaries;
import yalos.web.elevation.Models;
import yalos.web.history.Templates;
import yalos.web.shell.NotThere;
import yalos.web.shell.Person;
import yalos.web.store.BlockFacts;
import yalos.web.store.CameraMapper;
import yalos.web.store.CameraRow;
import yalos.web.store.FactsJson;
import yalos.web.store.JobMapper;
import yalos.web.store.Unreadable;

/** Makes, names, copies and deletes jobs and blocks. */
@Service
public class Jobs {
    private static final int LONGEST_NAME = 80;
    private static final double USUAL_GSD_CM = 2;

    private final JobMapper rows;
    private final CameraMapper cameras;

    private final Templates templates;
    private final Summaries summaries;
    private final Models models;

    Jobs(JobMapper rows, CameraMapper cameras, Templates templates, Summaries summaries, Models models) {
        this.templates = templates;
        this.summaries = summaries;
        this.models = models;
        this.rows = rows;
        this.cameras = cameras;
    }

    /**
     * A new job with one empty block, at a place if one is known.
     *
     * @return the block's id
     * @throws InputFault for a name that is empty, too long or taken
     */
    @Transactional
    public long create(String name, Optional<LonLat> launch) {
        String checked = checkedName(name);
        refuseTakenJob(checked, 0);
        rows.insertJob(checked);
        long job = rows.jobNamed(checked).orElseThrow();
        return addBlock(job, "Block A", usualFacts(launch), "new block");
    }

    private BlockFacts usualFacts(Optional<LonLat> launch) {
        CameraRow camera = cameras.all().stream()
                .findFirst()
                .orElseThrow(() -> new InputFault("camera", "none", "The catalogue has no camera. Make one first."));
        CameraRow usual = cameras.byId(1).orElse(camera);
        Kit kit = Kit.of(Aircraft.smallMultirotor(), usual.camera());
        return BlockFacts.empty(launch, usual.id(), kit, Pins.ofGsd(USUAL_GSD_CM));
    }

    /**
     * A new block of a job, at the place of the others, with the usual settings or those of a template.
     *
     * @param template 0 for none
     */
    @Transactional
    public long addBlock(long job, String name, long template) {
        List<JobMapper.BlockRow> others = rows.blocksOf(job);
        Optional<LonLat> place = others.stream()
                .flatMap(row -> readable(row).stream())
                .map(facts -> facts.launch()
                        .or(() -> facts.outline().isEmpty()
                                ? Optional.empty()
                                : Optional.of(facts.outline().middle())))
                .flatMap(Optional::stream)
                .findFirst();
        BlockFacts facts = usualFacts(place);
        return addBlock(job, name, template == 0 ? facts : templates.applied(template, facts), "new block");
    }

    /** A block that cannot be read lends nothing to a new one. */
    private static Optional<BlockFacts> readable(JobMapper.BlockRow row) {
        try {
            return Optional.of(FactsJson.read(row.facts()));
        } catch (Unreadable lost) {
            return Optional.empty();
        }
    }

    /** Adds a block with the given facts as its first step. */
    @Transactional
    public long addBlock(long job, String name, BlockFacts facts, String label) {
        String checked = checkedName(name);
        rows.blockNamed(job, checked).ifPresent(other -> {
            throw new InputFault("name", checked, "This job has a block called “%s” already.".formatted(checked));
        });
        rows.insertBlock(job, checked);
        long block = rows.blockNamed(job, checked).orElseThrow();
        String written = FactsJson.write(facts);
        rows.keepStep(block, 1, label, written, Person.present());
        summaries.keep(written, facts);
        return block;
    }

    /** A copy of a block beside it, without its history. */
    @Transactional
    public long copyBlock(long block) {
        JobMapper.BlockRow row = rows.block(block).orElseThrow(() -> new NotThere("There is no such block."));
        return addBlock(row.jobId(), freeName(row), FactsJson.read(row.facts()), "copy of " + row.name());
    }

    /** Its own name with "copy" behind it, and a number where that is taken. */
    private String freeName(JobMapper.BlockRow row) {
        for (int number = 1; ; number++) {
            String tail = number == 1 ? " copy" : " copy " + number;
            String name = row.name().substring(0, Math.min(row.name().length(), LONGEST_NAME - tail.length())) + tail;
            if (rows.blockNamed(row.jobId(), name).isEmpty()) {
                return name;
            }
        }
    }

    @Transactional
    public void rename(long job, String name) {
        String checked = checkedName(name);
        refuseTakenJob(checked, job);
        rows.renameJob(job, checked);
    }

    /** Deletes a job with all that belongs to it; its elevation models and pictures go when that is certain. */
    @Transactional
    public void delete(long job) {
        Runnable files = models.filesOf(job);
        rows.deleteJob(job);
        TransactionSynchronizationManager.registerSynchronization(new TransactionSynchronization() {
            @Override
            public void afterCommit() {
                files.run();
            }
        });
    }

    /** Deletes a block; a job keeps at least one. */
    @Transactional
    public void deleteBlock(long block) {
        JobMapper.BlockRow row = rows.block(block).orElseThrow(() -> new NotThere("There is no such block."));
        if (rows.blocksOf(row.jobId()).size() == 1) {
            throw new InputFault("block", row.name(), "A job keeps at least one block. Delete the job instead.");
        }
        rows.deleteBlock(block);
    }

    private void refuseTakenJob(String name, long except) {
        rows.jobNamed(name).filter(id -> id != except).ifPresent(id -> {
            throw new InputFault("name", name, "There is a job called “%s” already.".formatted(name));
        });
    }

    private static String checkedName(String name) {
        return Names.typed("name", name, LONGEST_NAME);
    }
}
