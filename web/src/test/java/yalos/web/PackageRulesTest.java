package yalos.web;

import static com.tngtech.archunit.lang.syntax.ArchRuleDefinition.noClasses;
import static com.tngtech.archunit.library.dependencies.SlicesRuleDefinition.slices;

import com.tngtech.archunit.core.domain.JavaClasses;
import com.tngtech.archunit.core.importer.ClassFileImporter;
import com.tngtech.archunit.core.importer.ImportOption;
import java.util.List;
import org.junit.jupiter.api.Test;
import yalos.core.Floors;

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

    private static final Floors FLOORS = new Floors(
            "yalos.web",
            List.of(
                    List.of("store", "work", "figure", "gpkg"),
                    List.of("shell"),
                    List.of("elevation", "door", "maps"),
                    List.of("block"),
                    List.of("sheet", "brief", "kit", "strips", "proof", "control"),
                    List.of("exchange"),
                    List.of("ground", "history", "api", "sorties", "objects"),
                    List.of("pack", "fly"),
                    List.of("take"),
                    List.of("accuracy"),
                    List.of("jobs"),
                    List.of("log"),
                    List.of("keep"),
                    List.of("report", "home"),
                    List.of("demo")));

    @Test
    void aRoomUsesOnlyRoomsBelowIt() {
        FLOORS.hold(WEB);
    }
}
