package yalos.web.store;

import static yalos.web.store.Plain.known;
import static yalos.web.store.Plain.or;
import static yalos.web.store.Plain.word;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.OptionalDouble;
import yalos.core.block.Outline;
import yalos.core.control.Assumptions;
import yalos.core.control.Avoided;
import yalos.core.control.ControlLayout;
import yalos.core.control.ControlPoint;
import yalos.core.fault.InputFault;

/** Points of a block as they are stored; places are pairs of longitude and latitude. */
record StoredControl(List<StoredPoint> points, List<StoredAvoided> avoided, StoredAssumptions assumptions) {

    record StoredPoint(String name, String role, String kind, double[] place, Double upM, Boolean locked, String note) {
        static StoredPoint of(ControlPoint point) {
            return new StoredPoint(
                    point.name(),
                    point.role().name(),
                    point.kind().name(),
                    new double[] {point.place().lonDeg(), point.place().latDeg()},
                    point.upM().isPresent() ? point.upM().getAsDouble() : null,
                    point.locked() ? true : null,
                    point.note().isEmpty() ? null : point.note());
        }

        ControlPoint point() {
            return new ControlPoint(
                    name,
                    word(role, ControlPoint.Role.CONTROL),
                    word(kind, ControlPoint.Kind.TARGET),
                    StoredPart.corner(place),
                    upM == null ? OptionalDouble.empty() : OptionalDouble.of(upM),
                    Boolean.TRUE.equals(locked),
                    note == null ? "" : note);
        }
    }

    record StoredAvoided(String name, String kind, List<StoredPart> outline) {}

    record StoredAssumptions(
            Double ties,
            Double imagePx,
            Double horizontalM,
            Double verticalM,
            Boolean freeLens,
            Integer epochs,
            Double walkMps,
            Boolean closedTour,
            Double steepestRad) {
        static StoredAssumptions of(Assumptions one) {
            return new StoredAssumptions(
                    one.tiesPerPhoto(),
                    one.imagePx(),
                    one.horizontalM(),
                    one.verticalM(),
                    one.freeLens(),
                    one.epochs(),
                    one.walkMps(),
                    one.closedTour(),
                    one.steepestRad());
        }

        /** What is missing or out of reason is read as what is usual. */
        Assumptions assumptions() {
            Assumptions usual = Assumptions.USUAL;
            try {
                return new Assumptions(
                        ties == null ? usual.tiesPerPhoto() : ties,
                        imagePx == null ? usual.imagePx() : imagePx,
                        horizontalM == null ? usual.horizontalM() : horizontalM,
                        verticalM == null ? usual.verticalM() : verticalM,
                        freeLens == null ? usual.freeLens() : freeLens,
                        epochs == null ? usual.epochs() : epochs,
                        walkMps == null ? usual.walkMps() : walkMps,
                        closedTour == null ? usual.closedTour() : closedTour,
                        steepestRad == null ? usual.steepestRad() : steepestRad);
            } catch (InputFault outOfReason) {
                return usual;
            }
        }
    }

    /** Null for a block without any, so that nothing is written of it. */
    static StoredControl of(ControlLayout layout) {
        if (layout.equals(ControlLayout.NONE)) {
            return null;
        }
        return new StoredControl(
                layout.points().stream().map(StoredPoint::of).toList(),
                layout.avoided().stream()
                        .map(one -> new StoredAvoided(
                                one.name(),
                                one.kind().name(),
                                one.outline().parts().stream()
                                        .map(StoredPart::of)
                                        .toList()))
                        .toList(),
                StoredAssumptions.of(layout.assumptions()));
    }

    /** A point that cannot be read is left out; the others stay. */
    ControlLayout layout() {
        ControlLayout layout =
                ControlLayout.NONE.with(assumptions == null ? Assumptions.USUAL : assumptions.assumptions());
        for (StoredPoint stored : or(points)) {
            try {
                layout = layout.plus(stored.point());
            } catch (InputFault | IllegalArgumentException | NullPointerException unreadable) {
                continue;
            }
        }
        List<Avoided> areas = new ArrayList<>();
        for (StoredAvoided one : or(avoided)) {
            Optional<Avoided.Kind> kind = known(one.kind(), Avoided.Kind.class);
            kind.ifPresent(present -> areas.add(new Avoided(
                    one.name() == null ? "" : one.name(),
                    present,
                    new Outline(or(one.outline()).stream().map(StoredPart::part).toList()))));
        }
        return layout.avoiding(areas);
    }
}
