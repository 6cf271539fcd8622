package yalos.web.store;

import java.time.LocalDateTime;
import java.util.List;
import java.util.Optional;
import org.apache.ibatis.annotations.Delete;
import org.apache.ibatis.annotations.Insert;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Param;
import org.apache.ibatis.annotations.Select;

/** Plans made earlier, as they were read from their files. */
@Mapper
public interface EarlierMapper {
    /**
     * A plan.
     *
     * @param zero what its heights count from
     * @param height used where it has none, in metres; null where it has
     * @param spots packed JSON: stations or corners
     */
    record EarlierRow(
            long id, String name, String zero, Double height, String spots, LocalDateTime keptAt, String keptBy) {}

    @Select(
            "select id, name, zero, height, spots, kept_at, kept_by from earlier_plan where block_id = #{block} order by id")
    List<EarlierRow> all(long block);

    @Select(
            "select id, name, zero, height, spots, kept_at, kept_by from earlier_plan where block_id = #{block} and id = #{id}")
    Optional<EarlierRow> one(@Param("block") long block, @Param("id") long id);

    @Insert("insert into earlier_plan (block_id, name, zero, height, spots, kept_at, kept_by) values"
            + " (#{block}, #{p.name}, #{p.zero}, #{p.height}, #{p.spots}, #{p.keptAt}, #{p.keptBy})")
    void keep(@Param("block") long block, @Param("p") EarlierRow plan);

    @Delete("delete from earlier_plan where block_id = #{block} and id = #{id}")
    int remove(@Param("block") long block, @Param("id") long id);
}
