package yalos.web.history;

import java.util.List;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import yalos.core.fault.InputFault;
import yalos.core.fault.Names;
import yalos.web.shell.NotThere;
import yalos.web.store.BlockFacts;
import yalos.web.store.FactsJson;
import yalos.web.store.HistoryMapper;

/** Settings of blocks kept by name: kit, pins, brief and reasons, without the place. */
@Service
public class Templates {
    private static final int LONGEST_NAME = 80;

    private final HistoryMapper rows;

    Templates(HistoryMapper rows) {
        this.rows = rows;
    }

    /** A template in a list. */
    public record Template(long id, String name) {}

    public List<Template> all() {
        return rows.templates().stream()
                .map(row -> new Template(row.id(), row.name()))
                .toList();
    }

    /**
     * @throws InputFault for a name that is empty, too long or taken
     */
    @Transactional
    public void keep(String name, BlockFacts facts) {
        String stripped = Names.typed("name", name, LONGEST_NAME);
        rows.templateNamed(stripped).ifPresent(other -> {
            throw new InputFault("name", stripped, "There is a template called “%s” already.".formatted(stripped));
        });
        rows.insertTemplate(stripped, FactsJson.write(facts.withoutPlace()));
    }

    /** The facts with everything but their place taken from a template. */
    public BlockFacts applied(long id, BlockFacts to) {
        return to.withSettingsOf(FactsJson.read(row(id).facts()));
    }

    public String nameOf(long id) {
        return row(id).name();
    }

    @Transactional
    public void delete(long id) {
        row(id);
        rows.deleteTemplate(id);
    }

    private HistoryMapper.TemplateRow row(long id) {
        return rows.template(id)
                .orElseThrow(() -> new NotThere("There is no such template; it may have been deleted."));
    }
}
