package yalos.core.finding;

import static yalos.core.finding.Finding.Level.*;
import static yalos.core.pins.Quantity.*;

import java.util.List;
import java.util.function.Consumer;
import java.util.stream.Stream;
import yalos.core.camera.Camera;
import yalos.core.kit.Aircraft;
import yalos.core.kit.Payload;
import yalos.core.ledger.CameraCard;
import yalos.core.plan.BlockPlan;
import yalos.core.trial.LineSpeeds;
import yalos.core.units.Measure;
import yalos.core.units.Unit;
import yalos.core.units.UnitKind;
import yalos.core.wind.Wind;

/** What would a practitioner say about the kit for this plan? */
final class KitFindings {
    private static final double SLOW_MPS = 2;
    /** So few seconds in hand are none. */
    private static final double THIN_S = 60;

    private static final double SKEW_WORTH_SAYING_PX = 1;

    private final BlockPlan plan;
    private final Collected found;

    static final List<Rule> RULES = Rule.all(
            KitFindings::new,
            List.<Consumer<KitFindings>>of(
                    KitFindings::camera,
                    KitFindings::heads,
                    KitFindings::scanner,
                    KitFindings::shutter,
                    KitFindings::raw,
                    KitFindings::storage,
                    KitFindings::batteries,
                    KitFindings::pace,
                    KitFindings::wind));

    private KitFindings(Case one, Collected found) {
        this.plan = one.plan();
        this.found = found;
    }

    private Payload payload() {
        return plan.request().kit().payload();
    }

    private void camera() {
        plan.request().camera().doubts().forEach(doubt -> found.add(MIND, "camera-" + doubt.field(), doubt.question()));
    }

    private void heads() {
        double least = payload().leastHeightM();
        double height = plan.design().scale().heightM();
        if (height < least - 1e-9) {
            found.add(
                    MIND,
                    "least-height",
                    "The plan flies at %s; below %s the heads of this payload see the ground from too different places, and their pictures no longer register."
                            .formatted(found.height(height), found.height(least)),
                    found.remedy("Fly at " + found.height(least), HEIGHT, least));
        }
        if (payload().intervalsDiffer()) {
            found.add(
                    NOTE,
                    "head-intervals",
                    "The heads of this payload differ in how soon they can be released again; the slowest, %s, counts for all."
                            .formatted(found.text(UnitKind.INTERVAL, payload().slowestIntervalS())));
        }
    }

    private void scanner() {
        payload().scanner().ifPresent(scanner -> {
            double height = plan.design().scale().heightM();
            double range = scanner.edgeRangeM(height);
            if (range > scanner.maxRangeM()) {
                double most = found.down(UnitKind.HEIGHT, height * scanner.maxRangeM() / range, 1);
                found.add(
                        STOP,
                        "scanner-range",
                        "At the edge of the swath the ground is %s away; the scanner reaches %s."
                                .formatted(
                                        found.text(UnitKind.DISTANCE, range),
                                        found.text(UnitKind.DISTANCE, scanner.maxRangeM())),
                        found.remedy("Fly at " + found.height(most), HEIGHT, most));
            }
            double soonest = plan.design().speedMps() * payload().slowestIntervalS();
            if (plan.design().baseM() <= soonest * (1 + 1e-9) && plan.design().baseM() > 0) {
                found.add(
                        NOTE,
                        "riding-camera",
                        "The camera that rides along keeps up %s forward overlap at this speed; it does not hold the scanner up."
                                .formatted(Collected.percent(plan.design().forwardOverlap())));
            }
        });
    }

    private void shutter() {
        double skew = CameraCard.rollingPx(plan);
        if (!payload().scannerLeads() && skew > SKEW_WORTH_SAYING_PX) {
            double slow = found.down(UnitKind.SPEED, plan.design().speedMps() / skew, 0.1);
            found.add(
                    MIND,
                    "rolling-shutter",
                    "The rolling shutter skews each picture by %.1f pixels at %s; a mechanical or global shutter does not."
                            .formatted(skew, found.text(SPEED, plan.design().speedMps())),
                    found.remedy("Fly at " + found.text(SPEED, slow), SPEED, slow));
        }
    }

    private void raw() {
        Camera.Storage storage = plan.request().camera().storage();
        double interval = plan.design().intervalS();
        if (storage.hasRaw()
                && storage.rawIntervalS() > interval + 1e-9
                && !payload().scannerLeads()) {
            found.add(
                    NOTE,
                    "raw-interval",
                    "Raw files need %s between photos; the plan gives %s. Record JPEG, or hold the interval."
                            .formatted(found.text(INTERVAL, storage.rawIntervalS()), found.text(INTERVAL, interval)),
                    found.remedy(
                            "Photo every " + found.text(INTERVAL, storage.rawIntervalS()),
                            INTERVAL,
                            storage.rawIntervalS()));
        }
    }

    private void storage() {
        Camera.Storage storage = plan.request().camera().storage();
        double room = Math.floor(storage.cardBytes() / storage.bytesPerPhoto());
        double most = Math.min(room, storage.photosPerFlight());
        if (plan.photos() <= most) {
            return;
        }
        String whose = room < storage.photosPerFlight() ? "the card holds" : "the camera takes";
        Measure hold = Measure.of(most, Unit.COUNT);
        Remedy coarser = new Remedy("Hold %,d photos".formatted((int) most), PHOTOS, hold);
        boolean holds = Trial.of(plan, coarser.change())
                .filter(fitting -> fitting.solution().holds())
                .isPresent();
        found.add(
                MIND,
                "photos-beyond-limit",
                "The plan takes %,d photos, %.1f GB; %s %,.0f."
                        .formatted(plan.photos(), plan.storageBytes() / 1e9, whose, most),
                holds ? new Remedy[] {coarser} : new Remedy[0]);
    }

    private void batteries() {
        if (plan.batterySets() == 0) {
            return;
        }
        if (!plan.batteries().carries()) {
            found.add(
                    STOP,
                    "battery-reach",
                    "From the launch point a set of %s does not carry the aircraft beyond the way out and home everywhere. Launch nearer to the block."
                            .formatted(found.text(FLIGHT_TIME, plan.usableMinutes() * 60)));
            return;
        }
        int carried = plan.request().aircraft().battery().sets();
        double left = plan.batteries().leftS();
        if (left < THIN_S) {
            found.add(
                    MIND,
                    "battery-margin",
                    "The last battery set lands %.0f s before its reserve is touched. A little more wind or one turn back takes another set."
                            .formatted(left));
        }
        if (plan.batterySets() > carried) {
            found.add(
                    MIND,
                    "batteries",
                    "The flight of %s takes %d battery sets; %s carried."
                            .formatted(
                                    found.text(FLIGHT_TIME, plan.flightTimeS()),
                                    plan.batterySets(),
                                    carried == 1 ? "1 is" : carried + " are"),
                    new Remedy(
                            "Hold " + carried + (carried == 1 ? " set" : " sets"),
                            BATTERY_SETS,
                            Measure.of(carried, Unit.COUNT)));
        }
    }

    private void pace() {
        plan.request().pins().si(SPEED).ifPresent(asked -> {
            if (asked < SLOW_MPS) {
                found.add(
                        NOTE,
                        "slow",
                        "%s is slower than is usual; below %s time and battery go into standing in the air."
                                .formatted(found.text(SPEED, asked), found.text(SPEED, SLOW_MPS)));
            }
        });
    }

    /** Quicker through the air than the wind, or along it. */
    private Remedy[] againstWind(Wind wind, Aircraft aircraft) {
        double along = Math.round(Math.toDegrees(wind.fromRad())) % 180;
        Stream<Remedy> quicker = Stream.of(1.25, 1.5)
                .map(times -> Math.max(aircraft.slowestMps(), wind.speedMps() * times))
                .map(speed -> found.up(UnitKind.SPEED, speed, 0.5))
                .filter(speed -> speed <= aircraft.maxSpeedMps())
                .distinct()
                .map(speed -> found.remedy("Fly at " + found.text(SPEED, speed), SPEED, speed));
        Remedy turned =
                new Remedy("Strips along the wind, %.0f°".formatted(along), DIRECTION, Measure.of(along, Unit.DEGREE));
        return Stream.concat(quicker, Stream.of(turned)).toArray(Remedy[]::new);
    }

    private static String fromTo(String least, String most) {
        return least.equals(most) ? least : least + " to " + most;
    }

    private void wind() {
        plan.wind().ifPresent(wind -> {
            Aircraft aircraft = plan.request().aircraft();
            if (wind.speedMps() > aircraft.windLimitMps()) {
                found.add(
                        STOP,
                        "wind-limit",
                        "Wind of %s is over the aircraft's limit of %s. Do not fly; measure it at the ground before each take-off."
                                .formatted(
                                        found.text(WIND, wind.speedMps()), found.text(WIND, aircraft.windLimitMps())));
                return;
            }
            if (!Double.isFinite(plan.flightTimeS())) {
                found.add(
                        STOP,
                        "wind-track",
                        "In a wind of %s the aircraft cannot hold the strips' direction of %s at %s."
                                .formatted(
                                        found.text(WIND, wind.speedMps()),
                                        found.text(
                                                DIRECTION,
                                                plan.mainPass()
                                                        .pattern()
                                                        .directionRad()
                                                        .orElse(Double.NaN)),
                                        found.text(SPEED, plan.design().speedMps())),
                        againstWind(wind, aircraft));
            } else if (wind.speedMps() > Wind.NEGLIGIBLE_MPS) {
                LineSpeeds lines = LineSpeeds.of(plan);
                found.add(
                        NOTE,
                        "wind",
                        "In a wind of %s strips are flown at %s, crabbing up to %.0f°. Release by distance, so that the overlap does not change with the wind."
                                .formatted(
                                        found.text(WIND, wind.speedMps()),
                                        fromTo(found.text(SPEED, lines.slowMps()), found.text(SPEED, lines.fastMps())),
                                        Math.toDegrees(lines.crabRad())));
            }
        });
    }
}
