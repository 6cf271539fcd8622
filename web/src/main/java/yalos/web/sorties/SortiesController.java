package yalos.web.sorties;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.function.UnaryOperator;
import org.springframework.stereotype.Controller;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;
import yalos.core.exchange.TypedPosition;
import yalos.core.geodesy.LonLat;
import yalos.core.sortie.FenceAct;
import yalos.core.sortie.LostLink;
import yalos.core.sortie.SortieSettings;
import yalos.core.units.Measure;
import yalos.core.units.Unit;
import yalos.core.units.UnitKind;
import yalos.web.block.BlockPage;
import yalos.web.block.Blocks;
import yalos.web.block.Visit;
import yalos.web.shell.Preferences;
import yalos.web.store.BlockFacts;

/** How a block is flown in sorties: launch points, pilot, heights, fences, charge. */
@Controller
class SortiesController {
    private final Blocks blocks;
    private final BlockPage page;
    private final Preferences preferences;

    SortiesController(Blocks blocks, BlockPage page, Preferences preferences) {
        this.blocks = blocks;
        this.page = page;
        this.preferences = preferences;
    }

    private String change(long id, Visit visit, String label, UnaryOperator<BlockFacts> change) {
        return page.changed(blocks.change(id, visit.version(), label, change), visit);
    }

    private static BlockFacts with(BlockFacts facts, UnaryOperator<SortieSettings> change) {
        return facts.with(change.apply(facts.field().sorties()));
    }

    /** A launch point more; the first becomes the block's own where it has none. */
    @PostMapping("/blocks/{id}/sorties/launches")
    String add(
            @PathVariable long id,
            @RequestParam String place,
            @RequestParam(defaultValue = "") String name,
            Visit visit) {
        return change(id, visit, "launch point added", facts -> {
            LonLat at = TypedPosition.read(place, facts.grid());
            if (facts.launch().isEmpty()) {
                return facts.withLaunch(Optional.of(at));
            }
            int number = facts.field().sorties().launches().size() + 2;
            String given = name.isBlank() ? "launch point " + number : name;
            return with(facts, settings -> settings.plus(new SortieSettings.Launch(given, at)));
        });
    }

    /** A launch point put elsewhere; the block's own is number -1. */
    @PostMapping("/blocks/{id}/sorties/launches/move")
    String move(@PathVariable long id, @RequestParam int at, @RequestParam String place, Visit visit) {
        return change(id, visit, "launch point moved", facts -> {
            LonLat to = TypedPosition.read(place, facts.grid());
            if (at < 0) {
                return facts.withLaunch(Optional.of(to));
            }
            return with(facts, settings -> {
                List<SortieSettings.Launch> launches = new ArrayList<>(settings.launches());
                SortieSettings.Launch old = Listed.at(launches, at, "at");
                launches.set(at, new SortieSettings.Launch(old.name(), to));
                return settings.withLaunches(launches);
            });
        });
    }

    @PostMapping("/blocks/{id}/sorties/launches/edit")
    String edit(
            @PathVariable long id,
            @RequestParam int at,
            @RequestParam String name,
            @RequestParam String place,
            Visit visit) {
        return change(
                id,
                visit,
                "launch point edited",
                facts -> with(facts, settings -> {
                    List<SortieSettings.Launch> launches = new ArrayList<>(settings.launches());
                    Listed.at(launches, at, "at");
                    launches.set(at, new SortieSettings.Launch(name, TypedPosition.read(place, facts.grid())));
                    return settings.withLaunches(launches);
                }));
    }

    @PostMapping("/blocks/{id}/sorties/launches/remove")
    String remove(@PathVariable long id, @RequestParam int at, Visit visit) {
        return change(
                id,
                visit,
                "launch point taken away",
                facts -> with(facts, settings -> {
                    List<SortieSettings.Launch> launches = new ArrayList<>(settings.launches());
                    Listed.at(launches, at, "at");
                    launches.remove(at);
                    return settings.withLaunches(launches);
                }));
    }

    /** Where the pilot stands; at the launch point where empty. */
    @PostMapping("/blocks/{id}/sorties/pilot")
    String pilot(@PathVariable long id, @RequestParam(defaultValue = "") String place, Visit visit) {
        return change(
                id,
                visit,
                place.isBlank() ? "pilot at the launch point" : "pilot's place",
                facts -> with(
                        facts,
                        settings -> settings.withPilot(
                                place.isBlank()
                                        ? Optional.empty()
                                        : Optional.of(TypedPosition.read(place, facts.grid())))));
    }

    @PostMapping("/blocks/{id}/sorties/settings")
    String settings(
            @PathVariable long id,
            @RequestParam String eye,
            @RequestParam(defaultValue = "") String span,
            @RequestParam String charge,
            @RequestParam int repeated,
            @RequestParam(defaultValue = "") String returnHeight,
            @RequestParam String margin,
            @RequestParam String fenceMargin,
            @RequestParam FenceAct fence,
            @RequestParam LostLink lostLink,
            @RequestParam(defaultValue = "false") boolean satellites,
            Visit visit) {
        return change(
                id,
                visit,
                "how sorties are flown",
                facts -> with(
                        facts,
                        settings -> new SortieSettings(
                                settings.launches(),
                                settings.pilot(),
                                si("eye", eye, UnitKind.HEIGHT),
                                span.isBlank()
                                        ? OptionalDouble.empty()
                                        : OptionalDouble.of(si("span", span, UnitKind.DISTANCE)),
                                Measure.typed("charge", charge, Unit.PERCENT).si(),
                                repeated,
                                returnHeight.isBlank()
                                        ? OptionalDouble.empty()
                                        : OptionalDouble.of(si("returnHeight", returnHeight, UnitKind.HEIGHT)),
                                si("margin", margin, UnitKind.HEIGHT),
                                si("fenceMargin", fenceMargin, UnitKind.DISTANCE),
                                fence,
                                lostLink,
                                satellites)));
    }

    private double si(String field, String text, UnitKind kind) {
        double si = Measure.typed(field, text, preferences.typed().unit(kind)).si();
        return Math.round(si * 1e6) / 1e6;
    }
}
