package yalos.web.store;

import java.time.LocalDateTime;
import java.util.List;
import java.util.Optional;
import org.apache.ibatis.annotations.Insert;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Param;
import org.apache.ibatis.annotations.Select;

/** Rows of what a list of blocks shows, kept beside the facts they follow from. */
@Mapper
public interface SummaryMapper {
    /**
     * What follows from facts.
     *
     * @param hash of the facts
     * @param figures number of the reckoning, see {@link #FIGURES}
     * @param areaM2 null without an outline
     * @param gsdM null without a plan
     * @param photos null without a plan
     * @param flightTimeS null without a plan, or where the wind forbids it
     * @param outline drawn small, as an SVG path; empty without one
     */
    record SummaryRow(
            String hash, int figures, Double areaM2, Double gsdM, Integer photos, Double flightTimeS, String outline) {}

    /**
     * A block in a list.
     *
     * @param known whether its summary is there
     * @param hidden whether it is left out of the job's sheet and totals
     */
    record ListRow(
            long id,
            long jobId,
            String name,
            String label,
            LocalDateTime madeAt,
            boolean known,
            Double areaM2,
            Double gsdM,
            Integer photos,
            Double flightTimeS,
            String outline,
            boolean hidden) {}

    /** To be raised whenever the program reckons any of these figures differently, so that kept ones are made anew. */
    int FIGURES = 3;

    String LIST = """
            select b.id, b.job_id, b.name, s.label, s.made_at, y.hash is not null as known, y.area_m2, y.gsd_m, y.photos,
                   y.flight_time_s, coalesce(y.outline, '') as outline, b.hidden
              from block b
              join job j on j.id = b.job_id and j.binned_at is null
              join block_step s on s.block_id = b.id and s.seq = b.head
              left join block_summary y on y.hash = s.hash and y.figures = #{figures}
            """;

    @Select(LIST + " order by b.job_id, b.place, b.id")
    List<ListRow> all(int figures);

    @Select(LIST + " where b.job_id = #{jobId} order by b.place, b.id")
    List<ListRow> ofJob(@Param("jobId") long jobId, @Param("figures") int figures);

    @Select("select hash from block_summary where hash = #{hash} and figures = #{figures}")
    Optional<String> known(@Param("hash") String hash, @Param("figures") int figures);

    @Insert("""
            merge into block_summary (hash, figures, area_m2, gsd_m, photos, flight_time_s, outline)
            key (hash, figures)
            values (#{hash}, #{figures}, #{areaM2}, #{gsdM}, #{photos}, #{flightTimeS}, #{outline})
            """)
    void keep(SummaryRow row);
}
