package yalos.web.shell;

import java.util.List;

/** The modules that every page's script is made of, so that they are asked for together and not one after the other's imports are read. */
final class Scripts {
    /** What one page alone loads. */
    private static final String ALONE = "/js/space";
    /** The script of the field pack, written into its file. */
    private static final String PACK = "/js/pack.js";

    private Scripts() {}

    /** Their addresses. */
    static List<String> modules() {
        return StaticFiles.all("js").stream()
                .filter(address -> !address.startsWith(ALONE) && !address.equals(PACK))
                .toList();
    }
}
