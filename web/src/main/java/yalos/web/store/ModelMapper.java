package yalos.web.store;

import java.util.List;
import java.util.Optional;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Param;
import org.apache.ibatis.annotations.Select;
import org.apache.ibatis.annotations.Update;

/** Rows of elevation models and pictures; the files lie in the data folder under their number. */
@Mapper
public interface ModelMapper {
    /**
     * A model or picture.
     *
     * @param kind {@code ELEVATION} or {@code PICTURE}
     * @param about size and cells in words, in metres; for models without an extent
     * @param datum its height system as last stated, as JSON; empty for a picture
     * @param extent of an elevation model as JSON; may be empty
     */
    record ModelRow(
            long id, long jobId, String kind, String name, int epsg, String about, String datum, String extent) {}

    @Select("select id, job_id, kind, name, epsg, about, datum, extent from model where job_id = #{jobId} order by id")
    List<ModelRow> ofJob(long jobId);

    @Select("select id, job_id, kind, name, epsg, about, datum, extent from model where id = #{id}")
    Optional<ModelRow> byId(long id);

    /** Keeps a row and answers with its number. */
    @Select(
            value =
                    "select id from final table (insert into model (job_id, kind, name, epsg, about, datum, extent) values (#{jobId}, #{kind}, #{name}, #{epsg}, #{about}, #{datum}, #{extent}))",
            affectData = true)
    long insert(
            @Param("jobId") long jobId,
            @Param("kind") String kind,
            @Param("name") String name,
            @Param("epsg") int epsg,
            @Param("about") String about,
            @Param("datum") String datum,
            @Param("extent") String extent);

    @Select("select id from model")
    List<Long> ids();

    /** Models that other jobs have, the newest first. */
    @Select(
            "select id, job_id, kind, name, epsg, about, datum, extent from model where job_id <> #{jobId} and kind = 'ELEVATION' and job_id in (select id from job where binned_at is null) order by id desc limit 500")
    List<ModelRow> ofOthers(long jobId);

    @Update("update model set datum = #{datum}, extent = #{extent} where id = #{id}")
    void state(@Param("id") long id, @Param("datum") String datum, @Param("extent") String extent);
}
