package yalos.core.pattern;

import java.util.ArrayList;
import java.util.EnumMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.Predicate;
import yalos.core.camera.Lens;
import yalos.core.camera.Pose;
import yalos.core.fault.InputFault;
import yalos.core.fault.Patience;
import yalos.core.flight.Arc;
import yalos.core.flight.Exposure;
import yalos.core.flight.Flight;
import yalos.core.flight.Leg;
import yalos.core.flight.Line;
import yalos.core.flight.Pace;
import yalos.core.geodesy.PlanePoint;
import yalos.core.pattern.StructurePass.Scene;
import yalos.core.site.Structure.Built;

/**
 * The passes round objects as a flight, in the order of the passes, joined by ways that go round the objects and never through. Shots that have no room are left
 * out and counted by their reason.
 *
 * @param flight all of it, with what was flown before
 * @param passes what each pass came to
 * @param reached whether every way between was found; a finding stops for those that were not
 */
public record StructureFlight(Flight flight, List<OfPass> passes, boolean reached) {
    /** Why a shot is not flown. */
    public enum LeftOut {
        NEAR("come nearer to an object or obstacle than is to be kept clear"),
        GROUND("come too near to the ground, or lie over ground that nobody knows"),
        FLOOR("lie below the floor"),
        CEILING("lie above the ceiling");

        private final String words;

        LeftOut(String words) {
            this.words = words;
        }

        /** What it is called in a sentence, after “12 photos”. */
        public String words() {
            return words;
        }
    }

    /**
     * What became of a pass.
     *
     * @param number of the pass in the flight, from 1
     * @param wanted as it was asked for
     * @param photos that are flown
     * @param leftOut those that are not
     * @param standOffM how far off
     * @param gsdM square to the face
     * @param speedMps of its quickest run
     * @param closestShotsS least time between two of its photos; infinite for one
     * @param fault why it is not flown at all
     */
    public record OfPass(
            int number,
            StructurePass wanted,
            int photos,
            Map<LeftOut, Integer> leftOut,
            double standOffM,
            double gsdM,
            double speedMps,
            double closestShotsS,
            Optional<InputFault> fault) {}

    /** A photo is not refused for a hair. */
    private static final double HAIR_M = 0.01;

    /**
     * @param before what is flown first; empty where these passes are all
     * @param passesBefore how many passes that has
     * @param launch where it takes off and lands
     * @param takeOffUpM height of the ground there
     * @param ways that lead from one place in the air to another
     */
    public static StructureFlight of(
            Structures structures,
            Scene scene,
            Optional<Flight> before,
            int passesBefore,
            Pace pace,
            Optional<PlanePoint> launch,
            double takeOffUpM,
            AirWays ways) {
        AimedFlight builder = new AimedFlight(
                pace, launch, takeOffUpM, before, ways, scene.pace().intervalS());
        List<OfPass> passes = new ArrayList<>();
        int photos = 0;
        for (StructurePass wanted : structures.passes()) {
            Patience.check();
            int number = passesBefore + passes.size() + 1;
            try {
                OfPass flown = fly(wanted, scene, number, builder);
                photos += flown.photos();
                StripGrid.refuse(photos);
                passes.add(flown);
            } catch (InputFault cannot) {
                passes.add(new OfPass(
                        number,
                        wanted,
                        0,
                        Map.of(),
                        Double.NaN,
                        Double.NaN,
                        Double.NaN,
                        Double.NaN,
                        Optional.of(cannot)));
            }
        }
        return new StructureFlight(builder.landed(), passes, builder.reached());
    }

    private static OfPass fly(StructurePass wanted, Scene scene, int number, AimedFlight builder) {
        List<Run> runs = wanted.runs(scene);
        Room room = new Room(scene, wanted);
        double quickest = 0;
        double closest = Double.POSITIVE_INFINITY;
        int photos = 0;
        StripGrid.refuse(runs.stream().mapToInt(run -> run.shots().size()).sum());
        double roll = scene.camera().imageYawRad(0);
        for (Run asked : runs) {
            Run run = paced(asked, wanted, scene);
            boolean joined = false;
            List<Shot> piece = new ArrayList<>();
            for (Shot shot : run.shots()) {
                if (!room.has(shot)) {
                    builder.run(piece, run.speedMps(), number, Lens.of(scene.camera()), roll);
                    piece = new ArrayList<>();
                    joined = false;
                    continue;
                }
                piece.add(joined ? shot : shot.straight());
                joined = true;
                photos++;
            }
            builder.run(piece, run.speedMps(), number, Lens.of(scene.camera()), roll);
            quickest = Math.max(quickest, run.speedMps());
            closest = Math.min(closest, closestS(run));
        }
        return new OfPass(
                number,
                wanted,
                photos,
                room.leftOut,
                wanted.standOffM(scene),
                wanted.gsdM(scene),
                quickest,
                closest,
                Optional.empty());
    }

    /** Where nobody asked for a speed, no two photos of a run follow each other more quickly than the camera can. */
    private static Run paced(Run run, StructurePass wanted, Scene scene) {
        double interval = scene.pace().intervalS();
        double closest = closestS(run);
        return wanted.habit().speed().isPresent() || closest >= interval
                ? run
                : new Run(run.shots(), run.speedMps() * closest / interval);
    }

    private static double closestS(Run run) {
        double least = Double.POSITIVE_INFINITY;
        for (int i = 1; i < run.shots().size(); i++) {
            Shot a = run.shots().get(i - 1);
            Shot b = run.shots().get(i);
            double apart = Math.hypot(a.at().distanceM(b.at()), a.upM() - b.upM());
            least = Math.min(least, apart / run.speedMps());
        }
        return least;
    }

    /** Whether a shot has room, and if not, why. */
    private static final class Room {
        private final Scene scene;
        private final double floor;
        private final double ceiling;
        private final Map<LeftOut, Integer> leftOut = new EnumMap<>(LeftOut.class);

        Room(Scene scene, StructurePass wanted) {
            this.scene = scene;
            double foot = scene.footM(wanted.object()).orElse(0);
            floor = wanted.habit().floor().map(m -> foot + m.si()).orElse(Double.NEGATIVE_INFINITY);
            ceiling = wanted.habit().ceiling().map(m -> foot + m.si()).orElse(Double.POSITIVE_INFINITY);
        }

        boolean has(Shot shot) {
            Optional<LeftOut> reason = reason(shot);
            reason.ifPresent(why -> leftOut.merge(why, 1, Integer::sum));
            return reason.isEmpty();
        }

        private Optional<LeftOut> reason(Shot shot) {
            double ground = scene.groundM(shot.at().xM(), shot.at().yM()).orElse(Double.NaN);
            if (!(shot.upM() - ground >= scene.clearM() - HAIR_M)) {
                return Optional.of(LeftOut.GROUND);
            }
            if (shot.upM() < floor - HAIR_M) {
                return Optional.of(LeftOut.FLOOR);
            }
            if (shot.upM() > ceiling + HAIR_M) {
                return Optional.of(LeftOut.CEILING);
            }
            double standing =
                    scene.standing().applyAsDouble(shot.at().xM(), shot.at().yM());
            if (standing > 0 && shot.upM() < ground + standing + scene.clearM() - HAIR_M) {
                return Optional.of(LeftOut.NEAR);
            }
            for (Built one : scene.all()) {
                if (one.solid().distanceM(shot.at(), shot.upM()) < scene.clearM() - HAIR_M) {
                    return Optional.of(LeftOut.NEAR);
                }
            }
            return Optional.empty();
        }
    }

    /** The photos of the passes round objects alone. */
    public List<Exposure> photos() {
        return flight.exposures().stream()
                .filter(photo -> photo.pass() >= firstPass())
                .toList();
    }

    /** The legs of the passes round objects, with the ways to them, between them and home. */
    public List<Leg> legs() {
        List<Leg> all = flight.legs();
        int from = 0;
        for (int i = 0; i < all.size(); i++) {
            if (all.get(i) instanceof Line line && line.pass() < firstPass()) {
                from = i + 1;
            }
        }
        return all.subList(from, all.size());
    }

    private int firstPass() {
        return passes.isEmpty() ? Integer.MAX_VALUE : passes.get(0).number();
    }

    /**
     * These passes once more with only some of their photos, each from where it was taken: every run as far as neighbouring photos are kept, joined anew.
     *
     * @param scene in which they are flown
     * @param before what is flown first; empty for nothing
     */
    public Flight again(Scene scene, Optional<Flight> before, Pace pace, AirWays ways, Predicate<Exposure> kept) {
        AimedFlight builder = new AimedFlight(
                pace,
                flight.launch(),
                flight.takeOffUpM(),
                before,
                ways,
                scene.pace().intervalS());
        List<Shot> piece = new ArrayList<>();
        Optional<Line> last = Optional.empty();
        Optional<PlanePoint> round = Optional.empty();
        for (Leg leg : flight.legs()) {
            round = leg instanceof Arc arc ? Optional.of(arc.centre()) : round;
            if (!(leg instanceof Line line) || line.pass() < firstPass()) {
                continue;
            }
            if (last.filter(one -> one.strip() == line.strip()).isEmpty()) {
                last.ifPresent(one -> again(builder, one, piece));
            }
            for (Exposure photo : flight.exposuresOf(line)) {
                if (kept.test(photo)) {
                    Pose pose = photo.pose();
                    Optional<PlanePoint> way = piece.isEmpty() ? Optional.empty() : round;
                    piece.add(new Shot(photo.point(), pose.upM(), pose.yawRad(), pose.pitchRad(), way));
                } else {
                    again(builder, line, piece);
                }
                round = Optional.empty();
            }
            last = Optional.of(line);
        }
        last.ifPresent(one -> again(builder, one, piece));
        return builder.landed();
    }

    /** Flies a piece of a line's run and begins another. */
    private void again(AimedFlight builder, Line line, List<Shot> piece) {
        Exposure any = flight.exposuresOf(line).get(0);
        builder.run(
                List.copyOf(piece),
                line.speedMps(),
                line.pass(),
                any.lens(),
                any.pose().rollRad());
        piece.clear();
    }
}
