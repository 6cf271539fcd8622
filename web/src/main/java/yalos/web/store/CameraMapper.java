package yalos.web.store;

import java.util.List;
import java.util.Optional;
import org.apache.ibatis.annotations.Delete;
import org.apache.ibatis.annotations.Insert;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Select;
import org.apache.ibatis.annotations.Update;

/** Rows of the camera catalogue. */
@Mapper
public interface CameraMapper {
    @Select("select * from camera order by lower(name)")
    List<CameraRow> rows();

    /** Cameras that can be used; one whose figures cannot be harms no other. */
    default List<CameraRow> all() {
        return rows().stream().filter(row -> row.fault().isEmpty()).toList();
    }

    /** Cameras whose figures cannot be. */
    default List<CameraRow> damaged() {
        return rows().stream().filter(row -> row.fault().isPresent()).toList();
    }

    @Select("select * from camera where id = #{id}")
    Optional<CameraRow> byId(long id);

    @Select("select id from camera where lower(name) = lower(#{name})")
    Optional<Long> named(String name);

    @Insert("""
            insert into camera (name, pixels_wide, pixels_high, sensor_width_mm, sensor_height_mm, focal_length_mm, shutter,
                                readout_s, min_interval_s, mount, megabytes_per_photo, card_gigabytes, photos_per_flight,
                                raw_interval_s, other_lenses_mm)
            values (#{name}, #{pixelsWide}, #{pixelsHigh}, #{sensorWidthMm}, #{sensorHeightMm}, #{focalLengthMm}, #{shutter},
                    #{readoutS}, #{minIntervalS}, #{mount}, #{megabytesPerPhoto}, #{cardGigabytes}, #{photosPerFlight},
                    #{rawIntervalS}, #{otherLensesMm})
            """)
    void insert(CameraRow camera);

    @Update("""
            update camera set name = #{name}, pixels_wide = #{pixelsWide}, pixels_high = #{pixelsHigh},
                   sensor_width_mm = #{sensorWidthMm}, sensor_height_mm = #{sensorHeightMm},
                   focal_length_mm = #{focalLengthMm}, shutter = #{shutter}, readout_s = #{readoutS},
                   min_interval_s = #{minIntervalS}, mount = #{mount}, megabytes_per_photo = #{megabytesPerPhoto},
                   card_gigabytes = #{cardGigabytes}, photos_per_flight = #{photosPerFlight},
                   raw_interval_s = #{rawIntervalS}, other_lenses_mm = #{otherLensesMm}
             where id = #{id}
            """)
    void update(CameraRow camera);

    @Delete("delete from camera where id = #{id}")
    void delete(long id);
}
