package yalos.web.objects;

import java.util.Map;
import java.util.Optional;
import org.springframework.stereotype.Component;
import yalos.core.plan.BlockPlan;
import yalos.core.plan.StructurePlan;
import yalos.core.proof.StructureProof;
import yalos.web.block.OpenBlock;
import yalos.web.block.PlanDesk;
import yalos.web.store.BlockFacts;
import yalos.web.work.PageWork;
import yalos.web.work.Recent;

/** Proves the faces of a block's objects finely enough for a screen; what was proved lies here under the facts it follows from. */
@Component
class FacesDesk {
    /** Cells of all faces together. */
    private static final int CELLS = 60_000;
    /** All layers of them, and what is looked at beside. */
    private static final long BYTES = CELLS * 40L;

    private final PlanDesk plans;
    private final PageWork work;
    private final Map<BlockFacts, StructureProof> proofs = Recent.map(Recent.fitting(16, BYTES, 4));

    FacesDesk(PlanDesk plans, PageWork work) {
        this.plans = plans;
        this.work = work;
    }

    /** The faces of a block; empty without a plan or objects. */
    Optional<StructureProof> of(OpenBlock block) {
        BlockFacts facts = block.facts().planning();
        Optional<BlockPlan> plan = plans.plan(facts)
                .whole()
                .map(whole -> whole.plan())
                .filter(there -> there.structures().isPresent());
        if (plan.isEmpty()) {
            return Optional.empty();
        }
        StructureProof finer = Recent.once(
                proofs,
                facts,
                () -> work.answer(
                        "The proof of the faces",
                        () -> StructurePlan.faces(plan.get(), facts.brief().accuracy(), CELLS, share -> true)
                                .orElseThrow()));
        plans.plan(facts)
                .whole()
                .filter(whole -> whole.faces().filter(there -> there == finer).isEmpty())
                .ifPresent(whole -> whole.facesFiner(finer));
        return Optional.of(finer);
    }
}
