package yalos.core.exchange;

import java.util.Optional;
import yalos.core.fault.InputFault;
import yalos.core.geodesy.EastNorth;
import yalos.core.geodesy.Geographic;
import yalos.core.geodesy.Grid;
import yalos.core.geodesy.LonLat;

/** Turns the two figures of a file into a position on WGS84. */
public interface Placing {
    /** Longitude and latitude on WGS84. */
    int WGS84 = 4326;

    /** The position of two figures. */
    LonLat at(double x, double y);

    /**
     * By the coordinate system a file names.
     *
     * @param axes in which order degrees stand
     * @throws InputFault (field {@code epsg}) for a code that is unknown or of neither degrees nor a grid
     */
    static Placing ofEpsg(int epsg, Axes axes) {
        if (epsg == WGS84) {
            return axes::of;
        }
        Optional<Geographic> degrees = Geographic.ofEpsg(epsg);
        if (degrees.isPresent()) {
            return (x, y) -> {
                LonLat there = axes.of(x, y);
                return degrees.get().toWgs84(there.lonDeg(), there.latDeg());
            };
        }
        Grid grid = Grid.ofEpsg(epsg);
        return (x, y) -> grid.toLonLat(new EastNorth(x, y));
    }
}
