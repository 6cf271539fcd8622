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

/** Rows of jobs, blocks and their steps. */
@Mapper
public interface JobMapper {
    /** A job and its name. */
    record JobRow(long id, String name, LocalDateTime createdAt) {}

    /** A block with the step its head points at, and the greatest step it has. */
    record BlockRow(
            long id,
            long jobId,
            String jobName,
            String name,
            int head,
            long version,
            int lastSeq,
            String facts,
            String label,
            LocalDateTime madeAt) {
        /** What is known about it; empty where that cannot be read any more, so that one damaged block spoils no list. */
        public Optional<BlockFacts> readable() {
            try {
                return Optional.of(FactsJson.read(facts));
            } catch (Unreadable lost) {
                return Optional.empty();
            }
        }
    }

    String BLOCK = """
            select b.id, b.job_id, j.name as job_name, b.name, b.head, b.version,
                   (select seq from block_step where block_id = b.id order by block_id desc, seq desc limit 1) as last_seq,
                   s.facts, s.label, s.made_at
              from block b
              join job j on j.id = b.job_id and j.binned_at is null
              join block_step s on s.block_id = b.id and s.seq = b.head
            """;

    @Select("select id, name, created_at from job where binned_at is null order by lower(name)")
    List<JobRow> jobs();

    @Select("select id, name, created_at from job where id = #{id} and binned_at is null")
    Optional<JobRow> job(long id);

    @Select("select id from job where lower(name) = lower(#{name})")
    Optional<Long> jobNamed(String name);

    @Insert("insert into job (name, created_at) values (#{name}, now())")
    void insertJob(String name);

    @Update("update job set name = #{name} where id = #{id}")
    void renameJob(@Param("id") long id, @Param("name") String name);

    @Delete("delete from job where id = #{id}")
    void deleteJob(long id);

    /** A job in the bin, by the name it had. */
    record BinnedRow(long id, String name, LocalDateTime binnedAt, String binnedBy) {}

    @Update(
            "update job set binned_at = #{at}, binned_by = #{who}, binned_name = name, name = #{hidden} where id = #{id} and binned_at is null")
    int bin(
            @Param("id") long id,
            @Param("at") LocalDateTime at,
            @Param("who") String who,
            @Param("hidden") String hidden);

    @Update(
            "update job set binned_at = null, binned_by = '', binned_name = '', name = #{name} where id = #{id} and binned_at is not null")
    int unbin(@Param("id") long id, @Param("name") String name);

    @Select(
            "select id, binned_name as name, binned_at, binned_by from job where binned_at is not null order by binned_at desc, id")
    List<BinnedRow> binned();

    /** The job in the bin to which a block belongs. */
    @Select(
            "select j.id, j.binned_name as name, j.binned_at, j.binned_by from job j join block b on b.job_id = j.id where b.id = #{block} and j.binned_at is not null")
    Optional<BinnedRow> binnedOf(long block);

    /** What belongs to a job, to be told before it goes. */
    record Belongings(int blocks, int revisions, int models, int photos, int observations, int flights) {
        /** What goes. */
        public String words() {
            return String.join(
                    ", ",
                    counted(blocks, "block"),
                    counted(revisions, "revision"),
                    counted(models, "model or picture", "models and pictures"),
                    "what was read of " + counted(photos, "photo"),
                    counted(observations, "observation"));
        }

        /** What outlives it. */
        public String staying() {
            return flights == 1 ? "1 flight stays in the log." : "%,d flights stay in the log.".formatted(flights);
        }

        private static String counted(int count, String one) {
            return counted(count, one, one + "s");
        }

        private static String counted(int count, String one, String many) {
            return "%,d %s".formatted(count, count == 1 ? one : many);
        }
    }

    @Select("""
            select (select count(*) from block where job_id = #{id}) as blocks,
                   (select count(*) from revision r join block b on b.id = r.block_id where b.job_id = #{id}) as revisions,
                   (select count(*) from model where job_id = #{id}) as models,
                   (select count(*) from take_photo t join block b on b.id = t.block_id where b.job_id = #{id}) as photos,
                   (select count(*) from control_observation o join block b on b.id = o.block_id where b.job_id = #{id}) as observations,
                   (select count(*) from flight f join block b on b.id = f.block_id where b.job_id = #{id}) as flights
            """)
    Belongings belongings(long id);

    @Select(BLOCK + " where b.job_id = #{jobId} order by b.place, b.id")
    List<BlockRow> blocksOf(long jobId);

    @Select(BLOCK + " where b.id = #{id}")
    Optional<BlockRow> block(long id);

    /** The block whose last step was made last, of jobs that are not in the bin. */
    @Select("select s.block_id from block_step s join block b on b.id = s.block_id join job j on j.id = b.job_id"
            + " where j.binned_at is null order by s.made_at desc, s.block_id limit 1")
    Optional<Long> changedLast();

    @Select("select id from block where job_id = #{jobId} and lower(name) = lower(#{name})")
    Optional<Long> blockNamed(@Param("jobId") long jobId, @Param("name") String name);

    @Select("select count(*) > 0 from block where id = #{id}")
    boolean isThere(long id);

    @Update("update block set name = #{name} where id = #{id}")
    void renameBlock(@Param("id") long id, @Param("name") String name);

    @Update("update block set hidden = #{hidden} where id = #{id}")
    void hideBlock(@Param("id") long id, @Param("hidden") boolean hidden);

    @Update("update block set place = #{place} where id = #{id}")
    void placeBlock(@Param("id") long id, @Param("place") long place);

    @Select("select id from block where job_id = #{jobId} order by place, id")
    List<Long> orderOf(long jobId);

    @Insert("""
            insert into block (job_id, name, head, version, place)
            values (#{jobId}, #{name}, 1, 1, (select coalesce(max(place), 0) + 1 from block))""")
    void insertBlock(@Param("jobId") long jobId, @Param("name") String name);

    @Delete("delete from block where id = #{id}")
    void deleteBlock(long id);

    /** Keeps a step with the hash of its facts, by which their summary is found. */
    default void keepStep(long blockId, int seq, String label, String facts, String who) {
        insertStep(blockId, seq, label, facts, FactsJson.hash(facts), who);
    }

    @Insert(
            "insert into block_step (block_id, seq, label, facts, hash, who, made_at) values (#{blockId}, #{seq}, #{label}, #{facts}, #{hash}, #{who}, now())")
    void insertStep(
            @Param("blockId") long blockId,
            @Param("seq") int seq,
            @Param("label") String label,
            @Param("facts") String facts,
            @Param("hash") String hash,
            @Param("who") String who);

    @Delete("delete from block_step where block_id = #{blockId} and seq > #{seq}")
    void deleteStepsAfter(@Param("blockId") long blockId, @Param("seq") int seq);

    /** Moves the head if nobody else has changed the block since; answers 1 if it did, 0 if not. */
    @Update("update block set head = #{head}, version = version + 1 where id = #{id} and version = #{version}")
    int moveHead(@Param("id") long id, @Param("version") long version, @Param("head") int head);

    @Select("select label from block_step where block_id = #{blockId} and seq = #{seq}")
    Optional<String> stepLabel(@Param("blockId") long blockId, @Param("seq") int seq);
}
