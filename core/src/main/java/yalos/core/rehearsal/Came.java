package yalos.core.rehearsal;

import java.util.Optional;

/**
 * A fault that came.
 *
 * @param ended seconds; not a number while it lasts
 * @param answered when something was done about it; not a number while nothing was
 * @param by what was done; empty while nothing was
 */
public record Came(Fault fault, double began, double ended, double answered, Optional<Command.Kind> by) {}
