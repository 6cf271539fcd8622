package yalos.core;

import static com.tngtech.archunit.lang.syntax.ArchRuleDefinition.classes;
import static com.tngtech.archunit.lang.syntax.ArchRuleDefinition.noClasses;
import static com.tngtech.archunit.library.dependencies.SlicesRuleDefinition.slices;

import com.tngtech.archunit.core.domain.JavaClasses;
import com.tngtech.archunit.core.importer.ClassFileImporter;
import com.tngtech.archunit.core.importer.ImportOption;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import org.assertj.core.api.Assertions;
import org.junit.jupiter.api.Test;

/** Which package may import which, as the package descriptions say. */
class PackageRulesTest {
    private static final JavaClasses CORE = new ClassFileImporter()
            .withImportOption(ImportOption.Predefined.DO_NOT_INCLUDE_TESTS)
            .importPackages("yalos.core");

    @Test
    void theCoreKnowsNoWebNoDatabaseAndNoJson() {
        noClasses()
                .should()
                .dependOnClassesThat()
                .resideInAnyPackage(
                        "org.springframework..",
                        "jakarta..",
                        "java.sql..",
                        "javax.sql..",
                        "tools.jackson..",
                        "com.fasterxml..",
                        "org.apache.ibatis..",
                        "yalos.web..")
                .check(CORE);
    }

    @Test
    void packagesDependOnEachOtherOneWay() {
        slices().matching("yalos.core.(*)..").should().beFreeOfCycles().check(CORE);
    }

    @Test
    void theLowestPackagesStandAlone() {
        for (String name : new String[] {"units", "camera", "geodesy"}) {
            classes()
                    .that()
                    .resideInAPackage("yalos.core." + name)
                    .should()
                    .onlyDependOnClassesThat()
                    .resideInAnyPackage(
                            "yalos.core." + name,
                            "yalos.core.fault",
                            "java..",
                            "org.locationtech.proj4j..",
                            "net.sf.geographiclib..")
                    .check(CORE);
        }
    }

    @Test
    void nothingButTheWebImportsExchange() {
        noClasses()
                .that()
                .resideOutsideOfPackage("yalos.core.exchange")
                .should()
                .dependOnClassesThat()
                .resideInAPackage("yalos.core.exchange")
                .check(CORE);
    }

    @Test
    void everyPackageSaysWhatLivesThere() throws Exception {
        try (var folders = Files.walk(Path.of("src/main/java/yalos/core"), 1)) {
            folders.filter(Files::isDirectory)
                    .filter(folder -> !folder.endsWith("core"))
                    .forEach(folder -> Assertions.assertThat(folder.resolve("package-info.java"))
                            .exists());
        }
    }

    private static final Floors FLOORS = new Floors(
            "yalos.core",
            List.of(
                    List.of("fault", "figures"),
                    List.of("units"),
                    List.of("reason"),
                    List.of("geodesy", "wind", "camera", "energy"),
                    List.of("kit", "block", "basemap", "network", "light", "weather"),
                    List.of("terrain", "site"),
                    List.of("surface", "flight"),
                    List.of("pattern", "pins"),
                    List.of("height"),
                    List.of("proof"),
                    List.of("plan"),
                    List.of("ledger", "trial", "brief", "exchange"),
                    List.of("control", "sortie"),
                    List.of("measured", "day", "rehearsal"),
                    List.of("take", "accuracy", "logbook"),
                    List.of("finding")));

    @Test
    void aRoomUsesOnlyRoomsBelowIt() {
        FLOORS.hold(CORE);
    }
}
