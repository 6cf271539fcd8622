package yalos.core.pattern;

import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.Optional;
import java.util.OptionalDouble;
import yalos.core.block.Corridor;
import yalos.core.block.PlaneBlock;
import yalos.core.fault.InputFault;
import yalos.core.flight.Flight;
import yalos.core.flight.FlightBuilder;
import yalos.core.flight.Pace;
import yalos.core.flight.Timeline;
import yalos.core.geodesy.PlanePoint;
import yalos.core.wind.Wind;

/**
 * Strips beside each other along an axis, two at least, there and back.
 *
 * <p>Each strip is the axis set off sideways so that it never comes nearer to it than its offset and crosses itself nowhere. Where it bends by more
 * than {@value #SHARP_DEG}° a multirotor turns on the spot, with a photo each way; a wing rounds the bend by the arc it can fly where that cuts the
 * corner by little, and otherwise flies on, comes round and lines up again. Where the axis bends sharply its parts are flown one after the other when
 * that takes less time.
 *
 * <p>KNOWN LIMITS: the axis is followed to a tenth of the strip spacing; strips are laid so much wider.
 *
 * @param axis in the block's plane
 * @param leftM of the axis that is covered, margin included
 * @param rightM of the axis that is covered, margin included
 * @param beyondM that strips reach beyond the axis' ends
 * @param gaze which way the camera looks
 */
public record CorridorStrips(List<PlanePoint> axis, double leftM, double rightM, double beyondM, Gaze gaze)
        implements Pattern {
    private static final int SHARP_DEG = 20;
    /** The axis is simplified by this share of the strip spacing. */
    private static final double FOLLOWED = 0.1;
    /** A wing cuts a bend by this share of the strip spacing at most. */
    private static final double CUT = 0.25;
    /** Parts of a corridor are flown one after the other only where the axis bends by more. */
    private static final double PARTED_RAD = Math.toRadians(45);

    private static final int LEAST_STRIPS = 2;

    public CorridorStrips {
        axis = List.copyOf(axis);
    }

    @Override
    public CorridorStrips decided(PlaneBlock block, Task task, Pace pace, Optional<PlanePoint> launch) {
        return this;
    }

    @Override
    public void refuseFarTooMany(PlaneBlock block, Task task) {
        StripGrid.refuse(Polyline.lengthM(axis) / task.baseM() * strips(task));
    }

    private double followedM(Task task) {
        return task.spacingM() * FOLLOWED;
    }

    private int strips(Task task) {
        double wide = leftM + rightM + 2 * followedM(task);
        return (int) Math.max(LEAST_STRIPS, Math.ceil(wide / task.spacingM() - 1e-9));
    }

    @Override
    public void fly(PlaneBlock block, Task task, int pass, FlightBuilder flight) {
        List<PlanePoint> followed = Polyline.simplified(axis, followedM(task));
        Courses whole = new Courses(task, flight.pace());
        whole.add(Polyline.extended(followed, beyondM, beyondM));
        Courses parted = new Courses(task, flight.pace());
        List<List<PlanePoint>> sections = Polyline.parted(followed, PARTED_RAD);
        for (int i = 0; i < sections.size(); i++) {
            double before = i == 0 ? beyondM : wedgeM(sections.get(i - 1), sections.get(i));
            double after = i == sections.size() - 1 ? beyondM : wedgeM(sections.get(i), sections.get(i + 1));
            parted.add(Polyline.extended(sections.get(i), before, after));
        }
        boolean one = sections.size() == 1 || whole.seconds(flight.launch()) <= parted.seconds(flight.launch());
        (one ? whole : parted).fly(pass, flight);
    }

    /** How far a part must reach beyond a bend so that the corner outside it is covered: half the width times the tangent of half the bend. */
    private double wedgeM(List<PlanePoint> before, List<PlanePoint> after) {
        double bend = Math.min(Math.abs(Polyline.bendRad(before, after)), Math.PI / 2);
        return Math.max(leftM, rightM) * Math.tan(bend / 2);
    }

    @Override
    public OptionalDouble directionRad() {
        PlanePoint first = axis.get(0);
        PlanePoint last = axis.get(axis.size() - 1);
        PlanePoint other = first.distanceM(last) > 0 ? last : axis.get(axis.size() / 2);
        return OptionalDouble.of(first.bearingRad(other) % Math.PI);
    }

    @Override
    public List<School> inWind(Wind wind) {
        return List.of(new School("along the axis", this));
    }

    @Override
    public Pattern across() {
        return StripGrid.towards(directionRad().orElseThrow() + Math.PI / 2).looking(gaze);
    }

    @Override
    public CorridorStrips looking(Gaze otherwise) {
        return new CorridorStrips(axis, leftM, rightM, beyondM, otherwise);
    }

    /** Strips of one part after the other, each a course to be followed there or back. */
    private final class Courses {
        private final Task task;
        private final Pace pace;
        private final double radiusM;
        private final List<List<List<PlanePoint>>> sections = new ArrayList<>();

        Courses(Task task, Pace pace) {
            this.task = task;
            this.pace = pace;
            this.radiusM = pace.aircraft().kind().wing() ? pace.aircraft().turnRadiusM(task.speedMps()) : 0;
        }

        void add(List<PlanePoint> section) {
            int strips = strips(task);
            double middle = (rightM - leftM) / 2;
            List<List<PlanePoint>> courses = new ArrayList<>();
            for (int i = 0; i < strips; i++) {
                double right = middle + (i - (strips - 1) / 2.0) * task.spacingM();
                List<PlanePoint> course = new ArrayList<>();
                Corridor.beside(section, -right).forEach(course::addAll);
                if (course.size() > 1) {
                    courses.add(radiusM == 0 ? course : Polyline.rounded(course, radiusM, task.spacingM() * CUT));
                }
            }
            if (courses.isEmpty()) {
                throw new InputFault(
                        "axis", axis.size() + " points", "The axis bends so tightly that no strip fits beside it.");
            }
            sections.add(courses);
        }

        double seconds(Optional<PlanePoint> launch) {
            FlightBuilder trial = new FlightBuilder(pace, launch);
            fly(1, trial);
            Flight flown = trial.landed();
            return Timeline.of(flown, pace).totalS();
        }

        void fly(int pass, FlightBuilder flight) {
            List<List<List<PlanePoint>>> order = new ArrayList<>(sections);
            Optional<PlanePoint> here = flight.approach();
            if (here.isPresent() && toEnd(order, here.get()) < toStart(order, here.get())) {
                Collections.reverse(order);
            }
            for (List<List<PlanePoint>> courses : order) {
                section(courses, pass, flight);
            }
        }

        private double toStart(List<List<List<PlanePoint>>> order, PlanePoint here) {
            return order.get(0).get(0).get(0).distanceM(here);
        }

        private double toEnd(List<List<List<PlanePoint>>> order, PlanePoint here) {
            List<PlanePoint> last = order.get(order.size() - 1).get(0);
            return last.get(last.size() - 1).distanceM(here);
        }

        /** There and back, beginning at the nearest of the four ends. */
        private void section(List<List<PlanePoint>> courses, int pass, FlightBuilder flight) {
            boolean fromLast = false;
            boolean back = false;
            if (flight.approach().isPresent()) {
                PlanePoint here = flight.approach().get();
                double least = Double.POSITIVE_INFINITY;
                for (boolean last : new boolean[] {false, true}) {
                    List<PlanePoint> course = courses.get(last ? courses.size() - 1 : 0);
                    for (boolean end : new boolean[] {false, true}) {
                        double away = course.get(end ? course.size() - 1 : 0).distanceM(here);
                        if (away < least - 1e-9) {
                            least = away;
                            fromLast = last;
                            back = end;
                        }
                    }
                }
            }
            for (int i = 0; i < courses.size(); i++) {
                List<PlanePoint> course = new ArrayList<>(courses.get(fromLast ? courses.size() - 1 - i : i));
                if (back) {
                    Collections.reverse(course);
                }
                course(course, pass, flight);
                back = !back;
            }
        }

        /** A whole strip: between sharp bends photos stand evenly, with one at either end. */
        private void course(List<PlanePoint> course, int pass, FlightBuilder flight) {
            boolean first = true;
            for (List<PlanePoint> run : Polyline.parted(course, Math.toRadians(SHARP_DEG))) {
                double length = Polyline.lengthM(run);
                int photos = task.photosOver(length);
                List<Polyline.Station> stations = Polyline.stations(run, photos);
                for (int from = 0, to; from < stations.size(); from = to) {
                    to = from + 1;
                    while (to < stations.size()
                            && stations.get(to).piece() == stations.get(from).piece()) {
                        to++;
                    }
                    FlightBuilder.Photographed line = line(stations, from, to, pass, flight);
                    if (first) {
                        flight.line(line);
                    } else if (from == 0) {
                        flight.lineRound(line);
                    } else {
                        flight.lineOn(line);
                    }
                    first = false;
                }
            }
        }

        private FlightBuilder.Photographed line(
                List<Polyline.Station> stations, int from, int to, int pass, FlightBuilder flight) {
            return task.photographed(
                    pass,
                    stations.get(from).at(),
                    stations.get(to - 1).at(),
                    stations.get(from).trackRad(),
                    to - from,
                    gaze,
                    flight.pace());
        }
    }
}
