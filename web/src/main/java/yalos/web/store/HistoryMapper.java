package yalos.web.store;

import java.time.LocalDateTime;
import java.util.List;
import java.util.Optional;
import org.apache.ibatis.annotations.Delete;
import org.apache.ibatis.annotations.Insert;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Param;
import org.apache.ibatis.annotations.Select;

/** Rows of steps, issued revisions and templates. */
@Mapper
public interface HistoryMapper {
    /** A change in the life of a block. */
    record StepRow(int seq, String label, String who, LocalDateTime madeAt) {}

    /** A revision as it was frozen. */
    record RevisionRow(
            long blockId, int number, String note, String facts, String figures, String plan, LocalDateTime issuedAt) {}

    /** A revision in a list. */
    record IssueRow(int number, String note, LocalDateTime issuedAt) {}

    /** Settings kept by name. */
    record TemplateRow(long id, String name, String facts, LocalDateTime madeAt) {}

    @Select(
            "select seq, label, who, made_at from block_step where block_id = #{blockId} order by seq desc limit #{most}")
    List<StepRow> steps(@Param("blockId") long blockId, @Param("most") int most);

    @Select("select number, note, issued_at from revision where block_id = #{blockId} order by number desc")
    List<IssueRow> revisions(long blockId);

    @Select(
            "select block_id, number, note, facts, figures, plan, issued_at from revision where block_id = #{blockId} and number = #{number}")
    Optional<RevisionRow> revision(@Param("blockId") long blockId, @Param("number") int number);

    @Insert("""
            insert into revision (block_id, number, note, facts, figures, plan, issued_at)
            select #{blockId}, coalesce(max(number), 0) + 1, #{note}, #{facts}, #{figures}, #{plan}, now()
              from revision where block_id = #{blockId}
            """)
    void issue(
            @Param("blockId") long blockId,
            @Param("note") String note,
            @Param("facts") String facts,
            @Param("figures") String figures,
            @Param("plan") String plan);

    @Select("select id, name, facts, made_at from template order by lower(name)")
    List<TemplateRow> templates();

    @Select("select id, name, facts, made_at from template where id = #{id}")
    Optional<TemplateRow> template(long id);

    @Select("select id from template where lower(name) = lower(#{name})")
    Optional<Long> templateNamed(String name);

    @Insert("insert into template (name, facts, made_at) values (#{name}, #{facts}, now())")
    void insertTemplate(@Param("name") String name, @Param("facts") String facts);

    @Delete("delete from template where id = #{id}")
    void deleteTemplate(long id);
}
