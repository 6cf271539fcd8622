package yalos.web.store;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.sql.Statement;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.springframework.core.io.Resource;
import org.springframework.core.io.support.PathMatchingResourcePatternResolver;

/** Refuses a database that a newer program wrote, before anything in it is touched: it is only read. */
public final class NewerData {
    private static final Pattern MIGRATION = Pattern.compile("V(\\d+)__.*\\.sql");

    private NewerData() {}

    /** The newest form of data that this program knows. */
    public static int newest() {
        int newest = 0;
        try {
            for (Resource one :
                    new PathMatchingResourcePatternResolver().getResources("classpath:db/migration/*.sql")) {
                Matcher name = MIGRATION.matcher(String.valueOf(one.getFilename()));
                if (name.matches()) {
                    newest = Math.max(newest, Integer.parseInt(name.group(1)));
                }
            }
        } catch (IOException e) {
            throw new StartRefused("The program is not whole: " + e.getMessage());
        }
        return newest;
    }

    /**
     * @throws StartRefused for data of a newer program
     */
    public static void refuse(Path data) {
        int held = held(data);
        if (held > newest()) {
            throw new StartRefused(
                    "The data in %s was written by a newer Yalos (data %d; this one knows up to %d). Nothing was touched. Update the program, or name another folder with --data."
                            .formatted(data, held, newest()));
        }
    }

    /** What the database holds; 0 where there is none yet, or it cannot be read so: then the start itself says more. */
    private static int held(Path data) {
        if (!Files.isRegularFile(data.resolve("yalos.mv.db"))) {
            return 0;
        }
        String address = "jdbc:h2:file:" + data.toAbsolutePath().resolve("yalos") + ";ACCESS_MODE_DATA=r;IFEXISTS=TRUE";
        try (Connection connection = DriverManager.getConnection(address, "yalos", "");
                Statement sql = connection.createStatement();
                ResultSet rows = sql.executeQuery(
                        "select coalesce(max(cast(\"version\" as int)), 0) from \"flyway_schema_history\"")) {
            rows.next();
            return rows.getInt(1);
        } catch (SQLException unreadable) {
            return 0;
        }
    }
}
