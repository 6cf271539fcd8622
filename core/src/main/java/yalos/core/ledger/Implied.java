package yalos.core.ledger;

import static yalos.core.pins.Quantity.*;

import java.util.List;
import java.util.Locale;
import java.util.Map;
import yalos.core.pins.Quantity;
import yalos.core.reason.Reason;

/** What a figure decides along with itself when it is pinned: its reason is the operator, its consequences are told. */
final class Implied {
    private static final Map<Quantity, List<Quantity>> FOLLOWS = Map.ofEntries(
            Map.entry(GSD, List.of(HEIGHT, FOOTPRINT_ACROSS, FOOTPRINT_ALONG)),
            Map.entry(HEIGHT, List.of(GSD, FOOTPRINT_ACROSS, FOOTPRINT_ALONG)),
            Map.entry(FORWARD_OVERLAP, List.of(AIR_BASE, INTERVAL, PHOTOS)),
            Map.entry(SIDE_OVERLAP, List.of(STRIP_SPACING, STRIPS)),
            Map.entry(AIR_BASE, List.of(FORWARD_OVERLAP, INTERVAL, PHOTOS)),
            Map.entry(STRIP_SPACING, List.of(SIDE_OVERLAP, STRIPS)),
            Map.entry(DIRECTION, List.of(STRIPS, PATH_LENGTH, FLIGHT_TIME)),
            Map.entry(MARGIN, List.of(MARGIN_STRIPS, PHOTOS, FLIGHT_TIME)),
            Map.entry(MARGIN_STRIPS, List.of(MARGIN, PHOTOS, FLIGHT_TIME)),
            Map.entry(SHUTTER_TIME, List.of(BLUR, SPEED)),
            Map.entry(TEMPERATURE, List.of(BATTERY_SETS)),
            Map.entry(WIND, List.of(FLIGHT_TIME, BATTERY_SETS)),
            Map.entry(WIND_FROM, List.of(FLIGHT_TIME, BATTERY_SETS)),
            Map.entry(WIND_AT, List.of(FLIGHT_TIME, BATTERY_SETS)));

    private Implied() {}

    /** Pinned by the operator, and what follows from it in this plan. */
    static Reason of(Quantity pinned, Map<Quantity, Entry> entries) {
        Reason.Builder reason = Reason.formula("pinned by you");
        FOLLOWS.getOrDefault(pinned, List.of()).stream()
                .map(entries::get)
                .filter(entry -> entry != null && !Double.isNaN(entry.si()))
                .forEach(entry -> reason.with(
                        "so",
                        entry.quantity().label().toLowerCase(Locale.ROOT).replace("gsd", "GSD"),
                        entry.si(),
                        entry.quantity().kind().choices().get(0).unit()));
        return reason.source("your decision");
    }
}
