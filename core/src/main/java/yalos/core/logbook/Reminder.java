package yalos.core.logbook;

import biweekly.Biweekly;
import biweekly.ICalendar;
import biweekly.component.VAlarm;
import biweekly.component.VEvent;
import biweekly.parameter.Related;
import biweekly.property.DateEnd;
import biweekly.property.DateStart;
import biweekly.property.Geo;
import biweekly.property.Trigger;
import biweekly.util.Duration;
import biweekly.util.ICalDate;
import java.nio.charset.StandardCharsets;
import java.time.Instant;
import java.time.LocalDate;
import java.time.ZoneId;
import java.util.Date;
import java.util.List;
import java.util.Optional;
import yalos.core.geodesy.LonLat;

/** Dates to fly on, as an iCalendar file (RFC 5545): each with a reminder some days ahead. */
public final class Reminder {
    private Reminder() {}

    /**
     * A date.
     *
     * @param key stays the same for the same date of the same series, so that bringing it in again makes no second one
     * @param from when it begins, where the hour is known; else all day
     */
    public record Entry(
            String key,
            String title,
            String words,
            LocalDate date,
            Optional<Instant> from,
            Optional<Instant> to,
            Optional<LonLat> place) {}

    /**
     * @param aheadDays before the date on which it is reminded; none where 0
     * @param made stamp of the file
     */
    public static byte[] file(List<Entry> entries, int aheadDays, Instant made) {
        ICalendar calendar = new ICalendar();
        calendar.setProductId("-//Yalos//flights again//EN");
        for (Entry entry : entries) {
            calendar.addEvent(event(entry, aheadDays, made));
        }
        return Biweekly.write(calendar).go().getBytes(StandardCharsets.UTF_8);
    }

    private static VEvent event(Entry entry, int aheadDays, Instant made) {
        VEvent event = new VEvent();
        event.setUid(entry.key());
        event.setDateTimeStamp(Date.from(made));
        event.setSummary(entry.title());
        event.setDescription(entry.words());
        if (entry.from().isPresent() && entry.to().isPresent()) {
            event.setDateStart(Date.from(entry.from().orElseThrow()));
            event.setDateEnd(Date.from(entry.to().orElseThrow()));
        } else {
            event.setDateStart(new DateStart(day(entry.date())));
            event.setDateEnd(new DateEnd(day(entry.date().plusDays(1))));
        }
        entry.place().ifPresent(at -> event.setGeo(new Geo(at.latDeg(), at.lonDeg())));
        if (aheadDays > 0) {
            Duration ahead = Duration.builder().prior(true).days(aheadDays).build();
            event.addAlarm(VAlarm.display(new Trigger(ahead, Related.START), entry.title()));
        }
        return event;
    }

    /** A day without hours. */
    private static ICalDate day(LocalDate date) {
        // The library reads its parts by the machine's clock, so that it is the same day everywhere.
        return new ICalDate(Date.from(date.atStartOfDay(ZoneId.systemDefault()).toInstant()), false);
    }
}
