package yalos.web;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.regex.MatchResult;
import java.util.regex.Pattern;
import org.junit.jupiter.api.Test;
import org.springframework.context.ConfigurableApplicationContext;

/** Forms that change a block work with script and without. */
class ChangeFormsTest {
    private static final Pattern FORM = Pattern.compile("<form\\b[^>]*method=\"post\"[^>]*>.*?</form>", Pattern.DOTALL);

    @Test
    void everyFormIsGuardedAndKnowsWhereItsAnswerGoes() {
        try (ConfigurableApplicationContext application = RunningYalos.demo()) {
            Visitor visitor = new Visitor("http://127.0.0.1:" + RunningYalos.portOf(application));
            for (String stage : List.of("brief", "ground", "kit", "strips", "proof")) {
                List<String> forms = FORM.matcher(
                                visitor.get("/blocks/2/" + stage).body())
                        .results()
                        .map(MatchResult::group)
                        .toList();
                assertThat(forms)
                        .as(stage)
                        .isNotEmpty()
                        .allSatisfy(form -> assertThat(form).contains("name=\"_csrf\""));
                assertThat(forms.stream().filter(form -> form.contains("data-change=")))
                        .as(stage)
                        .isNotEmpty()
                        .allMatch(form -> form.contains("method=\"post\"") && form.contains("action=\"/blocks/"))
                        .noneMatch(form -> form.contains("hx-"));
                assertThat(forms.stream().filter(form -> form.contains("hx-post=")))
                        .as("files of %s go by themselves", stage)
                        .allMatch(form -> form.contains("hx-target=\"#book\" hx-swap=\"outerHTML\"")
                                && form.contains("multipart/form-data"));
            }
        }
    }
}
