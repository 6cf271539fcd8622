package yalos.web;

import java.util.Locale;
import org.springframework.boot.SpringApplication;
import org.springframework.boot.autoconfigure.SpringBootApplication;

/** Starts Yalos. Everything it keeps lies in the folder named by {@code yalos.data}. */
@SpringBootApplication
public class YalosApplication {
    public static void main(String[] args) {
        // Figures read the same on every machine; the operator's own choices come later.
        Locale.setDefault(Locale.ROOT);
        SpringApplication.run(YalosApplication.class, args);
    }
}
