package yalos.web.shell;

import java.util.Set;
import org.springframework.stereotype.Component;
import org.thymeleaf.context.ITemplateContext;
import org.thymeleaf.dialect.AbstractProcessorDialect;
import org.thymeleaf.engine.AttributeName;
import org.thymeleaf.model.IProcessableElementTag;
import org.thymeleaf.processor.IProcessor;
import org.thymeleaf.processor.element.IElementTagStructureHandler;
import org.thymeleaf.standard.StandardDialect;
import org.thymeleaf.standard.processor.AbstractStandardExpressionAttributeTagProcessor;
import org.thymeleaf.templatemode.TemplateMode;

/**
 * The attribute {@code y:change="@{address}"} of a form that changes a block: with script its answer takes the place of the field
 * book, without script it is posted as any form is. A form is sent when it is submitted; one that says {@code data-sends="change"} also when any of its
 * fields has changed, {@code data-sends="figure"} when its figure has.
 */
@Component
class ChangeForms extends AbstractProcessorDialect {
    private static final String PREFIX = "y";
    /** After conditions and local names, before Spring's own {@code th:action}. */
    private static final int BEFORE_ACTION = 900;

    ChangeForms() {
        super("change forms", PREFIX, StandardDialect.PROCESSOR_PRECEDENCE);
    }

    @Override
    public Set<IProcessor> getProcessors(String prefix) {
        return Set.of(new Change(prefix));
    }

    private static final class Change extends AbstractStandardExpressionAttributeTagProcessor {
        Change(String prefix) {
            super(TemplateMode.HTML, prefix, "change", BEFORE_ACTION, true);
        }

        @Override
        protected void doProcess(
                ITemplateContext context,
                IProcessableElementTag form,
                AttributeName name,
                String typed,
                Object address,
                IElementTagStructureHandler handler) {
            handler.setAttribute("method", "post");
            // Spring's own adds the token that guards a form.
            handler.setAttribute("th:action", typed);
            if (form.hasAttribute("enctype")) {
                // A file goes by itself.
                handler.setAttribute("hx-post", address.toString());
                handler.setAttribute("hx-target", "#book");
                handler.setAttribute("hx-swap", "outerHTML");
            } else {
                handler.setAttribute("data-change", "");
            }
        }
    }
}
