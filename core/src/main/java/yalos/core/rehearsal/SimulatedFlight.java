package yalos.core.rehearsal;

import java.util.ArrayList;
import java.util.Collections;
import java.util.EnumMap;
import java.util.EnumSet;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import java.util.Set;
import java.util.TreeMap;
import java.util.TreeSet;
import yalos.core.camera.Camera;
import yalos.core.camera.Pose;
import yalos.core.fault.InputFault;
import yalos.core.flight.Arc;
import yalos.core.flight.Climb;
import yalos.core.flight.Exposure;
import yalos.core.flight.Flight;
import yalos.core.flight.Leg;
import yalos.core.flight.Line;
import yalos.core.flight.Link;
import yalos.core.flight.Pace;
import yalos.core.flight.Place;
import yalos.core.flight.Way;
import yalos.core.geodesy.PlanePoint;
import yalos.core.kit.Aircraft;
import yalos.core.ledger.CameraCard;
import yalos.core.plan.BlockPlan;
import yalos.core.sortie.Draw;
import yalos.core.sortie.FenceAct;
import yalos.core.sortie.Fences;
import yalos.core.sortie.Homing;
import yalos.core.sortie.LostLink;
import yalos.core.sortie.Sortie;
import yalos.core.sortie.SortieSettings;
import yalos.core.sortie.Sorties;
import yalos.core.sortie.Surroundings;
import yalos.core.terrain.SightLine;
import yalos.core.wind.Wind;

/**
 * A sortie flown by a simulated aircraft, a tenth of a second at a time. All follows from the {@link Script} and from what is pressed when, to the bit; so a run is kept as those two.
 *
 * <pre>{@code
 * SimulatedFlight flight = new SimulatedFlight(sorties, 1, Script.calm(7));
 * flight.press(Command.of(Command.Kind.START), "A. Pilot", "");
 * while (!flight.over()) {
 *     flight.step();
 * }
 * List<Shot> take = flight.shots();
 * }</pre>
 *
 * <p>It follows the sortie's own legs ({@link Course}), is pushed aside by gusts and brought back as a critically damped oscillator of 1.2 rad/s, turns its nose at 90° a second, draws from its battery what
 * {@link Draw} says for the airspeed it really has, knows where it is as well as its receiver does ({@link Receiver}), and hears its pilot through a link that fades with distance and behind ground.
 *
 * <p>KNOWN LIMITS: attitude is not simulated, the camera hangs level; a wing goes round its first corner home in one arc; the wind is the plan's, at all heights.
 */
public final class SimulatedFlight {
    /** Seconds of a step. */
    public static final double STEP_S = 0.1;

    private static final int SAMPLE_TICKS = 10;
    private static final double HELD_RAD_S = 1.2;
    private static final double PUSHED = 0.35;
    private static final double YAW_RAD_S = Math.toRadians(90);
    private static final double GRAVITY = 9.80665;
    private static final double FALL_MOST_MPS = 22;
    private static final double FLOOR_M = 5;
    private static final double SINK_TO_M = 10;
    private static final double NUDGE_BELOW_M = 25;
    private static final double CAMERA_S = 6;
    private static final double BASE_S = 60;
    private static final double CALL_S = 15;
    private static final double LINK_LOST_S = 3;
    /** Range of the link in the open, and what ground between takes of it, in decibels (common practice). */
    private static final double LINK_RANGE_M = 6000;

    private static final double LINK_HIDDEN_DB = 14;
    private static final double LINK_WHOLE_DB = 30;
    private static final double ANTENNA_M = 1.3;
    private static final double CLOUD_STOPS = -2.1;
    private static final double DARK_STOPS = -1.3;
    private static final double BLUR_PX = 1.2;
    private static final double WRONG_ZERO_M = -14;
    private static final double LOW_SHARE = 0.88;
    private static final double WEAK = 2.4;
    private static final double SKIPS = 0.4;
    private static final double PERSON_M = 4;
    private static final double MOST_S = 6 * 3600;

    /** What it is doing. */
    public enum Phase {
        READY("on the ground, ready"),
        FLYING("flying the sortie"),
        HOLDING("hanging"),
        RETURNING("coming home"),
        LANDING("coming down"),
        FALLING("falling"),
        LANDED("landed"),
        LOST("lost");

        private final String words;

        Phase(String words) {
            this.words = words;
        }

        public String words() {
            return words;
        }

        public boolean inTheAir() {
            return this != READY && this != LANDED && this != LOST;
        }
    }

    /**
     * Something that happened.
     *
     * @param who pressed it; empty for what happens by itself
     */
    public record Event(double seconds, String kind, String words, String who) {}

    /** The log, once a second. */
    public record Sample(
            double seconds,
            Phase phase,
            Place truly,
            Place known,
            double groundMps,
            double yawRad,
            double charge,
            double home,
            int satellites,
            String solution,
            double windMps,
            double windFromRad,
            double link,
            int photos) {}

    /**
     * A fault that came.
     *
     * @param ended seconds; not a number while it lasts
     * @param answered when something was done about it; not a number while nothing was
     * @param by what was done; empty while nothing was
     */
    public record Came(Fault fault, double began, double ended, double answered, Optional<Command.Kind> by) {}

    private final Sorties sorties;
    private final Sortie sortie;
    private final Script script;
    private final BlockPlan plan;
    private final Pace pace;
    private final Aircraft aircraft;
    private final Draw draw;
    private final Homing homing;
    private final Surroundings around;
    private final SortieSettings settings;
    private final Fences fences;
    private final SightLine sight;
    private final Random random;
    private final Air air;
    private final Receiver receiver;
    private final Camera camera;
    private final double shutterS;
    private final PlanePoint pilot;
    private final boolean fenceStops;

    private final List<Event> events = new ArrayList<>();
    private final List<Sample> samples = new ArrayList<>();
    private final List<Shot> shots = new ArrayList<>();
    private final Map<Fault, Came> came = new EnumMap<>(Fault.class);
    private final Set<Integer> passed = new HashSet<>();

    private long tick;
    private Phase phase = Phase.READY;
    private Course course;
    /** The flight whose lines are flown now, and the plan's station before its first. */
    private Flight flown;

    private int ahead;
    private Place path;
    private double offX;
    private double offY;
    private double speedX;
    private double speedY;
    private double fallMps;
    private double yaw;
    private double charge;
    private double airspeed;
    private double groundMps;
    private double climbed;
    private boolean held;
    private boolean afterHold;
    private double link = 1;
    private double deaf;
    private boolean lost;
    private boolean fenced;
    private boolean capped;
    private boolean reserveTold;
    private double lastShotS = Double.NEGATIVE_INFINITY;
    private double lastShotTold = Double.NEGATIVE_INFINITY;
    private int cardPhotos;
    private double cameraFromS;
    private double baseFromS = Double.POSITIVE_INFINITY;
    private double callFromS = Double.POSITIVE_INFINITY;
    private boolean restarted;
    private double nudgedX;
    private double nudgedY;
    private double nudgesX;
    private double nudgesY;
    private double impactMps;

    /**
     * @param number of the sortie, from 1
     * @throws InputFault when there is no such sortie
     */
    public SimulatedFlight(Sorties sorties, int number, Script script) {
        if (number < 1 || number > sorties.all().size()) {
            throw new InputFault(
                    "sortie",
                    number,
                    "There are %d sorties.".formatted(sorties.all().size()));
        }
        this.sorties = sorties;
        this.sortie = sorties.all().get(number - 1);
        this.script = script;
        this.plan = sorties.given().plan();
        this.homing = sortie.homing();
        this.pace = homing.pace();
        this.aircraft = pace.aircraft();
        this.draw = sorties.given().draw();
        this.around = sorties.given().around();
        this.settings = sorties.given().settings();
        this.fences = Fences.of(sorties, sortie.launch());
        this.sight = SightLine.forManyRays(around.surface());
        this.random = new Random(script.seed());
        Wind wind = pace.wind().orElse(new Wind(0, 0));
        this.air = new Air(
                -wind.speedMps() * Math.sin(wind.fromRad()), -wind.speedMps() * Math.cos(wind.fromRad()), STEP_S);
        this.receiver = new Receiver(plan.request().aircraft().positioning(), STEP_S);
        this.camera = plan.request().camera();
        this.shutterS = Math.min(1 / 800.0, CameraCard.longestShutterS(plan));
        this.pilot =
                settings.pilot().map(at -> plan.block().plane().toPlane(at)).orElse(homing.launch());
        // What nobody has tried is known only on the day.
        this.fenceStops =
                settings.fence() == FenceAct.STOPS || settings.fence() == FenceAct.UNKNOWN && (script.seed() & 1) == 0;
        this.charge = script.charge();
        this.flown = sortie.flight();
        this.ahead = sortie.start();
        this.path = Place.over(homing.launch(), homing.takeOffUpM());
        this.course = new Course(flown.legs(), pace, 0, 0);
        this.yaw = firstTrack();
        script.faults().stream().filter(planned -> planned.share() <= 0).forEach(planned -> begin(planned.fault()));
    }

    private double firstTrack() {
        return flown.ways().stream().findFirst().map(way -> way.trackRadAt(0)).orElse(0.0);
    }

    /** Seconds since the rehearsal began. */
    public double seconds() {
        return tick * STEP_S;
    }

    /** Steps made. */
    public long ticks() {
        return tick;
    }

    public Phase phase() {
        return phase;
    }

    /** Whether nothing moves any more until something is pressed. */
    public boolean over() {
        return phase == Phase.LANDED || phase == Phase.LOST || seconds() >= MOST_S;
    }

    /** The sortie that is flown. */
    public Sortie sortie() {
        return sortie;
    }

    public Sorties sorties() {
        return sorties;
    }

    public Script script() {
        return script;
    }

    /** Where it truly is. */
    public Place truly() {
        return new Place(
                path.xM() + offX + nudgedX - receiver.errorX(),
                path.yM() + offY + nudgedY - receiver.errorY(),
                path.upM() + zeroM() - (grounded() ? 0 : receiver.errorUp()));
    }

    /** Where it believes to be. */
    public Place known() {
        return new Place(path.xM() + offX + nudgedX, path.yM() + offY + nudgedY, path.upM());
    }

    private boolean grounded() {
        return !phase.inTheAir();
    }

    /** By how much heights are wrong. */
    private double zeroM() {
        return lasts(Fault.HEIGHT) && phase.inTheAir() ? WRONG_ZERO_M : 0;
    }

    /** Above the ground below, truly, as something that looks down sees it; not a number where the ground is not known. */
    public double aboveGroundM() {
        Place here = truly();
        return here.upM() - around.groundM(here.point());
    }

    public double groundMps() {
        return groundMps;
    }

    public double yawRad() {
        return yaw;
    }

    /** Of the battery, 0..1 of what it holds. */
    public double charge() {
        return charge;
    }

    /** Share of the battery that coming home takes from here, its reserve included. */
    public double home() {
        double reserve = aircraft.battery().reserve();
        if (!phase.inTheAir()) {
            return reserve;
        }
        double taken = homing.homeTakes(draw, path) * weakness() / script.holds();
        return Double.isFinite(taken) ? reserve + taken : 1;
    }

    /** Level distance from the pilot, in metres. */
    public double distanceM() {
        return truly().point().distanceM(pilot);
    }

    /** How well the link is heard, 0..1. */
    public double link() {
        return link;
    }

    public int satellites() {
        return receiver.satellites();
    }

    public String solution() {
        return receiver.solution().name().toLowerCase(java.util.Locale.ROOT);
    }

    public double windMps() {
        return air.speed();
    }

    /** Where the wind comes from, clockwise from grid north. */
    public double windFromRad() {
        double from = Math.atan2(-air.x(), -air.y());
        return from < 0 ? from + 2 * Math.PI : from;
    }

    /** Whether the pilot sees it, from eye height. */
    public boolean inSight() {
        Place here = truly();
        double eye = around.takeOffM(pilot) + settings.eyeM();
        return Double.isNaN(eye) || sight.clear(here.xM(), here.yM(), here.upM(), pilot.xM(), pilot.yM(), eye);
    }

    /** Photos counted by the aircraft. */
    public int photos() {
        return (int) shots.stream().filter(Shot::written).count();
    }

    /** Stations of the sortie that a good photo was taken at. */
    public Set<Integer> taken() {
        Set<Integer> stations = new TreeSet<>();
        shots.stream().filter(Shot::good).forEach(shot -> stations.add(shot.station()));
        return stations;
    }

    /** Number of the strip it is on; 0 between strips. */
    public int strip() {
        return !course.done() && phase == Phase.FLYING && course.leg() instanceof Line line
                ? plan.flight().exposures().get(ahead + line.firstExposure()).line()
                : 0;
    }

    /** Strips of the sortie on which every station has a good photo. */
    public int stripsDone() {
        Set<Integer> good = taken();
        return (int) strips().values().stream().filter(good::containsAll).count();
    }

    /** The sortie's strips by number, with their stations. */
    public Map<Integer, List<Integer>> strips() {
        Map<Integer, List<Integer>> strips = new TreeMap<>();
        for (int i = sortie.start(); i <= sortie.to(); i++) {
            strips.computeIfAbsent(plan.flight().exposures().get(i).line(), line -> new ArrayList<>())
                    .add(i + 1);
        }
        return strips;
    }

    /** Seconds until it has landed, going on as it does now; not a number where it does not go on. */
    public double leftS() {
        if (!phase.inTheAir() || phase == Phase.HOLDING || phase == Phase.FALLING) {
            return Double.NaN;
        }
        return course.leftS();
    }

    /** Seconds it may hang here before it must come home; none where it hangs no more. */
    public double hangS() {
        double aSecond = Math.max(draw.vertical(0), draw.level(air.speed())) * weakness() / script.holds();
        return phase.inTheAir() ? Math.max(0, (charge - home()) / aSecond) : 0;
    }

    public List<Event> events() {
        return Collections.unmodifiableList(events);
    }

    public List<Sample> samples() {
        return Collections.unmodifiableList(samples);
    }

    public List<Shot> shots() {
        return Collections.unmodifiableList(shots);
    }

    public List<Came> came() {
        return List.copyOf(came.values());
    }

    /** Signs that an operator sees now. */
    public List<String> signs() {
        List<String> signs = new ArrayList<>();
        for (Came one : came.values()) {
            if (Double.isNaN(one.ended())) {
                signs.add(one.fault().sign());
            }
        }
        return signs;
    }

    /** What can be pressed now. */
    public Set<Command.Kind> able() {
        Set<Command.Kind> able = EnumSet.noneOf(Command.Kind.class);
        switch (phase) {
            case READY -> able.addAll(EnumSet.of(Command.Kind.START, Command.Kind.TEST));
            case FLYING ->
                able.addAll(EnumSet.of(Command.Kind.PAUSE, Command.Kind.RETURN, Command.Kind.LAND, Command.Kind.SINK));
            case HOLDING ->
                able.addAll(EnumSet.of(
                        Command.Kind.RESUME,
                        Command.Kind.RESUME_AT,
                        Command.Kind.RETURN,
                        Command.Kind.LAND,
                        Command.Kind.SINK,
                        Command.Kind.TEST));
            case RETURNING, LANDING ->
                able.addAll(EnumSet.of(Command.Kind.PAUSE, Command.Kind.LAND, Command.Kind.NUDGE));
            case LANDED -> able.add(Command.Kind.RESUME_AT);
            default -> {}
        }
        if (phase.inTheAir() && phase != Phase.FALLING) {
            able.add(Command.Kind.MOTORS_OFF);
        }
        if (aircraft.kind().wing() && !hangs()) {
            able.remove(Command.Kind.SINK);
            able.remove(Command.Kind.NUDGE);
        }
        if (phase != Phase.LOST) {
            able.addAll(EnumSet.of(Command.Kind.CAMERA, Command.Kind.BASE, Command.Kind.CALL));
        }
        return able;
    }

    private boolean hangs() {
        return aircraft.kind() != yalos.core.kit.AircraftKind.FIXED_WING;
    }

    /**
     * Presses something. Nothing reaches an aircraft whose link is lost.
     *
     * @throws InputFault for what cannot be pressed now, with the reason
     */
    public void press(Command command, String who, String note) {
        if (!able().contains(command.kind())) {
            throw new InputFault(
                    "command",
                    command.text(),
                    "“%s” cannot be pressed while it is %s."
                            .formatted(command.kind().words(), phase.words()));
        }
        boolean ground = EnumSet.of(Command.Kind.BASE, Command.Kind.CALL, Command.Kind.START)
                .contains(command.kind());
        if (!ground && lost && phase.inTheAir()) {
            tell("unheard", command.words() + ": the aircraft does not hear it", who);
            return;
        }
        if (command.kind() == Command.Kind.RESUME_AT) {
            station(command);
        }
        tell("pressed", command.words() + (note.isBlank() ? "" : ": " + note.strip()), who);
        answered(command.kind());
        obey(command);
    }

    private int station(Command command) {
        int index = (int) Math.round(command.first()) - 1;
        if (index < sortie.start() || index > sortie.to()) {
            throw new InputFault(
                    "station",
                    command.first(),
                    "Sortie %d has the stations %d to %d."
                            .formatted(sortie.number(), sortie.start() + 1, sortie.to() + 1));
        }
        return index;
    }

    private void obey(Command command) {
        switch (command.kind()) {
            case START -> {
                phase = Phase.FLYING;
                held = false;
            }
            case PAUSE -> pause();
            case RESUME -> {
                held = false;
                phase = afterHold ? Phase.RETURNING : Phase.FLYING;
                passedCircle();
            }
            case RESUME_AT -> resumeAt(station(command));
            case RETURN -> comeHome("return pressed");
            case LAND -> land();
            case SINK -> sink();
            case NUDGE -> {
                nudgesX += command.first();
                nudgesY += command.second();
            }
            case MOTORS_OFF -> {
                phase = Phase.FALLING;
                fallMps = 0;
            }
            case TEST -> test();
            case CAMERA -> cameraFromS = seconds() + CAMERA_S;
            case BASE -> baseFromS = Math.min(baseFromS, seconds() + BASE_S);
            case CALL -> callFromS = Math.min(callFromS, seconds() + CALL_S);
            default -> throw new IllegalStateException(command.kind().name());
        }
    }

    private void pause() {
        afterHold = phase == Phase.RETURNING || phase == Phase.LANDING;
        phase = Phase.HOLDING;
        held = true;
    }

    /** A wing has circled while it waited: its course stands where it left it. */
    private void passedCircle() {
        course = course.done() ? new Course(flown.legs(), pace, 0, yaw) : course;
    }

    private void comeHome(String why) {
        List<Leg> legs = new ArrayList<>();
        Place from = path;
        if (aircraft.kind().wing() && groundMps > 0) {
            double bearing = from.point().bearingRad(homing.launch());
            double sweep = Math.IEEEremainder(bearing - course.trackRad(), 2 * Math.PI);
            double radius = aircraft.turnRadiusM(aircraft.returnMps());
            if (Math.abs(sweep) > 0.05 && from.point().distanceM(homing.launch()) > 2 * radius) {
                Arc arc = Arc.turning(from.point(), course.trackRad(), sweep, radius, aircraft.returnMps());
                Way level = arc.withHeights(Way.level(from.upM()));
                legs.add(level);
                from = level.end();
            }
        } else {
            from = braked(legs);
        }
        legs.addAll(homing.home(from));
        course = new Course(legs, pace, course.speedMps(), course.trackRad());
        phase = Phase.RETURNING;
        held = false;
        tell("return", why, "");
    }

    /** Adds the way on which it brakes to a stand, along the way it is on; answers with where it then hangs. */
    private Place braked(List<Leg> legs) {
        if (course.speedMps() <= 0 || course.done() || !(course.leg() instanceof Way way)) {
            return path;
        }
        double stop = course.speedMps() * course.speedMps() / (2 * aircraft.accelerationMps2());
        PlanePoint at = path.point().moved(course.trackRad(), stop);
        legs.add(new Link(Link.Kind.TURN, path.point(), at, Way.level(path.upM()), way.speedMps()));
        return Place.over(at, path.upM());
    }

    /** Down to so much above the ground below where it comes to a stand. */
    private void comeDown(double aboveM) {
        List<Leg> legs = new ArrayList<>();
        Place from = braked(legs);
        double ground = around.groundM(from.point());
        double down = (Double.isNaN(ground) ? homing.takeOffUpM() : ground) + aboveM;
        legs.add(new Climb(from.point(), from.upM(), Math.min(from.upM(), down)));
        course = new Course(legs, pace, course.speedMps(), course.trackRad());
        held = false;
    }

    private void land() {
        comeDown(0);
        phase = Phase.LANDING;
    }

    private void sink() {
        comeDown(SINK_TO_M);
        phase = Phase.HOLDING;
        afterHold = false;
    }

    private void resumeAt(int station) {
        int first = station - sortie.start();
        Flight whole = sortie.flight();
        Exposure to = whole.exposures().get(first);
        Place there = Place.over(to.point(), to.upM());
        List<Leg> before = new ArrayList<>();
        if (phase == Phase.LANDED) {
            charge = script.charge();
            reserveTold = false;
            path = Place.over(homing.launch(), homing.takeOffUpM());
            nudgedX = 0;
            nudgedY = 0;
            before.addAll(homing.out(there));
            tell("battery", "a fresh battery, " + Math.round(100 * charge) + " %", "");
        } else {
            double up = Math.max(path.upM(), Math.max(there.upM(), homing.returnUpM()));
            before.add(new Climb(path.point(), path.upM(), up));
            if (path.point().distanceM(there.point()) > 0) {
                before.add(new Link(Link.Kind.OUT, path.point(), there.point(), Way.level(up), aircraft.transitMps()));
            }
            before.add(new Climb(there.point(), up, there.upM()));
        }
        int last = whole.exposures().size() - 1;
        Exposure end = whole.exposures().get(last);
        flown = whole.part(
                first,
                last,
                before,
                homing.home(Place.over(end.point(), end.upM())),
                Optional.of(homing.launch()),
                homing.takeOffUpM());
        ahead = station;
        // What is flown again is photographed again.
        passed.removeIf(photo -> photo >= station);
        course = new Course(flown.legs(), pace, 0, yaw);
        phase = Phase.FLYING;
        held = false;
    }

    private void test() {
        Place here = known();
        photo(0, new Pose(here.xM(), here.yM(), here.upM(), yaw, -Math.PI / 2, 0), true, 0);
    }

    /** A step of {@value #STEP_S} s. */
    public void step() {
        tick++;
        faults();
        double gust = script.gustMps() * (lasts(Fault.GUSTS) ? 5 : 1);
        air.step(random, gust);
        receiver.step(random, lasts(Fault.SATELLITES), !lasts(Fault.BASE));
        double chance = random.nextDouble();
        if (phase == Phase.FALLING) {
            fall();
        } else if (phase.inTheAir()) {
            fly(chance);
        }
        if (tick % SAMPLE_TICKS == 0) {
            hear();
            sample();
        }
        mended();
    }

    private void fly(double chance) {
        Place before = path;
        boolean waits = held && phase == Phase.HOLDING && aircraft.kind().wing();
        if (!waits) {
            course.step(
                    STEP_S, (track, wanted) -> pace.groundMps(track, wanted), held, (leg, from, to, since, took) -> {
                        if (leg instanceof Line line && phase != Phase.RETURNING) {
                            photographed(line, from, to, since, took, chance);
                        }
                    });
            path = course.place();
        }
        double moved = before.point().distanceM(path.point());
        groundMps = waits ? aircraft.transitMps() : moved / STEP_S;
        climbed = path.upM() - before.upM();
        push();
        turn();
        drain(waits);
        limits();
        if (course.done() && !held) {
            ended();
        }
    }

    /** Gusts push it, its control brings it back; without satellites nothing does, and it drifts with the wind. */
    private void push() {
        boolean blind = receiver.solution() == Receiver.Solution.NONE;
        double ax = PUSHED * air.gustX();
        double ay = PUSHED * air.gustY();
        if (blind) {
            // Drag takes it along with the air.
            ax += PUSHED * (air.x() - air.gustX() - speedX);
            ay += PUSHED * (air.y() - air.gustY() - speedY);
        } else {
            ax -= HELD_RAD_S * HELD_RAD_S * offX + 2 * HELD_RAD_S * speedX;
            ay -= HELD_RAD_S * HELD_RAD_S * offY + 2 * HELD_RAD_S * speedY;
        }
        speedX += ax * STEP_S;
        speedY += ay * STEP_S;
        offX += speedX * STEP_S;
        offY += speedY * STEP_S;
        double x = clamp(nudgesX, -STEP_S, STEP_S);
        double y = clamp(nudgesY, -STEP_S, STEP_S);
        nudgesX -= x;
        nudgesY -= y;
        if (phase == Phase.LANDING
                || phase == Phase.RETURNING && aboveGroundM() < NUDGE_BELOW_M
                || phase == Phase.HOLDING) {
            nudgedX += x;
            nudgedY += y;
        }
    }

    private void turn() {
        double wanted = course.done() || !(course.leg() instanceof Way)
                ? yaw
                : course.trackRad() + pace.crabRad(course.trackRad(), Math.max(1, aircraft.transitMps()));
        double off = Math.IEEEremainder(wanted - yaw, 2 * Math.PI);
        double most = aircraft.kind().wing() ? Math.PI : YAW_RAD_S * STEP_S;
        yaw += clamp(off, -most, most);
    }

    private double weakness() {
        return lasts(Fault.WEAK_BATTERY) ? WEAK : 1;
    }

    private void drain(boolean circling) {
        double vx = groundMps * Math.sin(course.trackRad()) + speedX;
        double vy = groundMps * Math.cos(course.trackRad()) + speedY;
        airspeed = circling ? aircraft.transitMps() : Math.hypot(vx - air.x(), vy - air.y());
        double taken;
        boolean vertical = !course.done() && course.leg() instanceof Climb && !held;
        if (vertical) {
            taken = draw.vertical(climbed / STEP_S) * STEP_S;
        } else if (groundMps == 0 && !circling) {
            taken = Math.max(draw.vertical(0), draw.level(airspeed)) * STEP_S;
        } else {
            taken = draw.level(airspeed) * STEP_S + Math.max(0, climbed) * draw.perMetreUp();
        }
        charge = Math.max(0, charge - taken * weakness() / script.holds());
        if (!reserveTold && charge < home() && phase == Phase.FLYING) {
            reserveTold = true;
            tell("battery", "what is left is needed to come home", "");
            comeHome("the battery asks for it");
        }
        if (charge <= 0 && phase.inTheAir() && phase != Phase.FALLING) {
            tell("battery", "empty: it falls", "");
            phase = Phase.FALLING;
        }
    }

    /** Fence, floor and ceiling. */
    private void limits() {
        Place here = truly();
        double out = known().point().distanceM(homing.launch());
        if (!fenced && out > fences.fenceM() && phase == Phase.FLYING) {
            fenced = true;
            tell("fence", "%.0f m out: at the fence it %s".formatted(out, fenceStops ? "stops" : "turns home"), "");
            if (fenceStops) {
                pause();
            } else {
                comeHome("at the distance fence");
            }
        }
        double above = known().upM() - homing.takeOffUpM();
        if (!capped && above > fences.ceilingM() + 0.5) {
            capped = true;
            tell("ceiling", "%.0f m above take-off: its height limit holds it".formatted(above), "");
            pause();
        }
        double ground = around.groundM(here.point());
        double low = here.upM() - ground;
        if (phase == Phase.FLYING
                && course.leg() instanceof Way
                && low < FLOOR_M
                && here.point().distanceM(homing.launch()) > 10) {
            tell("floor", "%.1f m above the ground: it stops".formatted(low), "");
            pause();
        }
        double top = around.site().hasObstacles() ? around.site().obstacleM(here.xM(), here.yM(), 1) : 0;
        boolean struck = top > 0 && here.upM() < ground + top || !Double.isNaN(ground) && low < -0.5;
        if (struck && !(course.leg() instanceof Climb)) {
            tell("struck", top > 0 && low > 0 ? "it strikes what stands there" : "it strikes the ground", "");
            impactMps = Math.hypot(groundMps, climbed / STEP_S);
            crash();
        }
    }

    private void crash() {
        phase = Phase.LOST;
        groundMps = 0;
        tell("lost", String.format(java.util.Locale.ROOT, "it lies on the ground, struck at %.0f m/s", impactMps), "");
    }

    private void fall() {
        fallMps = Math.min(
                FALL_MOST_MPS, fallMps + GRAVITY * STEP_S * (1 - fallMps * fallMps / (FALL_MOST_MPS * FALL_MOST_MPS)));
        groundMps *= Math.exp(-STEP_S / 3);
        double x = path.xM() + groundMps * Math.sin(course.trackRad()) * STEP_S;
        double y = path.yM() + groundMps * Math.cos(course.trackRad()) * STEP_S;
        path = new Place(x, y, path.upM() - fallMps * STEP_S);
        double ground = around.groundM(path.point());
        if (truly().upM() <= (Double.isNaN(ground) ? homing.takeOffUpM() : ground)) {
            path = new Place(x, y, (Double.isNaN(ground) ? homing.takeOffUpM() : ground));
            impactMps = Math.hypot(fallMps, groundMps);
            crash();
        }
    }

    private void ended() {
        if (phase == Phase.HOLDING) {
            held = true;
            return;
        }
        Place here = truly();
        boolean home = here.point().distanceM(homing.launch()) < 30;
        if (lasts(Fault.PERSON) && home && Math.hypot(nudgedX, nudgedY) < PERSON_M) {
            tell("near", "it lands beside somebody", "");
        }
        phase = Phase.LANDED;
        groundMps = 0;
        offX = 0;
        offY = 0;
        speedX = 0;
        speedY = 0;
        int missing = sortie.photos() - taken().size();
        tell(
                "landed",
                "%s, %d %% left%s"
                        .formatted(
                                home
                                        ? "at home"
                                        : "%.0f m from home"
                                                .formatted(here.point().distanceM(homing.launch())),
                                Math.round(100 * charge),
                                missing == 0 ? "" : ", %d stations without a good photo".formatted(missing)),
                "");
    }

    /** Stations between two places of a line. */
    private void photographed(Line line, double from, double to, double since, double took, double chance) {
        for (int i = line.firstExposure(); i < line.firstExposure() + line.exposures(); i++) {
            Exposure one = flown.exposures().get(i);
            double at = line.from().distanceM(one.point());
            int station = ahead + i;
            if (at >= from - 1e-6 && at <= to + 1e-9 && passed.add(station)) {
                double share = to > from ? (at - from) / (to - from) : 1;
                Pose pose = one.pose();
                double turned = Math.IEEEremainder(yaw - course.trackRad(), 2 * Math.PI);
                Pose flownPose = new Pose(
                        pose.eastM() + offX,
                        pose.northM() + offY,
                        line.upAt(at),
                        pose.yawRad() + (aircraft.kind().wing() ? 0 : turned),
                        pose.pitchRad(),
                        pose.rollRad());
                photo(station + 1, flownPose, false, since + took * share, chance);
            }
        }
    }

    private void photo(int station, Pose pose, boolean test, double late) {
        photo(station, pose, test, late, 1);
    }

    /**
     * @param pose as it is known
     * @param late seconds after the step began
     */
    private void photo(int station, Pose pose, boolean test, double late, double chance) {
        double now = (tick - 1) * STEP_S + late;
        Set<Shot.Flaw> flaws = EnumSet.noneOf(Shot.Flaw.class);
        boolean off = now < cameraFromS;
        boolean skipped = lasts(Fault.SKIPPED_PHOTOS) && chance < SKIPS;
        boolean tooSoon = now - lastShotS < camera.minIntervalS() - 1e-6;
        boolean full = cardPhotos
                >= Math.min(
                        camera.storage().photosPerFlight(),
                        camera.storage().cardBytes() / camera.storage().bytesPerPhoto());
        if (off || skipped || tooSoon || full || lasts(Fault.STUCK_SHUTTER)) {
            flaws.add(Shot.Flaw.MISSING);
            if (full && now - lastShotTold > 60) {
                lastShotTold = now;
                tell("card", "the card is full", "");
            }
        } else {
            lastShotS = now;
            cardPhotos++;
        }
        if (test) {
            flaws.add(Shot.Flaw.TEST);
        }
        double gsd = plan.design().scale().gsdM();
        double blur = Math.hypot(
                        groundMps * Math.sin(course.trackRad()) + speedX,
                        groundMps * Math.cos(course.trackRad()) + speedY)
                * shutterS
                / gsd;
        // A hard gust turns the camera faster than it flies.
        double shaken = blur + Math.hypot(air.gustX(), air.gustY()) > 4.5 ? blur + 2.5 : blur;
        if (shaken > BLUR_PX) {
            flaws.add(Shot.Flaw.BLURRED);
        }
        double stops = lasts(Fault.CLOUD) ? CLOUD_STOPS : 0;
        if (stops < DARK_STOPS) {
            flaws.add(Shot.Flaw.DARK);
        }
        boolean fixed = receiver.solution() == Receiver.Solution.FIXED;
        if (!fixed && plan.request().aircraft().positioning().horizontalM() < 1) {
            flaws.add(Shot.Flaw.UNFIXED);
        }
        Pose truly = new Pose(
                pose.eastM() - receiver.errorX(),
                pose.northM() - receiver.errorY(),
                pose.upM() + zeroM() - receiver.errorUp(),
                pose.yawRad(),
                pose.pitchRad(),
                pose.rollRad());
        double ground = around.groundM(new PlanePoint(truly.eastM(), truly.northM()));
        double planned = pose.upM() - ground;
        if (station > 0 && truly.upM() - ground < LOW_SHARE * planned) {
            flaws.add(Shot.Flaw.LOW);
        }
        shots.add(new Shot(
                shots.size() + 1, station, now, truly, pose, flaws, shaken, stops, receiver.horizontalM(), fixed));
    }

    private void hear() {
        Place here = truly();
        double antenna = around.takeOffM(pilot) + ANTENNA_M;
        double far = Math.max(1, Math.hypot(here.point().distanceM(pilot), here.upM() - antenna));
        boolean hidden = !Double.isNaN(antenna)
                && phase.inTheAir()
                && !sight.clear(here.xM(), here.yM(), here.upM(), pilot.xM(), pilot.yM(), antenna);
        double db = 20 * Math.log10(LINK_RANGE_M / far) - (hidden ? LINK_HIDDEN_DB : 0);
        link = lasts(Fault.LOST_LINK) ? 0 : clamp(db / LINK_WHOLE_DB, 0, 1);
        deaf = link > 0 ? 0 : deaf + SAMPLE_TICKS * STEP_S;
        if (!lost && deaf >= LINK_LOST_S && phase.inTheAir()) {
            lost = true;
            // What lands, or comes home, goes on doing so.
            boolean homeward = phase == Phase.LANDING || phase == Phase.RETURNING;
            LostLink does = homeward ? LostLink.GO_ON : settings.lostLink();
            tell("link", "lost: it " + (homeward ? "goes on coming down" : does.words()), "");
            switch (does) {
                case RETURN -> comeHome("link lost");
                case HOVER -> pause();
                case LAND -> land();
                case GO_ON -> {}
            }
        } else if (lost && link > 0) {
            lost = false;
            tell("link", "it is heard again", "");
        }
        if (phase == Phase.HOLDING && charge < home() + 0.01) {
            comeHome("the battery asks for it");
        }
    }

    private void sample() {
        samples.add(new Sample(
                seconds(),
                phase,
                truly(),
                known(),
                groundMps,
                yaw,
                charge,
                home(),
                receiver.satellites(),
                solution(),
                windMps(),
                windFromRad(),
                link,
                photos()));
    }

    private boolean lasts(Fault fault) {
        Came one = came.get(fault);
        return one != null && Double.isNaN(one.ended());
    }

    private void faults() {
        for (Script.Planned planned : script.faults()) {
            boolean due = planned.fault() == Fault.PERSON
                    ? (phase == Phase.RETURNING || phase == Phase.LANDING || homeward())
                            && path.point().distanceM(homing.launch()) < 40
                    : phase.inTheAir() && seconds() >= planned.share() * sortie.seconds();
            if (due && !came.containsKey(planned.fault())) {
                begin(planned.fault());
            }
        }
    }

    /** Whether it flies its own way home at the end of the sortie. */
    private boolean homeward() {
        return phase == Phase.FLYING && course.index() > 0 && !course.done() && course.leg() instanceof Link link
                ? link.kind() == Link.Kind.HOME
                : phase == Phase.FLYING
                        && course.index() > 3
                        && !course.done()
                        && course.leg() instanceof Climb climb
                        && climb.byM() < 0
                        && climb.at().distanceM(homing.launch()) < 1;
    }

    private void begin(Fault fault) {
        came.put(fault, new Came(fault, seconds(), Double.NaN, Double.NaN, Optional.empty()));
        tell("fault", fault.sign(), "");
    }

    private void answered(Command.Kind pressed) {
        for (Came one : List.copyOf(came.values())) {
            if (one.by().isEmpty() && one.fault().answers().contains(pressed) && Double.isNaN(one.ended())) {
                came.put(one.fault(), new Came(one.fault(), one.began(), one.ended(), seconds(), Optional.of(pressed)));
            }
        }
    }

    /** Faults that are over: by themselves, or because something was done. */
    private void mended() {
        for (Came one : List.copyOf(came.values())) {
            if (!Double.isNaN(one.ended())) {
                continue;
            }
            boolean over = seconds() - one.began() > one.fault().lastsS();
            boolean mended = switch (one.fault()) {
                case STUCK_SHUTTER -> cameraFromS > 0 && seconds() >= cameraFromS && cameraFromS > one.began();
                case BASE -> seconds() >= baseFromS && baseFromS > one.began();
                case PERSON -> seconds() >= callFromS && callFromS > one.began();
                default -> false;
            };
            if (over || mended) {
                came.put(one.fault(), new Came(one.fault(), one.began(), seconds(), one.answered(), one.by()));
                tell("mended", one.fault().words() + ": over", "");
            }
        }
    }

    private static double clamp(double value, double least, double most) {
        return Math.max(least, Math.min(most, value));
    }

    private void tell(String kind, String words, String who) {
        events.add(new Event(seconds(), kind, words, who));
    }

    /** The speed at which it struck; 0 where it did not. */
    public double impactMps() {
        return impactMps;
    }
}
