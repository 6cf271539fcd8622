package yalos.web.sorties;

import jakarta.servlet.http.HttpServletResponse;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.Locale;
import java.util.zip.ZipEntry;
import java.util.zip.ZipOutputStream;
import org.springframework.http.ContentDisposition;
import org.springframework.stereotype.Controller;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import yalos.core.exchange.PlanSheetData;
import yalos.core.fault.InputFault;
import yalos.core.sortie.Homing;
import yalos.core.sortie.Sortie;
import yalos.core.sortie.Sorties;
import yalos.web.block.Blocks;
import yalos.web.block.OpenBlock;
import yalos.web.block.PlanDesk;
import yalos.web.block.Planned;
import yalos.web.exchange.PlanFile;
import yalos.web.shell.Preferences;

/** Every sortie in open files, with a plain page that says what is what: one zip to carry. */
@Controller
class SortieFiles {
    private final Blocks blocks;
    private final PlanDesk plans;
    private final SortieDesk desk;
    private final Preferences preferences;

    SortieFiles(Blocks blocks, PlanDesk plans, SortieDesk desk, Preferences preferences) {
        this.blocks = blocks;
        this.plans = plans;
        this.desk = desk;
        this.preferences = preferences;
    }

    @GetMapping("/blocks/{id}/export/sorties.zip")
    void zip(@PathVariable long id, HttpServletResponse response) throws IOException {
        OpenBlock block = blocks.open(id);
        Planned planned = plans.plan(block.facts());
        Planned.Whole whole = planned.whole()
                .orElseThrow(() -> planned.fault().orElse(new InputFault("plan", "none", "There is no plan yet.")));
        SortieDesk.Found found = desk.of(id, block.facts(), whole.plan());
        Sorties sorties = found.sorties().orElseThrow(() -> new InputFault("sorties", "none", found.fault()));
        PlanSheetData data = whole.sheet(block, preferences.units());
        String name = (block.jobName() + "-" + block.name() + "-sorties")
                        .toLowerCase(Locale.ROOT)
                        .replaceAll("[^a-z0-9]+", "-")
                + ".zip";
        response.setContentType("application/zip");
        response.setHeader(
                "Content-Disposition",
                ContentDisposition.attachment().filename(name).build().toString());
        try (ZipOutputStream zip = new ZipOutputStream(response.getOutputStream())) {
            entry(zip, "README.txt", readme(data, sorties, found));
            for (Sortie sortie : sorties.all()) {
                PlanSheetData part = data.part("sortie " + sortie.number(), sortie.flight(), sortie.start());
                for (PlanFile file : PlanFile.values()) {
                    // Some writers close what they write to; the zip stays open.
                    ByteArrayOutputStream bytes = new ByteArrayOutputStream();
                    file.write(part, bytes);
                    entry(zip, "sortie-%d.%s".formatted(sortie.number(), file.key()), bytes.toByteArray());
                }
            }
        }
    }

    private static void entry(ZipOutputStream zip, String name, byte[] bytes) throws IOException {
        zip.putNextEntry(new ZipEntry(name));
        zip.write(bytes);
        zip.closeEntry();
    }

    private static byte[] readme(PlanSheetData data, Sorties sorties, SortieDesk.Found found) {
        StringBuilder text = new StringBuilder();
        text.append(data.title()).append("\n\n");
        data.remarks().forEach(line -> text.append(line).append("\n"));
        text.append(
                "\nOne file of each kind for every sortie: GeoJSON (heights above take-off), KML, GPX, and CSV of stations with all heights and angles.\n");
        text.append(
                "Stations keep their numbers of the plan; a sortie that goes on within a strip begins some stations before.\n\n");
        List<Charged> charged = Charged.of(sorties, found.packs());
        for (Sortie sortie : sorties.all()) {
            Charged battery = charged.get(sortie.number() - 1);
            Homing homing = sortie.homing();
            text.append(
                    "Sortie %d: stations %d to %d, %s, %s at take-off, lands with %s; return height %.0f m above take-off.%n"
                            .formatted(
                                    sortie.number(),
                                    sortie.start() + 1,
                                    sortie.to() + 1,
                                    Percent.minutes(sortie.seconds()),
                                    (battery.name().isEmpty() ? "" : "battery " + battery.name() + " ")
                                            + Percent.of(battery.charge()),
                                    Percent.margin(battery.left()),
                                    homing.returnUpM() - homing.takeOffUpM()));
        }
        text.append(
                "\nYalos computes and warns; it authorises nothing. Local law and the judgement of the licensed pilot come first.\n");
        return text.toString().replace("\r\n", "\n").getBytes(StandardCharsets.UTF_8);
    }
}
