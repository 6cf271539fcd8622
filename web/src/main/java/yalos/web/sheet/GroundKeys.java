package yalos.web.sheet;

import java.security.SecureRandom;
import java.util.List;
import java.util.Map;
import java.util.OptionalDouble;
import java.util.OptionalInt;
import java.util.concurrent.atomic.AtomicLong;
import org.springframework.stereotype.Component;
import yalos.core.block.Outline;
import yalos.core.geodesy.Bounds;
import yalos.core.terrain.HeightGrid;
import yalos.core.units.UnitKind;
import yalos.web.shell.Preferences;
import yalos.web.store.BlockFacts;
import yalos.web.store.GroundFacts;
import yalos.web.work.Recent;

/**
 * Names what a piece of ground looks like, so that a browser keeps relief and contours and asks for them once. A name is never given to anything else:
 * not after a change and its way back, and not by another start of the program, which may know another database or draw otherwise.
 */
@Component
class GroundKeys {
    private static final int MOST_NAMED = 512;

    private final String start = Long.toHexString(new SecureRandom().nextLong());
    private final AtomicLong last = new AtomicLong();
    private final Map<Drawn, String> names = Recent.map(MOST_NAMED);
    private final Preferences preferences;

    GroundKeys(Preferences preferences) {
        this.preferences = preferences;
    }

    /**
     * What the ground under a block looks like follows from its models and the holes that are spanned, its outline, its grid and what is cut out of them; with the unit of heights.
     *
     * @param heightUnitM metres in the unit that heights are written in
     */
    record Drawn(
            List<GroundFacts.ModelUse> models,
            OptionalDouble spanM,
            Outline outline,
            OptionalInt epsg,
            Bounds cut,
            int cells,
            double heightUnitM) {}

    Drawn drawn(BlockFacts facts, HeightGrid grid) {
        Bounds cut = new Bounds(grid.west(), grid.east(), grid.south(), grid.north());
        int cells = grid.columns() * grid.rows();
        double unitM = preferences.units().unit(UnitKind.HEIGHT).size();
        GroundFacts ground = facts.ground();
        return new Drawn(ground.models(), ground.spanM(), facts.outline(), facts.epsg(), cut, cells, unitM);
    }

    String of(Drawn drawn) {
        return names.computeIfAbsent(drawn, unnamed -> start + "-" + last.incrementAndGet());
    }
}
