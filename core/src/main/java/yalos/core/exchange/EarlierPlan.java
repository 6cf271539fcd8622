package yalos.core.exchange;

import io.jenetics.jpx.GPX;
import io.jenetics.jpx.Length;
import io.jenetics.jpx.Point;
import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.OptionalInt;
import java.util.stream.Stream;
import javax.xml.stream.XMLStreamException;
import javax.xml.stream.XMLStreamReader;
import yalos.core.camera.Lens;
import yalos.core.camera.Pose;
import yalos.core.fault.InputFault;
import yalos.core.flight.Exposure;
import yalos.core.flight.Flight;
import yalos.core.flight.Leg;
import yalos.core.flight.Line;
import yalos.core.flight.Link;
import yalos.core.geodesy.EastNorth;
import yalos.core.geodesy.Grid;
import yalos.core.geodesy.LonLat;
import yalos.core.geodesy.PlanePoint;
import yalos.core.plan.BlockPlan;
import yalos.core.terrain.Geoid;
import yalos.core.terrain.HeightGrid;

/**
 * A plan made earlier, as it comes out of an open file: stations, or a path along which photos are taken as far apart as the block's plan takes them. It becomes a flight that is proved like any other.
 *
 * @param spots one after the other, as flown
 * @param stations whether each is a photo; corners of a path otherwise
 * @param zero what its heights count from, as far as the file says
 */
public record EarlierPlan(List<Spot> spots, boolean stations, Optional<Zero> zero) {
    static final int MOST = 50_000;
    private static final double FAR_M = 20_000;
    private static final double BEND = Math.cos(Math.toRadians(30));
    private static final double GAP = 4;

    /** What heights count from. */
    public enum Zero {
        TAKE_OFF("the take-off"),
        GROUND("the ground below"),
        GEOID("the geoid"),
        ELLIPSOID("the ellipsoid");

        private final String words;

        Zero(String words) {
            this.words = words;
        }

        public String words() {
            return words;
        }
    }

    /**
     * A photo or a corner.
     *
     * @param upM in metres above what the plan's heights count from
     * @param yawDeg of the image's top, clockwise from true north
     * @param pitchDeg of the camera, -90 straight down
     * @param strip number it belongs to
     */
    public record Spot(
            LonLat place,
            OptionalDouble upM,
            OptionalDouble yawDeg,
            OptionalDouble pitchDeg,
            OptionalDouble rollDeg,
            OptionalInt strip) {
        /** A place without angles. */
        public static Spot at(LonLat place, OptionalDouble upM) {
            return new Spot(
                    place,
                    upM,
                    OptionalDouble.empty(),
                    OptionalDouble.empty(),
                    OptionalDouble.empty(),
                    OptionalInt.empty());
        }
    }

    public EarlierPlan {
        spots = List.copyOf(spots);
        if (spots.size() < 2) {
            throw new InputFault(
                    "file",
                    spots.size(),
                    "The file has no stations and no path: points one after the other, or a line, are what a flight is made of.");
        }
        if (spots.size() > MOST) {
            throw new InputFault(
                    "file",
                    spots.size(),
                    "The file has %,d places; up to %,d are read. Bring it block by block."
                            .formatted(spots.size(), MOST));
        }
    }

    /** Points of placemarks as stations, else line strings as a path; heights as their altitude mode says. */
    public static EarlierPlan kml(byte[] content) {
        Kml reader = new Kml();
        SafeXml.walk(content, "KML", reader);
        boolean stations = reader.points.size() > 1 && reader.points.size() >= reader.corners.size();
        return new EarlierPlan(stations ? reader.points : reader.corners, stations, Optional.ofNullable(reader.zero));
    }

    /** Reads placemarks. */
    private static final class Kml implements SafeXml.Visitor {
        private final List<Spot> points = new ArrayList<>();
        private final List<Spot> corners = new ArrayList<>();
        private boolean line;
        private boolean polygon;
        private Zero zero;

        @Override
        public void start(XMLStreamReader at) throws XMLStreamException {
            switch (at.getLocalName()) {
                case "LineString" -> line = true;
                case "Polygon" -> polygon = true;
                case "altitudeMode" -> {
                    String mode = at.getElementText().strip();
                    if (!polygon) {
                        zero = mode.equals("absolute")
                                ? Zero.GEOID
                                : mode.equals("relativeToGround") ? Zero.GROUND : zero;
                    }
                }
                case "coordinates" -> {
                    int row = at.getLocation().getLineNumber();
                    List<Spot> read = places(at.getElementText(), row);
                    if (!polygon) {
                        (line ? corners : points).addAll(read);
                    }
                }
                default -> {
                    // styles and the like
                }
            }
        }

        @Override
        public void end(String element) {
            line &= !element.equals("LineString");
            polygon &= !element.equals("Polygon");
        }

        private static List<Spot> places(String text, int row) {
            List<Spot> read = new ArrayList<>();
            for (String tuple : text.strip().split("\\s+")) {
                String[] parts = tuple.split(",");
                try {
                    if (parts.length >= 2) {
                        read.add(Spot.at(
                                LonLat.of(Double.parseDouble(parts[0]), Double.parseDouble(parts[1])),
                                parts.length > 2
                                        ? OptionalDouble.of(Double.parseDouble(parts[2]))
                                        : OptionalDouble.empty()));
                    }
                } catch (NumberFormatException broken) {
                    throw new InputFault(
                            "coordinates",
                            tuple,
                            "Line %d of the KML holds “%s”, which is no place.".formatted(row, tuple));
                }
            }
            return read;
        }
    }

    /** Waypoints as stations, else routes and tracks as a path; heights above the geoid, as GPX has them. */
    public static EarlierPlan gpx(byte[] content) {
        SafeXml.check(content, "GPX");
        GPX gpx;
        try {
            gpx = GPX.Reader.of(GPX.Reader.Mode.LENIENT).read(new ByteArrayInputStream(content));
        } catch (IOException | IllegalArgumentException e) {
            throw new InputFault(
                    "file", "GPX", "The GPX cannot be read: a point lacks its position or has one out of range.");
        }
        List<Spot> points = spots(gpx.wayPoints());
        List<Spot> path = new ArrayList<>();
        gpx.routes().forEach(route -> path.addAll(spots(route.points())));
        gpx.tracks().forEach(track -> track.segments().forEach(segment -> path.addAll(spots(segment.points()))));
        boolean stations = points.size() > 1 && points.size() >= path.size();
        return new EarlierPlan(stations ? points : path, stations, Optional.of(Zero.GEOID));
    }

    private static List<Spot> spots(Stream<? extends Point> points) {
        return points.map(point -> Spot.at(
                        LonLat.of(
                                point.getLongitude().doubleValue(),
                                point.getLatitude().doubleValue()),
                        point.getElevation()
                                .map(up -> OptionalDouble.of(up.to(Length.Unit.METER)))
                                .orElse(OptionalDouble.empty())))
                .toList();
    }

    /** What columns of a table may be called, the first that is there being taken. */
    private static final Map<String, List<String>> COLUMNS = Map.of(
            "lon", List.of("longitude_deg", "longitude", "lon", "lng", "long"),
            "lat", List.of("latitude_deg", "latitude", "lat"),
            "east", List.of("easting", "east", "e", "x"),
            "north", List.of("northing", "north", "n", "y"),
            "up",
                    List.of(
                            "height_above_geoid_m",
                            "height_above_takeoff_m",
                            "height_above_ground_m",
                            "height_m",
                            "height",
                            "altitude_m",
                            "altitude",
                            "alt",
                            "elevation",
                            "z"),
            "yaw", List.of("yaw_true_deg", "yaw_deg", "yaw", "heading_deg", "heading", "course"),
            "pitch", List.of("pitch_deg", "pitch", "camera_pitch_deg"),
            "roll", List.of("roll_deg", "roll"),
            "strip", List.of("strip", "line"));

    /**
     * A table with a heading: longitude and latitude, or easting and northing in the job's grid, and whatever of height and angles it has.
     *
     * @param grid of the job
     */
    public static EarlierPlan csv(byte[] content, Grid grid) {
        PointTable table = PointTable.read(content, 2);
        Map<String, Integer> at = new HashMap<>();
        List<String> heading = table.heading().stream()
                .map(name -> name.strip().toLowerCase(Locale.ROOT).replace(' ', '_'))
                .toList();
        Optional<Zero> zero = Optional.empty();
        for (Map.Entry<String, List<String>> column : COLUMNS.entrySet()) {
            for (String name : column.getValue()) {
                int index = heading.indexOf(name);
                if (index >= 0 && filled(table, index)) {
                    at.put(column.getKey(), index);
                    if (column.getKey().equals("up")) {
                        zero = zeroOf(name);
                    }
                    break;
                }
            }
        }
        boolean degrees = at.containsKey("lon") && at.containsKey("lat");
        if (!degrees && !(at.containsKey("east") && at.containsKey("north"))) {
            throw new InputFault(
                    "file",
                    String.join(", ", table.heading()),
                    "The table needs a heading with latitude and longitude, or easting and northing in the job's grid; it has “%s”."
                            .formatted(String.join(", ", table.heading())));
        }
        List<Spot> spots = new ArrayList<>();
        for (int row = 0; row < table.rows().size(); row++) {
            List<String> cells = table.rows().get(row);
            int shown = row + 2;
            double first = figure(cells, at.get(degrees ? "lon" : "east"), shown);
            double second = figure(cells, at.get(degrees ? "lat" : "north"), shown);
            LonLat place = degrees ? LonLat.of(first, second) : grid.toLonLat(new EastNorth(first, second));
            spots.add(new Spot(
                    place,
                    known(cells, at.get("up"), shown),
                    known(cells, at.get("yaw"), shown),
                    known(cells, at.get("pitch"), shown),
                    known(cells, at.get("roll"), shown),
                    at.containsKey("strip") && !cells.get(at.get("strip")).isBlank()
                            ? OptionalInt.of((int) figure(cells, at.get("strip"), shown))
                            : OptionalInt.empty()));
        }
        return new EarlierPlan(spots, true, zero);
    }

    private static boolean filled(PointTable table, int column) {
        return table.rows().stream().anyMatch(row -> !row.get(column).isBlank());
    }

    private static Optional<Zero> zeroOf(String column) {
        if (column.contains("geoid") || column.startsWith("elevation")) {
            return Optional.of(Zero.GEOID);
        }
        return column.contains("takeoff")
                ? Optional.of(Zero.TAKE_OFF)
                : column.contains("ground") ? Optional.of(Zero.GROUND) : Optional.empty();
    }

    private static double figure(List<String> cells, int column, int row) {
        String text = cells.get(column).strip();
        try {
            double value = Double.parseDouble(text);
            if (Double.isFinite(value)) {
                return value;
            }
        } catch (NumberFormatException noFigure) {
            // told below
        }
        throw new InputFault("file", text, "Row %d: “%s” is no figure.".formatted(row, text));
    }

    private static OptionalDouble known(List<String> cells, Integer column, int row) {
        return column == null || cells.get(column).isBlank()
                ? OptionalDouble.empty()
                : OptionalDouble.of(figure(cells, column, row));
    }

    /**
     * The flight, over the ground of a block's plan and through its camera.
     *
     * @param from what heights count from
     * @param above used where the file has no heights
     * @throws InputFault where it lies far from the block, or heights would be guessed
     */
    public Flight flown(BlockPlan plan, Zero from, OptionalDouble above) {
        return new Building(this, plan, from, above).flight();
    }

    /** Puts a flight together. */
    private static final class Building {
        private final BlockPlan plan;
        private final Zero from;
        private final OptionalDouble above;
        private final Optional<HeightGrid> ground;
        private final double takeOff;
        private final List<Leg> legs = new ArrayList<>();
        private final List<Exposure> photos = new ArrayList<>();
        private final List<Station> stations;

        private record Station(PlanePoint at, double upM, Spot spot, double trackRad) {}

        Building(EarlierPlan earlier, BlockPlan plan, Zero from, OptionalDouble above) {
            this.plan = plan;
            this.from = from;
            this.above = above;
            this.ground = plan.overGround().map(known -> known.grid());
            this.takeOff = plan.flight().takeOffUpM();
            near(earlier);
            this.stations = earlier.stations() ? each(earlier.spots()) : along(earlier.spots());
        }

        private void near(EarlierPlan earlier) {
            PlanePoint middle = plan.block().bounds().middle();
            PlanePoint first =
                    plan.block().plane().toPlane(earlier.spots().get(0).place());
            double off = first.distanceM(middle);
            if (off > FAR_M) {
                throw new InputFault(
                        "file",
                        off,
                        "It begins %.0f km from this block. Is it another job's, or are latitude and longitude swapped?"
                                .formatted(off / 1000));
            }
        }

        private double up(Spot spot, PlanePoint at) {
            double typed = spot.upM().isPresent()
                    ? spot.upM().getAsDouble()
                    : above.orElseThrow(() -> new InputFault(
                            "height",
                            "",
                            "The file has no heights. Type the height it was flown at, and what that counts from."));
            double below = ground.map(grid -> grid.at(at.xM(), at.yM())).orElse(0.0);
            return switch (from) {
                case TAKE_OFF -> takeOff + typed;
                case GROUND -> below + typed;
                case GEOID -> ground.isPresent() ? typed : takeOff + typed;
                case ELLIPSOID -> typed - Geoid.egm96().undulationM(spot.place());
            };
        }

        private Station station(Spot spot, double trackRad) {
            PlanePoint at = plan.block().plane().toPlane(spot.place());
            double up = up(spot, at);
            if (Double.isNaN(up)) {
                throw new InputFault(
                        "height",
                        "unknown",
                        "A part of it lies over ground that no model knows, so its height is not known there. Bring a model that reaches it.");
            }
            return new Station(at, up, spot, trackRad);
        }

        private List<Station> each(List<Spot> spots) {
            List<Station> all = new ArrayList<>();
            for (int i = 0; i < spots.size(); i++) {
                PlanePoint here = plan.block().plane().toPlane(spots.get(i).place());
                int other = i + 1 < spots.size() ? i + 1 : i - 1;
                PlanePoint next = plan.block().plane().toPlane(spots.get(other).place());
                all.add(station(spots.get(i), other > i ? here.bearingRad(next) : next.bearingRad(here)));
            }
            return all;
        }

        /** Photos along straight pieces, as far apart as the plan's; pieces shorter than that are turns. */
        private List<Station> along(List<Spot> spots) {
            double base = plan.design().baseM();
            List<Station> all = new ArrayList<>();
            for (int i = 1; i < spots.size(); i++) {
                PlanePoint a = plan.block().plane().toPlane(spots.get(i - 1).place());
                PlanePoint b = plan.block().plane().toPlane(spots.get(i).place());
                double length = a.distanceM(b);
                if (length < base) {
                    continue;
                }
                int count = (int) Math.floor(length / base + 1e-6);
                double track = a.bearingRad(b);
                for (int k = 0; k <= count; k++) {
                    double share = k * base / length;
                    PlanePoint at =
                            new PlanePoint(a.xM() + (b.xM() - a.xM()) * share, a.yM() + (b.yM() - a.yM()) * share);
                    OptionalDouble up = spots.get(i).upM().isPresent()
                                    && spots.get(i - 1).upM().isPresent()
                            ? OptionalDouble.of(spots.get(i - 1).upM().getAsDouble() * (1 - share)
                                    + spots.get(i).upM().getAsDouble() * share)
                            : OptionalDouble.empty();
                    all.add(station(Spot.at(plan.block().plane().toLonLat(at), up), track));
                    if (all.size() > MOST) {
                        throw new InputFault(
                                "file",
                                all.size(),
                                "Along this path more than %,d photos would be taken.".formatted(MOST));
                    }
                }
            }
            if (all.isEmpty()) {
                throw new InputFault(
                        "file",
                        "short",
                        "No piece of the path is as long as two photos lie apart; nothing would be photographed.");
            }
            return all;
        }

        Flight flight() {
            double usual = usualStepM();
            for (int first = 0, to; first < stations.size(); first = to) {
                to = first + 1;
                while (to < stations.size() && runsOn(first, to, usual)) {
                    to++;
                }
                line(stations.subList(first, to));
            }
            return new Flight(legs, photos, plan.flight().launch(), takeOff);
        }

        private double usualStepM() {
            double[] steps = new double[stations.size() - 1];
            for (int i = 0; i < steps.length; i++) {
                steps[i] = stations.get(i).at().distanceM(stations.get(i + 1).at());
            }
            java.util.Arrays.sort(steps);
            return steps.length == 0 ? 1 : steps[steps.length / 2];
        }

        private boolean runsOn(int first, int to, double usual) {
            Station before = stations.get(to - 1);
            Station next = stations.get(to);
            if (before.spot().strip().isPresent() && next.spot().strip().isPresent()) {
                return before.spot().strip().equals(next.spot().strip());
            }
            double step = before.at().distanceM(next.at());
            if (step > GAP * usual || step == 0) {
                return false;
            }
            double track = stations.get(first)
                    .at()
                    .bearingRad(stations.get(Math.min(first + 1, to)).at());
            return to == first + 1 || Math.cos(before.at().bearingRad(next.at()) - track) > BEND;
        }

        private void line(List<Station> run) {
            int number = legs.isEmpty() ? 1 : photos.get(photos.size() - 1).line() + 1;
            Station begin = run.get(0);
            Station end = run.get(run.size() - 1);
            double speed = plan.design().speedMps();
            double track = begin.at().distanceM(end.at()) > 0 ? begin.at().bearingRad(end.at()) : begin.trackRad();
            if (!photos.isEmpty()) {
                Exposure last = photos.get(photos.size() - 1);
                legs.add(new Link(
                        Link.Kind.TURN, last.point(), begin.at(), new double[] {last.upM(), begin.upM()}, speed));
            }
            double[] up = run.size() == 1
                    ? new double[] {begin.upM(), begin.upM()}
                    : run.stream().mapToDouble(Station::upM).toArray();
            legs.add(new Line(1, number, number, begin.at(), end.at(), track, up, speed, photos.size(), run.size()));
            Lens lens = Lens.of(plan.request().camera());
            double convergence = plan.block().plane().convergenceRad();
            for (Station one : run) {
                double yaw = one.spot().yawDeg().isPresent()
                        ? Math.toRadians(one.spot().yawDeg().getAsDouble()) - convergence
                        : plan.request().camera().imageYawRad(track);
                Pose pose = new Pose(
                        one.at().xM(),
                        one.at().yM(),
                        one.upM(),
                        yaw,
                        Math.toRadians(one.spot().pitchDeg().orElse(-90)),
                        Math.toRadians(one.spot().rollDeg().orElse(0)));
                photos.add(new Exposure(photos.size() + 1, 1, number, pose, lens, track));
            }
        }
    }
}
