package yalos.core.brief;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.stream.Stream;
import yalos.core.kit.Positioning;
import yalos.core.pins.Pins;
import yalos.core.pins.Quantity;
import yalos.core.proof.RuleOfThumb;
import yalos.core.units.Measure;
import yalos.core.units.Unit;
import yalos.core.units.UnitChoice;
import yalos.core.units.UnitKind;

/**
 * One thing that a brief recommends.
 *
 * @param key names it, stable
 * @param label what it is about
 * @param text what is recommended
 * @param reason why, with the figures
 * @param source where the rule comes from
 * @param pins what the ledger pins when it is accepted; empty for advice that is no figure of the ledger
 * @param mode how positions are known when it is accepted; empty for advice on anything else
 */
public record Advice(
        String key,
        String label,
        String text,
        String reason,
        String source,
        List<Pin> pins,
        Optional<Positioning> mode) {
    /** A feature can be told from its neighbours when it covers so many pixels. */
    public static final double PIXELS_PER_FEATURE = 3;
    /** With fewer pixels than these it is guessed at. */
    private static final double LEAST_PIXELS = 2;
    /** A plant is counted reliably when it covers so many pixels. */
    public static final double PIXELS_PER_PLANT = 6;

    private static final String PRACTICE = "common practice";

    /** A figure of the ledger that goes with the advice. */
    public record Pin(Quantity quantity, Measure value) {}

    public Advice {
        pins = List.copyOf(pins);
    }

    /** Advice that changes at most pins. */
    public Advice(String key, String label, String text, String reason, String source, List<Pin> pins) {
        this(key, label, text, reason, source, pins, Optional.empty());
    }

    /** Whether taking it changes anything; other advice can only be noted. */
    public boolean changes() {
        return !pins.isEmpty() || mode.isPresent();
    }

    /** Whether brief and pins are as the advice would have them. */
    public boolean followedBy(Brief brief, Pins present) {
        return mode.map(wanted -> wanted == brief.positioning()).orElseGet(() -> followedBy(present));
    }

    /** Whether the ledger's pins are those of the advice. */
    public boolean followedBy(Pins present) {
        return !pins.isEmpty()
                && pins.stream()
                        .allMatch(pin -> present.of(pin.quantity())
                                .filter(value ->
                                        Math.abs(value.si() - pin.value().si()) < 1e-9)
                                .isPresent());
    }

    /** What a brief recommends; nothing while it has no purpose. */
    public static List<Advice> of(Brief brief, UnitChoice units) {
        return brief.purpose()
                .map(purpose -> new Adviser(brief, purpose, units).all())
                .orElse(List.of());
    }

    private record Adviser(Brief brief, Purpose purpose, UnitChoice units) {

        List<Advice> all() {
            List<Advice> all = new ArrayList<>();
            all.add(gsd());
            all.add(overlaps());
            if (purpose.measured()) {
                all.add(margin());
            }
            all.add(words("pattern", "Pattern", purpose.pattern(), "for " + purpose.named()));
            all.add(sensor());
            all.add(positioning());
            if (purpose.measured()) {
                all.add(control());
            }
            all.add(words("light", "Light", purpose.light(), "for " + purpose.named()));
            all.addAll(ground());
            if (purpose == Purpose.CROP_INDEX) {
                all.add(words(
                        "calibration",
                        "Calibration",
                        brief.crop().use().calibration(),
                        "the result serves for " + brief.crop().use().words()));
            }
            brief.site()
                    .difficulties()
                    .forEach(difficulty -> all.add(words(
                            "site-" + difficulty.name().toLowerCase(Locale.ROOT),
                            "Site",
                            difficulty.advice(),
                            difficulty.words())));
            return all;
        }

        private Advice sensor() {
            boolean crop = (purpose == Purpose.CROP_INDEX || purpose == Purpose.STAND_COUNT)
                    && brief.crop().stage() != Crop.Stage.NONE;
            return crop
                    ? words(
                            "sensor",
                            "Sensor",
                            brief.crop().stage().sensor(),
                            "the crop is " + brief.crop().stage().words())
                    : words("sensor", "Sensor", purpose.sensor(), "for " + purpose.named());
        }

        private Advice control() {
            return words(
                    "control",
                    "Control and check points",
                    needsControl()
                            ? "5 control points or more, and check points apart from them"
                            : "3 check points or more",
                    needsControl()
                            ? "positions by %s are no better than %s"
                                    .formatted(
                                            brief.positioning().words(),
                                            length(brief.positioning().horizontalM()))
                            : "data that nobody checked cannot be vouched for, also with RTK or PPK");
        }

        /** What photos show is the top of everything; the ground under it is another product. */
        private List<Advice> ground() {
            boolean heights = purpose == Purpose.SURFACE_MODEL
                    || purpose == Purpose.TOPOGRAPHIC_PLAN
                    || purpose == Purpose.MONITORING
                    || purpose == Purpose.LIDAR;
            if (!heights) {
                return List.of();
            }
            List<Advice> advice = new ArrayList<>();
            advice.add(
                    brief.site().bareEarth()
                            ? words(
                                    "model",
                                    "Model",
                                    "bare earth: filter plants and buildings, and say so in the delivery",
                                    "photos show the top of everything; only lidar reaches the ground between stems")
                            : words(
                                    "model",
                                    "Model",
                                    "surface as seen from above, with plants and buildings in it",
                                    "no bare earth is asked for"));
            if (brief.site().vegetation()) {
                advice.add(words(
                        "vegetation",
                        "Grass and cover",
                        "measure the ground with a pole where the cover is thick, 20 points or more",
                        "grass and undergrowth hide the ground; the model lies above it by the height of the cover"));
            }
            return advice;
        }

        /** A GSD that a need allows. */
        private record Need(double gsdM, String reason) {}

        private Advice gsd() {
            List<Need> needs = new ArrayList<>();
            needs.add(new Need(purpose.gsdCm() / 100, "usual for " + purpose.named()));
            brief.smallestM()
                    .ifPresent(m -> needs.add(new Need(
                            m / PIXELS_PER_FEATURE,
                            "%s must be seen, on %.0f pixels".formatted(length(m), PIXELS_PER_FEATURE))));
            if (purpose == Purpose.STAND_COUNT) {
                brief.crop()
                        .plantM()
                        .ifPresent(m -> needs.add(new Need(
                                m / PIXELS_PER_PLANT,
                                "a plant of %s is counted on %.0f pixels".formatted(length(m), PIXELS_PER_PLANT))));
            }
            brief.horizontalM()
                    .ifPresent(m -> needs.add(new Need(
                            m / RuleOfThumb.POSITION_GSDS,
                            "positions to %s are one GSD at best".formatted(length(m)))));
            brief.verticalM()
                    .ifPresent(m -> needs.add(new Need(
                            m / RuleOfThumb.HEIGHT_GSDS,
                            "heights to %s are %.1f GSDs at best".formatted(length(m), RuleOfThumb.HEIGHT_GSDS))));
            boolean asked = needs.size() > 1;
            Need binding = (asked ? needs.subList(1, needs.size()) : needs)
                    .stream().min(Comparator.comparingDouble(Need::gsdM)).orElseThrow();
            Need usual = asked && binding.gsdM() > needs.get(0).gsdM() ? needs.get(0) : binding;
            Need chosen = preferred(usual, binding);
            double cm = Math.max(0.05, Math.floor(chosen.gsdM() * 1e4 + 1e-6) / 100);
            Measure gsd = Measure.of(cm, Unit.CENTIMETRE);
            return new Advice(
                    "gsd",
                    "GSD",
                    units.text(UnitKind.GSD, gsd.si()),
                    chosen.reason(),
                    PRACTICE,
                    List.of(new Pin(Quantity.GSD, gsd), new Pin(Quantity.BRIEF_GSD, gsd)));
        }

        /** What is measured up to its edge must be seen from beyond it. */
        private Advice margin() {
            boolean heights = purpose == Purpose.SURFACE_MODEL
                    || purpose == Purpose.TOPOGRAPHIC_PLAN
                    || purpose == Purpose.MONITORING;
            int strips = heights ? 2 : 1;
            return new Advice(
                    "margin",
                    "Margin",
                    strips == 1 ? "1 strip beyond the edge" : strips + " strips beyond the edge",
                    (heights
                                    ? "heights need rays from both sides up to the edge; "
                                    : "the edge is seen from one side only without it; ")
                            + "usual for " + purpose.named(),
                    PRACTICE,
                    List.of(new Pin(Quantity.MARGIN_STRIPS, Measure.of(strips, Unit.COUNT))));
        }

        /** What ranks first moves the point: as coarse as can be, as fine as usual, or with something in hand. */
        private Need preferred(Need usual, Need binding) {
            return switch (brief.priority()) {
                case DETAIL -> usual;
                case SPEED ->
                    brief.smallestM().isPresent()
                                    && binding.gsdM() >= brief.smallestM().getAsDouble() / PIXELS_PER_FEATURE - 1e-9
                            ? new Need(
                                    brief.smallestM().getAsDouble() / LEAST_PIXELS,
                                    "speed first: %s on %.0f pixels, the least that tells it apart"
                                            .formatted(length(brief.smallestM().getAsDouble()), LEAST_PIXELS))
                            : new Need(binding.gsdM() * 1.1, "speed first: a tenth coarser, " + binding.reason());
                case POSITION ->
                    new Need(
                            usual.gsdM() * 0.75,
                            "position first: a quarter finer, so that points are set to a part of it");
                case REPEATABILITY ->
                    new Need(
                            usual.gsdM() * 0.9,
                            "repeatability first: a tenth in hand, so that other light and leaves still serve");
            };
        }

        private Advice overlaps() {
            double forward = Math.max(purpose.forward(), brief.surface().forward());
            double side = Math.max(purpose.side(), brief.surface().side());
            boolean bySurface = brief.surface().forward() > purpose.forward()
                    || brief.surface().side() > purpose.side();
            return new Advice(
                    "overlaps",
                    "Overlaps",
                    String.format(Locale.ROOT, "%.0f %% forward, %.0f %% side", forward * 100, side * 100),
                    bySurface ? brief.surface().words() + ": " + brief.surface().why() : "usual for " + purpose.named(),
                    PRACTICE,
                    List.of(
                            new Pin(Quantity.FORWARD_OVERLAP, Measure.of(Math.round(forward * 100), Unit.PERCENT)),
                            new Pin(Quantity.SIDE_OVERLAP, Measure.of(Math.round(side * 100), Unit.PERCENT))));
        }

        private boolean needsControl() {
            return brief.horizontalM().orElse(Double.MAX_VALUE)
                            < brief.positioning().horizontalM()
                    || brief.verticalM().orElse(Double.MAX_VALUE)
                            < brief.positioning().verticalM()
                    || brief.positioning() == Positioning.CONTROL;
        }

        private Advice positioning() {
            boolean network = !brief.site().difficulties().contains(Site.Difficulty.NO_NETWORK);
            Optional<Positioning> enough = Stream.concat(
                            Stream.of(brief.positioning()), Stream.of(Positioning.values()))
                    .filter(mode -> network || mode != Positioning.RTK_NETWORK)
                    .filter(mode -> mode.horizontalM() <= brief.horizontalM().orElse(Double.MAX_VALUE)
                            && mode.verticalM() <= brief.verticalM().orElse(Double.MAX_VALUE))
                    .findFirst();
            return enough.map(mode -> new Advice(
                            "positioning",
                            "Positioning",
                            mode.words(),
                            mode == Positioning.SINGLE
                                    ? "a simple aircraft without RTK is enough: the map is right in itself, its place about %s off"
                                            .formatted(length(mode.horizontalM()))
                                    : "typically good to %s, and %s in height; a map without it would be metres off"
                                            .formatted(length(mode.horizontalM()), length(mode.verticalM())),
                            PRACTICE,
                            List.of(),
                            Optional.of(mode)))
                    .orElseGet(() -> words(
                            "positioning",
                            "Positioning",
                            "PPK or RTK by a base, with control points",
                            "no mode alone is as good as what is asked for"));
        }

        private Advice words(String key, String label, String text, String reason) {
            return new Advice(key, label, text, reason, PRACTICE, List.of());
        }

        private String length(double m) {
            return m < 0.5 ? units.text(UnitKind.GSD, m) : units.text(UnitKind.DISTANCE, m);
        }
    }
}
