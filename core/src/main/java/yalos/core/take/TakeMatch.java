package yalos.core.take;

import java.time.Instant;
import java.util.List;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.Set;
import java.util.TreeSet;

/**
 * Which photo belongs to which station of the plan, and what the others are.
 *
 * @param photos one for each photo of the take, in its order
 * @param stations of the plan
 * @param from what seconds of photos count from
 * @param clockOffsetS camera's clock less satellites' time; empty where no photo has both
 * @param hoursOff whether that clock stands whole or half hours off
 * @param clockLessPlanS camera's clock less the plan's seconds, as a Unix time; empty where nothing matched has a time
 * @param shiftM photos less stations: the constant part east, north and up; zero where nothing matched has a place
 * @param filesEach how many files one release makes: bands, or a bracket of exposures
 */
public record TakeMatch(
        List<Matched> photos,
        List<Station> stations,
        Instant from,
        OptionalDouble clockOffsetS,
        boolean hoursOff,
        OptionalDouble clockLessPlanS,
        double[] shiftM,
        int filesEach) {

    /**
     * A photo and what it is.
     *
     * @param station from 1; 0 where it belongs to none
     * @param offM from the station, the constant shift taken out; NaN where its place is not known
     * @param seconds by the satellites' clock from the first photo; NaN where not known
     * @param frozen whether its position stood still while time went on, so that it is not believed
     * @param otherLens whether its focal length or size is not that of the others
     * @param why how that is known, where it is not plain
     */
    public record Matched(
            Role role, int station, double offM, double seconds, boolean frozen, boolean otherLens, String why) {}

    /** When a photo was taken, by the satellites' clock; nothing where nobody knows. */
    public Optional<Instant> instant(int photo) {
        double seconds = photos.get(photo).seconds();
        return Double.isNaN(seconds) ? Optional.empty() : Optional.of(from.plusNanos(Math.round(seconds * 1e9)));
    }

    /** Stations without any photo, from 1. */
    public Set<Integer> missing() {
        Set<Integer> missing = new TreeSet<>();
        stations.forEach(station -> missing.add(station.number()));
        photos.forEach(photo -> missing.remove(photo.station()));
        return missing;
    }

    /** How many photos are of a role. */
    public int count(Role role) {
        return (int) photos.stream().filter(photo -> photo.role() == role).count();
    }

    /** Stations of which fewer files are there than one release makes. */
    public List<Integer> incomplete() {
        int[] files = new int[stations.stream().mapToInt(Station::number).max().orElse(0) + 1];
        photos.forEach(photo -> files[photo.station()] += photo.station() > 0 ? 1 : 0);
        return stations.stream()
                .map(Station::number)
                .filter(number -> files[number] > 0 && files[number] < filesEach)
                .toList();
    }
}
