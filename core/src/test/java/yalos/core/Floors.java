package yalos.core;

import static org.assertj.core.api.Assertions.assertThat;

import com.tngtech.archunit.core.domain.Dependency;
import com.tngtech.archunit.core.domain.JavaClass;
import com.tngtech.archunit.core.domain.JavaClasses;
import java.util.List;

/**
 * The rooms of a module from the ground up, as docs/architecture.md draws them.
 *
 * @param module such as {@code yalos.core}; a room is the package right below it
 * @param rooms of each floor, the lowest first
 */
public record Floors(String module, List<List<String>> rooms) {
    /** A room uses rooms on lower floors, none beside or above it. */
    public void hold(JavaClasses classes) {
        for (JavaClass one : classes) {
            for (Dependency dependency : one.getDirectDependenciesFromSelf()) {
                String here = room(one.getPackageName());
                String there =
                        room(dependency.getTargetClass().getBaseComponentType().getPackageName());
                if (!here.isEmpty() && !there.isEmpty() && !here.equals(there)) {
                    assertThat(floor(there))
                            .as("%s uses %s: %s", here, there, dependency.getDescription())
                            .isLessThan(floor(here));
                }
            }
        }
    }

    private String room(String packageName) {
        return packageName.startsWith(module + ".") ? packageName.split("\\.")[2] : "";
    }

    private int floor(String room) {
        for (int i = 0; i < rooms.size(); i++) {
            if (rooms.get(i).contains(room)) {
                return i;
            }
        }
        throw new AssertionError("the room " + room + " stands on no floor");
    }
}
