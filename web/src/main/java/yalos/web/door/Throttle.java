package yalos.web.door;

import java.util.LinkedHashMap;
import java.util.Map;
import java.util.function.LongSupplier;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.stereotype.Component;

/** Slows down whoever tries pass phrases: after five wrong ones each client waits, twice as long after each further one, up to an hour. */
@Component
final class Throttle {
    private static final int FREE = 5;
    private static final int MOST_CLIENTS = 10_000;
    private static final long FIRST_WAIT_S = 10;
    private static final long MOST_WAIT_S = 3600;

    private final LongSupplier nanoClock;
    private final Map<String, Tries> clients = new LinkedHashMap<>(16, 0.75f, true);

    private record Tries(int wrong, long until) {}

    @Autowired
    Throttle() {
        this(System::nanoTime);
    }

    Throttle(LongSupplier nanoClock) {
        this.nanoClock = nanoClock;
    }

    /** Seconds that a client must still wait; 0 for none. */
    synchronized long waitS(String client) {
        Tries tries = clients.get(client);
        long left = tries == null ? 0 : tries.until() - nanoClock.getAsLong();
        return tries == null || tries.wrong() < FREE || left <= 0 ? 0 : left / 1_000_000_000L + 1;
    }

    synchronized void wrong(String client) {
        Tries before = clients.getOrDefault(client, new Tries(0, 0));
        int wrong = before.wrong() + 1;
        long waitS = wrong < FREE ? 0 : Math.min(MOST_WAIT_S, FIRST_WAIT_S << Math.min(20, wrong - FREE));
        clients.put(client, new Tries(wrong, nanoClock.getAsLong() + waitS * 1_000_000_000L));
        if (clients.size() > MOST_CLIENTS) {
            clients.remove(clients.keySet().iterator().next());
        }
    }

    synchronized void right(String client) {
        clients.remove(client);
    }
}
