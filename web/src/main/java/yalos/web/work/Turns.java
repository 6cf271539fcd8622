package yalos.web.work;

import java.util.ArrayDeque;
import java.util.Iterator;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.Optional;
import java.util.Queue;
import java.util.stream.Stream;

/** Work that waits, its clients in turn. Not for several threads by itself. */
final class Turns {
    private final Map<String, Queue<Work<?>>> waiting = new LinkedHashMap<>();

    void add(Work<?> work) {
        waiting.computeIfAbsent(work.order().client(), client -> new ArrayDeque<>())
                .add(work);
    }

    /** What was called off waits no more. */
    void forgetOff() {
        waiting.values().forEach(own -> own.removeIf(work -> !work.open()));
        waiting.values().removeIf(Queue::isEmpty);
    }

    Stream<Work<?>> all() {
        return waiting.values().stream().flatMap(Queue::stream);
    }

    /** Whose turn it is; empty where nothing waits. */
    Optional<Work<?>> first() {
        forgetOff();
        Iterator<Queue<Work<?>>> clients = waiting.values().iterator();
        return clients.hasNext() ? Optional.of(clients.next().element()) : Optional.empty();
    }

    /** Takes what is first; its client then stands last. */
    void take(Work<?> first) {
        Queue<Work<?>> own = waiting.remove(first.order().client());
        own.remove();
        if (!own.isEmpty()) {
            waiting.put(first.order().client(), own);
        }
    }
}
