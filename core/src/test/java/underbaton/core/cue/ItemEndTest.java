package underbaton.core.cue;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Optional;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import underbaton.core.score.Score;

/** What lies behind the end of an item is kept, and told. */
class ItemEndTest {

    private static Optional<String> behind(Item item, String start) {
        return ItemEnd.of(item).behind(new Cue(1, CueNumber.of("1"), Start.of(start), "", List.of(), 1));
    }

    @ParameterizedTest
    @CsvSource({
        "at 49:4, false",
        "at 50:1, true",
        "at 999:1, true",
        "at C, true",
        "at C -8 beats, false",
        "at time 1:37, false",
        "at time 1:38, true",
        "by hand, false",
        "after 300 s, false",
        "at X, false"
    })
    void ofASongItIsTheLastBarThatPlays(String start, boolean is) {
        Item song = new Item(
                1,
                ItemKind.SONG,
                "Song",
                0,
                Optional.of(Score.of("1 quarter = 120\n1 A Verse\n50 C Coda\n49 end")),
                List.of());
        assertThat(behind(song, start).isPresent()).isEqualTo(is);
        if (is) {
            assertThat(behind(song, start)).contains("behind the end: bar 49 is the last");
        }
    }

    @Test
    void ofAFilmItIsItsLength() {
        Item film = new Item(1, ItemKind.FILM, "Film", 200, List.of());
        assertThat(behind(film, "at time 5:00")).contains("behind the end: the film is 3:20 long");
        assertThat(behind(film, "at time 3:19")).isEmpty();
        assertThat(behind(new Item(1, ItemKind.SCENE, "Scene", 200, List.of()), "at time 5:00"))
                .as("a scene is as long as it takes")
                .isEmpty();
    }
}
