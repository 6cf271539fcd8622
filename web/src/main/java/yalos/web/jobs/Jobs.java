package yalos.web.jobs;

import java.util.List;
import java.util.Optional;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import yalos.core.fault.InputFault;
import yalos.core.geodesy.LonLat;
import yalos.core.kit.Aircraft;
import yalos.core.kit.Kit;
import yalos.core.pins.Pins;
import yalos.web.history.Templates;
import yalos.web.shell.NotThere;
import yalos.web.store.BlockFacts;
import yalos.web.store.CameraMapper;
import yalos.web.store.CameraRow;
import yalos.web.store.FactsJson;
import yalos.web.store.JobMapper;

/** Makes, names, copies and deletes jobs and blocks. */
@Service
public class Jobs {
    private static final int LONGEST_NAME = 80;
    private static final double USUAL_GSD_CM = 2;

    private final JobMapper rows;
    private final CameraMapper cameras;

    private final Templates templates;

    Jobs(JobMapper rows, CameraMapper cameras, Templates templates) {
        this.templates = templates;
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
                .map(row -> FactsJson.read(row.facts()))
                .map(facts -> facts.launch()
                        .or(() -> facts.outline().isEmpty()
                                ? Optional.empty()
                                : Optional.of(facts.outline().middle())))
                .flatMap(Optional::stream)
                .findFirst();
        BlockFacts facts = usualFacts(place);
        return addBlock(job, name, template == 0 ? facts : templates.applied(template, facts), "new block");
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
        rows.insertStep(block, 1, label, FactsJson.write(facts));
        return block;
    }

    /** A copy of a block beside it, without its history. */
    @Transactional
    public long copyBlock(long block) {
        JobMapper.BlockRow row = rows.block(block).orElseThrow(() -> new NotThere("There is no such block."));
        return addBlock(row.jobId(), freeName(row), FactsJson.read(row.facts()), "copy of " + row.name());
    }

    /** Block A, Block B and so on; beyond Z by number. */
    private String freeName(JobMapper.BlockRow row) {
        for (char letter = 'A'; letter <= 'Z'; letter++) {
            if (rows.blockNamed(row.jobId(), "Block " + letter).isEmpty()) {
                return "Block " + letter;
            }
        }
        return "Block " + (rows.blocksOf(row.jobId()).size() + 1);
    }

    @Transactional
    public void rename(long job, String name) {
        String checked = checkedName(name);
        refuseTakenJob(checked, job);
        rows.renameJob(job, checked);
    }

    @Transactional
    public void delete(long job) {
        rows.deleteJob(job);
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
        String stripped = name == null ? "" : name.strip();
        if (stripped.isEmpty() || stripped.length() > LONGEST_NAME) {
            throw new InputFault("name", stripped, "Give it a name of 1 to 80 characters.");
        }
        return stripped;
    }
}
