package yalos.web.store;

import java.util.List;
import java.util.Map;
import yalos.web.store.StoredGear.StoredKit;

/**
 * Facts of a block in their fourth form, and in their third, which is the same without the model's accuracy. Frozen: read, never written. A block was
 * always one grid.
 */
record FactsForm4(
        Integer shape,
        List<StoredPart> outline,
        double[] launch,
        Integer epsg,
        Long cameraId,
        StoredKit kit,
        Map<String, String> pins,
        Map<String, Map<String, String>> displaced,
        StoredBrief brief,
        Map<String, String> notes,
        StoredGround ground) {

    /** The same in the fifth form, which the present one reads. */
    FactsForm11 upgraded() {
        return new FactsForm11(
                5, outline, launch, epsg, cameraId, kit, pins, displaced, brief, notes, ground, null, null, null, null);
    }
}
