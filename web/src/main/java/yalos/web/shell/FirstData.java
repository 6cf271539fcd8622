package yalos.web.shell;

import java.util.List;
import org.springframework.beans.factory.SmartInitializingSingleton;
import org.springframework.stereotype.Component;
import org.springframework.transaction.PlatformTransactionManager;
import org.springframework.transaction.support.TransactionTemplate;
import yalos.web.store.Durability;

/** What a fresh store is given before the first page can be asked for. Does nothing where it was written already. */
public interface FirstData {
    void write();

    /**
     * Writes all of it, in the order of the beans, once everything is there and before the port opens; whole or not at all, so that a start
     * that is killed leaves nothing half-made.
     */
    @Component
    final class Writer implements SmartInitializingSingleton {
        private final List<FirstData> all;
        private final TransactionTemplate transaction;
        private final Durability durability;

        Writer(List<FirstData> all, PlatformTransactionManager transactions, Durability durability) {
            this.all = all;
            this.transaction = new TransactionTemplate(transactions);
            this.durability = durability;
        }

        @Override
        public void afterSingletonsInstantiated() {
            transaction.executeWithoutResult(whole -> all.forEach(FirstData::write));
            durability.sync();
        }
    }
}
