package yalos.web.log;

import java.io.IOException;
import java.io.Writer;
import java.util.List;
import java.util.Locale;
import java.util.OptionalDouble;
import java.util.OptionalInt;
import java.util.stream.Collectors;
import org.apache.commons.csv.CSVFormat;
import org.apache.commons.csv.CSVPrinter;
import org.springframework.stereotype.Component;
import tools.jackson.databind.json.JsonMapper;
import tools.jackson.databind.node.ObjectNode;
import yalos.core.logbook.FlightRecord;
import yalos.core.logbook.FlightRecord.Pack;
import yalos.web.log.FlightLog.Kept;
import yalos.web.store.LogMapper.Wanted;

/** Flights as open files, in SI: the name of a column holds its unit. */
@Component
public class LogFiles {
    private static final int AT_ONCE = 500;
    private static final JsonMapper JSON = JsonMapper.builder().build();
    private static final String[] HEADING = {
        "start",
        "zone",
        "minutes",
        "job",
        "block",
        "sortie",
        "aircraft",
        "payload",
        "crew",
        "batteries",
        "photos_planned",
        "photos",
        "minutes_planned",
        "enough_planned",
        "enough",
        "wind_mps",
        "gust_mps",
        "wind_from_deg",
        "air_c",
        "weather",
        "satellites",
        "base",
        "lat_deg",
        "lon_deg",
        "counts",
        "left_out",
        "happened",
        "notes",
        "uid"
    };

    private final FlightLog log;

    LogFiles(FlightLog log) {
        this.log = log;
    }

    private interface Each {
        void take(Kept kept) throws IOException;
    }

    private void each(Wanted wanted, Each each) throws IOException {
        for (int from = 0; ; from += AT_ONCE) {
            List<Kept> some = log.flights(wanted, from, AT_ONCE);
            for (Kept one : some) {
                each.take(one);
            }
            if (some.size() < AT_ONCE) {
                return;
            }
        }
    }

    public void csv(Wanted wanted, Writer out) throws IOException {
        CSVPrinter table = new CSVPrinter(
                out, CSVFormat.DEFAULT.builder().setHeader(HEADING).get());
        each(wanted, kept -> table.printRecord((Object[]) cells(kept)));
        table.flush();
    }

    private static String[] cells(Kept kept) {
        FlightRecord flight = kept.flight();
        return new String[] {
            flight.start().toString(),
            flight.zone().getId(),
            figure(flight.minutes(), 2),
            safe(kept.row().jobName),
            safe(kept.row().blockName),
            flight.sortie() == 0 ? "" : String.valueOf(flight.sortie()),
            safe(flight.aircraft()),
            safe(flight.payload()),
            safe(flight.crew().stream()
                    .map(one -> one.name() + ", " + one.role())
                    .collect(Collectors.joining("; "))),
            safe(flight.packs().stream().map(LogFiles::pack).collect(Collectors.joining("; "))),
            whole(flight.planned().photos()),
            whole(flight.flown().photos()),
            maybe(flight.planned().minutes(), 2),
            maybe(flight.planned().enough(), 4),
            maybe(flight.flown().enough(), 4),
            maybe(flight.air().windMps(), 1),
            maybe(flight.air().gustMps(), 1),
            flight.air().fromRad().isPresent()
                    ? figure(Math.toDegrees(flight.air().fromRad().getAsDouble()), 0)
                    : "",
            flight.air().airK().isPresent() ? figure(flight.air().airK().getAsDouble() - 273.15, 1) : "",
            safe(flight.air().words()),
            whole(flight.satellites()),
            safe(flight.base()),
            flight.place().map(at -> figure(at.latDeg(), 7)).orElse(""),
            flight.place().map(at -> figure(at.lonDeg(), 7)).orElse(""),
            kept.counts() ? "yes" : "no",
            safe(kept.row().leftOut),
            safe(flight.happenings().stream()
                    .map(one -> one.kind().words() + " " + one.at() + " " + one.what()
                            + (one.why().isEmpty() ? "" : " because " + one.why()))
                    .collect(Collectors.joining("; "))),
            safe(flight.notes()),
            kept.row().uid
        };
    }

    /** What a table program would take for a formula is shown as text. */
    static String safe(String text) {
        return !text.isEmpty() && "=+-@\t\r".indexOf(text.charAt(0)) >= 0 ? "'" + text : text;
    }

    private static String pack(Pack pack) {
        return pack.name() + " " + maybe(pack.before(), 2) + " " + maybe(pack.after(), 2);
    }

    private static String figure(double value, int decimals) {
        return String.format(Locale.ROOT, "%." + decimals + "f", value);
    }

    private static String maybe(OptionalDouble value, int decimals) {
        return value.isPresent() ? figure(value.getAsDouble(), decimals) : "";
    }

    private static String whole(OptionalInt value) {
        return value.isPresent() ? String.valueOf(value.getAsInt()) : "";
    }

    /** One feature for each flight; without geometry where nobody knows where it was. */
    public void geoJson(Wanted wanted, Writer out) throws IOException {
        out.write("{\"type\":\"FeatureCollection\",\"features\":[");
        boolean[] first = {true};
        each(wanted, kept -> {
            out.write(first[0] ? "\n" : ",\n");
            first[0] = false;
            out.write(feature(kept).toString());
        });
        out.write("\n]}\n");
    }

    private static ObjectNode feature(Kept kept) {
        ObjectNode feature = JSON.createObjectNode();
        feature.put("type", "Feature");
        kept.flight()
                .place()
                .ifPresentOrElse(
                        at -> feature.putObject("geometry")
                                .put("type", "Point")
                                .putArray("coordinates")
                                .add(at.lonDeg())
                                .add(at.latDeg()),
                        () -> feature.putNull("geometry"));
        ObjectNode properties = feature.putObject("properties");
        String[] cells = cells(kept);
        for (int i = 0; i < HEADING.length; i++) {
            properties.put(HEADING[i], cells[i]);
        }
        return feature;
    }
}
