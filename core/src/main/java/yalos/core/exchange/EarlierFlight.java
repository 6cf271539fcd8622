package yalos.core.exchange;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import java.util.OptionalDouble;
import yalos.core.camera.Lens;
import yalos.core.camera.Pose;
import yalos.core.fault.InputFault;
import yalos.core.flight.Exposure;
import yalos.core.flight.Flight;
import yalos.core.flight.Leg;
import yalos.core.flight.Line;
import yalos.core.flight.Link;
import yalos.core.geodesy.PlanePoint;
import yalos.core.plan.BlockPlan;
import yalos.core.terrain.Geoid;
import yalos.core.terrain.HeightGrid;

/** The flight of an earlier plan: stations or a path, cut into lines where it turns or leaps, over the ground of a block's plan and through its camera. */
final class EarlierFlight {
    private static final double FAR_M = 20_000;
    private static final double BEND = Math.cos(Math.toRadians(30));
    /** So many usual steps apart, two photos belong to two lines. */
    private static final double GAP = 4;

    private final BlockPlan plan;
    private final EarlierPlan.Zero from;
    private final OptionalDouble above;
    private final Optional<HeightGrid> ground;
    private final double takeOff;
    private final List<Leg> legs = new ArrayList<>();
    private final List<Exposure> photos = new ArrayList<>();
    private final List<Station> stations;

    private record Station(PlanePoint at, double upM, EarlierPlan.Spot spot, double trackRad) {}

    EarlierFlight(EarlierPlan earlier, BlockPlan plan, EarlierPlan.Zero from, OptionalDouble above) {
        this.plan = plan;
        this.from = from;
        this.above = above;
        this.ground = plan.overGround().map(known -> known.grid());
        this.takeOff = plan.flight().takeOffUpM();
        near(earlier);
        this.stations = earlier.stations() ? each(earlier.spots()) : along(earlier.spots());
    }

    private void near(EarlierPlan earlier) {
        PlanePoint middle = plan.block().bounds().middle();
        PlanePoint first = plan.block().plane().toPlane(earlier.spots().get(0).place());
        double off = first.distanceM(middle);
        if (off > FAR_M) {
            throw new InputFault(
                    "file",
                    off,
                    "It begins %.0f km from this block. Is it another job's, or are latitude and longitude swapped?"
                            .formatted(off / 1000));
        }
    }

    private double up(EarlierPlan.Spot spot, PlanePoint at) {
        double typed = spot.upM().isPresent()
                ? spot.upM().getAsDouble()
                : above.orElseThrow(() -> new InputFault(
                        "height",
                        "",
                        "The file has no heights. Type the height it was flown at, and what that counts from."));
        double below = ground.map(grid -> grid.at(at.xM(), at.yM())).orElse(0.0);
        return switch (from) {
            case TAKE_OFF -> takeOff + typed;
            case GROUND -> below + typed;
            case GEOID -> ground.isPresent() ? typed : takeOff + typed;
            case ELLIPSOID -> typed - Geoid.egm96().undulationM(spot.place());
        };
    }

    private Station station(EarlierPlan.Spot spot, double trackRad) {
        PlanePoint at = plan.block().plane().toPlane(spot.place());
        double up = up(spot, at);
        if (Double.isNaN(up)) {
            throw new InputFault(
                    "height",
                    "unknown",
                    "A part of it lies over ground that no model knows, so its height is not known there. Bring a model that reaches it.");
        }
        return new Station(at, up, spot, trackRad);
    }

    private List<Station> each(List<EarlierPlan.Spot> spots) {
        List<Station> all = new ArrayList<>();
        for (int i = 0; i < spots.size(); i++) {
            PlanePoint here = plan.block().plane().toPlane(spots.get(i).place());
            int other = i + 1 < spots.size() ? i + 1 : i - 1;
            PlanePoint next = plan.block().plane().toPlane(spots.get(other).place());
            all.add(station(spots.get(i), other > i ? here.bearingRad(next) : next.bearingRad(here)));
        }
        return all;
    }

    /** Photos along straight pieces, as far apart as the plan's; pieces shorter than that are turns. */
    private List<Station> along(List<EarlierPlan.Spot> spots) {
        double base = plan.design().baseM();
        List<Station> all = new ArrayList<>();
        for (int i = 1; i < spots.size(); i++) {
            PlanePoint a = plan.block().plane().toPlane(spots.get(i - 1).place());
            PlanePoint b = plan.block().plane().toPlane(spots.get(i).place());
            double length = a.distanceM(b);
            if (length < base) {
                continue;
            }
            int count = (int) Math.floor(length / base + 1e-6);
            double track = a.bearingRad(b);
            for (int k = 0; k <= count; k++) {
                double share = k * base / length;
                PlanePoint at = new PlanePoint(a.xM() + (b.xM() - a.xM()) * share, a.yM() + (b.yM() - a.yM()) * share);
                OptionalDouble up =
                        spots.get(i).upM().isPresent() && spots.get(i - 1).upM().isPresent()
                                ? OptionalDouble.of(spots.get(i - 1).upM().getAsDouble() * (1 - share)
                                        + spots.get(i).upM().getAsDouble() * share)
                                : OptionalDouble.empty();
                all.add(station(EarlierPlan.Spot.at(plan.block().plane().toLonLat(at), up), track));
                if (all.size() > EarlierPlan.MOST) {
                    throw new InputFault(
                            "file",
                            all.size(),
                            "Along this path more than %,d photos would be taken.".formatted(EarlierPlan.MOST));
                }
            }
        }
        if (all.isEmpty()) {
            throw new InputFault(
                    "file",
                    "short",
                    "No piece of the path is as long as two photos lie apart; nothing would be photographed.");
        }
        return all;
    }

    Flight flight() {
        double usual = usualStepM();
        for (int first = 0, to; first < stations.size(); first = to) {
            to = first + 1;
            while (to < stations.size() && runsOn(first, to, usual)) {
                to++;
            }
            line(stations.subList(first, to));
        }
        return new Flight(legs, photos, plan.flight().launch(), takeOff);
    }

    private double usualStepM() {
        double[] steps = new double[stations.size() - 1];
        for (int i = 0; i < steps.length; i++) {
            steps[i] = stations.get(i).at().distanceM(stations.get(i + 1).at());
        }
        Arrays.sort(steps);
        return steps.length == 0 ? 1 : steps[steps.length / 2];
    }

    private boolean runsOn(int first, int to, double usual) {
        Station before = stations.get(to - 1);
        Station next = stations.get(to);
        if (before.spot().strip().isPresent() && next.spot().strip().isPresent()) {
            return before.spot().strip().equals(next.spot().strip());
        }
        double step = before.at().distanceM(next.at());
        if (step > GAP * usual || step == 0) {
            return false;
        }
        double track = stations.get(first)
                .at()
                .bearingRad(stations.get(Math.min(first + 1, to)).at());
        return to == first + 1 || Math.cos(before.at().bearingRad(next.at()) - track) > BEND;
    }

    private void line(List<Station> run) {
        int number = legs.isEmpty() ? 1 : photos.get(photos.size() - 1).line() + 1;
        Station begin = run.get(0);
        Station end = run.get(run.size() - 1);
        double speed = plan.design().speedMps();
        double track = begin.at().distanceM(end.at()) > 0 ? begin.at().bearingRad(end.at()) : begin.trackRad();
        if (!photos.isEmpty()) {
            Exposure last = photos.get(photos.size() - 1);
            legs.add(new Link(Link.Kind.TURN, last.point(), begin.at(), new double[] {last.upM(), begin.upM()}, speed));
        }
        double[] up = run.size() == 1
                ? new double[] {begin.upM(), begin.upM()}
                : run.stream().mapToDouble(Station::upM).toArray();
        legs.add(new Line(1, number, number, begin.at(), end.at(), track, up, speed, photos.size(), run.size()));
        Lens lens = Lens.of(plan.request().camera());
        double convergence = plan.block().plane().convergenceRad();
        for (Station one : run) {
            double yaw = one.spot().yawDeg().isPresent()
                    ? Math.toRadians(one.spot().yawDeg().getAsDouble()) - convergence
                    : plan.request().camera().imageYawRad(track);
            Pose pose = new Pose(
                    one.at().xM(),
                    one.at().yM(),
                    one.upM(),
                    yaw,
                    Math.toRadians(one.spot().pitchDeg().orElse(-90)),
                    Math.toRadians(one.spot().rollDeg().orElse(0)));
            photos.add(new Exposure(photos.size() + 1, 1, number, pose, lens, track));
        }
    }
}
