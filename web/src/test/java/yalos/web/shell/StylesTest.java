package yalos.web.shell;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.Set;
import java.util.regex.MatchResult;
import java.util.regex.Pattern;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;
import org.springframework.core.io.ClassPathResource;
import org.springframework.core.io.Resource;
import org.springframework.core.io.support.PathMatchingResourcePatternResolver;

/** Our styles ask only what costs little to know. */
class StylesTest {
    private static final Pattern HAS = Pattern.compile(":has\\(((?:[^()]|\\([^()]*\\))*)\\)");
    /** Each step named: a child or a neighbour, never something anywhere within. */
    private static final Pattern BOUNDED = Pattern.compile("(\\s*[>+]\\s*[^\\s>+]+)+\\s*");

    /** Of one page, of paper, or of one look alone. */
    private static final Set<String> APART = Set.of("pack.css", "print.css", "sun.css", "yalos.css");

    static Stream<Resource> styles() throws IOException {
        return Stream.of(new PathMatchingResourcePatternResolver().getResources("classpath:/static/css/*.css"));
    }

    private static Stream<String> unbounded(String css) {
        return HAS.matcher(css)
                .results()
                .map(MatchResult::group)
                .filter(has -> !Stream.of(has.substring(":has(".length(), has.length() - 1)
                                .split(","))
                        .allMatch(part -> BOUNDED.matcher(part).matches()));
    }

    /**
     * What is asked of everything within an element is asked again at each small change within it. One such rule on the page's root made each
     * pass of style take ten times as long, and a picture on the map takes several.
     */
    @ParameterizedTest
    @MethodSource("styles")
    void noRuleAsksWhatLiesAnywhereWithin(Resource file) throws IOException {
        assertThat(unbounded(file.getContentAsString(StandardCharsets.UTF_8))).isEmpty();
    }

    /** The build joins them by name; a file that nobody named there would be missed by every page. */
    @Test
    void theOneStyleOfEveryPageHoldsThemAll() throws IOException {
        String joined = new ClassPathResource("/static/css/yalos.css").getContentAsString(StandardCharsets.UTF_8);
        List<Resource> files =
                styles().filter(file -> !APART.contains(file.getFilename())).toList();
        assertThat(files).isNotEmpty();
        for (Resource file : files) {
            assertThat(joined).as(file.getFilename()).contains(file.getContentAsString(StandardCharsets.UTF_8));
        }
    }

    @Test
    void suchARuleWouldBeFound() {
        assertThat(unbounded("html:has(.desk) {} .row:not(:has(input.figure)) {} .a:has(> .b .c) {}"))
                .containsExactly(":has(.desk)", ":has(input.figure)", ":has(> .b .c)");
        assertThat(unbounded(".a:has(> .b) {} label:has(> input[type=\"radio\"], + p) {} .p:has(> .s > .d) {}"))
                .isEmpty();
    }
}
