package yalos.web.brief;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.HashMap;
import java.util.Map;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import yalos.core.brief.Brief;
import yalos.core.brief.Crop;
import yalos.core.brief.Purpose;
import yalos.core.brief.Site;
import yalos.core.fault.InputFault;

class BriefFormTest {
    private static Brief read(String... form) {
        Map<String, String> fields = new HashMap<>();
        for (int i = 0; i < form.length; i += 2) {
            fields.put(form[i], form[i + 1]);
        }
        return BriefForm.read(fields, Brief.EMPTY);
    }

    @Test
    void anEmptyFormIsAnEmptyBrief() {
        assertThat(read()).isEqualTo(Brief.EMPTY);
    }

    @Test
    void lengthsMayBeTypedInAnyUnit() {
        assertThat(read("smallest", "2 in").smallestM().orElseThrow()).isEqualTo(0.0508);
        assertThat(read("smallest", "4").smallestM().orElseThrow()).isEqualTo(0.04);
        assertThat(read("horizontal", "0.1 ft", "grade", "OWN").horizontalM().orElseThrow())
                .isEqualTo(0.03048);
    }

    /** A tenth of a foot is what clients call survey grade (common practice). */
    @Test
    void aGradeSetsItsFiguresAndOwnFiguresStay() {
        Brief survey = read("grade", "SURVEY");
        assertThat(survey.horizontalM()).hasValue(0.03);
        assertThat(BriefForm.Grade.of(survey)).isEqualTo(BriefForm.Grade.SURVEY);
        Brief own = read("grade", "OWN", "horizontal", "8 cm", "vertical", "12 cm");
        assertThat(own.verticalM()).hasValue(0.12);
        assertThat(BriefForm.Grade.of(own)).isEqualTo(BriefForm.Grade.OWN);
    }

    @Test
    void siteCropAndDayAreRead() {
        Brief brief = read(
                "purpose",
                "STAND_COUNT",
                "bareEarth",
                "on",
                "site-PEOPLE",
                "on",
                "cropStage",
                "ROWS",
                "plant",
                "5 cm",
                "cropUse",
                "PRESCRIPTION",
                "travel",
                "1 h",
                "targets",
                "6",
                "perTarget",
                "10 min",
                "dayLength",
                "6 h");
        assertThat(brief.purpose()).contains(Purpose.STAND_COUNT);
        assertThat(brief.site().bareEarth()).isTrue();
        assertThat(brief.site().difficulties()).containsExactly(Site.Difficulty.PEOPLE);
        assertThat(brief.crop().stage()).isEqualTo(Crop.Stage.ROWS);
        assertThat(brief.crop().plantM()).hasValue(0.05);
        assertThat(brief.day().travelMinutes()).isEqualTo(60);
        assertThat(brief.day().targets()).isEqualTo(6);
        assertThat(brief.day().dayMinutes()).isEqualTo(360);
    }

    @Test
    void rulingsSurviveAChangeOfTheForm() {
        Brief ruled = Brief.EMPTY.ruled("gsd", new Brief.Ruling(false, "as last year"));
        Brief read = BriefForm.read(Map.of("purpose", "ORTHOPHOTO"), ruled);
        assertThat(read.rulings()).containsKey("gsd");
    }

    @ParameterizedTest
    @CsvSource({
        "smallest, -1 cm",
        "smallest, tiny",
        "horizontal, 200 m",
        "purpose, MAGIC",
        "due, 31.3.2027",
        "plant, 90 m",
        "travel, -5 min",
        "targets, 2000",
        "dayLength, 1 min",
    })
    void aFieldThatCannotBeIsNamed(String field, String value) {
        assertThatThrownBy(() -> read(field, value, "grade", "OWN")).isInstanceOf(InputFault.class);
    }
}
