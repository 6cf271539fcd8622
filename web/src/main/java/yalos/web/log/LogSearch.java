package yalos.web.log;

import java.net.URLEncoder;
import java.nio.charset.StandardCharsets;
import java.time.LocalDate;
import java.util.Optional;
import yalos.core.exchange.TypedPosition;
import yalos.core.fault.InputFault;
import yalos.core.fault.TypedDay;
import yalos.core.geodesy.LonLat;
import yalos.core.units.Measure;
import yalos.core.units.Unit;
import yalos.web.store.LogMapper.Wanted;

/** What is looked for in the log, as typed. */
public record LogSearch(
        Long block,
        String text,
        String aircraft,
        String person,
        String battery,
        String from,
        String to,
        String place,
        String km) {
    private static final double USUAL_M = 5000;
    private static final double LEAST_M = 10;
    private static final double MOST_M = 20_100_000;

    public LogSearch {
        text = or(text);
        aircraft = or(aircraft);
        person = or(person);
        battery = or(battery);
        from = or(from);
        to = or(to);
        place = or(place);
        km = or(km);
    }

    private static String or(String typed) {
        return typed == null ? "" : typed.strip();
    }

    /** The same as an address goes on with it. */
    public String query() {
        StringBuilder query = new StringBuilder();
        String[][] all = {
            {"text", text},
            {"aircraft", aircraft},
            {"person", person},
            {"battery", battery},
            {"from", from},
            {"to", to},
            {"place", place},
            {"km", km},
            {"block", block == null ? "" : block.toString()}
        };
        for (String[] one : all) {
            if (!one[1].isEmpty()) {
                query.append('&').append(one[0]).append('=').append(URLEncoder.encode(one[1], StandardCharsets.UTF_8));
            }
        }
        return query.toString();
    }

    /**
     * @throws InputFault naming what cannot be read
     */
    Wanted wanted() {
        Optional<LonLat> at =
                place.isEmpty() ? Optional.empty() : Optional.of(TypedPosition.read(place, Optional.empty()));
        return new Wanted(
                block,
                false,
                wanted(aircraft),
                wanted(person),
                wanted(battery),
                TypedDay.of("from", from).map(LocalDate::atStartOfDay).orElse(null),
                TypedDay.of("to", to)
                        .map(last -> last.plusDays(1).atStartOfDay())
                        .orElse(null),
                at.map(LonLat::lonDeg).orElse(null),
                at.map(LonLat::latDeg).orElse(null),
                at.map(there -> metres()).orElse(null),
                wanted(text));
    }

    private double metres() {
        double metres =
                km.isEmpty() ? USUAL_M : Measure.typed("km", km, Unit.KILOMETRE).si();
        return InputFault.within("km", metres, LEAST_M, MOST_M, "m");
    }

    private static String wanted(String typed) {
        return typed.isEmpty() ? null : typed;
    }
}
