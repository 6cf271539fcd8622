package yalos.web.store;

import java.util.Optional;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Param;
import org.apache.ibatis.annotations.Select;
import org.apache.ibatis.annotations.Update;

/** What the operator prefers everywhere, such as units. */
@Mapper
public interface PreferenceMapper {
    @Select("select content from preference where name = #{name}")
    Optional<String> get(String name);

    @Update("merge into preference (name, content) key (name) values (#{name}, #{content})")
    void put(@Param("name") String name, @Param("content") String content);
}
