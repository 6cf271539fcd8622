package yalos.web.pack;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.sql.SQLException;
import java.util.List;
import java.util.Map;
import java.util.zip.ZipEntry;
import java.util.zip.ZipOutputStream;
import javax.xml.stream.XMLStreamException;
import org.springframework.stereotype.Component;
import yalos.core.exchange.PlanSheetData;
import yalos.core.exchange.PointFiles;
import yalos.core.proof.Adequacy;
import yalos.core.proof.Judgement;
import yalos.core.sortie.Homing;
import yalos.core.sortie.Sortie;
import yalos.core.sortie.Sorties;
import yalos.core.terrain.GeoTiffWriter;
import yalos.core.terrain.HeightGrid;
import yalos.core.units.Times;
import yalos.web.control.PointsOut;
import yalos.web.exchange.PlanFile;
import yalos.web.proof.ProofLayer;
import yalos.web.sorties.Charged;
import yalos.web.sorties.Percent;
import yalos.web.work.Work;

/** Everything a plan is, in open files: plan and sorties, points, terrain, layers of the proof, and a plain page that says what is what. */
@Component
class PackFiles {
    private static final List<String> POINTS = List.of("geojson", "kml", "gpx", "csv", "gpkg");
    private static final ProofLayer[] LAYERS = {
        ProofLayer.ADEQUATE, ProofLayer.COUNT, ProofLayer.GSD, ProofLayer.ANGLE, ProofLayer.SIGMA_H, ProofLayer.SIGMA_Z
    };

    private final PointsOut points;
    private final PackWriter writer;

    PackFiles(PointsOut points, PackWriter writer) {
        this.points = points;
        this.writer = writer;
    }

    byte[] zip(PackWriter.Packed packed, Work<?> work) {
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        try (ZipOutputStream zip = new ZipOutputStream(out)) {
            PlanSheetData data = packed.whole().sheet(packed.block(), packed.units());
            entry(zip, "README.txt", readme(packed, data));
            plan(zip, "plan/plan", data);
            work.check();
            if (packed.found().sorties().isPresent()) {
                for (Sortie sortie : packed.found().sorties().get().all()) {
                    plan(
                            zip,
                            "sorties/sortie-" + sortie.number(),
                            data.part("sortie " + sortie.number(), sortie.flight(), sortie.start()));
                    work.check();
                }
            }
            if (!packed.facts().control().points().isEmpty()) {
                for (String format : POINTS) {
                    entry(zip, "control/points." + format, points.file(packed.block(), format, PointFiles.USUAL_ORDER));
                }
            }
            rasters(zip, packed);
            work.check();
            Map<String, Object> said = writer.said(packed);
            entry(zip, "field-pack.html", writer.html(packed, said).getBytes(StandardCharsets.UTF_8));
            work.check();
            entry(zip, "field-pack.pdf", writer.pdf(packed, said));
        } catch (IOException | SQLException | XMLStreamException e) {
            throw new IllegalStateException("The zip could not be written.", e);
        }
        return out.toByteArray();
    }

    private static void plan(ZipOutputStream zip, String name, PlanSheetData data) throws IOException {
        for (PlanFile file : PlanFile.values()) {
            // Some writers close what they write to; the zip stays open.
            ByteArrayOutputStream bytes = new ByteArrayOutputStream();
            file.write(data, bytes);
            entry(zip, name + "." + file.key(), bytes.toByteArray());
        }
    }

    private static void rasters(ZipOutputStream zip, PackWriter.Packed packed) throws IOException {
        var plane = packed.plan().block().plane();
        if (packed.plan().overGround().isPresent()) {
            HeightGrid grid = packed.plan().overGround().get().grid();
            byte[] tiff = GeoTiffWriter.overPlane(plane, grid, row -> {
                float[] line = new float[grid.columns()];
                for (int column = 0; column < line.length; column++) {
                    line[column] = grid.cell(column, row);
                }
                return line;
            });
            entry(zip, "terrain/terrain.tif", tiff);
        }
        Judgement judgement = packed.judgement();
        for (ProofLayer layer : LAYERS) {
            entry(zip, "proof/" + layer.key() + ".tif", layer.tiff(judgement, plane));
        }
    }

    private static void entry(ZipOutputStream zip, String name, byte[] bytes) throws IOException {
        zip.putNextEntry(new ZipEntry(name));
        zip.write(bytes);
        zip.closeEntry();
    }

    private static byte[] readme(PackWriter.Packed packed, PlanSheetData data) {
        StringBuilder text = new StringBuilder();
        text.append(data.title()).append("\n\n");
        data.remarks().forEach(line -> text.append(line).append("\n"));
        var grid = packed.plan().block().plane().grid();
        text.append("""

                plan/      the whole plan: GeoJSON, KML, KMZ, GPX, CSV of stations, GeoPackage
                sorties/   the same for every sortie, its ways out and home included; stations keep their numbers of the plan
                control/   control and check points, where any are planned
                terrain/   the ground as it was planned over: GeoTIFF, metres above the geoid
                proof/     what each bit of ground is given: GeoTIFF; photos counted, lengths in metres, angles in degrees
                           adequate.tif holds a number for each verdict, listed below
                field-pack.html  opens in any browser without a network; what is typed into it can be saved and brought back
                field-pack.pdf   the same on paper

                """);
        text.append("Rasters and CSV lie in %s, EPSG:%d; all other files in WGS 84 degrees.\n"
                .formatted(grid.shortName(), grid.epsg()));
        text.append(
                "Heights in GeoJSON, KML, GPX and GeoPackage count from the take-off; CSV and GeoPackage columns give all heights that are known.\n\n");
        for (Adequacy verdict : Adequacy.values()) {
            text.append("adequate.tif %d: %s%n".formatted(verdict.ordinal(), verdict.words()));
        }
        text.append("\n");
        packed.found().sorties().ifPresent(sorties -> sorties(text, packed, sorties));
        text.append(
                "\nYalos computes and warns; it authorises nothing. Local law and the judgement of the licensed pilot come first.\n");
        return text.toString().replace("\r\n", "\n").getBytes(StandardCharsets.UTF_8);
    }

    private static void sorties(StringBuilder text, PackWriter.Packed packed, Sorties sorties) {
        List<Charged> charged = Charged.of(sorties, packed.found().packs());
        for (Sortie sortie : sorties.all()) {
            Charged battery = charged.get(sortie.number() - 1);
            Homing homing = sortie.homing();
            text.append(
                    "Sortie %d: stations %d to %d, %s, %s at take-off, lands with %s; return height %.0f m above take-off.%n"
                            .formatted(
                                    sortie.number(),
                                    sortie.start() + 1,
                                    sortie.to() + 1,
                                    Times.minutes(sortie.seconds()),
                                    (battery.name().isEmpty() ? "" : "battery " + battery.name() + " ")
                                            + Percent.of(battery.charge()),
                                    Percent.margin(battery.left()),
                                    homing.returnUpM() - homing.takeOffUpM()));
        }
    }
}
