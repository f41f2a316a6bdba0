package underbaton.web.kernel;

import java.io.IOException;
import java.io.Reader;
import java.io.StringReader;
import java.io.StringWriter;
import java.util.Map;
import java.util.stream.Collectors;
import org.springframework.stereotype.Component;
import org.thymeleaf.IEngineConfiguration;
import org.thymeleaf.spring6.templateresolver.SpringResourceTemplateResolver;
import org.thymeleaf.templateresource.ITemplateResource;

/**
 * Takes the indentation from templates when they are read: people need it, and in a drawing of a long table that goes to hundreds of pages
 * it is two bytes of five. Line ends stay, so that words that stood apart stand apart.
 */
@Component("defaultTemplateResolver")
class FlatTemplates extends SpringResourceTemplateResolver {

    FlatTemplates() {
        setPrefix("classpath:/templates/");
        setSuffix(".html");
        setCharacterEncoding("UTF-8");
        setCacheable(true);
    }

    @Override
    protected ITemplateResource computeTemplateResource(
            IEngineConfiguration configuration,
            String ownerTemplate,
            String template,
            String resourceName,
            String characterEncoding,
            Map<String, Object> attributes) {
        return new Flat(super.computeTemplateResource(
                configuration, ownerTemplate, template, resourceName, characterEncoding, attributes));
    }

    private record Flat(ITemplateResource written) implements ITemplateResource {

        @Override
        public String getDescription() {
            return written.getDescription();
        }

        @Override
        public String getBaseName() {
            return written.getBaseName();
        }

        @Override
        public boolean exists() {
            return written.exists();
        }

        @Override
        public ITemplateResource relative(String location) {
            return new Flat(written.relative(location));
        }

        @Override
        public Reader reader() throws IOException {
            StringWriter text = new StringWriter();
            try (Reader reader = written.reader()) {
                reader.transferTo(text);
            }
            return new StringReader(
                    text.toString().lines().map(String::stripLeading).collect(Collectors.joining("\n")));
        }
    }
}
