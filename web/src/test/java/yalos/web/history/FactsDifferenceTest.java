package yalos.web.history;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.OptionalInt;
import java.util.OptionalLong;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.Arguments;
import org.junit.jupiter.params.provider.MethodSource;
import yalos.core.Samples;
import yalos.core.block.Outline;
import yalos.core.brief.Brief;
import yalos.core.geodesy.LonLat;
import yalos.core.height.HeightChoice;
import yalos.core.height.HeightReference;
import yalos.core.kit.Aircraft;
import yalos.core.kit.Kit;
import yalos.core.pattern.Crossing;
import yalos.core.pattern.Patterns;
import yalos.core.pins.Pins;
import yalos.core.pins.Quantity;
import yalos.core.site.Obstacle;
import yalos.core.site.Zone;
import yalos.core.terrain.VerticalDatum;
import yalos.core.units.Measure;
import yalos.core.units.Unit;
import yalos.core.units.UnitChoice;
import yalos.web.store.BlockFacts;
import yalos.web.store.Fieldwork;
import yalos.web.store.GroundFacts;

/** Is every decision that differs between two revisions told, with both figures, and nothing else? */
class FactsDifferenceTest {
    private static final Kit KIT = Kit.of(Aircraft.smallMultirotor(), Samples.twentyMegapixel());

    private static final BlockFacts THEN = new BlockFacts(
            Samples.square(100),
            Optional.of(Samples.at(0, 0)),
            OptionalInt.empty(),
            OptionalLong.empty(),
            KIT,
            Pins.ofGsd(2).with(Quantity.SIDE_OVERLAP, Measure.of(70, Unit.PERCENT)),
            Brief.EMPTY,
            Map.of(),
            GroundFacts.LEVEL,
            Patterns.SINGLE,
            Fieldwork.NONE);

    private static BlockFacts with(Outline outline, Optional<LonLat> launch, OptionalInt epsg, Kit kit, Pins pins) {
        return new BlockFacts(
                outline,
                launch,
                epsg,
                OptionalLong.empty(),
                kit,
                pins,
                Brief.EMPTY,
                Map.of(),
                GroundFacts.LEVEL,
                Patterns.SINGLE,
                Fieldwork.NONE);
    }

    private static BlockFacts over(GroundFacts ground) {
        return new BlockFacts(
                THEN.outline(),
                THEN.launch(),
                THEN.epsg(),
                THEN.cameraId(),
                THEN.kit(),
                THEN.pins(),
                THEN.brief(),
                THEN.notes(),
                ground,
                THEN.patterns(),
                Fieldwork.NONE);
    }

    static Stream<Arguments> changes() {
        GroundFacts level = GroundFacts.LEVEL;
        Obstacle mast = new Obstacle("mast", Obstacle.Kind.MAST, List.of(Samples.at(5, 5)), 20, 2);
        Zone zone = new Zone("yard", Zone.Kind.CAUTION, Samples.square(20), 0, 50);
        VerticalDatum datum = VerticalDatum.GEOID_METRES;
        return Stream.of(
                Arguments.of(
                        with(Samples.square(200), THEN.launch(), THEN.epsg(), KIT, THEN.pins()),
                        "The outline changed: 1.00 ha, now 4.00 ha; 4 corners, now 4."),
                Arguments.of(
                        with(THEN.outline(), Optional.of(Samples.at(30, 40)), THEN.epsg(), KIT, THEN.pins()),
                        "The launch point moved by 50.0 m."),
                Arguments.of(
                        with(THEN.outline(), Optional.empty(), THEN.epsg(), KIT, THEN.pins()),
                        "The launch point was taken away."),
                Arguments.of(
                        with(THEN.outline(), THEN.launch(), OptionalInt.of(27700), KIT, THEN.pins()),
                        "The grid changed."),
                Arguments.of(
                        with(THEN.outline(), THEN.launch(), THEN.epsg(), KIT.named("other"), THEN.pins()),
                        "The kit was “%s”, now “other”.".formatted(KIT.name())),
                Arguments.of(
                        with(
                                THEN.outline(),
                                THEN.launch(),
                                THEN.epsg(),
                                KIT,
                                THEN.pins().with(Quantity.SIDE_OVERLAP, Measure.of(60, Unit.PERCENT))),
                        "Side: pinned 70 %, now 60 %."),
                Arguments.of(
                        over(level.withModels(List.of(new GroundFacts.ModelUse(7, 32630, datum)))),
                        "The elevation models changed: level ground, now 1 model."),
                Arguments.of(
                        over(level.with(HeightChoice.USUAL.with(HeightReference.TAKE_OFF))),
                        "Heights were %s with 20.0 m kept, now %s with 20.0 m."
                                .formatted(HeightReference.FOLLOW.words(), HeightReference.TAKE_OFF.words())),
                Arguments.of(over(level.withObstacles(List.of(mast))), "The obstacles changed: 0, now 1."),
                Arguments.of(over(level.withZones(List.of(zone))), "The zones changed: 0, now 1."),
                Arguments.of(
                        THEN.with(Patterns.SINGLE.adding(Crossing.SQUARE)),
                        "Flown were single grid, now grid + crossing at 90°."),
                Arguments.of(
                        over(level.withTakeOffLevel(OptionalDouble.of(12))),
                        "The measured level of the take-off point changed."));
    }

    @ParameterizedTest
    @MethodSource("changes")
    void eachChangeIsOneSentence(BlockFacts now, String sentence) {
        assertThat(FactsDifference.of(THEN, now, UnitChoice.METRIC)).containsExactly(sentence);
    }

    @Test
    void theSameIsNoDifference() {
        assertThat(FactsDifference.of(THEN, over(GroundFacts.LEVEL), UnitChoice.METRIC))
                .isEmpty();
    }
}
