package yalos.web.store;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.EnumSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.OptionalInt;
import java.util.OptionalLong;
import java.util.Set;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;
import tools.jackson.databind.node.NullNode;
import tools.jackson.databind.node.ObjectNode;
import tools.jackson.databind.node.StringNode;
import yalos.core.Samples;
import yalos.core.block.Corridor;
import yalos.core.block.Outline;
import yalos.core.brief.Brief;
import yalos.core.brief.Crop;
import yalos.core.brief.Day;
import yalos.core.brief.Priority;
import yalos.core.brief.Purpose;
import yalos.core.brief.Site;
import yalos.core.brief.Surface;
import yalos.core.control.Assumptions;
import yalos.core.control.Avoided;
import yalos.core.control.ControlLayout;
import yalos.core.control.ControlPoint;
import yalos.core.day.DaySettings;
import yalos.core.day.PackPart;
import yalos.core.day.Papers;
import yalos.core.geodesy.LonLat;
import yalos.core.height.DesignPlane;
import yalos.core.height.HeightChoice;
import yalos.core.height.HeightReference;
import yalos.core.kit.Aircraft;
import yalos.core.kit.Battery;
import yalos.core.kit.Endurance;
import yalos.core.kit.Head;
import yalos.core.kit.Kit;
import yalos.core.kit.Payload;
import yalos.core.kit.Positioning;
import yalos.core.kit.Scanner;
import yalos.core.pattern.AddedPass;
import yalos.core.pattern.AlignmentPass;
import yalos.core.pattern.Circles;
import yalos.core.pattern.Crossing;
import yalos.core.pattern.DirectionBy;
import yalos.core.pattern.Facade;
import yalos.core.pattern.Patterns;
import yalos.core.pattern.Rings;
import yalos.core.pattern.StandOff;
import yalos.core.pattern.StartCorner;
import yalos.core.pattern.StripEdit;
import yalos.core.pattern.StructurePass;
import yalos.core.pattern.Structures;
import yalos.core.pattern.TieStrips;
import yalos.core.pattern.TiltedPasses;
import yalos.core.pattern.UnderDeck;
import yalos.core.pins.Pins;
import yalos.core.pins.Quantity;
import yalos.core.site.Obstacle;
import yalos.core.site.Structure;
import yalos.core.site.Zone;
import yalos.core.sortie.FenceAct;
import yalos.core.sortie.LostLink;
import yalos.core.sortie.SortieSettings;
import yalos.core.terrain.VerticalDatum;
import yalos.core.units.Measure;
import yalos.core.units.Unit;
import yalos.core.weather.Limits;
import yalos.core.weather.WeatherHour;

/** Everything that an operator can decide comes back from the store as it was. */
class FactsJsonTest {
    private static BlockFacts whole() {
        return whole(new Endurance(OptionalDouble.of(27), OptionalDouble.of(31.5), OptionalDouble.empty()))
                .with(sorties())
                .with(day());
    }

    private static SortieSettings sorties() {
        return new SortieSettings(
                List.of(new SortieSettings.Launch("upper gate", LonLat.of(-4.347, 54.514))),
                Optional.of(LonLat.of(-4.346, 54.513)),
                1.75,
                OptionalDouble.of(0.42),
                0.95,
                3,
                OptionalDouble.of(90),
                15,
                60,
                FenceAct.STOPS,
                LostLink.HOVER,
                false);
    }

    private static DaySettings day() {
        return new DaySettings(
                Optional.of(LocalDate.of(2027, 5, 4)),
                "Europe/London",
                OptionalInt.of(455),
                Map.of(2, 700),
                5,
                6,
                1,
                70,
                new Limits(7, 11, 270.15, 4000, 0),
                List.of(new WeatherHour(
                        LocalDateTime.of(2027, 5, 4, 9, 0),
                        OptionalDouble.of(4.5),
                        OptionalDouble.empty(),
                        OptionalDouble.of(1.5),
                        OptionalDouble.of(0),
                        OptionalDouble.of(285.15),
                        OptionalDouble.of(0.25),
                        OptionalDouble.of(20_000))),
                Optional.of(LocalDateTime.of(2026, 5, 2, 11, 30)),
                new Papers(
                        List.of("gate shut"),
                        List.of(new Papers.Emergency("Pause", "it hangs")),
                        List.of(new Papers.Emergency("Land owner", "at the farm")),
                        List.of("no flights over the road"),
                        EnumSet.of(PackPart.LIGHT, PackPart.POINT_PHOTOS),
                        Papers.Sheet.LETTER,
                        4));
    }

    /** All that the eighth form knew of papers. */
    private static Papers listAndCard() {
        return new Papers(List.of("gate shut"), List.of(new Papers.Emergency("Pause", "it hangs")));
    }

    private static BlockFacts whole(Endurance endurance) {
        Outline outline = outline();
        Aircraft aircraft = Aircraft.smallMultirotor()
                .with(new Battery(
                        33.3, Optional.of(30.5), 3, 0.2, 0.9, Battery.Use.typed("42 % in 12 min"), endurance));
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
                new HeightChoice(HeightReference.STEPPED, DesignPlane.HIGHEST, 25, 60, 1.5),
                List.of(new Obstacle("mast", Obstacle.Kind.MAST, List.of(LonLat.of(-4.345, 54.515)), 41.5, 3)),
                zones(true),
                OptionalDouble.of(281.4),
                OptionalLong.of(9),
                OptionalDouble.of(25));
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
                ground,
                patterns(),
                Fieldwork.NONE.with(control()));
    }

    private static Outline outline() {
        return new Outline(List.of(new Outline.Part(
                List.of(LonLat.of(-4.35, 54.51), LonLat.of(-4.34, 54.51), LonLat.of(-4.345, 54.52)),
                List.of(List.of(LonLat.of(-4.346, 54.512), LonLat.of(-4.344, 54.512), LonLat.of(-4.345, 54.514))))));
    }

    /** @param within whether the present form's own kind is among them */
    private static List<Zone> zones(boolean within) {
        Zone out = new Zone("zone", Zone.Kind.KEEP_OUT, outline(), 10, Double.POSITIVE_INFINITY);
        return within ? List.of(out, new Zone("field", Zone.Kind.KEEP_IN, outline(), 0, 120)) : List.of(out);
    }

    private static ControlLayout control() {
        return new ControlLayout(
                List.of(
                        ControlPoint.target("1", ControlPoint.Role.CONTROL, LonLat.of(-4.345, 54.512))
                                .locked(true),
                        new ControlPoint(
                                "K2",
                                ControlPoint.Role.CHECK,
                                ControlPoint.Kind.FACADE,
                                LonLat.of(-4.344, 54.513),
                                OptionalDouble.of(281.25),
                                false,
                                "gable of the barn")),
                List.of(new Avoided("the wood", Avoided.Kind.TREES, outline())),
                new Assumptions(8, 0.7, 0.01, 0.02, false, 60, 1.2, false, 0.25));
    }

    private static Patterns patterns() {
        AddedPass.Own own = new AddedPass.Own(
                Optional.of(Measure.of(260, Unit.FOOT)), Optional.of(Measure.of(70, Unit.PERCENT)), Optional.empty());
        return new Patterns(
                Optional.of(new Corridor(
                        List.of(LonLat.of(-4.35, 54.51), LonLat.of(-4.34, 54.512)),
                        Measure.of(20, Unit.METRE),
                        Measure.of(30, Unit.FOOT))),
                List.of(
                        new Crossing(own, Measure.of(80, Unit.DEGREE)),
                        new TiltedPasses(
                                AddedPass.Own.NONE,
                                Measure.of(35, Unit.DEGREE),
                                EnumSet.of(TiltedPasses.Toward.AHEAD, TiltedPasses.Toward.LEFT)),
                        new TieStrips(AddedPass.Own.NONE, 2, Measure.of(45, Unit.DEGREE), Measure.of(25, Unit.DEGREE)),
                        new AlignmentPass(Measure.of(40, Unit.SECOND), Measure.of(6, Unit.SECOND), 3)),
                Optional.of(Measure.of(12, Unit.DEGREE)),
                Optional.of(DirectionBy.INTO_WIND),
                List.of(
                        StripEdit.drop(LonLat.of(-4.345, 54.511)),
                        StripEdit.reach(LonLat.of(-4.346, 54.512), -3),
                        StripEdit.add(LonLat.of(-4.35, 54.511), LonLat.of(-4.34, 54.513))),
                Optional.of(StartCorner.NORTH_WEST),
                new Patterns.Turns(true, true),
                structures());
    }

    private static Structures structures() {
        StructurePass.Habit habit = new StructurePass.Habit(
                Measure.of(75, Unit.PERCENT),
                Measure.of(60, Unit.PERCENT),
                Optional.of(Measure.of(2, Unit.METRE_PER_SECOND)),
                Optional.of(Measure.of(6, Unit.FOOT)),
                Optional.of(Measure.of(40, Unit.METRE)));
        StandOff off = StandOff.of(Measure.of(30, Unit.FOOT));
        StandOff finest = StandOff.ofGsd(Measure.of(3, Unit.MILLIMETRE));
        List<LonLat> plan = List.of(LonLat.of(-4.345, 54.511), LonLat.of(-4.3448, 54.511), LonLat.of(-4.3448, 54.5111));
        return new Structures(
                List.of(
                        new Structure(
                                "beacon",
                                List.of(
                                        new Structure.Part(
                                                Structure.Kind.BODY,
                                                plan,
                                                0,
                                                0,
                                                4,
                                                Structure.Counted.GROUND,
                                                Structure.Piers.NONE),
                                        new Structure.Part(
                                                Structure.Kind.WALL,
                                                plan,
                                                0.6,
                                                281,
                                                284.5,
                                                Structure.Counted.GEOID,
                                                Structure.Piers.NONE)),
                                Set.of("1.2", "1.roof"),
                                "loose masonry"),
                        new Structure(
                                "bridge",
                                List.of(new Structure.Part(
                                        Structure.Kind.DECK,
                                        plan,
                                        4,
                                        6,
                                        6.8,
                                        Structure.Counted.GROUND,
                                        new Structure.Piers(2, 1.2, 3.5))),
                                Set.of(),
                                "")),
                List.of(
                        new Facade(
                                "beacon",
                                off,
                                true,
                                Measure.of(15, Unit.DEGREE),
                                Measure.of(45, Unit.DEGREE),
                                false,
                                true,
                                habit),
                        new Rings(
                                "beacon",
                                finest,
                                Optional.of(Measure.of(25, Unit.METRE)),
                                Optional.of(Measure.of(3, Unit.METRE)),
                                Optional.of(Measure.of(18, Unit.METRE)),
                                OptionalInt.of(4),
                                OptionalInt.of(36),
                                Optional.of(Measure.of(5, Unit.METRE)),
                                StructurePass.Habit.USUAL),
                        new Circles(
                                Measure.of(30, Unit.METRE),
                                Measure.of(50, Unit.PERCENT),
                                Measure.of(35, Unit.METRE),
                                true,
                                OptionalInt.empty(),
                                Optional.of(Measure.of(40, Unit.DEGREE)),
                                habit),
                        new UnderDeck("bridge", off, Measure.of(75, Unit.DEGREE), habit)),
                Measure.of(3, Unit.METRE),
                true,
                true);
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

    private static String frozen(String name) {
        try (InputStream in = FactsJsonTest.class.getResourceAsStream("/forms/" + name)) {
            return new String(in.readAllBytes(), StandardCharsets.UTF_8).strip();
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    /** Written by the program of each time and never touched since. */
    @ParameterizedTest
    @ValueSource(
            strings = {
                "facts-form-1.json",
                "facts-form-2.json",
                "facts-form-3.json",
                "facts-form-4.json",
                "facts-form-5.json",
                "facts-form-6.json",
                "facts-form-7.json",
                "facts-form-8.json",
                "facts-form-9.json",
                "facts-form-10.json",
                "facts-form-11.json"
            })
    void everyFormThatWasEverWrittenIsReadForEver(String sample) {
        BlockFacts whole = whole(Endurance.UNKNOWN);
        Patterns square = patterns().turning(new Patterns.Turns(true, false));
        BlockFacts ninth = whole().with(square.with(Structures.NONE));
        BlockFacts seventh = whole.with(square.with(Structures.NONE));
        BlockFacts sixth = seventh.with(Fieldwork.NONE);
        GroundFacts exact = whole.ground()
                .withZones(zones(false))
                .with(whole.ground().choice().withModelSigma(0));
        BlockFacts single = sixth.with(Patterns.SINGLE).with(whole.ground().withZones(zones(false)));
        BlockFacts fifth = sixth.with(patterns()
                        .with(patterns().added().subList(0, 3))
                        .turning(Patterns.Turns.USUAL)
                        .with(Structures.NONE))
                .with(whole.ground().withZones(zones(false)));
        BlockFacts then = switch (sample) {
            case "facts-form-11.json" -> whole();
            case "facts-form-10.json" -> whole().with(square);
            case "facts-form-9.json" -> ninth;
            case "facts-form-8.json" -> ninth.with(day().with(listAndCard()));
            case "facts-form-7.json" -> seventh;
            case "facts-form-6.json" -> sixth;
            case "facts-form-5.json" -> fifth;
            case "facts-form-4.json" -> single;
            case "facts-form-3.json" -> single.with(exact);
            default -> single.with(exact.withSpan(OptionalDouble.empty()));
        };
        assertThat(FactsJson.read(frozen(sample))).usingRecursiveComparison().isEqualTo(then);
    }

    /** A change takes some hundred bytes, and comes back; text of earlier times stands as it is; the dictionary never changes. */
    @Test
    void whatIsKeptIsPackedAndAlikeEachTime() {
        String packed = FactsJson.write(whole());
        assertThat(packed)
                .hasSizeLessThan(FactsJson.plain(whole()).length() / 2)
                .isEqualTo(FactsJson.write(whole()));
        assertThat(Packed.plain(packed)).isEqualTo(FactsJson.plain(whole()));
        assertThat(Packed.plain("{\"shape\":1}")).isEqualTo("{\"shape\":1}");
        assertThatThrownBy(() -> FactsJson.read("z1:***")).isInstanceOf(Unreadable.class);
        assertThatThrownBy(() -> FactsJson.read(packed.substring(0, packed.length() - 8)))
                .isInstanceOf(Unreadable.class);
    }

    @Test
    void thePresentFormIsTheFrozenOne() {
        assertThat(FactsJson.plain(whole()))
                .as("a changed form needs a new number, an upgrader and a sample of its own")
                .isEqualTo(frozen("facts-form-11.json"));
    }

    /** Takes each member of a sample away in turn, or sets it to null or to a word that nobody knows: a block comes out of it. */
    @ParameterizedTest
    @ValueSource(
            strings = {
                "facts-form-1.json",
                "facts-form-2.json",
                "facts-form-3.json",
                "facts-form-4.json",
                "facts-form-5.json",
                "facts-form-6.json",
                "facts-form-7.json",
                "facts-form-8.json",
                "facts-form-9.json",
                "facts-form-10.json",
                "facts-form-11.json"
            })
    void whateverIsMissingOrUnknownABlockComesOut(String sample) {
        JsonMapper json = JsonMapper.builder().build();
        List<String> paths = new ArrayList<>();
        collect(json.readTree(frozen(sample)), "", paths);
        assertThat(paths).hasSizeGreaterThan(90);
        for (String path : paths) {
            for (JsonNode instead : Arrays.asList(null, NullNode.getInstance(), StringNode.valueOf("HOVERCRAFT"))) {
                ObjectNode root = (ObjectNode) json.readTree(frozen(sample));
                int cut = path.lastIndexOf('/');
                ObjectNode parent = (ObjectNode) root.at(path.substring(0, cut));
                String member = path.substring(cut + 1);
                boolean word = parent.get(member).isString();
                if (path.equals("/shape") || instead instanceof StringNode && !word) {
                    continue;
                }
                if (instead == null) {
                    parent.remove(member);
                } else {
                    parent.set(member, instead);
                }
                BlockFacts read = FactsJson.read(root.toString());
                assertThat(read.kit().payload().heads()).as(path).isNotEmpty();
                assertThat(read.pins().scaleFixed()).as(path).isTrue();
                assertThat(FactsJson.read(FactsJson.write(read))).as(path).isEqualTo(read);
            }
        }
    }

    private static void collect(JsonNode node, String path, List<String> paths) {
        node.properties().forEach(member -> {
            String below = path + "/" + member.getKey();
            paths.add(below);
            collect(member.getValue(), below, paths);
        });
        for (int i = 0; node.isArray() && i < node.size(); i++) {
            collect(node.get(i), path + "/" + i, paths);
        }
    }

    @Test
    void anUnknownPinIsPassedOverAndTheRestHolds() {
        String future = frozen("facts-form-2.json").replace("\"pins\":{", "\"pins\":{\"rotor-count\":\"4\",");
        assertThat(FactsJson.read(future).pins()).isEqualTo(whole().pins());
    }

    @ParameterizedTest
    @CsvSource({
        "'{\"shape\":12,\"outline\":[]}', newer Yalos (form 12; this one reads up to form 11)",
        "'{\"outline\":[]}', does not say in which form",
        "'{\"shape\":2,\"outline\":[', cannot be read",
        "'', does not say in which form",
    })
    void aNewerFormOrNoneIsRefusedInASentence(String stored, String sentence) {
        assertThatThrownBy(() -> FactsJson.read(stored))
                .isInstanceOf(Unreadable.class)
                .hasMessageContaining(sentence);
    }
}
