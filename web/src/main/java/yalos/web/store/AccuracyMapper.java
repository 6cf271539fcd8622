package yalos.web.store;

import java.time.LocalDateTime;
import java.util.List;
import java.util.Optional;
import org.apache.ibatis.annotations.Insert;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Param;
import org.apache.ibatis.annotations.Select;
import org.apache.ibatis.annotations.Update;

/** Points of the delivered map held against the ground, and what is said of it besides. Residuals are appended; one is left out only with a reason that stays. */
@Mapper
public interface AccuracyMapper {
    /**
     * A residual, map less ground, in metres.
     *
     * @param lon where; empty where nobody knows
     * @param height of the point above the geoid
     * @param leftOut why it does not count; empty for one that does
     */
    record ResidualRow(
            long id,
            String point,
            String kind,
            Double east,
            Double north,
            Double up,
            Double lon,
            Double lat,
            Double height,
            String surface,
            String source,
            String leftOut,
            LocalDateTime keptAt,
            String keptBy) {}

    /** What is said of a map besides its residuals; the survey's own error in metres. */
    record NoteRow(
            double surveyLevel,
            double surveyUp,
            String datum,
            String geoid,
            String calibration,
            String filtering,
            String remark,
            String keptBy) {
        public static final NoteRow NONE = new NoteRow(0, 0, "", "", "", "", "", "");
    }

    @Insert("insert into residual (block_id, point, kind, east, north, up, lon, lat, height, surface, source, left_out,"
            + " kept_at, kept_by) values (#{block}, #{row.point}, #{row.kind}, #{row.east}, #{row.north}, #{row.up},"
            + " #{row.lon}, #{row.lat}, #{row.height}, #{row.surface}, #{row.source}, #{row.leftOut}, current_timestamp,"
            + " #{row.keptBy})")
    void append(@Param("block") long block, @Param("row") ResidualRow row);

    @Select("select id, point, kind, east, north, up, lon, lat, height, surface, source, left_out, kept_at, kept_by"
            + " from residual where block_id = #{block} order by id")
    List<ResidualRow> all(long block);

    @Select("select count(*) from residual where block_id = #{block}")
    int count(long block);

    @Update("update residual set left_out = #{why} where block_id = #{block} and id = #{id}")
    int leaveOut(@Param("block") long block, @Param("id") long id, @Param("why") String why);

    @Select("select survey_level, survey_up, datum, geoid, calibration, filtering, remark, kept_by from accuracy_note"
            + " where block_id = #{block}")
    Optional<NoteRow> note(long block);

    @Update("merge into accuracy_note (block_id, survey_level, survey_up, datum, geoid, calibration, filtering, remark,"
            + " kept_by) key (block_id) values (#{block}, #{row.surveyLevel}, #{row.surveyUp}, #{row.datum}, #{row.geoid},"
            + " #{row.calibration}, #{row.filtering}, #{row.remark}, #{row.keptBy})")
    void keepNote(@Param("block") long block, @Param("row") NoteRow row);
}
