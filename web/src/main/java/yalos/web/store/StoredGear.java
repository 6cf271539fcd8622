package yalos.web.store;

import static yalos.web.store.Plain.or;
import static yalos.web.store.Plain.word;

import java.time.LocalDate;
import java.time.format.DateTimeParseException;
import java.util.List;
import java.util.Optional;
import java.util.OptionalDouble;
import yalos.core.camera.Camera;
import yalos.core.camera.Mount;
import yalos.core.camera.Sensor;
import yalos.core.camera.Shutter;
import yalos.core.kit.Aircraft;
import yalos.core.kit.AircraftKind;
import yalos.core.kit.Battery;
import yalos.core.kit.Endurance;
import yalos.core.kit.Head;
import yalos.core.kit.Kit;
import yalos.core.kit.Payload;
import yalos.core.kit.Positioning;
import yalos.core.kit.Scanner;
import yalos.core.terrain.VerticalDatum;
import yalos.core.units.Unit;
import yalos.web.store.Plain.Maybe;

/**
 * Aircraft, cameras, scanners, kits and height systems as they are stored and handed out: plain types, SI, the same in every form so far.
 * What a stored one lacks is filled with what is usual for a small multirotor or its camera.
 */
final class StoredGear {
    private static final Aircraft USUAL = Aircraft.smallMultirotor();

    private StoredGear() {}

    record StoredBattery(
            Double nominalMinutes,
            @Maybe Double rtkMinutes,
            Integer sets,
            Double reserve,
            Double health,
            @Maybe StoredUse measured,
            @Maybe StoredEndurance endurance) {
        static StoredBattery of(Battery battery) {
            return new StoredBattery(
                    battery.nominalMinutes(),
                    battery.rtkMinutes().orElse(null),
                    battery.sets(),
                    battery.reserve(),
                    battery.health(),
                    battery.measured()
                            .map(use -> new StoredUse(use.share(), use.minutes()))
                            .orElse(null),
                    StoredEndurance.of(battery.endurance()));
        }

        Battery battery() {
            Battery usual = USUAL.battery();
            return new Battery(
                    or(nominalMinutes, usual.nominalMinutes()),
                    Optional.ofNullable(rtkMinutes),
                    or(sets, usual.sets()),
                    or(reserve, usual.reserve()),
                    or(health, usual.health()),
                    Optional.ofNullable(measured).flatMap(StoredUse::use),
                    endurance == null ? Endurance.UNKNOWN : endurance.endurance());
        }
    }

    record StoredEndurance(
            @Maybe Double hoverMinutes,
            @Maybe Double longestMinutes,
            @Maybe Double longestAtMps) {
        /** Null for a battery of which nothing is known. */
        static StoredEndurance of(Endurance one) {
            return one.equals(Endurance.UNKNOWN)
                    ? null
                    : new StoredEndurance(
                            boxed(one.hoverMinutes()), boxed(one.longestMinutes()), boxed(one.longestAtMps()));
        }

        private static Double boxed(OptionalDouble figure) {
            return figure.isPresent() ? figure.getAsDouble() : null;
        }

        private static OptionalDouble figure(Double boxed) {
            return boxed == null ? OptionalDouble.empty() : OptionalDouble.of(boxed);
        }

        Endurance endurance() {
            return new Endurance(figure(hoverMinutes), figure(longestMinutes), figure(longestAtMps));
        }
    }

    record StoredUse(Double share, Double minutes) {
        Optional<Battery.Use> use() {
            return share == null || minutes == null ? Optional.empty() : Optional.of(new Battery.Use(share, minutes));
        }
    }

    record StoredAircraft(
            String name,
            String kind,
            Double maxSpeedMps,
            Double transitMps,
            @Maybe Double returnMps,
            @Maybe Double slowestMps,
            Double accelerationMps2,
            Double turnSpeedMps,
            Double bankRad,
            Double climbMps,
            Double descentMps,
            Double windLimitMps,
            String weatherClass,
            String positioning,
            StoredBattery battery) {
        static StoredAircraft of(Aircraft aircraft) {
            return new StoredAircraft(
                    aircraft.name(),
                    aircraft.kind().name(),
                    aircraft.maxSpeedMps(),
                    aircraft.transitMps(),
                    aircraft.returnMps(),
                    aircraft.slowestMps(),
                    aircraft.accelerationMps2(),
                    aircraft.turnSpeedMps(),
                    aircraft.bankRad(),
                    aircraft.climbMps(),
                    aircraft.descentMps(),
                    aircraft.windLimitMps(),
                    aircraft.weatherClass(),
                    aircraft.positioning().name(),
                    StoredBattery.of(aircraft.battery()));
        }

        /** A wing whose slowest speed nobody asked for yet is taken to need seven tenths of its fastest (common practice). */
        private double slowestUsual() {
            boolean wing = word(kind, AircraftKind.MULTIROTOR).wing();
            return wing ? 0.7 * or(maxSpeedMps, USUAL.maxSpeedMps()) : 0;
        }

        Aircraft aircraft() {
            return new Aircraft(
                    or(name, USUAL.name()),
                    word(kind, AircraftKind.MULTIROTOR),
                    or(maxSpeedMps, USUAL.maxSpeedMps()),
                    or(transitMps, USUAL.transitMps()),
                    or(returnMps, or(transitMps, USUAL.transitMps())),
                    or(slowestMps, slowestUsual()),
                    or(accelerationMps2, USUAL.accelerationMps2()),
                    or(turnSpeedMps, USUAL.turnSpeedMps()),
                    or(bankRad, USUAL.bankRad()),
                    or(climbMps, USUAL.climbMps()),
                    or(descentMps, USUAL.descentMps()),
                    or(windLimitMps, USUAL.windLimitMps()),
                    or(weatherClass, ""),
                    word(positioning, Positioning.SINGLE),
                    battery == null ? USUAL.battery() : battery.battery());
        }
    }

    record StoredSensor(Integer pixelsWide, Integer pixelsHigh, Double widthM, Double heightM) {}

    record StoredShutter(String kind, Double readoutS) {}

    record StoredRoom(Double bytesPerPhoto, Double cardBytes, Integer photosPerFlight, Double rawIntervalS) {}

    record StoredCamera(
            String name,
            StoredSensor sensor,
            Double focalLengthM,
            StoredShutter shutter,
            Double minIntervalS,
            String mount,
            StoredRoom storage) {
        static StoredCamera of(Camera camera) {
            Sensor sensor = camera.sensor();
            Camera.Storage storage = camera.storage();
            return new StoredCamera(
                    camera.name(),
                    new StoredSensor(sensor.pixelsWide(), sensor.pixelsHigh(), sensor.widthM(), sensor.heightM()),
                    camera.focalLengthM(),
                    new StoredShutter(
                            camera.shutter().kind().name(), camera.shutter().readoutS()),
                    camera.minIntervalS(),
                    camera.mount().name(),
                    new StoredRoom(
                            storage.bytesPerPhoto(),
                            storage.cardBytes(),
                            storage.photosPerFlight(),
                            storage.rawIntervalS()));
        }

        Camera camera() {
            Camera usual = GenericCamera.USUAL;
            StoredSensor s = sensor == null ? new StoredSensor(null, null, null, null) : sensor;
            StoredShutter t = shutter == null ? new StoredShutter(null, null) : shutter;
            StoredRoom r = storage == null ? new StoredRoom(null, null, null, null) : storage;
            return new Camera(
                    or(name, usual.name()),
                    new Sensor(
                            or(s.pixelsWide, usual.sensor().pixelsWide()),
                            or(s.pixelsHigh, usual.sensor().pixelsHigh()),
                            or(s.widthM, usual.sensor().widthM()),
                            or(s.heightM, usual.sensor().heightM())),
                    or(focalLengthM, usual.focalLengthM()),
                    new Shutter(word(t.kind, Shutter.Kind.MECHANICAL), or(t.readoutS, 0)),
                    or(minIntervalS, usual.minIntervalS()),
                    word(mount, Mount.WIDTH_ACROSS),
                    new Camera.Storage(
                            or(r.bytesPerPhoto, usual.storage().bytesPerPhoto()),
                            or(r.cardBytes, usual.storage().cardBytes()),
                            or(r.photosPerFlight, usual.storage().photosPerFlight()),
                            or(r.rawIntervalS, 0)));
        }
    }

    /** What stands in for a camera that was lost from a record. */
    private static final class GenericCamera {
        private static final Camera USUAL = new Camera(
                "20-megapixel 4/3-inch camera",
                Sensor.ofMillimetres(5280, 3956, 17.3, 13.0),
                0.01229,
                Shutter.mechanical(),
                0.7,
                Mount.WIDTH_ACROSS,
                Camera.Storage.of(10, 128, 10_000));
    }

    record StoredHead(String name, StoredCamera camera, Integer filesPerCapture, Double leastHeightM) {
        static StoredHead of(Head head) {
            return new StoredHead(
                    head.name(), StoredCamera.of(head.camera()), head.filesPerCapture(), head.leastHeightM());
        }

        Head head() {
            return new Head(
                    or(name, "camera"),
                    camera == null ? GenericCamera.USUAL : camera.camera(),
                    or(filesPerCapture, 1),
                    or(leastHeightM, 0));
        }
    }

    record StoredScanner(
            String name, Double fieldOfViewRad, Double pulsesPerSecond, Double usableShare, Double maxRangeM) {
        static StoredScanner of(Scanner scanner) {
            return new StoredScanner(
                    scanner.name(),
                    scanner.fieldOfViewRad(),
                    scanner.pulsesPerSecond(),
                    scanner.usableShare(),
                    scanner.maxRangeM());
        }

        Scanner scanner() {
            return new Scanner(
                    or(name, "scanner"),
                    or(fieldOfViewRad, Math.toRadians(70)),
                    or(pulsesPerSecond, 240_000),
                    or(usableShare, 0.6),
                    or(maxRangeM, 190));
        }
    }

    record StoredPayload(List<StoredHead> heads, @Maybe StoredScanner scanner) {
        static StoredPayload of(Payload payload) {
            return new StoredPayload(
                    payload.heads().stream().map(StoredHead::of).toList(),
                    payload.scanner().map(StoredScanner::of).orElse(null));
        }

        Payload payload() {
            List<Head> read = or(heads).stream().map(StoredHead::head).toList();
            return new Payload(
                    read.isEmpty() ? List.of(Head.of(GenericCamera.USUAL)) : read,
                    Optional.ofNullable(scanner).map(StoredScanner::scanner));
        }
    }

    record StoredService(String firmware, @Maybe String calibratedOn) {
        Kit.Service service() {
            return new Kit.Service(or(firmware, ""), day(calibratedOn));
        }
    }

    record StoredKit(String name, StoredAircraft aircraft, StoredPayload payload, StoredService service) {
        static StoredKit of(Kit kit) {
            return new StoredKit(
                    kit.name(),
                    StoredAircraft.of(kit.aircraft()),
                    StoredPayload.of(kit.payload()),
                    new StoredService(
                            kit.service().firmware(),
                            kit.service()
                                    .calibratedOn()
                                    .map(LocalDate::toString)
                                    .orElse(null)));
        }

        Kit kit() {
            Aircraft flown = aircraft == null ? USUAL : aircraft.aircraft();
            Payload carried = payload == null ? Payload.of(GenericCamera.USUAL) : payload.payload();
            return new Kit(
                    or(name, flown.name()), flown, carried, service == null ? Kit.Service.UNKNOWN : service.service());
        }
    }

    record StoredDatum(String zero, String unit, Double offsetM) {
        static StoredDatum of(VerticalDatum datum) {
            return new StoredDatum(datum.zero().name(), datum.unit().name(), datum.offsetM());
        }

        VerticalDatum datum() {
            return new VerticalDatum(word(zero, VerticalDatum.Zero.GEOID), word(unit, Unit.METRE), or(offsetM, 0));
        }
    }

    /** A day; empty where it is missing or no day. */
    static Optional<LocalDate> day(String text) {
        try {
            return Optional.ofNullable(text).map(LocalDate::parse);
        } catch (DateTimeParseException noDay) {
            return Optional.empty();
        }
    }
}
