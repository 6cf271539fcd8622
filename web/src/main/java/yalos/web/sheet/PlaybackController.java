package yalos.web.sheet;

import java.util.Arrays;
import org.springframework.http.CacheControl;
import org.springframework.http.ResponseEntity;
import org.springframework.stereotype.Controller;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import yalos.core.flight.BatteryUse;
import yalos.core.flight.Line;
import yalos.core.flight.Timeline;
import yalos.core.geodesy.EastNorth;
import yalos.core.plan.BlockPlan;
import yalos.core.units.UnitChoice;
import yalos.core.units.UnitKind;
import yalos.web.block.Blocks;
import yalos.web.block.PlanDesk;
import yalos.web.shell.NotThere;
import yalos.web.shell.Preferences;

/** A plan as it would be flown, moment by moment, for the sheet to play. */
@Controller
class PlaybackController {
    private static final int MOST_MOMENTS = 3000;
    private static final double LEAST_STEP_S = 0.5;

    private final Blocks blocks;
    private final PlanDesk desk;
    private final Preferences preferences;

    PlaybackController(Blocks blocks, PlanDesk desk, Preferences preferences) {
        this.blocks = blocks;
        this.desk = desk;
        this.preferences = preferences;
    }

    /**
     * Moments at even steps of time.
     *
     * @param stepS between them
     * @param totalS of the flight in the air, changes of batteries left out
     * @param places easting, northing in turn
     * @param line number of the line flown, 0 between lines
     * @param above height in the operator's unit; null where unknown
     * @param photos taken so far
     * @param speed over ground, in the operator's unit
     * @param used share of the battery set in the aircraft, 0..1
     * @param set its number, from 1
     * @param aboveWhat {@code ground}, or {@code take-off} where the ground is level or not known
     */
    record Playback(
            double stepS,
            double totalS,
            double[] places,
            int[] line,
            Double[] above,
            int[] photos,
            double[] speed,
            double[] used,
            int[] set,
            String heightUnit,
            String aboveWhat,
            String speedUnit,
            int allPhotos) {}

    @GetMapping("/blocks/{id}/playback.json")
    ResponseEntity<Playback> playback(@PathVariable long id) {
        BlockPlan plan = desk.needed(blocks.open(id).facts());
        if (!Double.isFinite(plan.timeline().totalS()) || plan.flight().legs().isEmpty()) {
            throw new NotThere("This plan cannot be flown, so it cannot be played.");
        }
        return ResponseEntity.ok().cacheControl(CacheControl.noStore()).body(of(plan, preferences.units()));
    }

    private static Playback of(BlockPlan plan, UnitChoice units) {
        Timeline timeline = plan.timeline();
        double total = timeline.totalS();
        double step = Math.max(LEAST_STEP_S, total / (MOST_MOMENTS - 1));
        int moments = (int) Math.ceil(total / step) + 1;
        double[] photosS = timeline.exposuresS();
        double usableS = plan.usableMinutes() * 60;
        Playback played = new Playback(
                step,
                total,
                new double[2 * moments],
                new int[moments],
                new Double[moments],
                new int[moments],
                new double[moments],
                new double[moments],
                new int[moments],
                units.unit(UnitKind.HEIGHT).symbol(),
                plan.heights().isPresent() ? "ground" : "take-off",
                units.unit(UnitKind.SPEED).symbol(),
                plan.photos());
        for (int i = 0; i < moments; i++) {
            double now = Math.min(total, i * step);
            moment(played, i, timeline.at(now), plan, units);
            int taken = Arrays.binarySearch(photosS, now);
            played.photos()[i] = taken >= 0 ? taken + 1 : -taken - 1;
            BatteryUse.Charge charge = plan.batteries().at(now);
            played.used()[i] = Math.round(charge.usedS() / usableS * 1000) / 1000.0;
            played.set()[i] = charge.set();
        }
        return played;
    }

    private static void moment(Playback played, int i, Timeline.Moment moment, BlockPlan plan, UnitChoice units) {
        EastNorth at = plan.block().plane().toGrid(moment.place().point());
        played.places()[2 * i] = Math.round(at.east() * 100) / 100.0;
        played.places()[2 * i + 1] = Math.round(at.north() * 100) / 100.0;
        if (moment.leg() instanceof Line line) {
            played.line()[i] = line.number();
        }
        double above = plan.heights()
                .map(heights -> moment.place().upM()
                        - heights.grid().at(moment.place().xM(), moment.place().yM()))
                .orElse(plan.heightsUnknown() ? Double.NaN : moment.place().upM());
        played.above()[i] = Double.isNaN(above)
                ? null
                : Math.round(units.unit(UnitKind.HEIGHT).ofSi(above) * 10) / 10.0;
        played.speed()[i] = Math.round(units.unit(UnitKind.SPEED).ofSi(moment.groundMps()) * 10) / 10.0;
    }
}
