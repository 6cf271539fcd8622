package yalos.core.brief;

import static yalos.core.fault.InputFault.within;

import java.time.LocalDate;
import java.util.HashMap;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalDouble;
import yalos.core.fault.InputFault;
import yalos.core.kit.Positioning;
import yalos.core.plan.PlanProof;

/**
 * What must be delivered.
 *
 * @param purpose what the job is for; empty while nobody asked
 * @param decision which product or decision it serves, in the operator's words
 * @param smallestM the smallest thing that must be seen, in metres
 * @param horizontalM accuracy wanted of positions, one standard deviation in metres
 * @param verticalM accuracy wanted of heights, one standard deviation in metres
 * @param surface of the ground
 * @param priority which quality ranks first
 * @param positioning how the camera's positions are known
 * @param delivery coordinate and height system of the delivery, in words
 * @param client who asked
 * @param due until when
 * @param site what it is like there
 * @param crop where one is surveyed
 * @param day how it is spent besides flying
 * @param rulings what the operator said to each piece of advice, by its key
 */
public record Brief(
        Optional<Purpose> purpose,
        String decision,
        OptionalDouble smallestM,
        OptionalDouble horizontalM,
        OptionalDouble verticalM,
        Surface surface,
        Priority priority,
        Positioning positioning,
        String delivery,
        String client,
        Optional<LocalDate> due,
        Site site,
        Crop crop,
        Day day,
        Map<String, Ruling> rulings) {
    private static final int LONGEST = 300;

    /** How accurate the result must be. */
    public PlanProof.Accuracy accuracy() {
        return new PlanProof.Accuracy(horizontalM, verticalM);
    }

    /** A brief in which nothing is asked yet. */
    public static final Brief EMPTY = new Brief(
            Optional.empty(),
            "",
            OptionalDouble.empty(),
            OptionalDouble.empty(),
            OptionalDouble.empty(),
            Surface.GENERAL,
            Priority.DETAIL,
            Positioning.SINGLE,
            "",
            "",
            Optional.empty(),
            Site.PLAIN,
            Crop.NONE,
            Day.USUAL,
            Map.of());

    /**
     * What the operator said to a piece of advice.
     *
     * @param accepted whether it was taken
     * @param note one line why, mostly when it was not
     */
    public record Ruling(boolean accepted, String note) {}

    public Brief {
        smallestM.ifPresent(m -> within("smallest", m, 0.0005, 100, "m"));
        horizontalM.ifPresent(m -> within("horizontal", m, 0.001, 100, "m"));
        verticalM.ifPresent(m -> within("vertical", m, 0.001, 100, "m"));
        for (String text : new String[] {decision, delivery, client}) {
            if (text.length() > LONGEST) {
                throw new InputFault("brief", text, "Keep it to %d characters.".formatted(LONGEST));
            }
        }
        rulings = Map.copyOf(rulings);
    }

    /** The brief with one more ruling on a piece of advice. */
    public Brief ruled(String key, Ruling ruling) {
        Map<String, Ruling> changed = new HashMap<>(rulings);
        changed.put(key, ruling);
        return with(positioning, changed);
    }

    /** The brief with positions known otherwise. */
    public Brief with(Positioning mode) {
        return with(mode, rulings);
    }

    private Brief with(Positioning mode, Map<String, Ruling> ruled) {
        return new Brief(
                purpose,
                decision,
                smallestM,
                horizontalM,
                verticalM,
                surface,
                priority,
                mode,
                delivery,
                client,
                due,
                site,
                crop,
                day,
                ruled);
    }
}
