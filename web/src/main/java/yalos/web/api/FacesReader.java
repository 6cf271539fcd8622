package yalos.web.api;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import tools.jackson.core.JacksonException;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;
import yalos.core.camera.Lens;
import yalos.core.camera.Pose;
import yalos.core.fault.InputFault;
import yalos.core.flight.Exposure;
import yalos.core.geodesy.PlanePoint;
import yalos.core.proof.FaceLook;
import yalos.core.site.Solid;
import yalos.core.surface.Face;

/** Reads what the faces service takes: a camera, a plane of ground, boxes that stand or hang, photos. */
final class FacesReader {
    private static final JsonMapper JSON = JsonMapper.builder().build();
    private static final Set<String> BODY = Set.of("camera", "ground", "objects", "photos", "cellM");
    private static final Set<String> GROUND = Set.of("u0M", "slopeE", "slopeN");
    private static final Set<String> OBJECT =
            Set.of("id", "kind", "centre", "lengthM", "widthM", "rotationDeg", "bottomM", "topM");
    private static final Set<String> PHOTO = Set.of("id", "e", "n", "h", "yawDeg", "pitchDeg", "rollDeg");
    private static final int MOST_OBJECTS = 500;
    private static final int MOST_PHOTOS = 5000;
    private static final long MOST_CELLS = 500_000;
    private static final long MOST_LOOKS = 500_000_000L;

    private final List<Structure> structures;
    private final List<Exposure> photos;
    private final FaceLook.Ground ground;
    private final double cellM;

    private FacesReader(List<Structure> structures, List<Exposure> photos, FaceLook.Ground ground, double cellM) {
        this.structures = structures;
        this.photos = photos;
        this.ground = ground;
        this.cellM = cellM;
    }

    /** A box with its name; a deck has an underside. */
    record Structure(String id, boolean deck, Solid solid) {
        /** Its faces, front, back, right, left, top and, of a deck, underside. */
        List<Face> faces(double cellM) {
            List<Face> faces = new ArrayList<>();
            for (Face.Side side : Face.Side.values()) {
                if (deck || side != Face.Side.UNDERSIDE) {
                    faces.add(Face.of(solid, side, cellM));
                }
            }
            return faces;
        }
    }

    List<Structure> structures() {
        return structures;
    }

    List<Exposure> photos() {
        return photos;
    }

    FaceLook.Ground ground() {
        return ground;
    }

    double cellM() {
        return cellM;
    }

    /**
     * @throws InputFault naming the field, its value and what would be right
     */
    static FacesReader of(byte[] body) {
        JsonNode root;
        try {
            root = JSON.readTree(body);
        } catch (JacksonException e) {
            throw new InputFault("body", "broken JSON", "The body is not whole JSON; it may be cut off.");
        }
        if (root == null || !root.isObject()) {
            throw new InputFault(
                    "body",
                    "no object",
                    "The body must be a JSON object with camera, ground, objects, photos and cellM.");
        }
        Members.refuseUnknown(root, "body", BODY);
        double cell = needed(root, "cellM", "cellM");
        InputFault.within("cellM", cell, 0.01, 1000, "m");
        JsonNode plane = root.path("ground");
        if (!plane.isObject()) {
            throw new InputFault("ground", plane, "The ground is missing: u0M, slopeE and slopeN of a plane.");
        }
        Members.refuseUnknown(plane, "ground", GROUND);
        double u0 = needed(plane, "u0M", "ground.u0M");
        double slopeE = CameraReader.number(plane, "slopeE", "ground.slopeE").orElse(0);
        double slopeN = CameraReader.number(plane, "slopeN", "ground.slopeN").orElse(0);
        InputFault.within("ground.slopeE", slopeE, -20, 20, "");
        InputFault.within("ground.slopeN", slopeN, -20, 20, "");
        FacesReader read = new FacesReader(
                structures(root), photos(root, lens(root)), (e, n) -> u0 + slopeE * e + slopeN * n, cell);
        read.refuseTooMuch();
        return read;
    }

    private void refuseTooMuch() {
        double cells = 0;
        for (Structure one : structures) {
            Solid solid = one.solid();
            double around = 2 * (solid.lengthM() + solid.widthM()) * (solid.topM() - solid.bottomM());
            cells += (around + 2 * solid.lengthM() * solid.widthM()) / (cellM * cellM);
        }
        if (cells > MOST_CELLS) {
            throw new InputFault(
                    "cellM",
                    cellM,
                    "That makes about %,.0f cells; up to %,d are looked at. Take larger cells."
                            .formatted(cells, MOST_CELLS));
        }
        if (cells * photos.size() > MOST_LOOKS) {
            throw new InputFault(
                    "photos",
                    photos.size(),
                    "%,.0f cells and %,d photos are more than is looked at in one go. Take larger cells, or ask for each object alone."
                            .formatted(cells, photos.size()));
        }
    }

    private static Lens lens(JsonNode root) {
        try {
            return Lens.of(CameraReader.camera(root));
        } catch (InputFault fault) {
            throw fault.field().startsWith("plan.") ? fault.at(fault.field().substring("plan.".length())) : fault;
        }
    }

    private static double needed(JsonNode node, String name, String field) {
        return CameraReader.number(node, name, field)
                .orElseThrow(() -> new InputFault(field, "missing", "%s is missing.".formatted(field)));
    }

    private static JsonNode list(JsonNode root, String name, int most) {
        JsonNode list = root.path(name);
        if (!list.isArray() || list.isEmpty() || list.size() > most) {
            throw new InputFault(name, list.size(), "%s is a list of 1 to %,d.".formatted(name, most));
        }
        return list;
    }

    private static String id(JsonNode one, String at, Set<String> before) {
        JsonNode id = one.path("id");
        String text = id.isString() || id.isIntegralNumber() ? id.asString() : "";
        if (text.isBlank() || text.length() > 80) {
            throw new InputFault(at + ".id", id, "Each needs an id of up to 80 letters.");
        }
        if (!before.add(text)) {
            throw new InputFault(at + ".id", text, "“%s” is there twice.".formatted(text));
        }
        return text;
    }

    private static List<Structure> structures(JsonNode root) {
        List<Structure> all = new ArrayList<>();
        Set<String> ids = new HashSet<>();
        JsonNode listed = list(root, "objects", MOST_OBJECTS);
        for (int i = 0; i < listed.size(); i++) {
            String at = "objects[" + i + "]";
            JsonNode one = listed.get(i);
            Members.refuseUnknown(one, at, OBJECT);
            String id = id(one, at, ids);
            String kind = one.path("kind").asString("");
            if (!kind.equals("building") && !kind.equals("deck")) {
                throw new InputFault(at + ".kind", one.path("kind"), "kind is “building” or “deck”.");
            }
            JsonNode centre = one.path("centre");
            boolean pair = centre.isArray()
                    && centre.size() == 2
                    && centre.get(0).isNumber()
                    && centre.get(1).isNumber();
            if (!pair) {
                throw new InputFault(at + ".centre", centre, "centre is a pair, east and north, such as [12.5, 30].");
            }
            double bottom = needed(one, "bottomM", at + ".bottomM");
            double top = needed(one, "topM", at + ".topM");
            if (!(top > bottom)) {
                throw new InputFault(
                        at + ".topM",
                        top,
                        "The top must lie above the foot; %s m is not above %s m.".formatted(top, bottom));
            }
            try {
                all.add(new Structure(
                        id,
                        kind.equals("deck"),
                        new Solid(
                                new PlanePoint(
                                        centre.get(0).asDouble(), centre.get(1).asDouble()),
                                needed(one, "lengthM", at + ".lengthM"),
                                needed(one, "widthM", at + ".widthM"),
                                Math.toRadians(CameraReader.number(one, "rotationDeg", at + ".rotationDeg")
                                        .orElse(0)),
                                bottom,
                                top)));
            } catch (InputFault fault) {
                throw fault.field().startsWith(at) ? fault : fault.at(at + "." + fault.field());
            }
        }
        return all;
    }

    private static List<Exposure> photos(JsonNode root, Lens lens) {
        List<Exposure> all = new ArrayList<>();
        Set<String> ids = new HashSet<>();
        JsonNode listed = list(root, "photos", MOST_PHOTOS);
        for (int i = 0; i < listed.size(); i++) {
            String at = "photos[" + i + "]";
            JsonNode one = listed.get(i);
            Members.refuseUnknown(one, at, PHOTO);
            id(one, at, ids);
            all.add(Exposure.of(
                    i + 1,
                    1,
                    new Pose(
                            needed(one, "e", at + ".e"),
                            needed(one, "n", at + ".n"),
                            needed(one, "h", at + ".h"),
                            Math.toRadians(needed(one, "yawDeg", at + ".yawDeg")),
                            Math.toRadians(needed(one, "pitchDeg", at + ".pitchDeg")),
                            Math.toRadians(CameraReader.number(one, "rollDeg", at + ".rollDeg")
                                    .orElse(0))),
                    lens));
        }
        return all;
    }
}
