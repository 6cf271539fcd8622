package yalos.web.store;

import java.time.LocalDateTime;
import java.util.List;
import java.util.Optional;
import org.apache.ibatis.annotations.Delete;
import org.apache.ibatis.annotations.Insert;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Param;
import org.apache.ibatis.annotations.Select;
import org.apache.ibatis.annotations.Update;

/** What was measured on the ground of a block. Observations are appended; only the verdict on one changes, and that is kept as an event. */
@Mapper
public interface ControlMapper {
    /**
     * An observation. Heights above the geoid, lengths in metres.
     *
     * @param verdict {@code AUTO} by the rules, {@code USED} or {@code REJECTED} by hand
     */
    record ObservationRow(
            long id,
            String point,
            LocalDateTime measuredAt,
            double lon,
            double lat,
            Double up,
            Integer epochs,
            Double horizontal,
            Double vertical,
            Double rms,
            String solution,
            Integer satellites,
            Double pole,
            String note,
            String source,
            LocalDateTime keptAt,
            String keptBy,
            String verdict,
            String reason) {}

    /** A known mark; height above the geoid. */
    record MarkRow(long id, String name, double lon, double lat, double up) {}

    /** The base; heights above the ellipsoid, the antenna's above the mark. */
    record BaseRow(
            String name,
            boolean known,
            double lon,
            double lat,
            double ellipsoid,
            double antenna,
            boolean logging,
            Double trueLon,
            Double trueLat,
            Double trueEllipsoid,
            boolean applied,
            String source,
            String address,
            String mount,
            String status) {}

    record ShiftRow(double east, double north, double up) {}

    record EventRow(LocalDateTime happenedAt, String person, String what) {}

    @Select(
            "select id, point, measured_at, lon, lat, up, epochs, horizontal, vertical, rms, solution, satellites, pole,"
                    + " note, source, kept_at, kept_by, verdict, reason from control_observation where block_id = #{block} order by id")
    List<ObservationRow> observations(long block);

    @Insert("insert into control_observation (block_id, point, measured_at, lon, lat, up, epochs, horizontal, vertical,"
            + " rms, solution, satellites, pole, note, source, kept_at, kept_by, verdict, reason)"
            + " values (#{block}, #{row.point}, #{row.measuredAt}, #{row.lon}, #{row.lat}, #{row.up}, #{row.epochs},"
            + " #{row.horizontal}, #{row.vertical}, #{row.rms}, #{row.solution}, #{row.satellites}, #{row.pole},"
            + " #{row.note}, #{row.source}, current_timestamp, #{row.keptBy}, #{row.verdict}, #{row.reason})")
    void append(@Param("block") long block, @Param("row") ObservationRow row);

    @Update(
            "update control_observation set verdict = #{verdict}, reason = #{reason} where id = #{id} and block_id = #{block}")
    int judge(
            @Param("block") long block,
            @Param("id") long id,
            @Param("verdict") String verdict,
            @Param("reason") String reason);

    @Select("select id, name, lon, lat, up from control_mark where block_id = #{block} order by name")
    List<MarkRow> marks(long block);

    @Update("merge into control_mark (block_id, name, lon, lat, up) key (block_id, name)"
            + " values (#{block}, #{row.name}, #{row.lon}, #{row.lat}, #{row.up})")
    void keepMark(@Param("block") long block, @Param("row") MarkRow row);

    @Delete("delete from control_mark where block_id = #{block} and id = #{id}")
    void removeMark(@Param("block") long block, @Param("id") long id);

    @Select("select name, known, lon, lat, ellipsoid, antenna, logging, true_lon, true_lat, true_ellipsoid, applied,"
            + " source, address, mount, status from control_base where block_id = #{block}")
    Optional<BaseRow> base(long block);

    @Update("merge into control_base (block_id, name, known, lon, lat, ellipsoid, antenna, logging, true_lon, true_lat,"
            + " true_ellipsoid, applied, source, address, mount, status) key (block_id) values (#{block}, #{row.name},"
            + " #{row.known}, #{row.lon}, #{row.lat}, #{row.ellipsoid}, #{row.antenna}, #{row.logging}, #{row.trueLon},"
            + " #{row.trueLat}, #{row.trueEllipsoid}, #{row.applied}, #{row.source}, #{row.address}, #{row.mount},"
            + " #{row.status})")
    void keepBase(@Param("block") long block, @Param("row") BaseRow row);

    @Select("select east, north, up from control_shift where block_id = #{block}")
    Optional<ShiftRow> shift(long block);

    @Update("merge into control_shift (block_id, east, north, up) key (block_id)"
            + " values (#{block}, #{row.east}, #{row.north}, #{row.up})")
    void keepShift(@Param("block") long block, @Param("row") ShiftRow row);

    @Delete("delete from control_shift where block_id = #{block}")
    void dropShift(long block);

    @Select("select happened_at, person, what from control_event where block_id = #{block} order by id desc limit 100")
    List<EventRow> events(long block);

    @Insert("insert into control_event (block_id, happened_at, person, what)"
            + " values (#{block}, current_timestamp, #{person}, #{what})")
    void note(@Param("block") long block, @Param("person") String person, @Param("what") String what);

    @Select("select held from control_columns where heading = #{heading}")
    Optional<String> columns(String heading);

    @Update("merge into control_columns (heading, held) key (heading) values (#{heading}, #{held})")
    void keepColumns(@Param("heading") String heading, @Param("held") String held);
}
