package yalos.web.store;

import static yalos.web.store.Plain.or;

import java.util.List;
import java.util.Map;
import yalos.web.store.StoredGear.StoredKit;

/**
 * Facts of a block in their first form, as they were stored until November 2026. Frozen: read, never written. Obstacles carried their
 * places as objects.
 */
record FactsForm1(
        Integer shape,
        List<StoredPart> outline,
        double[] launch,
        Integer epsg,
        Long cameraId,
        StoredKit kit,
        Map<String, String> pins,
        StoredBrief brief,
        Map<String, String> notes,
        Ground ground) {

    record Ground(
            List<StoredGround.Model> models,
            StoredGround.Choice choice,
            List<Obstacle> obstacles,
            List<Zone> zones,
            Double takeOffLevelM,
            Long picture) {}

    record Place(Double lonDeg, Double latDeg) {
        double[] pair() {
            return new double[] {or(lonDeg, 0), or(latDeg, 0)};
        }
    }

    record Obstacle(String name, String kind, List<Place> places, Double heightM, Double radiusM) {}

    record Rings(List<Place> outer, List<List<Place>> holes) {}

    record Outline(List<Rings> parts) {}

    record Zone(String name, String kind, Outline outline, Double floorM, Object ceilingM) {}

    /** The same in the second form. */
    FactsForm2 upgraded() {
        return new FactsForm2(
                2, outline, launch, epsg, cameraId, kit, pins, brief, notes, ground == null ? null : ground2());
    }

    private FactsForm2.Ground ground2() {
        return new FactsForm2.Ground(
                ground.models(),
                ground.choice(),
                or(ground.obstacles()).stream()
                        .map(one -> new StoredGround.Standing(
                                one.name(), one.kind(), pairs(one.places()), one.heightM(), one.radiusM()))
                        .toList(),
                or(ground.zones()).stream().map(FactsForm1::zone).toList(),
                ground.takeOffLevelM(),
                ground.picture());
    }

    private static StoredGround.Hanging zone(Zone zone) {
        List<StoredPart> parts = zone.outline() == null
                ? List.of()
                : or(zone.outline().parts()).stream()
                        .map(part -> new StoredPart(
                                pairs(part.outer()),
                                or(part.holes()).stream().map(FactsForm1::pairs).toList()))
                        .toList();
        Double ceiling = zone.ceilingM() instanceof Number number && Double.isFinite(number.doubleValue())
                ? number.doubleValue()
                : null;
        return new StoredGround.Hanging(zone.name(), zone.kind(), parts, zone.floorM(), ceiling);
    }

    private static List<double[]> pairs(List<Place> places) {
        return or(places).stream().map(Place::pair).toList();
    }
}
