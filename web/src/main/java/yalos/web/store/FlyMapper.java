package yalos.web.store;

import java.time.LocalDateTime;
import java.util.List;
import java.util.Optional;
import org.apache.ibatis.annotations.Insert;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Options;
import org.apache.ibatis.annotations.Param;
import org.apache.ibatis.annotations.Select;
import org.apache.ibatis.annotations.Update;

/** Simulated flights: what they were begun with, and what was pressed when. */
@Mapper
public interface FlyMapper {
    /**
     * A run.
     *
     * @param facts of the block when it was begun
     * @param faults that were to come, as text
     * @param packs batteries then, as JSON
     * @param flights measured flights then, as JSON
     * @param ticks made, when it was last kept
     * @param speed times real time; 0 while it stands
     */
    class RunRow {
        public Long id;
        public long blockId;
        public int sortie;
        public long seed;
        public String facts;
        public String faults;
        public String packs;
        public String flights;
        public LocalDateTime begunAt;
        public String begunBy;
        public long ticks;
        public int speed;
        public boolean ended;
    }

    /** Something pressed. */
    record CommandRow(long id, long tick, String command, String person, String note) {}

    @Insert(
            "insert into fly_run (block_id, sortie, seed, facts, faults, packs, flights, begun_at, begun_by, ticks, speed, ended)"
                    + " values (#{blockId}, #{sortie}, #{seed}, #{facts}, #{faults}, #{packs}, #{flights}, #{begunAt}, #{begunBy},"
                    + " #{ticks}, #{speed}, #{ended})")
    @Options(useGeneratedKeys = true, keyProperty = "id", keyColumn = "id")
    void begin(RunRow run);

    @Select("select id, block_id, sortie, seed, facts, faults, packs, flights, begun_at, begun_by, ticks, speed, ended"
            + " from fly_run where id = #{id}")
    Optional<RunRow> run(long id);

    @Select("select id, block_id, sortie, seed, facts, faults, packs, flights, begun_at, begun_by, ticks, speed, ended"
            + " from fly_run where block_id = #{block} order by id desc limit 1")
    Optional<RunRow> last(long block);

    /** Whether the block's last run has ended; empty where none was begun. */
    @Select("select ended from fly_run where block_id = #{block} order by id desc limit 1")
    Optional<Boolean> lastEnded(long block);

    @Update("update fly_run set ticks = #{ticks}, speed = #{speed}, ended = #{ended} where id = #{id}")
    void keep(
            @Param("id") long id, @Param("ticks") long ticks, @Param("speed") int speed, @Param("ended") boolean ended);

    @Insert(
            "insert into fly_command (run_id, tick, command, person, note) values (#{run}, #{c.tick}, #{c.command}, #{c.person}, #{c.note})")
    void press(@Param("run") long run, @Param("c") CommandRow command);

    @Select("select id, tick, command, person, note from fly_command where run_id = #{run} order by id")
    List<CommandRow> commands(long run);
}
