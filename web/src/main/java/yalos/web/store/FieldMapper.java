package yalos.web.store;

import java.time.LocalDate;
import java.time.LocalDateTime;
import java.util.List;
import org.apache.ibatis.annotations.Insert;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Param;
import org.apache.ibatis.annotations.Select;
import org.apache.ibatis.annotations.Update;

/** What is measured and signed in the field: batteries, what flights took of them, checklists. Appended, corrected with a reason, never undone. */
@Mapper
public interface FieldMapper {
    /**
     * A battery as it was read.
     *
     * @param capacity share of what it held when new
     * @param charge share of that
     * @param since when it was bought, as the operator writes it
     * @param gone whether it is used no more
     */
    record BatteryRow(
            long id,
            String name,
            int cycles,
            double capacity,
            double charge,
            String since,
            String note,
            boolean gone,
            LocalDateTime keptAt,
            String keptBy) {}

    /**
     * A flight as its battery felt it, in SI.
     *
     * @param leftOut why it does not count; empty for one that does
     */
    record ConsumptionRow(
            long id,
            String aircraft,
            LocalDate flownOn,
            double share,
            double minutes,
            Double ground,
            double wind,
            double air,
            String note,
            String leftOut,
            LocalDateTime keptAt,
            String keptBy) {}

    /**
     * A line signed, or taken back.
     *
     * @param reads what the aircraft showed; empty where nothing was read
     */
    record SignatureRow(
            long id,
            String line,
            boolean signed,
            String person,
            String note,
            LocalDateTime signedAt,
            String reads,
            int edition) {}

    /** Something written down in the field. */
    record NoteRow(long id, String text, String person, LocalDateTime writtenAt, LocalDateTime keptAt) {}

    /** The last reading of every battery, by name. */
    @Select("select r.id, r.name, r.cycles, r.capacity, r.charge, r.since, r.note, r.gone, r.kept_at, r.kept_by"
            + " from battery_reading r where r.id = (select max(o.id) from battery_reading o where o.name = r.name)"
            + " order by r.name")
    List<BatteryRow> batteries();

    @Insert(
            "insert into battery_reading (name, cycles, capacity, charge, since, note, gone, kept_at, kept_by) values"
                    + " (#{b.name}, #{b.cycles}, #{b.capacity}, #{b.charge}, #{b.since}, #{b.note}, #{b.gone}, #{b.keptAt}, #{b.keptBy})")
    void read(@Param("b") BatteryRow battery);

    @Select("select id, aircraft, flown_on, share, minutes, ground, wind, air, note, left_out, kept_at, kept_by"
            + " from consumption where aircraft = #{aircraft} order by flown_on, id")
    List<ConsumptionRow> consumption(String aircraft);

    @Insert(
            "insert into consumption (aircraft, flown_on, share, minutes, ground, wind, air, note, left_out, kept_at, kept_by)"
                    + " values (#{c.aircraft}, #{c.flownOn}, #{c.share}, #{c.minutes}, #{c.ground}, #{c.wind}, #{c.air}, #{c.note},"
                    + " #{c.leftOut}, #{c.keptAt}, #{c.keptBy})")
    void flew(@Param("c") ConsumptionRow flight);

    @Update("update consumption set left_out = #{reason} where id = #{id}")
    int leaveOut(@Param("id") long id, @Param("reason") String reason);

    @Select(
            "select id, line, signed, person, note, signed_at, reads, edition from check_signature where block_id = #{block} order by id")
    List<SignatureRow> signatures(long block);

    @Insert("insert into check_signature (block_id, line, signed, person, note, signed_at, reads, edition) values"
            + " (#{block}, #{s.line}, #{s.signed}, #{s.person}, #{s.note}, #{s.signedAt}, #{s.reads}, #{s.edition})")
    void sign(@Param("block") long block, @Param("s") SignatureRow signature);

    @Select(
            "select id, text, person, written_at, kept_at from field_note where block_id = #{block} order by written_at, id")
    List<NoteRow> notes(long block);

    @Insert("insert into field_note (block_id, text, person, written_at, kept_at) values"
            + " (#{block}, #{n.text}, #{n.person}, #{n.writtenAt}, #{n.keptAt})")
    void write(@Param("block") long block, @Param("n") NoteRow note);
}
