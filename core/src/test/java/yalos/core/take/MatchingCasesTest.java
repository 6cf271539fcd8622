package yalos.core.take;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.time.LocalDateTime;
import java.time.ZoneOffset;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.OptionalInt;
import java.util.Random;
import org.junit.jupiter.api.Test;
import yalos.core.block.LocalPlane;
import yalos.core.geodesy.Grid;
import yalos.core.geodesy.LonLat;
import yalos.core.geodesy.PlanePoint;
import yalos.core.terrain.VerticalDatum.Zero;

/** Takes that came home otherwise than planned, south of the equator: each is matched as a practitioner would match it. */
class MatchingCasesTest {
    private static final LonLat ORIGIN = LonLat.of(-70.65, -33.45);
    private static final LocalPlane PLANE = LocalPlane.at(Grid.utmAt(ORIGIN), ORIGIN);
    private static final LocalDateTime NOON = LocalDateTime.of(2026, 6, 18, 12, 0);

    /** Strips of 20 photos, 12 m apart, flown there and back. */
    private static List<Station> stations(int strips) {
        List<Station> stations = new ArrayList<>();
        for (int strip = 0; strip < strips; strip++) {
            for (int k = 0; k < 20; k++) {
                double x = strip % 2 == 0 ? 12 * k : 12 * (19 - k);
                stations.add(new Station(
                        stations.size() + 1, strip + 1, new PlanePoint(x, 30 * strip), 600, strip * 60 + 2 * k));
            }
        }
        return stations;
    }

    /** A photo as a file would tell of it. */
    private static final class Shot {
        private PlanePoint at;
        private double up = 600;
        private Double seconds;
        private double exposureS = 0.001;
        private double focalMm = 12;
        private String model = "A";
        private String name;
        private Double gps;

        Shot(Station station) {
            at = station.at();
            seconds = station.plannedS();
            name = "P%05d.JPG".formatted(station.number());
        }

        Taken taken() {
            return Taken.of(
                    new PhotoFacts(
                            name,
                            1000,
                            PhotoFacts.Readable.ALL,
                            "",
                            Optional.ofNullable(seconds).map(s -> NOON.plusNanos(Math.round(s * 1e9))),
                            Optional.of(ZoneOffset.UTC),
                            Optional.ofNullable(gps)
                                    .map(s -> NOON.toInstant(ZoneOffset.UTC).plusNanos(Math.round(s * 1e9))),
                            new PhotoFacts.Position(
                                    Optional.ofNullable(at).map(PLANE::toLonLat),
                                    at == null ? OptionalDouble.empty() : OptionalDouble.of(up),
                                    Zero.GEOID,
                                    OptionalDouble.of(0.02),
                                    Optional.of(true)),
                            PhotoFacts.View.NONE,
                            new PhotoFacts.Camera(
                                    model,
                                    OptionalDouble.of(focalMm),
                                    OptionalDouble.of(exposureS),
                                    OptionalDouble.of(4),
                                    OptionalInt.of(100),
                                    4000,
                                    3000,
                                    4000,
                                    3000,
                                    1)),
                    "");
        }
    }

    private interface Change {
        void to(Shot shot, Station station);
    }

    private static List<Taken> photos(List<Station> stations, Change change) {
        return stations.stream()
                .map(station -> {
                    Shot shot = new Shot(station);
                    change.to(shot, station);
                    return shot.taken();
                })
                .toList();
    }

    private static void allMatched(TakeMatch match) {
        for (int i = 0; i < match.photos().size(); i++) {
            assertThat(match.photos().get(i).station()).isEqualTo(i + 1);
        }
    }

    @Test
    void anotherDatumIsOneShiftOfAll() {
        List<Station> stations = stations(6);
        TakeMatch match = Matching.of(
                photos(
                        stations,
                        (shot, station) -> shot.at = new PlanePoint(
                                station.at().xM() + 83, station.at().yM() - 121)),
                stations,
                PLANE,
                Optional.empty());

        allMatched(match);
        assertThat(match.shiftM()[0]).isCloseTo(83, within(0.1));
        assertThat(match.shiftM()[1]).isCloseTo(-121, within(0.1));
    }

    @Test
    void aPauseAndAnotherOrderOfStripsDoNotMatter() {
        List<Station> stations = stations(6);
        Random random = new Random(1);
        TakeMatch match = Matching.of(
                photos(stations, (shot, station) -> {
                    // Strips four to six were flown first, an hour before the others.
                    shot.seconds = station.plannedS() + (station.line() > 3 ? -3600 : 900);
                    shot.at = new PlanePoint(
                            station.at().xM() + random.nextGaussian(),
                            station.at().yM() + random.nextGaussian());
                    if (station.number() % 17 == 0) {
                        shot.at = null;
                    }
                }),
                stations,
                PLANE,
                Optional.empty());

        allMatched(match);
        assertThat(match.missing()).isEmpty();
    }

    @Test
    void aClockAnHourOffIsSeenByTheSatellites() {
        List<Station> stations = stations(2);
        TakeMatch match = Matching.of(
                photos(stations, (shot, station) -> {
                    shot.gps = station.plannedS();
                    shot.seconds = station.plannedS() + 3602.4;
                }),
                stations,
                PLANE,
                Optional.empty());

        allMatched(match);
        assertThat(match.hoursOff()).isTrue();
        assertThat(match.clockOffsetS().orElseThrow()).isCloseTo(3602.4, within(0.01));
    }

    @Test
    void timesAloneAreEnough() {
        List<Station> stations = stations(4);
        TakeMatch match = Matching.of(
                photos(stations, (shot, station) -> {
                    shot.at = null;
                    shot.seconds = station.plannedS() + 517.3;
                }),
                stations,
                PLANE,
                Optional.empty());

        allMatched(match);
        assertThat(match.photos()).allMatch(one -> one.why().equals("by its time alone"));
    }

    @Test
    void placesAloneAreEnough() {
        List<Station> stations = stations(4);
        TakeMatch match = Matching.of(
                photos(stations, (shot, station) -> shot.seconds = null), stations, PLANE, Optional.empty());

        allMatched(match);
        assertThat(match.clockLessPlanS()).isEmpty();
    }

    @Test
    void neitherTimeNorPlaceIsMatchedToNothing() {
        List<Station> stations = stations(1);
        TakeMatch match = Matching.of(
                photos(stations, (shot, station) -> {
                    shot.at = null;
                    shot.seconds = null;
                }),
                stations,
                PLANE,
                Optional.empty());

        assertThat(match.photos()).allMatch(one -> one.role() == Role.UNKNOWN && one.station() == 0);
        assertThat(match.missing()).hasSize(20);
    }

    @Test
    void allAtOnePlaceBelongToOneStationAtMost() {
        List<Station> stations = stations(2);
        TakeMatch match = Matching.of(
                photos(stations, (shot, station) -> shot.at = new PlanePoint(48.3 + station.number() * 1e-4, 30.2)),
                stations,
                PLANE,
                Optional.empty());

        assertThat(match.photos().stream().filter(one -> one.station() > 0).count())
                .isLessThanOrEqualTo(2);
    }

    @Test
    void bracketsOfThreeCountOnce() {
        List<Station> stations = stations(3);
        List<Taken> photos = new ArrayList<>();
        for (Station station : stations) {
            for (int k = 0; k < 3; k++) {
                Shot shot = new Shot(station);
                shot.name = "P%05d.JPG".formatted(photos.size());
                shot.seconds = station.plannedS() + 0.4 * k;
                shot.at =
                        new PlanePoint(station.at().xM() + 0.3 * k, station.at().yM());
                shot.exposureS = 0.0005 * Math.pow(2, k);
                // One release lost its last file.
                if (station.number() != 7 || k < 2) {
                    photos.add(shot.taken());
                }
            }
        }
        TakeMatch match = Matching.of(photos, stations, PLANE, Optional.empty());

        assertThat(match.filesEach()).isEqualTo(3);
        assertThat(match.missing()).isEmpty();
        assertThat(match.incomplete()).containsExactly(7);
        assertThat(match.count(Role.EXTRA)).isZero();
    }

    @Test
    void bandsTakenTogetherCountOnce() {
        List<Station> stations = stations(2);
        List<Taken> photos = new ArrayList<>();
        for (Station station : stations) {
            for (int band = 1; band <= 5; band++) {
                Shot shot = new Shot(station);
                shot.name = "P%04d_%d.TIF".formatted(station.number(), band);
                shot.seconds = station.plannedS() + 0.01 * band;
                photos.add(shot.taken());
            }
        }
        TakeMatch match = Matching.of(photos, stations, PLANE, Optional.empty());

        assertThat(match.filesEach()).isEqualTo(5);
        assertThat(match.incomplete()).isEmpty();
        assertThat(match.missing()).isEmpty();
    }

    @Test
    void twoCamerasMixedAreNoStrays() {
        List<Station> stations = stations(4);
        TakeMatch match = Matching.of(
                photos(stations, (shot, station) -> shot.model = station.number() % 2 == 0 ? "A" : "B"),
                stations,
                PLANE,
                Optional.empty());

        assertThat(match.count(Role.OTHER_CAMERA)).isZero();
        allMatched(match);
    }

    @Test
    void aGreatTakeIsMatchedToo() {
        List<Station> stations = stations(500);
        Random random = new Random(2);
        TakeMatch match = Matching.of(
                photos(
                        stations,
                        (shot, station) -> shot.at = new PlanePoint(
                                station.at().xM() + random.nextGaussian(),
                                station.at().yM() + random.nextGaussian())),
                stations,
                PLANE,
                Optional.empty());

        allMatched(match);
    }

    @Test
    void noPhotosAndNoStationsAreNothing() {
        assertThat(Matching.of(List.of(), stations(1), PLANE, Optional.empty()).missing())
                .hasSize(20);
        assertThat(Matching.of(photos(stations(1), (shot, station) -> {}), List.of(), PLANE, Optional.empty())
                        .photos())
                .allMatch(one -> one.station() == 0);
    }
}
