package yalos.web.block;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.OptionalDouble;
import java.util.Random;
import java.util.function.DoubleBinaryOperator;
import java.util.regex.MatchResult;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.junit.jupiter.api.extension.ExtendWith;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import yalos.web.RunningYalos;
import yalos.web.Visitor;

/** Every remedy that a page offers is pressed, over grounds, outlines and pins thrown at random: each does what it said, and one way back takes it. */
@ExtendWith(RunningYalos.class)
class PromisesTest {
    private static final double WEST = 412000;
    private static final double SOUTH = 6041000;
    private static final int CELLS = 100;
    private static final double CELL_M = 12;

    private static final int MOST_PRESSED = 6;
    /** A page may know the share more finely by the time it is asked. */
    private static final double SHARE_OFF = 1.5;
    /** Told to a tenth of a minute, shown to the second. */
    private static final double MINUTES_OFF = 0.1;

    private static final List<String[]> PINS = List.of(
            new String[] {"gsd", "1 cm", "2 cm", "4 cm"},
            new String[] {"height", "40 m", "110 m", "200 m"},
            new String[] {"side-overlap", "60 %", "80 %"},
            new String[] {"forward-overlap", "70 %", "90 %"},
            new String[] {"direction", "0", "60"},
            new String[] {"speed", "4 m/s", "13 m/s"},
            new String[] {"wind", "6 m/s", "11 m/s"},
            new String[] {"photos", "60", "300"},
            new String[] {"battery-sets", "1"},
            new String[] {"heights-to", "3 cm", "8 cm"},
            new String[] {"interval", "0.8 s", "3 s"},
            new String[] {"ceiling", "60 m", "400 m"},
            new String[] {"brief-gsd", "2 cm"});

    private final Visitor visitor = new Visitor(RunningYalos.url());
    private long block;

    /** Findings by their keys with their levels, the share on the tab, the flight time. */
    private record Shown(Map<String, String> findings, String share, double minutes) {
        private List<String> stops() {
            return findings.keySet().stream()
                    .filter(key -> findings.get(key).equals("stop"))
                    .toList();
        }
    }

    private record Offer(String path, String[] form, String label) {}

    private void change(String path, String... form) {
        visitor.change(block, "strips", path, form);
    }

    private Shown shown() {
        String page = visitor.get("/blocks/" + block + "/strips").body();
        Map<String, String> findings = new LinkedHashMap<>();
        for (String one : page.split("class=\"finding (?=stop|mind|note)")) {
            Matcher key = Pattern.compile("mends\\?key=([\\w-]+)").matcher(one);
            if (key.find()) {
                findings.put(key.group(1), one.substring(0, 4));
            }
        }
        Matcher time =
                Pattern.compile("id=\"f-flight-time\"[^>]*?value=\"([^\"]*)\"").matcher(page);
        Matcher tab = Pattern.compile("data-stage=\"proof\"[^>]*>(.*?)</a>", Pattern.DOTALL)
                .matcher(page);
        assertThat(tab.find()).as("the tab of Proof").isTrue();
        return new Shown(findings, tab.group(1), time.find() ? minutes(time.group(1)) : Double.NaN);
    }

    private static double minutes(String clock) {
        Matcher minutes = Pattern.compile("(\\d+):(\\d+)").matcher(clock);
        return minutes.matches()
                ? Double.parseDouble(minutes.group(1)) + Double.parseDouble(minutes.group(2)) / 60
                : Double.NaN;
    }

    /** Empty where part of the ground is unknown. */
    private static OptionalDouble enough(String words) {
        Matcher percent = Pattern.compile("([\\d.]+) % enough").matcher(words);
        return percent.find() ? OptionalDouble.of(Double.parseDouble(percent.group(1))) : OptionalDouble.empty();
    }

    private List<Offer> offers(String key) {
        List<Offer> offers = new ArrayList<>();
        List<MatchResult> forms = Pattern.compile("<form.*?</form>", Pattern.DOTALL)
                .matcher(visitor.mends(block, "strips", key))
                .results()
                .toList();
        for (MatchResult form : forms) {
            Matcher action = Pattern.compile("action=\"/blocks/\\d+([^\"]*)\"").matcher(form.group());
            assertThat(action.find()).isTrue();
            String[] fields = Pattern.compile("name=\"(act|value|height|[a-z]+-[a-z]+)\" value=\"([^\"]*)\"")
                    .matcher(form.group())
                    .results()
                    .flatMap(field -> List.of(field.group(1), field.group(2)).stream())
                    .toArray(String[]::new);
            String label = form.group()
                    .replaceAll("(?s)^.*?<button[^>]*>", "")
                    .replaceAll("<[^>]*>", " ")
                    .replaceAll("\\s+", " ");
            offers.add(new Offer(action.group(1), fields, label.strip()));
        }
        return offers;
    }

    private static String model(Random random) {
        double steep = random.nextDouble(0.1, 0.8);
        double high = random.nextDouble(20, 120);
        double wave = random.nextDouble(15, 60);
        double middle = CELLS * CELL_M / 2;
        DoubleBinaryOperator ground = List.<DoubleBinaryOperator>of(
                        (x, y) -> 300 + steep * x,
                        (x, y) -> 300 - steep * Math.abs(x - middle),
                        (x, y) -> 300 + steep / 3 * y + (x > middle ? 2 * high : 0),
                        (x, y) -> 300 + high / 2 * Math.sin(x / wave),
                        (x, y) -> 300 - steep * Math.hypot(x - middle, y - middle))
                .get(random.nextInt(5));
        StringBuilder rows = new StringBuilder("ncols %d\nnrows %d\nxllcorner %.0f\nyllcorner %.0f\ncellsize %.0f\n"
                .formatted(CELLS, CELLS, WEST, SOUTH, CELL_M));
        for (int row = 0; row < CELLS; row++) {
            for (int column = 0; column < CELLS; column++) {
                double height = ground.applyAsDouble((column + 0.5) * CELL_M, (CELLS - row - 0.5) * CELL_M);
                rows.append(String.format(Locale.ROOT, "%.2f ", height));
            }
            rows.append('\n');
        }
        return rows.toString();
    }

    private static String outline(Random random) {
        int corners = random.nextInt(3, 8);
        StringBuilder places = new StringBuilder();
        for (int i = 0; i < corners; i++) {
            double way = (i + random.nextDouble(-0.3, 0.3)) / corners * 2 * Math.PI;
            double far = random.nextDouble(90, 320);
            double east = WEST + CELLS * CELL_M / 2 + far * Math.cos(way);
            double north = SOUTH + CELLS * CELL_M / 2 + far * Math.sin(way);
            places.append(String.format(Locale.ROOT, "%.1f %.1f%n", east, north));
        }
        return places.toString();
    }

    /** A block as nobody would plan it. */
    private void open(int seed) {
        Random random = new Random(seed);
        block = visitor.newBlock("Promises " + seed, "54.512, -4.353");
        change("/grid", "epsg", "32630");
        change("/import", "text", outline(random));
        byte[] model = model(random).getBytes(StandardCharsets.UTF_8);
        visitor.bring(block, "ground", "/models", "ground.asc", model, "epsg", "32630", "sure", "true");
        String known = List.of("SINGLE", "PPK", "CONTROL").get(random.nextInt(3));
        change("/brief", "purpose", "ORTHOPHOTO", "positioning", known);
        for (int i = random.nextInt(1, 5); i > 0; i--) {
            String[] pin = PINS.get(random.nextInt(PINS.size()));
            change("/ledger/" + pin[0], "value", pin[1 + random.nextInt(pin.length - 1)]);
        }
    }

    @ParameterizedTest
    @ValueSource(ints = {2, 3, 4, 5, 7, 8})
    void aRemedyDoesWhatItSays(int seed) {
        open(seed);
        Shown before = shown();
        assertThat(before.share()).contains("%");
        int pressed = 0;
        for (String key : before.findings().keySet()) {
            for (Offer offer : offers(key)) {
                if (pressed++ < MOST_PRESSED) {
                    keeps(before, key, offer);
                }
            }
        }
        assertThat(pressed).as("what was offered").isPositive();
    }

    private void keeps(Shown before, String key, Offer offer) {
        change(offer.path(), offer.form());
        Shown after = shown();
        String what = "%s, pressed for %s".formatted(offer.label(), key);
        assertThat(after.findings().containsKey(key))
                .as(what)
                .isEqualTo(offer.label().contains("helps on"));
        double promised = enough(offer.label()).orElseThrow();
        enough(after.share())
                .ifPresent(given -> assertThat(given).as(what).isBetween(promised - SHARE_OFF, promised + SHARE_OFF));
        Matcher more = Pattern.compile("([+-][\\d.]+) min|same time").matcher(offer.label());
        if (more.find() && Double.isFinite(before.minutes()) && Double.isFinite(after.minutes())) {
            double later = more.group(1) == null ? 0 : Double.parseDouble(more.group(1));
            assertThat(after.minutes() - before.minutes()).as(what).isBetween(later - MINUTES_OFF, later + MINUTES_OFF);
        }
        change("/undo");
        assertThat(shown().stops()).as("%s, taken back", what).isEqualTo(before.stops());
    }
}
