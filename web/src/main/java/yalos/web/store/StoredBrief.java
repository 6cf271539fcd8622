package yalos.web.store;

import static yalos.web.store.Plain.maybe;
import static yalos.web.store.Plain.or;
import static yalos.web.store.Plain.orNull;
import static yalos.web.store.Plain.word;

import java.time.LocalDate;
import java.util.EnumSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;
import yalos.core.brief.Brief;
import yalos.core.brief.Crop;
import yalos.core.brief.Day;
import yalos.core.brief.Priority;
import yalos.core.brief.Purpose;
import yalos.core.brief.Site;
import yalos.core.brief.Surface;
import yalos.core.kit.Positioning;

/** A brief as it is stored. */
record StoredBrief(
        String purpose,
        String decision,
        Double smallestM,
        Double horizontalM,
        Double verticalM,
        String surface,
        String priority,
        String positioning,
        String delivery,
        String client,
        String due,
        StoredSite site,
        StoredCrop crop,
        StoredDay day,
        Map<String, Ruling> rulings) {
    static StoredBrief of(Brief brief) {
        Map<String, Ruling> rulings = new TreeMap<>();
        brief.rulings().forEach((key, ruling) -> rulings.put(key, new Ruling(ruling.accepted(), ruling.note())));
        return new StoredBrief(
                brief.purpose().map(Enum::name).orElse(null),
                brief.decision(),
                orNull(brief.smallestM()),
                orNull(brief.horizontalM()),
                orNull(brief.verticalM()),
                brief.surface().name(),
                brief.priority().name(),
                brief.positioning().name(),
                brief.delivery(),
                brief.client(),
                brief.due().map(LocalDate::toString).orElse(null),
                StoredSite.of(brief.site()),
                StoredCrop.of(brief.crop()),
                StoredDay.of(brief.day()),
                rulings);
    }

    Brief brief() {
        Map<String, Brief.Ruling> said = new TreeMap<>();
        or(rulings)
                .forEach((key, ruling) ->
                        said.put(key, new Brief.Ruling(or(ruling.accepted(), false), or(ruling.note(), ""))));
        return new Brief(
                Plain.known(purpose, Purpose.class),
                or(decision, ""),
                maybe(smallestM),
                maybe(horizontalM),
                maybe(verticalM),
                word(surface, Surface.GENERAL),
                word(priority, Priority.DETAIL),
                word(positioning, Positioning.SINGLE),
                or(delivery, ""),
                or(client, ""),
                StoredGear.day(due),
                site == null ? Site.PLAIN : site.site(),
                crop == null ? Crop.NONE : crop.crop(),
                day == null ? Day.USUAL : day.day(),
                said);
    }

    record Ruling(Boolean accepted, String note) {}

    record StoredSite(Boolean bareEarth, Boolean vegetation, List<String> difficulties) {
        static StoredSite of(Site site) {
            return new StoredSite(
                    site.bareEarth(),
                    site.vegetation(),
                    site.difficulties().stream().map(Enum::name).sorted().toList());
        }

        Site site() {
            Set<Site.Difficulty> known = EnumSet.noneOf(Site.Difficulty.class);
            or(difficulties)
                    .forEach(one -> Plain.known(one, Site.Difficulty.class).ifPresent(known::add));
            return new Site(or(bareEarth, false), or(vegetation, false), known);
        }
    }

    record StoredCrop(String stage, Double plantM, String use) {
        static StoredCrop of(Crop crop) {
            return new StoredCrop(
                    crop.stage().name(), orNull(crop.plantM()), crop.use().name());
        }

        Crop crop() {
            return new Crop(word(stage, Crop.Stage.NONE), maybe(plantM), word(use, Crop.Use.SCOUTING));
        }
    }

    record StoredDay(
            Double travelMinutes, Double setUpMinutes, Integer targets, Double minutesPerTarget, Double dayMinutes) {
        static StoredDay of(Day day) {
            return new StoredDay(
                    day.travelMinutes(), day.setUpMinutes(), day.targets(), day.minutesPerTarget(), day.dayMinutes());
        }

        Day day() {
            Day usual = Day.USUAL;
            return new Day(
                    or(travelMinutes, usual.travelMinutes()),
                    or(setUpMinutes, usual.setUpMinutes()),
                    or(targets, usual.targets()),
                    or(minutesPerTarget, usual.minutesPerTarget()),
                    or(dayMinutes, usual.dayMinutes()));
        }
    }
}
