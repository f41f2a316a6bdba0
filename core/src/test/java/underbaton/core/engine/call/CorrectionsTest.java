package underbaton.core.engine.call;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Set;
import org.junit.jupiter.api.Test;
import underbaton.core.cue.Show;
import underbaton.core.engine.PartsOnPaper;
import underbaton.core.engine.catchup.CatchUp;
import underbaton.core.engine.catchup.Correction;
import underbaton.core.rig.Phrase;

class CorrectionsTest {

    private PartsOnPaper parts = new PartsOnPaper();

    private void correctTo(PartsOnPaper book) {
        List<Correction> all = CatchUp.between(book.corrections.machines(), parts.corrections.machines());
        parts.corrections.correctAll(CatchUp.without(all, Set.of()));
    }

    private PartsOnPaper with(String... calls) {
        PartsOnPaper book = new PartsOnPaper(parts.show);
        for (String call : calls) {
            String[] words = call.split(": ");
            book.make(words[0], words[1]);
        }
        return book;
    }

    @Test
    void what_was_missed_is_said_when_it_is_back_and_nothing_else() {
        parts.make("Lights", "Amber");
        parts.make("Console", "Bed 10 %");
        parts.corrections.lose(parts.device("Lights"));
        parts.make("Lights", "Blue");
        parts.sent();
        parts.corrections.find(parts.device("Lights"));
        assertThat(parts.sent()).as("back, it waits for somebody").isEmpty();
        parts.corrections.bringUp(parts.device("Lights"));
        assertThat(parts.sent()).containsExactly("90 02 7F @ 0");
        assertThat(parts.devices.absent()).isEmpty();
    }

    @Test
    void one_that_missed_nothing_is_as_it_was_as_soon_as_it_is_back() {
        parts.make("Lights", "Amber");
        parts.corrections.lose(parts.device("Lights"));
        parts.corrections.find(parts.device("Lights"));
        assertThat(parts.devices.absent()).isEmpty();
    }

    @Test
    void one_that_is_put_back_is_brought_up_by_itself_if_it_can_be_reached() {
        int lights = parts.device("Lights");
        parts.corrections.disarm(lights);
        parts.make("Lights", "Blue");
        parts.sent();
        parts.corrections.lose(lights);
        parts.corrections.arm(lights);
        assertThat(parts.sent()).isEmpty();
        parts.corrections.find(lights);
        parts.corrections.disarm(lights);
        parts.corrections.arm(lights);
        assertThat(parts.sent()).containsExactly("90 02 7F @ 0");
    }

    @Test
    void steps_are_made_as_fast_as_the_machine_takes_them() {
        parts.make("Tablet", "Top");
        parts.sent();
        correctTo(with("Tablet: Top", "Tablet: Next", "Tablet: Next"));
        parts.pass(1000);
        assertThat(parts.sent()).containsExactly("95 30 7F @ 0", "95 30 7F @ 50");
    }

    @Test
    void one_that_is_away_while_all_are_made_right_goes_on_missing_it() {
        int lights = parts.device("Lights");
        parts.make("Lights", "Amber");
        parts.corrections.lose(lights);
        correctTo(with("Lights: Blue"));
        parts.sent();
        parts.corrections.find(lights);
        parts.corrections.bringUp(lights);
        assertThat(parts.sent()).containsExactly("90 02 7F @ 0");
    }

    @Test
    void what_is_guarded_waits_until_it_is_all_that_is_missing_and_somebody_asks_once_more() {
        Show show = PartsOnPaper.show();
        Phrase scene = show.devices().get(2).phraseNamed("Scene").orElseThrow().withGuarded(true);
        parts = new PartsOnPaper(show.withPhrase(show.devices().get(2).id(), scene));
        int console = parts.device("Console");
        parts.make("Console", "Bed 10 %");
        parts.corrections.lose(console);
        parts.make("Console", "Scene");
        parts.make("Console", "Bed 20 %");
        parts.sent();
        parts.corrections.find(console);
        parts.corrections.bringUp(console);
        assertThat(parts.sent()).singleElement().asString().startsWith("B4 03 19");
        parts.corrections.bringUp(console);
        assertThat(parts.sent()).first().asString().startsWith("C4 01");
        assertThat(parts.devices.absent()).isEmpty();
    }

    @Test
    void what_is_set_going_by_a_catch_up_belongs_to_the_item_of_the_book() {
        PartsOnPaper book = with("Player: Play");
        correctTo(book);
        assertThat(parts.devices.of(parts.device("Player")).slots().get(0).itemId())
                .isZero();
        parts.corrections.setGoingAsIn(book.devices.told());
        assertThat(parts.devices.of(parts.device("Player")).slots().get(0).itemId())
                .isEqualTo(parts.show.items().get(0).id());
    }

    @Test
    void a_move_is_joined_where_it_is() {
        PartsOnPaper book = with("Console: Bed 0 %", "Console: Bed 100 % in 1 s");
        parts.make("Console", "Bed 0 %");
        correctTo(book);
        parts.pass(0);
        assertThat(parts.moves.controls()).hasSize(1);
        assertThat(parts.moves.nextEnd()).isEqualTo(1000 * PartsOnPaper.MS);
    }
}
