package underbaton.web.page;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Set;
import java.util.regex.MatchResult;
import java.util.regex.Pattern;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;

/** Styles keep to eight sizes and one scale of spacings; templates decide nothing and are read without scrolling sideways. */
class FormOfPagesTest {

    private static final Path RESOURCES = Path.of("src/main/resources");
    private static final Pattern SIZE = Pattern.compile("font-size: (?!inherit)([^;]*);");
    private static final Pattern SPACING =
            Pattern.compile("(?<![-\\w])(?:gap|row-gap|column-gap|padding(?:-\\w+)?|margin(?:-\\w+)?): ([^;]*);");
    private static final Pattern PIXELS = Pattern.compile("(?<![-.\\w])(\\d+)px");
    private static final Set<Integer> SCALE = Set.of(0, 1, 2, 4, 6, 8, 12, 16, 20, 24, 28, 32, 36, 40, 44, 54);
    /** Where the paper stands beside something of that size. */
    private static final Set<Integer> MEASURED = Set.of(60, 66, 82, 100, 104, 292);

    private static final int WIDEST = 120;

    private static List<Path> files(String folder, String ending) throws IOException {
        try (Stream<Path> all = Files.walk(RESOURCES.resolve(folder))) {
            return all.filter(
                            f -> f.toString().endsWith(ending) && !f.toString().contains("/lib/"))
                    .toList();
        }
    }

    private static String read(Path file) {
        try {
            return Files.readString(file);
        } catch (IOException unreadable) {
            throw new UncheckedIOException(unreadable);
        }
    }

    private static List<String> found(Pattern pattern, String text) {
        return pattern.matcher(text).results().map(m -> m.group(1)).toList();
    }

    @Test
    void everySizeOfTypeIsOneOfTheEight() throws IOException {
        for (Path file : files("static", ".css")) {
            assertThat(found(SIZE, read(file)))
                    .as(file.toString())
                    .allMatch(size -> size.matches("var\\(--f[1-8]\\)|clamp\\(.*var\\(--f\\d\\)\\)|inherit"));
        }
    }

    @Test
    void spacingsAreStepsOfOneScale() throws IOException {
        for (Path file : files("static", ".css")) {
            for (String spacing : found(SPACING, read(file))) {
                assertThat(PIXELS.matcher(spacing)
                                .results()
                                .map(MatchResult::group)
                                .map(p -> Integer.valueOf(p.replace("px", ""))))
                        .as(file + ": " + spacing)
                        .allMatch(p -> SCALE.contains(p) || MEASURED.contains(p));
            }
        }
    }

    @Test
    void noTemplateCallsTheCoreOrHasALongLine() throws IOException {
        for (Path file : files("templates", ".html")) {
            String text = read(file);
            assertThat(text).as(file.toString()).doesNotContain("T(").doesNotContain("toLowerCase");
            assertThat(text.lines().filter(l -> l.length() > WIDEST))
                    .as(file.toString())
                    .isEmpty();
        }
    }
}
