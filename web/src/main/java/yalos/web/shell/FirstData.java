package yalos.web.shell;

import java.util.List;
import org.springframework.beans.factory.SmartInitializingSingleton;
import org.springframework.stereotype.Component;

/** What a fresh store is given before the first page can be asked for. Does nothing where it was written already. */
public interface FirstData {
    void write();

    /** Writes all of it, in the order of the beans, once everything is there and before the port opens. */
    @Component
    final class Writer implements SmartInitializingSingleton {
        private final List<FirstData> all;

        Writer(List<FirstData> all) {
            this.all = all;
        }

        @Override
        public void afterSingletonsInstantiated() {
            all.forEach(FirstData::write);
        }
    }
}
