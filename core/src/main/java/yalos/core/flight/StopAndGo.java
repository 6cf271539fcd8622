package yalos.core.flight;

import java.util.ArrayList;
import java.util.List;

/** A flight that comes to a stand at every photo: the sharpest pictures, and the slowest way to them. A wing cannot. */
public final class StopAndGo {
    private final Flight flight;
    private final double settlingS;
    private final double speedMps;
    private final List<Leg> legs = new ArrayList<>();
    private final List<Exposure> exposures = new ArrayList<>();

    private StopAndGo(Flight flight, double settlingS, double speedMps) {
        this.flight = flight;
        this.settlingS = settlingS;
        this.speedMps = speedMps;
    }

    /**
     * The same flight, stopping.
     *
     * @param settlingS until the aircraft hangs still at a photo
     * @param speedMps between photos and from line to line, where the way is long enough to reach it
     */
    public static Flight of(Flight flight, double settlingS, double speedMps) {
        return new StopAndGo(flight, settlingS, speedMps).flight();
    }

    private Flight flight() {
        for (Leg leg : flight.legs()) {
            if (leg instanceof Line line) {
                flight.exposuresOf(line).forEach(exposure -> stop(line, exposure));
            } else if (leg instanceof Link link && !link.kind().transit()) {
                legs.add(new Link(link.kind(), link.from(), link.to(), link.upM(), speedMps));
            } else {
                legs.add(leg);
            }
        }
        return new Flight(legs, exposures, flight.launch(), flight.takeOffUpM());
    }

    /** Each photo becomes a line of its own, at which the aircraft hangs. */
    private void stop(Line line, Exposure here) {
        int index = exposures.size();
        if (index > line.firstExposure()) {
            Exposure before = exposures.get(index - 1);
            double[] up = {before.upM(), here.upM()};
            legs.add(new Link(Link.Kind.GAP, before.point(), here.point(), up, speedMps));
        }
        double[] level = Way.level(here.upM());
        legs.add(new Line(
                line.pass(),
                index + 1,
                line.strip(),
                here.point(),
                here.point(),
                line.trackRad(),
                level,
                speedMps,
                index,
                1));
        legs.add(new Hover(Place.over(here.point(), here.upM()), settlingS));
        exposures.add(new Exposure(here.id(), here.pass(), index + 1, here.pose(), here.lens(), here.trackRad()));
    }
}
