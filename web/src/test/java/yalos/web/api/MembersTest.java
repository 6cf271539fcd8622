package yalos.web.api;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatCode;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.Set;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import tools.jackson.databind.json.JsonMapper;
import yalos.core.fault.InputFault;

class MembersTest {
    private static final JsonMapper JSON = JsonMapper.builder().build();

    /** Textbook pairs, from memory. */
    @ParameterizedTest
    @CsvSource({"kitten, sitting, 3", "saturday, sunday, 3", "flaw, lawn, 2", "gsd, gsd, 0", "'', abc, 3", "abc, '', 3"
    })
    void lettersToBeChanged(String a, String b, int letters) {
        assertThat(Members.distance(a, b)).isEqualTo(letters);
    }

    @Test
    void aSlipOfThePenIsNamedWithWhatIsMeant() {
        assertThatThrownBy(() -> Members.refuseUnknown(
                        JSON.readTree("{\"gsd\":2,\"sideOverlapp\":70}"),
                        "plan",
                        Set.of("gsd", "sideOverlap", "forwardOverlap")))
                .isInstanceOf(InputFault.class)
                .hasMessageContaining("“sideOverlapp” is no member of “plan”")
                .hasMessageContaining("Is “sideOverlap” meant?");
        assertThatCode(() -> Members.refuseUnknown(JSON.readTree("{\"gsd\":2}"), "plan", Set.of("gsd", "height")))
                .doesNotThrowAnyException();
    }
}
