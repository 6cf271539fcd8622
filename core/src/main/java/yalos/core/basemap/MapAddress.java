package yalos.core.basemap;

import java.net.URI;
import java.net.URISyntaxException;
import java.net.URLEncoder;
import java.nio.charset.StandardCharsets;
import java.util.Locale;
import java.util.regex.Pattern;
import yalos.core.fault.InputFault;

/**
 * Where a server has the tiles of a web map: an address with {@code {z}}, {@code {x}} and {@code {y}} (or {@code {-y}}, counted from the south), or
 * that of a Web Map Service (OGC 06-042, version 1.3.0) with the layers to be drawn.
 *
 * @param address as typed
 * @param layers of a Web Map Service; empty for an address of tiles
 */
public record MapAddress(String address, String layers) {
    private static final int LONGEST = 1000;
    private static final int PIXELS = 256;
    private static final Pattern OWN_QUERY = Pattern.compile(
            "(?i)^(service|version|request|layers|styles|crs|srs|bbox|width|height|format|transparent)=.*");

    public MapAddress {
        address = address.strip();
        layers = layers.strip();
        if (address.length() > LONGEST || layers.length() > LONGEST) {
            throw fault(address, "An address may have up to %d characters.".formatted(LONGEST));
        }
        boolean tiles = address.contains("{z}")
                && address.contains("{x}")
                && (address.contains("{y}") || address.contains("{-y}"));
        if (layers.isEmpty() && !tiles) {
            throw fault(
                    address,
                    "Type an address with {z}, {x} and {y} in it, such as https://maps.example/{z}/{x}/{y}.png, or that of a WMS with its layers.");
        }
        uri(layers.isEmpty() ? filled(address, 0, 0, 0) : address);
    }

    /** Name of the server. */
    public String server() {
        return tile(TileMatrix.web(0, PIXELS), 0, 0).getHost();
    }

    /** Where the picture of a tile of the usual web pyramid is. */
    public URI tile(TileMatrix level, long column, long row) {
        if (layers.isEmpty()) {
            return uri(filled(address, level.zoom(), column, row));
        }
        double side = level.pixelX() * level.tileWidth();
        double west = level.west() + column * side;
        double north = level.north() - row * side;
        String query =
                "SERVICE=WMS&VERSION=1.3.0&REQUEST=GetMap&LAYERS=%s&STYLES=&CRS=EPSG:3857&BBOX=%.4f,%.4f,%.4f,%.4f"
                                .formatted(
                                        URLEncoder.encode(layers, StandardCharsets.UTF_8),
                                        west,
                                        north - side,
                                        west + side,
                                        north)
                        + "&WIDTH=%d&HEIGHT=%d&FORMAT=image/png".formatted(PIXELS, PIXELS);
        String base = address.contains("?") ? address.substring(0, address.indexOf('?')) : address;
        String own = address.contains("?") ? kept(address.substring(address.indexOf('?') + 1)) : "";
        return uri(base + "?" + own + query);
    }

    /** What a service asks for besides, such as a key. */
    private static String kept(String query) {
        StringBuilder kept = new StringBuilder();
        for (String part : query.split("&")) {
            if (!part.isEmpty() && !OWN_QUERY.matcher(part).matches()) {
                kept.append(part).append('&');
            }
        }
        return kept.toString();
    }

    private static String filled(String address, int zoom, long column, long row) {
        long fromSouth = (1L << zoom) - 1 - row;
        return address.replace("{z}", String.valueOf(zoom))
                .replace("{x}", String.valueOf(column))
                .replace("{y}", String.valueOf(row))
                .replace("{-y}", String.valueOf(fromSouth));
    }

    private static URI uri(String text) {
        try {
            URI uri = new URI(text);
            String scheme = uri.getScheme() == null ? "" : uri.getScheme().toLowerCase(Locale.ROOT);
            if (!(scheme.equals("https") || scheme.equals("http")) || uri.getHost() == null) {
                throw fault(text, "An address begins with https:// or http:// and names a server.");
            }
            if (uri.getUserInfo() != null) {
                throw fault(text, "Leave name and password out of the address; it is shown on pages.");
            }
            return uri;
        } catch (URISyntaxException crooked) {
            throw fault(text, "“%s” is no address that can be read: %s.".formatted(text, crooked.getReason()));
        }
    }

    private static InputFault fault(String value, String sentence) {
        return new InputFault("address", value, sentence);
    }
}
