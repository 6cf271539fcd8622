package yalos.web.store;

import java.util.List;
import java.util.Optional;
import org.apache.ibatis.annotations.Delete;
import org.apache.ibatis.annotations.Insert;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Param;
import org.apache.ibatis.annotations.Select;
import org.apache.ibatis.annotations.Update;

/** Rows of the catalogue besides cameras: aircraft, scanners, kits. */
@Mapper
public interface GearMapper {
    /** One entry; its content is read by {@link GearJson}. */
    record GearRow(long id, String kind, String name, String content) {}

    @Select("select id, kind, name, content from gear where kind = #{kind} order by lower(name)")
    List<GearRow> all(String kind);

    @Select("select id, kind, name, content from gear where id = #{id} and kind = #{kind}")
    Optional<GearRow> byId(@Param("kind") String kind, @Param("id") long id);

    @Select("select id from gear where kind = #{kind} and lower(name) = lower(#{name})")
    Optional<Long> named(@Param("kind") String kind, @Param("name") String name);

    @Insert("insert into gear (kind, name, content) values (#{kind}, #{name}, #{content})")
    void insert(@Param("kind") String kind, @Param("name") String name, @Param("content") String content);

    @Update("update gear set name = #{name}, content = #{content} where id = #{id}")
    void update(@Param("id") long id, @Param("name") String name, @Param("content") String content);

    @Delete("delete from gear where id = #{id} and kind = #{kind}")
    void delete(@Param("kind") String kind, @Param("id") long id);
}
