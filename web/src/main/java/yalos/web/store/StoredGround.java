package yalos.web.store;

import static yalos.web.store.Plain.maybe;
import static yalos.web.store.Plain.or;
import static yalos.web.store.Plain.orNull;
import static yalos.web.store.Plain.word;

import java.util.List;
import java.util.Optional;
import java.util.OptionalLong;
import yalos.core.block.Outline;
import yalos.core.height.HeightChoice;
import yalos.core.site.Obstacle;
import yalos.core.site.Zone;
import yalos.web.store.StoredGear.StoredDatum;

/** The ground of a block as it is stored: which models, what stands on it and hangs over it, and how it is flown over. */
record StoredGround(
        List<Model> models,
        Choice choice,
        List<Standing> obstacles,
        List<Hanging> zones,
        Double takeOffLevelM,
        Long picture,
        Double spanM) {
    static StoredGround of(GroundFacts ground) {
        HeightChoice choice = ground.choice();
        return new StoredGround(
                ground.models().stream()
                        .map(use -> new Model(use.id(), use.epsg(), StoredDatum.of(use.datum())))
                        .toList(),
                new Choice(
                        choice.reference().name(),
                        choice.plane().name(),
                        choice.clearanceM(),
                        choice.smoothingM(),
                        choice.modelSigmaM()),
                ground.obstacles().stream().map(Standing::of).toList(),
                ground.zones().stream().map(Hanging::of).toList(),
                orNull(ground.takeOffLevelM()),
                ground.picture().isPresent() ? ground.picture().getAsLong() : null,
                orNull(ground.spanM()));
    }

    GroundFacts ground() {
        return new GroundFacts(
                or(models).stream()
                        .filter(model -> model.id() != null && model.epsg() != null)
                        .map(model -> new GroundFacts.ModelUse(
                                model.id(),
                                model.epsg(),
                                (model.datum() == null ? new StoredDatum(null, null, null) : model.datum()).datum()))
                        .toList(),
                choice == null ? HeightChoice.USUAL : choice.choice(),
                or(obstacles).stream().flatMap(one -> one.obstacle().stream()).toList(),
                or(zones).stream().flatMap(one -> one.zone().stream()).toList(),
                maybe(takeOffLevelM),
                picture == null ? OptionalLong.empty() : OptionalLong.of(picture),
                maybe(spanM));
    }

    record Model(Long id, Integer epsg, StoredDatum datum) {}

    record Choice(String reference, String plane, Double clearanceM, Double smoothingM, Double modelSigmaM) {
        HeightChoice choice() {
            HeightChoice usual = HeightChoice.USUAL;
            return new HeightChoice(
                    word(reference, usual.reference()),
                    word(plane, usual.plane()),
                    or(clearanceM, usual.clearanceM()),
                    or(smoothingM, usual.smoothingM()),
                    or(modelSigmaM, 0));
        }
    }

    record Standing(String name, String kind, List<double[]> places, Double heightM, Double radiusM) {
        static Standing of(Obstacle obstacle) {
            return new Standing(
                    obstacle.name(),
                    obstacle.kind().name(),
                    StoredPart.pairs(obstacle.places()),
                    obstacle.heightM(),
                    obstacle.radiusM());
        }

        /** Without a height or a place it is none. */
        Optional<Obstacle> obstacle() {
            return heightM == null || or(places).isEmpty()
                    ? Optional.empty()
                    : Optional.of(new Obstacle(
                            or(name, "obstacle"),
                            word(kind, Obstacle.Kind.MAST),
                            StoredPart.corners(places),
                            heightM,
                            or(radiusM, 0)));
        }
    }

    record Hanging(String name, String kind, List<StoredPart> outline, Double floorM, Double ceilingM) {
        static Hanging of(Zone zone) {
            return new Hanging(
                    zone.name(),
                    zone.kind().name(),
                    zone.outline().parts().stream().map(StoredPart::of).toList(),
                    zone.floorM(),
                    Double.isInfinite(zone.ceilingM()) ? null : zone.ceilingM());
        }

        /** A zone of an unknown kind keeps out. */
        Optional<Zone> zone() {
            return or(outline).isEmpty()
                    ? Optional.empty()
                    : Optional.of(new Zone(
                            or(name, "zone"),
                            word(kind, Zone.Kind.KEEP_OUT),
                            new Outline(outline.stream().map(StoredPart::part).toList()),
                            or(floorM, 0),
                            or(ceilingM, Double.POSITIVE_INFINITY)));
        }
    }
}
