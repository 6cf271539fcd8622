package yalos.web.store;

import java.util.List;
import java.util.Map;
import yalos.web.store.StoredGear.StoredKit;

/** Facts of a block in their second form. Frozen: read, never written. Nobody could consent yet to holes of a model being spanned. */
record FactsForm2(
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
            List<StoredGround.Standing> obstacles,
            List<StoredGround.Hanging> zones,
            Double takeOffLevelM,
            Long picture) {
        StoredGround ground3() {
            return new StoredGround(models, choice, obstacles, zones, takeOffLevelM, picture, null);
        }
    }

    /** The same in the fourth form; the third only adds what nobody could state yet. */
    FactsForm4 upgraded() {
        return new FactsForm4(
                4,
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
