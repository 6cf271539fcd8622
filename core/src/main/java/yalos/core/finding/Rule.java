package yalos.core.finding;

import java.util.List;
import java.util.function.BiFunction;
import java.util.function.Consumer;

/** One thing a practitioner looks at. It says something about a case, or nothing. */
@FunctionalInterface
interface Rule {
    void judge(Case one, Collected found);

    /** The rules of one subject: methods of a class that is made anew for each case. */
    static <T> List<Rule> all(BiFunction<Case, Collected, T> subject, List<Consumer<T>> methods) {
        return methods.stream()
                .map(method -> (Rule) (one, found) -> method.accept(subject.apply(one, found)))
                .toList();
    }
}
