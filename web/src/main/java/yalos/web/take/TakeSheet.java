package yalos.web.take;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import org.locationtech.jts.geom.Coordinate;
import org.locationtech.jts.geom.Geometry;
import org.springframework.http.CacheControl;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.RestController;
import yalos.core.block.LocalPlane;
import yalos.core.flight.Exposure;
import yalos.core.geodesy.EastNorth;
import yalos.core.geodesy.LonLat;
import yalos.core.geodesy.PlanePoint;
import yalos.core.take.Fix;
import yalos.core.take.Role;
import yalos.core.take.Take;
import yalos.core.take.TakeMatch;
import yalos.web.block.Blocks;
import yalos.web.block.OpenBlock;
import yalos.web.store.TakeMapper;
import yalos.web.store.TakeMapper.DecisionRow;
import yalos.web.take.TakeDesk.Found;

/** What the Take stage adds to the sheet: photos where they were taken, stations that lack one, gaps with their numbers, areas decided on. */
@RestController
class TakeSheet {
    private final Blocks blocks;
    private final TakeDesk desk;
    private final TakeMapper rows;

    TakeSheet(Blocks blocks, TakeDesk desk, TakeMapper rows) {
        this.blocks = blocks;
        this.desk = desk;
        this.rows = rows;
    }

    /**
     * Positions are easting, northing in turn.
     *
     * @param photos four figures each: easting, northing, how it stands (0 fixed, 1 floating, 2 single or unsaid, 3 flawed, 4 not of the flight), number of its row
     * @param missing stations that lack a useful photo
     * @param proved whether the take is proved
     */
    record Drawn(
            long version,
            double[] photos,
            double[] missing,
            List<Gap> gaps,
            List<Area> areas,
            boolean proved,
            boolean running) {}

    record Gap(int number, List<double[]> rings, double east, double north) {}

    record Area(String kind, double[] ring) {}

    @GetMapping("/blocks/{id}/take.json")
    ResponseEntity<Drawn> drawn(@PathVariable long id) {
        OpenBlock block = blocks.open(id);
        Drawn drawn = desk.of(block)
                .map(found -> drawn(block, found))
                .orElse(new Drawn(block.version(), new double[0], new double[0], List.of(), List.of(), false, false));
        return ResponseEntity.ok().cacheControl(CacheControl.noStore()).body(drawn);
    }

    private Drawn drawn(OpenBlock block, Found found) {
        Take take = found.take();
        LocalPlane plane = take.plan().block().plane();
        List<Double> photos = new ArrayList<>();
        for (int i = 0; i < take.photos().size(); i++) {
            TakeMatch.Matched one = take.match().photos().get(i);
            if (one.role() != Role.ELSEWHERE) {
                place(take, i).ifPresent(at -> {
                    EastNorth grid = plane.toGrid(at);
                    photos.add(grid.east());
                    photos.add(grid.north());
                });
                if (place(take, i).isPresent()) {
                    photos.add((double) state(take, i));
                    photos.add((double) found.kept().get(i).id());
                }
            }
        }
        List<Double> missing = new ArrayList<>();
        for (int number : take.lacking().keySet()) {
            Exposure station = take.plan().flight().exposures().get(number - 1);
            EastNorth grid = plane.toGrid(station.point());
            missing.add(grid.east());
            missing.add(grid.north());
        }
        return new Drawn(
                block.version(),
                photos.stream().mapToDouble(Double::doubleValue).toArray(),
                missing.stream().mapToDouble(Double::doubleValue).toArray(),
                gaps(found, plane),
                areas(block.id(), plane),
                found.taken().isPresent(),
                found.running());
    }

    private static Optional<PlanePoint> place(Take take, int i) {
        TakeMatch.Matched one = take.match().photos().get(i);
        LocalPlane plane = take.plan().block().plane();
        Optional<PlanePoint> own = one.frozen()
                ? Optional.empty()
                : take.photos().get(i).fix().map(Fix::place).map(plane::toPlane);
        return own.isPresent() || one.station() == 0
                ? own
                : Optional.of(take.match().stations().get(one.station() - 1).at());
    }

    private static int state(Take take, int i) {
        if (!take.match().photos().get(i).role().ofFlight()) {
            return 4;
        }
        if (take.flaws().get(i).stream().anyMatch(flaw -> flaw.kind().useless())) {
            return 3;
        }
        return switch (take.known(i)) {
            case FIXED -> 0;
            case FLOATING -> 1;
            case SINGLE, UNSAID -> 2;
        };
    }

    private static List<Gap> gaps(Found found, LocalPlane plane) {
        List<Gap> gaps = new ArrayList<>();
        for (int i = 0; i < found.gaps().size(); i++) {
            Take.Gap one = found.gaps().get(i);
            Geometry shape = one.ground()
                    .shape(found.taken().orElseThrow().proof().grid())
                    .convexHull();
            EastNorth at = plane.toGrid(one.ground().x(), one.ground().y());
            gaps.add(new Gap(i + 1, List.of(flat(shape.getCoordinates(), plane)), at.east(), at.north()));
        }
        return gaps;
    }

    private static double[] flat(Coordinate[] corners, LocalPlane plane) {
        double[] flat = new double[Math.max(0, corners.length - 1) * 2];
        for (int i = 0; i < corners.length - 1; i++) {
            EastNorth at = plane.toGrid(corners[i].x, corners[i].y);
            flat[2 * i] = at.east();
            flat[2 * i + 1] = at.north();
        }
        return flat;
    }

    private List<Area> areas(long block, LocalPlane plane) {
        List<Area> areas = new ArrayList<>();
        for (DecisionRow one : rows.decisions(block)) {
            if (one.takenBack().isEmpty()) {
                List<LonLat> ring = Decisions.ring(one.area());
                double[] flat = new double[ring.size() * 2];
                for (int i = 0; i < ring.size(); i++) {
                    EastNorth at = plane.grid().toGrid(ring.get(i));
                    flat[2 * i] = at.east();
                    flat[2 * i + 1] = at.north();
                }
                areas.add(new Area(one.kind().toLowerCase(Locale.ROOT), flat));
            }
        }
        return areas;
    }
}
