/**
 * The plan of a block: {@link yalos.core.plan.PlanRequest} holds what was decided, {@link yalos.core.plan.BlockPlan} what follows.
 *
 * <p>May import {@code pins}, {@code proof}, {@code height}, {@code pattern}, {@code flight} and what lies below them.
 */
package yalos.core.plan;
