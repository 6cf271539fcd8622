package yalos.web.objects;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.EnumSource;
import yalos.core.SampleObjects;
import yalos.core.fault.InputFault;
import yalos.core.pattern.Facade;
import yalos.core.pattern.StructurePass;
import yalos.core.proof.FaceAdequacy;
import yalos.core.proof.FaceProof;
import yalos.core.proof.StructureProof;
import yalos.core.units.Measure;
import yalos.core.units.Unit;
import yalos.core.units.UnitChoice;

/** Faces side by side and their classes; what is typed about a pass. */
class UnrolledTest {
    private static StructureProof house;
    private static StructureProof tower;

    @BeforeAll
    static void prove() {
        house = SampleObjects.proof(SampleObjects.plan(SampleObjects.house(), SampleObjects.facade("house", 8)));
        tower = SampleObjects.proof(SampleObjects.plan(SampleObjects.tower(), SampleObjects.rings("tower", 15)));
    }

    private static ElevationView view(StructureProof proof, double high, double wrap) {
        return ElevationView.of(proof, proof.spots(), high, wrap, UnitChoice.METRIC);
    }

    /** Walls of 20 and 10 m by 12 m, roof of 20 by 10 m: to one scale, feet on one line, none over another, all within the picture. */
    @Test
    void facesStandSideBySideToOneScale() {
        ElevationView band = view(house, 150, Double.POSITIVE_INFINITY);
        assertThat(band.faces())
                .extracting(ElevationView.Placed::key)
                .containsExactly("1.1", "1.2", "1.3", "1.4", "1.roof");
        double perM = 150 / 12.0;
        assertThat(band.faces().get(0).wide()).isCloseTo(20 * perM, within(0.1));
        assertThat(band.faces().get(1).wide()).isCloseTo(10 * perM, within(0.1));
        assertThat(band.faces().get(4).high()).isCloseTo(10 * perM, within(0.1));
        lie(band);
        assertThat(band.faces())
                .allSatisfy(face -> assertThat(face.y() + face.high())
                        .isCloseTo(band.faces().get(0).y() + 150, within(0.1)));
        // The axis: 0 at the foot, and every figure as high as it says.
        double foot = band.ticks().get(0).y();
        assertThat(foot).isCloseTo(band.faces().get(0).y() + 150, within(0.1));
        assertThat(band.ticks())
                .hasSizeGreaterThan(2)
                .allSatisfy(tick ->
                        assertThat(foot - tick.y()).isCloseTo(Double.parseDouble(tick.label()) * perM, within(0.2)));
        String[] bar = band.scale().label().split(" ");
        assertThat(band.scale().px()).isCloseTo(Double.parseDouble(bar[0]) * perM, within(0.1));
    }

    /** On lines below each other nothing is wider than the page, and the picture ends under the last line. */
    @Test
    void largeFacesWrap() {
        for (StructureProof proof : List.of(house, tower)) {
            ElevationView large = view(proof, 260, 400);
            lie(large);
            double lowest = large.faces().stream()
                    .mapToDouble(face -> face.y() + face.high())
                    .max()
                    .orElseThrow();
            assertThat(large.heightPx() - lowest).isBetween(26.0, 34.0);
            assertThat(large.faces().stream()
                            .map(face -> Math.round(face.y() + face.high()))
                            .distinct()
                            .count())
                    .isGreaterThan(1);
        }
    }

    private static void lie(ElevationView view) {
        List<ElevationView.Placed> faces = view.faces();
        for (int i = 0; i < faces.size(); i++) {
            ElevationView.Placed one = faces.get(i);
            assertThat(one.x()).isGreaterThanOrEqualTo(0);
            assertThat(one.y()).isGreaterThanOrEqualTo(0);
            assertThat(one.x() + one.wide()).isLessThanOrEqualTo(view.widthPx());
            assertThat(one.y() + one.high()).isLessThanOrEqualTo(view.heightPx());
            for (ElevationView.Placed other : faces.subList(i + 1, faces.size())) {
                assertThat(one.x() + one.wide() <= other.x()
                                || other.x() + other.wide() <= one.x()
                                || one.y() + one.high() <= other.y()
                                || other.y() + other.high() <= one.y())
                        .as("%s and %s", one.key(), other.key())
                        .isTrue();
            }
            assertThat(one.spots()).allSatisfy(mark -> {
                assertThat(mark.x()).isBetween(one.x(), one.x() + one.wide());
                assertThat(mark.y()).isBetween(one.y(), one.y() + one.high());
            });
        }
    }

    /** Whatever the layer: classes follow each other without a gap, and each figure lies in one of them. */
    @ParameterizedTest
    @EnumSource(FaceLayer.class)
    void everyFigureHasItsClass(FaceLayer layer) {
        for (StructureProof proof : List.of(house, tower)) {
            for (UnitChoice units : List.of(UnitChoice.METRIC, UnitChoice.FEET)) {
                List<FaceLayer.Band> bands = layer.bands(proof, units);
                assertThat(bands).hasSizeBetween(1, 8);
                for (int i = 1; i < bands.size() && layer != FaceLayer.ADEQUATE; i++) {
                    assertThat(bands.get(i).from()).isEqualTo(bands.get(i - 1).to());
                }
                for (FaceProof face : proof.faces()) {
                    for (int at = 0; at < face.verdicts().length; at++) {
                        double figure = layer.cell(face, at);
                        if (Double.isFinite(figure)) {
                            assertThat(FaceLayer.argb(bands, figure, false)).isNotZero();
                        }
                    }
                }
            }
        }
    }

    /** What is too coarse, too oblique or seen by too few is hatched in the layer of that figure too. */
    @Test
    void whatFailsIsHatchedInItsLayer() {
        Map<FaceAdequacy, FaceLayer> layers = Map.of(
                FaceAdequacy.TOO_COARSE, FaceLayer.GSD,
                FaceAdequacy.TOO_OBLIQUE, FaceLayer.INCIDENCE,
                FaceAdequacy.TOO_FEW, FaceLayer.COUNT,
                FaceAdequacy.ENOUGH, FaceLayer.GSD);
        int failed = 0;
        for (FaceProof face : tower.faces()) {
            for (int at = 0; at < face.verdicts().length; at++) {
                FaceLayer layer = layers.get(face.verdicts()[at]);
                if (layer == null || Double.isNaN(layer.cell(face, at))) {
                    continue;
                }
                double figure = layer.cell(face, at);
                FaceLayer.Band band = layer.bands(tower, UnitChoice.METRIC).stream()
                        .filter(one -> figure >= one.from() && figure < one.to())
                        .findFirst()
                        .orElseThrow();
                boolean fails = face.verdicts()[at] != FaceAdequacy.ENOUGH;
                assertThat(band.hatched())
                        .as("%s: %s", face.verdicts()[at], band.label())
                        .isEqualTo(fails);
                failed += fails ? 1 : 0;
            }
        }
        assertThat(failed).isGreaterThan(10);
    }

    private static StructurePass typed(StructurePass was, String... fields) {
        Map<String, String> form = new java.util.HashMap<>();
        for (int i = 0; i < fields.length; i += 2) {
            form.put(fields[i], fields[i + 1]);
        }
        return new RoundForm(form, UnitChoice.FEET).changed(was);
    }

    /** Of stand-off and GSD the one typed last holds, and the other follows. */
    @Test
    void theFigureTypedLastHolds() {
        Facade byDistance = SampleObjects.facade("house", 8);
        Facade byGsd = (Facade) typed(byDistance, "object", "house", "off", "8 m", "gsd", "2 mm");
        assertThat(byGsd.off().gsd().map(Measure::si)).contains(0.002);
        Facade back = (Facade) typed(byGsd, "object", "house", "off", "30", "gsd", "2 mm");
        assertThat(back.off().gsd()).isEmpty();
        assertThat(back.off().distance()).contains(Measure.of(30, Unit.FOOT));
        assertThat(((Facade) typed(back, "object", "house")).off())
                .as("neither")
                .isEqualTo(back.off());
    }

    @ParameterizedTest
    @CsvSource({"off, far, off", "photos, 3.4.5, photos", "speed, -, speed"})
    void whatIsNoFigureIsSaidBesideItsField(String field, String typed, String named) {
        StructurePass rings = SampleObjects.rings("tower", 15);
        org.assertj.core.api.Assertions.assertThatThrownBy(() -> typed(rings, "object", "tower", field, typed))
                .isInstanceOfSatisfying(
                        InputFault.class, fault -> assertThat(fault.field()).isEqualTo(named));
    }
}
