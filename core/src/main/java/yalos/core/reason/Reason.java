package yalos.core.reason;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import yalos.core.units.Unit;

/**
 * The answer to "why this figure?".
 *
 * @param formula in textbook symbols, such as {@code H = GSD · f / p}
 * @param terms the numbers put into it, in the order of the formula
 * @param limits where several limits compete, each with the figure it would allow; the least binds
 * @param source where the formula or rule comes from; {@code common practice} for a trade rule
 */
public record Reason(String formula, List<Term> terms, List<Limit> limits, String source) {

    /** Where a rule of the trade comes from. */
    public static final String PRACTICE = "common practice";

    /** One number put into a formula. Where {@code unit} is empty the number is shown as {@code text}. */
    public record Term(String symbol, String name, double si, Optional<Unit> unit, String text) {}

    /**
     * One of several limits on a figure.
     *
     * @param name whose limit it is, such as {@code motion blur}
     * @param formula how it follows
     * @param si the figure this limit allows, SI
     * @param unit to show it in
     * @param binds whether it is the one that holds the figure
     */
    public record Limit(String name, String formula, double si, Unit unit, boolean binds) {}

    public Reason {
        terms = List.copyOf(terms);
        limits = List.copyOf(limits);
    }

    /** The limit that holds, where several compete. */
    public Optional<Limit> bindingLimit() {
        return limits.stream().filter(Limit::binds).findFirst();
    }

    /** Begins a reason with its formula. */
    public static Builder formula(String formula) {
        return new Builder(formula);
    }

    /** A figure the operator decided; its reason is that. */
    public static Reason decided() {
        return formula("pinned by you").source("your decision");
    }

    /** A figure nobody decided and nothing asks for; its reason is why it is usual. */
    public static Reason byDefault(String why) {
        return formula("the program's default").with("", "why", why).source(PRACTICE);
    }

    /** Collects the terms of a reason in the order of the formula. */
    public static final class Builder {
        private final String formula;
        private final List<Term> terms = new ArrayList<>();
        private final List<Limit> limits = new ArrayList<>();

        private Builder(String formula) {
            this.formula = formula;
        }

        /** Adds a number that was put in. */
        public Builder with(String symbol, String name, double si, Unit unit) {
            terms.add(new Term(symbol, name, si, Optional.of(unit), ""));
            return this;
        }

        /** Adds a number that was put in. */
        public Builder with(String symbol, String name, String text) {
            terms.add(new Term(symbol, name, Double.NaN, Optional.empty(), text));
            return this;
        }

        /** Adds the limits that compete. */
        public Builder limits(List<Limit> competing) {
            limits.addAll(competing);
            return this;
        }

        /** Ends the reason with where the formula comes from. */
        public Reason source(String source) {
            return new Reason(formula, terms, limits, source);
        }
    }
}
