package yalos.core.flight;

import java.util.List;

/** How high a flight is flown over some ground, way by way. */
public interface Heights {
    /** Height of the ground at the take-off point, as {@link Place#upM()}. */
    double takeOffUpM();

    /** Heights along a line, at even steps. */
    double[] along(Line line);

    /**
     * Heights along the ways from one line to the next, or between a line and the launch point.
     *
     * @param ways one after the other
     * @param fromUpM where they begin
     * @param toUpM where they end
     * @return heights of each way, at even steps
     */
    List<double[]> between(List<Way> ways, double fromUpM, double toUpM);
}
