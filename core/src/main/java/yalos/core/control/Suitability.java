package yalos.core.control;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import yalos.core.block.PlaneBlock;
import yalos.core.camera.Lens;
import yalos.core.camera.View;
import yalos.core.flight.Exposure;
import yalos.core.plan.BlockPlan;
import yalos.core.plan.GroundRequest;
import yalos.core.site.Obstacle;
import yalos.core.site.SiteMap;
import yalos.core.site.Zone;
import yalos.core.terrain.HeightGrid;

/** Whether a target can lie somewhere and be measured and seen there: what speaks against it, in words. */
public final class Suitability {
    private static final double CLEARANCE_M = 3;
    private static final double LINE_M = 15;
    /** Photos that must show a target near their middle. */
    public static final int LEAST_PHOTOS = 3;
    /** Of the half of a frame, from its middle. */
    private static final double NEAR_MIDDLE = 0.9;

    private final BlockPlan plan;
    private final SiteMap site;
    private final double steepestRad;
    private final List<PlaneBlock> avoided = new ArrayList<>();
    private final List<Avoided> reasons;
    private final List<View> views;
    private final double edgeM;

    public Suitability(BlockPlan plan, ControlLayout layout) {
        this.plan = plan;
        Optional<GroundRequest> ground = plan.request().ground();
        this.site = new SiteMap(
                plan.block().plane(),
                ground.map(GroundRequest::obstacles).orElse(List.of()),
                ground.map(GroundRequest::zones).orElse(List.of()));
        this.steepestRad = layout.assumptions().steepestRad();
        this.reasons = layout.avoided();
        reasons.forEach(
                one -> avoided.add(PlaneBlock.in(one.outline(), plan.block().plane())));
        this.views = plan.heightsUnknown()
                ? List.of()
                : plan.flight().exposures().stream()
                        .map(photo -> new View(photo.lens(), photo.pose()))
                        .toList();
        this.edgeM = Math.max(2, 0.1 * plan.design().scale().footprintAcrossM() / 2);
    }

    /** What speaks against a target there; empty for nothing. */
    public List<String> faults(MarkedPlace at) {
        List<String> faults = new ArrayList<>(onGround(at));
        if (!Double.isFinite(at.upM())) {
            faults.add("the ground is not known there");
        } else if (!views.isEmpty()) {
            int photos = nearMiddle(at);
            if (photos < LEAST_PHOTOS) {
                faults.add("seen near the middle of only %d %s".formatted(photos, photos == 1 ? "photo" : "photos"));
            }
        }
        return faults;
    }

    private List<String> onGround(MarkedPlace at) {
        List<String> faults = new ArrayList<>();
        double x = at.xM();
        double y = at.yM();
        if (!plan.block().contains(x, y)) {
            faults.add("outside the block");
        } else if (!deepInside(x, y)) {
            faults.add("on the edge of the block");
        }
        for (int i = 0; i < avoided.size(); i++) {
            if (avoided.get(i).contains(x, y)) {
                faults.add(reasons.get(i).name());
            }
        }
        for (Obstacle near : site.obstaclesNear(x, y, CLEARANCE_M)) {
            faults.add("at the foot of " + near.name());
        }
        for (Obstacle near : site.obstaclesNear(x, y, LINE_M)) {
            if (near.kind() == Obstacle.Kind.LINE) {
                faults.add("near the line " + near.name());
            }
        }
        tall(x, y).ifPresent(faults::add);
        for (Zone zone : site.zonesAt(x, y, 0)) {
            if (zone.kind() == Zone.Kind.KEEP_OUT) {
                faults.add("in the zone " + zone.name());
            }
        }
        double slope = slopeRad(x, y);
        if (slope > steepestRad) {
            faults.add("on a slope of %.0f°".formatted(Math.toDegrees(slope)));
        }
        return faults;
    }

    /** What hides more of the sky than a receiver likes: trees and buildings nearer than they are high. */
    private Optional<String> tall(double x, double y) {
        double reach = site.tallestM();
        return reach <= CLEARANCE_M
                ? Optional.empty()
                : site.obstaclesNear(x, y, reach).stream()
                        .filter(one -> one.kind() == Obstacle.Kind.TREE || one.kind() == Obstacle.Kind.BUILDING)
                        .filter(one -> site.obstaclesNear(x, y, one.heightM()).contains(one))
                        .map(one -> "sky hidden by " + one.name())
                        .findFirst();
    }

    private boolean deepInside(double x, double y) {
        for (int i = 0; i < 8; i++) {
            double to = i * Math.PI / 4;
            if (!plan.block().contains(x + edgeM * Math.sin(to), y + edgeM * Math.cos(to))) {
                return false;
            }
        }
        return true;
    }

    /** Of the ground within 3 m or a cell of the model; 0 over level ground. */
    private double slopeRad(double x, double y) {
        return plan.overGround()
                .map(known -> {
                    HeightGrid grid = known.grid();
                    double step = Math.max(3, grid.cellX());
                    double east = (grid.at(x + step, y) - grid.at(x - step, y)) / (2 * step);
                    double north = (grid.at(x, y + step) - grid.at(x, y - step)) / (2 * step);
                    double slope = Math.atan(Math.hypot(east, north));
                    return Double.isNaN(slope) ? 0 : slope;
                })
                .orElse(0.0);
    }

    private int nearMiddle(MarkedPlace at) {
        int count = 0;
        List<Exposure> photos = plan.flight().exposures();
        for (int i = 0; i < views.size(); i++) {
            Lens lens = photos.get(i).lens();
            boolean near = views.get(i)
                    .of(at.xM(), at.yM(), at.upM())
                    .filter(View.Sighting::inFrame)
                    .filter(seen -> Math.abs(seen.u() - lens.width() / 2.0) < NEAR_MIDDLE * lens.width() / 2
                            && Math.abs(seen.v() - lens.height() / 2.0) < NEAR_MIDDLE * lens.height() / 2)
                    .isPresent();
            count += near ? 1 : 0;
        }
        return count;
    }
}
