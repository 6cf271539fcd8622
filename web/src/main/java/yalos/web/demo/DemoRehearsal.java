package yalos.web.demo;

import java.time.Duration;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.boot.autoconfigure.condition.ConditionalOnProperty;
import org.springframework.boot.context.event.ApplicationReadyEvent;
import org.springframework.context.event.EventListener;
import org.springframework.stereotype.Component;
import yalos.web.block.Blocks;
import yalos.web.fly.Crew;
import yalos.web.store.JobMapper;
import yalos.web.work.Order;
import yalos.web.work.WorkQueue;

/** The hill fort's sorties rehearsed, once the program stands: on the first the shutter sticks and is noticed, gusts come up and are not. */
@Component
@ConditionalOnProperty("yalos.demo")
class DemoRehearsal {
    private static final Logger LOG = LoggerFactory.getLogger(DemoRehearsal.class);

    private final JobMapper rows;
    private final Blocks blocks;
    private final Crew crew;
    private final WorkQueue queue;
    private final DemoTake take;

    DemoRehearsal(JobMapper rows, Blocks blocks, Crew crew, WorkQueue queue, DemoTake take) {
        this.take = take;
        this.rows = rows;
        this.blocks = blocks;
        this.crew = crew;
        this.queue = queue;
    }

    @EventListener(ApplicationReadyEvent.class)
    void fly() {
        queue.submit(new Order("demo", "The demo's rehearsal", 40_000_000, Duration.ofMinutes(3)), work -> {
            try {
                rows.jobNamed("Thornwane Rigg")
                        .flatMap(job -> rows.blockNamed(job, "Block A, hill fort"))
                        .filter(block -> !crew.knows(block))
                        .ifPresent(block -> take.begin(blocks.open(block)));
            } catch (RuntimeException notFlown) {
                LOG.warn("the demo's rehearsal was not flown: {}", notFlown.getMessage());
            }
            return true;
        });
    }
}
