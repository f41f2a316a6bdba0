package underbaton.core.store;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import com.networknt.schema.InputFormat;
import com.networknt.schema.SchemaRegistry;
import com.networknt.schema.SpecificationVersion;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import org.junit.jupiter.api.Test;
import underbaton.core.cue.RandomShows;
import underbaton.core.cue.Show;
import underbaton.core.cue.Shows;
import underbaton.core.cue.Span;
import underbaton.core.rig.Refusal;

/** Whole shows as files: what is written comes back equal and gives the same bytes again. */
class ShowFileTest {

    private static final Path SCHEMA = Path.of("..", "docs", "formats", "show.schema.json");
    private static final int SEEDS = 300;

    private static byte[] utf8(String text) {
        return text.getBytes(StandardCharsets.UTF_8);
    }

    private static String small() {
        return new String(ShowFile.write(Shows.small()), StandardCharsets.UTF_8);
    }

    @Test
    void lengthsOfBeforeThereWereBarsAreRead() {
        assertThat(StoredForm.read("{\"thousandths\":3000,\"beats\":false}", Span.class))
                .isEqualTo(Span.ofMillis(3000));
        assertThat(StoredForm.write(Span.ofMillis(3000))).doesNotContain("bars");
        assertThat(StoredForm.read(StoredForm.write(Span.of("2 bars")), Span.class))
                .isEqualTo(Span.of("2 bars"));
    }

    @Test
    void whateverTheConstructorsTakeComesBackEqualAndGivesTheSameBytesAgain() {
        for (int seed = 0; seed < SEEDS; seed++) {
            Show show = RandomShows.show(7, seed);
            byte[] file = ShowFile.write(show);
            Show read = ShowFile.read(7, file);
            assertThat(read).as("seed %d", seed).isEqualTo(show.numberedAnew());
            assertThat(ShowFile.write(read)).as("seed %d", seed).isEqualTo(file);
        }
    }

    @Test
    void theSameShowGivesTheSameBytesWhateverIdsItHasHere() {
        Show show = Shows.small();
        Show edited =
                show.withoutCue(show.cues().findFirst().orElseThrow().id()).withContentOf(show);
        assertThat(edited.revision()).isNotEqualTo(show.revision());
        assertThat(ShowFile.write(edited)).isEqualTo(ShowFile.write(show));
    }

    @Test
    void theSchemaDescribesIt() throws Exception {
        var schema = SchemaRegistry.withDefaultDialect(SpecificationVersion.DRAFT_2020_12)
                .getSchema(Files.readString(SCHEMA));
        for (int seed = 0; seed < 40; seed++) {
            String file = new String(ShowFile.write(RandomShows.show(7, seed)), StandardCharsets.UTF_8);
            assertThat(schema.validate(file, InputFormat.JSON))
                    .as("seed %d", seed)
                    .isEmpty();
        }
        assertThat(schema.validate(small().replace("\"channel\"", "\"chanel\""), InputFormat.JSON))
                .isNotEmpty();
    }

    @Test
    void whatCannotBeReadIsToldWithItsPlace() {
        assertRefused(small().replace("\"version\" : 1", "\"version\" : 2, \"colour\" : 3"), "version 2");
        assertRefused(small().replace("under-baton-show", "something"), "no file of a show");
        assertRefused("{}", "no file of a show");
        assertRefused("note 36", "line 1");
        assertRefused(small().replace("\"note\" : 36", "\"note\" : 136"), "devices 2, phrases 1, says, on 1");
        assertRefused(small().replace("\"note\" : 36", "\"note\" : 36.5"), "devices 2, phrases 1");
        assertRefused(small().replace("\"number\" : \"10\"", "\"number\" : \"1\""), "The cue 1 is in the show twice");
        assertRefused(small().replace("\"channel\" : 1,", ""), "channel");
        assertRefused(small().replace("\"Amber\"", "null"), "Give a name");
        assertRefused(
                small().replaceFirst("\"channel\" : 1,", "\"channel\" : 1, \"channel\" : 2,"),
                "“channel” stands there twice");
        assertRefused(
                small().replace("\"note\" : 36", "\"note\" : 2147483648"), "larger than any that can stand there");
        assertRefused(small().replace("\"note\" : 36", "\"note\" : [36]"), "a whole number must stand there");
        assertRefused(small().replace("\"Amber\"", "[]"), "a text in quotation marks must stand there");
        assertRefused(
                small().replace("\"Player\"", "\"lights\""), "Two of the machines in the file are called “lights”");
        assertRefused(
                small().replace("\"Blue\"", "\"Amber\""),
                "Two of the phrases of Lights in the file are called “Amber”; give one of them another name");
        assertRefused("{\"x\":" + "[".repeat(3000), "cannot be read: it is larger or deeper");
    }

    private static void assertRefused(String file, String because) {
        assertThatThrownBy(() -> ShowFile.read(1, utf8(file)))
                .isInstanceOf(Refusal.class)
                .hasMessageContaining(because);
    }
}
