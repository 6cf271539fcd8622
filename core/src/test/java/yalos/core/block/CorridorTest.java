package yalos.core.block;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.List;
import java.util.stream.Stream;
import org.assertj.core.data.Offset;
import org.assertj.core.data.Percentage;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;
import yalos.core.Reference;
import yalos.core.geodesy.PlanePoint;

/** The land beside an axis, and lines beside it. */
class CorridorTest {
    static Stream<Reference.Row> cases() {
        return Reference.rows("corridor_cases.csv");
    }

    private static List<PlanePoint> axis(Reference.Row row) {
        List<PlanePoint> axis = new ArrayList<>();
        String wkt = row.text("axis_wkt");
        for (String pair : wkt.substring(wkt.indexOf('(') + 1, wkt.indexOf(')')).split(",")) {
            String[] figures = pair.strip().split(" ");
            axis.add(new PlanePoint(Double.parseDouble(figures[0]), Double.parseDouble(figures[1])));
        }
        return axis;
    }

    /** Independent reference: a geometry library's buffer cut along the axis, and a raster count from the definition. */
    @ParameterizedTest
    @MethodSource("cases")
    void theAreaIsThatOfTheReference(Reference.Row row) {
        double area = Corridor.area(axis(row), row.number("left_m"), row.number("right_m"))
                .getArea();
        assertThat(area).isCloseTo(row.number("area_mitre_m2"), Percentage.withPercentage(1e-3));
    }

    @ParameterizedTest
    @MethodSource("cases")
    void linesBesideItNeverCrossThemselves(Reference.Row row) {
        for (String side : List.of("left", "right")) {
            if (row.isEmpty(side + "_line_mitre_m")) {
                continue;
            }
            double by = row.number(side + "_m") * (side.equals("left") ? 1 : -1);
            double length = Corridor.beside(axis(row), by).stream()
                    .mapToDouble(CorridorTest::length)
                    .sum();
            assertThat(length).as(side).isCloseTo(row.number(side + "_line_mitre_m"), Offset.offset(1e-3));
        }
    }

    private static double length(List<PlanePoint> line) {
        double length = 0;
        for (int i = 1; i < line.size(); i++) {
            length += line.get(i - 1).distanceM(line.get(i));
        }
        return length;
    }
}
