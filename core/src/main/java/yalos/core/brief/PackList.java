package yalos.core.brief;

import java.util.ArrayList;
import java.util.List;
import yalos.core.camera.Camera;
import yalos.core.kit.Positioning;
import yalos.core.plan.BlockPlan;

/** What goes into the car for this job? Counted from the plan and the brief (common practice). */
public final class PackList {
    private PackList() {}

    /**
     * One thing to pack.
     *
     * @param count how many; 0 where it is not counted
     */
    public record Item(String what, int count, String why) {}

    /** What to carry for this job. */
    public static List<Item> of(Brief brief, BlockPlan plan) {
        List<Item> items = new ArrayList<>();
        int sets = plan.batterySets();
        items.add(new Item("battery sets, charged", sets + 1, sets + " for the plan and one spare"));
        int cards = plan.request().kit().payload().heads().stream()
                .map(head -> head.camera().storage())
                .mapToInt(storage -> cards(plan.photos(), storage))
                .sum();
        items.add(new Item(
                "memory cards",
                2 * cards,
                "%.1f GB of photos, and as much again for the copy".formatted(plan.storageBytes() / 1e9)));
        items.add(new Item("remote controller and tablet, charged", 1, "with the plan loaded"));
        int targets = brief.day().targets();
        if (targets > 0) {
            items.add(new Item("ground targets", targets + 1, "one spare"));
            items.add(new Item("pegs or spray paint", 0, "to keep targets in place or to mark hard ground"));
            items.add(new Item("ranging pole with bipod", 1, "the same pole height all day"));
            items.add(new Item("receiver to measure targets", 1, "corrections, or logging"));
        }
        if (brief.positioning() == Positioning.RTK_BASE || brief.positioning() == Positioning.PPK) {
            items.add(new Item("base receiver, tripod, tape", 1, "its point and antenna height are written down"));
        }
        if (brief.purpose().filter(purpose -> purpose == Purpose.CROP_INDEX).isPresent()) {
            items.add(new Item("reflectance panel", 1, brief.crop().use().calibration()));
        }
        if (brief.site().difficulties().contains(Site.Difficulty.PEOPLE)) {
            items.add(new Item("cones, tape, high-visibility vests", 0, "people or traffic on site"));
        }
        items.add(new Item("wind meter, first-aid kit, fire blanket", 1, "wind is measured before each take-off"));
        items.add(new Item("papers", 0, "authorisation, insurance, permission of the land owner"));
        return items;
    }

    private static int cards(int photos, Camera.Storage storage) {
        return (int) Math.max(1, Math.ceil(photos * storage.bytesPerPhoto() / storage.cardBytes()));
    }
}
