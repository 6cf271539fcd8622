package yalos.web.block;

import yalos.core.units.UnitChoice;

/** What the sheet draws of a plan, so that the answer to a change brings it along and nothing is asked for twice. */
public interface SheetSource {
    /** As JSON that may stand within a page: no {@code <} in it. */
    String json(OpenBlock block, Planned planned, UnitChoice units);

    /** Drawn already, for a page that comes as a whole. */
    StillSheet still(OpenBlock block, Planned planned, UnitChoice units);
}
