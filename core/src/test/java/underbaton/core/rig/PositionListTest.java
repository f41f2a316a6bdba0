package underbaton.core.rig;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.tuple;

import java.util.Collections;
import java.util.List;
import java.util.Optional;
import java.util.SortedMap;
import java.util.TreeMap;
import java.util.stream.Collectors;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import underbaton.core.cue.Call;
import underbaton.core.cue.Cue;
import underbaton.core.cue.Item;
import underbaton.core.cue.ItemKind;
import underbaton.core.cue.Show;
import underbaton.core.cue.Shows;
import underbaton.core.midi.ChannelMessage.ProgramChange;

class PositionListTest {

    private static final PositionList BY_NOTE = new PositionList(PositionList.Kind.NOTE, 0);

    private final Show show = Shows.device(Show.empty(1, "Lists"), "Desk", Department.LIGHTS, 0);

    private Show filled(String... names) {
        Device desk = show.devices().get(0).withList(Optional.of(BY_NOTE));
        Show listed = show.withDevice(desk);
        return listed.withPhrasebook(pasted(desk, names).after());
    }

    /** As the page does at first with what is pasted. */
    private static ListChange pasted(Device desk, String... lines) {
        SortedMap<Integer, String> names = new TreeMap<>();
        for (PastedList.Line line : PastedList.read(String.join("\n", lines), 1)) {
            names.put(line.number() - 1, line.name());
        }
        return ListChange.to(desk, ListChange.matched(desk, names), Effect.HOLDS);
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
        ListChange change = pasted(desk, "Dark", "AMBER", "Blue deep", "Green", "White");
        assertThat(change.entries())
                .extracting(e -> e.phrase().name(), ListChange.Entry::fate, ListChange.Entry::formerName)
                .containsExactly(
                        tuple("AMBER", ListChange.Fate.RENAMED, "Amber"),
                        tuple("Blue deep", ListChange.Fate.RENAMED, "Blue"),
                        tuple("Green", ListChange.Fate.MOVED, "Green"),
                        tuple("White", ListChange.Fate.ADDED, ""),
                        tuple("Red", ListChange.Fate.LEFT_OUT, "Red"));
        assertThat(says(change.after())).last().isEqualTo("Red note D♯−2");
        Device after = change.after();
        assertThat(after.nowMeant(after.phraseNamed("Red").orElseThrow()))
                .as("the number that it has is another's by now")
                .hasValueSatisfying(p -> assertThat(p.name()).isEqualTo("Green"));
        assertThat(after.nowMeant(after.phraseNamed("Green").orElseThrow())).isEmpty();
    }

    @Test
    void whatIsDeletedLeavesAGapAndShiftsNothing() {
        Device desk = filled("Dark", "Amber", "Blue").devices().get(0);
        Device without =
                desk.withoutPhrase(desk.phraseNamed("Amber").orElseThrow().id());
        assertThat(says(without)).containsExactly("Dark note C−2", "Blue note D−2");
        assertThat(without.placeOf(without.phraseNamed("Blue").orElseThrow())).isEqualTo(2);
        assertThat(without.places()).hasSize(3).element(1).isEqualTo(Optional.empty());
        Device by = without.withList(Optional.of(new PositionList(PositionList.Kind.PROGRAM, 4)));
        assertThat(says(by)).containsExactly("Dark program 4", "Blue program 6");
        Phrase next = new Phrase(0, "Next", List.of(BY_NOTE.at(0)), Effect.HOLDS, false).inList(true);
        assertThat(says(without.withPhrase(next))).last().isEqualTo("Next note D♯−2");
        ListChange change = ListChange.moved(
                without, without.phraseNamed("Blue").orElseThrow().id(), 0);
        assertThat(says(change.after())).as("the gap goes along").containsExactly("Blue note C−2", "Dark note C♯−2");
    }

    /** Programs typed as 3 and 10 while it was taken to count from 0; it counts from 1, and means the bytes 2 and 9. */
    @Test
    void whereAMachineCountsOtherwiseBytesOrPrintedNumbersAreKept() {
        Device machine = show.devices().get(0).withNumbering(Numbering.WIRE);
        SpeechWording typed = new SpeechWording(Numbering.WIRE);
        machine = machine.withPhrase(
                        new Phrase(1, "Scene 3", typed.read("program 3").messages(), Effect.HOLDS, false))
                .withPhrase(
                        new Phrase(2, "Strip 2", typed.read("control 2 to 100").messages(), Effect.HOLDS, false))
                .withLevels(Levels.of("-10=80, 0=100", Numbering.WIRE));
        Numbering other = Numbering.WIRE.withFirstProgram(1);
        assertThat(machine.readingOtherwise(other)).extracting(Phrase::name).containsExactly("Scene 3");
        assertThat(says(machine.withNumbering(other))).first().isEqualTo("Scene 3 program 4");
        Device recounted = machine.recounted(other);
        assertThat(says(recounted)).containsExactly("Scene 3 program 3", "Strip 2 control 2 to 100");
        assertThat(recounted.phrases().get(0).says().messages()).containsExactly(new ProgramChange(0, 2));
        assertThat(machine.recounted(Numbering.WIRE.withValues(Numbering.Values.FROM_1))
                        .levels()
                        .value(0))
                .isEqualTo(99);
        Device zero =
                machine.withPhrase(new Phrase(3, "Zero", typed.read("program 0").messages(), Effect.HOLDS, false));
        assertThatThrownBy(() -> zero.recounted(other))
                .hasMessageContaining("“Zero” says “program 0”, which cannot stay so");
        Device listed = filled("Dark", "Amber").devices().get(0);
        Device called = listed.withList(Optional.of(new PositionList(PositionList.Kind.NOTE, 12)));
        assertThat(says(called)).containsExactly("Dark note C−1", "Amber note C♯−1");
        assertThat(says(called.recounted(called.numbering().withNotes(-1, false))))
                .containsExactly("Dark note C−1", "Amber note C♯−1");
    }

    @Test
    void emptyLinesAreEmptyPlaces() {
        assertThat(says(filled("Dark", "", "Blue").devices().get(0))).containsExactly("Dark note C−2", "Blue note D−2");
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "Dark¦Amber | 1 Dark, 2 Amber",
                "8 Amber¦9 Blue¦11 Red | 8 Amber, 9 Blue, 11 Red",
                "3 - Warm¦4 - Cold | 3 Warm, 4 Cold",
                "1. Dark¦2. Amber | 1 Dark, 2 Amber",
                "1) Dark¦2)Amber¦10: Blue | 1 Dark, 2 Amber, 10 Blue",
                "• Walk-in¦• Dark | 1 Walk-in, 2 Dark",
                "- Walk-in¦* Dark¦– Blue | 1 Walk-in, 2 Dark, 3 Blue",
                "12.5 Bridge build¦Dark | 1 12.5 Bridge build, 2 Dark",
                "3.5¦4 | 1 3.5, 2 4",
                "1 Mara¦2 wide¦2 close | 1 1 Mara, 2 2 wide, 3 2 close",
                "Looks¦1 Dark¦2 Amber | # Looks, 1 Dark, 2 Amber",
                "Looks:¦Dark¦Amber | # Looks:, 1 Dark, 2 Amber",
                "Dark¦¦Amber¦¦¦Blue | 1 Dark, 3 Amber, 6 Blue",
                "1. Dark¦¦2. Amber | 1 Dark, 2 Amber",
                "1¬Dark¬3 s¦2¬Amber¬0 s | 1 Dark, 2 Amber",
                "Dark¬3 s¦\"Red, \"\"hot\"\"\"¬1 s | 1 Dark, 2 Red, \"hot\"",
                "No. 4: Dark¦#5. Amber | 4 Dark, 5 Amber",
                "1;Warm¦2;Cold | 1 Warm, 2 Cold",
                "1,Warm¦3,Cold | 1 Warm, 3 Cold",
                "Warm;1;red¦Cold;2;blue | 1 Warm, 2 Cold",
                "no;look¦7;Warm¦9;Cold | # look:, 7 Warm, 9 Cold",
                "Warm, red¦Cold, blue | 1 Warm, red, 2 Cold, blue",
                "#1 Warm¦#2 Cold | 1 Warm, 2 Cold",
                "A1. Warm¦A2. Cold¦B1. Red | 1 Warm, 2 Cold, 3 Red",
                "1 -Warm¦2 –Cold | 1 Warm, 2 Cold",
                "12 -6 dB¦Dark | 1 12 -6 dB, 2 Dark",
                "8\u00A0Warm¦9\u202FCold | 8 Warm, 9 Cold",
                "\uFEFFDark¦Amber | 1 Dark, 2 Amber",
                "\uFF11 Warm¦\uFF12 Cold | 1 Warm, 2 Cold"
            })
    void listsAreReadAsPeopleHaveThem(String pasted, String read) {
        assertThat(PastedList.read(pasted.replace("¦", "\n").replace("¬", "\t"), 1).stream()
                        .map(l -> (l.heading() ? "#" : "" + l.number()) + " " + l.name())
                        .collect(Collectors.joining(", ")))
                .isEqualTo(read);
    }

    @Test
    void whatCannotBeAListIsRefusedWithItsLines() {
        Device desk = filled("Dark").devices().get(0);
        assertThatThrownBy(() -> pasted(desk, "A", "B", "a")).hasMessageContaining("Two lines say “a”");
        assertThatThrownBy(() -> pasted(desk, "128. A", "129. B")).hasMessageContaining("room for 128");
        assertThatThrownBy(() -> PastedList.read(" \n ", 1)).hasMessageContaining("Paste the machine's list first");
        assertThatThrownBy(() -> PastedList.read("x".repeat(100_001), 1)).isInstanceOf(Refusal.class);
        assertThatThrownBy(() -> ListChange.to(
                        desk,
                        List.of(new ListChange.Wanted(0, "A", 0), new ListChange.Wanted(0, "B", 0)),
                        Effect.HOLDS))
                .hasMessageContaining("“B” and “A” both have the place");
        assertThatThrownBy(() -> pasted(desk.withList(Optional.empty()), "A")).hasMessageContaining("no list");
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
