package yalos.web;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.List;
import java.util.regex.MatchResult;
import java.util.regex.Pattern;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.springframework.context.ConfigurableApplicationContext;
import org.springframework.web.util.HtmlUtils;

/** Large figures read alike on every page: thousands set apart, times above an hour as hours and minutes, shutters as cameras name them. */
class FiguresOnPagesTest {
    private static final String[] STAGES = {
        "brief",
        "ground",
        "kit",
        "strips",
        "objects",
        "proof",
        "control",
        "sorties",
        "field-pack",
        "fly",
        "take",
        "accuracy",
        "log"
    };
    /** A count with its noun, or an area, without a comma. */
    private static final Pattern TOGETHER = Pattern.compile(
            "(?<![\\d.,/])\\d{4,}(\\.\\d+)? (photos|stations|strips|cells|points|corners|rows|m²|ft²|m|ft)\\b");

    private static final Pattern DECIMAL_HOURS = Pattern.compile("\\d\\.\\d+ h\\b");
    /** Neither a number nor finite; or the largest there is, told in hours. */
    private static final Pattern NO_FIGURE = Pattern.compile("NaN|[Ii]nfinity|∞|\\d{12,}");

    private static final Pattern PARTED_SHUTTER = Pattern.compile("\\b1/\\d,");

    private static ConfigurableApplicationContext application;
    private static Visitor visitor;

    /** Block A at 6 mm takes more than six thousand photos and three hours. */
    @BeforeAll
    static void aLargeBlock() {
        application = RunningYalos.demo();
        visitor = new Visitor("http://127.0.0.1:" + RunningYalos.portOf(application));
        assertThat(visitor.change(2, "strips", "/ledger/gsd", "act", "type", "value", "0.6 cm"))
                .contains("value=\"0.60\"");
    }

    @AfterAll
    static void stop() {
        application.close();
    }

    private static String words(String path) {
        String page = visitor.get(path).body();
        assertThat(page).as(path).contains("</html>");
        return HtmlUtils.htmlUnescape(page.replaceAll("(?s)<(script|style|option)\\b.*?</\\1>", " ")
                        .replaceAll("<[^>]+>", " "))
                .replaceAll("\\s+", " ");
    }

    private static List<String> found(Pattern pattern, String words) {
        return pattern.matcher(words)
                .results()
                .map(MatchResult::group)
                .distinct()
                .toList();
    }

    @Test
    void onEveryStage() {
        for (String stage : STAGES) {
            reads("/blocks/2/" + stage);
        }
    }

    @Test
    void inTablesReasonsAndOnPaper() {
        for (String page :
                List.of("strips?why=what-if", "strips?why=speed", "strips?why=photos", "print", "compare", "history")) {
            reads("/blocks/2/" + page);
        }
        assertThat(words("/blocks/2/print")).containsPattern("Photos 6,\\d{3} ").contains("1/1000 s");
        assertThat(words("/blocks/2/strips?why=what-if")).containsPattern(" 10,\\d{3} ");
        assertThat(words("/blocks/2/ground")).containsPattern(" 3,\\d{3},\\d{3} ft²");
    }

    @Test
    void onThePagesAboveBlocks() {
        for (String page : List.of("/", "/jobs", "/jobs/1", "/log", "/catalogue", "/cameras")) {
            reads(page);
        }
        assertThat(words("/jobs")).containsPattern(" 6,\\d{3} photos");
    }

    /** In a storm nothing can be flown: no time, no battery set, and no page that fails on it or shows what no reader knows. */
    @Test
    void ofABlockThatCannotBeFlown() {
        visitor.change(3, "strips", "/ledger/wind", "act", "type", "value", "40 m/s");
        assertThat(visitor.change(3, "strips", "/ledger/wind-from", "act", "type", "value", "200°"))
                .contains("Do not fly");
        List<String> pages = new ArrayList<>(List.of(STAGES));
        pages.addAll(List.of("print", "compare", "history", "strips?why=what-if"));
        for (String row : List.of("flight-time", "battery-sets", "speed", "photos", "direction", "height", "storage")) {
            pages.add("strips?why=" + row);
        }
        for (String page : pages) {
            String path = "/blocks/3/" + page;
            assertThat(visitor.get(path).statusCode()).as(path).isEqualTo(200);
            assertThat(found(NO_FIGURE, words(path))).as(path).isEmpty();
        }
        for (String key : List.of("no-margin", "raw-interval")) {
            assertThat(found(NO_FIGURE, visitor.mends(3, "strips", key)))
                    .as(key)
                    .isEmpty();
        }
    }

    private static void reads(String path) {
        String words = words(path);
        assertThat(found(TOGETHER, words)).as(path).isEmpty();
        assertThat(found(DECIMAL_HOURS, words)).as(path).isEmpty();
        assertThat(found(PARTED_SHUTTER, words)).as(path).isEmpty();
    }
}
