package yalos.web.log;

import java.net.URLEncoder;
import java.nio.charset.StandardCharsets;
import java.time.DateTimeException;
import java.time.LocalDate;
import java.util.Map;
import java.util.Optional;
import yalos.core.exchange.TypedPosition;
import yalos.core.fault.InputFault;
import yalos.core.geodesy.LonLat;
import yalos.web.store.LogMapper.Wanted;

/** What is looked for in the log, as typed. */
public final class LogSearch {
    private static final double M_A_DEGREE = 111_320;
    private static final double USUAL_KM = 5;

    private Long block;
    private String text = "";
    private String aircraft = "";
    private String person = "";
    private String battery = "";
    private String from = "";
    private String to = "";
    private String place = "";
    private String km = "";

    public Long getBlock() {
        return block;
    }

    public void setBlock(Long id) {
        block = id;
    }

    public String getText() {
        return text;
    }

    public void setText(String typed) {
        text = typed;
    }

    public String getAircraft() {
        return aircraft;
    }

    public void setAircraft(String typed) {
        aircraft = typed;
    }

    public String getPerson() {
        return person;
    }

    public void setPerson(String typed) {
        person = typed;
    }

    public String getBattery() {
        return battery;
    }

    public void setBattery(String typed) {
        battery = typed;
    }

    public String getFrom() {
        return from;
    }

    public void setFrom(String typed) {
        from = typed;
    }

    public String getTo() {
        return to;
    }

    public void setTo(String typed) {
        to = typed;
    }

    public String getPlace() {
        return place;
    }

    public void setPlace(String typed) {
        place = typed;
    }

    public String getKm() {
        return km;
    }

    public void setKm(String typed) {
        km = typed;
    }

    /** The same as an address goes on with it. */
    public String query() {
        StringBuilder query = new StringBuilder();
        Map<String, String> all = Map.of(
                "text",
                text,
                "aircraft",
                aircraft,
                "person",
                person,
                "battery",
                battery,
                "from",
                from,
                "to",
                to,
                "place",
                place,
                "km",
                km);
        all.entrySet().stream()
                .filter(one -> !one.getValue().isBlank())
                .sorted(Map.Entry.comparingByKey())
                .forEach(one -> query.append('&')
                        .append(one.getKey())
                        .append('=')
                        .append(URLEncoder.encode(one.getValue(), StandardCharsets.UTF_8)));
        if (block != null) {
            query.append("&block=").append(block);
        }
        return query.toString();
    }

    Wanted wanted() {
        Double[] box = box();
        return new Wanted(
                block,
                or(aircraft),
                or(person),
                or(battery),
                day("from", from).map(LocalDate::atStartOfDay).orElse(null),
                day("to", to).map(last -> last.plusDays(1).atStartOfDay()).orElse(null),
                box[0],
                box[1],
                box[2],
                box[3],
                or(text));
    }

    private Double[] box() {
        if (place.isBlank()) {
            return new Double[4];
        }
        LonLat at = TypedPosition.read(place, Optional.empty());
        double around = (km.isBlank() ? USUAL_KM : figure("km", km)) * 1000;
        InputFault.within("km", around / 1000, 0.01, 20_000, "km");
        double north = around / M_A_DEGREE;
        double east = north / Math.max(0.01, Math.cos(Math.toRadians(at.latDeg())));
        return new Double[] {at.lonDeg() - east, at.latDeg() - north, at.lonDeg() + east, at.latDeg() + north};
    }

    private static String or(String typed) {
        return typed == null || typed.isBlank() ? null : typed.strip();
    }

    static Optional<LocalDate> day(String field, String typed) {
        try {
            return typed.isBlank() ? Optional.empty() : Optional.of(LocalDate.parse(typed.strip()));
        } catch (DateTimeException none) {
            throw new InputFault(field, typed, "“%s” is no day such as 2026-05-14.".formatted(typed));
        }
    }

    static double figure(String field, String typed) {
        try {
            return Double.parseDouble(typed.strip().replace(',', '.'));
        } catch (NumberFormatException none) {
            throw new InputFault(field, typed, "“%s” is no figure.".formatted(typed));
        }
    }
}
