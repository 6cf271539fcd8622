package yalos.core.pattern;

import java.util.List;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.function.DoubleBinaryOperator;
import yalos.core.block.PlaneBlock;
import yalos.core.camera.Camera;
import yalos.core.fault.InputFault;
import yalos.core.kit.Aircraft;
import yalos.core.site.Structure.Built;
import yalos.core.units.Measure;
import yalos.core.units.Unit;

/**
 * A pattern flown round an object, by the object's faces and not by the ground.
 *
 * <p>A new kind is a class that implements this, its form in the store and on the page, and its tests; whoever plans, proves, prints or writes files
 * knows only the shots it makes.
 */
public interface StructurePass {
    /** Along near things one flies no quicker (common practice). */
    double CAREFUL_MPS = 4;

    /** Its name in files and in the store. */
    String key();

    /** The object it is flown round; empty for one over the block. */
    Optional<String> object();

    /** What it is, in a few words, such as “facade of “tower” from 12 m”. */
    String words();

    /** Speed and overlaps it is flown with. */
    Habit habit();

    /** The same flown with other speed and overlaps. */
    StructurePass with(Habit other);

    /**
     * Its runs, in the order flown.
     *
     * @throws InputFault for settings that cannot be flown round this object
     */
    List<Run> runs(Scene scene);

    /** How far off it takes its photos, in metres: what its GSD follows from. */
    double standOffM(Scene scene);

    /** GSD square to the face, in metres. */
    default double gsdM(Scene scene) {
        return standOffM(scene) * scene.camera().pitchM() / scene.camera().focalLengthM();
    }

    /**
     * Overlaps and speed.
     *
     * @param forward overlap of neighbouring photos of a run, as a share
     * @param side overlap of neighbouring runs, as a share
     * @param speed asked for; the quickest that blur, the camera's interval and care allow where empty
     * @param floor below which it never flies, above the foot of its object; none where empty
     * @param ceiling above which it never flies, above the foot of its object; none where empty
     */
    record Habit(
            Measure forward,
            Measure side,
            Optional<Measure> speed,
            Optional<Measure> floor,
            Optional<Measure> ceiling) {
        /** As dense as mapping usually is; no limits of its own. */
        public static final Habit USUAL = new Habit(
                Measure.of(80, Unit.PERCENT),
                Measure.of(70, Unit.PERCENT),
                Optional.empty(),
                Optional.empty(),
                Optional.empty());

        public Habit {
            InputFault.within("forward", forward.si(), 0, 0.98, "");
            InputFault.within("side", side.si(), 0, 0.98, "");
            speed.ifPresent(v -> InputFault.within("speed", v.si(), 0.1, 30, "m/s"));
            floor.ifPresent(m -> InputFault.within("floor", m.si(), -500, 5000, "m"));
            ceiling.ifPresent(m -> InputFault.within("ceiling", m.si(), -500, 5000, "m"));
            if (floor.isPresent()
                    && ceiling.isPresent()
                    && ceiling.get().si() <= floor.get().si()) {
                throw new InputFault(
                        "ceiling",
                        ceiling.get().asTyped(),
                        "The ceiling, %s, must lie above the floor, %s."
                                .formatted(ceiling.get().asTyped(), floor.get().asTyped()));
            }
        }

        /** Places that are evenly spread over a reach so that neighbours are no farther apart than a step. */
        static double[] spread(double fromM, double toM, double stepM) {
            int count = (int) Math.max(1, Math.ceil((toM - fromM) / stepM - 1e-9) + 1);
            double[] at = new double[count];
            for (int i = 0; i < count; i++) {
                at[i] = count == 1 ? (fromM + toM) / 2 : fromM + (toM - fromM) * i / (count - 1);
            }
            return at;
        }
    }

    /**
     * All that stands round a pass.
     *
     * @param block the area a pass over it covers
     * @param camera that takes the photos
     * @param aircraft that carries it
     * @param pace limits: metres on the object that an image may move while the shutter is open, in seconds of it, and the least seconds between photos
     * @param ground height of the ground at a place; not a number where nobody knows it
     * @param standing height above the ground of obstacles of the site that stand within the clearance of a place; 0 for none
     * @param all solids of all objects
     * @param clearM least distance kept from all of them, and from the ground
     */
    record Scene(
            PlaneBlock block,
            Camera camera,
            Aircraft aircraft,
            Limits pace,
            DoubleBinaryOperator ground,
            DoubleBinaryOperator standing,
            List<Built> all,
            double clearM) {
        /** The solids of one object. */
        List<Built> of(String object) {
            return all.stream()
                    .filter(one -> one.object().name().equals(object))
                    .toList();
        }

        /** The solids of an object that there must be. */
        List<Built> required(String object) {
            List<Built> own = of(object);
            if (own.isEmpty()) {
                throw new InputFault(
                        "object", object, "There is no object “%s” any more. Choose another one.".formatted(object));
            }
            return own;
        }

        /** Height of an object's foot, from which floors and ceilings count; empty where no such object stands there. */
        public OptionalDouble footM(Optional<String> object) {
            return object.stream()
                    .flatMap(name -> of(name).stream())
                    .mapToDouble(one -> one.solid().bottomM())
                    .min();
        }

        /** Height of the ground at a place, where it is known. */
        OptionalDouble groundM(double x, double y) {
            double up = ground.applyAsDouble(x, y);
            return Double.isNaN(up) ? OptionalDouble.empty() : OptionalDouble.of(up);
        }

        /** Length of a face that a photo shows square to it, across the image. */
        double acrossM(double standOffM) {
            return camera.sideAcrossM() / camera.focalLengthM() * standOffM;
        }

        /** Height of a face that a photo shows square to it. */
        double alongM(double standOffM) {
            return camera.sideAlongM() / camera.focalLengthM() * standOffM;
        }

        /**
         * The speed of a run: as asked, otherwise the quickest that blur and the camera's interval allow, and no more than care does.
         *
         * @param baseM between neighbouring photos
         */
        double speedMps(Habit habit, double gsdM, double baseM, boolean near) {
            double able = Math.min(
                    aircraft.maxSpeedMps(),
                    Math.min(pace.blurPx() * gsdM / pace.shutterS(), baseM / Math.max(1e-9, pace.intervalS())));
            double careful = near ? Math.min(able, CAREFUL_MPS) : able;
            return habit.speed().map(Measure::si).orElse(Math.max(0.1, careful));
        }
    }

    /**
     * What holds the speed.
     *
     * @param blurPx pixels an image may move while the shutter is open
     * @param shutterS how long it is open
     * @param intervalS least time between photos
     */
    record Limits(double blurPx, double shutterS, double intervalS) {}
}
