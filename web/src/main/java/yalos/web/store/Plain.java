package yalos.web.store;

import java.lang.annotation.ElementType;
import java.lang.annotation.Retention;
import java.lang.annotation.RetentionPolicy;
import java.lang.annotation.Target;
import java.lang.reflect.RecordComponent;
import java.util.Collection;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.OptionalDouble;
import yalos.core.fault.InputFault;

/**
 * Reading of stored and exchanged records, which are made of plain types so that they outlive the domain's. What a lenient reader misses it
 * fills with what is usual; a strict one, for files that somebody else may have written, names what is missing.
 */
final class Plain {
    /** Words of constants that were renamed since they were stored: old word, present word. None yet. */
    private static final Map<String, String> RENAMED = Map.of();

    private Plain() {}

    /** A part that may be missing for good reason. */
    @Target(ElementType.RECORD_COMPONENT)
    @Retention(RetentionPolicy.RUNTIME)
    @interface Maybe {}

    static double or(Double figure, double usual) {
        return figure == null || figure.isNaN() ? usual : figure;
    }

    static int or(Integer figure, int usual) {
        return figure == null ? usual : figure;
    }

    static String or(String text, String usual) {
        return text == null ? usual : text;
    }

    static boolean or(Boolean yes, boolean usual) {
        return yes == null ? usual : yes;
    }

    /** What is there of a list. */
    static <T> List<T> or(List<T> list) {
        return list == null ? List.of() : list.stream().filter(Objects::nonNull).toList();
    }

    /** What is there of a map. */
    static <V> Map<String, V> or(Map<String, V> map) {
        Map<String, V> there = new LinkedHashMap<>(map == null ? Map.of() : map);
        there.values().removeIf(Objects::isNull);
        return there;
    }

    static OptionalDouble maybe(Double figure) {
        return figure == null || figure.isNaN() ? OptionalDouble.empty() : OptionalDouble.of(figure);
    }

    static Double orNull(OptionalDouble figure) {
        return figure.isPresent() ? figure.getAsDouble() : null;
    }

    /** A word that stands for a constant; the usual one for a word that nobody knows any more. */
    static <E extends Enum<E>> E word(String stored, E usual) {
        return known(stored, usual.getDeclaringClass()).orElse(usual);
    }

    /** A word that stands for a constant; empty where nobody knows it. */
    static <E extends Enum<E>> Optional<E> known(String stored, Class<E> type) {
        if (stored == null) {
            return Optional.empty();
        }
        String name = RENAMED.getOrDefault(stored, stored).toUpperCase(Locale.ROOT);
        for (E constant : type.getEnumConstants()) {
            if (constant.name().equals(name)) {
                return Optional.of(constant);
            }
        }
        return Optional.empty();
    }

    /**
     * Passes a record of which nothing is missing.
     *
     * @param name of the entry, for the message
     * @throws InputFault naming the first part that is missing
     */
    static <T extends Record> T whole(T read, String name) {
        for (RecordComponent part : read.getClass().getRecordComponents()) {
            Object value = value(read, part);
            if (value == null && !part.isAnnotationPresent(Maybe.class)) {
                throw new InputFault(
                        "file",
                        name,
                        "“%s” is no entry of a catalogue: %s is missing or of the wrong kind."
                                .formatted(name, part.getName()));
            }
            if (value instanceof Record inner) {
                whole(inner, name);
            }
            if (value instanceof Collection<?> many) {
                many.forEach(one -> {
                    if (one instanceof Record inner) {
                        whole(inner, name);
                    }
                });
            }
        }
        return read;
    }

    /**
     * Passes a record whose every word was understood: what it became says the same again.
     *
     * @throws InputFault naming the first word that nobody knows
     */
    static void understood(Record read, Record again, String name) {
        for (RecordComponent part : read.getClass().getRecordComponents()) {
            Object was = value(read, part);
            Object is = value(again, part);
            if (was instanceof String word && !word.equals(is)) {
                throw new InputFault(
                        "file", word, "“%s”: “%s” is no %s that is known here.".formatted(name, word, part.getName()));
            }
            if (was instanceof Record one && is instanceof Record other) {
                understood(one, other, name);
            }
            if (was instanceof List<?> many && is instanceof List<?> others) {
                for (int i = 0; i < Math.min(many.size(), others.size()); i++) {
                    if (many.get(i) instanceof Record one && others.get(i) instanceof Record other) {
                        understood(one, other, name);
                    }
                }
            }
        }
    }

    private static Object value(Record read, RecordComponent part) {
        try {
            return part.getAccessor().invoke(read);
        } catch (ReflectiveOperationException e) {
            throw new IllegalStateException(e);
        }
    }
}
