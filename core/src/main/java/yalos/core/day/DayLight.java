package yalos.core.day;

import java.time.Duration;
import java.time.Instant;
import java.time.LocalDate;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.List;
import yalos.core.fault.Patience;
import yalos.core.geodesy.LonLat;
import yalos.core.light.Sun;
import yalos.core.light.SunDay;
import yalos.core.light.SunInPhotos;
import yalos.core.plan.BlockPlan;
import yalos.core.sortie.Surroundings;
import yalos.core.terrain.CastShadow;
import yalos.core.terrain.HeightGrid;

/**
 * The light of a day on a block, hour by hour: the sun, how much of the block lies in the shadow of ground and obstacles, and what of the sun the photos hold.
 *
 * @param date of it
 * @param zone whose clock counts
 * @param sun of the day
 * @param hours from the first full hour with the sun up to the last
 */
public record DayLight(LocalDate date, ZoneId zone, SunDay sun, List<Hour> hours) {
    /** Cells of the shadow, at the most. */
    private static final int MOST_CELLS = 250_000;

    private static final int SHOTS = 200;

    public DayLight {
        hours = List.copyOf(hours);
    }

    /**
     * One hour.
     *
     * @param minute of the day
     * @param shaded share of the block, 0..1
     */
    public record Hour(int minute, Sun sun, double shaded, SunInPhotos photos) {}

    /** Of a plan among its surroundings, shaded as is found besides. */
    public static DayLight of(BlockPlan plan, Surroundings around, Shade shade, LocalDate date, ZoneId zone) {
        LonLat place = plan.request().outline().middle();
        SunDay sun = SunDay.of(place, date);
        List<SunInPhotos.Shot> shots = around.photos(SHOTS).stream()
                .map(photo -> new SunInPhotos.Shot(photo.pose(), photo.lens()))
                .toList();
        List<Hour> hours = new ArrayList<>();
        for (int minute = 0; minute < 24 * 60; minute += 60) {
            Patience.check();
            Sun here = Sun.at(place, instant(date, zone, minute));
            if (here.elevationRad() > 0) {
                Sun grid = new Sun(
                        here.elevationRad(),
                        here.azimuthRad() - plan.block().plane().convergenceRad());
                hours.add(new Hour(minute, here, shade.share(grid), SunInPhotos.of(shots, grid)));
            }
        }
        return new DayLight(date, zone, sun, hours);
    }

    /** A minute of a day on a clock. On the night the clocks change the day has another length; minutes count from midnight as it shows them. */
    public static Instant instant(LocalDate date, ZoneId zone, int minute) {
        return date.atStartOfDay().plusMinutes(minute).atZone(zone).toInstant();
    }

    /** A time as a minute of the day on its clock; below 0 or above 1440 where it falls on another. */
    public int minute(Instant time) {
        return (int) Math.round(
                Duration.between(date.atStartOfDay(), time.atZone(zone).toLocalDateTime())
                                .toSeconds()
                        / 60.0);
    }

    /** Height of the sun at a minute of the day. */
    public double elevationRad(LonLat place, int minute) {
        return Sun.at(place, instant(date, zone, minute)).elevationRad();
    }

    /** The ground round a block, coarse enough to be shaded quickly. */
    public static final class Shade {
        private final HeightGrid ground;
        private final boolean[] asked;
        private final boolean level;

        public Shade(BlockPlan plan, Surroundings around) {
            HeightGrid surface = around.surface();
            double cells = (double) surface.columns() * surface.rows();
            double cell = surface.cellX() * Math.sqrt(Math.max(1, cells / MOST_CELLS));
            this.ground = surface.resampled(Math.max(cell, surface.cellX()));
            this.asked = plan.block()
                    .inside(
                            ground.west(),
                            ground.north(),
                            ground.cellX(),
                            ground.cellY(),
                            ground.columns(),
                            ground.rows());
            this.level = plan.heights().isEmpty() && around.bare();
        }

        /** The ground that is shaded. */
        public HeightGrid ground() {
            return ground;
        }

        /** For each of its cells whether it lies in shadow; the azimuth from the grid's north. */
        public boolean[] shaded(Sun sun) {
            return level && sun.elevationRad() > 0
                    ? new boolean[asked.length]
                    : CastShadow.of(ground, sun.azimuthRad(), sun.elevationRad());
        }

        /** Share of the block in shadow. */
        public double share(Sun sun) {
            return CastShadow.share(shaded(sun), asked);
        }
    }
}
