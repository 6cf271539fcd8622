package yalos.web.pack;

import jakarta.servlet.http.HttpServletRequest;
import java.io.IOException;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.OptionalDouble;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.multipart.MultipartFile;
import yalos.core.exchange.EarlierPlan;
import yalos.core.exchange.EarlierPlan.Zero;
import yalos.core.fault.InputFault;
import yalos.core.flight.Flight;
import yalos.core.plan.BlockPlan;
import yalos.core.proof.Judgement;
import yalos.core.proof.Shares;
import yalos.core.units.Measure;
import yalos.core.units.Times;
import yalos.core.units.UnitChoice;
import yalos.core.units.UnitKind;
import yalos.web.block.Blocks;
import yalos.web.block.OpenBlock;
import yalos.web.block.PlanDesk;
import yalos.web.proof.ProofLayer;
import yalos.web.proof.ProofPicture;
import yalos.web.shell.Preferences;
import yalos.web.store.EarlierMapper.EarlierRow;

/** Plans made earlier, brought in, proved and held beside the present one. */
@Controller
class EarlierController {
    private final Blocks blocks;
    private final PlanDesk plans;
    private final EarlierPlans earlier;
    private final Preferences preferences;

    EarlierController(Blocks blocks, PlanDesk plans, EarlierPlans earlier, Preferences preferences) {
        this.blocks = blocks;
        this.plans = plans;
        this.earlier = earlier;
        this.preferences = preferences;
    }

    /** A plan in the table. */
    public record Row(
            long id,
            String name,
            String photos,
            String strips,
            String minutes,
            String share,
            String verdict,
            String mood,
            String heights,
            String fault) {}

    @GetMapping("/blocks/{id}/field-pack/earlier")
    String page(
            @PathVariable long id,
            @RequestParam(defaultValue = "0") long show,
            HttpServletRequest request,
            Model model) {
        OpenBlock block = blocks.open(id);
        BlockPlan plan = plans.needed(block.facts());
        UnitChoice units = preferences.units();
        List<Row> rows = new ArrayList<>();
        Judgement own = plans.plan(block.facts()).whole().orElseThrow().judgement();
        rows.add(row(0, "the present plan", plan.flight(), own, plan.flightTimeS(), ""));
        Optional<EarlierRow> shown = Optional.empty();
        List<EarlierRow> kept = earlier.all(id);
        for (EarlierRow one : kept) {
            String heights = heights(one, units);
            try {
                EarlierPlans.Proved proved = earlier.proved(one, block, plan, request);
                rows.add(row(one.id(), one.name(), proved.flight(), proved.judgement(), proved.seconds(), heights));
                shown = one.id() == show || show == 0 ? Optional.of(one) : shown;
            } catch (InputFault fault) {
                rows.add(new Row(one.id(), one.name(), "–", "–", "–", "–", "", "stop", heights, fault.getMessage()));
            }
        }
        model.addAttribute("block", block);
        model.addAttribute("rows", rows);
        model.addAttribute("zeros", Zero.values());
        shown.ifPresent(one -> picture(one, block, plan, units, request, model));
        return "field-pack/earlier";
    }

    private static String heights(EarlierRow row, UnitChoice units) {
        String from = Zero.valueOf(row.zero()).words();
        return row.height() == null
                ? "heights from " + from
                : "%s above %s throughout".formatted(units.text(UnitKind.HEIGHT, row.height()), from);
    }

    private static Row row(long id, String name, Flight flight, Judgement judgement, double seconds, String heights) {
        double share = judgement.share();
        return new Row(
                id,
                name,
                "%,d".formatted(flight.exposures().size()),
                String.valueOf(flight.strips()),
                Times.minutes(seconds),
                Shares.percent(share),
                judgement.verdict(),
                share < 0.5 ? "stop" : share < 0.998 ? "mind" : "done",
                heights,
                "");
    }

    private void picture(
            EarlierRow one,
            OpenBlock block,
            BlockPlan plan,
            UnitChoice units,
            HttpServletRequest request,
            Model model) {
        EarlierPlans.Proved proved = earlier.proved(one, block, plan, request);
        PackMap.Under under = new PackMap.Under(
                ProofPicture.png(proved.judgement(), ProofLayer.ADEQUATE, units),
                proved.judgement().proof().grid());
        model.addAttribute("shown", one.name());
        model.addAttribute("map", PackMap.svg(plan, proved.flight(), units, under));
        model.addAttribute("bands", ProofLayer.ADEQUATE.bands(proved.judgement(), units));
    }

    @PostMapping("/blocks/{id}/field-pack/earlier")
    String bring(
            @PathVariable long id,
            @RequestParam MultipartFile file,
            @RequestParam(defaultValue = "") String zero,
            @RequestParam(defaultValue = "") String height)
            throws IOException {
        OpenBlock block = blocks.open(id);
        BlockPlan plan = plans.needed(block.facts());
        EarlierPlan read = EarlierPlans.read(file.getBytes(), block, plan);
        OptionalDouble typed = height.isBlank()
                ? OptionalDouble.empty()
                : OptionalDouble.of(
                        Measure.typed("height", height, preferences.units().unit(UnitKind.HEIGHT))
                                .si());
        boolean heights = read.spots().stream().allMatch(spot -> spot.upM().isPresent());
        Optional<Zero> said = zero.isBlank() ? read.zero() : Optional.of(Zero.valueOf(zero));
        Zero from = said.orElseThrow(() -> new InputFault(
                "zero", "", "The file does not say what its heights count from. Choose it, and bring the file again."));
        // Where heights would be guessed, it is told now.
        read.flown(plan, from, heights ? OptionalDouble.empty() : typed);
        String name = Optional.ofNullable(file.getOriginalFilename()).orElse("earlier plan");
        earlier.keep(
                id, name.substring(Math.max(name.lastIndexOf('/'), name.lastIndexOf('\\')) + 1), read, from, typed);
        return "redirect:/blocks/" + id + "/field-pack/earlier";
    }

    @PostMapping("/blocks/{id}/field-pack/earlier/{plan}/remove")
    String remove(@PathVariable long id, @PathVariable long plan) {
        earlier.remove(id, plan);
        return "redirect:/blocks/" + id + "/field-pack/earlier";
    }
}
