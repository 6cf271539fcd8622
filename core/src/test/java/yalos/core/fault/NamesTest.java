package yalos.core.fault;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import org.junit.jupiter.api.Test;

class NamesTest {
    /** What XML 1.0 (W3C, section 2.2) may hold, less what nobody sees. */
    @Test
    void onlyLettersThatShowAreKept() {
        assertThat(Names.clean("  Thorn\u0000wane\ud800\t \u202eRigg\ufffe ")).isEqualTo("Thornwane Rigg");
        assertThat(Names.clean("Höhe 3 “½” 北 \ud83d\ude81")).isEqualTo("Höhe 3 “½” 北 \ud83d\ude81");
    }

    @Test
    void namesOfFilesAreCutTypedOnesRefused() {
        assertThat(Names.given("m".repeat(300), "mast")).hasSize(Names.LONGEST);
        assertThat(Names.given("\u0007", "mast")).isEqualTo("mast");
        assertThat(Names.given(null, "mast")).isEqualTo("mast");
        assertThatThrownBy(() -> Names.typed("name", "\u0007 ", 80)).isInstanceOf(InputFault.class);
        assertThat(Names.typed("name", " Rigg ", 80)).isEqualTo("Rigg");
    }
}
