package yalos.core.basemap;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import org.junit.jupiter.api.Test;
import yalos.core.geodesy.EastNorth;
import yalos.core.geodesy.Grid;
import yalos.core.geodesy.LonLat;

class MapSystemTest {
    /** The worked example of EPSG guidance note 7-2 for method 1024, popular visualisation pseudo-Mercator. */
    @Test
    void webMercatorAsTheGuidanceNoteHasIt() {
        MapSystem.WebMercator web = new MapSystem.WebMercator();
        LonLat at = LonLat.of(-(100 + 20 / 60.0), 24 + 22 / 60.0 + 54.433 / 3600);
        EastNorth there = web.of(at);
        assertThat(there.east()).isCloseTo(-11_169_055.58, within(0.01));
        assertThat(there.north()).isCloseTo(2_800_000.00, within(0.01));
        LonLat back = web.lonLat(there);
        assertThat(back.lonDeg()).isCloseTo(at.lonDeg(), within(1e-9));
        assertThat(back.latDeg()).isCloseTo(at.latDeg(), within(1e-9));
    }

    @Test
    void codesOfTileSetsAreKnown() {
        assertThat(MapSystem.ofEpsg(3857)).isInstanceOf(MapSystem.WebMercator.class);
        assertThat(MapSystem.ofEpsg(900913)).isInstanceOf(MapSystem.WebMercator.class);
        assertThat(MapSystem.ofEpsg(4326).of(LonLat.of(7, 51))).isEqualTo(new EastNorth(7, 51));
        EastNorth utm = MapSystem.ofEpsg(32630).of(LonLat.of(-3, 54));
        assertThat(utm.east()).isCloseTo(500_000, within(1e-3));
    }

    /** Straight lines between every sixteenth pixel stay within a hundredth of a pixel of the exact place. */
    @Test
    void aWindowIsLaidIntoTheMapsPlaneToAFractionOfAPixel() {
        Grid grid = Grid.ofEpsg(32630);
        MapSystem.WebMercator web = new MapSystem.WebMercator();
        for (double pixel : new double[] {0.1, 2, 64}) {
            MapWindow window = new MapWindow(grid, 412_000, 6_042_000, pixel, 256);
            MapWindow.Laid laid = window.laid(web);
            for (int i = 0; i < 256; i += 5) {
                EastNorth exact = web.of(
                        grid.toLonLat(new EastNorth(412_000 + (i + 0.5) * pixel, 6_042_000 - (255 - i + 0.5) * pixel)));
                assertThat(laid.east(i, 255 - i)).isCloseTo(exact.east(), within(0.02 * pixel));
                assertThat(laid.north(i, 255 - i)).isCloseTo(exact.north(), within(0.02 * pixel));
            }
        }
    }
}
