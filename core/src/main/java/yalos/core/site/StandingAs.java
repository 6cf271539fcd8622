package yalos.core.site;

import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import yalos.core.block.LocalPlane;
import yalos.core.fault.InputFault;
import yalos.core.geodesy.LonLat;
import yalos.core.geodesy.PlanePoint;

/** Obstacles as objects that are photographed for their faces, and back. */
public final class StandingAs {
    /** A round thing gets as many walls. */
    private static final int ROUND = 8;

    private static final double THINNEST_M = 0.25;

    private StandingAs() {}

    /** An obstacle as an object: a building by its corners, a line as a wall, what is round with eight walls. */
    public static Structure structure(Obstacle obstacle, LocalPlane plane) {
        double reach = Math.max(THINNEST_M, obstacle.radiusM());
        Structure.Part part = switch (obstacle.kind()) {
            case BUILDING -> part(Structure.Kind.BODY, obstacle.places(), 0, obstacle.heightM());
            case LINE -> part(Structure.Kind.WALL, obstacle.places(), 2 * reach, obstacle.heightM());
            case MAST, TREE -> {
                PlanePoint middle = plane.toPlane(obstacle.places().get(0));
                List<LonLat> ring = new ArrayList<>();
                for (int i = 0; i < ROUND; i++) {
                    ring.add(plane.toLonLat(middle.moved(-2 * Math.PI * (i + 0.5) / ROUND, reach)));
                }
                yield part(Structure.Kind.BODY, ring, 0, obstacle.heightM());
            }
        };
        String name = obstacle.name().length() > 60 ? obstacle.name().substring(0, 60) : obstacle.name();
        return new Structure(name, List.of(part), Set.of(), "");
    }

    private static Structure.Part part(Structure.Kind kind, List<LonLat> places, double widthM, double topM) {
        return new Structure.Part(kind, places, widthM, 0, topM, Structure.Counted.GROUND, Structure.Piers.NONE);
    }

    /**
     * An object as obstacles, one for each part: what hangs is taken for standing.
     *
     * @throws InputFault for heights above the geoid, which an obstacle does not have
     */
    public static List<Obstacle> obstacles(Structure object) {
        List<Obstacle> obstacles = new ArrayList<>();
        for (Structure.Part part : object.parts()) {
            if (part.counted() == Structure.Counted.GEOID) {
                throw new InputFault(
                        "counted",
                        object.name(),
                        "Heights of “%s” count from the geoid; an obstacle's count from the ground. Give them from the ground first."
                                .formatted(object.name()));
            }
            boolean line = part.alongLine();
            obstacles.add(new Obstacle(
                    object.name(),
                    line ? Obstacle.Kind.LINE : Obstacle.Kind.BUILDING,
                    part.places(),
                    part.topM(),
                    line ? part.widthM() / 2 : 0));
        }
        return obstacles;
    }
}
