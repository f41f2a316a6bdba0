package underbaton.web.kernel;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.time.Duration;
import java.util.HexFormat;
import org.springframework.context.annotation.Configuration;
import org.springframework.core.annotation.Order;
import org.springframework.core.io.Resource;
import org.springframework.core.io.support.PathMatchingResourcePatternResolver;
import org.springframework.http.CacheControl;
import org.springframework.web.servlet.config.annotation.ResourceHandlerRegistry;
import org.springframework.web.servlet.config.annotation.WebMvcConfigurer;
import org.springframework.web.servlet.resource.VersionResourceResolver;

/**
 * Serves our scripts and styles below a name that changes with the content of any of them, so that a page never gets those
 * of another version. Modules import each other by relative names and so stay within that version, which names of single
 * files by their content could not do.
 */
@Configuration
@Order(-1)
class OwnFiles implements WebMvcConfigurer {

    private static final String WHERE = "classpath:/static/";

    /** Comes before the framework's own registration for the same paths, which then leaves them to this one. */
    @Override
    public void addResourceHandlers(ResourceHandlerRegistry registry) {
        String version = version();
        // Another content has another name: what a browser has of this one it need not ask for again.
        registry.addResourceHandler("/" + version + "/**")
                .addResourceLocations(WHERE)
                .setCacheControl(
                        CacheControl.maxAge(Duration.ofDays(365)).cachePublic().immutable());
        // Makes the names; under the plain ones they are for who looks at a single file.
        registry.addResourceHandler("/**")
                .addResourceLocations(WHERE)
                .setCacheControl(CacheControl.maxAge(Duration.ofHours(1)))
                .resourceChain(true)
                .addResolver(new VersionResourceResolver().addFixedVersionStrategy(version, "/**"));
    }

    private static String version() {
        try {
            MessageDigest digest = MessageDigest.getInstance("SHA-256");
            for (Resource file : new PathMatchingResourcePatternResolver().getResources(WHERE + "**/*.*")) {
                digest.update(file.getContentAsByteArray());
            }
            return HexFormat.of().formatHex(digest.digest(), 0, 8);
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        } catch (NoSuchAlgorithmException e) {
            throw new IllegalStateException(e);
        }
    }
}
