package yalos.web.store;

import jakarta.annotation.PreDestroy;
import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.channels.FileChannel;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.sql.Connection;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.sql.Statement;
import java.util.concurrent.locks.Condition;
import java.util.concurrent.locks.ReentrantLock;
import javax.sql.DataSource;
import org.springframework.beans.factory.annotation.Value;
import org.springframework.stereotype.Service;

/**
 * Puts what was committed on the disk before anybody is told that it is kept. All who wait at the same time share one round: the database
 * is written and forced out, then the number of the round is forced into a small file beside it. A database that was cut off knows an older
 * round than that file, and is noticed at the next start.
 */
@Service
public class Durability {
    private final DataSource database;
    private final Path rounds;
    private final ReentrantLock lock = new ReentrantLock();
    private final Condition turned = lock.newCondition();
    private Round gathering = new Round();
    private boolean writing;

    /** All who wait together, and what came of it. */
    private static final class Round {
        private boolean done;
        private NotKept failure;
    }

    /**
     * @throws StartRefused when the database is older than what was confirmed
     */
    Durability(
            DataSource database,
            @Value("${yalos.data}") Path data,
            @Value("${yalos.accept-older:false}") boolean acceptOlder) {
        this.database = database;
        this.rounds = data.resolve("rounds");
        refuseOlder(acceptOlder);
    }

    private void refuseOlder(boolean accept) {
        try {
            long confirmed = Files.exists(rounds)
                    ? ByteBuffer.wrap(Files.readAllBytes(rounds)).getLong()
                    : 0;
            long held = query("select round from kept");
            if (held < confirmed && !accept) {
                throw new StartRefused(
                        "The database was cut off: it holds what was confirmed up to round %d, and %d were. Put back a copy of the data folder, or start with --accept-older to go on with the older state."
                                .formatted(held, confirmed));
            }
        } catch (IOException | SQLException e) {
            throw new StartRefused("The data folder cannot be read: " + e.getMessage());
        }
    }

    private long query(String sql) throws SQLException {
        try (Connection connection = database.getConnection();
                Statement statement = connection.createStatement();
                ResultSet rows = statement.executeQuery(sql)) {
            rows.next();
            return rows.getLong(1);
        }
    }

    /**
     * Returns when everything committed before is on the disk.
     *
     * @throws NotKept when it cannot be put there
     */
    public void sync() {
        lock.lock();
        try {
            Round mine = gathering;
            while (!mine.done) {
                if (writing) {
                    turned.awaitUninterruptibly();
                } else {
                    write(mine);
                }
            }
            if (mine.failure != null) {
                throw mine.failure;
            }
        } finally {
            lock.unlock();
        }
    }

    /** One of those who wait writes for all who joined the round; whoever comes meanwhile joins the next. */
    private void write(Round round) {
        gathering = new Round();
        writing = true;
        lock.unlock();
        NotKept fault = null;
        try {
            force();
        } catch (SQLException | IOException | RuntimeException e) {
            fault = new NotKept("The disk does not take it.", e);
        } finally {
            lock.lock();
            round.failure = fault;
            round.done = true;
            writing = false;
            turned.signalAll();
        }
    }

    private void force() throws SQLException, IOException {
        try (Connection connection = database.getConnection();
                Statement statement = connection.createStatement()) {
            statement.execute("update kept set round = round + 1");
            statement.execute("checkpoint sync");
        }
        ByteBuffer round = ByteBuffer.allocate(Long.BYTES).putLong(0, query("select round from kept"));
        try (FileChannel file = FileChannel.open(rounds, StandardOpenOption.CREATE, StandardOpenOption.WRITE)) {
            file.write(round, 0);
            file.force(true);
        }
    }

    @PreDestroy
    void close() {
        try {
            sync();
        } catch (NotKept said) {
            // Said to everybody who changed something; nobody is left to be told.
        }
    }
}
