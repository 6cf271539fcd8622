package yalos.core.take;

import java.util.ArrayList;
import java.util.List;
import yalos.core.flight.Exposure;
import yalos.core.flight.Flight;
import yalos.core.flight.Line;
import yalos.core.flight.Timeline;
import yalos.core.geodesy.PlanePoint;

/**
 * Where and when the plan wants a photo.
 *
 * @param number from 1, in the order flown
 * @param line it lies on, from 1
 * @param upM height, see {@link yalos.core.flight.Place#upM()}
 * @param plannedS seconds from the plan's start
 */
public record Station(int number, int line, PlanePoint at, double upM, double plannedS) {

    /** The stations of a flight on its clock. */
    public static List<Station> of(Flight flight, Timeline clock) {
        List<Station> stations = new ArrayList<>();
        for (Timeline.Span span : clock.spans()) {
            if (span.leg() instanceof Line line) {
                for (Exposure photo : flight.exposuresOf(line)) {
                    double along = line.from().distanceM(photo.point());
                    double share = line.lengthM() == 0 ? 0 : Math.min(1, along / line.lengthM());
                    stations.add(new Station(
                            photo.id(),
                            photo.line(),
                            photo.point(),
                            photo.upM(),
                            span.fromS() + share * span.seconds()));
                }
            }
        }
        return stations;
    }
}
