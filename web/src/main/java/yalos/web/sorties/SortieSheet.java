package yalos.web.sorties;

import java.awt.image.BufferedImage;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.stream.DoubleStream;
import javax.imageio.ImageIO;
import org.springframework.http.CacheControl;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;
import yalos.core.block.LocalPlane;
import yalos.core.day.DayLight;
import yalos.core.fault.InputFault;
import yalos.core.flight.Leg;
import yalos.core.flight.Link;
import yalos.core.flight.Place;
import yalos.core.flight.Way;
import yalos.core.geodesy.EastNorth;
import yalos.core.geodesy.PlanePoint;
import yalos.core.light.Sun;
import yalos.core.plan.BlockPlan;
import yalos.core.sortie.Sight;
import yalos.core.sortie.Sortie;
import yalos.core.sortie.Surroundings;
import yalos.core.terrain.HeightGrid;
import yalos.core.units.UnitChoice;
import yalos.core.units.UnitKind;
import yalos.web.block.Blocks;
import yalos.web.block.OpenBlock;
import yalos.web.block.PlanDesk;
import yalos.web.block.Planned;
import yalos.web.shell.Preferences;
import yalos.web.store.BlockFacts;
import yalos.web.work.PageWork;

/** What the Sorties stage adds to the sheet: sorties by sign, launch points, what is out of sight, shadows at an hour. */
@RestController
class SortieSheet {
    private static final int MOST_HIDDEN = 1500;

    private final Blocks blocks;
    private final PlanDesk plans;
    private final SortieDesk desk;
    private final Preferences preferences;
    private final PageWork work;

    SortieSheet(Blocks blocks, PlanDesk plans, SortieDesk desk, Preferences preferences, PageWork work) {
        this.blocks = blocks;
        this.plans = plans;
        this.desk = desk;
        this.preferences = preferences;
        this.work = work;
    }

    /**
     * Positions are easting, northing in turn.
     *
     * @param hidden places of the way that the pilot does not see
     * @param observer where a second pair of eyes sees most of them; null where none is needed
     * @param pilot where the pilot stands; null at the launch point
     * @param shade extent of the shadow's picture
     * @param running whether more is to come
     */
    record Drawn(
            long version,
            List<Flown> sorties,
            List<Spot> launches,
            double[] hidden,
            double[] observer,
            double[] pilot,
            double[] shade,
            boolean running) {}

    /** A sortie: its ways with photos, its ways out and home, where it begins, where coming home leaves least and on which line of the plan. */
    record Flown(
            int number,
            double[][] lines,
            double[][] ways,
            double[] start,
            double[] least,
            int leastLine,
            String leastWords) {}

    /** A launch point: -1 for the block's own. */
    record Spot(int at, String name, double east, double north) {}

    @GetMapping("/blocks/{id}/sorties.json")
    ResponseEntity<Drawn> drawn(@PathVariable long id) {
        OpenBlock block = blocks.open(id);
        Optional<BlockPlan> plan = plans.plan(block.facts()).whole().map(Planned.Whole::plan);
        Drawn drawn = plan.map(known -> drawn(block, known))
                .orElseGet(
                        () -> new Drawn(block.version(), List.of(), List.of(), new double[0], null, null, null, false));
        return ResponseEntity.ok().cacheControl(CacheControl.noStore()).body(drawn);
    }

    private Drawn drawn(OpenBlock block, BlockPlan plan) {
        BlockFacts facts = block.facts();
        UnitChoice units = preferences.units();
        SortieDesk.Found found = desk.of(block.id(), facts, plan);
        LocalPlane plane = plan.block().plane();
        List<Flown> flown = new ArrayList<>();
        found.sorties().ifPresent(sorties -> {
            List<Charged> charged = Charged.of(sorties, found.packs());
            sorties.all().forEach(sortie -> flown.add(flown(sortie, charged, plan, units)));
        });
        List<Spot> launches = new ArrayList<>();
        facts.launch()
                .ifPresent(own ->
                        launches.add(spot(-1, "launch point", plane.grid().toGrid(own))));
        for (int i = 0; i < facts.field().sorties().launches().size(); i++) {
            var launch = facts.field().sorties().launches().get(i);
            launches.add(spot(i, launch.name(), plane.grid().toGrid(launch.place())));
        }
        Optional<Sight> sight = found.sight();
        return new Drawn(
                block.version(),
                flown,
                launches,
                sight.map(one -> hidden(one, plane)).orElse(new double[0]),
                sight.flatMap(Sight::observer).map(one -> pair(plane, one.at())).orElse(null),
                facts.field()
                        .sorties()
                        .pilot()
                        .map(at -> pair(plane.grid().toGrid(at)))
                        .orElse(null),
                found.shade().map(shade -> shade.ground().extent(plane)).orElse(null),
                found.running());
    }

    private static Spot spot(int at, String name, EastNorth place) {
        return new Spot(at, name, place.east(), place.north());
    }

    private static Flown flown(Sortie sortie, List<Charged> charged, BlockPlan plan, UnitChoice units) {
        LocalPlane plane = plan.block().plane();
        List<double[]> lines = new ArrayList<>();
        List<double[]> ways = new ArrayList<>();
        for (Leg leg : sortie.flight().legs()) {
            if (leg instanceof Way way && way.lengthM() > 0) {
                double[] shape = way.shape().stream()
                        .map(plane::toGrid)
                        .flatMapToDouble(at -> DoubleStream.of(cm(at.east()), cm(at.north())))
                        .toArray();
                boolean transit = way instanceof Link link && link.kind().transit();
                (transit ? ways : lines).add(shape);
            }
        }
        Place least = sortie.least().place();
        String words = "sortie %d: least margin home, %s over the reserve, %s above take-off"
                .formatted(
                        sortie.number(),
                        Percent.margin(charged.get(sortie.number() - 1).marginAtWorst()),
                        units.text(
                                UnitKind.HEIGHT, least.upM() - sortie.homing().takeOffUpM()));
        return new Flown(
                sortie.number(),
                lines.toArray(double[][]::new),
                ways.toArray(double[][]::new),
                pair(plane, sortie.flight().exposures().get(0).point()),
                pair(plane, least.point()),
                plan.flight().exposures().get(sortie.start() + nearest(sortie)).line(),
                words);
    }

    /** Index of the photo next to the moment at which coming home leaves least. */
    private static int nearest(Sortie sortie) {
        double[] photosS = sortie.timeline().exposuresS();
        int nearest = 0;
        for (int i = 1; i < photosS.length; i++) {
            boolean nearer = Math.abs(photosS[i] - sortie.least().seconds())
                    < Math.abs(photosS[nearest] - sortie.least().seconds());
            nearest = nearer ? i : nearest;
        }
        return nearest;
    }

    private static double[] hidden(Sight sight, LocalPlane plane) {
        List<Place> all = sight.hidden();
        int every = Math.max(1, all.size() / MOST_HIDDEN);
        List<Double> flat = new ArrayList<>();
        for (int i = 0; i < all.size(); i += every) {
            EastNorth at = plane.toGrid(all.get(i).point());
            flat.add(cm(at.east()));
            flat.add(cm(at.north()));
        }
        return flat.stream().mapToDouble(Double::doubleValue).toArray();
    }

    private static double[] pair(LocalPlane plane, PlanePoint at) {
        return pair(plane.toGrid(at));
    }

    private static double[] pair(EastNorth at) {
        return new double[] {cm(at.east()), cm(at.north())};
    }

    private static double cm(double metres) {
        return Math.round(metres * 100) / 100.0;
    }

    /** The shadow of ground and obstacles at a minute of the day, one pixel a cell, north up; hatched, so that colour is not the only sign. */
    @GetMapping("/blocks/{id}/sorties/shade.png")
    ResponseEntity<byte[]> shade(@PathVariable long id, @RequestParam int minute) {
        InputFault.within("minute", minute, 0, 24 * 60, "");
        OpenBlock block = blocks.open(id);
        BlockPlan plan = plans.needed(block.facts());
        SortieDesk.Found found = desk.of(id, block.facts(), plan);
        byte[] png = work.answer("The shadow", () -> {
            DayLight.Shade shade =
                    found.shade().orElseGet(() -> new DayLight.Shade(plan, Surroundings.of(plan, List.of())));
            Sun sun = Sun.at(
                    plan.request().outline().middle(),
                    DayLight.instant(SortieDesk.date(block.facts()), SortieDesk.clock(block.facts()), minute));
            Sun grid = new Sun(
                    sun.elevationRad(), sun.azimuthRad() - plan.block().plane().convergenceRad());
            return png(shade.ground(), shade.shaded(grid));
        });
        return ResponseEntity.ok()
                .cacheControl(CacheControl.noCache())
                .contentType(MediaType.IMAGE_PNG)
                .body(png);
    }

    private static byte[] png(HeightGrid ground, boolean[] shaded) {
        BufferedImage image = new BufferedImage(ground.columns(), ground.rows(), BufferedImage.TYPE_INT_ARGB);
        for (int row = 0; row < ground.rows(); row++) {
            for (int column = 0; column < ground.columns(); column++) {
                if (shaded[row * ground.columns() + column]) {
                    image.setRGB(column, row, (column + row) % 4 < 2 ? 0xb0233040 : 0x90233040);
                }
            }
        }
        try {
            ByteArrayOutputStream out = new ByteArrayOutputStream();
            ImageIO.write(image, "png", out);
            return out.toByteArray();
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }
}
