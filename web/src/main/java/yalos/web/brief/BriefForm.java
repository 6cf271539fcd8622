package yalos.web.brief;

import java.util.EnumSet;
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
import yalos.core.fault.InputFault;
import yalos.core.fault.TypedDay;
import yalos.core.kit.Positioning;
import yalos.core.units.Measure;
import yalos.core.units.Unit;

/** A brief as the page's form sends it. Lengths may be typed with any unit. */
final class BriefForm {
    private BriefForm() {}

    /**
     * The accuracies people name by a word, one standard deviation in metres (common practice). A tenth of a foot, 3 cm, is
     * what clients often call survey grade.
     */
    enum Grade {
        NONE("none asked for", OptionalDouble.empty(), OptionalDouble.empty()),
        MAP("map grade: 1 m", OptionalDouble.of(1), OptionalDouble.of(2)),
        SURVEY("survey grade: 3 cm (a tenth of a foot)", OptionalDouble.of(0.03), OptionalDouble.of(0.05)),
        OWN("own figures", OptionalDouble.empty(), OptionalDouble.empty());

        final String words;
        final OptionalDouble horizontalM;
        final OptionalDouble verticalM;

        Grade(String words, OptionalDouble horizontalM, OptionalDouble verticalM) {
            this.words = words;
            this.horizontalM = horizontalM;
            this.verticalM = verticalM;
        }

        public String words() {
            return words;
        }

        /** The grade whose figures a brief has. */
        static Grade of(Brief brief) {
            for (Grade grade : new Grade[] {NONE, MAP, SURVEY}) {
                if (grade.horizontalM.equals(brief.horizontalM()) && grade.verticalM.equals(brief.verticalM())) {
                    return grade;
                }
            }
            return OWN;
        }
    }

    /**
     * @param before whose rulings stay
     * @throws InputFault for a field that cannot be read
     */
    static Brief read(Map<String, String> form, Brief before) {
        Grade chosen = choice(Grade.class, form, "grade").orElse(Grade.NONE);
        boolean changed = chosen != Grade.of(before) && chosen != Grade.OWN;
        OptionalDouble horizontal = length(form, "horizontal", Unit.CENTIMETRE);
        OptionalDouble vertical = length(form, "vertical", Unit.CENTIMETRE);
        return new Brief(
                choice(Purpose.class, form, "purpose"),
                form.getOrDefault("decision", "").strip(),
                length(form, "smallest", Unit.CENTIMETRE),
                changed ? chosen.horizontalM : horizontal,
                changed ? chosen.verticalM : vertical,
                choice(Surface.class, form, "surface").orElse(Surface.GENERAL),
                choice(Priority.class, form, "priority").orElse(Priority.DETAIL),
                choice(Positioning.class, form, "positioning").orElse(Positioning.SINGLE),
                form.getOrDefault("delivery", "").strip(),
                form.getOrDefault("client", "").strip(),
                TypedDay.of("due", form.getOrDefault("due", "")),
                site(form),
                new Crop(
                        choice(Crop.Stage.class, form, "cropStage").orElse(Crop.Stage.NONE),
                        length(form, "plant", Unit.CENTIMETRE),
                        choice(Crop.Use.class, form, "cropUse").orElse(Crop.Use.SCOUTING)),
                new Day(
                        minutes(form, "travel", before.day().travelMinutes()),
                        minutes(form, "setUp", before.day().setUpMinutes()),
                        (int) Math.round(
                                figure(form, "targets", Unit.COUNT, before.day().targets())),
                        minutes(form, "perTarget", before.day().minutesPerTarget()),
                        minutes(form, "dayLength", before.day().dayMinutes())),
                before.rulings());
    }

    private static Site site(Map<String, String> form) {
        Set<Site.Difficulty> difficulties = EnumSet.noneOf(Site.Difficulty.class);
        for (Site.Difficulty difficulty : Site.Difficulty.values()) {
            if (form.containsKey("site-" + difficulty.name())) {
                difficulties.add(difficulty);
            }
        }
        return new Site(form.containsKey("bareEarth"), form.containsKey("vegetation"), difficulties);
    }

    private static double minutes(Map<String, String> form, String key, double otherwise) {
        return figure(form, key, Unit.MINUTE, otherwise * 60) / 60;
    }

    private static double figure(Map<String, String> form, String key, Unit unit, double otherwise) {
        String text = form.getOrDefault(key, "");
        return text.isBlank() ? otherwise : Measure.typed(key, text, unit).si();
    }

    private static OptionalDouble length(Map<String, String> form, String key, Unit unit) {
        String text = form.getOrDefault(key, "");
        if (text.isBlank()) {
            return OptionalDouble.empty();
        }
        return OptionalDouble.of(Math.round(Measure.typed(key, text, unit).si() * 1e9) / 1e9);
    }

    /**
     * What was chosen; empty for nothing.
     *
     * @throws InputFault for what is no choice
     */
    static <E extends Enum<E>> Optional<E> choice(Class<E> type, Map<String, String> form, String key) {
        String text = form.getOrDefault(key, "");
        try {
            return text.isBlank() ? Optional.empty() : Optional.of(Enum.valueOf(type, text));
        } catch (IllegalArgumentException e) {
            throw new InputFault(key, text, "“%s” is not one of the choices.".formatted(text));
        }
    }
}
