package yalos.web.store;

import static yalos.web.store.Plain.maybe;
import static yalos.web.store.Plain.or;
import static yalos.web.store.Plain.orNull;
import static yalos.web.store.Plain.word;

import java.time.LocalDate;
import java.util.EnumMap;
import java.util.EnumSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.OptionalLong;
import java.util.Set;
import java.util.TreeMap;
import yalos.core.block.Outline;
import yalos.core.brief.Brief;
import yalos.core.brief.Crop;
import yalos.core.brief.Day;
import yalos.core.brief.Priority;
import yalos.core.brief.Purpose;
import yalos.core.brief.Site;
import yalos.core.brief.Surface;
import yalos.core.fault.InputFault;
import yalos.core.geodesy.LonLat;
import yalos.core.height.HeightChoice;
import yalos.core.kit.Positioning;
import yalos.core.pins.Pins;
import yalos.core.pins.Quantity;
import yalos.core.site.Obstacle;
import yalos.core.site.Zone;
import yalos.core.units.Measure;
import yalos.core.units.Unit;
import yalos.web.store.StoredGear.StoredDatum;
import yalos.web.store.StoredGear.StoredKit;

/**
 * Facts of a block in their third form, the present one. Plain types alone; places are pairs of longitude and latitude. A part that is
 * missing is read as what is usual, an unknown word or pin is passed over, so that facts of any age give a block.
 */
record FactsForm3(
        Integer shape,
        List<Part> outline,
        double[] launch,
        Integer epsg,
        Long cameraId,
        StoredKit kit,
        Map<String, String> pins,
        Map<String, Map<String, String>> displaced,
        StoredBrief brief,
        Map<String, String> notes,
        StoredGround ground) {
    /** Words of constants that were renamed since they were stored: old name, present name. None yet. */
    private static final Map<String, String> RENAMED = Map.of();

    private static final double USUAL_GSD_CM = 2;

    record Part(List<double[]> outer, List<List<double[]>> holes) {
        static Part of(Outline.Part part) {
            return new Part(
                    pairs(part.outer()),
                    part.holes().stream().map(FactsForm3::pairs).toList());
        }

        Outline.Part part() {
            return new Outline.Part(
                    corners(outer), or(holes).stream().map(FactsForm3::corners).toList());
        }
    }

    record StoredBrief(
            String purpose,
            String decision,
            Double smallestM,
            Double horizontalM,
            Double verticalM,
            String surface,
            String priority,
            String positioning,
            String delivery,
            String client,
            String due,
            StoredSite site,
            StoredCrop crop,
            StoredDay day,
            Map<String, Ruling> rulings) {
        static StoredBrief of(Brief brief) {
            Map<String, Ruling> rulings = new TreeMap<>();
            brief.rulings().forEach((key, ruling) -> rulings.put(key, new Ruling(ruling.accepted(), ruling.note())));
            return new StoredBrief(
                    brief.purpose().map(Enum::name).orElse(null),
                    brief.decision(),
                    orNull(brief.smallestM()),
                    orNull(brief.horizontalM()),
                    orNull(brief.verticalM()),
                    brief.surface().name(),
                    brief.priority().name(),
                    brief.positioning().name(),
                    brief.delivery(),
                    brief.client(),
                    brief.due().map(LocalDate::toString).orElse(null),
                    StoredSite.of(brief.site()),
                    StoredCrop.of(brief.crop()),
                    StoredDay.of(brief.day()),
                    rulings);
        }

        Brief brief() {
            Map<String, Brief.Ruling> said = new TreeMap<>();
            or(rulings)
                    .forEach((key, ruling) ->
                            said.put(key, new Brief.Ruling(or(ruling.accepted(), false), or(ruling.note(), ""))));
            return new Brief(
                    Plain.known(purpose, Purpose.class, RENAMED),
                    or(decision, ""),
                    maybe(smallestM),
                    maybe(horizontalM),
                    maybe(verticalM),
                    word(surface, Surface.GENERAL, RENAMED),
                    word(priority, Priority.DETAIL, RENAMED),
                    word(positioning, Positioning.SINGLE, RENAMED),
                    or(delivery, ""),
                    or(client, ""),
                    StoredGear.day(due),
                    site == null ? Site.PLAIN : site.site(),
                    crop == null ? Crop.NONE : crop.crop(),
                    day == null ? Day.USUAL : day.day(),
                    said);
        }
    }

    record Ruling(Boolean accepted, String note) {}

    record StoredSite(Boolean bareEarth, Boolean vegetation, List<String> difficulties) {
        static StoredSite of(Site site) {
            return new StoredSite(
                    site.bareEarth(),
                    site.vegetation(),
                    site.difficulties().stream().map(Enum::name).sorted().toList());
        }

        Site site() {
            Set<Site.Difficulty> known = EnumSet.noneOf(Site.Difficulty.class);
            or(difficulties)
                    .forEach(one ->
                            Plain.known(one, Site.Difficulty.class, RENAMED).ifPresent(known::add));
            return new Site(or(bareEarth, false), or(vegetation, false), known);
        }
    }

    record StoredCrop(String stage, Double plantM, String use) {
        static StoredCrop of(Crop crop) {
            return new StoredCrop(
                    crop.stage().name(), orNull(crop.plantM()), crop.use().name());
        }

        Crop crop() {
            return new Crop(
                    word(stage, Crop.Stage.NONE, RENAMED), maybe(plantM), word(use, Crop.Use.SCOUTING, RENAMED));
        }
    }

    record StoredDay(
            Double travelMinutes, Double setUpMinutes, Integer targets, Double minutesPerTarget, Double dayMinutes) {
        static StoredDay of(Day day) {
            return new StoredDay(
                    day.travelMinutes(), day.setUpMinutes(), day.targets(), day.minutesPerTarget(), day.dayMinutes());
        }

        Day day() {
            Day usual = Day.USUAL;
            return new Day(
                    or(travelMinutes, usual.travelMinutes()),
                    or(setUpMinutes, usual.setUpMinutes()),
                    or(targets, usual.targets()),
                    or(minutesPerTarget, usual.minutesPerTarget()),
                    or(dayMinutes, usual.dayMinutes()));
        }
    }

    record Model(Long id, Integer epsg, StoredDatum datum) {}

    record Choice(String reference, String plane, Double clearanceM, Double smoothingM) {
        HeightChoice choice() {
            HeightChoice usual = HeightChoice.USUAL;
            return new HeightChoice(
                    word(reference, usual.reference(), RENAMED),
                    word(plane, usual.plane(), RENAMED),
                    or(clearanceM, usual.clearanceM()),
                    or(smoothingM, usual.smoothingM()));
        }
    }

    record Standing(String name, String kind, List<double[]> places, Double heightM, Double radiusM) {
        static Standing of(Obstacle obstacle) {
            return new Standing(
                    obstacle.name(),
                    obstacle.kind().name(),
                    pairs(obstacle.places()),
                    obstacle.heightM(),
                    obstacle.radiusM());
        }

        /** Without a height or a place it is none. */
        Optional<Obstacle> obstacle() {
            return heightM == null || or(places).isEmpty()
                    ? Optional.empty()
                    : Optional.of(new Obstacle(
                            or(name, "obstacle"),
                            word(kind, Obstacle.Kind.MAST, RENAMED),
                            corners(places),
                            heightM,
                            or(radiusM, 0)));
        }
    }

    record Hanging(String name, String kind, List<Part> outline, Double floorM, Double ceilingM) {
        static Hanging of(Zone zone) {
            return new Hanging(
                    zone.name(),
                    zone.kind().name(),
                    zone.outline().parts().stream().map(Part::of).toList(),
                    zone.floorM(),
                    Double.isInfinite(zone.ceilingM()) ? null : zone.ceilingM());
        }

        /** A zone of an unknown kind keeps out. */
        Optional<Zone> zone() {
            return or(outline).isEmpty()
                    ? Optional.empty()
                    : Optional.of(new Zone(
                            or(name, "zone"),
                            word(kind, Zone.Kind.KEEP_OUT, RENAMED),
                            new Outline(outline.stream().map(Part::part).toList()),
                            or(floorM, 0),
                            or(ceilingM, Double.POSITIVE_INFINITY)));
        }
    }

    record StoredGround(
            List<Model> models,
            Choice choice,
            List<Standing> obstacles,
            List<Hanging> zones,
            Double takeOffLevelM,
            Long picture,
            Double spanM) {
        static StoredGround of(GroundFacts ground) {
            HeightChoice choice = ground.choice();
            return new StoredGround(
                    ground.models().stream()
                            .map(use -> new Model(use.id(), use.epsg(), StoredDatum.of(use.datum())))
                            .toList(),
                    new Choice(
                            choice.reference().name(), choice.plane().name(), choice.clearanceM(), choice.smoothingM()),
                    ground.obstacles().stream().map(Standing::of).toList(),
                    ground.zones().stream().map(Hanging::of).toList(),
                    orNull(ground.takeOffLevelM()),
                    ground.picture().isPresent() ? ground.picture().getAsLong() : null,
                    orNull(ground.spanM()));
        }

        GroundFacts ground() {
            return new GroundFacts(
                    or(models).stream()
                            .filter(model -> model.id() != null && model.epsg() != null)
                            .map(model -> new GroundFacts.ModelUse(
                                    model.id(),
                                    model.epsg(),
                                    (model.datum() == null ? new StoredDatum(null, null, null) : model.datum())
                                            .datum()))
                            .toList(),
                    choice == null ? HeightChoice.USUAL : choice.choice(),
                    or(obstacles).stream()
                            .flatMap(one -> one.obstacle().stream())
                            .toList(),
                    or(zones).stream().flatMap(one -> one.zone().stream()).toList(),
                    maybe(takeOffLevelM),
                    picture == null ? OptionalLong.empty() : OptionalLong.of(picture),
                    maybe(spanM));
        }
    }

    static FactsForm3 of(BlockFacts facts) {
        Map<String, String> pins = new LinkedHashMap<>();
        facts.pins().asMap().forEach((quantity, value) -> pins.put(quantity.key(), value.asTyped()));
        Map<String, String> notes = new LinkedHashMap<>();
        new TreeMap<>(facts.notes()).forEach((quantity, note) -> notes.put(quantity.key(), note));
        return new FactsForm3(
                3,
                facts.outline().parts().stream().map(Part::of).toList(),
                facts.launch()
                        .map(at -> new double[] {at.lonDeg(), at.latDeg()})
                        .orElse(null),
                facts.epsg().isPresent() ? facts.epsg().getAsInt() : null,
                facts.cameraId().isPresent() ? facts.cameraId().getAsLong() : null,
                StoredKit.of(facts.kit()),
                pins,
                displaced(facts.pins()),
                StoredBrief.of(facts.brief()),
                notes,
                StoredGround.of(facts.ground()));
    }

    private static Map<String, Map<String, String>> displaced(Pins pins) {
        Map<String, Map<String, String>> all = new TreeMap<>();
        pins.displaced().forEach((pin, lost) -> {
            Map<String, String> typed = new TreeMap<>();
            lost.forEach((quantity, value) -> typed.put(quantity.key(), value.asTyped()));
            all.put(pin.key(), typed);
        });
        return all.isEmpty() ? null : all;
    }

    BlockFacts facts() {
        return new BlockFacts(
                new Outline(or(outline).stream().map(Part::part).toList()),
                Optional.ofNullable(launch).filter(pair -> pair.length == 2).map(FactsForm3::corner),
                epsg == null ? OptionalInt.empty() : OptionalInt.of(epsg),
                cameraId == null ? OptionalLong.empty() : OptionalLong.of(cameraId),
                (kit == null ? new StoredKit(null, null, null, null) : kit).kit(),
                readPins(),
                brief == null ? Brief.EMPTY : brief.brief(),
                readNotes(),
                ground == null ? GroundFacts.LEVEL : ground.ground());
    }

    /** Pins nobody knows or that cannot be any more are passed over; without a scale the usual GSD stands in. */
    private Pins readPins() {
        Map<Quantity, Measure> known = new EnumMap<>(Quantity.class);
        or(pins).forEach((key, typed) -> Quantity.ofKey(key)
                .ifPresent(quantity -> typed(quantity, typed).ifPresent(value -> known.put(quantity, value))));
        try {
            return Pins.of(known).remembering(readDisplaced());
        } catch (InputFault noScale) {
            known.put(Quantity.GSD, Measure.of(USUAL_GSD_CM, Unit.CENTIMETRE));
            return Pins.of(known);
        }
    }

    private Map<Quantity, Map<Quantity, Measure>> readDisplaced() {
        Map<Quantity, Map<Quantity, Measure>> all = new EnumMap<>(Quantity.class);
        or(displaced)
                .forEach((key, lost) -> Quantity.ofKey(key).ifPresent(pin -> {
                    Map<Quantity, Measure> read = new EnumMap<>(Quantity.class);
                    or(lost).forEach((other, typed) -> Quantity.ofKey(other)
                            .ifPresent(
                                    quantity -> typed(quantity, typed).ifPresent(value -> read.put(quantity, value))));
                    all.put(pin, read);
                }));
        return all;
    }

    private static Optional<Measure> typed(Quantity quantity, String typed) {
        try {
            Unit unit = quantity.kind().choices().get(0).unit();
            return Optional.of(quantity.checked(Measure.typed(quantity.key(), typed, unit)));
        } catch (InputFault cannotBeAnyMore) {
            return Optional.empty();
        }
    }

    private Map<Quantity, String> readNotes() {
        Map<Quantity, String> known = new EnumMap<>(Quantity.class);
        or(notes).forEach((key, note) -> Quantity.ofKey(key).ifPresent(quantity -> known.put(quantity, note)));
        return known;
    }

    private static List<double[]> pairs(List<LonLat> ring) {
        return ring.stream()
                .map(corner -> new double[] {corner.lonDeg(), corner.latDeg()})
                .toList();
    }

    private static List<LonLat> corners(List<double[]> pairs) {
        return or(pairs).stream()
                .filter(pair -> pair != null && pair.length == 2)
                .map(FactsForm3::corner)
                .toList();
    }

    private static LonLat corner(double[] pair) {
        return LonLat.of(pair[0], pair[1]);
    }
}
