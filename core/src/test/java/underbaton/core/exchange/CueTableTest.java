package underbaton.core.exchange;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.Optional;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import underbaton.core.cue.Call;
import underbaton.core.cue.Cue;
import underbaton.core.cue.CueNumber;
import underbaton.core.cue.Doubt;
import underbaton.core.cue.Item;
import underbaton.core.cue.ItemKind;
import underbaton.core.cue.Show;
import underbaton.core.cue.Shows;
import underbaton.core.cue.Start;
import underbaton.core.midi.ChannelMessage.NoteOn;
import underbaton.core.plan.PlannedCall;
import underbaton.core.plan.Planner;
import underbaton.core.rig.Department;
import underbaton.core.rig.Device;
import underbaton.core.rig.Effect;
import underbaton.core.rig.Phrase;
import underbaton.core.rig.Refusal;
import underbaton.core.rig.Remarks.Mark;
import underbaton.core.score.Score;
import underbaton.core.store.ShowFile;

/** Cue lists as tables: out and in, into other shows, and what is refused. */
class CueTableTest {

    private final Show show = remarked();

    /** The small show with a mark, a note full of separators, and an item without cues. */
    private static Show remarked() {
        Show show = Shows.small();
        Cue second = cue(show, "2")
                .withRemarks(Mark.SKY, "wait, then \"go\"; slowly")
                .withWhat("Mara, left");
        show = show.withCue(show.items().get(0).id(), second);
        return show.withItem(new Item(0, ItemKind.INTERVAL, "Pause", 900, List.of()), 2);
    }

    private static Cue cue(Show show, String number) {
        return show.cueNumbered(CueNumber.of(number)).orElseThrow();
    }

    private static Show other() {
        Show show = Shows.device(Show.empty(2, "Other"), "Front", Department.LIGHTS, 3);
        show = Shows.phrase(show, "Blue", "note 20", Effect.HOLDS);
        show = Shows.device(show, "Back", Department.LIGHTS, 4);
        show = Shows.phrase(show, "Amber", "note 21", Effect.HOLDS);
        show = Shows.device(show, "Loops", Department.SOUND, 5);
        show = Shows.phrase(show, "Play", "note 22", Effect.STARTS);
        return show.withItem(new Item(0, ItemKind.SONG, "Song", 0, List.of()), 0);
    }

    private static CueTable table(String... lines) {
        return CueTable.read(String.join("\r\n", lines));
    }

    @Test
    void outAndInChangesNothingWhateverTheCellsHold() {
        for (String text : List.of(CueTable.of(show).csv(), CueTable.of(show).tabbed())) {
            CueListChange change =
                    CueListChange.of(show, CueTable.read(("\uFEFF" + text).getBytes(StandardCharsets.UTF_8)), true);
            assertThat(change.show()).isEqualTo(show);
            assertThat(change.same()).isEqualTo(4);
            assertThat(List.of(change.added(), change.changed(), change.items()))
                    .containsOnly(0);
            assertThat(change.absent()).isEmpty();
            assertThat(change.left()).isEmpty();
        }
    }

    @Test
    void theColumnsAreThoseOfTheDocument() {
        assertThat(CueTable.of(show).csv().lines().limit(3))
                .containsExactly(
                        "item,kind,length,cue,starts,what,mark,note,LX Lights,VD Player",
                        "One,Song,1:00,1,by hand,cue 1,,,Amber,",
                        "One,Song,1:00,2,by hand,\"Mara, left\",sky,\"wait, then \"\"go\"\"; slowly\",Blue,Play");
    }

    @Test
    void cuesAreChangedByTheirNumbersAddedMovedAndTakenOut() {
        CueTable in = table(
                "item;cue;what;LX Lights",
                "One;1;cue 1;Blue",
                ";;Between;Amber",
                "Two;2;Mara, left;",
                "Encore;90;Once more;dark");
        CueListChange change = CueListChange.of(show, in, true);
        assertThat(change.items()).isEqualTo(1);
        assertThat(change.added()).isEqualTo(2);
        assertThat(change.changed()).as("cue 1, and cue 2, which went to Two").isEqualTo(2);
        assertThat(change.absent()).extracting(CueNumber::toString).containsExactly("10", "11");
        Show after = change.show();
        assertThat(after.items()).extracting(Item::name).containsExactly("One", "Two", "Encore", "Pause");
        assertThat(after.items().get(0).cues())
                .extracting(c -> c.number() + " " + c.what())
                .containsExactly("1 cue 1", "1.5 Between");
        assertThat(after.items().get(1).cues())
                .extracting(c -> c.number().toString())
                .containsExactly("2");
        Cue moved = cue(after, "2");
        assertThat(moved.note()).as("a column that the table has not").startsWith("wait");
        assertThat(moved.callsFor(after.devices().get(0).id()))
                .as("an empty cell")
                .isEmpty();
        assertThat(moved.callsFor(after.devices().get(1).id()))
                .as("a machine without a column")
                .hasSize(1);
        assertThat(cue(after, "90").calls())
                .as("an unfinished name that can mean one")
                .hasSize(1);
        assertThat(CueListChange.of(show, in, false).show().cues().count()).isEqualTo(6);
    }

    @Test
    void whatNobodyHasIsToldAndTheCueKeepsWhatItHad() {
        CueListChange change = CueListChange.of(
                show,
                table("item,cue,starts,LX Lights,VD Player", "One,1,at B,Green,", "One,2,,Amber,Play + Rewind"),
                false);
        assertThat(change.left())
                .containsExactly(
                        "Cue 1, Lights: “Green”, no machine here has that phrase",
                        "Cue 2, Player: “Rewind”, no machine here has that phrase",
                        "Cue 1 starts “at B”, and “One” has no such place yet; until it has, the cue waits for GO");
        Cue first = cue(change.show(), "1");
        assertThat(first.calls()).isEqualTo(cue(show, "1").calls());
        assertThat(CueTable.cell(cue(change.show(), "2"), show.devices().get(1)))
                .isEqualTo("Play");
    }

    /** Pasted, what the machine of that name does not know stands in its cell as it was written, and is a call as soon as it does. */
    @Test
    void whatIsPastedAndNotKnownWaitsInItsCellAsWords() {
        CueTable rows = CueTable.read(
                "item\tcue\tLX Lights\tVD Player\nOne\t50\tGreen + Amber\tPlay".getBytes(StandardCharsets.UTF_8));
        Taken taken = rows.into(show, show.items().get(0).id(), 0);
        assertThat(taken.left())
                .containsExactly(
                        "Cue 50, Lights: “Green”, no machine here has that phrase; it stands in its cell and sends nothing");
        Device lights = show.devices().get(0);
        Cue pasted = taken.show()
                .cues()
                .filter(c -> c.calls().stream().anyMatch(Call::isWords))
                .findFirst()
                .orElseThrow();
        assertThat(CueTable.cell(pasted, lights)).isEqualTo("Green + Amber");
        assertThat(Doubt.of(pasted, lights))
                .hasValueSatisfying(w -> assertThat(w).contains("has no phrase “Green”"));
        assertThat(Planner.plan(taken.show()).cues().stream()
                        .filter(c -> c.cueId() == pasted.id())
                        .flatMap(c -> c.calls().stream())
                        .map(PlannedCall::phrase))
                .containsExactly("Amber", "Play");
        byte[] file = ShowFile.write(taken.show());
        assertThat(CueTable.cell(
                        cue(ShowFile.read(1, file), pasted.number().toString()),
                        ShowFile.read(1, file).devices().get(0)))
                .isEqualTo("Green + Amber");
        Show known = taken.show()
                .withPhrase(lights.id(), new Phrase(0, "Green", List.of(new NoteOn(0, 9, 1)), Effect.HOLDS, false));
        assertThat(Doubt.of(
                        cue(known, pasted.number().toString()), known.devices().get(0)))
                .isEmpty();
        assertThat(cue(known, pasted.number().toString()).calls()).noneMatch(Call::isWords);
    }

    @Test
    void rowsGoToTheMachinesOfAnotherShowByThePhrasesNames() {
        CueTable rows = CueTable.read(
                CueTable.of(show, List.of(cue(show, "1").id(), cue(show, "2").id()))
                        .tabbed());
        Show to = other();
        Taken taken = rows.into(to, to.items().get(0).id(), 0);
        assertThat(taken.cues()).isEqualTo(2);
        List<Cue> cues = taken.show().items().get(0).cues();
        assertThat(CueTable.of(taken.show()).csv().lines().skip(1))
                .as("Amber is in the other machine for lights")
                .containsExactly(
                        "Song,Song,,1,by hand,cue 1,,,,Amber,",
                        "Song,Song,,2,by hand,\"Mara, left\",sky,\"wait, then \"\"go\"\"; slowly\",Blue,,");
        assertThat(cues).hasSize(2);
        assertThat(taken.left())
                .as("a player of another department is none for video")
                .containsExactly("Cue 2, Player: “Play”, no machine here has that phrase");
        Taken again =
                rows.into(taken.show(), to.items().get(0).id(), cues.get(0).id());
        assertThat(again.show().items().get(0).cues())
                .as("numbers that are taken are given anew, between their neighbours")
                .extracting(c -> c.number().toString())
                .containsExactly("1", "1.1", "1.2", "2");
        Taken anywhere =
                table("item,cue,Player", "x,5,Play").into(to, to.items().get(0).id(), 0);
        assertThat(anywhere.left())
                .as("a heading without a department means any machine")
                .isEmpty();
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "item,cue¦One,1a|Row 2, column number: “1a” is no cue number",
                "item,cue¦One,1¦One,1|Row 3, column cue: cue 1 stands in a row above already",
                "item,cue,starts¦One,1,sometime|Row 2, column starts: “sometime” is no way to start",
                "item,cue,mark¦One,1,pink|Row 2, column mark: “pink” is no mark; take one of orange",
                "item,cue,kind¦New,1,opera|Row 2, column kind: “opera” is no kind of item",
                "item,cue,kind,length¦New,77,song,long|Row 2, column length: “long” is no length",
                "item,cue¦,1|Row 2, column item: the first row names no item",
                "cue,what¦1,hello|This is no cue list",
                "name,says¦a,b|This is no cue list",
                "item,cue|heading but no rows",
                "item,cue,what¦a,1,\"open|cannot be read as a table",
            })
    void aTableThatCannotBeReadIsRefusedWithItsPlace(String csv, String words) {
        assertThatThrownBy(() -> CueListChange.of(show, CueTable.read(csv.replace("¦", "\n")), false))
                .isInstanceOf(Refusal.class)
                .hasMessageContaining(words);
    }

    @Test
    void hugeFilesAreRefusedUnread() {
        assertThatThrownBy(() -> CueTable.read(new byte[9_000_000])).hasMessageContaining("8000");
        String many = "item,cue\n" + "One,\n".repeat(10_001);
        assertThatThrownBy(() -> CueTable.read(many)).hasMessageContaining("more than 10000 rows");
        String wide = "item,cue" + commas(300) + "\nOne,1";
        assertThatThrownBy(() -> CueTable.read(wide)).hasMessageContaining("more than 200 columns");
    }

    private static String commas(int count) {
        StringBuilder text = new StringBuilder();
        for (int i = 0; i < count; i++) {
            text.append(",n").append(i);
        }
        return text.toString();
    }

    // ---- snippets

    private static Show song(Show show, String score) {
        return show.withItem(show.items().get(0).withScore(Optional.of(Score.of(score))), 0);
    }

    private Show scored() {
        Show scored = song(Shows.small(), "1 6/8\n9 B Chorus");
        int item = scored.items().get(0).id();
        scored = scored.withCue(item, cue(scored, "1").withStart(Start.of("at 9:4 +30 ms")));
        return scored.withCue(item, cue(scored, "2").withStart(Start.of("with")))
                .withCue(
                        item,
                        cue(scored, "2").withId(0).withNumber(CueNumber.of("3")).withStart(Start.of("at B +6 beats")));
    }

    @Test
    void aSnippetCountsFromTheBarOfItsFirstCueAndStandsWhereItIsPut() {
        Show from = scored();
        List<Integer> all = from.items().get(0).cues().stream().map(Cue::id).toList();
        Snippet kept = Snippet.of("Chorus", from, from.items().get(0).id(), all);
        assertThat(kept.meter()).hasToString("6/8");
        assertThat(kept.cues().rows())
                .extracting(r -> r.field(CueTable.STARTS))
                .as("section places become bars, what follows another stays as it is")
                .containsExactly("at 1:4 +30 ms", "with", "at 2:1");

        Show to = song(other(), "1 4/4");
        Snippet read =
                new Snippet(kept.name(), kept.meter(), CueTable.read(kept.cues().csv()));
        Taken taken = read.drop(to, to.items().get(0).id(), 4L * 4 * 960);
        assertThat(taken.show().items().get(0).cues())
                .extracting(c -> c.number() + " " + c.start())
                .as("the first at bar 5; the other three eighths later")
                .containsExactly("1 at 5:1 +30 ms", "2 with", "3 at 5:2:480");
        assertThat(taken.left()).hasSize(2).allMatch(l -> l.contains("“Play”"));
    }

    @Test
    void aSnippetNeedsACueOnABeatAndASongWithBars() {
        Show from = scored();
        int second = cue(from, "2").id();
        assertThatThrownBy(() -> Snippet.of("x", from, from.items().get(0).id(), List.of(second)))
                .hasMessageContaining("None of these cues stands on a beat");
        Snippet kept = Snippet.of(
                "x", from, from.items().get(0).id(), List.of(cue(from, "1").id()));
        Show to = other();
        assertThatThrownBy(() -> kept.drop(to, to.items().get(0).id(), 0)).hasMessageContaining("no bars yet");
    }
}
