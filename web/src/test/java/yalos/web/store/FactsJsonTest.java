package yalos.web.store;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.LocalDate;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.OptionalInt;
import java.util.OptionalLong;
import java.util.Set;
import org.junit.jupiter.api.Test;
import yalos.core.Samples;
import yalos.core.block.Outline;
import yalos.core.brief.Brief;
import yalos.core.brief.Crop;
import yalos.core.brief.Day;
import yalos.core.brief.Priority;
import yalos.core.brief.Purpose;
import yalos.core.brief.Site;
import yalos.core.brief.Surface;
import yalos.core.geodesy.LonLat;
import yalos.core.height.DesignPlane;
import yalos.core.height.HeightChoice;
import yalos.core.height.HeightReference;
import yalos.core.kit.Aircraft;
import yalos.core.kit.Battery;
import yalos.core.kit.Head;
import yalos.core.kit.Kit;
import yalos.core.kit.Payload;
import yalos.core.kit.Positioning;
import yalos.core.kit.Scanner;
import yalos.core.pins.Pins;
import yalos.core.pins.Quantity;
import yalos.core.site.Obstacle;
import yalos.core.site.Zone;
import yalos.core.terrain.VerticalDatum;
import yalos.core.units.Measure;
import yalos.core.units.Unit;

/** Everything that an operator can decide comes back from the store as it was. */
class FactsJsonTest {
    private static BlockFacts whole() {
        Outline outline = new Outline(List.of(new Outline.Part(
                List.of(LonLat.of(-4.35, 54.51), LonLat.of(-4.34, 54.51), LonLat.of(-4.345, 54.52)),
                List.of(List.of(LonLat.of(-4.346, 54.512), LonLat.of(-4.344, 54.512), LonLat.of(-4.345, 54.514))))));
        Aircraft aircraft = Aircraft.smallMultirotor()
                .with(new Battery(33.3, Optional.of(30.5), 3, 0.2, 0.9, Battery.Use.typed("42 % in 12 min")));
        Kit kit = new Kit(
                "survey kit",
                aircraft,
                new Payload(
                        List.of(
                                new Head("colour", Samples.twentyMegapixel(), 2, 0),
                                new Head("red", Samples.twentyMegapixel(), 1, 35)),
                        Optional.of(new Scanner("scanner", 1.2, 240_000, 0.6, 190))),
                new Kit.Service("3.2 / 1.7", Optional.of(LocalDate.of(2026, 9, 1))));
        Brief brief = new Brief(
                Optional.of(Purpose.CROP_INDEX),
                "which field is cut first",
                OptionalDouble.of(0.15),
                OptionalDouble.of(0.03),
                OptionalDouble.empty(),
                Surface.TALL_CROP,
                Priority.REPEATABILITY,
                Positioning.RTK_NETWORK,
                "EPSG:27700, heights above the geoid",
                "the estate “Rigg” & sons",
                Optional.of(LocalDate.of(2027, 6, 30)),
                new Site(true, true, Set.of(Site.Difficulty.PEOPLE, Site.Difficulty.RELIEF)),
                new Crop(Crop.Stage.CLOSED, OptionalDouble.of(0.3), Crop.Use.TRIAL_SERIES),
                new Day(45, 40, 8, 7.5, 500),
                Map.of("gsd", new Brief.Ruling(true, ""), "light", new Brief.Ruling(false, "no time")));
        GroundFacts ground = new GroundFacts(
                List.of(new GroundFacts.ModelUse(
                        7, 27700, new VerticalDatum(VerticalDatum.Zero.ELLIPSOID, Unit.US_SURVEY_FOOT, -1.25))),
                new HeightChoice(HeightReference.STEPPED, DesignPlane.HIGHEST, 25, 60),
                List.of(new Obstacle("mast", Obstacle.Kind.MAST, List.of(LonLat.of(-4.345, 54.515)), 41.5, 3)),
                List.of(new Zone("zone", Zone.Kind.KEEP_OUT, outline, 10, Double.POSITIVE_INFINITY)),
                OptionalDouble.of(281.4),
                OptionalLong.of(9));
        Pins pins = Pins.ofHeight(80)
                .with(Quantity.HEIGHT, Measure.of(300, Unit.FOOT))
                .with(Quantity.SIDE_OVERLAP, Measure.of(75, Unit.PERCENT))
                .with(Quantity.SHUTTER_TIME, Measure.of(1 / 1250.0, Unit.SECOND))
                .with(Quantity.WIND, Measure.of(12, Unit.KNOT));
        return new BlockFacts(
                outline,
                Optional.of(LonLat.of(-4.36, 54.5)),
                OptionalInt.of(27700),
                OptionalLong.of(5),
                kit,
                pins,
                brief,
                Map.of(Quantity.SIDE_OVERLAP, "heather, little texture"),
                ground);
    }

    @Test
    void comesBackAsItWas() {
        BlockFacts facts = whole();
        BlockFacts read = FactsJson.read(FactsJson.write(facts));
        assertThat(read).usingRecursiveComparison().isEqualTo(facts);
        assertThat(read).isEqualTo(facts);
        assertThat(FactsJson.write(read)).isEqualTo(FactsJson.write(facts));
    }

    @Test
    void whatWasTypedInFeetAndKnotsStaysSo() {
        BlockFacts read = FactsJson.read(FactsJson.write(whole()));
        assertThat(read.pins().of(Quantity.HEIGHT)).contains(Measure.of(300, Unit.FOOT));
        assertThat(read.pins().of(Quantity.WIND)).contains(Measure.of(12, Unit.KNOT));
    }

    @Test
    void withTheCorrectionLinkOnTheBatteryLastsAsLongAsItDoesThen() {
        BlockFacts facts = whole();
        assertThat(facts.request().aircraft().battery().nominalMinutes()).isEqualTo(30.5);
        assertThat(facts.aircraft().battery().nominalMinutes()).isEqualTo(33.3);
    }

    @Test
    void aTemplateHasNoPlaceAndLeavesThePlaceOfItsTaker() {
        BlockFacts template = whole().withoutPlace();
        assertThat(template.outline().isEmpty()).isTrue();
        assertThat(template.launch()).isEmpty();
        assertThat(template.ground()).isEqualTo(GroundFacts.LEVEL);
        BlockFacts taker = BlockFacts.empty(
                        Optional.of(LonLat.of(10, 50)),
                        1,
                        Kit.of(Aircraft.smallWing(), Samples.twentyMegapixel()),
                        Pins.ofGsd(3))
                .withSettingsOf(template);
        assertThat(taker.launch()).contains(LonLat.of(10, 50));
        assertThat(taker.kit().name()).isEqualTo("survey kit");
        assertThat(taker.notes()).containsEntry(Quantity.SIDE_OVERLAP, "heather, little texture");
    }

    @Test
    void anEmptyReasonTakesTheReasonAway() {
        BlockFacts facts = whole().withNote(Quantity.SIDE_OVERLAP, "  ");
        assertThat(facts.notes()).isEmpty();
        assertThat(facts.withNote(Quantity.GSD, " finer than asked ").notes())
                .containsEntry(Quantity.GSD, "finer than asked");
    }
}
