package yalos.web.door;

import java.net.InetAddress;
import java.net.UnknownHostException;
import java.util.List;
import java.util.Locale;
import java.util.stream.Stream;
import org.springframework.beans.factory.annotation.Value;
import org.springframework.stereotype.Component;

/**
 * The address the program was started with, and what follows from it.
 *
 * <p>Over loopback only this machine comes in, and nobody signs in. Over any other address everybody signs in.
 */
@Component
public final class Doorway {
    private static final String LOCALHOST = "localhost";

    private final boolean loopback;
    private final List<String> names;

    /**
     * @param address it listens at
     * @param names that it answers to besides numbers, parted by commas
     */
    Doorway(@Value("${server.address:127.0.0.1}") String address, @Value("${yalos.hosts:}") String names) {
        this.loopback = isLoopback(address);
        this.names = Stream.of((names + "," + address).toLowerCase(Locale.ROOT).split(","))
                .map(String::strip)
                .filter(name -> !name.isEmpty())
                .toList();
    }

    private static boolean isLoopback(String address) {
        try {
            return InetAddress.getByName(address).isLoopbackAddress();
        } catch (UnknownHostException notOne) {
            return false;
        }
    }

    /** Whether everybody signs in first. */
    public boolean guarded() {
        return !loopback;
    }

    /**
     * Whether a {@code Host} is one of the program's own. A page elsewhere can point a name of its own at this machine, but it cannot
     * make the browser send a number or a name that is not its own.
     *
     * @param host with or without a port
     */
    boolean answersTo(String host) {
        String name = withoutPort(host).toLowerCase(Locale.ROOT);
        if (name.equals(LOCALHOST) || names.contains(name)) {
            return true;
        }
        boolean number = name.matches("\\[[0-9a-f:.]+]|\\d{1,3}(\\.\\d{1,3}){3}");
        return number && (!loopback || name.startsWith("127.") || name.equals("[::1]"));
    }

    private static String withoutPort(String host) {
        return host.replaceFirst(":\\d{1,5}$", "");
    }
}
