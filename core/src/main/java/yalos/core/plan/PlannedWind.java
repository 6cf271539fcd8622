package yalos.core.plan;

import java.util.Optional;
import java.util.OptionalDouble;
import yalos.core.block.PlaneBlock;
import yalos.core.pattern.DirectionBy;
import yalos.core.pins.Quantity;
import yalos.core.wind.Wind;

/** The wind to plan for, from what is pinned about it. */
final class PlannedWind {
    private PlannedWind() {}

    /**
     * From the grid's north; empty while strength or direction is not pinned, and for one so weak that practice ignores it, unless strips were laid
     * by it.
     *
     * @param heightM above ground at which the main pass is flown
     */
    static Optional<Wind> over(PlaneBlock block, PlanRequest request, double heightM) {
        OptionalDouble from = request.pins().si(Quantity.WIND_FROM);
        if (!request.pins().has(Quantity.WIND) || from.isEmpty()) {
            return Optional.empty();
        }
        double aloft = aloftMps(request, heightM);
        boolean asked = request.patterns()
                .direction()
                .filter(by -> by == DirectionBy.INTO_WIND || by == DirectionBy.ACROSS_WIND)
                .isPresent();
        return aloft < Wind.NEGLIGIBLE_MPS && !asked
                ? Optional.empty()
                : Optional.of(new Wind(from.getAsDouble() - block.plane().convergenceRad(), aloft));
    }

    /** At flying height; as it was measured where nobody said at what height, 0 where none is pinned. */
    static double aloftMps(PlanRequest request, double heightM) {
        double measured = request.pins().siOr(Quantity.WIND, 0);
        OptionalDouble at = request.pins().si(Quantity.WIND_AT);
        return at.isEmpty() ? measured : Wind.aloftMps(measured, at.getAsDouble(), heightM);
    }
}
