package yalos.web.jobs;

import java.time.LocalDateTime;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import org.springframework.transaction.support.TransactionSynchronization;
import org.springframework.transaction.support.TransactionSynchronizationManager;
import yalos.core.block.Outline;
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
import yalos.web.store.LogMapper;

/** Makes, names, copies and deletes jobs and blocks. */
@Service
public class Jobs {
    private static final int LONGEST_NAME = 80;
    private static final double USUAL_GSD_CM = 2;

    private final JobMapper rows;
    private final CameraMapper cameras;
    private final LogMapper flights;

    private final Templates templates;
    private final Summaries summaries;
    private final Models models;

    Jobs(
            JobMapper rows,
            CameraMapper cameras,
            LogMapper flights,
            Templates templates,
            Summaries summaries,
            Models models) {
        this.flights = flights;
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
        // A block that cannot be read lends nothing to a new one.
        Optional<LonLat> place = rows.blocksOf(job).stream()
                .flatMap(row -> row.readable().stream())
                .map(BlockFacts::place)
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
        String written = FactsJson.write(facts);
        rows.keepStep(block, 1, label, written, Person.present());
        summaries.keep(written, facts);
        return block;
    }

    /** A copy of a block beside it, without its history. */
    @Transactional
    public long copyBlock(long block) {
        JobMapper.BlockRow row = rows.block(block).orElseThrow(() -> new NotThere("There is no such block."));
        return addBlock(row.jobId(), freeName(row, " copy"), FactsJson.read(row.facts()), "copy of " + row.name());
    }

    /** Its own name with some words behind it, and a number where that is taken. */
    private String freeName(JobMapper.BlockRow row, String words) {
        for (int number = 1; ; number++) {
            String tail = number == 1 ? words : words + " " + number;
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
        flights.renameJob(job, checked);
    }

    /** Gives a block another name. */
    @Transactional
    public void renameBlock(long block, String name) {
        JobMapper.BlockRow row = there(block);
        String checked = checkedName(name);
        rows.blockNamed(row.jobId(), checked).filter(id -> id != block).ifPresent(other -> {
            throw new InputFault("name", checked, "This job has a block called “%s” already.".formatted(checked));
        });
        rows.renameBlock(block, checked);
        flights.renameBlock(block, checked);
    }

    /** Leaves a block out of the job's sheet and totals, or takes it in again. */
    @Transactional
    public void hide(long block, boolean hidden) {
        there(block);
        rows.hideBlock(block, hidden);
    }

    /** Flies a block earlier or later than it was. */
    @Transactional
    public void move(long block, int by) {
        List<Long> order = new ArrayList<>(rows.orderOf(there(block).jobId()));
        int from = order.indexOf(block);
        int to = Math.max(0, Math.min(order.size() - 1, from + by));
        order.remove(from);
        order.add(to, block);
        for (int i = 0; i < order.size(); i++) {
            rows.placeBlock(order.get(i), i + 1L);
        }
    }

    /** Parts of a block as blocks behind it, with all its settings; the block itself stays and is hidden. */
    @Transactional
    public void split(long block, List<Outline> parts, BlockFacts facts) {
        JobMapper.BlockRow row = there(block);
        for (int i = 0; i < parts.size(); i++) {
            String name = freeName(row, " part " + (i + 1));
            addBlock(row.jobId(), name, facts.with(parts.get(i)), "part of " + row.name());
        }
        rows.hideBlock(block, true);
    }

    /** Two blocks as a new one; both stay and are hidden. */
    @Transactional
    public long join(long one, long other, BlockFacts joined) {
        JobMapper.BlockRow row = there(one);
        String label = "joined from " + row.name() + " and " + there(other).name();
        long made = addBlock(row.jobId(), freeName(row, " joined"), joined, label);
        rows.hideBlock(one, true);
        rows.hideBlock(other, true);
        return made;
    }

    /**
     * @throws NotThere when the job has no such block
     */
    void refuseElsewhere(long job, long block) {
        if (there(block).jobId() != job) {
            throw new NotThere("This job has no such block.");
        }
    }

    private JobMapper.BlockRow there(long block) {
        return rows.block(block).orElseThrow(() -> new NotThere("There is no such block."));
    }

    /** Puts a job into the bin: nobody sees it any more, all of it can be put back. */
    @Transactional
    public void bin(long job) {
        JobMapper.JobRow row =
                rows.job(job).orElseThrow(() -> new NotThere("There is no such job; it may be deleted."));
        String hidden = row.name().substring(0, Math.min(row.name().length(), 40)) + " · bin " + job;
        rows.bin(job, LocalDateTime.now().withNano(0), Person.present(), hidden);
    }

    /**
     * Puts a job back; under another name where its own is taken.
     *
     * @return that name
     */
    @Transactional
    public String unbin(long job) {
        JobMapper.BinnedRow row = rows.binned().stream()
                .filter(one -> one.id() == job)
                .findFirst()
                .orElseThrow(() -> new NotThere("There is no such job in the bin any more."));
        for (int number = 1; ; number++) {
            String tail = number == 1 ? "" : " (%d)".formatted(number);
            String name = row.name().substring(0, Math.min(row.name().length(), LONGEST_NAME - tail.length())) + tail;
            if (rows.jobNamed(name).isEmpty()) {
                rows.unbin(job, name);
                flights.renameJob(job, name);
                return name;
            }
        }
    }

    /** Deletes a job in the bin with all that belongs to it; its elevation models and pictures go when that is certain. */
    @Transactional
    public void purge(long job) {
        if (rows.binned().stream().noneMatch(one -> one.id() == job)) {
            throw new NotThere("There is no such job in the bin any more.");
        }
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
