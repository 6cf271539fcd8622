package yalos.web.proof;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import java.util.stream.DoubleStream;
import org.locationtech.jts.geom.Coordinate;
import org.locationtech.jts.geom.Geometry;
import org.locationtech.jts.geom.Polygon;
import org.springframework.http.CacheControl;
import org.springframework.http.ContentDisposition;
import org.springframework.http.HttpHeaders;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.ResponseBody;
import tools.jackson.databind.json.JsonMapper;
import tools.jackson.databind.node.ArrayNode;
import tools.jackson.databind.node.ObjectNode;
import yalos.core.block.LocalPlane;
import yalos.core.geodesy.EastNorth;
import yalos.core.geodesy.LonLat;
import yalos.core.geodesy.PlanePoint;
import yalos.core.plan.BlockPlan;
import yalos.core.plan.PlanProof;
import yalos.core.proof.Judgement;
import yalos.core.proof.WeakGround;
import yalos.core.terrain.HeightGrid;
import yalos.core.units.UnitChoice;
import yalos.web.block.BlockPage;
import yalos.web.block.Blocks;
import yalos.web.block.OpenBlock;
import yalos.web.block.PlanDesk;
import yalos.web.block.Stage;
import yalos.web.shell.NotThere;
import yalos.web.shell.Preferences;

/** Layers of the proof as pictures and files, the probe, and how far the work is. */
@Controller
class ProofController {
    private static final JsonMapper JSON = JsonMapper.builder().build();

    private final Blocks blocks;
    private final PlanDesk desk;
    private final ProofDesk proofs;
    private final BlockPage page;
    private final Preferences preferences;

    ProofController(Blocks blocks, PlanDesk desk, ProofDesk proofs, BlockPage page, Preferences preferences) {
        this.page = page;
        this.blocks = blocks;
        this.desk = desk;
        this.proofs = proofs;
        this.preferences = preferences;
    }

    private BlockPlan plan(OpenBlock block) {
        return desk.needed(block.facts());
    }

    private Judgement judgement(OpenBlock block) {
        return proofs.of(block.id(), block.facts(), plan(block))
                .judgement()
                .orElseThrow(() -> new NotThere("The proof is not done yet; open the Proof stage and wait for it."));
    }

    private static ProofLayer layer(String key) {
        return ProofLayer.ofKey(key).orElseThrow(() -> new NotThere("There is no layer “" + key + "”."));
    }

    /** How far the work is; asked by the page until it is done. */
    @GetMapping("/blocks/{id}/proof/state")
    String state(@PathVariable long id, Model model) {
        OpenBlock block = blocks.open(id);
        ProofDesk.Proving work = proofs.of(id, block.facts(), plan(block));
        model.addAttribute("block", block);
        model.addAttribute("progress", (int) Math.round(work.progress() * 100));
        model.addAttribute("running", work.running());
        model.addAttribute("off", work.calledOff() || work.failed());
        page.stages(block, Stage.PROOF, model);
        return "proof/state :: polled";
    }

    @GetMapping("/blocks/{id}/proof/obliques")
    String obliques(@PathVariable long id, Model model) {
        OpenBlock block = blocks.open(id);
        model.addAttribute("block", block);
        ProofBook.obliques(proofs.of(id, block.facts(), plan(block)), model);
        return "proof/obliques :: obliques";
    }

    @PostMapping("/blocks/{id}/proof/call-off")
    String callOff(@PathVariable long id, Model model) {
        proofs.callOff(blocks.open(id).facts());
        return state(id, model);
    }

    @PostMapping("/blocks/{id}/proof/again")
    String again(@PathVariable long id, Model model) {
        OpenBlock block = blocks.open(id);
        proofs.again(id, block.facts(), plan(block));
        return state(id, model);
    }

    @GetMapping("/blocks/{id}/proof/{layer}.png")
    @ResponseBody
    ResponseEntity<byte[]> picture(@PathVariable long id, @PathVariable String layer) {
        return ResponseEntity.ok()
                .contentType(MediaType.IMAGE_PNG)
                .cacheControl(CacheControl.noStore())
                .body(ProofPicture.png(judgement(blocks.open(id)), layer(layer), preferences.units()));
    }

    /** A layer as a GeoTIFF in the job's grid. Lengths in metres, angles in degrees, shares 0..1. */
    @GetMapping("/blocks/{id}/proof/{layer}.tif")
    @ResponseBody
    ResponseEntity<byte[]> tiff(@PathVariable long id, @PathVariable String layer) throws IOException {
        OpenBlock block = blocks.open(id);
        byte[] tiff = layer(layer).tiff(judgement(block), plan(block).block().plane());
        return file(tiff, "image/tiff", "proof-" + layer + ".tif");
    }

    private static ResponseEntity<byte[]> file(byte[] content, String type, String name) {
        return ResponseEntity.ok()
                .contentType(MediaType.parseMediaType(type))
                .header(
                        HttpHeaders.CONTENT_DISPOSITION,
                        ContentDisposition.attachment().filename(name).build().toString())
                .body(content);
    }

    /** Weak ground as polygons. */
    @GetMapping("/blocks/{id}/proof/weak-spots.geojson")
    @ResponseBody
    ResponseEntity<byte[]> weakSpots(@PathVariable long id) {
        OpenBlock block = blocks.open(id);
        Judgement judgement = judgement(block);
        LocalPlane plane = plan(block).block().plane();
        ObjectNode root = JSON.createObjectNode();
        root.put("type", "FeatureCollection");
        ArrayNode features = root.putArray("features");
        for (WeakGround spot : judgement.spots()) {
            ObjectNode feature = features.addObject();
            feature.put("type", "Feature");
            ObjectNode properties = feature.putObject("properties");
            properties.put("cause", spot.cause().words());
            properties.put("areaM2", Math.round(spot.areaM2() * 10) / 10.0);
            properties.put("leastPhotos", spot.leastPhotos());
            ObjectNode geometry = feature.putObject("geometry");
            geometry.put("type", "MultiPolygon");
            polygons(
                    geometry.putArray("coordinates"),
                    spot.shape(judgement.proof().grid()),
                    plane);
        }
        return file(root.toString().getBytes(StandardCharsets.UTF_8), "application/geo+json", "weak-spots.geojson");
    }

    private static void polygons(ArrayNode to, Geometry shape, LocalPlane plane) {
        for (int i = 0; i < shape.getNumGeometries(); i++) {
            Polygon polygon = (Polygon) shape.getGeometryN(i);
            ArrayNode rings = to.addArray();
            ring(rings.addArray(), polygon.getExteriorRing().getCoordinates(), plane);
            for (int hole = 0; hole < polygon.getNumInteriorRing(); hole++) {
                ring(rings.addArray(), polygon.getInteriorRingN(hole).getCoordinates(), plane);
            }
        }
    }

    private static void ring(ArrayNode to, Coordinate[] corners, LocalPlane plane) {
        for (Coordinate corner : corners) {
            LonLat at = plane.toLonLat(corner.x, corner.y);
            to.addArray().add(Math.round(at.lonDeg() * 1e8) / 1e8).add(Math.round(at.latDeg() * 1e8) / 1e8);
        }
    }

    /** What one cell is given, and from where it is seen. */
    record Probe(List<Line> lines, double east, double north, double[] photos) {}

    record Line(String label, String figure) {}

    @GetMapping("/blocks/{id}/proof/probe.json")
    @ResponseBody
    ResponseEntity<Probe> probe(@PathVariable long id, @RequestParam double east, @RequestParam double north) {
        OpenBlock block = blocks.open(id);
        BlockPlan plan = plan(block);
        Judgement judgement = judgement(block);
        HeightGrid grid = judgement.proof().grid();
        LocalPlane plane = plan.block().plane();
        PlanePoint at = plane.toPlane(plane.grid().toLonLat(new EastNorth(east, north)));
        int column = (int) Math.floor((at.xM() - grid.west()) / grid.cellX());
        int row = (int) Math.floor((grid.north() - at.yM()) / grid.cellY());
        if (column < 0 || row < 0 || column >= grid.columns() || row >= grid.rows()) {
            throw new NotThere("The place lies outside what was proved.");
        }
        int cell = row * grid.columns() + column;
        UnitChoice units = preferences.units();
        List<Line> lines = new ArrayList<>();
        for (ProofLayer layer : ProofLayer.values()) {
            lines.add(new Line(layer.words(), layer.text(layer.cell(judgement, cell), units)));
        }
        EastNorth middle = plane.toGrid(grid.x(column), grid.y(row));
        double[] photos = judgement.at(cell).known() ? seenFrom(plan, grid, column, row) : new double[0];
        return ResponseEntity.ok()
                .cacheControl(CacheControl.noStore())
                .body(new Probe(lines, middle.east(), middle.north(), photos));
    }

    /** Places of the photos that see a cell, easting and northing in turn. */
    private static double[] seenFrom(BlockPlan plan, HeightGrid grid, int column, int row) {
        return PlanProof.seeing(plan, grid, column, row).stream()
                .map(photo -> plan.block().plane().toGrid(photo.point()))
                .flatMapToDouble(at -> DoubleStream.of(at.east(), at.north()))
                .toArray();
    }
}
