package yalos.web.pack;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.time.LocalDateTime;
import java.util.Base64;
import java.util.LinkedHashMap;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import org.springframework.stereotype.Component;
import org.thymeleaf.context.Context;
import org.thymeleaf.spring6.SpringTemplateEngine;
import tools.jackson.databind.json.JsonMapper;
import tools.jackson.databind.node.ObjectNode;
import yalos.core.fault.InputFault;
import yalos.core.plan.BlockPlan;
import yalos.core.proof.Judgement;
import yalos.core.sortie.Sorties;
import yalos.core.units.UnitChoice;
import yalos.web.block.OpenBlock;
import yalos.web.block.PlanDesk;
import yalos.web.block.Planned;
import yalos.web.proof.ProofDesk;
import yalos.web.shell.Preferences;
import yalos.web.sorties.SortieDesk;
import yalos.web.store.BlockFacts;

/**
 * Writes the field pack: one document, as a file that opens without a server, and as PDF. Both come of one template; what one says the other says.
 */
@Component
public class PackWriter {
    /** The form of what is written in the file and comes back. */
    static final String FORM = "yalos-field-1";

    private static final JsonMapper JSON = JsonMapper.builder().build();

    private final SpringTemplateEngine templates;
    private final PlanDesk plans;
    private final SortieDesk sorties;
    private final ProofDesk proofs;
    private final PackContent content;
    private final Preferences preferences;

    PackWriter(
            SpringTemplateEngine templates,
            PlanDesk plans,
            SortieDesk sorties,
            ProofDesk proofs,
            PackContent content,
            Preferences preferences) {
        this.templates = templates;
        this.plans = plans;
        this.sorties = sorties;
        this.proofs = proofs;
        this.content = content;
        this.preferences = preferences;
    }

    /** A block with all that a pack is made of. */
    record Packed(OpenBlock block, Planned.Whole whole, Judgement judgement, SortieDesk.Found found, UnitChoice units) {
        BlockPlan plan() {
            return whole.plan();
        }

        BlockFacts facts() {
            return block.facts();
        }
    }

    /**
     * Looks everything up, and waits for what is still being looked at.
     *
     * @throws InputFault where there is no plan
     */
    Packed packed(OpenBlock block) {
        Planned planned = plans.plan(block.facts());
        Planned.Whole whole = planned.whole()
                .orElseThrow(() -> planned.fault()
                        .orElse(new InputFault(
                                "plan",
                                "none",
                                "There is no plan to pack yet: draw an outline in Ground, and it follows.")));
        SortieDesk.Found found = sorties.of(block.id(), block.facts(), whole.plan());
        Judgement judgement = proofs.settled(block.id(), block.facts(), whole.plan());
        found.settle();
        return new Packed(block, whole, judgement, found, preferences.units());
    }

    /** All that a pack says, looked up once for both of its forms. */
    Map<String, Object> said(Packed packed) {
        return content.of(packed);
    }

    /** The document as one file of HTML that needs nothing else: fonts, pictures, style and script lie in it. */
    String html(Packed packed, Map<String, Object> said) {
        return template(packed, said, true);
    }

    /** The document as PDF. */
    byte[] pdf(Packed packed, Map<String, Object> said) {
        return Pdf.of(template(packed, said, false));
    }

    /** The map page alone, as the stage shows it. */
    public String map(OpenBlock block, BlockPlan plan, UnitChoice units) {
        Optional<Sorties> cut = sorties.of(block.id(), block.facts(), plan).sorties();
        return PackMap.svg(plan, cut, block.facts().control(), units, PackMap.relief(plan));
    }

    private String template(Packed packed, Map<String, Object> said, boolean file) {
        Context context = new Context(Locale.UK);
        said.forEach(context::setVariable);
        context.setVariable("file", file);
        context.setVariable("style", resource("static/css/pack.css"));
        context.setVariable(
                "page",
                "@page { size: %smm %smm; margin: 14mm 14mm 16mm; }"
                        .formatted(
                                packed.facts().field().day().papers().sheet().wideMm(),
                                packed.facts().field().day().papers().sheet().highMm()));
        if (file) {
            context.setVariable("fonts", fonts());
            context.setVariable("script", resource("static/js/pack.js"));
            context.setVariable("written", written(packed));
        }
        return templates.process("field-pack/pack", context);
    }

    /** What the file knows of itself, and where its script keeps what is written into it. */
    private static String written(Packed packed) {
        ObjectNode root = JSON.createObjectNode();
        root.put("form", FORM);
        root.put("job", packed.block().jobName());
        root.put("block", packed.block().name());
        root.put("blockId", packed.block().id());
        root.put("version", packed.block().version());
        root.put("made", LocalDateTime.now().withNano(0).toString());
        root.putArray("checks");
        root.putArray("points");
        root.putArray("notes");
        // Nothing in it may end the element that holds it.
        return root.toString().replace("<", "\\u003c");
    }

    /** Our fonts as they lie in a file that needs nothing else. */
    public static String fonts() {
        StringBuilder css = new StringBuilder();
        Map<String, String> faces = new LinkedHashMap<>();
        faces.put("source-sans-3-latin-400-normal", "\"Source Sans 3\"; font-weight: 400");
        faces.put("source-sans-3-latin-600-normal", "\"Source Sans 3\"; font-weight: 600");
        faces.put("source-serif-4-latin-600-normal", "\"Source Serif 4\"; font-weight: 600");
        faces.forEach((file, face) -> css.append("@font-face { font-family: ")
                .append(face)
                .append("; src: url(data:font/woff2;base64,")
                .append(Base64.getEncoder().encodeToString(bytes("static/fonts/" + file + ".woff2")))
                .append(") format(\"woff2\"); }\n"));
        return css.toString();
    }

    /** A file of the program as text. */
    public static String resource(String path) {
        return new String(bytes(path), StandardCharsets.UTF_8);
    }

    static byte[] bytes(String path) {
        try (InputStream in = PackWriter.class.getClassLoader().getResourceAsStream(path)) {
            ByteArrayOutputStream out = new ByteArrayOutputStream();
            in.transferTo(out);
            return out.toByteArray();
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }
}
