package yalos.web.store;

import java.time.Instant;
import java.time.LocalDateTime;
import java.time.ZoneOffset;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.OptionalInt;
import tools.jackson.databind.json.JsonMapper;
import yalos.core.geodesy.LonLat;
import yalos.core.take.Fix;
import yalos.core.take.PhotoFacts;
import yalos.core.take.Picture;
import yalos.core.take.Taken;
import yalos.core.terrain.VerticalDatum.Zero;
import yalos.web.store.TakeMapper.PhotoRow;

/** How photos of a take are stored: plain records as JSON, apart from the core's. A form keeps its names; what is added later may be missing in older rows. */
public final class StoredPhoto {
    private static final JsonMapper JSON = JsonMapper.builder()
            .changeDefaultPropertyInclusion(
                    with -> with.withValueInclusion(com.fasterxml.jackson.annotation.JsonInclude.Include.NON_NULL))
            .build();

    private StoredPhoto() {}

    /** What a file says. */
    record Facts(
            String readable,
            String fault,
            String clock,
            Integer zoneS,
            String gps,
            Double lon,
            Double lat,
            Double height,
            String zero,
            Double error,
            Boolean differential,
            Double direction,
            Boolean magnetic,
            Double elevation,
            String model,
            Double focal,
            Double exposure,
            Double fNumber,
            Integer iso,
            int width,
            int high,
            int statedWidth,
            int statedHigh,
            int orientation) {}

    /** What its picture is. */
    record Seen(
            double mean,
            double black,
            double white,
            double deviation,
            double detail,
            float[][] likeness,
            boolean panel) {}

    /** Where it truly was. */
    record Where(
            double lon,
            double lat,
            Double up,
            Double yaw,
            Double pitch,
            Double roll,
            Double horizontal,
            Double vertical,
            String source) {}

    private static Double figure(OptionalDouble value) {
        return value.isPresent() ? value.getAsDouble() : null;
    }

    private static OptionalDouble figure(Double value) {
        return value == null ? OptionalDouble.empty() : OptionalDouble.of(value);
    }

    public static String facts(PhotoFacts facts) {
        PhotoFacts.Position at = facts.position();
        PhotoFacts.Camera camera = facts.camera();
        return JSON.writeValueAsString(new Facts(
                facts.readable().name(),
                facts.fault(),
                facts.clock().map(LocalDateTime::toString).orElse(null),
                facts.offset().map(ZoneOffset::getTotalSeconds).orElse(null),
                facts.gps().map(Instant::toString).orElse(null),
                at.place().map(LonLat::lonDeg).orElse(null),
                at.place().map(LonLat::latDeg).orElse(null),
                figure(at.heightM()),
                at.zero().name(),
                figure(at.errorM()),
                at.differential().orElse(null),
                figure(facts.view().directionDeg()),
                facts.view().magnetic() ? Boolean.TRUE : null,
                figure(facts.view().elevationDeg()),
                camera.model(),
                figure(camera.focalMm()),
                figure(camera.exposureS()),
                figure(camera.fNumber()),
                camera.iso().isPresent() ? camera.iso().getAsInt() : null,
                camera.width(),
                camera.height(),
                camera.statedWidth(),
                camera.statedHeight(),
                camera.orientation()));
    }

    private static PhotoFacts facts(PhotoRow row) {
        Facts kept = JSON.readValue(row.facts, Facts.class);
        return new PhotoFacts(
                row.name,
                row.bytes,
                PhotoFacts.Readable.valueOf(kept.readable()),
                kept.fault(),
                Optional.ofNullable(kept.clock()).map(LocalDateTime::parse),
                Optional.ofNullable(kept.zoneS()).map(ZoneOffset::ofTotalSeconds),
                Optional.ofNullable(kept.gps()).map(Instant::parse),
                new PhotoFacts.Position(
                        kept.lon() == null ? Optional.empty() : Optional.of(LonLat.of(kept.lon(), kept.lat())),
                        figure(kept.height()),
                        Zero.valueOf(kept.zero()),
                        figure(kept.error()),
                        Optional.ofNullable(kept.differential())),
                new PhotoFacts.View(
                        figure(kept.direction()), Boolean.TRUE.equals(kept.magnetic()), figure(kept.elevation())),
                new PhotoFacts.Camera(
                        kept.model(),
                        figure(kept.focal()),
                        figure(kept.exposure()),
                        figure(kept.fNumber()),
                        kept.iso() == null ? OptionalInt.empty() : OptionalInt.of(kept.iso()),
                        kept.width(),
                        kept.high(),
                        kept.statedWidth(),
                        kept.statedHigh(),
                        kept.orientation()));
    }

    public static String picture(Picture picture) {
        float[][] likeness = new float[picture.likeness().length][];
        for (int d = 0; d < likeness.length; d++) {
            likeness[d] = new float[picture.likeness()[d].length];
            for (int lag = 0; lag < likeness[d].length; lag++) {
                likeness[d][lag] = Math.round(picture.likeness()[d][lag] * 1e6) / 1e6f;
            }
        }
        return JSON.writeValueAsString(new Seen(
                picture.mean(),
                picture.black(),
                picture.white(),
                picture.deviation(),
                picture.detail(),
                likeness,
                picture.panel()));
    }

    private static Picture picture(String text) {
        Seen kept = JSON.readValue(text, Seen.class);
        double[][] likeness = new double[kept.likeness().length][];
        for (int d = 0; d < likeness.length; d++) {
            likeness[d] = new double[kept.likeness()[d].length];
            for (int lag = 0; lag < likeness[d].length; lag++) {
                likeness[d][lag] = kept.likeness()[d][lag];
            }
        }
        return new Picture(
                kept.mean(), kept.black(), kept.white(), kept.deviation(), kept.detail(), likeness, kept.panel());
    }

    public static String fix(Fix fix) {
        return JSON.writeValueAsString(new Where(
                fix.place().lonDeg(),
                fix.place().latDeg(),
                figure(fix.upM()),
                figure(fix.yawDeg()),
                figure(fix.pitchDeg()),
                figure(fix.rollDeg()),
                figure(fix.horizontalM()),
                figure(fix.verticalM()),
                fix.source().name()));
    }

    private static Fix fix(String text) {
        Where kept = JSON.readValue(text, Where.class);
        return new Fix(
                LonLat.of(kept.lon(), kept.lat()),
                figure(kept.up()),
                figure(kept.yaw()),
                figure(kept.pitch()),
                figure(kept.roll()),
                figure(kept.horizontal()),
                figure(kept.vertical()),
                Fix.Source.valueOf(kept.source()));
    }

    /** A photo as it is kept. */
    public static Taken taken(PhotoRow row) {
        return new Taken(
                facts(row),
                row.sha256,
                row.refined.isEmpty() ? Optional.empty() : Optional.of(fix(row.refined)),
                row.aside,
                row.picture.isEmpty() ? Optional.empty() : Optional.of(picture(row.picture)));
    }
}
