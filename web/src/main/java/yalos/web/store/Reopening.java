package yalos.web.store;

import com.zaxxer.hikari.HikariDataSource;
import java.sql.Connection;
import java.sql.SQLException;
import java.sql.Statement;
import java.util.Set;
import java.util.stream.Stream;
import javax.sql.DataSource;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.stereotype.Component;

/**
 * A database that met the end of the disk closes itself and stays so. Here it is opened anew, at the state that was last on the disk; nothing
 * that was confirmed is lost by that.
 */
@Component
public class Reopening {
    private static final Logger LOG = LoggerFactory.getLogger(Reopening.class);
    /** H2: database closed, input or output failed, general error of its store. */
    private static final Set<Integer> CLOSED = Set.of(90098, 90121, 90028, 90031, 50000);

    private final DataSource database;

    Reopening(DataSource database) {
        this.database = database;
    }

    /** Opens the database anew where a fault comes from its having closed itself; whether it does. */
    public boolean mend(Throwable fault) {
        boolean closed = Stream.iterate(fault, cause -> cause != null, Throwable::getCause)
                .anyMatch(cause -> cause instanceof SQLException sql && CLOSED.contains(sql.getErrorCode()));
        if (closed) {
            reopen();
        }
        return closed;
    }

    private synchronized void reopen() {
        if (stands()) {
            return;
        }
        try (Connection broken = database.getConnection();
                Statement sql = broken.createStatement()) {
            sql.execute("shutdown immediately");
        } catch (SQLException expected) {
            LOG.debug("The closed database was let go", expected);
        }
        if (database instanceof HikariDataSource pool && pool.getHikariPoolMXBean() != null) {
            pool.getHikariPoolMXBean().softEvictConnections();
        }
        LOG.warn("The database closed itself and was opened anew: {}", stands() ? "it stands" : "not yet");
    }

    private boolean stands() {
        try (Connection connection = database.getConnection();
                Statement sql = connection.createStatement()) {
            return sql.executeQuery("select round from kept").next();
        } catch (SQLException fault) {
            // Whatever else is wrong, such as no connection being free, is no reason to close it.
            return !CLOSED.contains(fault.getErrorCode());
        }
    }
}
