package yalos.core.flight;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import org.assertj.core.data.Offset;
import org.assertj.core.data.Percentage;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;
import yalos.core.Samples;
import yalos.core.camera.Lens;
import yalos.core.geodesy.PlanePoint;
import yalos.core.kit.Aircraft;
import yalos.core.wind.Wind;

/** Times against hand figures: the small multirotor speeds up at 2.5 m/s², turns at 1.5 m/s, climbs at 4 and sinks at 3 m/s. */
class TimelineTest {
    private static final Aircraft ROTOR = Aircraft.smallMultirotor();
    private static final Aircraft WING = Aircraft.smallWing();
    private static final Pace STILL = new Pace(ROTOR, Optional.empty());
    private static final PlanePoint LAUNCH = new PlanePoint(0, 0);
    private static final Lens LENS = Lens.of(Samples.twentyMegapixel());

    private static FlightBuilder.Photographed line(double fromX, double fromY, double toX, double toY, double speed) {
        PlanePoint from = new PlanePoint(fromX, fromY);
        PlanePoint to = new PlanePoint(toX, toY);
        double track = from.bearingRad(to);
        return new FlightBuilder.Photographed(
                1, from, to, track, 60, speed, LENS, new FlightBuilder.Look(track, -Math.PI / 2, 0), 11);
    }

    /** Out 300 m east, a line of 200 m north, 30 m across, 200 m back, and home. */
    private static Flight outAndHome(Aircraft aircraft, double speed) {
        FlightBuilder flight = new FlightBuilder(aircraft, Optional.of(LAUNCH));
        flight.line(line(300, 0, 300, 200, speed));
        flight.line(line(330, 200, 330, 0, speed));
        return flight.landed();
    }

    /** A way of d between corners at 1.5 m/s flown at v: (v − 1.5) / 2.5 s and (v² − 1.5²) / 5 m at each end. */
    private static double handS(double d, double v) {
        double ramp = (v * v - 1.5 * 1.5) / 5;
        return 2 * (v - 1.5) / 2.5 + (d - 2 * ramp) / v;
    }

    @Test
    void outAndHomeAgreesWithTheHandFigure() {
        Timeline timeline = Timeline.of(outAndHome(ROTOR, 10), STILL);
        // the aircraft transits at 15 m/s; 30 m are too short for 10 m/s: peak sqrt(1.5² + 2.5 · 30)
        double peak = Math.sqrt(1.5 * 1.5 + 2.5 * 30);
        double turn = 2 * (peak - 1.5) / 2.5;
        double hand = 60 / 4.0 + handS(300, 15) + 2 * handS(200, 10) + turn + handS(330, 15) + 60 / 3.0;
        assertThat(timeline.totalS()).isCloseTo(hand, Offset.offset(1e-9));
        assertThat(timeline.climbingS()).isCloseTo(60 / 4.0 + 60 / 3.0, Offset.offset(1e-12));
        assertThat(timeline.flight().pathLengthM()).isCloseTo(300 + 200 + 30 + 200 + 330, Offset.offset(1e-9));
    }

    /** A wing does not brake: 16 m/s along lines and bulb turns with 2 s straight before and behind, 18 m/s out and home. */
    @Test
    void aWingFliesOutAndHomeWithoutBraking() {
        Timeline timeline = Timeline.of(outAndHome(WING, 16), new Pace(WING, Optional.empty()));
        double radius = 16 * 16 / (9.80665 * Math.tan(Math.toRadians(30)));
        double out = Math.acos((2 * radius + 30) / (4 * radius));
        double turn = radius * (Math.PI + 4 * out);
        double hand = 60 / 4.0 + 300 / 18.0 + (400 + turn) / 16 + 2 * 2 + 330 / 18.0 + 60 / 3.0;
        assertThat(timeline.totalS()).isCloseTo(hand, Offset.offset(1e-9));
    }

    @Test
    void aRunOverAGapIsFlownThrough() {
        FlightBuilder flight = new FlightBuilder(ROTOR, Optional.empty());
        flight.line(line(0, 0, 0, 100, 10));
        flight.lineAhead(line(0, 160, 0, 300, 10));
        Timeline timeline = Timeline.of(flight.landed(), STILL);
        assertThat(timeline.totalS()).isCloseTo(handS(300, 10), Offset.offset(1e-9));
        assertThat(timeline.spans()).hasSize(3);
        assertThat(timeline.at(timeline.spans().get(1).fromS()).groundMps()).isCloseTo(10, Offset.offset(1e-9));
    }

    private static FlightBuilder.Photographed towards(PlanePoint from, double trackDeg) {
        PlanePoint to = from.moved(Math.toRadians(trackDeg), 100);
        return line(from.xM(), from.yM(), to.xM(), to.yM(), 10);
    }

    /** A strip that bends by 20° is flown through; where its bends add up to more than 30° it is slowed down for once, before the line that does. */
    @Test
    void gentleBendsAreFlownThroughUntilTheyAddUp() {
        FlightBuilder gentle = new FlightBuilder(ROTOR, Optional.empty());
        gentle.line(towards(new PlanePoint(0, 0), 0));
        gentle.lineOn(towards(new PlanePoint(0, 110), 20));
        assertThat(Timeline.of(gentle.landed(), STILL).totalS()).isCloseTo(handS(210, 10), Offset.offset(1e-9));
        PlanePoint next = gentle.here().orElseThrow().moved(Math.toRadians(30), 10);
        gentle.lineOn(towards(next, 40));
        assertThat(Timeline.of(gentle.landed(), STILL).totalS())
                .isCloseTo(handS(220, 10) + handS(100, 10), Offset.offset(1e-9));
    }

    /** Ten hops of 20 m from stand to stand and a stand of 2 s at each of eleven photos: 2 sqrt(20 / 2.5) s a hop. */
    @Test
    void stoppingAtEveryPhotoAgreesWithTheHandFigure() {
        FlightBuilder flight = new FlightBuilder(ROTOR, Optional.empty());
        flight.line(line(0, 0, 0, 200, 10));
        Flight stopping = StopAndGo.of(flight.landed(), 2, 15);
        Timeline timeline = Timeline.of(stopping, STILL);
        assertThat(timeline.totalS()).isCloseTo(10 * 2 * Math.sqrt(20 / 2.5) + 11 * 2, Offset.offset(1e-9));
        assertThat(stopping.exposures()).hasSize(11);
        double[] photos = timeline.exposuresS();
        assertThat(photos[1] - photos[0]).isCloseTo(2 + 2 * Math.sqrt(20 / 2.5), Offset.offset(1e-9));
    }

    /** At any time: the place moves as the speed says, and photos are taken where they should be. */
    @ParameterizedTest
    @ValueSource(booleans = {false, true})
    void placeAndSpeedBelongTogetherAtAnyTime(boolean wing) {
        Aircraft aircraft = wing ? WING : ROTOR;
        Timeline timeline = Timeline.of(outAndHome(aircraft, 12), new Pace(aircraft, Optional.of(new Wind(1, 4))));
        double step = 0.01;
        for (double t = 0.5; t < timeline.totalS() - 0.5; t += 1.37) {
            Timeline.Moment now = timeline.at(t);
            Timeline.Moment soon = timeline.at(t + step);
            if (now.leg() == soon.leg()) {
                double moved = now.place().point().distanceM(soon.place().point());
                assertThat(moved / step).as("at %.2f s", t).isCloseTo(now.groundMps(), Offset.offset(0.05));
            }
        }
        double[] photos = timeline.exposuresS();
        for (int i = 0; i < photos.length; i++) {
            Exposure photo = timeline.flight().exposures().get(i);
            assertThat(timeline.at(photos[i] + 1e-9).place().point().distanceM(photo.point()))
                    .isLessThan(1e-4);
        }
        assertThat(timeline.at(-5).place()).isEqualTo(new Place(0, 0, 0));
        assertThat(timeline.at(1e9).place().upM()).isCloseTo(0, Offset.offset(1e-9));
        assertThat(timeline.at(3).place().upM()).isCloseTo(12, Offset.offset(1e-9));
    }

    /** Wings of 16 m/s in 5 m/s from the north: 11 m/s up, 21 m/s down, √(16² − 5²) across (triangle of velocities). */
    @Test
    void windSpeedsAWingUpAndDown() {
        Pace pace = new Pace(WING, Optional.of(new Wind(0, 5)));
        assertThat(pace.groundMps(0, 16)).isCloseTo(11, Offset.offset(1e-9));
        assertThat(pace.groundMps(Math.PI, 16)).isCloseTo(21, Offset.offset(1e-9));
        assertThat(pace.groundMps(Math.PI / 2, 16)).isCloseTo(Math.sqrt(16 * 16 - 25), Offset.offset(1e-9));
        assertThat(pace.straightS(210, Math.PI, 16)).isCloseTo(10, Offset.offset(1e-9));
        assertThat(pace.airspeedMps(0, 11)).isCloseTo(16, Offset.offset(1e-9));
    }

    /** A multirotor holds its ground speed up to its fastest airspeed, here 15 m/s, and no further. */
    @ParameterizedTest
    @CsvSource({"4, 10", "5, 10", "9, 6", "12, 3"})
    void windHoldsAMultirotorOnlyBeyondItsFastestAirspeed(double wind, double ground) {
        Pace pace = new Pace(ROTOR, Optional.of(new Wind(0, wind)));
        assertThat(pace.groundMps(0, 10)).isCloseTo(ground, Offset.offset(1e-9));
        assertThat(pace.groundMps(Math.PI, 10)).as("before the wind").isCloseTo(10, Offset.offset(1e-9));
    }

    @Test
    void aWindNobodyCanFlyAgainstTakesForEver() {
        Timeline timeline = Timeline.of(outAndHome(ROTOR, 10), new Pace(ROTOR, Optional.of(new Wind(0, 16))));
        assertThat(timeline.totalS()).isInfinite();
        assertThat(BatteryUse.of(timeline, 1000).sets()).isZero();
    }

    /** Round a full circle at 20 m/s of airspeed in 8 m/s: the integral of ds / v(heading), summed finely. */
    @Test
    void aCircleInTheWindTakesTheIntegralOfItsHeadings() {
        Pace pace = new Pace(WING, Optional.of(new Wind(0.4, 8)));
        Arc circle = new Arc(LAUNCH, 50, 0, 2 * Math.PI, Way.level(60), 20);
        double fine = 0;
        int pieces = 200_000;
        for (int i = 0; i < pieces; i++) {
            double track = 2 * Math.PI * (i + 0.5) / pieces;
            fine += circle.lengthM() / pieces / pace.groundMps(track, 20);
        }
        double[] timed = pace.arcS(circle);
        assertThat(timed[timed.length - 1]).isCloseTo(fine, Percentage.withPercentage(0.3));
    }

    /** 20 minutes of lines on sets of 8 minutes: each change flies home from where it must and back to the same photo. */
    @Test
    void batteriesAreChangedAtTheLaunchPoint() {
        FlightBuilder builder = new FlightBuilder(ROTOR, Optional.of(LAUNCH));
        for (int i = 0; i < 10; i++) {
            boolean north = i % 2 == 0;
            double x = 100 + 30 * i;
            builder.line(line(x, north ? 0 : 1000, x, north ? 1000 : 0, 10));
        }
        Timeline timeline = Timeline.of(builder.landed(), STILL);
        double usable = 480;
        BatteryUse use = BatteryUse.of(timeline, usable);
        assertThat(use.carries()).isTrue();
        double flown = timeline.totalS() + use.tripsS();
        assertThat(use.sets()).isGreaterThanOrEqualTo((int) Math.ceil(flown / usable));
        assertThat(use.leftS()).isBetween(0.0, usable);
        // one change costs at least a descent and a climb of 60 m and the way to the nearest line and back
        assertThat(use.tripsS()).isGreaterThan((use.sets() - 1) * (60 / 3.0 + 60 / 4.0 + 2 * handS(100, 15)) - 1e-6);
        assertThat(BatteryUse.of(timeline, timeline.totalS())).isEqualTo(new BatteryUse(1, 0, 0, true));
        assertThat(BatteryUse.of(timeline, 45).carries())
                .as("45 s do not even reach a line and come home")
                .isFalse();
    }

    /** One line straight ahead on two sets, by hand: cut at the last photo from which it still comes home. */
    @Test
    void aSingleChangeAgreesWithTheHandFigure() {
        FlightBuilder builder = new FlightBuilder(ROTOR, Optional.of(LAUNCH));
        builder.line(line(0, 100, 0, 1100, 10));
        Timeline timeline = Timeline.of(builder.landed(), STILL);
        double[] photos = timeline.exposuresS();
        double usable = photos[9] + handS(1000, 15) + 60 / 3.0 + 0.5;
        BatteryUse use = BatteryUse.of(timeline, usable);
        double back = 60 / 4.0 + handS(1000, 15);
        assertThat(use.sets()).isEqualTo(2);
        assertThat(use.tripsS()).isCloseTo(handS(1000, 15) + 60 / 3.0 + back, Offset.offset(1e-9));
        assertThat(use.leftS()).isCloseTo(usable - back - (timeline.totalS() - photos[9]), Offset.offset(1e-9));
        assertThat(use.at(photos[9] - 1)).isEqualTo(new BatteryUse.Charge(1, photos[9] - 1));
        assertThat(use.at(photos[9] + 2).set()).isEqualTo(2);
        assertThat(use.at(photos[9] + 2).usedS()).as("way back, and 2 s").isCloseTo(back + 2, Offset.offset(1e-9));
        assertThat(use.at(timeline.totalS()).usedS()).isCloseTo(usable - use.leftS(), Offset.offset(1e-9));
    }

    @Test
    void withoutALaunchPointTheTimeIsSimplyParted() {
        FlightBuilder builder = new FlightBuilder(ROTOR, Optional.empty());
        builder.line(line(0, 0, 0, 1000, 10));
        Timeline timeline = Timeline.of(builder.landed(), STILL);
        BatteryUse use = BatteryUse.of(timeline, timeline.totalS() / 2.5);
        assertThat(use.sets()).isEqualTo(3);
        assertThat(use.tripsS()).isZero();
    }

    /** Two passes at different heights and two ways home are a flight like any other. */
    @Test
    void aFlightMayComeHomeMoreThanOnce() {
        Flight once = outAndHome(ROTOR, 10);
        List<Leg> legs = new ArrayList<>(once.legs());
        legs.addAll(once.legs());
        Flight twice = new Flight(legs, once.exposures(), once.launch(), 0);
        double single = Timeline.of(once, STILL).totalS();
        assertThat(Timeline.of(twice, STILL).totalS()).isCloseTo(2 * single, Offset.offset(1e-9));
        Flight laid = twice.over(new Level(40, 90));
        for (int i = 1; i < laid.legs().size(); i++) {
            assertThat(laid.legs().get(i).start().upM())
                    .as("leg %d", i)
                    .isCloseTo(laid.legs().get(i - 1).end().upM(), Offset.offset(1e-9));
        }
        assertThat(laid.legs().get(0).start().upM()).isEqualTo(40);
        assertThat(laid.legs().get(laid.legs().size() - 1).end().upM()).isEqualTo(40);
        assertThat(laid.exposures()).allSatisfy(photo -> assertThat(photo.upM()).isEqualTo(90));
        assertThat(laid.aboveTakeOffM(laid.exposures().get(0))).isEqualTo(50);
    }

    /** Heights that are the same everywhere. */
    private record Level(double takeOffUpM, double upM) implements Heights {
        @Override
        public double[] along(Line line) {
            return Way.level(upM);
        }

        @Override
        public List<double[]> between(List<Way> ways, double fromUpM, double toUpM) {
            return ways.stream().map(way -> new double[] {fromUpM, toUpM}).toList();
        }
    }

    @ParameterizedTest
    @CsvSource({
        // length, acceleration, start, speed, end, seconds by hand
        "100, 2, 1, 11, 1, 13.636363636363637", // 5 s and 30 m up and down, 40 m at 11
        "20, 2, 1, 11, 1, 5.4031242374328485", // peak √41
        "100, 2, 0, 10, 0, 15", // 5 s and 25 m up and down, 50 m at 10
        "90, 2, 0, 10, 10, 11.5", // 25 m in 5 s, then 65 m at 10
        "3, 2, 0, 10, 4, 1.5", // too short to reach 4 m/s at 2 m/s²: an even change to it
    })
    void speedProfilesAgreeWithTheHandFigures(
            double length, double acceleration, double start, double speed, double end, double seconds) {
        SpeedProfile profile = new SpeedProfile(length, acceleration, start, speed, end);
        assertThat(profile.seconds()).isCloseTo(seconds, Offset.offset(1e-9));
        for (double share = 0; share <= 1; share += 0.05) {
            double at = share * seconds;
            assertThat(profile.secondsAt(profile.metresAt(at))).isCloseTo(at, Offset.offset(1e-6));
            assertThat(profile.speedAt(at)).isBetween(0.0, speed + 1e-9);
        }
        assertThat(profile.metresAt(seconds)).isCloseTo(length, Offset.offset(1e-9));
    }
}
