package yalos.web.demo;

import java.time.LocalDate;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.Set;
import yalos.core.brief.Brief;
import yalos.core.brief.Crop;
import yalos.core.brief.Day;
import yalos.core.brief.Priority;
import yalos.core.brief.Purpose;
import yalos.core.brief.Site;
import yalos.core.brief.Surface;
import yalos.core.kit.Positioning;

/** What is asked in the demo. */
final class DemoBriefs {
    private DemoBriefs() {}

    /** The hill fort, for the estate's plan. */
    static Brief survey() {
        return new Brief(
                Optional.of(Purpose.SURFACE_MODEL),
                "where the ramparts of the fort ran, for the estate's conservation plan",
                OptionalDouble.of(0.06),
                OptionalDouble.of(0.03),
                OptionalDouble.of(0.05),
                Surface.GENERAL,
                Priority.DETAIL,
                Positioning.PPK,
                "UTM 30N, heights above the geoid",
                "Thornwane estate office",
                Optional.of(LocalDate.of(2027, 4, 30)),
                new Site(true, true, Set.of(Site.Difficulty.RELIEF, Site.Difficulty.NO_NETWORK)),
                Crop.NONE,
                new Day(45, 40, 8, 8, 480),
                Map.of(
                        "gsd", new Brief.Ruling(true, ""),
                        "overlaps", new Brief.Ruling(false, "the margin and the relief are looked after in Proof"),
                        "positioning", new Brief.Ruling(true, "")));
    }

    /** The meadow, flown again and again. */
    static Brief crop() {
        return new Brief(
                Optional.of(Purpose.CROP_INDEX),
                "where buried walls show as marks in the meadow",
                OptionalDouble.of(0.15),
                OptionalDouble.empty(),
                OptionalDouble.empty(),
                Surface.FLAT_FIELD,
                Priority.REPEATABILITY,
                Positioning.SINGLE,
                "",
                "Thornwane estate office",
                Optional.empty(),
                Site.PLAIN,
                new Crop(Crop.Stage.CLOSED, OptionalDouble.empty(), Crop.Use.TRIAL_SERIES),
                Day.USUAL,
                Map.of());
    }
}
