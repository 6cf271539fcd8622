package yalos.core.rehearsal;

import yalos.core.flight.Place;

/** The log, once a second. */
public record Sample(
        double seconds,
        Phase phase,
        Place truly,
        Place known,
        double groundMps,
        double yawRad,
        double charge,
        double home,
        int satellites,
        String solution,
        double windMps,
        double windFromRad,
        double link,
        int photos) {}
