package yalos.web.shell;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.util.Arrays;
import java.util.List;
import org.springframework.core.io.Resource;
import org.springframework.core.io.support.PathMatchingResourcePatternResolver;

/** The modules that every page's script is made of, so that they are asked for together and not one after the other's imports are read. */
final class Scripts {
    private static final String FOLDER = "/static/";

    /** What one page alone loads. */
    private static final String ALONE = "/js/space";

    private Scripts() {}

    /** Their addresses. */
    static List<String> modules() {
        try {
            return Arrays.stream(new PathMatchingResourcePatternResolver().getResources("classpath:/static/js/**/*.js"))
                    .map(Scripts::address)
                    .filter(address -> !address.startsWith(ALONE))
                    .sorted()
                    .toList();
        } catch (IOException missing) {
            throw new UncheckedIOException(missing);
        }
    }

    private static String address(Resource module) {
        try {
            String where = module.getURL().toString();
            return where.substring(where.lastIndexOf(FOLDER) + FOLDER.length() - 1);
        } catch (IOException missing) {
            throw new UncheckedIOException(missing);
        }
    }
}
