package yalos.web;

import static com.tngtech.archunit.lang.syntax.ArchRuleDefinition.noClasses;
import static com.tngtech.archunit.library.dependencies.SlicesRuleDefinition.slices;

import com.tngtech.archunit.core.domain.Dependency;
import com.tngtech.archunit.core.domain.JavaClass;
import com.tngtech.archunit.core.domain.JavaClasses;
import com.tngtech.archunit.core.importer.ClassFileImporter;
import com.tngtech.archunit.core.importer.ImportOption;
import java.util.List;
import org.assertj.core.api.Assertions;
import org.junit.jupiter.api.Test;

/** The stages know the shared packages, not each other. */
class PackageRulesTest {
    private static final JavaClasses WEB = new ClassFileImporter()
            .withImportOption(ImportOption.Predefined.DO_NOT_INCLUDE_TESTS)
            .importPackages("yalos.web");

    @Test
    void packagesDependOnEachOtherOneWay() {
        slices().matching("yalos.web.(*)..").should().beFreeOfCycles().check(WEB);
    }

    @Test
    void whatIsKeptKnowsNothingOfPages() {
        noClasses()
                .that()
                .resideInAPackage("yalos.web.store")
                .should()
                .dependOnClassesThat()
                .resideInAnyPackage("yalos.web.block..", "yalos.web.shell..", "yalos.web.strips..", "yalos.web.jobs..")
                .check(WEB);
    }

    @Test
    void thePlanServiceKeepsNothing() {
        noClasses()
                .that()
                .resideInAPackage("yalos.web.api")
                .should()
                .dependOnClassesThat()
                .resideInAnyPackage("yalos.web.store..", "yalos.web.block..")
                .check(WEB);
    }

    /** The rooms from the ground up, as docs/architecture.md draws them: a room uses rooms below it, none beside or above. */
    private static final List<List<String>> FLOORS = List.of(
            List.of("store"),
            List.of("shell"),
            List.of("elevation"),
            List.of("block"),
            List.of("sheet", "brief", "kit", "strips", "proof"),
            List.of("exchange"),
            List.of("ground", "history", "api"),
            List.of("jobs"),
            List.of("demo"));

    @Test
    void aRoomUsesOnlyRoomsBelowIt() {
        for (JavaClass one : WEB) {
            for (Dependency dependency : one.getDirectDependenciesFromSelf()) {
                String here = room(one.getPackageName());
                String there =
                        room(dependency.getTargetClass().getBaseComponentType().getPackageName());
                if (!here.isEmpty() && !there.isEmpty() && !here.equals(there)) {
                    Assertions.assertThat(floor(there))
                            .as("%s uses %s: %s", here, there, dependency.getDescription())
                            .isLessThan(floor(here));
                }
            }
        }
    }

    private static String room(String packageName) {
        return packageName.startsWith("yalos.web.") ? packageName.split("\\.")[2] : "";
    }

    private static int floor(String room) {
        for (int i = 0; i < FLOORS.size(); i++) {
            if (FLOORS.get(i).contains(room)) {
                return i;
            }
        }
        throw new AssertionError("the room " + room + " stands on no floor");
    }
}
