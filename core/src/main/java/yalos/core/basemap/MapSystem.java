package yalos.core.basemap;

import yalos.core.fault.InputFault;
import yalos.core.geodesy.EastNorth;
import yalos.core.geodesy.Grid;
import yalos.core.geodesy.LonLat;

/** In which plane the tiles of a map lie. */
public sealed interface MapSystem {
    /** Where a position lies in it; not numbers where the plane cannot show it. */
    EastNorth of(LonLat at);

    /** Metres in one unit of it, near a latitude. */
    double unitM(double latDeg);

    /** The system of an EPSG code, as tile sets name them. */
    static MapSystem ofEpsg(int epsg) {
        return switch (epsg) {
            case 3857, 900913, 3785 -> new WebMercator();
            case 4326 -> new Degrees();
            default -> new Projected(Grid.ofEpsg(epsg));
        };
    }

    /**
     * The square world of web maps, EPSG:3857: the ellipsoid's longitudes and latitudes on a sphere of its greatest radius (EPSG guidance
     * note 7-2, method 1024).
     */
    record WebMercator() implements MapSystem {
        /** From the middle to each edge. */
        public static final double HALF = Math.PI * 6_378_137;

        private static final double RADIUS = 6_378_137;

        @Override
        public EastNorth of(LonLat at) {
            double lat = Math.toRadians(at.latDeg());
            return new EastNorth(
                    RADIUS * Math.toRadians(at.lonDeg()), RADIUS * Math.log(Math.tan(Math.PI / 4 + lat / 2)));
        }

        /** The position of a place in it. */
        public LonLat lonLat(EastNorth at) {
            return LonLat.of(
                    Math.toDegrees(at.east() / RADIUS),
                    Math.toDegrees(Math.PI / 2 - 2 * Math.atan(Math.exp(-at.north() / RADIUS))));
        }

        @Override
        public double unitM(double latDeg) {
            return Math.cos(Math.toRadians(latDeg));
        }
    }

    /** Longitude and latitude drawn as they are. */
    record Degrees() implements MapSystem {
        private static final double METRES = 111_320;

        @Override
        public EastNorth of(LonLat at) {
            return new EastNorth(at.lonDeg(), at.latDeg());
        }

        @Override
        public double unitM(double latDeg) {
            return METRES;
        }
    }

    /** A projected grid. */
    record Projected(Grid grid) implements MapSystem {
        @Override
        public EastNorth of(LonLat at) {
            try {
                return grid.toGrid(at);
            } catch (InputFault outside) {
                return new EastNorth(Double.NaN, Double.NaN);
            }
        }

        @Override
        public double unitM(double latDeg) {
            return grid.unitM();
        }
    }
}
