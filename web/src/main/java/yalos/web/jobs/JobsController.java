package yalos.web.jobs;

import java.util.List;
import java.util.Optional;
import org.springframework.http.HttpStatus;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.servlet.ModelAndView;
import yalos.core.exchange.TypedPosition;
import yalos.core.fault.InputFault;
import yalos.core.geodesy.LonLat;
import yalos.core.units.UnitChoice;
import yalos.core.units.UnitKind;
import yalos.web.block.Blocks;
import yalos.web.block.OpenBlock;
import yalos.web.block.PlanDesk;
import yalos.web.history.Templates;
import yalos.web.sheet.Thumbnail;
import yalos.web.shell.NotThere;
import yalos.web.shell.Preferences;
import yalos.web.store.JobMapper;

/** The page one starts from: all jobs, their blocks, and a new one. */
@Controller
class JobsController {
    private final Jobs jobs;
    private final JobMapper rows;
    private final Blocks blocks;
    private final PlanDesk desk;
    private final Preferences preferences;
    private final Templates templates;

    JobsController(
            Jobs jobs, JobMapper rows, Blocks blocks, PlanDesk desk, Preferences preferences, Templates templates) {
        this.templates = templates;
        this.jobs = jobs;
        this.rows = rows;
        this.blocks = blocks;
        this.desk = desk;
        this.preferences = preferences;
    }

    /** A job with its blocks. */
    record JobView(long id, String name, List<BlockView> blocks) {}

    /** A block in a line: how large, how fine, how long, and its outline drawn small. */
    record BlockView(
            long id, String name, String area, String gsd, String photos, String time, String label, String outline) {}

    @GetMapping("/")
    String start() {
        return "redirect:/jobs";
    }

    @GetMapping("/jobs")
    ModelAndView list() {
        return page(HttpStatus.OK, "", "", "");
    }

    @PostMapping("/jobs")
    ModelAndView create(@RequestParam String name, @RequestParam(defaultValue = "") String place) {
        try {
            Optional<LonLat> launch =
                    place.isBlank() ? Optional.empty() : Optional.of(TypedPosition.read(place, Optional.empty()));
            long block = jobs.create(name, launch);
            return new ModelAndView("redirect:/blocks/" + block + "/ground");
        } catch (InputFault fault) {
            return page(HttpStatus.BAD_REQUEST, fault.getMessage(), name, place);
        }
    }

    private ModelAndView page(HttpStatus status, String fault, String name, String place) {
        UnitChoice units = preferences.units();
        ModelAndView view = new ModelAndView("jobs/jobs", status);
        view.addObject(
                "jobs",
                rows.jobs().stream()
                        .map(job -> new JobView(
                                job.id(),
                                job.name(),
                                blocks.ofJob(job.id()).stream()
                                        .map(block -> view(block, units))
                                        .toList()))
                        .toList());
        view.addObject("fault", fault);
        view.addObject("name", name);
        view.addObject("place", place);
        return view;
    }

    private BlockView view(OpenBlock block, UnitChoice units) {
        var plan = desk.plan(block.facts()).whole().map(whole -> whole.plan());
        return new BlockView(
                block.id(),
                block.name(),
                block.facts().outline().isEmpty()
                        ? "no outline yet"
                        : units.text(UnitKind.AREA, block.facts().outline().areaM2()),
                plan.map(p -> units.text(UnitKind.GSD, p.design().scale().gsdM()))
                        .orElse("–"),
                plan.map(p -> p.photos() + " photos").orElse("–"),
                plan.map(p -> units.text(UnitKind.DURATION, p.flightTimeS())).orElse("–"),
                block.label(),
                Thumbnail.path(block.facts()));
    }

    @GetMapping("/jobs/{id}")
    String job(@PathVariable long id, Model model) {
        JobMapper.JobRow job = rows.job(id).orElseThrow(() -> new NotThere("There is no such job; it may be deleted."));
        model.addAttribute("job", job);
        model.addAttribute("templates", templates.all());
        model.addAttribute(
                "blocks",
                blocks.ofJob(id).stream()
                        .map(block -> view(block, preferences.units()))
                        .toList());
        return "jobs/job";
    }

    @PostMapping("/jobs/{id}/blocks")
    String addBlock(@PathVariable long id, @RequestParam String name, @RequestParam(defaultValue = "0") long template) {
        rows.job(id).orElseThrow(() -> new NotThere("There is no such job; it may be deleted."));
        return "redirect:/blocks/" + jobs.addBlock(id, name, template) + "/ground";
    }

    @PostMapping("/jobs/{id}/rename")
    String rename(@PathVariable long id, @RequestParam String name) {
        jobs.rename(id, name);
        return "redirect:/jobs/" + id;
    }

    @PostMapping("/jobs/{id}/delete")
    String delete(@PathVariable long id, @RequestParam String confirm) {
        JobMapper.JobRow job = rows.job(id).orElseThrow(() -> new NotThere("There is no such job; it may be deleted."));
        if (!job.name().equals(confirm.strip())) {
            throw new InputFault(
                    "confirm",
                    confirm,
                    "The job was not deleted. Type its name, “%s”, to delete it.".formatted(job.name()));
        }
        jobs.delete(id);
        return "redirect:/jobs";
    }

    @PostMapping("/blocks/{id}/copy")
    String copy(@PathVariable long id) {
        return "redirect:/blocks/" + jobs.copyBlock(id) + "/strips";
    }

    @PostMapping("/blocks/{id}/delete")
    String deleteBlock(@PathVariable long id) {
        long job = blocks.open(id).jobId();
        jobs.deleteBlock(id);
        return "redirect:/jobs/" + job;
    }
}
