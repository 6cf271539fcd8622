package yalos.bench;

import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.channels.FileChannel;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.SQLException;
import java.sql.Statement;
import java.util.Arrays;

/** What it costs to have a change on the disk before it is confirmed: the same change kept with and without being forced out. */
record DiskBench(double forcedMs, double keptMs, double fsyncMs) {
    private static final int WARM_UP = 50;
    private static final int MEASURED = 200;

    static DiskBench measure() throws IOException, SQLException {
        Path folder = Files.createTempDirectory("yalos-bench-disk");
        try (Connection connection = DriverManager.getConnection("jdbc:h2:file:" + folder.resolve("db"), "yalos", "");
                Statement sql = connection.createStatement();
                FileChannel beside = FileChannel.open(
                        folder.resolve("rounds"), StandardOpenOption.CREATE, StandardOpenOption.WRITE)) {
            sql.execute("create table step (id bigint generated always as identity primary key, facts varchar(4000))");
            double kept = median(() -> sql.execute("insert into step (facts) values (repeat('x', 2000))"));
            double forced = median(() -> {
                sql.execute("insert into step (facts) values (repeat('x', 2000))");
                sql.execute("checkpoint sync");
                beside.write(ByteBuffer.allocate(Long.BYTES), 0);
                beside.force(true);
            });
            double fsync = median(() -> {
                beside.write(ByteBuffer.allocate(4096), 0);
                beside.force(true);
            });
            return new DiskBench(forced, kept, fsync);
        }
    }

    private interface Act {
        void run() throws SQLException, IOException;
    }

    private static double median(Act act) throws SQLException, IOException {
        double[] times = new double[MEASURED];
        for (int i = -WARM_UP; i < MEASURED; i++) {
            long start = System.nanoTime();
            act.run();
            if (i >= 0) {
                times[i] = (System.nanoTime() - start) / 1e6;
            }
        }
        Arrays.sort(times);
        return times[MEASURED / 2];
    }
}
