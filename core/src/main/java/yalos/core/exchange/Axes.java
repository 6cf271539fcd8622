package yalos.core.exchange;

import yalos.core.geodesy.LonLat;

/** In which order a file gives its two figures. Files that have them the wrong way round are common. */
public enum Axes {
    /** Longitude first, as GeoJSON and KML want it. */
    LON_LAT {
        @Override
        public LonLat of(double first, double second) {
            return LonLat.of(first, second);
        }
    },
    /** Latitude first: the file has them swapped. */
    LAT_LON {
        @Override
        public LonLat of(double first, double second) {
            return LonLat.of(second, first);
        }
    };

    /** The position of two figures in the order of the file. */
    public abstract LonLat of(double first, double second);

    /** Which of two figures comes first: latitude where they are swapped. */
    public static Axes swapped(boolean swapped) {
        return swapped ? LAT_LON : LON_LAT;
    }
}
