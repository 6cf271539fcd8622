package yalos.web.store;

import java.util.List;
import java.util.Map;
import yalos.web.store.StoredGear.StoredKit;

/** Facts of a block in their second form. Frozen: read, never written. Nobody could consent yet to holes of a model being spanned. */
record FactsForm2(
        Integer shape,
        List<FactsForm3.Part> outline,
        double[] launch,
        Integer epsg,
        Long cameraId,
        StoredKit kit,
        Map<String, String> pins,
        FactsForm3.StoredBrief brief,
        Map<String, String> notes,
        Ground ground) {

    record Ground(
            List<FactsForm3.Model> models,
            FactsForm3.Choice choice,
            List<FactsForm3.Standing> obstacles,
            List<FactsForm3.Hanging> zones,
            Double takeOffLevelM,
            Long picture) {
        FactsForm3.StoredGround ground3() {
            return new FactsForm3.StoredGround(models, choice, obstacles, zones, takeOffLevelM, picture, null);
        }
    }

    /** The same in the third form. */
    FactsForm3 upgraded() {
        return new FactsForm3(
                3,
                outline,
                launch,
                epsg,
                cameraId,
                kit,
                pins,
                null,
                brief,
                notes,
                ground == null ? null : ground.ground3());
    }
}
