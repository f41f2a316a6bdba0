package underbaton.web.live;

import java.util.Locale;
import java.util.Map;
import java.util.Set;
import org.springframework.stereotype.Component;
import org.thymeleaf.ITemplateEngine;
import org.thymeleaf.context.Context;

/** Draws a fragment of a template outside any request. */
@Component
public class Painting {

    /** Where nothing is to be seen any more that is told too; no text at all would say that nothing has changed. */
    private static final String NOTHING = "<!-- nothing -->";

    private final ITemplateEngine templates;

    Painting(ITemplateEngine templates) {
        this.templates = templates;
    }

    public String of(String template, String fragment, Map<String, Object> model) {
        String drawn = templates.process(template, Set.of(fragment), new Context(Locale.ENGLISH, model));
        return drawn.isBlank() ? NOTHING : drawn;
    }
}
