package yalos.web.demo;

import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.OptionalLong;
import java.util.stream.IntStream;
import org.springframework.boot.autoconfigure.condition.ConditionalOnProperty;
import org.springframework.stereotype.Component;
import yalos.core.block.Corridor;
import yalos.core.block.Outline;
import yalos.core.brief.Brief;
import yalos.core.control.ControlLayout;
import yalos.core.control.ControlPoint;
import yalos.core.day.DaySettings;
import yalos.core.day.Papers;
import yalos.core.geodesy.EastNorth;
import yalos.core.geodesy.Grid;
import yalos.core.geodesy.LonLat;
import yalos.core.kit.Aircraft;
import yalos.core.kit.Kit;
import yalos.core.kit.Payload;
import yalos.core.pattern.AddedPass;
import yalos.core.pattern.Crossing;
import yalos.core.pattern.Patterns;
import yalos.core.pattern.Structures;
import yalos.core.pattern.TiltedPasses;
import yalos.core.pins.Pins;
import yalos.core.pins.Quantity;
import yalos.core.site.Obstacle;
import yalos.core.terrain.VerticalDatum;
import yalos.core.units.Measure;
import yalos.core.units.Unit;
import yalos.core.weather.SimulatedStation;
import yalos.web.elevation.Models;
import yalos.web.jobs.Jobs;
import yalos.web.shell.FirstData;
import yalos.web.store.AccuracyMapper;
import yalos.web.store.BlockFacts;
import yalos.web.store.CameraMapper;
import yalos.web.store.CameraRow;
import yalos.web.store.ControlMapper;
import yalos.web.store.FieldMapper;
import yalos.web.store.Fieldwork;
import yalos.web.store.GroundFacts;
import yalos.web.store.JobMapper;

/** Thornwane Rigg: an upland estate with an old hill fort. Invented from end to end. Written once, into an empty store. */
@Component
@ConditionalOnProperty("yalos.demo")
class DemoJob implements FirstData {
    static final Grid GRID = Grid.ofEpsg(32630);
    private static final double[] HILL_FORT = {
        412_717, 6_041_822, 413_000, 6_041_714, 413_055, 6_041_480, 412_905, 6_041_290, 412_581, 6_041_270, 412_380,
        6_041_411, 412_396, 6_041_728
    };
    private static final double[] MEADOW = {
        413_180, 6_041_150, 413_420, 6_041_205, 413_455, 6_040_960, 413_330, 6_040_905, 413_205, 6_040_985
    };
    private static final double[] TRAMWAY = {
        412_040, 6_041_133, 412_460, 6_041_209, 412_840, 6_041_277, 413_010, 6_041_262, 413_140, 6_041_190
    };
    private static final double[] RAMPARTS = {
        412_760, 6_041_700, 412_960, 6_041_660, 412_990, 6_041_440, 412_850, 6_041_380, 412_770, 6_041_480
    };
    private static final double[] POINTS = {
        412_428, 6_041_700, 412_965, 6_041_690, 412_895, 6_041_325, 412_425, 6_041_430, 412_727, 6_041_470, 412_700,
        6_041_770, 412_545, 6_041_560, 412_850, 6_041_590, 412_990, 6_041_480, 412_640, 6_041_330
    };
    private static final double[] TARN = {413_300, 6_041_080, 413_335, 6_041_095, 413_350, 6_041_060, 413_318, 6_041_040
    };

    private static final LocalDate FLOWN_ON = LocalDate.of(2027, 4, 30);

    private final JobMapper rows;
    private final CameraMapper cameras;
    private final Jobs jobs;
    private final Models models;
    private final ControlMapper control;
    private final AccuracyMapper accuracy;
    private final FieldMapper field;
    private final DemoLog log;

    DemoJob(
            JobMapper rows,
            CameraMapper cameras,
            Jobs jobs,
            Models models,
            ControlMapper control,
            FieldMapper field,
            AccuracyMapper accuracy,
            DemoLog log) {
        this.log = log;
        this.accuracy = accuracy;
        this.field = field;
        this.control = control;
        this.models = models;
        this.rows = rows;
        this.cameras = cameras;
        this.jobs = jobs;
    }

    @Override
    public void write() {
        if (!rows.jobs().isEmpty()) {
            return;
        }
        LonLat carPark = GRID.toLonLat(new EastNorth(412_350, 6_041_330));
        jobs.create("Thornwane Rigg", Optional.of(carPark));
        long job = rows.jobNamed("Thornwane Rigg").orElseThrow();
        long empty = rows.blockNamed(job, "Block A").orElseThrow();
        GroundFacts.ModelUse terrain = terrain(job);
        GroundFacts ground = GroundFacts.LEVEL.withModels(List.of(terrain));
        jobs.addBlock(
                job,
                "Block A, hill fort",
                fort(carPark).with(ground.withObstacles(List.of(tower()))).with(points()),
                "outline drawn");
        jobs.addBlock(job, "Block B, meadow", meadow(carPark).with(ground), "outline drawn");
        jobs.addBlock(job, "Block C, tramway", tramway(carPark).with(ground), "axis drawn");
        jobs.addBlock(job, "Block D, ramparts", ramparts(carPark).with(ground), "outline drawn");
        jobs.deleteBlock(empty);
        measured(rows.blockNamed(job, "Block A, hill fort").orElseThrow());
        batteries();
        log.write(job);
        jobs.addBlock(
                job,
                "Block F, beacon tower",
                round(carPark, DemoObjects.TOWER, DemoObjects.tower()).with(ground),
                "object drawn");
        jobs.addBlock(
                job,
                "Block G, tramway bridge",
                round(carPark, DemoObjects.BRIDGE, DemoObjects.bridge()).with(ground),
                "object drawn");
    }

    /** Five control and five check points on the fort. */
    private static ControlLayout points() {
        ControlLayout layout = ControlLayout.NONE;
        for (int i = 0; i < POINTS.length; i += 2) {
            ControlPoint.Role role = i < POINTS.length / 2 ? ControlPoint.Role.CONTROL : ControlPoint.Role.CHECK;
            LonLat place = GRID.toLonLat(new EastNorth(POINTS[i], POINTS[i + 1]));
            layout = layout.plus(ControlPoint.target(layout.nextName(), role, place));
        }
        return layout;
    }

    /** The last of April, with the simulated station's weather: a calm morning, too windy early in the afternoon. */
    private static DaySettings day() {
        DaySettings usual = DaySettings.USUAL;
        return new DaySettings(
                Optional.of(FLOWN_ON),
                "Europe/London",
                usual.startMin(),
                usual.notBefore(),
                usual.changeMin(),
                usual.panelMin(),
                1,
                usual.chargeMin(),
                usual.limits(),
                SimulatedStation.day(FLOWN_ON),
                usual.earlier(),
                usual.papers()
                        .with(
                                List.of(
                                        new Papers.Emergency("Estate office", "at the gate lodge, by day"),
                                        new Papers.Emergency("Shepherd", "on the in-bye land until ten")),
                                List.of(
                                        "Permission of the estate in writing, carried along",
                                        "Public path along the tramway: nobody below, a watcher stands there")));
    }

    /** Four of some age, one nearly empty, and a flight that took more than the aircraft's figures say; all invented. */
    private void batteries() {
        LocalDateTime read = LocalDateTime.of(2026, 10, 6, 18, 30);
        double[][] packs = {{61, 0.88, 0.92}, {58, 0.86, 0.90}, {64, 0.85, 0.90}, {12, 0.97, 0.46}};
        for (int i = 0; i < packs.length; i++) {
            field.read(new FieldMapper.BatteryRow(
                    0, "T" + (i + 1), (int) packs[i][0], packs[i][1], packs[i][2], "2024-03", "", false, read, "demo"));
        }
        field.flew(new FieldMapper.ConsumptionRow(
                0,
                Aircraft.smallMultirotor().name(),
                LocalDate.of(2026, 10, 6),
                0.6,
                12,
                null,
                4,
                282.15,
                "trial over the meadow, made up for the demo",
                "",
                read,
                "demo"));
    }

    /** All but the last were measured, number 3 badly, number 7 twice. The figures beyond the terrain's are invented. */
    private void measured(long block) {
        double[] mm = {4, -7, 9, -3, 6, -8, 2, 5, -6};
        for (int i = 0; i < mm.length; i++) {
            boolean bad = i == 2;
            control.append(
                    block,
                    observation(
                            i, mm[i] / 1000, 10 + i, bad ? 0.062 : 0.009 + 0.001 * (i % 4), bad ? "FLOAT" : "FIXED"));
        }
        control.append(block, observation(6, -0.004, 25, 0.012, "FIXED"));
        control.note(block, "", mm.length + 1 + " measured, made up for the demo");
        residuals(block);
    }

    /** Residuals of the check points in the map that was made: at number 9 the pole of 2 m was worked out as if it were 1.8 m. */
    private void residuals(long block) {
        double[] mm = {9, -6, 14, -11, 8, -19, 4, 12, 7, -8, -5, 206, 6, 11, 5, -3, 5, 4, 7, -2, -6, -4, 3, 8, 2, -7, -5
        };
        for (int i = 0; i < mm.length / 3; i++) {
            boolean check = i < 4;
            int point = check ? i + 5 : i - 4;
            double east = POINTS[2 * point];
            double north = POINTS[2 * point + 1];
            LonLat at = GRID.toLonLat(new EastNorth(east, north));
            accuracy.append(
                    block,
                    new AccuracyMapper.ResidualRow(
                            0,
                            String.valueOf(point + 1),
                            check ? "CHECK" : "CONTROL",
                            mm[3 * i] / 1000,
                            mm[3 * i + 1] / 1000,
                            mm[3 * i + 2] / 1000,
                            at.lonDeg(),
                            at.latDeg(),
                            ThornwaneTerrain.height(east, north),
                            "",
                            "thornwane-residuals.csv",
                            "",
                            null,
                            ""));
        }
    }

    private static ControlMapper.ObservationRow observation(
            int point, double offM, int minute, double sigmaM, String solution) {
        double east = POINTS[2 * point] + offM;
        double north = POINTS[2 * point + 1] - offM;
        LonLat at = GRID.toLonLat(new EastNorth(east, north));
        return new ControlMapper.ObservationRow(
                0,
                String.valueOf(point + 1),
                LocalDateTime.of(2026, 10, 6, 9, minute),
                at.lonDeg(),
                at.latDeg(),
                Math.round((ThornwaneTerrain.height(east, north) + offM) * 1000) / 1000.0,
                30,
                sigmaM,
                sigmaM * 1.6,
                sigmaM * 0.8,
                solution,
                solution.equals("FIXED") ? 18 : 7,
                point == 8 ? 2.0 : 1.8,
                "",
                "thornwane-rover.csv",
                null,
                "",
                "AUTO",
                "");
    }

    /** The ruined beacon tower on the mound. */
    private static Obstacle tower() {
        return new Obstacle(
                "beacon tower, ruined",
                Obstacle.Kind.MAST,
                List.of(GRID.toLonLat(new EastNorth(412_690, 6_041_575))),
                9,
                4);
    }

    /** Nothing is flown over the ground; a square block lies round the object. */
    private BlockFacts round(LonLat launch, EastNorth middle, Structures objects) {
        Pins pins = Pins.ofGsd(1).with(Quantity.CEILING, Measure.of(120, Unit.METRE));
        return facts(DemoObjects.square(middle), launch, 1, pins, Brief.EMPTY).with(Patterns.SINGLE.with(objects));
    }

    private GroundFacts.ModelUse terrain(long job) {
        ByteArrayOutputStream model = new ByteArrayOutputStream();
        try {
            ThornwaneTerrain.write(model);
            return models.take(
                    job,
                    "thornwane-rigg.tif",
                    new ByteArrayInputStream(model.toByteArray()),
                    OptionalInt.empty(),
                    VerticalDatum.GEOID_METRES,
                    brought -> {});
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    private BlockFacts fort(LonLat launch) {
        Pins pins = Pins.ofGsd(2)
                .with(Quantity.BRIEF_GSD, Measure.of(2, Unit.CENTIMETRE))
                .with(Quantity.FORWARD_OVERLAP, Measure.of(80, Unit.PERCENT))
                .with(Quantity.SIDE_OVERLAP, Measure.of(70, Unit.PERCENT))
                .with(Quantity.DIRECTION, Measure.of(64, Unit.DEGREE))
                .with(Quantity.LEAST_PHOTOS, Measure.of(9, Unit.COUNT));
        return facts(Outline.ofRing(ring(HILL_FORT)), launch, 1, pins, DemoBriefs.survey());
    }

    private BlockFacts meadow(LonLat launch) {
        Pins pins = Pins.ofHeight(60)
                .with(Quantity.FORWARD_OVERLAP, Measure.of(80, Unit.PERCENT))
                .with(Quantity.SIDE_OVERLAP, Measure.of(75, Unit.PERCENT))
                .with(Quantity.MARGIN_STRIPS, Measure.of(1, Unit.COUNT));
        Outline meadow = new Outline(List.of(new Outline.Part(ring(MEADOW), List.of(ring(TARN)))));
        BlockFacts facts = facts(meadow, launch, 6, pins, DemoBriefs.crop());
        return facts.with(facts.kit()
                .with(Payload.ofBands(facts.camera(), 35, List.of("green", "red", "red edge", "near infrared"))));
    }

    /** The overgrown tramway, along its axis. */
    private BlockFacts tramway(LonLat launch) {
        Pins pins = Pins.ofGsd(2).with(Quantity.BRIEF_GSD, Measure.of(2.5, Unit.CENTIMETRE));
        Measure beside = Measure.of(18, Unit.METRE);
        return facts(Outline.EMPTY, launch, 1, pins, Brief.EMPTY).with(new Corridor(ring(TRAMWAY), beside, beside));
    }

    /** The fort's eastern ramparts, with crossing strips and a look into them from four sides. */
    private BlockFacts ramparts(LonLat launch) {
        Pins pins = Pins.ofGsd(2)
                .with(Quantity.BRIEF_GSD, Measure.of(2.5, Unit.CENTIMETRE))
                .with(Quantity.FORWARD_OVERLAP, Measure.of(75, Unit.PERCENT))
                .with(Quantity.SIDE_OVERLAP, Measure.of(65, Unit.PERCENT));
        BlockFacts facts = facts(Outline.ofRing(ring(RAMPARTS)), launch, 1, pins, Brief.EMPTY);
        return facts.with(Patterns.SINGLE.with(List.of(
                        Crossing.SQUARE.with(new AddedPass.Own(
                                Optional.of(Measure.of(90, Unit.METRE)), Optional.empty(), Optional.empty())),
                        TiltedPasses.FOUR)))
                .with(GroundFacts.LEVEL);
    }

    private BlockFacts facts(Outline outline, LonLat launch, long cameraId, Pins pins, Brief brief) {
        CameraRow camera = cameras.byId(cameraId).orElseThrow();
        return new BlockFacts(
                outline,
                Optional.of(launch),
                OptionalInt.empty(),
                OptionalLong.of(cameraId),
                Kit.of(Aircraft.smallMultirotor(), camera.camera()),
                pins,
                brief,
                Map.of(),
                GroundFacts.LEVEL,
                Patterns.SINGLE,
                Fieldwork.NONE.with(day()));
    }

    static List<LonLat> ring(double[] positions) {
        return IntStream.range(0, positions.length / 2)
                .mapToObj(i -> GRID.toLonLat(new EastNorth(positions[2 * i], positions[2 * i + 1])))
                .toList();
    }
}
