package yalos.core.rehearsal;

import java.util.ArrayList;
import java.util.Collections;
import java.util.EnumSet;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import java.util.Set;
import yalos.core.camera.Pose;
import yalos.core.fault.InputFault;
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
import yalos.core.plan.BlockPlan;
import yalos.core.sortie.Draw;
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
 * <p>It follows the sortie's own legs ({@link Course}), is pushed aside by gusts and brought back ({@link Motion}), turns its nose at 90° a second, draws from its battery what
 * {@link Draw} says for the airspeed it really has, knows where it is as well as its receiver does ({@link Receiver}), and hears its pilot as {@link Radio} lets it. {@link Releases} says what becomes of its photos, {@link FaultWatch} what goes wrong, {@link Limits} where it stops of itself, {@link Reroute} which ways it flies that were not planned.
 *
 * <p>KNOWN LIMITS: attitude is not simulated, the camera hangs level; a wing goes round its first corner home in one arc; the wind is the plan's, at all heights.
 */
public final class SimulatedFlight {
    /** Seconds of a step. */
    public static final double STEP_S = 0.1;

    private static final int SAMPLE_TICKS = 10;
    private static final double YAW_RAD_S = Math.toRadians(90);
    private static final double GRAVITY = 9.80665;
    private static final double FALL_MOST_MPS = 22;
    private static final double FALL_SLOWS_S = 3;
    private static final double SINK_TO_M = 10;
    private static final double NUDGE_BELOW_M = 25;
    private static final double CAMERA_S = 6;
    private static final double BASE_S = 60;
    private static final double CALL_S = 15;
    private static final double WRONG_ZERO_M = -14;
    private static final double GUSTS = 5;
    private static final double PERSON_M = 4;
    private static final double NEAR_HOME_M = 40;
    private static final double MOST_S = 6 * 3600;
    private static final Set<Command.Kind> ON_THE_GROUND =
            EnumSet.of(Command.Kind.BASE, Command.Kind.CALL, Command.Kind.START);

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
    private final SightLine sight;
    private final Random random;
    private final Air air;
    private final Receiver receiver;
    private final Releases releases;
    private final Radio radio;
    private final Reroute reroute;
    private final Cells cells;
    private final Progress progress;
    private final Motion motion = new Motion();
    private final FaultWatch faults = new FaultWatch();
    private final PlanePoint pilot;
    private final Limits limits;

    private final List<Event> events = new ArrayList<>();
    private final List<Sample> samples = new ArrayList<>();
    private final List<Shot> shots = new ArrayList<>();
    private final Set<Integer> passed = new HashSet<>();

    private long tick;
    private Phase phase = Phase.READY;
    private Course course;
    /** The flight whose lines are flown now, and the plan's stations before its first. */
    private Flight flown;

    private int ahead;
    private Place path;
    private double fallMps;
    private double yaw;
    private double homeTaken;
    private double groundMps;
    private double climbed;
    /** Whether it is told to stand where it is; and whether it was coming home before. */
    private boolean held;

    private boolean wasHomeward;
    private boolean reserveTold;
    private boolean fullTold;
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
        this.sight = SightLine.forManyRays(around.surface());
        this.random = new Random(script.seed());
        Wind wind = pace.wind().orElse(new Wind(0, 0));
        this.air = new Air(
                -wind.speedMps() * Math.sin(wind.fromRad()), -wind.speedMps() * Math.cos(wind.fromRad()), STEP_S);
        this.receiver = new Receiver(plan.request().aircraft().positioning(), STEP_S);
        this.pilot =
                settings.pilot().map(at -> plan.block().plane().toPlane(at)).orElse(homing.launch());
        this.releases = new Releases(plan);
        this.radio = new Radio(around, sight, pilot);
        this.reroute = new Reroute(sortie, around);
        this.cells = new Cells(sorties.given().draw(), script.charge(), script.holds());
        this.progress = new Progress(plan, sortie);
        this.flown = sortie.flight();
        this.limits = new Limits(sorties, sortie, script);
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
                path.xM() + motion.x() - receiver.errorX(),
                path.yM() + motion.y() - receiver.errorY(),
                path.upM() + zeroM() - (phase.inTheAir() ? receiver.errorUp() : 0));
    }

    /** Where it believes to be. */
    public Place known() {
        return new Place(path.xM() + motion.x(), path.yM() + motion.y(), path.upM());
    }

    /** By how much heights are wrong. */
    private double zeroM() {
        return faults.lasts(Fault.HEIGHT) && phase.inTheAir() ? WRONG_ZERO_M : 0;
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
        return cells.charge();
    }

    /** Share of the battery that coming home takes from here, its reserve included. */
    public double home() {
        double reserve = aircraft.battery().reserve();
        if (!phase.inTheAir()) {
            return reserve;
        }
        double taken = cells.share(homeTaken, faults.lasts(Fault.WEAK_BATTERY));
        return Double.isFinite(taken) ? Math.min(2, reserve + taken) : 1;
    }

    /** The way home, round zones, is looked at once a second. */
    private void lookHome() {
        if (phase.inTheAir() && (tick % SAMPLE_TICKS == 1 || homeTaken == 0)) {
            homeTaken = homing.homeTakes(draw, path);
        }
    }

    /** Level distance from the pilot, in metres. */
    public double distanceM() {
        return truly().point().distanceM(pilot);
    }

    /** How well the link is heard, 0..1. */
    public double link() {
        return radio.strength();
    }

    public int satellites() {
        return receiver.satellites();
    }

    public String solution() {
        return receiver.solution().name().toLowerCase(Locale.ROOT);
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
        return releases.written();
    }

    /** Stations of the sortie that a good photo was taken at. */
    public Set<Integer> taken() {
        return progress.taken();
    }

    /** Number of the strip it is on; 0 between strips. */
    public int strip() {
        return !course.done() && phase == Phase.FLYING && course.leg() instanceof Line line
                ? plan.flight().exposures().get(ahead + line.firstExposure()).line()
                : 0;
    }

    /** Strips of the sortie on which every station has a good photo. */
    public int stripsDone() {
        return progress.stripsDone();
    }

    /** The sortie's strips by number, with their stations. */
    public Map<Integer, List<Integer>> strips() {
        return progress.strips();
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
        double second = cells.hangs(air.speed(), faults.lasts(Fault.WEAK_BATTERY));
        return phase.inTheAir() ? Math.max(0, (cells.charge() - home()) / second) : 0;
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

    /** Faults that came so far. */
    public List<Came> came() {
        return faults.all();
    }

    /** Signs that an operator sees now. */
    public List<String> signs() {
        return faults.signs();
    }

    /** What can be pressed now. */
    public Set<Command.Kind> able() {
        return Command.able(phase, aircraft.kind());
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
        if (radio.lost() && phase.inTheAir() && !ON_THE_GROUND.contains(command.kind())) {
            tell("unheard", command.words() + ": the aircraft does not hear it", who);
            return;
        }
        if (command.kind() == Command.Kind.RESUME_AT) {
            station(command);
        }
        tell("pressed", command.words() + (note.isBlank() ? "" : ": " + note.strip()), who);
        faults.answered(command.kind(), seconds());
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
        double now = seconds();
        switch (command.kind()) {
            case START -> phase = Phase.FLYING;
            case PAUSE -> pause();
            case RESUME -> resume();
            case RESUME_AT -> resumeAt(station(command));
            case RETURN -> comeHome("return pressed");
            case LAND -> land();
            case SINK -> sink();
            case NUDGE -> motion.nudge(command.first(), command.second());
            case MOTORS_OFF -> phase = Phase.FALLING;
            case TEST -> test();
            case CAMERA -> faults.mend(Fault.STUCK_SHUTTER, now, now + CAMERA_S);
            case BASE -> faults.mend(Fault.BASE, now, now + BASE_S);
            case CALL -> faults.mend(Fault.PERSON, now, now + CALL_S);
            default -> throw new IllegalStateException(command.kind().name());
        }
    }

    private void pause() {
        wasHomeward = phase == Phase.RETURNING || phase == Phase.LANDING;
        phase = Phase.HOLDING;
        held = true;
    }

    /** Goes on with its course; where that has ended, as after a sink, at the next station. */
    private void resume() {
        held = false;
        if (!course.done()) {
            phase = wasHomeward ? Phase.RETURNING : Phase.FLYING;
            return;
        }
        for (int station = sortie.start(); station <= sortie.to(); station++) {
            if (!passed.contains(station)) {
                resumeAt(station);
                return;
            }
        }
        comeHome("no station is left");
    }

    private void fly(List<Leg> legs, Phase next) {
        course = new Course(legs, pace, course.speedMps(), course.trackRad());
        phase = next;
        held = false;
    }

    private void comeHome(String why) {
        fly(reroute.home(path, course), Phase.RETURNING);
        tell("return", why, "");
    }

    private void land() {
        fly(reroute.down(path, course, 0), Phase.LANDING);
    }

    private void sink() {
        fly(reroute.down(path, course, SINK_TO_M), Phase.HOLDING);
        wasHomeward = false;
    }

    private void resumeAt(int station) {
        boolean anew = phase == Phase.LANDED;
        if (anew) {
            cells.change();
            reserveTold = false;
            path = Place.over(homing.launch(), homing.takeOffUpM());
            motion.anew();
            tell("battery", "a fresh battery, " + Math.round(100 * cells.charge()) + " %", "");
        }
        flown = reroute.from(station, anew ? Optional.empty() : Optional.of(path), course);
        ahead = station;
        // What is flown again is photographed again.
        passed.removeIf(photo -> photo >= station);
        fly(flown.legs(), Phase.FLYING);
    }

    private void test() {
        Place here = known();
        Pose down = new Pose(here.xM(), here.yM(), here.upM(), yaw, -Math.PI / 2, 0);
        release(0, down, seconds(), 1);
    }

    /** A step of {@value #STEP_S} s. */
    public void step() {
        tick++;
        comeFaults();
        air.step(random, script.gustMps() * (faults.lasts(Fault.GUSTS) ? GUSTS : 1));
        receiver.step(random, faults.lasts(Fault.SATELLITES), !faults.lasts(Fault.BASE));
        double chance = random.nextDouble();
        if (phase == Phase.FALLING) {
            fall();
        } else if (phase.inTheAir()) {
            move(chance);
        }
        if (tick % SAMPLE_TICKS == 0) {
            hear();
            sample();
        }
        for (Fault over : faults.ended(seconds())) {
            tell("mended", over.words() + ": over", "");
        }
    }

    private void move(double chance) {
        Place before = path;
        boolean circles = held && phase == Phase.HOLDING && aircraft.kind().wing();
        if (!circles) {
            course.step(STEP_S, pace::groundMps, held, (leg, from, to, since, took) -> {
                if (leg instanceof Line line && phase != Phase.RETURNING) {
                    photographed(line, from, to, since, took, chance);
                }
            });
            path = course.place();
        }
        groundMps = circles ? aircraft.transitMps() : before.point().distanceM(path.point()) / STEP_S;
        climbed = path.upM() - before.upM();
        boolean low = phase == Phase.RETURNING && aboveGroundM() < NUDGE_BELOW_M;
        motion.step(
                air,
                receiver.solution() == Receiver.Solution.NONE,
                low || phase == Phase.LANDING || phase == Phase.HOLDING);
        turn();
        lookHome();
        drain(circles);
        limits();
        if (course.done() && !held) {
            ended();
        }
    }

    private void turn() {
        double wanted = course.done() || !(course.leg() instanceof Way)
                ? yaw
                : course.trackRad() + pace.crabRad(course.trackRad(), Math.max(1, aircraft.transitMps()));
        double off = Math.IEEEremainder(wanted - yaw, 2 * Math.PI);
        double most = aircraft.kind().wing() ? Math.PI : YAW_RAD_S * STEP_S;
        yaw += Math.max(-most, Math.min(most, off));
    }

    private void drain(boolean circling) {
        boolean weak = faults.lasts(Fault.WEAK_BATTERY);
        double vx = groundMps * Math.sin(course.trackRad()) + motion.speedX();
        double vy = groundMps * Math.cos(course.trackRad()) + motion.speedY();
        double airspeed = circling ? aircraft.transitMps() : Math.hypot(vx - air.x(), vy - air.y());
        if (!held && !course.done() && course.leg() instanceof Climb) {
            cells.climb(climbed / STEP_S, weak);
        } else {
            cells.fly(airspeed, groundMps == 0 && !circling, climbed, weak);
        }
        if (!reserveTold && cells.charge() < home() && phase == Phase.FLYING) {
            reserveTold = true;
            tell("battery", "what is left is needed to come home", "");
            comeHome("the battery asks for it");
        }
        if (cells.charge() <= 0 && phase.inTheAir() && phase != Phase.FALLING) {
            tell("battery", "empty: it falls", "");
            phase = Phase.FALLING;
        }
    }

    private void limits() {
        limits.fence(known(), phase).ifPresent(words -> {
            tell("fence", words, "");
            if (limits.stopsAtTheFence()) {
                pause();
            } else {
                comeHome("at the distance fence");
            }
        });
        limits.ceiling(known()).ifPresent(words -> {
            tell("ceiling", words, "");
            pause();
        });
        Place here = truly();
        limits.floor(here, phase, course::leg).ifPresent(words -> {
            tell("floor", words, "");
            pause();
        });
        limits.struck(here, course::leg).ifPresent(words -> {
            tell("struck", words, "");
            impactMps = Math.hypot(groundMps, climbed / STEP_S);
            crash();
        });
    }

    private void crash() {
        phase = Phase.LOST;
        groundMps = 0;
        tell("lost", String.format(Locale.ROOT, "it lies on the ground, struck at %.0f m/s", impactMps), "");
    }

    /** Free fall with drag that grows with the square of the speed. */
    private void fall() {
        double drag = fallMps * fallMps / (FALL_MOST_MPS * FALL_MOST_MPS);
        fallMps = Math.min(FALL_MOST_MPS, fallMps + GRAVITY * STEP_S * (1 - drag));
        groundMps *= Math.exp(-STEP_S / FALL_SLOWS_S);
        PlanePoint at = path.point().moved(course.trackRad(), groundMps * STEP_S);
        path = Place.over(at, path.upM() - fallMps * STEP_S);
        if (truly().upM() <= reroute.groundM(at)) {
            path = Place.over(at, reroute.groundM(at));
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
        if (faults.lasts(Fault.PERSON) && home && motion.nudgedM() < PERSON_M) {
            tell("near", "it lands beside somebody", "");
        }
        phase = Phase.LANDED;
        groundMps = 0;
        motion.stand();
        int missing = sortie.photos() - taken().size();
        tell(
                "landed",
                "%s, %d %% left%s"
                        .formatted(
                                home
                                        ? "at home"
                                        : "%.0f m from home"
                                                .formatted(here.point().distanceM(homing.launch())),
                                Math.round(100 * cells.charge()),
                                missing == 0 ? "" : ", %,d stations without a good photo".formatted(missing)),
                "");
    }

    /** Stations between two places of a line. */
    private void photographed(Line line, double from, double to, double since, double took, double chance) {
        double turned = aircraft.kind().wing() ? 0 : Math.IEEEremainder(yaw - course.trackRad(), 2 * Math.PI);
        for (int i = line.firstExposure(); i < line.firstExposure() + line.exposures(); i++) {
            Exposure one = flown.exposures().get(i);
            double at = line.from().distanceM(one.point());
            int station = ahead + i;
            if (at >= from - 1e-6 && at <= to + 1e-9 && passed.add(station)) {
                double share = to > from ? (at - from) / (to - from) : 1;
                Pose pose = one.pose();
                Pose known = new Pose(
                        pose.eastM() + motion.x(),
                        pose.northM() + motion.y(),
                        line.upAt(at),
                        pose.yawRad() + turned,
                        pose.pitchRad(),
                        pose.rollRad());
                release(station + 1, known, (tick - 1) * STEP_S + since + took * share, chance);
            }
        }
    }

    private void release(int station, Pose known, double now, double chance) {
        Pose truly = new Pose(
                known.eastM() - receiver.errorX(),
                known.northM() - receiver.errorY(),
                known.upM() + zeroM() - receiver.errorUp(),
                known.yawRad(),
                known.pitchRad(),
                known.rollRad());
        double speed = Math.hypot(
                groundMps * Math.sin(course.trackRad()) + motion.speedX(),
                groundMps * Math.cos(course.trackRad()) + motion.speedY());
        double ground = around.groundM(new PlanePoint(truly.eastM(), truly.northM()));
        Shot shot = releases.shot(
                new Releases.Release(station, now, known, truly, speed, ground, chance), faults, receiver, air);
        shots.add(shot);
        progress.count(shot);
        if (releases.full() && !fullTold) {
            fullTold = true;
            tell("card", "the card is full", "");
        }
    }

    private void hear() {
        Radio.Change change =
                radio.hear(truly(), phase.inTheAir(), faults.lasts(Fault.LOST_LINK), SAMPLE_TICKS * STEP_S);
        if (change == Radio.Change.LOST) {
            linkLost();
        } else if (change == Radio.Change.HEARD) {
            tell("link", "it is heard again", "");
        }
        if (phase == Phase.HOLDING && cells.charge() < home() + 0.01) {
            comeHome("the battery asks for it");
        }
    }

    /** What lands, or comes home, goes on doing so. */
    private void linkLost() {
        boolean homeward = phase == Phase.LANDING || phase == Phase.RETURNING;
        LostLink does = homeward ? LostLink.GO_ON : settings.lostLink();
        tell("link", "lost: it " + (homeward ? "goes on coming down" : does.words()), "");
        switch (does) {
            case RETURN -> comeHome("link lost");
            case HOVER -> pause();
            case LAND -> land();
            case GO_ON -> {}
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
                cells.charge(),
                home(),
                receiver.satellites(),
                solution(),
                windMps(),
                windFromRad(),
                radio.strength(),
                photos()));
    }

    /** Somebody stands in the landing zone only when it comes; all else comes in the air, at its time. */
    private void comeFaults() {
        for (Script.Planned planned : script.faults()) {
            boolean due = planned.fault() == Fault.PERSON
                    ? (phase == Phase.RETURNING || phase == Phase.LANDING || homeward())
                            && path.point().distanceM(homing.launch()) < NEAR_HOME_M
                    : phase.inTheAir() && seconds() >= planned.share() * sortie.seconds();
            if (due && !faults.knows(planned.fault())) {
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
        faults.begin(fault, seconds());
        tell("fault", fault.sign(), "");
    }

    private void tell(String kind, String words, String who) {
        events.add(new Event(seconds(), kind, words, who));
    }

    /** The speed at which it struck; 0 where it did not. */
    public double impactMps() {
        return impactMps;
    }
}
