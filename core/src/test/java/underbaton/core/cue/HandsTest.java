package underbaton.core.cue;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.List;
import java.util.Set;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import underbaton.core.midi.ChannelMessage.NoteOn;
import underbaton.core.midi.ChannelMessage.ProgramChange;
import underbaton.core.rig.PatchLine;
import underbaton.core.rig.PatchSet;
import underbaton.core.rig.Phrase;
import underbaton.core.rig.Refusal;
import underbaton.core.rig.Remarks.Mark;
import underbaton.core.rig.Wiring;
import underbaton.core.store.ShowFile;

/** Pages of hand cues and patch sets as they are edited, kept and taken to other shows. */
class HandsTest {

    private Show show = Hands.withPage(Hands.withPage(Shows.small(), "First"), "Second");
    private int first;
    private int second;

    @BeforeEach
    void pages() {
        first = show.hands().get(0).id();
        second = show.hands().get(1).id();
        show = key(first, "A", 0, 0);
        show = key(first, "B", 0, 1);
        show = key(second, "C", 2, 3);
    }

    private Show key(int page, String name, int row, int column) {
        int lights = show.devices().get(0).id();
        int amber = show.devices().get(0).phrases().get(0).id();
        List<Call> calls = List.of(new Call(lights, amber));
        return Hands.withKey(
                show, page, new HandKey(0, row, column, name, Mark.SKY, HandKey.Way.ON_OFF, calls, calls, true));
    }

    private String places(int page) {
        StringBuilder places = new StringBuilder();
        Hands.page(show, page).orElseThrow().keys().forEach(k -> places.append(k.name())
                .append(k.row())
                .append(k.column())
                .append(' '));
        return places.toString().strip();
    }

    private int id(String name) {
        return Hands.named(show, name).orElseThrow().id();
    }

    @Test
    void a_key_moves_to_a_free_place_or_changes_places_with_the_one_that_is_there() {
        show = Hands.withKeyAt(show, id("A"), first, 1, 2);
        assertThat(places(first)).isEqualTo("B01 A12");
        show = Hands.withKeyAt(show, id("A"), first, 0, 1);
        assertThat(places(first)).isEqualTo("A01 B12");
        show = Hands.withKeyAt(show, id("A"), second, 2, 3);
        assertThat(places(first)).isEqualTo("C01 B12");
        assertThat(places(second)).isEqualTo("A23");
        show = Hands.withKeyAt(show, id("A"), second, 2, 3);
        assertThat(places(second)).isEqualTo("A23");
    }

    @Test
    void a_taken_place_a_place_outside_and_a_grid_too_small_are_refused() {
        assertThatThrownBy(() -> key(first, "D", 0, 0))
                .isInstanceOf(Refusal.class)
                .hasMessageContaining("one place");
        assertThatThrownBy(() -> key(first, "D", 3, 0)).hasMessageContaining("no place");
        assertThatThrownBy(() -> Hands.withGrid(show, second, "Second", 2, 4)).hasMessageContaining("“C” has no place");
        assertThatThrownBy(() -> Hands.withGrid(show, second, "Second", 7, 4)).hasMessageContaining("2 to 6");
        assertThatThrownBy(() -> Hands.withKeyAt(show, id("A"), second, 5, 5)).isInstanceOf(Refusal.class);
    }

    @Test
    void what_is_typed_for_a_key_is_one_digit_on_a_small_page_and_two_on_a_larger_one() {
        HandPage large = Hands.page(show, first).orElseThrow();
        assertThat(large.digits(0, 0)).isEqualTo("11");
        assertThat(large.digits(2, 3)).isEqualTo("34");
        HandPage small = large.withGrid("First", 3, 3);
        assertThat(small.digits(0, 0)).isEqualTo("1");
        assertThat(small.digits(2, 2)).isEqualTo("9");
    }

    @Test
    void pages_and_patch_sets_are_in_the_file_of_a_show_byte_for_byte() {
        int lights = show.devices().get(0).id();
        int player = show.devices().get(1).id();
        show = PatchBay.withNew(show, "Set", new Wiring(List.of(PatchLine.open(lights, player)), Set.of(lights)));
        Phrase set = PatchBay.sets(show).get(0);
        show = PatchBay.with(show, set.withPatch(set.patch().orElseThrow().trying(Wiring.NONE)));
        byte[] file = ShowFile.write(show);
        Show read = ShowFile.read(7, file);
        assertThat(ShowFile.write(read)).isEqualTo(file);
        assertThat(read.hands()).hasSize(2);
        assertThat(Hands.named(read, "C").orElseThrow().off()).hasSize(1);
        PatchSet patch = PatchBay.sets(read).get(0).patch().orElseThrow();
        assertThat(patch.kept().lines().get(0).to())
                .isEqualTo(read.devices().get(1).id());
        assertThat(patch.draft()).contains(Wiring.NONE);
    }

    @Test
    void a_set_keeps_its_lines_however_its_phrase_is_written_and_is_said_by_one_program() {
        int lights = show.devices().get(0).id();
        show = PatchBay.withNew(show, "Set", new Wiring(List.of(PatchLine.open(lights, lights)), Set.of()));
        Phrase set = PatchBay.sets(show).get(0);
        int bay = PatchBay.of(show).orElseThrow().id();
        Phrase typed = new Phrase(set.id(), "Renamed", set.says().messages(), set.effect(), true);
        show = show.withPhrase(bay, typed);
        assertThat(PatchBay.sets(show).get(0).patch()).isEqualTo(set.patch());
        Phrase fresh = new Phrase(0, "Another", List.of(new ProgramChange(0, 7)), set.effect(), false);
        assertThat(PatchBay.sets(show.withPhrase(bay, fresh))).hasSize(2);
        Phrase note = new Phrase(0, "Note", List.of(new NoteOn(0, 7, 1)), set.effect(), false);
        Show with = show;
        assertThatThrownBy(() -> with.withPhrase(bay, note)).hasMessageContaining("One program loads a patch set");
    }

    @Test
    void sets_get_the_next_free_number_and_keep_it_when_another_goes() {
        for (String name : List.of("One", "Two", "Three")) {
            show = PatchBay.withNew(show, name, Wiring.NONE);
        }
        int bay = PatchBay.of(show).orElseThrow().id();
        show = show.withoutPhrase(bay, PatchBay.sets(show).get(1).id());
        assertThat(PatchBay.sets(show).stream().map(p -> p.name() + PatchBay.program(p)))
                .containsExactly("One0", "Three2");
        show = PatchBay.withNew(show, "Four", Wiring.NONE);
        assertThat(PatchBay.program(PatchBay.sets(show).get(1))).isEqualTo(1);
        Phrase one = PatchBay.sets(show).get(0);
        assertThatThrownBy(() -> PatchBay.with(
                        show,
                        one.withSays(
                                PatchBay.sets(show).get(2).says().messages().get(0))))
                .hasMessageContaining("“Three” has that number");
    }
}
