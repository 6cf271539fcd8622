package yalos.web.take;

import java.awt.image.BufferedImage;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.util.Base64;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import javax.imageio.ImageIO;
import org.springframework.ui.Model;
import tools.jackson.databind.json.JsonMapper;
import yalos.core.units.UnitChoice;
import yalos.web.block.Planned;
import yalos.web.control.Shown;
import yalos.web.figure.DifferenceColour;
import yalos.web.shell.NotThere;
import yalos.web.store.TakeMapper.FileRow;
import yalos.web.take.TakeFiles.StoredCell;
import yalos.web.take.TakeFiles.StoredLaser;
import yalos.web.take.TakeFiles.StoredPair;

/** Laser strips as their page shows them. */
final class StripsPage {
    private static final JsonMapper JSON = JsonMapper.builder().build();
    private static final double AGREE_M = 0.05;
    private static final int MOST_PX = 600;

    private StripsPage() {}

    /** A strip. */
    public record StripRow(String name, String points, String cells, String density) {}

    /** Two strips that overlap. */
    public record PairRow(
            String name,
            String cells,
            String median,
            String spread,
            String far,
            String mood,
            String picture,
            String scale) {}

    static void fill(FileRow row, Optional<Planned.Whole> whole, UnitChoice units, Model model) {
        if (!row.kind().equals(TakeFiles.LASER)) {
            throw new NotThere("That file holds no strips.");
        }
        StoredLaser found = JSON.readValue(row.found(), StoredLaser.class);
        model.addAttribute("name", row.name());
        model.addAttribute("doubts", found.doubts());
        model.addAttribute("profile", found.profile());
        model.addAttribute(
                "strips",
                found.strips().stream()
                        .map(one -> new StripRow(
                                one.name(),
                                "%,d".formatted(one.points()),
                                "%,d m²".formatted(one.cells()),
                                String.format(Locale.ROOT, "%.1f", one.density())))
                        .toList());
        model.addAttribute(
                "pairs", found.pairs().stream().map(pair -> pair(pair, units)).toList());
        String planned = whole.flatMap(known -> known.plan()
                        .request()
                        .kit()
                        .payload()
                        .scanner()
                        .map(scanner -> String.format(
                                Locale.ROOT, "%.1f", known.plan().design().pointsPerM2(scanner))))
                .orElse("");
        model.addAttribute("planned", planned);
    }

    private static PairRow pair(StoredPair pair, UnitChoice units) {
        double scale = Math.max(0.02, Math.abs(pair.median()) + 3 * pair.spread());
        boolean agree = Math.abs(pair.median()) <= AGREE_M && pair.spread() <= AGREE_M;
        return new PairRow(
                pair.b() + " less " + pair.a(),
                "%,d m²".formatted(pair.cells()),
                Shown.accuracy(units, pair.median()),
                Shown.accuracy(units, pair.spread()),
                Shown.accuracy(units, pair.far()),
                agree ? "done" : "mind",
                picture(pair.differences(), scale),
                "dark below, light above, from %s to %s"
                        .formatted(Shown.accuracy(units, -scale), Shown.accuracy(units, scale)));
    }

    /** One pixel a cell or more, north up. */
    private static String picture(List<StoredCell> cells, double scale) {
        if (cells.isEmpty()) {
            return "";
        }
        int west = cells.stream().mapToInt(StoredCell::e).min().orElse(0);
        int east = cells.stream().mapToInt(StoredCell::e).max().orElse(0);
        int south = cells.stream().mapToInt(StoredCell::n).min().orElse(0);
        int north = cells.stream().mapToInt(StoredCell::n).max().orElse(0);
        int step = Math.max(1, (Math.max(east - west, north - south) + MOST_PX) / MOST_PX);
        BufferedImage image =
                new BufferedImage((east - west) / step + 1, (north - south) / step + 1, BufferedImage.TYPE_INT_ARGB);
        for (StoredCell cell : cells) {
            image.setRGB(
                    (cell.e() - west) / step,
                    (north - cell.n()) / step,
                    DifferenceColour.of(Math.max(-1, Math.min(1, cell.d() / scale))));
        }
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        try {
            ImageIO.write(image, "png", out);
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
        return "data:image/png;base64," + Base64.getEncoder().encodeToString(out.toByteArray());
    }
}
