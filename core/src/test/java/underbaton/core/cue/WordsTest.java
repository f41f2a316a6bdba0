package underbaton.core.cue;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import org.junit.jupiter.api.Test;
import underbaton.core.rig.Amount;
import underbaton.core.rig.Device;
import underbaton.core.rig.Speech;
import underbaton.core.rig.SpeechWording;
import underbaton.core.score.Score;

/** What a page shows for editing says what it means: typed back unchanged, it changes nothing. */
class WordsTest {

    private static final int SEEDS = 400;

    @Test
    void scoresAndStartsReadBackAsTheyAreWritten() {
        for (int seed = 0; seed < SEEDS; seed++) {
            for (Item item : RandomShows.show(1, seed).items()) {
                item.score()
                        .ifPresent(s ->
                                assertThat(Score.of(s.toString())).as("%s", s).isEqualTo(s));
                item.cues().forEach(c -> assertThat(Start.of(c.start().toString()))
                        .as("%s", c.start())
                        .isEqualTo(c.start()));
            }
        }
    }

    @Test
    void phrasesReadBackAsTheyAreWritten() {
        for (int seed = 0; seed < SEEDS; seed++) {
            for (Device device : RandomShows.show(1, seed).devices()) {
                SpeechWording words = new SpeechWording(device.numbering());
                device.phrases().forEach(p -> assertThat(closed(words.read(words.write(p.says()))))
                        .as("%s", words.write(p.says()))
                        .isEqualTo(closed(p.says())));
            }
        }
    }

    /** What stands in a blank is not said. */
    private static List<Object> closed(Speech speech) {
        return speech.all()
                .<Object>map(u -> u.open() ? u.afterMs() + " open" : u)
                .toList();
    }

    @Test
    void textsInCellsReadBackWhateverTheySay() {
        for (int seed = 0; seed < SEEDS; seed++) {
            Show show = RandomShows.show(1, seed);
            for (Device device : show.devices()) {
                show.cues()
                        .flatMap(c -> c.callsFor(device.id()).stream())
                        .filter(c ->
                                c.amount().filter(Amount.Text.class::isInstance).isPresent())
                        .filter(c -> c.motion().isEmpty())
                        .forEach(c -> {
                            String cell = c.tell(device) + " + " + c.tell(device);
                            assertThat(Call.parts(cell)).as(cell).hasSize(2).allSatisfy(part -> assertThat(
                                            Call.of(device, part))
                                    .isEqualTo(c));
                        });
            }
        }
    }
}
