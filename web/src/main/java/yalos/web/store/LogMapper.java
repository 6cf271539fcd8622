package yalos.web.store;

import java.time.LocalDate;
import java.time.LocalDateTime;
import java.util.List;
import java.util.Optional;
import org.apache.ibatis.annotations.Delete;
import org.apache.ibatis.annotations.Insert;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Options;
import org.apache.ibatis.annotations.Param;
import org.apache.ibatis.annotations.Select;
import org.apache.ibatis.annotations.Update;

/** The log: flights with crew and batteries, service, what repeats what, and series. */
@Mapper
public interface LogMapper {
    /** A flight: what it is found by, and the rest as JSON; {@code facts} only where they are asked for. */
    class FlightRow {
        public Long id;
        public String uid;
        public Long blockId;
        public String jobName;
        public String blockName;
        /** {@code RUN}, {@code TAKE} or {@code TYPED}. */
        public String source;

        public Long sourceId;
        public LocalDateTime startedAt;
        public double minutes;
        public int photos;
        public String aircraft;
        public String pilot;
        public Double lon;
        public Double lat;
        public String content;
        public String facts = "";
        public String leftOut = "";
        public boolean counted = true;
        public LocalDateTime keptAt;
        public String keptBy;
    }

    /** Somebody aboard. */
    record CrewRow(long flightId, int seq, String name, String role) {}

    /** A battery aboard. */
    record PackRow(long flightId, int seq, String name, Double chargeBefore, Double chargeAfter) {}

    /** What hours are added up from. */
    record HoursRow(long id, LocalDateTime startedAt, double minutes, int photos, String aircraft) {}

    /**
     * What is looked for; null for whatever.
     *
     * @param counting only flights that count: neither rehearsed nor left out
     * @param lon of a place, with {@code lat}; flights begun no farther than {@code metres} from it
     * @param text in job, block, aircraft, crew, batteries and notes
     */
    record Wanted(
            Long block,
            boolean counting,
            String aircraft,
            String person,
            String battery,
            LocalDateTime from,
            LocalDateTime to,
            Double lon,
            Double lat,
            Double metres,
            String text) {
        public static final Wanted ALL = new Wanted(null, false, null, null, null, null, null, null, null, null, null);

        public static Wanted ofBlock(long block) {
            return new Wanted(block, false, null, null, null, null, null, null, null, null, null);
        }

        /** Those of them that count. */
        public Wanted thatCount() {
            return new Wanted(block, true, aircraft, person, battery, from, to, lon, lat, metres, text);
        }

        /** Those of them begun before a moment. */
        public Wanted before(LocalDateTime end) {
            return new Wanted(block, counting, aircraft, person, battery, from, end, lon, lat, metres, text);
        }
    }

    String FLIGHT =
            "select f.id, f.uid, f.block_id, f.job_name, f.block_name, f.source, f.source_id, f.started_at, f.minutes, f.photos, f.aircraft, f.pilot, f.lon, f.lat, f.content, f.left_out, f.counted, f.kept_at, f.kept_by from flight f";

    String WHERE = """
             where 1 = 1
            <if test="w.block != null"> and f.block_id = #{w.block}</if>
            <if test="w.aircraft != null"> and lower(f.aircraft) = lower(#{w.aircraft})</if>
            <if test="w.person != null"> and exists (select 1 from flight_crew c where c.flight_id = f.id and lower(c.name) = lower(#{w.person}))</if>
            <if test="w.battery != null"> and exists (select 1 from flight_pack p where p.flight_id = f.id and lower(p.name) = lower(#{w.battery}))</if>
            <if test="w.from != null"> and f.started_at &gt;= #{w.from}</if>
            <if test="w.to != null"> and f.started_at &lt; #{w.to}</if>
            <if test="w.counting"> and f.left_out = '' and f.counted</if>
            <if test="w.metres != null"> and 6371008.8 * 2 * asin(least(1, sqrt(
                power(sin(radians(f.lat - #{w.lat}) / 2), 2)
                + cos(radians(f.lat)) * cos(radians(#{w.lat})) * power(sin(radians(f.lon - #{w.lon}) / 2), 2)))) &lt;= #{w.metres}</if>
            <if test="w.text != null"> and (locate(lower(#{w.text}), lower(f.job_name || ' ' || f.block_name || ' ' || f.aircraft || ' ' || f.content)) &gt; 0)</if>
            """;

    @Select({"<script>", FLIGHT, WHERE, " order by f.started_at desc, f.id desc limit #{most} offset #{from}</script>"})
    List<FlightRow> flights(@Param("w") Wanted wanted, @Param("from") int from, @Param("most") int most);

    @Select({"<script>select count(*) from flight f", WHERE, "</script>"})
    int count(@Param("w") Wanted wanted);

    @Select({
        "<script>select f.id, f.started_at, f.minutes, f.photos, f.aircraft from flight f",
        WHERE,
        " order by f.id</script>"
    })
    List<HoursRow> hours(@Param("w") Wanted wanted);

    @Select({
        "<script>select c.flight_id, c.seq, c.name, c.role from flight_crew c join flight f on f.id = c.flight_id",
        WHERE,
        " order by c.flight_id, c.seq</script>"
    })
    List<CrewRow> crews(@Param("w") Wanted wanted);

    @Select({
        "<script>select p.flight_id, p.seq, p.name, p.charge_before, p.charge_after from flight_pack p join flight f on f.id = p.flight_id",
        WHERE,
        " order by p.flight_id, p.seq</script>"
    })
    List<PackRow> packs(@Param("w") Wanted wanted);

    @Select(FLIGHT + " where f.id = #{id}")
    Optional<FlightRow> flight(long id);

    @Select("select facts from flight where id = #{id}")
    String facts(long id);

    /** When the first flight of a block that counts began. */
    @Select("select min(started_at) from flight where block_id = #{block} and counted and left_out = ''")
    Optional<LocalDateTime> firstStart(long block);

    /** Whether something was taken into the log already. */
    @Select(
            "select count(*) > 0 from flight where block_id = #{block} and source = #{source} and source_id = #{sourceId} and left_out = ''")
    boolean taken(@Param("block") long block, @Param("source") String source, @Param("sourceId") long sourceId);

    @Insert(
            "insert into flight (uid, block_id, job_name, block_name, source, source_id, started_at, minutes, photos, aircraft, pilot, lon, lat, content, facts, left_out, counted, kept_at, kept_by)"
                    + " values (#{uid}, #{blockId}, #{jobName}, #{blockName}, #{source}, #{sourceId}, #{startedAt}, #{minutes}, #{photos}, #{aircraft}, #{pilot}, #{lon}, #{lat}, #{content}, #{facts}, #{leftOut}, #{counted}, #{keptAt}, #{keptBy})")
    @Options(useGeneratedKeys = true, keyProperty = "id", keyColumn = "id")
    void insert(FlightRow row);

    @Update(
            "update flight set started_at = #{startedAt}, minutes = #{minutes}, photos = #{photos}, aircraft = #{aircraft}, pilot = #{pilot}, lon = #{lon}, lat = #{lat}, content = #{content}, counted = #{counted}, kept_at = #{keptAt}, kept_by = #{keptBy} where id = #{id}")
    void update(FlightRow row);

    @Delete("delete from flight_crew where flight_id = #{flight}")
    void dropCrew(long flight);

    @Delete("delete from flight_pack where flight_id = #{flight}")
    void dropPacks(long flight);

    @Insert("insert into flight_crew (flight_id, seq, name, role) values (#{flightId}, #{seq}, #{name}, #{role})")
    void crew(CrewRow row);

    @Insert(
            "insert into flight_pack (flight_id, seq, name, charge_before, charge_after) values (#{flightId}, #{seq}, #{name}, #{chargeBefore}, #{chargeAfter})")
    void pack(PackRow row);

    /** The flights of a job bear its new name. */
    @Update("update flight set job_name = #{name} where block_id in (select id from block where job_id = #{job})")
    void renameJob(@Param("job") long job, @Param("name") String name);

    @Update("update flight set block_name = #{name} where block_id = #{block}")
    void renameBlock(@Param("block") long block, @Param("name") String name);

    @Update("update flight set left_out = #{why} where id = #{id}")
    int leaveOut(@Param("id") long id, @Param("why") String why);

    /** Aircraft that have flown. */
    @Select("select distinct aircraft from flight order by aircraft")
    List<String> aircraft();

    @Select("select distinct name from flight_crew order by name")
    List<String> people();

    /** Something that comes round. */
    record ServiceRow(
            long id,
            String thing,
            String what,
            Double everyHours,
            Integer everyDays,
            LocalDate doneOn,
            double hoursThen,
            String note,
            boolean gone,
            LocalDateTime keptAt,
            String keptBy) {}

    /** The last of each thing and what is done to it. */
    @Select("""
            select id, thing, what, every_hours, every_days, done_on, hours_then, note, gone, kept_at, kept_by from service s
             where id = (select max(id) from service o where lower(o.thing) = lower(s.thing) and lower(o.what) = lower(s.what)) and not gone
             order by thing, what""")
    List<ServiceRow> services();

    @Insert(
            "insert into service (thing, what, every_hours, every_days, done_on, hours_then, note, gone, kept_at, kept_by) values (#{thing}, #{what}, #{everyHours}, #{everyDays}, #{doneOn}, #{hoursThen}, #{note}, #{gone}, #{keptAt}, #{keptBy})")
    void service(ServiceRow row);

    /** What a block repeats. */
    record RepeatedRow(
            long blockId,
            Long ofBlock,
            String ofFlight,
            int ofRevision,
            LocalDateTime firstStart,
            String accepted,
            LocalDateTime madeAt,
            String madeBy) {}

    @Select(
            "select block_id, of_block, of_flight, of_revision, first_start, accepted, made_at, made_by from repeated where block_id = #{block}")
    Optional<RepeatedRow> repeated(long block);

    @Select("select block_id from repeated where of_block = #{block} order by block_id")
    List<Long> repeats(long block);

    @Insert(
            "insert into repeated (block_id, of_block, of_flight, of_revision, first_start, accepted, made_at, made_by) values (#{blockId}, #{ofBlock}, #{ofFlight}, #{ofRevision}, #{firstStart}, #{accepted}, #{madeAt}, #{madeBy})")
    void repeat(RepeatedRow row);

    /** When flights of a block come round. */
    record SeriesRow(long blockId, LocalDate firstOn, int every, String step, int remindDays) {}

    @Select("select block_id, first_on, every, step, remind_days from series where block_id = #{block}")
    Optional<SeriesRow> series(long block);

    @Delete("delete from series where block_id = #{block}")
    void dropSeries(long block);

    @Update(
            "merge into series (block_id, first_on, every, step, remind_days) key (block_id) values (#{blockId}, #{firstOn}, #{every}, #{step}, #{remindDays})")
    void keepSeries(SeriesRow row);
}
