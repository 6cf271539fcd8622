package yalos.web.store;

import java.util.List;
import java.util.Optional;
import org.apache.ibatis.annotations.Delete;
import org.apache.ibatis.annotations.Insert;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Param;
import org.apache.ibatis.annotations.Select;

/** Rows of elevation models and pictures; the files lie in the data folder under their number. */
@Mapper
public interface ModelMapper {
    /**
     * A model or picture.
     *
     * @param kind {@code ELEVATION} or {@code PICTURE}
     * @param about size and cells in words
     */
    record ModelRow(long id, long jobId, String kind, String name, int epsg, String about) {}

    @Select("select id, job_id, kind, name, epsg, about from model where job_id = #{jobId} order by id")
    List<ModelRow> ofJob(long jobId);

    @Select("select id, job_id, kind, name, epsg, about from model where id = #{id}")
    Optional<ModelRow> byId(long id);

    @Select("select coalesce(max(id), 0) from model")
    long lastId();

    @Insert(
            "insert into model (job_id, kind, name, epsg, about) values (#{jobId}, #{kind}, #{name}, #{epsg}, #{about})")
    void insert(
            @Param("jobId") long jobId,
            @Param("kind") String kind,
            @Param("name") String name,
            @Param("epsg") int epsg,
            @Param("about") String about);

    @Delete("delete from model where id = #{id}")
    void delete(long id);
}
