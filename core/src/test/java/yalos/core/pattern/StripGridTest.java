package yalos.core.pattern;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.HashSet;
import java.util.List;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.Random;
import java.util.Set;
import java.util.stream.IntStream;
import java.util.stream.LongStream;
import org.assertj.core.data.Offset;
import org.assertj.core.data.Percentage;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;
import org.junit.jupiter.params.provider.ValueSource;
import yalos.core.Samples;
import yalos.core.block.Outline;
import yalos.core.block.PlaneBlock;
import yalos.core.camera.Camera;
import yalos.core.camera.Mount;
import yalos.core.fault.InputFault;
import yalos.core.flight.Exposure;
import yalos.core.flight.Flight;
import yalos.core.flight.Line;
import yalos.core.flight.Link;
import yalos.core.flight.Pace;
import yalos.core.flight.Timeline;
import yalos.core.flight.Way;
import yalos.core.geodesy.Bounds;
import yalos.core.geodesy.EastNorth;
import yalos.core.geodesy.LonLat;
import yalos.core.geodesy.PlanePoint;
import yalos.core.kit.Aircraft;
import yalos.core.kit.Kit;
import yalos.core.pins.Pins;
import yalos.core.plan.BlockPlan;
import yalos.core.plan.PlanRequest;
import yalos.core.wind.Wind;

class StripGridTest {
    private static final double SPACING = 31.7;
    private static final double BASE = 15.8;
    private static final Task TASK = new Task(SPACING, BASE, 75, 10, Samples.twentyMegapixel());
    private static final Pace STILL = new Pace(Aircraft.smallMultirotor(), Optional.empty());
    private static final Optional<PlanePoint> NOWHERE = Optional.empty();

    static LongStream seeds() {
        return LongStream.range(1, 41);
    }

    private static PlaneBlock block(Outline outline) {
        return PlaneBlock.of(outline, Samples.UTM30);
    }

    private static Flight flown(PlaneBlock block, Task task, Pace pace, Optional<PlanePoint> launch, double direction) {
        return Passes.flown(block, List.of(new Pass(StripGrid.towards(direction), task)), pace, launch)
                .flight();
    }

    private static Flight flown(PlaneBlock block, double direction) {
        return flown(block, TASK, STILL, NOWHERE, direction);
    }

    private static double seconds(Flight flight, Pace pace) {
        return Timeline.of(flight, pace).totalS();
    }

    /** Corners that bend nothing change nothing, however many lie in one band. */
    @ParameterizedTest
    @ValueSource(ints = {2, 90, 900})
    void cornersOnStraightEdgesChangeNoStrip(int each) {
        Outline plain = Samples.concaveWithHole();
        Outline dense = new Outline(plain.parts().stream()
                .map(part -> new Outline.Part(
                        densified(part.outer(), each),
                        part.holes().stream().map(hole -> densified(hole, each)).toList()))
                .toList());
        for (double direction : new double[] {0, 0.7, 1.9}) {
            List<Line> few = flown(block(plain), direction).lines();
            List<Line> many = flown(block(dense), direction).lines();
            assertThat(many).hasSameSizeAs(few);
            for (int i = 0; i < few.size(); i++) {
                assertThat(many.get(i).from().distanceM(few.get(i).from())).isLessThan(0.01);
                assertThat(many.get(i).to().distanceM(few.get(i).to())).isLessThan(0.01);
            }
        }
    }

    /** So many corners on each edge, straight in the grid. */
    private static List<LonLat> densified(List<LonLat> ring, int each) {
        return IntStream.range(0, ring.size() * each)
                .mapToObj(i -> {
                    EastNorth from = Samples.UTM30.toGrid(ring.get(i / each));
                    EastNorth to = Samples.UTM30.toGrid(ring.get((i / each + 1) % ring.size()));
                    double share = (double) (i % each) / each;
                    return Samples.UTM30.toLonLat(new EastNorth(
                            from.east() + share * (to.east() - from.east()),
                            from.north() + share * (to.north() - from.north())));
                })
                .toList();
    }

    @ParameterizedTest
    @MethodSource("seeds")
    void everyPointOfTheBlockLiesBesideALineWithAPhotoBeforeAndBehind(long seed) {
        PlaneBlock block = block(seed % 5 == 0 ? Samples.concaveWithHole() : Samples.random(seed));
        Random random = new Random(seed);
        Flight flight = flown(block, random.nextDouble() * Math.PI);
        Bounds bounds = block.bounds();
        for (int i = 0; i < 2000; i++) {
            PlanePoint at = new PlanePoint(
                    bounds.west() + random.nextDouble() * bounds.width(),
                    bounds.south() + random.nextDouble() * bounds.height());
            if (block.contains(at)) {
                assertThat(flight.lines()).as("point %s", at).anyMatch(line -> covers(line, at));
            }
        }
    }

    private static boolean covers(Line line, PlanePoint at) {
        double alongX = Math.sin(line.trackRad());
        double alongY = Math.cos(line.trackRad());
        double dx = at.xM() - line.from().xM();
        double dy = at.yM() - line.from().yM();
        double along = dx * alongX + dy * alongY;
        double across = dx * alongY - dy * alongX;
        return Math.abs(across) <= SPACING / 2 + 1e-6 && along >= -1e-6 && along <= line.lengthM() + 1e-6;
    }

    @ParameterizedTest
    @MethodSource("seeds")
    void photosOfALineAreExactlyOneBaseApart(long seed) {
        Flight flight = flown(block(Samples.random(seed)), 0.3 * seed);
        for (Line line : flight.lines()) {
            List<Exposure> photos = flight.exposuresOf(line);
            for (int i = 1; i < photos.size(); i++) {
                assertThat(photos.get(i - 1).point().distanceM(photos.get(i).point()))
                        .isCloseTo(BASE, Offset.offset(1e-9));
                assertThat(photos.get(i).line()).isEqualTo(line.number());
                assertThat(photos.get(i).id()).isEqualTo(photos.get(i - 1).id() + 1);
            }
            assertThat(photos.get(photos.size() - 1).point().distanceM(line.to()))
                    .isLessThan(1e-9);
        }
    }

    @ParameterizedTest
    @MethodSource("seeds")
    void theSerpentineNeverFliesALineTwiceAndTurnsRoundEachTime(long seed) {
        PlanePoint launch = new PlanePoint(-400, 30 * seed);
        Flight flight = flown(block(Samples.concaveWithHole()), TASK, STILL, Optional.of(launch), 0.1 * seed);
        Set<String> middles = new HashSet<>();
        for (Line line : flight.lines()) {
            PlanePoint middle = line.pointAt(line.lengthM() / 2);
            assertThat(middles.add("%.3f %.3f".formatted(middle.xM(), middle.yM())))
                    .as("line %d is new", line.number())
                    .isTrue();
        }
        List<Link> links = flight.ways().stream()
                .filter(Link.class::isInstance)
                .map(Link.class::cast)
                .toList();
        assertThat(links).hasSize(flight.lines().size() + 1);
        for (int i = 1; i < flight.lines().size(); i++) {
            double turn =
                    Math.abs(flight.line(i + 1).trackRad() - flight.line(i).trackRad());
            boolean straightOn = links.get(i).kind() == Link.Kind.GAP;
            assertThat(turn).isCloseTo(straightOn ? 0 : Math.PI, Offset.offset(1e-9));
        }
    }

    /** Whatever flies: each way begins where the one before ended. */
    @ParameterizedTest
    @MethodSource("seeds")
    void thePathHasNoGap(long seed) {
        Aircraft aircraft = seed % 2 == 0 ? Aircraft.smallWing() : Aircraft.smallMultirotor();
        Pace pace = new Pace(aircraft, Optional.empty());
        PlanePoint launch = new PlanePoint(-300, 20 * seed);
        Flight flight = flown(block(Samples.concaveWithHole()), TASK, pace, Optional.of(launch), 0.37 * seed);
        List<Way> ways = flight.ways();
        for (int i = 1; i < ways.size(); i++) {
            assertThat(ways.get(i)
                            .start()
                            .point()
                            .distanceM(ways.get(i - 1).end().point()))
                    .as("way %d", i)
                    .isLessThan(1e-6);
        }
        assertThat(ways.get(0).start().point()).isEqualTo(launch);
        assertThat(ways.get(ways.size() - 1).end().point().distanceM(launch)).isLessThan(1e-9);
    }

    @ParameterizedTest
    @ValueSource(doubles = {10, 33.3, 90, 147})
    void rotatingBlockAndDirectionTogetherChangesNothing(double turnDeg) {
        double[] corners = {0, 0, 420, 30, 380, 300, 200, 180, 40, 350};
        double turn = Math.toRadians(turnDeg);
        double[] turned = new double[corners.length];
        for (int i = 0; i < corners.length; i += 2) {
            turned[i] = corners[i] * Math.cos(turn) + corners[i + 1] * Math.sin(turn);
            turned[i + 1] = corners[i + 1] * Math.cos(turn) - corners[i] * Math.sin(turn);
        }
        Flight straight = flown(block(Samples.outline(corners)), 0.4);
        Flight rotated = flown(block(Samples.outline(turned)), 0.4 + turn);
        assertThat(rotated.lines()).hasSameSizeAs(straight.lines());
        assertThat(rotated.exposures()).hasSameSizeAs(straight.exposures());
        assertThat(rotated.pathLengthM()).isCloseTo(straight.pathLengthM(), Percentage.withPercentage(0.01));
        assertThat(seconds(rotated, STILL)).isCloseTo(seconds(straight, STILL), Percentage.withPercentage(0.01));
    }

    @Test
    void aSquareHasTheLinesAndPhotosOfTheTextbook() {
        Task task = new Task(50, 25, 75, 10, Samples.twentyMegapixel());
        Flight flight = flown(block(Samples.square(399)), task, STILL, NOWHERE, 0);
        assertThat(flight.lines()).hasSize(8);
        assertThat(flight.exposures()).hasSize(8 * 17);
        assertThat(flight.pathLengthM()).isCloseTo(8 * 400 + 7 * 50, Offset.offset(0.5));
    }

    @Test
    void startsAtTheCornerNearestTheLaunchPoint() {
        for (double[] corner : new double[][] {{-300, -300}, {300, -300}, {300, 300}, {-300, 300}}) {
            Optional<PlanePoint> launch = Optional.of(new PlanePoint(corner[0], corner[1]));
            Line first =
                    flown(block(Samples.square(400)), TASK, STILL, launch, 0).line(1);
            assertThat(Math.signum(first.from().xM())).isEqualTo(Math.signum(corner[0]));
            assertThat(Math.signum(first.from().yM())).isEqualTo(Math.signum(corner[1]));
        }
    }

    /** The mount is applied once, in the exposure: a camera turned by a quarter has the top of its image to the right of the track. */
    @Test
    void theImageLooksAsTheCameraIsMounted() {
        Camera wide = Samples.twentyMegapixel();
        Camera turned = new Camera(
                wide.name(),
                wide.sensor(),
                wide.focalLengthM(),
                wide.shutter(),
                wide.minIntervalS(),
                Mount.HEIGHT_ACROSS,
                wide.storage());
        PlaneBlock block = block(Samples.square(200));
        for (Exposure photo : flown(block, TASK, STILL, NOWHERE, 0.3).exposures()) {
            assertThat(photo.pose().yawRad()).isEqualTo(photo.trackRad());
        }
        Task task = new Task(SPACING, BASE, 75, 10, turned);
        for (Exposure photo : flown(block, task, STILL, NOWHERE, 0.3).exposures()) {
            assertThat(photo.pose().yawRad() - photo.trackRad()).isCloseTo(Math.PI / 2, Offset.offset(1e-12));
        }
    }

    @Test
    void aTiltedPassLooksAheadOrBack() {
        PlaneBlock block = block(Samples.square(200));
        Pattern ahead = StripGrid.towards(0).looking(Gaze.tilted(Math.toRadians(-60), 0));
        Pattern back = StripGrid.towards(0).looking(Gaze.tilted(Math.toRadians(-60), Math.PI));
        Flight both = Passes.flown(block, List.of(new Pass(ahead, TASK), new Pass(back, TASK)), STILL, NOWHERE)
                .flight();
        int half = both.exposures().size() / 2;
        for (int i = 0; i < half; i++) {
            Exposure first = both.exposures().get(i);
            Exposure second = both.exposures().get(half + i);
            assertThat(first.pass()).isEqualTo(1);
            assertThat(second.pass()).isEqualTo(2);
            assertThat(first.pose().pitchRad()).isEqualTo(Math.toRadians(-60));
            assertThat(first.pose().yawRad()).isCloseTo(first.trackRad(), Offset.offset(1e-12));
            assertThat(second.pose().yawRad()).isCloseTo(second.trackRad() + Math.PI, Offset.offset(1e-12));
        }
        assertThat(both.lines().get(both.lines().size() - 1).number())
                .isEqualTo(both.lines().size());
    }

    private static Pace blowing(Aircraft aircraft, long seed) {
        return new Pace(aircraft, Optional.of(new Wind(seed, 1 + seed % 8)));
    }

    /**
     * In still air and in wind: the quick search counts what the whole flight of a multirotor takes. A wing's few strips are ordered better once the
     * direction is found, so that its flight is never longer than was counted, and hardly any other direction is quicker.
     */
    @ParameterizedTest
    @MethodSource("seeds")
    void noDirectionTriedByHandBeatsTheBestOne(long seed) {
        PlaneBlock block = block(Samples.random(seed));
        Optional<PlanePoint> launch = Optional.of(new PlanePoint(seed * 10, -200));
        Aircraft aircraft = seed % 4 < 2 ? Aircraft.smallMultirotor() : Aircraft.smallWing();
        Pace pace = seed % 2 == 0 ? new Pace(aircraft, Optional.empty()) : blowing(aircraft, seed);
        Task task = aircraft.kind().wing() ? TASK.paced(BASE, 16) : TASK;
        BestDirection.Choice best = BestDirection.of(block, task, pace, launch);
        boolean wing = aircraft.kind().wing();
        double whole = seconds(flown(block, task, pace, launch, best.directionRad()), pace);
        assertThat(whole).isBetween(best.flightTimeS() * (wing ? 0.9 : 1) - 1e-6, best.flightTimeS() + 1e-6);
        IntStream.range(0, 60)
                .mapToDouble(i -> seconds(flown(block, task, pace, launch, i * Math.PI / 60), pace))
                .forEach(time -> assertThat(time).isGreaterThanOrEqualTo(whole * (wing ? 0.95 : 1) - 1e-6));
    }

    @Test
    void aBlockOfTwoPartsFarApartIsCoveredInBoth() {
        Outline two = new Outline(List.of(
                Samples.square(100).parts().get(0),
                Samples.outline(900, 40, 1000, 40, 1000, 150, 900, 150).parts().get(0)));
        for (double direction = 0; direction < Math.PI; direction += 0.2) {
            Flight flight = flown(block(two), direction);
            assertThat(flight.exposures()).anyMatch(photo -> photo.point().xM() < -350);
            assertThat(flight.exposures()).anyMatch(photo -> photo.point().xM() > 350);
        }
        assertThat(BestDirection.of(block(two), TASK, STILL, NOWHERE).flightTimeS())
                .isPositive();
    }

    @Test
    void refusesMoreThanTwoHundredThousandPhotos() {
        Task tiny = new Task(1, 1, 5, 2, Samples.twentyMegapixel());
        assertThatThrownBy(() -> flown(block(Samples.square(3000)), tiny, STILL, NOWHERE, 0))
                .isInstanceOf(InputFault.class)
                .hasMessageContaining("200,000")
                .hasMessageContaining("photos");
    }

    /** Wind from the north-east (45°) blows along lines of 45° and square to lines of 135°. */
    @Test
    void theSchoolsOfWindTurnThePatternIntoAndAcrossIt() {
        List<Pattern.School> schools = StripGrid.towards(1).inWind(new Wind(Math.toRadians(225), 5));
        assertThat(schools)
                .extracting(
                        school -> Math.toDegrees(school.pattern().directionRad().orElseThrow()))
                .satisfiesExactly(
                        planned -> assertThat(planned).isCloseTo(Math.toDegrees(1), Offset.offset(1e-9)),
                        into -> assertThat(into).isCloseTo(45, Offset.offset(1e-9)),
                        across -> assertThat(across).isCloseTo(135, Offset.offset(1e-9)));
    }

    /** A wing told to turn inside: no leg leaves the outline, and strips end a turn's reach before it; a multirotor's turns have no reach. */
    @Test
    void turnsStayWithinTheOutlineWhereThatIsAskedFor() {
        for (Aircraft aircraft : List.of(Aircraft.smallWing(), Aircraft.smallMultirotor())) {
            PlanRequest request = new PlanRequest(
                    Kit.of(aircraft, Samples.twentyMegapixel()),
                    Pins.ofGsd(3),
                    Samples.square(900),
                    Optional.empty(),
                    OptionalInt.of(32630));
            BlockPlan outside = request.plan();
            BlockPlan inside = request.with(Patterns.SINGLE.turning(new Patterns.Turns(true, false)))
                    .plan();
            if (!aircraft.kind().wing()) {
                assertThat(inside.flightTimeS()).isEqualTo(outside.flightTimeS());
                continue;
            }
            PlaneBlock hair = inside.block().widened(inside.design().baseM());
            long left = inside.flight().legs().stream()
                    .filter(Way.class::isInstance)
                    .map(Way.class::cast)
                    .flatMap(way -> way.shape().stream())
                    .filter(at -> !hair.contains(at))
                    .count();
            assertThat(left).isZero();
            assertThat(inside.flight().linesLengthM())
                    .isLessThan(outside.flight().linesLengthM());
        }
        assertThatThrownBy(() -> new PlanRequest(
                                Kit.of(Aircraft.smallWing(), Samples.twentyMegapixel()),
                                Pins.ofGsd(3),
                                Samples.square(120),
                                Optional.empty(),
                                OptionalInt.of(32630))
                        .with(Patterns.SINGLE.turning(new Patterns.Turns(true, false)))
                        .plan())
                .hasMessageContaining("nothing of the block is left within that");
    }
}
