package yalos.web.pack;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Map;
import java.util.TreeMap;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.zip.ZipEntry;
import java.util.zip.ZipInputStream;
import org.apache.pdfbox.Loader;
import org.apache.pdfbox.pdmodel.PDDocument;
import org.apache.pdfbox.text.PDFTextStripper;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.ExtendWith;
import org.junit.jupiter.api.io.TempDir;
import tools.jackson.databind.json.JsonMapper;
import tools.jackson.databind.node.ObjectNode;
import yalos.web.RunningYalos;
import yalos.web.Visitor;

/** The Field pack stage over HTTP: handed out, signed, read back, brought back. */
@ExtendWith(RunningYalos.class)
class PackPagesTest {
    private static final String FIELD = "54.5134 -4.3489\n54.5134 -4.3419\n54.5174 -4.3419\n54.5174 -4.3489";
    private static final String LAUNCH = "54.5130, -4.3489";
    private static final JsonMapper JSON = JsonMapper.builder().build();

    private final Visitor visitor = new Visitor(RunningYalos.url());

    private long block(String name) {
        long block = visitor.newBlock(name, LAUNCH);
        visitor.change(block, "ground", "/import", "text", FIELD);
        return block;
    }

    private byte[] bytes(long block, String file) {
        return visitor.bytes("/blocks/" + block + "/field-pack/" + file);
    }

    private static String text(PDDocument pdf) throws IOException {
        return new PDFTextStripper().getText(pdf);
    }

    private String checks(long block) {
        return visitor.get("/blocks/" + block + "/field-pack/checks").body();
    }

    /** Number of the first line that holds some words. */
    private static int at(String page, String words) {
        Matcher found = Pattern.compile(
                        "name=\"at\" value=\"(\\d+)\" />\\s*<input type=\"hidden\" name=\"line\" value=\"[^\"]*"
                                + Pattern.quote(words))
                .matcher(page);
        assertThat(found.find()).as(words).isTrue();
        return Integer.parseInt(found.group(1));
    }

    private static String line(String page, int at) {
        Matcher found = Pattern.compile("name=\"at\" value=\"" + at
                        + "\" />\\s*<input type=\"hidden\" name=\"line\" value=\"([^\"]*)\"")
                .matcher(page);
        assertThat(found.find()).isTrue();
        return found.group(1).replace("&#39;", "'").replace("&amp;", "&");
    }

    private String sign(long block, int at, String... more) {
        String page = checks(block);
        String[] form = new String[6 + more.length];
        form[0] = "at";
        form[1] = String.valueOf(at);
        form[2] = "line";
        form[3] = line(page, at);
        form[4] = "signed";
        form[5] = "true";
        System.arraycopy(more, 0, form, 6, more.length);
        return visitor.post("/blocks/" + block + "/field-pack/checks/sign", form)
                .body();
    }

    @Test
    void theListFollowsFromTheJobAndIsSignedLineByLine() {
        long block = block("Pack signed");
        String page = checks(block);
        assertThat(page).contains("0 of ").contains("nothing in it is law").contains("Start 30 s");
        assertThat(visitor.get("/blocks/" + block + "/field-pack/checks?who=second")
                        .body())
                .contains("Second copy made")
                .doesNotContain("value=\"Airspace looked up");
        assertThat(sign(block, 0, "person", "")).contains("Who signs?");
        sign(block, 0, "person", "A. Pilot", "note", "notices <read>");
        assertThat(checks(block))
                .contains("1 of ")
                .contains("signed by A. Pilot")
                .contains("&lt;read&gt;");
        visitor.post(
                "/blocks/" + block + "/field-pack/checks/sign",
                "at",
                "0",
                "line",
                line(page, 0),
                "signed",
                "false",
                "person",
                "A. Pilot");
        assertThat(checks(block)).contains("0 of ").contains("taken back by");
        // Whoever looks in other units sees the same line signed.
        String figure =
                line(checks(block), at(checks(block), "Distance fence")).replaceAll(".*fence ([0-9.]+) m.*", "$1");
        sign(block, at(checks(block), "Distance fence"), "person", "P", "reads", figure);
        assertThat(checks(block)).contains("1 of ");
        visitor.post("/units", "DISTANCE", "FOOT", "HEIGHT", "FOOT");
        assertThat(checks(block)).contains(" ft").contains("1 of ").doesNotContain("stand open again");
        visitor.post("/units", "DISTANCE", "METRE", "HEIGHT", "METRE");
        visitor.post("/blocks/" + block + "/field-pack/notes", "text", "ewes in the <b>south</b>", "person", "B");
        assertThat(checks(block)).contains("ewes in the &lt;b&gt;south");
    }

    @Test
    void aSlipOnTheAircraftIsFound() {
        long block = block("Pack slip");
        String page = checks(block);
        int at = at(page, "Speed while mapping");
        assertThat(sign(block, at, "person", "P")).contains("Read it off the aircraft");
        assertThat(sign(block, at, "person", "P", "reads", "fast")).contains("fast");
        assertThat(sign(block, at, "person", "P", "reads", "20 m/s"))
                .contains("It shows 20.0 m/s, the plan says")
                .contains("too much");
        assertThat(checks(block)).contains("0 of ");
        String planned = line(page, at).replaceAll("[^0-9.]*([0-9.]+) m/s.*", "$1");
        sign(block, at, "person", "P", "reads", planned);
        assertThat(checks(block)).contains("1 of ").contains("read " + planned);
        // Another speed opens the line again, and says so.
        visitor.change(block, "strips", "/ledger/speed", "value", "3 m/s");
        assertThat(checks(block)).contains("0 of ").contains("stand open again");
        assertThat(visitor.post(
                                "/blocks/" + block + "/field-pack/checks/sign",
                                "at",
                                String.valueOf(at),
                                "line",
                                line(page, at),
                                "signed",
                                "true",
                                "person",
                                "P",
                                "reads",
                                planned)
                        .body())
                .contains("has changed since this page was opened");
    }

    @Test
    void whatChangedSinceTheIssuedRevisionMustBeConfirmed() throws IOException {
        long block = block("Pack issued");
        visitor.post("/blocks/" + block + "/revisions", "note", "for the crew", "version", visitor.version(block));
        assertThat(visitor.get("/blocks/" + block + "/field-pack").body()).contains("As issued in revision 1");
        visitor.change(block, "strips", "/ledger/speed", "value", "3 m/s");
        assertThat(visitor.get("/blocks/" + block + "/field-pack").body()).contains("Changed since revision 1");
        String page = checks(block);
        int at = at(page, "speed is 3.0 m/s now");
        assertThat(at).isLessThan(at(page, "Airspace"));
        sign(block, at, "person", "P", "reads", "3 m/s");
        assertThat(checks(block)).contains("1 of ");
        try (PDDocument pdf = Loader.loadPDF(bytes(block, "pack.pdf"))) {
            assertThat(text(pdf)).contains("CHANGED, was ").contains("revision 1");
        }
    }

    @Test
    void theListIsEditedAndGetsAnEdition() {
        long block = block("Pack edited");
        String path = "/blocks/" + block + "/field-pack/checks";
        visitor.post(
                path + "/lines",
                "version",
                visitor.version(block),
                "checks",
                "# Gate\npilot: Gate shut\nSheep moved",
                "card",
                "Pause: it hangs");
        assertThat(checks(block))
                .contains("0 of 2 signed")
                .contains("Sheep moved")
                .contains("edition 2, your own");
        assertThat(visitor.get("/blocks/" + block + "/field-pack/card").body())
                .contains("it hangs")
                .doesNotContain("Motors off");
        assertThat(visitor.post(path + "/lines", "version", visitor.version(block), "checks", "x", "card", "no colon")
                        .body())
                .contains("has no colon");
        visitor.post(path + "/lines", "version", visitor.version(block), "checks", "", "card", "Pause: it hangs");
        assertThat(checks(block)).contains("edition 3, as it follows from job");
    }

    @Test
    void onPaperWithOurFontsInAnyScriptAndOnAnySheet() throws IOException {
        long block = block("Röd “torp” <b>&amp;</b> Ελλάς Жук \u65e5\u672c ../../etc");
        visitor.change(
                block,
                "field-pack",
                "/field-pack/parts",
                "in",
                "map",
                "in",
                "emergency",
                "in",
                "checks",
                "sheet",
                "LETTER");
        visitor.change(
                block,
                "field-pack",
                "/field-pack/words",
                "contacts",
                "Land owner: at the farm",
                "laws",
                "none beyond the usual");
        byte[] bytes = bytes(block, "pack.pdf");
        try (PDDocument pdf = Loader.loadPDF(bytes)) {
            String text = text(pdf);
            assertThat(text)
                    .contains("Röd “torp” <b>&amp;</b> Ελλάς Жук")
                    .contains("Map")
                    .contains("Checklists")
                    .contains("authorises nothing")
                    .doesNotContain("Camera card")
                    .doesNotContain("at the farm");
            assertThat(pdf.getPage(0).getMediaBox().getWidth()).isBetween(611f, 613f);
            pdf.getPage(1).getResources().getFontNames().forEach(name -> {
                try {
                    assertThat(pdf.getPage(1).getResources().getFont(name).isEmbedded())
                            .isTrue();
                } catch (IOException e) {
                    throw new UncheckedIOException(e);
                }
            });
        }
        HttpResponse<String> file = visitor.get("/blocks/" + block + "/field-pack/pack.html");
        assertThat(file.headers().firstValue("Content-Disposition").orElse(""))
                .startsWith("attachment")
                .doesNotContain("..");
        String html = file.body();
        assertThat(html).contains("&lt;b&gt;&amp;amp;").doesNotContain("<b>&amp;</b>");
        // Nothing is asked of any server: all that looks like an address is a name space.
        assertThat(html.replace("http://www.w3.org/2000/svg", "").replace("http://www.w3.org/1999/xlink", ""))
                .doesNotContain("http://")
                .doesNotContain("https://")
                .doesNotContain("src=\"/");
    }

    @Test
    void stopsStandOnEveryPage() throws IOException {
        long block = block("Pack stopped");
        visitor.change(block, "strips", "/ledger/ceiling", "value", "20 m");
        try (PDDocument pdf = Loader.loadPDF(bytes(block, "pack.pdf"))) {
            PDFTextStripper page = new PDFTextStripper();
            for (int i = 1; i <= pdf.getNumberOfPages(); i++) {
                page.setStartPage(i);
                page.setEndPage(i);
                assertThat(page.getText(pdf)).as("page " + i).contains("NOT TO BE FLOWN AS IT IS");
            }
        }
        assertThat(visitor.get("/blocks/" + block + "/field-pack").body()).contains("Stop, on every page");
    }

    @Test
    void withoutAPlanNothingIsPacked() {
        long block = visitor.newBlock("Pack empty", LAUNCH);
        assertThat(visitor.get("/blocks/" + block + "/field-pack").body()).contains("draw an outline");
        HttpResponse<String> none = visitor.get("/blocks/" + block + "/field-pack/pack.pdf");
        assertThat(none.statusCode()).isBetween(400, 499);
        assertThat(none.body()).contains("There is no outline");
        assertThat(checks(block)).contains("Checklist").contains("not known yet");
    }

    @Test
    void theZipIsReadByOthers(@TempDir Path folder) throws IOException, InterruptedException {
        long block = block("Pack zipped");
        visitor.change(block, "control", "/control/points", "place", "54.5150, -4.3450", "role", "CHECK");
        Map<String, byte[]> files = new TreeMap<>();
        try (ZipInputStream zip = new ZipInputStream(new ByteArrayInputStream(bytes(block, "pack.zip")))) {
            for (ZipEntry entry = zip.getNextEntry(); entry != null; entry = zip.getNextEntry()) {
                files.put(entry.getName(), zip.readAllBytes());
            }
        }
        assertThat(files)
                .containsKeys(
                        "README.txt",
                        "plan/plan.gpkg",
                        "plan/plan.kmz",
                        "sorties/sortie-1.csv",
                        "proof/gsd.tif",
                        "field-pack.pdf");
        String readme = new String(files.get("README.txt"), StandardCharsets.UTF_8);
        assertThat(readme)
                .contains("EPSG:32630")
                .contains("adequate.tif 0: enough")
                .contains("Sortie 1: stations 1 to");
        Path gpkg = folder.resolve("plan.gpkg");
        Files.write(gpkg, files.get("plan/plan.gpkg"));
        Process ogr = new ProcessBuilder("ogrinfo", "-so", "-al", gpkg.toString())
                .redirectErrorStream(true)
                .start();
        String told = new String(ogr.getInputStream().readAllBytes(), StandardCharsets.UTF_8);
        assertThat(ogr.waitFor()).as(told).isZero();
        long stations = new String(files.get("plan/plan.csv"), StandardCharsets.UTF_8)
                        .lines()
                        .count()
                - 1;
        assertThat(told)
                .contains("Layer name: stations")
                .contains("Geometry: 3D Point")
                .contains("Geometry: 3D Line String")
                .contains("Feature Count: " + stations)
                .doesNotContain("Warning")
                .doesNotContain("ERROR");
        try (ZipInputStream kmz = new ZipInputStream(new ByteArrayInputStream(files.get("plan/plan.kmz")))) {
            assertThat(kmz.getNextEntry().getName()).isEqualTo("doc.kml");
            assertThat(new String(kmz.readAllBytes(), StandardCharsets.UTF_8)).contains("<kml");
        }
    }

    /** What the script of a pack would save. */
    private ObjectNode written(long block) {
        String html = new String(bytes(block, "pack.html"), StandardCharsets.UTF_8);
        Matcher held =
                Pattern.compile("id=\"written\">(.*?)</script>", Pattern.DOTALL).matcher(html);
        assertThat(held.find()).isTrue();
        return (ObjectNode) JSON.readTree(held.group(1));
    }

    private static ObjectNode tick(ObjectNode written, String line) {
        return ((tools.jackson.databind.node.ArrayNode) written.get("checks"))
                .addObject()
                .put("key", line)
                .put("signed", true)
                .put("at", "2026-05-02T10:12:30+01:00")
                .put("by", "A. Pilot")
                .put("reads", "")
                .put("note", "");
    }

    private String returned(long block, String text) {
        return visitor.upload(
                        "/blocks/" + block + "/field-pack/returned", "back.json", text.getBytes(StandardCharsets.UTF_8))
                .body();
    }

    @Test
    void whatWasWrittenInTheFieldComesBack() {
        long block = block("Pack back");
        ObjectNode written = written(block);
        String line = line(checks(block), 0);
        tick(written, line);
        tick(written, "a line that nobody wrote");
        tick(written, line(checks(block), at(checks(block), "Traffic"))).put("by", "");
        tick(written, line(checks(block), at(checks(block), "Speed while"))).put("reads", "44 m/s");
        ((tools.jackson.databind.node.ArrayNode) written.get("points"))
                .addObject()
                .put("point", "7")
                .put("place", "54.5150, -4.3450")
                .put("height", "281.4")
                .put("at", "2026-05-02T10:12:30Z");
        ((tools.jackson.databind.node.ArrayNode) written.get("points"))
                .addObject()
                .put("point", "8")
                .put("place", "behind the wall");
        ((tools.jackson.databind.node.ArrayNode) written.get("notes"))
                .addObject()
                .put("text", "ewes <script>alert(1)</script>")
                .put("by", "B")
                .put("at", "2026-05-02T10:15:00Z");
        String looked = returned(block, written.toString());
        assertThat(looked)
                .contains("3 to keep, 4 that cannot be kept")
                .contains("not on the list as it stands")
                .contains("has no name")
                .contains("before the pack was made")
                .contains("too much")
                .contains("&lt;script&gt;");
        assertThat(checks(block)).contains("0 of ");
        visitor.post("/blocks/" + block + "/field-pack/returned/keep", "written", written.toString());
        assertThat(checks(block))
                .contains("1 of ")
                .contains("signed by A. Pilot")
                .contains("ewes &lt;script&gt;");
        assertThat(visitor.get("/blocks/" + block + "/control/measured").body()).contains("field pack");
        // The same once more signs nothing twice.
        assertThat(returned(block, written.toString()))
                .contains("signed already")
                .contains("kept already");
    }

    @Test
    void aPackEditedByHandIsToldWhatIsWrong() {
        long block = block("Pack by hand");
        ObjectNode written = written(block);
        assertThat(returned(block, written.toString().substring(0, 60))).contains("breaks off or was changed by hand");
        assertThat(returned(block, "{\"form\":\"yalos-field-9\"}")).contains("newer field pack");
        assertThat(returned(block, "{\"form\":\"shopping\"}")).contains("not what a field pack saves");
        assertThat(returned(block, "<html><p>nothing</p></html>")).contains("is no field pack");
        assertThat(returned(block, "[]")).contains("not what a field pack saves");
        ObjectNode other = written.deepCopy().put("block", "another");
        assertThat(returned(block, other.toString())).contains("Open that block and bring it there");
        ObjectNode torn = written.deepCopy();
        torn.put("checks", 7);
        assertThat(returned(block, torn.toString())).contains("has no list of checks any more");
        ObjectNode many = written.deepCopy();
        for (int i = 0; i < 2001; i++) {
            ((tools.jackson.databind.node.ArrayNode) many.get("notes"))
                    .addObject()
                    .put("text", "n" + i);
        }
        assertThat(returned(block, many.toString())).contains("more than 2,000 are not read");
        // The page itself comes back as well.
        String html = new String(bytes(block, "pack.html"), StandardCharsets.UTF_8);
        tick(written, line(checks(block), 0)).put("at", "2199-01-01T00:00:00Z");
        String filled = html.replaceFirst(
                "id=\"written\">.*?</script>",
                Matcher.quoteReplacement("id=\"written\">" + written.toString().replace("<", "\\u003c") + "</script>"));
        assertThat(returned(block, filled)).contains("1 to keep").contains("lies ahead of this computer");
    }

    @Test
    void aPlanMadeEarlierIsProvedBesideThePresentOne() {
        long block = block("Pack earlier");
        String path = "/blocks/" + block + "/field-pack/earlier";
        for (String format : new String[] {"geojson", "csv", "kml"}) {
            byte[] file = HttpClient.newHttpClient()
                    .sendAsync(
                            HttpRequest.newBuilder(URI.create(
                                            RunningYalos.url() + "/blocks/" + block + "/export/plan." + format))
                                    .build(),
                            HttpResponse.BodyHandlers.ofByteArray())
                    .join()
                    .body();
            visitor.upload(path, "<old> plan." + format, file, "zero", "TAKE_OFF", "height", "");
        }
        String page = visitor.get(path).body();
        assertThat(page)
                .contains("the present plan")
                .contains("&lt;old&gt; plan.csv")
                .contains("plan.kml")
                .contains("<svg");
        Matcher shares = Pattern.compile("class=\"verdict (\\w+)\">([^<]+)</b>").matcher(page);
        assertThat(shares.find()).isTrue();
        String own = shares.group(2);
        assertThat(shares.find()).isTrue();
        assertThat(Math.abs(percent(shares.group(2)) - percent(own))).isLessThan(1.5);
        assertThat(visitor.upload(path, "x.csv", "lat,lon\n1,2\n3,4\n".getBytes(StandardCharsets.UTF_8))
                        .body())
                .contains("does not say what its heights count from");
        assertThat(visitor.upload(
                                path,
                                "x.csv",
                                "lat,lon\n1,2\n3,4\n".getBytes(StandardCharsets.UTF_8),
                                "zero",
                                "GEOID",
                                "height",
                                "80 m")
                        .body())
                .contains("km from this block");
        assertThat(visitor.upload(path, "x.geojson", "{\"type\":".getBytes(StandardCharsets.UTF_8))
                        .body())
                .contains("breaks off");
        Matcher id = Pattern.compile("earlier/(\\d+)/remove").matcher(page);
        assertThat(id.find()).isTrue();
        visitor.post(path + "/" + id.group(1) + "/remove");
        assertThat(visitor.get(path).body()).doesNotContain("earlier/" + id.group(1) + "/remove");
    }

    private static double percent(String text) {
        return Double.parseDouble(text.replaceAll("[^0-9.]", ""));
    }

    /** Forty thousand stations make a pack of pages that can be carried. */
    @Test
    void aHugePlanIsPacked() throws IOException {
        long block = visitor.newBlock("Pack huge", LAUNCH);
        visitor.change(
                block,
                "ground",
                "/import",
                "text",
                "54.5134 -4.3489\n54.5134 -4.3309\n54.5234 -4.3309\n54.5234 -4.3489");
        visitor.change(block, "strips", "/ledger/gsd", "value", "0.5 cm");
        String page = visitor.get("/blocks/" + block + "/strips").body();
        assertThat(page).contains("photos");
        byte[] bytes = bytes(block, "pack.pdf");
        try (PDDocument pdf = Loader.loadPDF(bytes)) {
            assertThat(pdf.getNumberOfPages()).isBetween(8, 60);
            Matcher photos = Pattern.compile("([\\d,]+) photos").matcher(text(pdf));
            assertThat(photos.find()).isTrue();
            assertThat(Integer.parseInt(photos.group(1).replace(",", ""))).isGreaterThan(38_000);
        }
        assertThat(bytes.length).isLessThan(8_000_000);
    }
}
