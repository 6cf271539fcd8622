package yalos.web.log;

import java.time.LocalDate;
import java.time.LocalDateTime;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.springframework.stereotype.Service;
import org.springframework.transaction.PlatformTransactionManager;
import org.springframework.transaction.support.TransactionTemplate;
import yalos.core.control.ControlLayout;
import yalos.core.day.DaySettings;
import yalos.core.fault.InputFault;
import yalos.core.kit.Kit;
import yalos.core.logbook.Moved;
import yalos.core.pins.Quantity;
import yalos.core.plan.BlockPlan;
import yalos.web.block.OpenBlock;
import yalos.web.block.PlanDesk;
import yalos.web.block.Planned;
import yalos.web.elevation.Models;
import yalos.web.jobs.Jobs;
import yalos.web.kit.Catalogue;
import yalos.web.shell.NotThere;
import yalos.web.shell.Person;
import yalos.web.store.BlockFacts;
import yalos.web.store.ControlMapper;
import yalos.web.store.ControlMapper.ObservationRow;
import yalos.web.store.FactsJson;
import yalos.web.store.Fieldwork;
import yalos.web.store.GroundFacts;
import yalos.web.store.GroundFacts.ModelUse;
import yalos.web.store.HistoryMapper;
import yalos.web.store.LogMapper;
import yalos.web.store.LogMapper.FlightRow;
import yalos.web.store.LogMapper.RepeatedRow;

/** The same again: a new block with the lines, camera, height and direction of a flight or an issued revision. */
@Service
public class Repeats {
    private static final int LONGEST_ACCEPTED = 4000;

    private final Jobs jobs;
    private final PlanDesk plans;
    private final LogMapper log;
    private final HistoryMapper history;
    private final ControlMapper control;
    private final Models models;
    private final Catalogue catalogue;
    private final TransactionTemplate transaction;

    Repeats(
            Jobs jobs,
            PlanDesk plans,
            LogMapper log,
            HistoryMapper history,
            ControlMapper control,
            Models models,
            Catalogue catalogue,
            PlatformTransactionManager transactions) {
        this.jobs = jobs;
        this.plans = plans;
        this.log = log;
        this.history = history;
        this.control = control;
        this.models = models;
        this.catalogue = catalogue;
        this.transaction = new TransactionTemplate(transactions);
    }

    /**
     * What can be flown again.
     *
     * @param key {@code flight:12} or {@code revision:3}
     * @param start of the flight; empty for a revision
     */
    public record Before(
            String key, String words, BlockFacts facts, Optional<LocalDateTime> start, String uid, int revision) {}

    /** What a block can be flown again from, newest flights first. */
    public record Choice(String key, String words) {}

    List<Choice> choices(long block) {
        List<Choice> all = new ArrayList<>();
        for (FlightRow row : log.flights(LogMapper.Wanted.ofBlock(block), 0, 20)) {
            if (row.leftOut.isEmpty()) {
                all.add(new Choice(
                        "flight:" + row.id,
                        "as flown on "
                                + row.startedAt.toString().replace('T', ' ').substring(0, 16)));
            }
        }
        history.revisions(block)
                .forEach(row -> all.add(new Choice(
                        "revision:" + row.number(),
                        "revision %d, issued %s%s"
                                .formatted(
                                        row.number(),
                                        row.issuedAt().toLocalDate(),
                                        row.note().isEmpty() ? "" : ": " + row.note()))));
        return all;
    }

    /**
     * @throws NotThere for what the block does not have
     */
    public Before before(OpenBlock block, String key) {
        String[] parts = key.split(":", 2);
        if (parts.length == 2 && parts[1].matches("\\d{1,9}")) {
            long number = Long.parseLong(parts[1]);
            if (parts[0].equals("flight")) {
                FlightRow row = log.flight(number)
                        .filter(one -> one.blockId != null && one.blockId == block.id())
                        .orElseThrow(() -> new NotThere("This block has no such flight in its log."));
                return new Before(
                        key,
                        "as flown on "
                                + row.startedAt.toString().replace('T', ' ').substring(0, 16),
                        FactsJson.read(log.facts(row.id)),
                        Optional.of(row.startedAt),
                        row.uid,
                        0);
            }
            if (parts[0].equals("revision")) {
                HistoryMapper.RevisionRow row = history.revision(block.id(), (int) number)
                        .orElseThrow(() -> new NotThere("This block has no revision %d.".formatted(number)));
                return new Before(
                        key,
                        "revision %d, issued %s"
                                .formatted(row.number(), row.issuedAt().toLocalDate()),
                        FactsJson.read(row.facts()),
                        Optional.empty(),
                        "",
                        row.number());
            }
        }
        throw new NotThere("Choose a flight of the log or an issued revision to fly again.");
    }

    /** What the catalogue says of a kit of that name now. */
    Optional<Kit> catalogued(Kit kit) {
        return catalogue.kit(kit.name());
    }

    List<Since.Change> changes(OpenBlock block, Before before) {
        return Since.of(
                before.facts(), block.facts(), catalogued(before.facts().kit()).orElse(null));
    }

    List<Since.Point> points(OpenBlock block, Before before, LocalDate day) {
        return Since.points(before.facts(), control.observations(block.id()), day);
    }

    /**
     * What is decided of flying it again.
     *
     * @param take parts that are taken as they are now
     * @param terrain {@code then}, {@code now}, or the number of a model of the job
     * @param condition of each point by name: {@code good}, {@code doubtful}, {@code gone}
     */
    public record Decided(
            String name, Optional<LocalDate> day, Set<String> take, String terrain, Map<String, String> condition) {
        /** The condition of a point, whichever way its name is written; good where nobody said otherwise. */
        public String of(String point) {
            return condition.entrySet().stream()
                    .filter(one -> ControlLayout.key(one.getKey()).equals(ControlLayout.key(point)))
                    .map(Map.Entry::getValue)
                    .findFirst()
                    .orElse("good");
        }
    }

    /** Facts of the new block, as decided. */
    BlockFacts facts(OpenBlock block, Before before, Decided decided) {
        BlockFacts then = before.facts();
        BlockFacts now = block.facts();
        GroundFacts ground = then.ground();
        if (decided.take().contains("obstacles")) {
            ground = ground.withObstacles(now.ground().obstacles());
        }
        if (decided.take().contains("zones")) {
            ground = ground.withZones(now.ground().zones());
        }
        ground = ground.withModels(terrain(block, ground.models(), decided.terrain()));
        BlockFacts again = then.with(ground);
        if (decided.take().contains("kit")) {
            again = again.with(now.kit());
        }
        if (decided.take().contains("catalogue")) {
            again = again.with(catalogued(then.kit()).orElse(then.kit()));
        }
        if (decided.take().contains("ceiling")) {
            again = again.with(now.pins()
                    .of(Quantity.CEILING)
                    .map(ceiling -> then.pins().with(Quantity.CEILING, ceiling))
                    .orElseGet(() -> then.pins().without(Quantity.CEILING)));
        }
        Fieldwork field = then.field();
        if (decided.take().contains("sorties")) {
            field = field.with(now.field().sorties());
        }
        DaySettings day = decided.take().contains("limits") ? now.field().day() : field.day();
        field = field.with(day.again(
                decided.day(), first(block, before).or(() -> then.field().day().earlier())));
        ControlLayout layout = field.control();
        for (Map.Entry<String, String> one : decided.condition().entrySet()) {
            if (one.getValue().equals("gone") && layout.named(one.getKey()).isPresent()) {
                layout = layout.without(one.getKey());
            }
        }
        return again.with(field.with(layout));
    }

    private List<ModelUse> terrain(OpenBlock block, List<ModelUse> then, String choice) {
        if (choice.equals("then") || choice.isBlank()) {
            return then;
        }
        if (choice.equals("now")) {
            return block.facts().ground().models();
        }
        if (!choice.matches("\\d{1,18}")) {
            throw new InputFault(
                    "terrain", choice, "Choose the terrain as it was, as it is now, or a model of the job.");
        }
        ModelUse chosen = models.use(block.jobId(), Long.parseLong(choice));
        List<ModelUse> all = new ArrayList<>(List.of(chosen));
        then.stream().filter(one -> one.id() != chosen.id()).forEach(all::add);
        return all;
    }

    /** How far the photos move; empty where there is no plan to hold them against, such as one whose terrain is gone. */
    Optional<Moved> moved(BlockFacts then, BlockFacts again) {
        Optional<BlockPlan> before = plans.plan(then).whole().map(Planned.Whole::plan);
        return before.flatMap(
                was -> plans.plan(again).whole().map(Planned.Whole::plan).map(is -> Moved.between(was, is)));
    }

    /**
     * Makes the new block; its points keep what was measured of them, with where that comes from. The plan is made in no transaction, since it may take long.
     *
     * @throws InputFault where it cannot be planned, or its name is taken
     */
    public long repeat(OpenBlock block, Before before, Decided decided) {
        BlockFacts facts = facts(block, before, decided);
        plans.needed(facts);
        return transaction.execute(kept -> keep(block, before, decided, facts));
    }

    private long keep(OpenBlock block, Before before, Decided decided, BlockFacts facts) {
        long made =
                jobs.addBlock(block.jobId(), decided.name(), facts, "again: " + block.name() + ", " + before.words());
        for (ObservationRow row : control.observations(block.id())) {
            String condition = decided.of(row.point());
            if (!condition.equals("gone") && facts.control().named(row.point()).isPresent()) {
                control.append(made, reused(row, block, condition));
            }
        }
        String taken = decided.take().isEmpty()
                ? "nothing"
                : String.join(", ", decided.take().stream().sorted().toList());
        String conditions = decided.condition().entrySet().stream()
                .sorted(Map.Entry.comparingByKey())
                .map(one -> one.getKey() + " " + one.getValue())
                .reduce((one, other) -> one + ", " + other)
                .orElse("no points");
        String accepted =
                "taken as it is now: %s; terrain: %s; points: %s".formatted(taken, decided.terrain(), conditions);
        log.repeat(new RepeatedRow(
                made,
                block.id(),
                before.uid(),
                before.revision(),
                first(block, before).orElse(null),
                accepted.substring(0, Math.min(accepted.length(), LONGEST_ACCEPTED)),
                LocalDateTime.now().withNano(0),
                Person.present()));
        return made;
    }

    /** The very first flight of a row of repeats: its light is wanted again. */
    Optional<LocalDateTime> first(OpenBlock block, Before before) {
        return log.repeated(block.id())
                .flatMap(row -> Optional.ofNullable(row.firstStart()))
                .or(before::start);
    }

    private static ObservationRow reused(ObservationRow row, OpenBlock block, String condition) {
        String source = "from %s: %s".formatted(block.name(), row.source());
        String note = "reused, %s%s".formatted(condition, row.note().isEmpty() ? "" : "; " + row.note());
        return new ObservationRow(
                0,
                row.point(),
                row.measuredAt() == null ? row.keptAt() : row.measuredAt(),
                row.lon(),
                row.lat(),
                row.up(),
                row.epochs(),
                row.horizontal(),
                row.vertical(),
                row.rms(),
                row.solution(),
                row.satellites(),
                row.pole(),
                note.substring(0, Math.min(note.length(), 300)),
                source.substring(0, Math.min(source.length(), 200)),
                row.keptAt(),
                row.keptBy(),
                condition.equals("doubtful") ? "REJECTED" : row.verdict(),
                condition.equals("doubtful") ? "reused in doubt: measure it again" : row.reason());
    }

    /** The block that a row of repeats began with. */
    long root(long block) {
        long at = block;
        for (int i = 0; i < 1000; i++) {
            Optional<Long> before = log.repeated(at).flatMap(row -> Optional.ofNullable(row.ofBlock()));
            if (before.isEmpty()) {
                return at;
            }
            at = before.orElseThrow();
        }
        return at;
    }

    /** All blocks of a row of repeats, as they were made, each once. */
    List<Long> row(long block) {
        List<Long> all = new ArrayList<>(List.of(root(block)));
        for (int i = 0; i < all.size(); i++) {
            log.repeats(all.get(i)).stream().filter(one -> !all.contains(one)).forEach(all::add);
        }
        return all.stream().sorted().toList();
    }
}
