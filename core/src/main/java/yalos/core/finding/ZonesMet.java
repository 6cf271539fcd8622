package yalos.core.finding;

import static yalos.core.finding.Finding.Level.*;

import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import yalos.core.geodesy.PlanePoint;
import yalos.core.site.SiteMap;
import yalos.core.site.Zone;

/** The zones that a path meets: what of it first, where, and how many photos are taken in each. */
final class ZonesMet {
    private final SiteMap site;
    private final double unknownM;
    private final Map<Zone, Meeting> met = new LinkedHashMap<>();

    private static final class Meeting {
        private final String what;
        private final PlanePoint place;
        private int photos;

        Meeting(String what, PlanePoint place) {
            this.what = what;
            this.place = place;
        }
    }

    /**
     * @param unknownM height above ground that stands for the true one where no ground is known
     */
    ZonesMet(SiteMap site, double unknownM) {
        this.site = site;
        this.unknownM = unknownM;
    }

    /**
     * A place of the path, ways between photos too.
     *
     * @param what of the path it belongs to, at the head of a sentence
     * @param aboveM above ground; not a number where that is not known
     */
    void place(String what, PlanePoint at, double aboveM) {
        meetings(what, at, aboveM);
    }

    void photo(String what, PlanePoint at, double aboveM) {
        meetings(what, at, aboveM).forEach(meeting -> meeting.photos++);
    }

    private List<Meeting> meetings(String what, PlanePoint at, double aboveM) {
        return site.zonesAt(at.xM(), at.yM(), Double.isNaN(aboveM) ? unknownM : aboveM).stream()
                .map(zone -> met.computeIfAbsent(zone, first -> new Meeting(what, at)))
                .toList();
    }

    /**
     * Says each of them.
     *
     * @param key before the zone's name
     * @param out how a place to keep out of is kept out of, as a sentence's head
     * @param back how a place that may not be left is not
     */
    void tell(Collected found, String key, String out, String back) {
        met.forEach((zone, meeting) -> found.addAt(
                zone.kind() == Zone.Kind.CAUTION ? MIND : STOP,
                key + zone.name(),
                switch (zone.kind()) {
                    case KEEP_IN -> sentence(found, "leaves", zone, meeting, "outside", back);
                    case KEEP_OUT -> sentence(found, "enters", zone, meeting, "in it", out);
                    case CAUTION -> sentence(found, "enters", zone, meeting, "in it", "Ask whoever looks after it");
                },
                meeting.place,
                List.of()));
    }

    private static String sentence(
            Collected found, String does, Zone zone, Meeting meeting, String where, String advice) {
        return "%s %s “%s” (%s, from %s%s above ground); %s taken %s. %s; the rules of the place decide."
                .formatted(
                        meeting.what,
                        does,
                        zone.name(),
                        zone.kind().words(),
                        found.height(zone.floorM()),
                        Double.isInfinite(zone.ceilingM()) ? "" : " to " + found.height(zone.ceilingM()),
                        meeting.photos == 1 ? "1 photo is" : "%,d photos are".formatted(meeting.photos),
                        where,
                        advice);
    }
}
