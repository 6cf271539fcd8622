package yalos.core.take;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.time.Instant;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.TreeSet;
import java.util.stream.Collectors;
import org.junit.jupiter.api.DynamicTest;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.TestFactory;
import org.junit.jupiter.api.io.TempDir;
import yalos.core.Reference;
import yalos.core.fault.InputFault;

/** Reference section 19: files written from the published specification, read again by another reader. */
class LasFileTest {
    @TempDir
    private Path folder;

    private Path file(String name) throws IOException {
        Path file = folder.resolve(name);
        Files.write(file, Reference.bytes("las/" + name));
        return file;
    }

    @TestFactory
    List<DynamicTest> everyPointIsRead() {
        return Reference.rows("las_expected.csv")
                .map(row -> DynamicTest.dynamicTest(row.text("file"), () -> read(row)))
                .toList();
    }

    private void read(Reference.Row row) throws IOException {
        LasFile las = LasFile.open(file(row.text("file")));

        assertThat(las.version()).isEqualTo(row.text("version"));
        assertThat(las.format()).isEqualTo(row.whole("point_format"));
        assertThat(las.points()).isEqualTo(row.whole("points"));
        assertThat(las.doubts().isEmpty()).isEqualTo(row.text("expected").equals("ok"));
        if (las.points() == 0) {
            return;
        }
        assertThat(las.epsg().isPresent() ? "EPSG:" + las.epsg().getAsInt() : "")
                .isEqualTo(row.text("crs"));
        assertThat(las.recordLength()).isEqualTo(row.whole("record_length"));
        double[] first = new double[4];
        double[] last = new double[4];
        int[] echoes = new int[16];
        TreeSet<Integer> sources = new TreeSet<>();
        las.visit((x, y, z, time, source, echo) -> {
            double[] here = {x, y, z, time};
            if (echoes[1] + echoes[2] + echoes[3] == 0) {
                System.arraycopy(here, 0, first, 0, 4);
            }
            System.arraycopy(here, 0, last, 0, 4);
            echoes[echo]++;
            sources.add(source);
        });
        String[] axes = {"x", "y", "z"};
        for (int i = 0; i < 3; i++) {
            double half = row.number("scale_" + axes[i]) / 2;
            assertThat(first[i]).isCloseTo(row.number("first_" + axes[i]), within(half));
            assertThat(last[i]).isCloseTo(row.number("last_" + axes[i]), within(half));
            assertThat(las.least()[i]).isCloseTo(row.number("min_" + axes[i]), within(half));
            assertThat(las.greatest()[i]).isCloseTo(row.number("max_" + axes[i]), within(half));
        }
        if (row.isEmpty("first_time")) {
            assertThat(first[3]).isNaN();
        } else {
            assertThat(first[3]).isEqualTo(row.number("first_time"));
            assertThat(last[3]).isEqualTo(row.number("last_time"));
        }
        if (!row.isEmpty("first_time_gps")) {
            Instant utc = Instant.parse(row.text("first_time_gps") + "Z").minusSeconds(18);
            assertThat(Math.abs(Duration.between(utc, las.instant(first[3]).orElseThrow())
                            .toMillis()))
                    .isLessThanOrEqualTo(1);
        }
        assertThat(sources.stream().map(String::valueOf).collect(Collectors.joining(" ")))
                .isEqualTo(row.text("sources"));
        for (int i = 1; i <= 3; i++) {
            assertThat(echoes[i]).isEqualTo(row.whole("returns_" + i));
        }
        LaserStrips strips = new LaserStrips();
        strips.add(row.text("file"), las);
        assertThat(strips.cells()).isEqualTo(row.whole("area_cells_1m"));
        assertThat((double) strips.points() / strips.cells()).isCloseTo(row.number("density_per_m2"), within(1e-6));
    }

    @TestFactory
    List<DynamicTest> damagedFilesAreRefusedOrTold() {
        return Reference.rows("las_broken.csv")
                .map(row -> DynamicTest.dynamicTest(row.text("file"), () -> {
                    Path file = file(row.text("file"));
                    boolean readable = row.text("expected").contains("read");
                    if (row.text("file").equals("bounds_wrong.las")) {
                        assertThat(new LaserStrips().add("x", LasFile.open(file)))
                                .anyMatch(doubt -> doubt.contains("bounds"));
                    } else if (readable && !row.text("expected").contains("LAZ")) {
                        assertThat(LasFile.open(file).doubts()).isNotEmpty();
                    } else {
                        assertThatThrownBy(() -> LasFile.open(file)).isInstanceOf(InputFault.class);
                    }
                }))
                .toList();
    }

    @Test
    void stripsAgreeAsFarAsTheyDo() throws IOException {
        Reference.Row told = Reference.rows("las_strips.csv")
                .filter(row -> row.text("cell_statistic").equals("median"))
                .findFirst()
                .orElseThrow();
        LaserStrips apart = new LaserStrips();
        apart.add("a", LasFile.open(file("strip_a.las")));
        apart.add("b", LasFile.open(file("strip_b.las")));
        LaserStrips together = new LaserStrips();
        together.add("ab", LasFile.open(file("strips_both.las")));

        for (LaserStrips strips : List.of(apart, together)) {
            LaserStrips.Agreement agreement = strips.agreements().get(0);
            assertThat(strips.agreements()).hasSize(1);
            assertThat(agreement.both()).isEqualTo(told.whole("cells_in_both"));
            assertThat(agreement.cells()).hasSize(told.whole("cells_used"));
            assertThat(agreement.medianM()).isCloseTo(told.number("median_m"), within(1e-5));
            assertThat(agreement.spreadM()).isCloseTo(told.number("robust_spread_m"), within(1e-5));
            assertThat(agreement.farM()).isCloseTo(told.number("p95_abs_from_median_m"), within(1e-5));
            assertThat(agreement.medianM()).isCloseTo(told.number("true_offset_m"), within(0.01));
        }
        Map<String, Double> cells = new HashMap<>();
        apart.agreements().get(0).cells().forEach(cell -> cells.put(cell.e() + " " + cell.n(), cell.differenceM()));
        Reference.rows("las_strip_cells.csv")
                .forEach(row -> assertThat(cells.get(row.text("cell_e") + " " + row.text("cell_n")))
                        .isCloseTo(row.number("difference_m"), within(1e-5)));
    }
}
