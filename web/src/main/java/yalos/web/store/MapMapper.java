package yalos.web.store;

import java.util.List;
import java.util.Optional;
import org.apache.ibatis.annotations.Delete;
import org.apache.ibatis.annotations.Insert;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Param;
import org.apache.ibatis.annotations.Select;
import org.apache.ibatis.annotations.Update;

/** Web maps whose addresses somebody typed, and which map lies under the sheets of a job. */
@Mapper
public interface MapMapper {
    /**
     * A web map.
     *
     * @param layers of a Web Map Service; empty for tiles
     * @param mostZoom the finest level asked for
     * @param home whether it may stand on this machine or in its own network
     * @param active whether anything is fetched from it
     */
    record AddressRow(
            long id,
            String name,
            String address,
            String layers,
            String attribution,
            int mostZoom,
            boolean home,
            boolean active) {}

    @Select("select id, name, address, layers, attribution, most_zoom, home, active from map_address order by name")
    List<AddressRow> addresses();

    @Select("select id, name, address, layers, attribution, most_zoom, home, active from map_address where id = #{id}")
    Optional<AddressRow> address(long id);

    @Insert("insert into map_address (name, address, layers, attribution, most_zoom, home, active)"
            + " values (#{name}, #{address}, #{layers}, #{attribution}, #{mostZoom}, #{home}, false)")
    void add(
            @Param("name") String name,
            @Param("address") String address,
            @Param("layers") String layers,
            @Param("attribution") String attribution,
            @Param("mostZoom") int mostZoom,
            @Param("home") boolean home);

    @Update("update map_address set active = #{active} where id = #{id}")
    void activate(@Param("id") long id, @Param("active") boolean active);

    @Delete("delete from map_address where id = #{id}")
    void remove(long id);

    @Select("select map from job_map where job_id = #{job}")
    Optional<String> under(long job);

    @Update("merge into job_map (job_id, map) key (job_id) values (#{job}, #{map})")
    void lay(@Param("job") long job, @Param("map") String map);

    @Delete("delete from job_map where job_id = #{job}")
    void takeAway(long job);
}
