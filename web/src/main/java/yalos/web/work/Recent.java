package yalos.web.work;

import java.util.Collections;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.function.Supplier;

/** What was used last, so much of it and no more. */
public final class Recent {
    private Recent() {}

    /** A map of the last so many used, for several threads. */
    public static <K, V> Map<K, V> map(int most) {
        return Collections.synchronizedMap(new LinkedHashMap<>(16, 0.75f, true) {
            private static final long serialVersionUID = 1L;

            @Override
            protected boolean removeEldestEntry(Map.Entry<K, V> eldest) {
                return size() > most;
            }
        });
    }

    /** What is known for a key, else found and kept. While it is found others may use the map; two who ask at once may both find it. */
    public static <K, V> V once(Map<K, V> known, K key, Supplier<V> find) {
        V there = known.get(key);
        if (there == null) {
            there = find.get();
            known.put(key, there);
        }
        return there;
    }

    /** How many things of a size a part of the heap holds; never fewer than a least. */
    public static int fitting(int partOfHeap, long bytesEach, int least) {
        return (int) Math.max(least, Runtime.getRuntime().maxMemory() / partOfHeap / bytesEach);
    }
}
