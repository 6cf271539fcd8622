package yalos.web.figure;

import java.util.Locale;
import java.util.function.DoubleFunction;
import org.springframework.web.util.HtmlUtils;

/**
 * A chart as SVG text. Colours are classes of the style sheet ({@code c-axis}, {@code c-line}, {@code c-band}, …), so that it follows the look; all text is escaped.
 *
 * <pre>{@code
 * String svg = new Chart(300, 120, "Power against airspeed")
 *         .within(34, 6, 6, 20).over(0, 20, 0, 8)
 *         .axes(5, 2, v -> "%.0f m/s".formatted(v), p -> "%.0f".formatted(p))
 *         .line("c-line", xs, ys)
 *         .svg();
 * }</pre>
 */
public final class Chart {
    private final int width;
    private final int height;
    private final String words;
    private final StringBuilder marks = new StringBuilder();
    /** A picture, or a group of things that can be moved. */
    private String role = "img";

    private double left;
    private double right;
    private double top;
    private double bottom;
    private double fromX;
    private double toX = 1;
    private double fromY;
    private double toY = 1;

    /**
     * @param words what it shows, for those who do not see it
     */
    public Chart(int width, int height, String words) {
        this.width = width;
        this.height = height;
        this.words = words;
        this.right = width;
        this.bottom = height;
    }

    /** Says that bars of it can be moved. */
    public Chart movable() {
        role = "group";
        return this;
    }

    /** Room that the axes take, in pixels. */
    public Chart within(double leftPx, double topPx, double rightPx, double bottomPx) {
        left = leftPx;
        top = topPx;
        right = width - rightPx;
        bottom = height - bottomPx;
        return this;
    }

    /** What the axes show. */
    public Chart over(double leastX, double mostX, double leastY, double mostY) {
        fromX = leastX;
        toX = mostX > leastX ? mostX : leastX + 1;
        fromY = leastY;
        toY = mostY > leastY ? mostY : leastY + 1;
        return this;
    }

    public double x(double value) {
        return left + (value - fromX) / (toX - fromX) * (right - left);
    }

    public double y(double value) {
        return bottom - (value - fromY) / (toY - fromY) * (bottom - top);
    }

    /** Both axes with ticks at multiples of a step, each in words. */
    public Chart axes(double stepX, double stepY, DoubleFunction<String> wordsX, DoubleFunction<String> wordsY) {
        for (double value = Math.ceil(fromY / stepY) * stepY + 0.0; value <= toY + 1e-9; value += stepY) {
            path("c-grid", "M%.1f %.1fH%.1f", left, y(value), right);
            text("c-tick", left - 4, y(value) + 4, "end", wordsY.apply(value));
        }
        ticks(stepX, wordsX);
        return path("c-axis", "M%.1f %.1fH%.1f", left, bottom, right);
    }

    /** Ticks below the chart alone. */
    public Chart ticks(double stepX, DoubleFunction<String> wordsX) {
        for (double value = Math.ceil(fromX / stepX - 1e-9) * stepX + 0.0; value <= toX + 1e-9; value += stepX) {
            path("c-axis", "M%.1f %.1fv4", x(value), bottom);
            text("c-tick", x(value), bottom + 15, "middle", wordsX.apply(value));
        }
        return this;
    }

    /** A line through values. */
    public Chart line(String look, double[] xs, double[] ys) {
        StringBuilder path = new StringBuilder();
        for (int i = 0; i < xs.length; i++) {
            path.append(String.format(Locale.ROOT, "%s%.1f %.1f", i == 0 ? "M" : "L", x(xs[i]), y(ys[i])));
        }
        return mark("<path class=\"%s\" d=\"%s\"/>", look, path);
    }

    /** The area between two lines over the same places. */
    public Chart band(String look, double[] xs, double[] upper, double[] lower) {
        StringBuilder path = new StringBuilder();
        for (int i = 0; i < xs.length; i++) {
            path.append(String.format(Locale.ROOT, "%s%.1f %.1f", i == 0 ? "M" : "L", x(xs[i]), y(upper[i])));
        }
        for (int i = xs.length - 1; i >= 0; i--) {
            path.append(String.format(Locale.ROOT, "L%.1f %.1f", x(xs[i]), y(lower[i])));
        }
        return mark("<path class=\"%s\" d=\"%sZ\"/>", look, path);
    }

    /**
     * A bar between two values of x, at pixels of y.
     *
     * @param more attributes as they stand in SVG, such as {@code data-sortie="1"}; already escaped
     * @param title told when it is pointed at; empty for none
     */
    public Chart bar(String look, double from, double to, double topPx, double heightPx, String more, String title) {
        return mark(
                "<rect class=\"%s\" x=\"%.1f\" y=\"%.1f\" width=\"%.1f\" height=\"%.1f\" %s>%s</rect>",
                look,
                x(from),
                topPx,
                Math.max(0.5, x(to) - x(from)),
                heightPx,
                more,
                title.isEmpty() ? "" : "<title>" + HtmlUtils.htmlEscape(title) + "</title>");
    }

    /** Text at pixels. */
    public Chart text(String look, double xPx, double yPx, String anchor, String text) {
        return mark(
                "<text class=\"%s\" x=\"%.1f\" y=\"%.1f\" text-anchor=\"%s\">%s</text>",
                look, xPx, yPx, anchor, HtmlUtils.htmlEscape(text));
    }

    /** A path at pixels. */
    public Chart path(String look, String format, Object... figures) {
        return mark("<path class=\"%s\" d=\"%s\"/>", look, String.format(Locale.ROOT, format, figures));
    }

    private Chart mark(String format, Object... parts) {
        marks.append(String.format(Locale.ROOT, format, parts));
        return this;
    }

    /** The chart as it stands in a page. */
    public String svg() {
        return String.format(
                Locale.ROOT,
                "<svg class=\"chart\" viewBox=\"0 0 %d %d\" role=\"%s\" aria-label=\"%s\" data-from=\"%s\" data-to=\"%s\" data-left=\"%s\" data-right=\"%s\">%s</svg>",
                width,
                height,
                role,
                HtmlUtils.htmlEscape(words),
                fromX,
                toX,
                left,
                right,
                marks);
    }
}
