package yalos.web;

import java.util.Locale;
import java.util.Optional;
import java.util.stream.Stream;
import org.springframework.boot.SpringApplication;
import org.springframework.boot.autoconfigure.SpringBootApplication;
import org.springframework.context.ConfigurableApplicationContext;
import yalos.web.door.SelfSigned;
import yalos.web.keep.CopyCommands;
import yalos.web.store.DataFolder;
import yalos.web.store.StartRefused;

/** Starts Yalos. Everything it keeps lies in the folder named by {@code yalos.data}. */
@SpringBootApplication
public class YalosApplication {
    public static void main(String[] args) {
        // Figures read the same on every machine; the operator's own choices come later.
        Locale.setDefault(Locale.ROOT);
        try {
            if (CopyCommands.asked(args)) {
                System.out.println(CopyCommands.run(args));
                return;
            }
            start(args);
        } catch (RuntimeException fault) {
            System.err.println(refused(fault).map(Throwable::getMessage).orElseThrow(() -> fault));
            System.exit(1);
        }
    }

    /** Starts it in this process. */
    public static ConfigurableApplicationContext start(String... args) {
        SpringApplication application = new SpringApplication(YalosApplication.class);
        DataFolder folder = new DataFolder();
        application.addInitializers(folder, new SelfSigned());
        try {
            return application.run(args);
        } catch (RuntimeException fault) {
            folder.close();
            throw fault;
        }
    }

    private static Optional<Throwable> refused(Throwable fault) {
        return Stream.iterate(fault, cause -> cause != null, Throwable::getCause)
                .filter(StartRefused.class::isInstance)
                .findFirst();
    }
}
