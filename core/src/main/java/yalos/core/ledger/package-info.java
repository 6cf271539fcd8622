/**
 * The ledger: pin what the job fixes, and every other quantity follows and can say why.
 *
 * <p>{@link yalos.core.ledger.PlanRequest} holds what was decided, {@link yalos.core.ledger.BlockPlan} what follows,
 * {@link yalos.core.ledger.Ledger} the same as rows with reasons. May import everything of the core but {@code proof},
 * {@code finding} and {@code exchange}.
 */
package yalos.core.ledger;
