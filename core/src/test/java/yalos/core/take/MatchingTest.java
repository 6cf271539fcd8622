package yalos.core.take;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Instant;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.assertj.core.api.SoftAssertions;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import yalos.core.Reference;
import yalos.core.block.LocalPlane;
import yalos.core.geodesy.Grid;
import yalos.core.geodesy.LonLat;

/** Reference section 17: a flight of 36 stations, brought home as 45 files with planted defects. */
class MatchingTest {
    private static final LonLat ORIGIN = LonLat.of(9.4321, 47.6123);
    private static final LocalPlane PLANE = LocalPlane.at(Grid.utmAt(ORIGIN), ORIGIN);

    @TempDir
    private Path folder;

    private final Map<String, Integer> numbers = new HashMap<>();

    private List<Station> stations() {
        List<Station> stations = new ArrayList<>();
        Reference.rows("take_plan.csv").forEach(row -> {
            numbers.put(row.text("station"), stations.size() + 1);
            stations.add(new Station(
                    stations.size() + 1,
                    row.whole("strip"),
                    PLANE.toPlane(LonLat.of(row.number("lon_deg"), row.number("lat_deg"))),
                    row.number("height_geoid_m"),
                    Instant.parse(row.text("planned_time_utc")).toEpochMilli() / 1000.0));
        });
        return stations;
    }

    private List<Taken> photos() throws IOException {
        List<Taken> photos = new ArrayList<>();
        for (Reference.Row row : Reference.rows("take_expected.csv").toList()) {
            Path file = folder.resolve(row.text("file"));
            Files.write(file, Reference.bytes("take/" + row.text("file")));
            Taken one = Taken.of(PhotoReader.read(row.text("file"), file), row.text("sha256"));
            photos.add(PictureReader.read(file)
                    .map(seen -> one.seen(seen.picture()))
                    .orElse(one));
        }
        return photos;
    }

    private static Role role(String told) {
        return switch (told) {
            case "planned" -> Role.PLANNED;
            case "extra" -> Role.EXTRA;
            case "test shot" -> Role.TEST;
            case "panel" -> Role.PANEL;
            case "duplicate" -> Role.COPY;
            case "other site" -> Role.ELSEWHERE;
            case "other camera" -> Role.OTHER_CAMERA;
            default -> Role.NO_PICTURE;
        };
    }

    @Test
    void everyPhotoIsFoundToBeWhatItIs() throws IOException {
        TakeMatch match = Matching.of(photos(), stations(), PLANE, Optional.empty());

        SoftAssertions all = new SoftAssertions();
        List<Reference.Row> rows = Reference.rows("take_expected.csv").toList();
        for (int i = 0; i < rows.size(); i++) {
            Reference.Row row = rows.get(i);
            TakeMatch.Matched one = match.photos().get(i);
            all.assertThat(one.role()).as(row.text("file")).isEqualTo(role(row.text("role")));
            all.assertThat(one.station()).as(row.text("file")).isEqualTo(numbers.getOrDefault(row.text("station"), 0));
            all.assertThat(one.otherLens())
                    .as(row.text("file"))
                    .isEqualTo(row.text("defect").equals("other focal length"));
        }
        all.assertAll();
        assertThat(match.photos().stream().filter(TakeMatch.Matched::frozen)).hasSize(2);
    }

    /** Each planted defect is found, and nothing else is blamed. */
    @Test
    void pictureFlawsAreFoundAndNoOthers() throws IOException {
        List<Taken> photos = photos();
        TakeMatch match = Matching.of(photos, stations(), PLANE, Optional.empty());
        List<List<Flaw>> flaws = PictureJudge.of(
                photos,
                match,
                photos.stream()
                        .map(photo -> photo.fix().map(Fix::place).map(PLANE::toPlane))
                        .toList());

        SoftAssertions all = new SoftAssertions();
        List<Reference.Row> rows = Reference.rows("take_expected.csv").toList();
        for (int i = 0; i < rows.size(); i++) {
            Reference.Row row = rows.get(i);
            List<Flaw.Kind> wanted = new ArrayList<>();
            if (row.text("role").equals("planned") || row.text("role").equals("extra")) {
                switch (row.text("defect")) {
                    case "over-exposed" -> wanted.add(Flaw.Kind.OVER);
                    case "under-exposed" -> wanted.add(Flaw.Kind.UNDER);
                    case "nearly empty" -> wanted.add(Flaw.Kind.EMPTY);
                    case "motion blur" -> wanted.add(Flaw.Kind.MOTION);
                    case "out of focus" -> wanted.add(Flaw.Kind.FOCUS);
                    case "truncated file", "zero-byte file" -> wanted.add(Flaw.Kind.CUT);
                    default -> {}
                }
                boolean sound = wanted.isEmpty() || wanted.contains(Flaw.Kind.FOCUS);
                if (!row.isEmpty("light_factor") && row.number("light_factor") < 1 && sound) {
                    wanted.add(Flaw.Kind.CLOUD);
                }
            }
            all.assertThat(flaws.get(i).stream().map(Flaw::kind))
                    .as(row.text("file") + " " + flaws.get(i))
                    .containsExactlyElementsOf(wanted);
            for (Flaw flaw : flaws.get(i)) {
                if (flaw.kind() == Flaw.Kind.MOTION) {
                    all.assertThat(flaw.figure()).isCloseTo(9, within(1.8));
                    all.assertThat(flaw.words()).contains("up and down");
                } else if (flaw.kind() == Flaw.Kind.FOCUS) {
                    all.assertThat(flaw.figure()).isCloseTo(2.5, within(0.5));
                } else if (flaw.kind() == Flaw.Kind.CLOUD) {
                    all.assertThat(flaw.figure()).isCloseTo(0.38, within(0.1));
                }
            }
        }
        all.assertAll();
    }

    @Test
    void clockAndShiftAreFound() throws IOException {
        Map<String, String> told = new HashMap<>();
        Reference.rows("take_case.csv").forEach(row -> told.put(row.text("key"), row.text("value")));
        TakeMatch match = Matching.of(photos(), stations(), PLANE, Optional.empty());

        assertThat(match.clockOffsetS().orElseThrow())
                .isCloseTo(Double.parseDouble(told.get("clock_offset_s")), within(0.05));
        assertThat(match.clockLessPlanS().orElseThrow())
                .isCloseTo(Double.parseDouble(told.get("clock_minus_plan_s")), within(0.05));
        assertThat(match.hoursOff()).isFalse();
        // Photos fly off their stations by decimetres; the reference's centimetre is against the worked-out positions.
        assertThat(match.shiftM()[0]).isCloseTo(Double.parseDouble(told.get("shift_e_m")), within(0.2));
        assertThat(match.shiftM()[1]).isCloseTo(Double.parseDouble(told.get("shift_n_m")), within(0.2));
        assertThat(match.shiftM()[2]).isCloseTo(Double.parseDouble(told.get("shift_h_m")), within(0.1));
        assertThat(match.missing())
                .contains(numbers.get("S1-08"), numbers.get("S3-03"))
                .hasSize(4);
    }
}
