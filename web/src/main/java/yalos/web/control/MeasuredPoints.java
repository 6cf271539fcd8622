package yalos.web.control;

import java.util.HashMap;
import java.util.Map;
import java.util.Set;
import org.springframework.stereotype.Component;

/** Which points were measured on the ground. */
@Component
class MeasuredPoints {
    /** How often each point was measured, by the key of its name. */
    Map<String, Integer> counts(long block) {
        return new HashMap<>();
    }

    /** Keeps why the role of a measured point was changed. */
    void noted(long block, String point, String what) {}

    /** Keys of the names of the points that were measured: their roles stand. */
    Set<String> names(long block) {
        return counts(block).keySet();
    }
}
