package yalos.web.strips;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.stream.Stream;
import yalos.core.camera.GroundScale;
import yalos.core.flight.Alignment;
import yalos.core.flight.Line;
import yalos.core.flight.Timeline;
import yalos.core.flight.Way;
import yalos.core.pattern.AddedPass;
import yalos.core.pattern.AlignmentPass;
import yalos.core.pattern.Crossing;
import yalos.core.pattern.Pass;
import yalos.core.pattern.Patterns;
import yalos.core.pattern.StripEdit;
import yalos.core.pattern.Task;
import yalos.core.pattern.TieStrips;
import yalos.core.pattern.TiltedPasses;
import yalos.core.plan.BlockPlan;
import yalos.core.units.Measure;
import yalos.core.units.Unit;
import yalos.core.units.UnitChoice;
import yalos.core.units.UnitKind;

/**
 * The passes of a block, each with what it gives and takes.
 *
 * @param words what is flown, in a line
 * @param start corner at which the main pass begins; empty for the one nearest to the launch point
 * @param edits what was changed by hand, in words
 * @param heading to which the nose is held; empty along the strips
 * @param turns how it gets from one strip into the next
 */
record PassesView(String words, List<Row> rows, String heading, List<String> edits, String start, Turns turns) {
    private static final double LEAST_SAVED_S = 5;

    /**
     * How it turns.
     *
     * @param wing whether what flies turns like a car
     * @param asked whether a wing can be asked where: not along an axis
     * @param inside whether a wing turns within the outline
     * @param rounded whether a multirotor turns back in a bend
     * @param saves what that would save, such as “about 2:10 min”; empty where nothing
     */
    record Turns(boolean wing, boolean asked, boolean inside, boolean rounded, String saves) {
        static Turns of(Patterns patterns, Optional<BlockPlan> plan) {
            boolean wing = plan.filter(
                            there -> there.request().aircraft().kind().wing())
                    .isPresent();
            double saved = patterns.turns().rounded()
                    ? 0
                    : plan.map(there -> there.timeline().roundingSavesS()).orElse(0.0);
            return new Turns(
                    wing,
                    !wing || patterns.corridor().isEmpty(),
                    patterns.turns().inside(),
                    patterns.turns().rounded(),
                    saved < LEAST_SAVED_S
                            ? ""
                            : "about %s min".formatted(UnitKind.DURATION.figure(saved, Unit.MINUTE)));
        }
    }

    /**
     * A pass, or those that belong to one wish.
     *
     * @param number 0 the main one, from 1 the added
     * @param figures what it gives, in a line
     */
    record Row(int number, String key, String words, String figures, Fields fields) {}

    /** What stands in the form of an added pass; empty where it is as in the main pass. */
    record Fields(
            String height,
            String forward,
            String side,
            String angle,
            String tilt,
            int count,
            List<Look> looks,
            String still,
            String straight) {
        static final Fields NONE = new Fields("", "", "", "", "", 1, List.of(), "", "");
    }

    /** A way to look that can be ticked. */
    record Look(String key, boolean chosen) {}

    static PassesView of(Patterns patterns, Optional<BlockPlan> plan, UnitChoice units) {
        List<Row> rows = new ArrayList<>();
        String main = patterns.corridor().isPresent() ? "corridor" : "grid";
        rows.add(new Row(0, main, main, figures(plan, 0, units), Fields.NONE));
        for (int i = 1; i <= patterns.added().size(); i++) {
            AddedPass pass = patterns.added().get(i - 1);
            String figures = pass.alignment().isPresent() ? room(plan, units) : figures(plan, i, units);
            rows.add(new Row(i, pass.key(), pass.words(), figures, fields(pass)));
        }
        return new PassesView(
                patterns.words(),
                rows,
                patterns.heading().map(Measure::asTyped).orElse(""),
                patterns.edits().stream().map(StripEdit::words).toList(),
                patterns.start().map(Enum::name).orElse(""),
                Turns.of(patterns, plan));
    }

    private static Fields fields(AddedPass pass) {
        AddedPass.Own own = pass.own();
        String angle = "";
        String tilt = "";
        int count = 1;
        List<Look> looks = List.of();
        String still = "";
        String straight = "";
        if (pass instanceof Crossing crossing) {
            angle = crossing.angle().asTyped();
        } else if (pass instanceof TieStrips tie) {
            angle = tie.angle().asTyped();
            tilt = tie.tilt().asTyped();
            count = tie.count();
        } else if (pass instanceof TiltedPasses tilted) {
            tilt = tilted.tilt().asTyped();
            looks = Stream.of(TiltedPasses.Toward.values())
                    .map(way -> new Look(way.key(), tilted.looks().contains(way)))
                    .toList();
        } else if (pass instanceof AlignmentPass alignment) {
            still = alignment.still().asTyped();
            straight = alignment.straight().asTyped();
            count = alignment.eights();
        }
        return new Fields(
                typed(own.height()),
                typed(own.forwardOverlap()),
                typed(own.sideOverlap()),
                angle,
                tilt,
                count,
                looks,
                still,
                straight);
    }

    private static String typed(Optional<Measure> measure) {
        return measure.map(Measure::asTyped).orElse("");
    }

    /** What an alignment needs clear at each end, and what it takes. */
    private static String room(Optional<BlockPlan> planned, UnitChoice units) {
        return planned.filter(plan -> plan.flight().alignment().isPresent())
                .map(plan -> {
                    Alignment.Room room = plan.flight()
                            .alignment()
                            .get()
                            .room(plan.request().aircraft(), plan.design().speedMps());
                    return "%s by %s clear at each end, about %s min in all"
                            .formatted(
                                    units.text(UnitKind.DISTANCE, room.alongM()),
                                    units.text(UnitKind.DISTANCE, room.acrossM()),
                                    UnitKind.DURATION.figure(Alignment.seconds(plan.timeline()), Unit.MINUTE));
                })
                .orElse("");
    }

    private static String figures(Optional<BlockPlan> planned, int added, UnitChoice units) {
        return planned.map(plan -> {
                    List<Pass> passes = new ArrayList<>();
                    for (int pass = 1; pass <= plan.passes().passes().size(); pass++) {
                        if (plan.passes().belongs(pass, added)) {
                            passes.add(plan.passes().passes().get(pass - 1));
                        }
                    }
                    long photos = plan.flight().exposures().stream()
                            .filter(photo -> plan.passes().belongs(photo.pass(), added))
                            .count();
                    Optional<Pass> first = passes.stream().findFirst();
                    String direction = first.flatMap(pass -> pass.pattern().directionRad().stream()
                                    .boxed()
                                    .findFirst())
                            .map(rad -> String.format(Locale.ROOT, "%.0f°, ", Math.toDegrees(rad) % 180))
                            .orElse("");
                    String height =
                            first.map(pass -> settings(plan, pass, units)).orElse("");
                    return "%s%s%,d photos, %s"
                            .formatted(
                                    direction,
                                    height,
                                    photos,
                                    UnitKind.DURATION.figure(seconds(plan, added), Unit.MINUTE) + " min");
                })
                .orElse("");
    }

    /** Height, GSD straight below, base and spacing of a pass. */
    private static String settings(BlockPlan plan, Pass pass, UnitChoice units) {
        Task task = pass.task();
        double gsdM = new GroundScale(plan.request().camera(), task.heightM()).gsdM();
        return "%s, %s, base %s, spacing %s, "
                .formatted(
                        units.text(UnitKind.HEIGHT, task.heightM()),
                        units.text(UnitKind.GSD, gsdM),
                        units.text(UnitKind.DISTANCE, task.baseM()),
                        units.text(UnitKind.DISTANCE, task.spacingM()));
    }

    /** From its first photo to its last, ways between its lines included. */
    private static double seconds(BlockPlan plan, int added) {
        double seconds = 0;
        double since = 0;
        boolean within = false;
        for (Timeline.Span span : plan.timeline().spans()) {
            if (span.leg() instanceof Line line) {
                boolean mine = plan.passes().belongs(line.pass(), added);
                seconds += mine ? span.seconds() + (within ? since : 0) : 0;
                within = mine;
                since = 0;
            } else if (span.leg() instanceof Way) {
                since += span.seconds();
            }
        }
        return seconds;
    }
}
