package yalos.core.pattern;

import java.util.List;

/**
 * Shots taken one after the other without leaving the object: a run along a wall, a ring, a circle.
 *
 * @param shots at least one
 * @param speedMps flown from each to the next
 */
public record Run(List<Shot> shots, double speedMps) {
    public Run {
        shots = List.copyOf(shots);
    }
}
