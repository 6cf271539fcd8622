package yalos.core.finding;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import java.util.OptionalDouble;
import yalos.core.brief.Brief;
import yalos.core.brief.Purpose;
import yalos.core.camera.GroundScale;
import yalos.core.fault.InputFault;
import yalos.core.kit.Kit;
import yalos.core.kit.Payload;
import yalos.core.kit.Positioning;
import yalos.core.plan.BlockPlan;
import yalos.core.plan.PlanRequest;
import yalos.core.site.Obstacle;
import yalos.core.units.UnitChoice;
import yalos.core.units.UnitKind;

/**
 * Can a kit deliver a brief on this block? If not, what is in the way, and which other kit can?
 *
 * @param kit that is asked about
 * @param plan of the block with it; empty where there is none
 * @param lacks what is in the way, a sentence each; empty for a kit that fits
 */
public record KitFit(Kit kit, Optional<BlockPlan> plan, List<String> lacks) {
    /** A payload that writes so many files or more at a release parts the light into bands (common practice). */
    private static final int SPECTRAL_FILES = 4;

    /** Whether nothing is in the way. */
    public boolean fits() {
        return lacks.isEmpty();
    }

    /** Whether a payload sees bands beyond red, green and blue. */
    public static boolean spectral(Payload payload) {
        return payload.filesPerCapture() >= SPECTRAL_FILES;
    }

    /** A plan's own kit. */
    public static KitFit of(Brief brief, BlockPlan plan, UnitChoice units) {
        return new KitFit(plan.request().kit(), Optional.of(plan), lacks(brief, plan, units));
    }

    /** Kits that fit, the one that flies the block quickest first; each with the plan's pins. */
    public static List<KitFit> among(List<Kit> kits, Brief brief, BlockPlan plan, UnitChoice units) {
        return kits.stream()
                .map(kit -> tried(kit, brief, plan, units))
                .flatMap(Optional::stream)
                .filter(KitFit::fits)
                .sorted(Comparator.comparingDouble(
                        fit -> fit.plan().orElseThrow().flightTimeS()))
                .toList();
    }

    private static Optional<KitFit> tried(Kit kit, Brief brief, BlockPlan plan, UnitChoice units) {
        try {
            PlanRequest request = plan.request().with(kit);
            BlockPlan other = BlockPlan.over(plan.block(), request);
            return Optional.of(new KitFit(kit, Optional.of(other), lacks(brief, other, units)));
        } catch (InputFault cannotBePlanned) {
            return Optional.empty();
        }
    }

    private static List<String> lacks(Brief brief, BlockPlan plan, UnitChoice units) {
        List<String> lacks = new ArrayList<>();
        Payload payload = plan.request().kit().payload();
        Purpose purpose = brief.purpose().orElse(Purpose.IMAGERY);
        if (purpose == Purpose.CROP_INDEX && !spectral(payload)) {
            lacks.add("A crop index needs bands beyond red, green and blue; this payload writes %d %s at each release."
                    .formatted(payload.filesPerCapture(), payload.filesPerCapture() == 1 ? "file" : "files"));
        }
        if (purpose == Purpose.LIDAR && !payload.scannerLeads()) {
            lacks.add("0 scanners are carried, and lidar is asked for.");
        }
        scale(plan, units, lacks);
        Positioning able = plan.request().aircraft().positioning();
        OptionalDouble horizontal = brief.horizontalM();
        if (brief.positioning() != Positioning.CONTROL
                && horizontal.isPresent()
                && able.horizontalM() > horizontal.getAsDouble() * (1 + 1e-9)) {
            lacks.add("Positions to %s are asked for; this aircraft knows them to %s."
                    .formatted(length(horizontal.getAsDouble(), units), length(able.horizontalM(), units)));
        }
        if (plan.batterySets() == 0 || !plan.batteries().carries()) {
            lacks.add("A battery set does not carry it over the block and home again.");
        } else if (plan.batterySets() > plan.request().aircraft().battery().sets()) {
            lacks.add("%d battery sets are needed and %d carried."
                    .formatted(
                            plan.batterySets(),
                            plan.request().aircraft().battery().sets()));
        }
        if (plan.design().speedMps() < plan.request().aircraft().slowestMps() - 1e-9) {
            lacks.add("It must fly at %s and stays up only above %s."
                    .formatted(
                            units.text(UnitKind.SPEED, plan.design().speedMps()),
                            units.text(UnitKind.SPEED, plan.request().aircraft().slowestMps())));
        }
        plan.wind()
                .filter(wind -> wind.speedMps() > plan.request().aircraft().windLimitMps())
                .ifPresent(wind -> lacks.add("Its wind limit is %s; %s is planned for."
                        .formatted(
                                units.text(
                                        UnitKind.SPEED,
                                        plan.request().aircraft().windLimitMps()),
                                units.text(UnitKind.SPEED, wind.speedMps()))));
        return lacks;
    }

    /** Between which heights a plan's kit serves its job, and what sets each end, in a sentence. */
    public static String heights(BlockPlan plan, UnitChoice units) {
        double heads = plan.request().kit().payload().leastHeightM();
        double clearance = plan.request()
                .ground()
                .map(ground -> ground.choice().keptM()
                        + ground.obstacles().stream()
                                .mapToDouble(Obstacle::heightM)
                                .max()
                                .orElse(0))
                .orElse(0.0);
        double least = Math.max(heads, clearance);
        double asked = plan.askedGsdM().isPresent()
                ? GroundScale.ofGsd(plan.request().camera(), plan.askedGsdM().getAsDouble())
                        .heightM()
                : Double.POSITIVE_INFINITY;
        double most = Math.min(plan.ceilingM(), asked);
        if (least > most) {
            return "No height serves: %s at least and %s at most."
                    .formatted(units.text(UnitKind.HEIGHT, least), units.text(UnitKind.HEIGHT, most));
        }
        String below = heads >= clearance ? "the heads no longer register" : "it comes too near to what stands there";
        return "Heights from %s to %s serve this job: %sabove it %s."
                .formatted(
                        units.figure(UnitKind.HEIGHT, least),
                        units.text(UnitKind.HEIGHT, most),
                        least == 0 ? "" : "below it " + below + "; ",
                        asked < plan.ceilingM() ? "the GSD asked for is lost" : "your ceiling is passed");
    }

    /** The height that the GSD asked for takes must not lie below the payload's least. */
    private static void scale(BlockPlan plan, UnitChoice units, List<String> lacks) {
        OptionalDouble asked = plan.askedGsdM();
        if (asked.isEmpty()) {
            return;
        }
        double height =
                GroundScale.ofGsd(plan.request().camera(), asked.getAsDouble()).heightM();
        double least = plan.request().kit().payload().leastHeightM();
        if (height < least - 1e-9) {
            lacks.add("%s takes %s above ground; below %s its heads no longer register."
                    .formatted(
                            units.text(UnitKind.GSD, asked.getAsDouble()),
                            units.text(UnitKind.HEIGHT, height),
                            units.text(UnitKind.HEIGHT, least)));
        }
    }

    private static String length(double m, UnitChoice units) {
        return m < 0.5 ? units.text(UnitKind.GSD, m) : units.text(UnitKind.DISTANCE, m);
    }
}
