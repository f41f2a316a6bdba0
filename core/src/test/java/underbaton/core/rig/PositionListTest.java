package underbaton.core.rig;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.tuple;

import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.Optional;
import org.junit.jupiter.api.Test;
import underbaton.core.cue.Call;
import underbaton.core.cue.Cue;
import underbaton.core.cue.Item;
import underbaton.core.cue.ItemKind;
import underbaton.core.cue.Show;
import underbaton.core.cue.Shows;

class PositionListTest {

    private static final PositionList BY_NOTE = new PositionList(PositionList.Kind.NOTE, 0);

    private final Show show = Shows.device(Show.empty(1, "Lists"), "Desk", Department.LIGHTS, 0);

    private Show filled(String... names) {
        Device desk = show.devices().get(0).withList(Optional.of(BY_NOTE));
        Show listed = show.withDevice(desk);
        return listed.withPhrasebook(
                ListChange.pasted(desk, List.of(names), Effect.HOLDS).after());
    }

    private static List<String> says(Device device) {
        Wording wording = new Wording(device.numbering());
        return device.phrases().stream()
                .map(p -> p.name() + " " + wording.write(p.says().messages()))
                .toList();
    }

    /** Common practice: the twelfth entry of a list that starts at the lowest note is B−2 (number 11). */
    @Test
    void theTwelfthEntryIsTheNoteEleven() {
        assertThat(new Wording(Numbering.WIRE).write(BY_NOTE.at(11))).isEqualTo("note B−2");
    }

    @Test
    void aPastedListGivesEveryEntryItsNumber() {
        assertThat(says(filled("Dark", "Amber", "Blue").devices().get(0)))
                .containsExactly("Dark note C−2", "Amber note C♯−2", "Blue note D−2");
    }

    @Test
    void movingAnEntryShiftsThoseBetweenAndItsCuesFollowByName() {
        Show before =
                filled("Dark", "Amber", "Blue", "Red").withItem(new Item(0, ItemKind.SONG, "Song", 0, List.of()), 0);
        before = Shows.cue(before, "1", "by hand", "Amber");
        Device desk = before.devices().get(0);
        int amber = desk.phraseNamed("Amber").orElseThrow().id();
        ListChange change = ListChange.moved(desk, amber, 3);
        assertThat(change.entries())
                .extracting(
                        e -> e.phrase().name(), ListChange.Entry::fate, ListChange.Entry::from, ListChange.Entry::to)
                .containsExactly(
                        tuple("Blue", ListChange.Fate.MOVED, 2, 1),
                        tuple("Red", ListChange.Fate.MOVED, 3, 2),
                        tuple("Amber", ListChange.Fate.MOVED, 1, 3));
        Show after = before.withPhrasebook(change.after());
        Call call = after.cues().findFirst().map(Cue::calls).orElseThrow().get(0);
        assertThat(after.phrase(call).orElseThrow().name()).isEqualTo("Amber");
        assertThat(new Wording(desk.numbering())
                        .write(after.phrase(call).orElseThrow().says().messages()))
                .isEqualTo("note D♯−2");
    }

    @Test
    void aPastedListIsHeldAgainstOurs() {
        Device desk = filled("Dark", "Amber", "Blue", "Red", "Green").devices().get(0);
        ListChange change =
                ListChange.pasted(desk, List.of("Dark", "AMBER", "Blue deep", "Green", "White"), Effect.HOLDS);
        assertThat(change.entries())
                .extracting(e -> e.phrase().name(), ListChange.Entry::fate, ListChange.Entry::formerName)
                .containsExactly(
                        tuple("AMBER", ListChange.Fate.RENAMED, "Amber"),
                        tuple("Blue deep", ListChange.Fate.RENAMED, "Blue"),
                        tuple("Green", ListChange.Fate.MOVED, "Green"),
                        tuple("White", ListChange.Fate.ADDED, ""),
                        tuple("Red", ListChange.Fate.LEFT_OUT, "Red"));
        assertThat(says(change.after())).last().isEqualTo("Red note D♯−2");
    }

    @Test
    void whatCannotBeAListIsRefusedWithItsLines() {
        Device desk = filled("Dark").devices().get(0);
        assertThatThrownBy(() -> ListChange.pasted(desk, List.of("A", "B", "a"), Effect.HOLDS))
                .hasMessageContaining("Lines 1 and 3 both say “a”");
        List<String> many = new ArrayList<>();
        for (int i = 0; i < 129; i++) {
            many.add("Look " + i);
        }
        assertThatThrownBy(() -> ListChange.pasted(desk, many, Effect.HOLDS)).hasMessageContaining("room for 128");
        assertThatThrownBy(() -> ListChange.pasted(desk.withList(Optional.empty()), List.of("A"), Effect.HOLDS))
                .hasMessageContaining("no list");
        assertThatThrownBy(() -> ListChange.moved(desk, desk.listed().get(0).id(), 1))
                .hasMessageContaining("places 1 to 1");
    }

    @Test
    void withoutAListPhrasesKeepWhatTheySay() {
        Device desk = filled("Dark", "Amber").devices().get(0);
        Device plain = desk.withList(Optional.empty());
        assertThat(says(plain)).isEqualTo(says(desk));
        assertThat(plain.listed()).isEqualTo(Collections.emptyList());
    }
}
