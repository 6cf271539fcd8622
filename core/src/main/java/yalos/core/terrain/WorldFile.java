package yalos.core.terrain;

import java.util.Arrays;
import yalos.core.fault.InputFault;

/**
 * The six lines of a world file, which place a picture: change of x by column, of y by column, of x by row, of y by row, and the
 * position of the <em>centre</em> of the first pixel (common practice; no standard body keeps it).
 */
public final class WorldFile {
    private WorldFile() {}

    /**
     * @throws InputFault for anything but six numbers that place a picture
     */
    public static Georeference read(String text) {
        String[] lines = Arrays.stream(text.strip().split("\\s+"))
                .filter(line -> !line.isEmpty())
                .toArray(String[]::new);
        if (lines.length != 6) {
            throw new InputFault(
                    "world",
                    lines.length + " figures",
                    "A world file has six figures, one a line; this has %d.".formatted(lines.length));
        }
        double[] figures = new double[6];
        for (int i = 0; i < 6; i++) {
            try {
                figures[i] = Double.parseDouble(lines[i].replace(',', '.'));
            } catch (NumberFormatException e) {
                throw new InputFault("world", lines[i], "Line %d of the world file is no number.".formatted(i + 1));
            }
        }
        Georeference centres = new Georeference(figures[4], figures[5], figures[0], figures[2], figures[1], figures[3]);
        if (!centres.isSound()) {
            throw new InputFault("world", text, "The world file maps every pixel to one place.");
        }
        return new Georeference(
                centres.x(-0.5, -0.5), centres.y(-0.5, -0.5), figures[0], figures[2], figures[1], figures[3]);
    }
}
