package yalos.web.maps;

import static org.assertj.core.api.Assertions.assertThat;

import com.sun.net.httpserver.HttpServer;
import java.awt.Color;
import java.awt.Graphics2D;
import java.awt.image.BufferedImage;
import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.SQLException;
import java.sql.Statement;
import java.util.Arrays;
import java.util.HexFormat;
import java.util.concurrent.atomic.AtomicInteger;
import javax.imageio.ImageIO;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.Assumptions;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;
import org.springframework.context.ConfigurableApplicationContext;
import yalos.core.basemap.PmTilesFile;
import yalos.web.RunningYalos;
import yalos.web.Visitor;

/** Maps in the running application; what it paints is held against GDAL. */
class MapsTest {
    private static final Path DATA = RunningYalos.newFolder();
    private static final Path MAPS = DATA.resolve("maps");
    /** Pixels of 2 m. */
    private static final int Z = 8;

    private static ConfigurableApplicationContext application;
    private static Visitor visitor;
    private static String url;

    @BeforeAll
    static void start() throws IOException {
        application = RunningYalos.application(DATA, 0);
        url = "http://127.0.0.1:" + RunningYalos.portOf(application);
        visitor = new Visitor(url);
        Files.createDirectories(MAPS);
    }

    @AfterAll
    static void stop() {
        application.close();
    }

    private static String squares(String of, long x, long y) {
        return "/maps/squares?of=%s&epsg=32630&z=%d&x=%d&y=%d".formatted(of, Z, x, y);
    }

    private static HttpResponse<byte[]> bytes(String path) {
        try {
            return HttpClient.newHttpClient()
                    .send(
                            HttpRequest.newBuilder(URI.create(url + path)).build(),
                            HttpResponse.BodyHandlers.ofByteArray());
        } catch (IOException | InterruptedException e) {
            throw new IllegalStateException(e);
        }
    }

    private static BufferedImage picture(String path) throws IOException {
        HttpResponse<byte[]> answer = bytes(path);
        assertThat(answer.statusCode()).isEqualTo(200);
        return ImageIO.read(new ByteArrayInputStream(answer.body()));
    }

    private static void gdal(String... command) throws IOException {
        Process process = new ProcessBuilder(command).redirectErrorStream(true).start();
        String said = new String(process.getInputStream().readAllBytes(), StandardCharsets.UTF_8);
        try {
            assertThat(process.waitFor()).as(said).isZero();
        } catch (InterruptedException e) {
            throw new IllegalStateException(e);
        }
    }

    /** A drawn sheet of 4 km in UTM 30N: soft colours, two roads, so that a shift of a pixel shows. */
    private static Path drawn() throws IOException {
        BufferedImage image = new BufferedImage(1000, 1000, BufferedImage.TYPE_INT_RGB);
        for (int y = 0; y < 1000; y++) {
            for (int x = 0; x < 1000; x++) {
                int green = (int) (170 + 60 * Math.sin(x / 60.0) * Math.cos(y / 45.0));
                image.setRGB(x, y, new Color(200 - green / 3, green, 150).getRGB());
            }
        }
        Graphics2D pen = image.createGraphics();
        pen.setColor(Color.WHITE);
        pen.drawLine(0, 120, 999, 830);
        pen.setColor(Color.BLUE);
        pen.drawLine(340, 0, 610, 999);
        pen.dispose();
        Path png = Files.createTempFile("yalos-map", ".png");
        ImageIO.write(image, "png", png.toFile());
        Path tif = Files.createTempFile("yalos-map", ".tif");
        gdal(
                "gdal_translate",
                "-q",
                "-a_srs",
                "EPSG:32630",
                "-a_ullr",
                "411000",
                "6044000",
                "415000",
                "6040000",
                png.toString(),
                tif.toString());
        return tif;
    }

    /** The sheet in the pixels of a web map's level 15, from the edge of a tile on. */
    private static Path inWebPixels(Path drawn) throws IOException {
        double side = 2 * Math.PI * 6_378_137 / (1 << 15);
        double west = -Math.PI * 6_378_137 + 15_985 * side;
        double north = Math.PI * 6_378_137 - 10_437 * side;
        Path tif = Files.createTempFile("yalos-map", ".tif");
        gdal(
                "gdalwarp",
                "-q",
                "-overwrite",
                "-r",
                "bilinear",
                "-t_srs",
                "EPSG:3857",
                "-te",
                String.valueOf(west),
                String.valueOf(north - 8 * side),
                String.valueOf(west + 9 * side),
                String.valueOf(north),
                "-ts",
                "2304",
                "2048",
                drawn.toString(),
                tif.toString());
        return tif;
    }

    /** gdalwarp is asked for the very square from the picture of which the map was made. */
    @ParameterizedTest
    @CsvSource({"MBTILES, sheet.mbtiles", "GPKG, sheet.gpkg"})
    void squaresAreThoseOfGdal(String driver, String name) throws IOException {
        Assumptions.assumeTrue(Files.isExecutable(Path.of("/usr/bin/gdalwarp")), "GDAL is not installed");
        Path map = driver.equals("MBTILES") ? inWebPixels(drawn()) : drawn();
        gdal(
                "gdal_translate",
                "-q",
                "-of",
                driver,
                "-co",
                "TILE_FORMAT=PNG",
                map.toString(),
                MAPS.resolve(name).toString());
        long x = 413_000 / 512;
        long y = -6_042_000 / 512;
        double west = x * 512.0;
        double north = -y * 512.0;
        Path warped = Files.createTempFile("yalos-warp", ".tif");
        gdal(
                "gdalwarp",
                "-q",
                "-overwrite",
                "-r",
                "bilinear",
                "-et",
                "0",
                "-t_srs",
                "EPSG:32630",
                "-te",
                String.valueOf(west),
                String.valueOf(north - 512),
                String.valueOf(west + 512),
                String.valueOf(north),
                "-tr",
                "2",
                "2",
                map.toString(),
                warped.toString());
        Path png = Files.createTempFile("yalos-warp", ".png");
        gdal("gdal_translate", "-q", "-of", "PNG", warped.toString(), png.toString());
        BufferedImage theirs = ImageIO.read(png.toFile());
        BufferedImage ours = picture(squares("file:" + name, x, y));
        assertThat(theirs.getWidth()).isEqualTo(256);
        int[] differences = new int[256 * 256];
        for (int i = 0; i < differences.length; i++) {
            Color a = new Color(theirs.getRGB(i % 256, i / 256));
            Color b = new Color(ours.getRGB(i % 256, i / 256));
            differences[i] = Math.max(Math.abs(a.getRed() - b.getRed()), Math.abs(a.getBlue() - b.getBlue()));
        }
        Arrays.sort(differences);
        assertThat(differences[differences.length / 2]).as("half of all").isLessThanOrEqualTo(1);
        assertThat(differences[(int) (differences.length * 0.99)]).as("99 %").isLessThanOrEqualTo(6);
    }

    private static byte[] tile(Color colour) {
        BufferedImage image = new BufferedImage(256, 256, BufferedImage.TYPE_INT_RGB);
        Graphics2D pen = image.createGraphics();
        pen.setColor(colour);
        pen.fillRect(0, 0, 256, 256);
        pen.dispose();
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        try {
            ImageIO.write(image, "png", out);
        } catch (IOException e) {
            throw new IllegalStateException(e);
        }
        return out.toByteArray();
    }

    /** Of PMTiles only the whole world in one tile and, finer, its north-western quarter; the coarse tile stands in elsewhere. */
    @Test
    void aPmTilesMapStandsInCoarselyWhereItIsNotFine() throws IOException {
        Files.write(
                MAPS.resolve("world.pmtiles"),
                new PmTilesFile()
                        .with(0, 0, 0, tile(Color.GREEN))
                        .with(1, 0, 0, tile(Color.RED))
                        .bytes());
        assertThat(picture(squares("file:world.pmtiles", 413_000 / 512, -6_042_000 / 512))
                        .getRGB(100, 100))
                .as("west of Greenwich")
                .isEqualTo(Color.RED.getRGB());
        assertThat(picture(squares("file:world.pmtiles", 900_000 / 512, -6_042_000 / 512))
                        .getRGB(100, 100))
                .as("east of it")
                .isEqualTo(Color.GREEN.getRGB());
    }

    @Test
    void aMapIsLaidUnderAJobAndTakenAway() throws IOException {
        Files.write(
                MAPS.resolve("laid.pmtiles"),
                new PmTilesFile().with(0, 0, 0, tile(Color.GREEN)).bytes());
        long block = visitor.newBlock("With a map", "54.512, -4.35");
        assertThat(visitor.get("/maps?block=" + block).body()).contains("laid.pmtiles", "Lay under");
        visitor.post("/maps/lay", "block", String.valueOf(block), "of", "file:laid.pmtiles");
        assertThat(visitor.get("/blocks/" + block + "/sheet.json").body())
                .contains(
                        "/maps/squares?of=file%3Alaid.pmtiles&state=",
                        "drawn \\\"by hand\\\"", "\"onEarth\":[-4.35,54.512]");
        assertThat(visitor.get("/maps?block=" + block).body()).contains("under this job");
        visitor.post("/maps/lay", "block", String.valueOf(block), "of", "");
        assertThat(visitor.get("/blocks/" + block + "/sheet.json").body()).contains("\"map\":null");
        visitor.post("/maps/change", "of", "file:laid.pmtiles", "act", "remove");
        assertThat(MAPS.resolve("laid.pmtiles")).doesNotExist();
        assertThat(bytes(squares("file:laid.pmtiles", 0, 0)).statusCode()).isEqualTo(404);
    }

    private static byte[] sqlite(String... statements) throws IOException {
        Path file = Files.createTempFile("yalos-crooked", ".db");
        try (Connection db = DriverManager.getConnection("jdbc:sqlite:" + file);
                Statement statement = db.createStatement()) {
            for (String one : statements) {
                statement.execute(one);
            }
        } catch (SQLException e) {
            throw new IOException(e);
        }
        return Files.readAllBytes(file);
    }

    @Test
    void whatIsNoMapOfPicturesIsToldWhyAndNotKept() throws IOException {
        String vectors = "insert into metadata values ('format', 'pbf')";
        String meta = "create table metadata (name text, value text)";
        String tiles = "create table tiles (zoom_level int, tile_column int, tile_row int, tile_data blob)";
        record Bad(String name, byte[] content, String why) {}
        for (Bad bad : new Bad[] {
            new Bad("notes.txt", new byte[3], "an .mbtiles, .pmtiles or .gpkg file"),
            new Bad("x.mbtiles", "no database".getBytes(StandardCharsets.UTF_8), "damaged, or no such map"),
            new Bad("v.mbtiles", sqlite(meta, tiles, vectors), "holds vectors"),
            new Bad("e.mbtiles", sqlite(meta, tiles), "holds no tiles"),
            new Bad("g.gpkg", sqlite(meta), "damaged, or no such map"),
            new Bad("p.pmtiles", new byte[200], "no PMTiles map"),
            new Bad(
                    "endless.mbtiles",
                    sqlite(
                            meta,
                            "create view tiles as with recursive n(i) as (select 1 union all select i + 1 from n)"
                                    + " select i as zoom_level, i as tile_column, i as tile_row, x'00' as tile_data from n"),
                    "damaged, or no such map"),
        }) {
            assertThat(visitor.upload("/maps/file", bad.name(), bad.content()).body())
                    .as(bad.name())
                    .contains(bad.why());
            assertThat(MAPS.resolve(bad.name())).doesNotExist();
        }
    }

    @ParameterizedTest
    @ValueSource(
            strings = {
                "file:..%2Fyalos.mv.db",
                "file:..%2F..%2Fx.mbtiles",
                "file:nothing.mbtiles",
                "web:99",
                "web:x",
                "",
                "x"
            })
    void onlyMapsOfTheShelfAreShown(String of) {
        assertThat(bytes(squares(of, 1, 1)).statusCode()).isEqualTo(404);
    }

    /** A server of tiles on this machine; what it answers is the test's. */
    private static HttpServer server(AtomicInteger asked) throws IOException {
        HttpServer server = HttpServer.create(new InetSocketAddress(InetAddress.getLoopbackAddress(), 0), 0);
        byte[] blue = tile(Color.BLUE);
        server.createContext("/", exchange -> {
            asked.incrementAndGet();
            String path = exchange.getRequestURI().getPath();
            if (path.startsWith("/elsewhere")) {
                exchange.getResponseHeaders().set("Location", "http://other.example/");
                exchange.sendResponseHeaders(302, -1);
            } else if (path.startsWith("/page")) {
                exchange.getResponseHeaders().set("Content-Type", "text/html");
                exchange.sendResponseHeaders(200, 0);
            } else if (path.startsWith("/none")) {
                exchange.sendResponseHeaders(404, -1);
            } else {
                exchange.getResponseHeaders().set("Content-Type", "image/png");
                exchange.sendResponseHeaders(200, blue.length);
                exchange.getResponseBody().write(blue);
            }
            exchange.close();
        });
        server.start();
        return server;
    }

    private static String added(String name, String address, boolean home) {
        visitor.post("/maps/address", "name", name, "address", address, "home", String.valueOf(home), "finest", "14");
        String page = visitor.get("/maps").body();
        String row = page.substring(page.indexOf(">" + name + "<"));
        int at = row.indexOf("value=\"web:") + 7;
        return row.substring(at, row.indexOf('"', at));
    }

    @Test
    void aWebMapIsOffUntilSwitchedOnThenKeptAndShownWithoutNetwork() throws IOException {
        AtomicInteger asked = new AtomicInteger();
        HttpServer server = server(asked);
        String base = "http://127.0.0.1:" + server.getAddress().getPort();
        String of = added("Blue", base + "/{z}/{x}/{y}.png", true);
        String square = squares(of, 413_000 / 512, -6_042_000 / 512);
        assertThat(new Color(picture(square).getRGB(9, 9), true).getAlpha())
                .as("off: nothing")
                .isZero();
        assertThat(asked.get()).as("off: nothing is asked").isZero();
        visitor.post("/maps/change", "of", of, "act", "on");
        assertThat(picture(square).getRGB(9, 9)).isEqualTo(Color.BLUE.getRGB());
        int first = asked.get();
        picture(square);
        assertThat(asked.get()).as("kept").isEqualTo(first);
        long block = visitor.newBlock("Kept", "54.512, -4.35");
        visitor.change(
                block,
                "ground",
                "/outline/draw",
                "positions",
                "412500,6041000,412700,6041000,412600,6041300",
                "epsg",
                "32630");
        assertThat(visitor.post("/maps/keep", "of", of, "block", String.valueOf(block))
                        .body())
                .contains("tiles round this block are kept, down to level 14");
        server.stop(0);
        assertThat(picture(squares(of, 412_600 / 512, -6_041_200 / 512)).getRGB(9, 9))
                .as("without the server")
                .isEqualTo(Color.BLUE.getRGB());
        HttpResponse<byte[]> far = bytes(squares(of, 700_000 / 512, -5_000_000 / 512));
        assertThat(far.headers().firstValue("Cache-Control"))
                .as("may come later")
                .contains("no-store");
        assertThat(visitor.get("/maps").body()).contains("127.0.0.1 does not answer.");
        visitor.post("/maps/change", "of", of, "act", "remove");
        assertThat(visitor.get("/maps").body()).doesNotContain(">Blue<");
    }

    @ParameterizedTest
    @CsvSource({
        "Home, /{z}/{x}/{y}, false, is an address of this machine or its own network (127.0.0.1)",
        "Elsewhere, /elsewhere/{z}/{x}/{y}, true, sends elsewhere: http://other.example/",
        "Page, /page/{z}/{x}/{y}, true, 'sends text/html, not pictures'",
    })
    void whatMayNotBeFetchedIsToldWhy(String name, String path, boolean home, String why) throws IOException {
        AtomicInteger asked = new AtomicInteger();
        HttpServer server = server(asked);
        String of = added(name, "http://localhost:" + server.getAddress().getPort() + path, home);
        visitor.post("/maps/change", "of", of, "act", "on");
        picture(squares(of, 413_000 / 512, -6_042_000 / 512));
        assertThat(visitor.get("/maps").body()).contains(why);
        assertThat(asked.get()).isEqualTo(home ? 1 : 0);
        visitor.post("/maps/change", "of", of, "act", "remove");
        server.stop(0);
    }

    @Test
    void crookedAddressesAreRefusedBesideTheirField() {
        assertThat(visitor.post("/maps/address", "name", "X", "address", "file:///etc/{z}{x}{y}")
                        .body())
                .contains("begins with https://");
        assertThat(visitor.post("/maps/address", "name", "X", "address", "https://a.example/", "finest", "x")
                        .body())
                .contains("{z}, {x} and {y}");
        assertThat(visitor.post(
                                "/maps/address",
                                "name",
                                "X",
                                "address",
                                "https://a.example/{z}/{x}/{y}",
                                "finest",
                                "40")
                        .body())
                .contains("whole number from 1 to 24");
        assertThat(visitor.get("/maps").body()).doesNotContain("a.example");
    }

    @ParameterizedTest
    @CsvSource({
        "127.0.0.1, true",
        "10.1.2.3, true",
        "172.16.0.1, true",
        "192.168.1.1, true",
        "169.254.169.254, true",
        "100.64.0.1, true",
        "0.0.0.0, true",
        "224.0.0.1, true",
        "255.255.255.255, true",
        "::1, true",
        "::, true",
        "fe80::1, true",
        "fd00::1, true",
        "::ffff:10.0.0.1, true",
        "64:ff9b::a00:1, true",
        "2002:a00:1::, true",
        "8.8.8.8, false",
        "100.128.0.1, false",
        "172.32.0.1, false",
        "2606:4700::1, false",
    })
    void addressesOfThisMachinesOwnNetworkAreKnown(String address, boolean home) throws IOException {
        assertThat(TileFetch.isHome(InetAddress.getByName(address))).isEqualTo(home);
    }

    /** Other programs go by what a kept file says of its tiles. */
    @ParameterizedTest
    @CsvSource({
        "ffd8ffe000104a4649460001, jpg",
        "89504e470d0a1a0a0000000d49484452, png",
        "524946461234567857454250565038, webp"
    })
    void aKeptMapSaysWhatItsPicturesAre(String start, String format) {
        assertThat(KeptMap.format(HexFormat.of().parseHex(start))).isEqualTo(format);
    }
}
