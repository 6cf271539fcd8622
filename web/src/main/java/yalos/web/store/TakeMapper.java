package yalos.web.store;

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

/** The take of a block: photos as their files say, what came with them, what was decided. Appended, corrected with a reason, never undone. */
@Mapper
public interface TakeMapper {
    /** A photo. Its facts, picture and refined position are forms of {@link StoredPhoto}, empty where there is none. */
    class PhotoRow {
        public Long id;
        public long blockId;
        public String folder;
        public String name;
        public long bytes;
        public long modified;
        public String sha256 = "";
        public String facts;
        public String picture = "";
        public String refined = "";
        public boolean aside;
        public String reason = "";
        public String keptBy = "";
    }

    /** How a photo was known when it was read: enough to see whether it is the same. */
    record Known(String folder, String name, long bytes, long modified, boolean seen) {}

    /**
     * A file that came with the photos.
     *
     * @param found what was found in it, as JSON
     */
    record FileRow(
            long id,
            String kind,
            String name,
            long bytes,
            String sha256,
            String found,
            LocalDateTime keptAt,
            String keptBy) {}

    /**
     * A decision.
     *
     * @param area rings of longitude and latitude, as text
     * @param takenBack why it no longer stands; empty for one that does
     */
    record DecisionRow(
            long id,
            String kind,
            String area,
            String about,
            String reason,
            String person,
            LocalDateTime decidedAt,
            String takenBack) {}

    record EventRow(LocalDateTime happenedAt, String person, String what) {}

    @Insert(
            "insert into take_photo (block_id, folder, name, bytes, modified, sha256, facts, picture, refined, aside, reason,"
                    + " kept_at, kept_by) values (#{blockId}, #{folder}, #{name}, #{bytes}, #{modified}, #{sha256}, #{facts},"
                    + " #{picture}, #{refined}, #{aside}, #{reason}, current_timestamp, #{keptBy})")
    @Options(useGeneratedKeys = true, keyProperty = "id", keyColumn = "id")
    void append(PhotoRow row);

    @Select(
            "select id, block_id, folder, name, bytes, modified, sha256, facts, picture, refined, aside, reason, kept_by"
                    + " from take_photo where block_id = #{block} order by name, folder")
    List<PhotoRow> photos(long block);

    @Select(
            "select id, block_id, folder, name, bytes, modified, sha256, facts, picture, refined, aside, reason, kept_by"
                    + " from take_photo where block_id = #{block} and id = #{id}")
    Optional<PhotoRow> photo(@Param("block") long block, @Param("id") long id);

    @Select("select folder, name, bytes, modified, picture <> '' as seen from take_photo where block_id = #{block}")
    List<Known> known(long block);

    @Select("select count(*) from take_photo where block_id = #{block}")
    int count(long block);

    @Delete("delete from take_photo where block_id = #{block} and folder = #{folder} and name = #{name}")
    int drop(@Param("block") long block, @Param("folder") String folder, @Param("name") String name);

    @Delete("delete from take_photo where block_id = #{block}")
    int dropAll(long block);

    @Update("update take_photo set sha256 = #{sha256}, facts = #{facts}, picture = #{picture} where id = #{id}")
    void seen(PhotoRow row);

    @Update("merge into take_small (photo_id, jpeg) key (photo_id) values (#{photo}, #{jpeg})")
    void keepSmall(@Param("photo") long photo, @Param("jpeg") byte[] jpeg);

    @Select(
            "select s.jpeg from take_small s join take_photo p on p.id = s.photo_id where p.block_id = #{block} and p.id = #{photo}")
    Optional<Small> small(@Param("block") long block, @Param("photo") long photo);

    record Small(byte[] jpeg) {}

    @Update("update take_photo set aside = #{aside}, reason = #{reason} where block_id = #{block} and id = #{id}")
    int aside(
            @Param("block") long block,
            @Param("id") long id,
            @Param("aside") boolean aside,
            @Param("reason") String reason);

    @Update("update take_photo set refined = #{refined} where id = #{id}")
    void refine(@Param("id") long id, @Param("refined") String refined);

    @Insert("insert into take_file (block_id, kind, name, bytes, sha256, found, kept_at, kept_by) values (#{block},"
            + " #{row.kind}, #{row.name}, #{row.bytes}, #{row.sha256}, #{row.found}, current_timestamp, #{row.keptBy})")
    void appendFile(@Param("block") long block, @Param("row") FileRow row);

    @Select(
            "select id, kind, name, bytes, sha256, found, kept_at, kept_by from take_file where block_id = #{block} order by id")
    List<FileRow> files(long block);

    @Delete("delete from take_file where block_id = #{block} and id = #{id}")
    int dropFile(@Param("block") long block, @Param("id") long id);

    @Select("select coalesce((select version from take_state where block_id = #{block}), 0)")
    long version(long block);

    @Update("merge into take_state (block_id, version) key (block_id) values (#{block},"
            + " coalesce((select version from take_state where block_id = #{block}), 0) + 1)")
    void grow(long block);

    @Insert(
            "insert into take_decision (block_id, kind, area, about, reason, person, decided_at, taken_back) values (#{block},"
                    + " #{row.kind}, #{row.area}, #{row.about}, #{row.reason}, #{row.person}, current_timestamp, '')")
    void decide(@Param("block") long block, @Param("row") DecisionRow row);

    @Select(
            "select id, kind, area, about, reason, person, decided_at, taken_back from take_decision where block_id = #{block} order by id")
    List<DecisionRow> decisions(long block);

    @Update("update take_decision set taken_back = #{why} where block_id = #{block} and id = #{id}")
    int takeBack(@Param("block") long block, @Param("id") long id, @Param("why") String why);

    @Select("select happened_at, person, what from take_event where block_id = #{block} order by id desc limit 100")
    List<EventRow> events(long block);

    @Insert(
            "insert into take_event (block_id, happened_at, person, what) values (#{block}, current_timestamp, #{person}, #{what})")
    void note(@Param("block") long block, @Param("person") String person, @Param("what") String what);
}
