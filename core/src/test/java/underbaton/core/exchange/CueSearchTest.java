package underbaton.core.exchange;

import static org.assertj.core.api.Assertions.assertThat;

import org.junit.jupiter.api.Test;
import underbaton.core.cue.Cue;
import underbaton.core.cue.CueNumber;
import underbaton.core.cue.Show;
import underbaton.core.cue.Shows;

class CueSearchTest {

    private final Show show = Shows.small();
    private final CueSearch search = new CueSearch(show);

    private int id(String number) {
        return show.cueNumbered(CueNumber.of(number)).orElseThrow().id();
    }

    private String found(String words, String after) {
        int from = after.isEmpty() ? 0 : id(after);
        return search.find(words, from)
                .map(Cue::number)
                .map(CueNumber::toString)
                .orElse("");
    }

    @Test
    void aNumberIsMeantBeforeWordsThatHoldIt() {
        assertThat(found("1", "")).isEqualTo("1");
        assertThat(found(" 11 ", "1")).isEqualTo("11");
    }

    @Test
    void wordsGoOnFromTheChosenCueAndRoundTheEnd() {
        assertThat(found("AMBER", "")).isEqualTo("1");
        assertThat(found("amber", "1")).isEqualTo("10");
        assertThat(found("amber", "10")).isEqualTo("1");
        assertThat(found("play", "2")).as("the only one").isEqualTo("2");
    }

    @Test
    void nothingIsFoundWhereNothingSaysIt() {
        assertThat(found("purple", "")).isEmpty();
        assertThat(found("  ", "")).isEmpty();
        assertThat(search.find("amber", 99_999).orElseThrow().number()).isEqualTo(CueNumber.of("1"));
    }
}
