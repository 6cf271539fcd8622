package yalos.web.kit;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.function.Function;
import java.util.stream.Stream;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import yalos.core.fault.InputFault;
import yalos.core.kit.Aircraft;
import yalos.core.kit.Kit;
import yalos.core.kit.Scanner;
import yalos.web.shell.NotThere;
import yalos.web.store.CameraMapper;
import yalos.web.store.CameraRow;
import yalos.web.store.GearJson;
import yalos.web.store.GearMapper;
import yalos.web.store.GearMapper.GearRow;
import yalos.web.store.Unreadable;

/** The operator's own catalogue. What a block took from it stays with the block, whatever becomes of the entry. */
@Service
public class Catalogue {
    private final GearMapper rows;
    private final CameraMapper cameras;

    Catalogue(GearMapper rows, CameraMapper cameras) {
        this.rows = rows;
        this.cameras = cameras;
    }

    /** An entry with its number in the catalogue. */
    record Entry<T>(long id, String name, T gear) {}

    List<Entry<Kit>> kits() {
        return all(GearKind.KIT, Kit.class);
    }

    /** The kit of a name as the catalogue has it now. */
    public Optional<Kit> kit(String name) {
        return kits().stream()
                .map(Entry::gear)
                .filter(kit -> kit.name().equals(name))
                .findFirst();
    }

    List<Entry<Aircraft>> aircraft() {
        return all(GearKind.AIRCRAFT, Aircraft.class);
    }

    List<Entry<Scanner>> scanners() {
        return all(GearKind.SCANNER, Scanner.class);
    }

    private <T> List<Entry<T>> all(GearKind kind, Class<T> type) {
        return rows.all(kind.name()).stream()
                .flatMap(row -> readable(row, type).stream())
                .toList();
    }

    /** One entry that cannot be read harms no other; {@link #damaged} says which. */
    private static <T> Optional<Entry<T>> readable(GearRow row, Class<T> type) {
        try {
            return Optional.of(new Entry<>(row.id(), row.name(), GearJson.read(row.content(), type)));
        } catch (Unreadable damaged) {
            return Optional.empty();
        }
    }

    /** An entry that cannot be read any more. */
    record Damaged(String kind, long id, String name) {}

    /** Entries that cannot be read, to be deleted. */
    List<Damaged> damaged() {
        return Stream.of(GearKind.values())
                .flatMap(kind -> rows.all(kind.name()).stream()
                        .filter(row -> readable(row, kind.type()).isEmpty())
                        .map(row -> new Damaged(kind.key(), row.id(), row.name())))
                .toList();
    }

    /**
     * @throws NotThere when the entry is gone
     */
    <T> T gear(GearKind kind, long id, Class<T> type) {
        return GearJson.read(row(kind, id).content(), type);
    }

    private GearRow row(GearKind kind, long id) {
        return rows.byId(kind.name(), id)
                .orElseThrow(
                        () -> new NotThere("There is no such %s; it may have been deleted.".formatted(kind.word())));
    }

    /**
     * Keeps an entry; a new one where the id is 0.
     *
     * @throws InputFault when another entry has the name
     */
    @Transactional
    void keep(GearKind kind, long id, String name, Object gear) {
        rows.named(kind.name(), name).filter(other -> other != id).ifPresent(other -> {
            throw new InputFault(
                    "name", name, "The catalogue has a %s called “%s” already.".formatted(kind.word(), name));
        });
        if (id == 0) {
            rows.insert(kind.name(), name, GearJson.write(gear));
        } else {
            row(kind, id);
            rows.update(id, name, GearJson.write(gear));
        }
    }

    @Transactional
    void delete(GearKind kind, long id) {
        row(kind, id);
        rows.delete(kind.name(), id);
    }

    /** What an import brought. */
    record Brought(int added, int known, List<String> renamed) {}

    /** Adds every entry of a catalogue that was read; names that are taken get a number behind them. */
    @Transactional
    Brought add(CatalogueFile file) {
        List<String> renamed = new ArrayList<>();
        int known = 0;
        for (CameraRow camera : file.cameras()) {
            if (cameras.all().stream().anyMatch(row -> row.same(camera))) {
                known++;
                continue;
            }
            String name = free(camera.name(), cameras::named, renamed);
            cameras.insert(camera.named(name));
        }
        for (Aircraft aircraft : file.aircraft()) {
            known += addGear(GearKind.AIRCRAFT, aircraft.name(), aircraft, renamed);
        }
        for (Scanner scanner : file.scanners()) {
            known += addGear(GearKind.SCANNER, scanner.name(), scanner, renamed);
        }
        for (Kit kit : file.kits()) {
            known += addGear(GearKind.KIT, kit.name(), kit, renamed);
        }
        int added = file.cameras().size()
                + file.aircraft().size()
                + file.scanners().size()
                + file.kits().size();
        return new Brought(added - known, known, renamed);
    }

    /** Keeps a thing under its name, or a free one; answers 1 for what is there already with the same figures. */
    private int addGear(GearKind kind, String name, Object gear, List<String> renamed) {
        String text = GearJson.write(gear);
        boolean known = rows.all(kind.name()).stream()
                .anyMatch(row -> row.name().equals(name) && row.content().equals(text));
        if (known) {
            return 1;
        }
        String free = free(name, wanted -> rows.named(kind.name(), wanted), renamed);
        rows.insert(kind.name(), free, text);
        return 0;
    }

    private static String free(String name, Function<String, Optional<Long>> taken, List<String> renamed) {
        if (taken.apply(name).isEmpty()) {
            return name;
        }
        for (int number = 2; ; number++) {
            String tail = " (" + number + ")";
            String other = name.substring(0, Math.min(name.length(), 80 - tail.length())) + tail;
            if (taken.apply(other).isEmpty()) {
                renamed.add(other);
                return other;
            }
        }
    }

    /** All of it, to be handed out. */
    CatalogueFile file() {
        return new CatalogueFile(
                cameras.all(),
                aircraft().stream().map(Entry::gear).toList(),
                scanners().stream().map(Entry::gear).toList(),
                kits().stream().map(Entry::gear).toList());
    }
}
