package yalos.web.objects;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.stream.IntStream;
import yalos.core.flight.Line;
import yalos.core.flight.Timeline;
import yalos.core.flight.Way;
import yalos.core.pattern.Circles;
import yalos.core.pattern.Facade;
import yalos.core.pattern.Rings;
import yalos.core.pattern.StandOff;
import yalos.core.pattern.StructureFlight;
import yalos.core.pattern.StructurePass;
import yalos.core.pattern.Structures;
import yalos.core.pattern.UnderDeck;
import yalos.core.plan.BlockPlan;
import yalos.core.proof.FaceProof;
import yalos.core.proof.Shares;
import yalos.core.proof.StructureProof;
import yalos.core.site.Structure;
import yalos.core.units.Measure;
import yalos.core.units.Unit;
import yalos.core.units.UnitChoice;
import yalos.core.units.UnitKind;

/**
 * Objects and passes as the book shows them.
 *
 * @param clear least distance kept, as typed
 */
record ObjectsView(List<ObjectRow> objects, List<PassRow> passes, String clear, boolean alone, boolean oneView) {
    /**
     * An object.
     *
     * @param share of its faces given enough; empty where that is not known
     */
    record ObjectRow(String name, String words, String share, List<PartRow> parts, List<FaceRow> faces, String notes) {}

    record PartRow(int number, String words, String bottom, String top) {}

    record FaceRow(String key, String words, boolean on, String share) {}

    /**
     * A pass.
     *
     * @param fields what stands in its form
     * @param usual what follows where nothing is typed
     */
    record PassRow(
            int number,
            String key,
            String words,
            String figures,
            String lacks,
            Map<String, String> fields,
            Map<String, String> usual) {}

    static ObjectsView of(
            Structures structures, Optional<BlockPlan> plan, Optional<StructureProof> proof, UnitChoice units) {
        return new ObjectsView(
                structures.objects().stream().map(one -> row(one, proof, units)).toList(),
                IntStream.range(0, structures.passes().size())
                        .mapToObj(i -> row(i, structures.passes().get(i), plan, units))
                        .toList(),
                structures.clear().asTyped(),
                structures.alone(),
                structures.oneView());
    }

    private static ObjectRow row(Structure one, Optional<StructureProof> proof, UnitChoice units) {
        List<FaceProof> proved = proof.map(StructureProof::faces).orElse(List.of()).stream()
                .filter(face -> face.built().object().name().equals(one.name()))
                .toList();
        double area = proved.stream().mapToDouble(FaceProof::areaM2).sum();
        double enough = proved.stream()
                .mapToDouble(face -> face.share() * face.areaM2())
                .sum();
        List<PartRow> parts = new ArrayList<>();
        List<FaceRow> faces = new ArrayList<>();
        for (int i = 0; i < one.parts().size(); i++) {
            Structure.Part part = one.parts().get(i);
            parts.add(new PartRow(
                    i + 1,
                    words(part, units),
                    units.figure(UnitKind.HEIGHT, part.bottomM()),
                    units.figure(UnitKind.HEIGHT, part.topM())));
        }
        proved.forEach(face -> faces.add(new FaceRow(
                face.key(), face.words(), true, face.cells() == 0 ? "covered" : Shares.percent(face.share()))));
        one.off().stream().sorted().forEach(key -> faces.add(new FaceRow(key, offWords(key), false, "")));
        String words = area == 0
                ? one.parts().size() == 1 ? parts.get(0).words() : one.parts().size() + " parts"
                : units.surfaceText(area) + " of faces";
        return new ObjectRow(
                one.name(), words, area == 0 ? "" : Shares.percent(enough / area), parts, faces, one.notes());
    }

    private static String offWords(String key) {
        String[] stem = key.split("\\.", 2);
        String face = stem.length < 2 ? key : stem[1];
        return switch (face) {
            case "roof" -> "part " + stem[0] + ", roof";
            case "under" -> "part " + stem[0] + ", underside";
            default -> "part " + stem[0] + ", wall " + face;
        };
    }

    private static String words(Structure.Part part, UnitChoice units) {
        String plan = part.alongLine()
                ? "along a line, %s wide".formatted(units.text(UnitKind.DISTANCE, part.widthM()))
                : part.places().size() + " corners";
        String piers = part.piers().count() == 0
                ? ""
                : ", %d %s".formatted(part.piers().count(), part.piers().count() == 1 ? "pier" : "piers");
        return "%s, %s%s, heights %s"
                .formatted(part.kind().words(), plan, piers, part.counted().words());
    }

    private static PassRow row(int index, StructurePass pass, Optional<BlockPlan> plan, UnitChoice units) {
        Optional<StructureFlight.OfPass> flown = plan.flatMap(BlockPlan::structures)
                .filter(objects -> objects.passes().size() > index)
                .map(objects -> objects.passes().get(index))
                .filter(one -> one.fault().isEmpty());
        String figures = flown.map(one -> "GSD %s from %s, %,d photos, %s min at %s"
                        .formatted(
                                units.text(UnitKind.GSD, one.gsdM()),
                                units.text(UnitKind.DISTANCE, one.standOffM()),
                                one.photos(),
                                UnitKind.DURATION.figure(seconds(plan.orElseThrow(), one.number()), Unit.MINUTE),
                                units.text(UnitKind.SPEED, one.speedMps())))
                .orElse("not flown; the findings say why");
        int lost = flown.map(one -> one.leftOut().values().stream()
                        .mapToInt(Integer::intValue)
                        .sum())
                .orElse(0);
        Map<String, String> usual = new HashMap<>();
        flown.ifPresent(one -> {
            usual.put("off", units.text(UnitKind.DISTANCE, one.standOffM()));
            usual.put("gsd", units.text(UnitKind.GSD, one.gsdM()));
            usual.put("speed", units.text(UnitKind.SPEED, one.speedMps()));
        });
        return new PassRow(
                index + 1,
                pass.key(),
                pass.words(),
                figures,
                lost == 0 ? "" : "%,d photos left out".formatted(lost),
                fields(pass).fields(),
                usual);
    }

    /** From the first photo of a pass to its last, ways between its runs included. */
    static double seconds(BlockPlan plan, int pass) {
        double seconds = 0;
        double since = 0;
        boolean within = false;
        for (Timeline.Span span : plan.timeline().spans()) {
            if (span.leg() instanceof Line line) {
                boolean mine = line.pass() == pass;
                seconds += mine ? span.seconds() + (within ? since : 0) : 0;
                within = mine;
                since = 0;
            } else if (span.leg() instanceof Way || within) {
                since += span.seconds();
            }
        }
        return seconds;
    }

    /** A pass as its own form would hold it. */
    static Typed fields(StructurePass pass) {
        Map<String, String> fields = new HashMap<>();
        StructurePass.Habit habit = pass.habit();
        fields.put("object", pass.object().orElse(""));
        fields.put("forward", habit.forward().asTyped());
        fields.put("side", habit.side().asTyped());
        put(fields, "speed", habit.speed());
        put(fields, "floor", habit.floor());
        put(fields, "ceiling", habit.ceiling());
        if (pass instanceof Facade facade) {
            off(fields, facade.off());
            fields.put("runs", facade.upright() ? "up" : "along");
            fields.put("footTilt", facade.footTilt().asTyped());
            fields.put("roofTilt", facade.roofTilt().asTyped());
            fields.put("rounded", facade.rounded() ? "yes" : "no");
            fields.put("overRoof", facade.overRoof() ? "yes" : "no");
        } else if (pass instanceof Rings rings) {
            off(fields, rings.off());
            put(fields, "radius", rings.radius());
            put(fields, "low", rings.low());
            put(fields, "high", rings.high());
            put(fields, "rings", rings.rings());
            put(fields, "photos", rings.photos());
            put(fields, "aim", rings.aim());
        } else if (pass instanceof Circles circles) {
            fields.put("radius", circles.radius().asTyped());
            fields.put("overlap", circles.overlap().asTyped());
            fields.put("height", circles.height().asTyped());
            fields.put("follows", circles.follows() ? "yes" : "no");
            put(fields, "photos", circles.photos());
            put(fields, "tilt", circles.tilt());
        } else if (pass instanceof UnderDeck under) {
            off(fields, under.off());
            fields.put("up", under.up().asTyped());
        }
        return new Typed(fields);
    }

    private static void off(Map<String, String> fields, StandOff off) {
        put(fields, "off", off.distance());
        put(fields, "gsd", off.gsd());
    }

    private static void put(Map<String, String> fields, String name, Optional<Measure> measure) {
        fields.put(name, measure.map(Measure::asTyped).orElse(""));
    }

    private static void put(Map<String, String> fields, String name, OptionalInt count) {
        fields.put(name, count.isPresent() ? "" + count.getAsInt() : "");
    }

    /** Fields as typed, every figure with its unit. */
    record Typed(Map<String, String> fields) {
        Typed with(String name, String value) {
            Map<String, String> changed = new HashMap<>(fields);
            changed.put(name, value);
            return new Typed(changed);
        }

        StructurePass changed(StructurePass was) {
            return new RoundForm(fields, UnitChoice.METRIC).changed(was);
        }
    }
}
