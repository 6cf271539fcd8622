package yalos.web.pack;

import com.openhtmltopdf.outputdevice.helper.BaseRendererBuilder.FontStyle;
import com.openhtmltopdf.pdfboxout.PdfRendererBuilder;
import com.openhtmltopdf.svgsupport.BatikSVGDrawer;
import com.openhtmltopdf.util.XRLog;
import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.UncheckedIOException;
import org.jsoup.Jsoup;
import org.jsoup.helper.W3CDom;

/** HTML as PDF, with our fonts. Nothing is fetched: what a page shows lies in it. */
public final class Pdf {
    private static final String[] SCRIPTS = {"latin", "latin-ext", "greek", "cyrillic"};
    private static final int BOLD = 600;
    private static final int PLAIN = 400;

    static {
        XRLog.setLoggingEnabled(false);
    }

    private Pdf() {}

    public static byte[] of(String html) {
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        PdfRendererBuilder builder = new PdfRendererBuilder();
        // One family for each script; the style sheet names them one after the other.
        for (String script : SCRIPTS) {
            String family = script.equals("latin") ? "Source Sans 3" : "Source Sans 3 " + script;
            font(builder, "source-sans-3-" + script + "-400", family, PLAIN);
            font(builder, "source-sans-3-" + script + "-600", family, BOLD);
        }
        font(builder, "source-serif-4-latin-600", "Source Serif 4", BOLD);
        builder.useSVGDrawer(new BatikSVGDrawer(
                BatikSVGDrawer.SvgScriptMode.SECURE,
                // Pictures lie in the drawings themselves; the drawings are ours, and names in them are escaped.
                BatikSVGDrawer.SvgExternalResourceMode.INSECURE_ALLOW_EXTERNAL_RESOURCE_REQUESTS));
        builder.useUriResolver((base, uri) -> uri.startsWith("data:") ? uri : null);
        builder.withProducer("Yalos");
        builder.withW3cDocument(new W3CDom().fromJsoup(Jsoup.parse(html)), "/");
        builder.toStream(out);
        try {
            builder.run();
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
        return out.toByteArray();
    }

    private static void font(PdfRendererBuilder builder, String file, String family, int weight) {
        byte[] bytes = PackWriter.bytes("fonts/" + file + ".ttf");
        builder.useFont(() -> new ByteArrayInputStream(bytes), family, weight, FontStyle.NORMAL, true);
    }
}
