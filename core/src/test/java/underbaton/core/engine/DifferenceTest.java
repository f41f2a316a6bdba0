package underbaton.core.engine;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import underbaton.core.cue.Call;
import underbaton.core.cue.Cue;
import underbaton.core.cue.CueNumber;
import underbaton.core.cue.Item;
import underbaton.core.cue.ItemKind;
import underbaton.core.cue.SceneLevels;
import underbaton.core.cue.Show;
import underbaton.core.cue.Shows;
import underbaton.core.cue.Start;
import underbaton.core.engine.catchup.CatchUp;
import underbaton.core.engine.catchup.Correction;
import underbaton.core.midi.MidiMessage;
import underbaton.core.rig.Argument;
import underbaton.core.rig.Department;
import underbaton.core.rig.Device;
import underbaton.core.rig.Effect;
import underbaton.core.rig.Numbering;
import underbaton.core.rig.Phrase;
import underbaton.core.rig.Remarks;
import underbaton.core.rig.SpeechWording;
import underbaton.core.rig.StepList;

/** What makes one machine right: what the book has told it on the one side, what it was told on the other. */
class DifferenceTest extends PlayedShow {

    private final Map<String, String> numbers = new HashMap<>();
    private int box;

    @BeforeEach
    void aMachineOfEverything() {
        show = Shows.device(Show.empty(1, "Difference"), "Box", Department.SOUND, 0);
        box = show.devices().get(0).id();
        show = show.withDevice(
                show.devices().get(0).withStepLists(List.of(new StepList("page", 5, 50), new StepList("", 9, 0))));
        phrase("Scene A", "program 1", "holds scene, takes along levels", "", false);
        phrase("Scene B", "program 2", "holds scene, takes along levels", "", false);
        phrase("Song 1", "program 10", "holds song, takes along lists", "", false);
        phrase("Song 2", "program 11", "holds song, takes along lists", "", false);
        phrase("Hymn 1", "program 12", "holds screen, takes along lists", "", false);
        phrase("Hymn 2", "program 13", "holds screen, takes along lists", "", false);
        phrase("Next", "note 60", "steps page by 1", "", false);
        phrase("Previous", "note 61", "steps page by -1", "", false);
        phrase("First", "note 62", "sets page to 1", "", false);
        phrase("On", "note 63", "steps by 1", "", false);
        phrase("Blank", "note 58", "holds screen", "", false);
        phrase("Film", "control 20 to ?", "starts film for 2:00", "seconds 0 to 60", false);
        phrase("Film out", "note 21", "stops film", "", false);
        phrase("Reel", "note 22", "starts reel for 1:00", "", false);
        phrase("Bed", "note 36", "starts bed", "", false);
        phrase("Rain", "note 38", "starts rain", "", false);
        phrase("Rain again", "note 39", "starts rain", "", false);
        phrase("Rain out", "note 37", "stops rain", "", false);
        phrase("Folder 1", "program 20", "holds folder, takes along what runs", "", false);
        phrase("Folder 2", "program 21", "holds folder, takes along what runs", "", false);
        phrase("All off", "note 0", "stops", "", false);
        phrase("Fader", "control 7 to ?", "levels", "per cent", false);
        phrase("Pan", "control 10 to ?", "levels", "pan", false);
        phrase("Panic", "note 99", "holds panic", "", true);
        show = show.withItem(new Item(0, ItemKind.SCENE, "Scene", 0, List.of()), 0);
    }

    private void phrase(String name, String says, String effect, String argument, boolean guarded) {
        show = show.withPhrase(
                box,
                new Phrase(
                        0,
                        name,
                        new SpeechWording(Numbering.WIRE).read(says),
                        argument.isEmpty() ? Optional.empty() : Optional.of(Argument.of(argument)),
                        Effect.of(effect),
                        guarded,
                        false,
                        Remarks.NONE));
    }

    private void cueFor(String typed) {
        if (!typed.matches("\\d+ ms") && !numbers.containsKey(typed)) {
            String number = Integer.toString(numbers.size() + 1);
            numbers.put(typed, number);
            Device device = show.device(box).orElseThrow();
            show = show.withCue(
                    show.items().get(0).id(),
                    new Cue(0, CueNumber.of(number), Start.BY_HAND, "", List.of(Call.of(device, typed)), 0));
        }
    }

    /** What was told in turn; {@code 500 ms} is time that passes. */
    private PlaybackState played(String... told) {
        begin();
        for (String typed : told) {
            if (typed.endsWith(" ms")) {
                pass(Long.parseLong(typed.substring(0, typed.length() - 3)));
            } else {
                standBy(numbers.get(typed));
                go();
            }
        }
        return state;
    }

    private List<Correction> corrections(String[] book, String[] told) {
        for (String typed : book) {
            cueFor(typed);
        }
        for (String typed : told) {
            cueFor(typed);
        }
        return played(told).correctionsTo(played(book));
    }

    private static String[] told(String... typed) {
        return typed;
    }

    /** {@code wants (has): bytes, bytes}, with {@code !} before what is guarded. */
    private List<String> difference(String[] book, String[] told) {
        List<String> words = new ArrayList<>();
        for (Correction c : corrections(book, told)) {
            List<String> bytes = new ArrayList<>();
            c.calls().forEach(call -> call.messages()
                    .forEach(t -> bytes.add(((MidiMessage) t.message()).encode().hex())));
            words.add((c.guarded() ? "!" : "") + c.wants() + (c.has().isEmpty() ? "" : " (" + c.has() + ")") + ": "
                    + String.join(", ", bytes));
        }
        return words;
    }

    @Test
    void whatTheBookNeverSaidIsLeftAlone() {
        assertThat(difference(told(), told())).isEmpty();
        assertThat(difference(told("Scene A"), told("Scene A"))).isEmpty();
        assertThat(difference(told(), told("Blank"))).isEmpty();
    }

    @Test
    void stepsComeBehindTheSongThatTakesThemAlongAndBeforeTheBlankThatHidesThem() {
        assertThat(difference(told("Song 1", "10 ms", "Next", "10 ms", "Next", "10 ms", "Blank"), told()))
                .containsExactly("Song 1: C0 0A", "page 3 (page 1): 90 3C 7F, 90 3C 7F", "Blank: 90 3A 7F");
        assertThat(difference(told("Song 1", "Blank", "10 ms", "Next"), told("Song 1", "Blank")))
                .containsExactly("page 2 (page 1): 90 3C 7F");
        assertThat(difference(
                        told("Song 1", "10 ms", "Next", "10 ms", "Next", "10 ms", "Blank"),
                        told("Song 1", "10 ms", "Next", "10 ms", "Blank")))
                .as("the step shows what the blank hides")
                .containsExactly("page 3 (page 2): 90 3C 7F", "Blank (Blank): 90 3A 7F");
        assertThat(difference(told("Song 1", "Next", "10 ms", "Blank"), told("Song 1", "Blank", "10 ms", "Next")))
                .as("a step after the blank has shown it, though the blank was told last of its kind")
                .containsExactly("Blank (Blank): 90 3A 7F");
        assertThat(difference(told("Song 1", "Blank", "10 ms", "Next"), told("Song 1", "Blank", "10 ms", "Next")))
                .isEmpty();
        assertThat(difference(told("Hymn 1", "10 ms", "Next", "Blank"), told("Hymn 2", "10 ms", "Next", "Previous")))
                .as("also where both come in one instant")
                .containsExactly("page 2 (page 1): 90 3C 7F", "Blank (Hymn 2): 90 3A 7F");
        assertThat(difference(
                        told("Hymn 1", "10 ms", "Next", "10 ms", "Blank", "10 ms", "Hymn 2"),
                        told("Hymn 2", "10 ms", "Next", "Next")))
                .containsExactly("page 1 (page 3): 90 3E 7F");
        // The song comes after the steps in the book: so it does here, and takes them back.
        assertThat(difference(told("Next", "Next", "10 ms", "Song 1"), told())).containsExactly("Song 1: C0 0A");
    }

    @Test
    void theShortestWayThroughAListIsTaken() {
        assertThat(difference(told("First", "Next"), told("First", "Next", "Next", "Next")))
                .containsExactly("page 2 (page 4): 90 3E 7F, 90 3C 7F");
        assertThat(difference(told("First", "Next", "Next"), told("First", "Next", "Next", "Next")))
                .containsExactly("page 3 (page 4): 90 3D 7F");
        // From nobody knows where a jump leads, and in the list that has none nothing does.
        assertThat(difference(told("First", "Next"), told())).containsExactly("page 2: 90 3E 7F, 90 3C 7F");
        // Each list begins at its first place in the book; here nobody knows.
        assertThat(difference(told("First", "Next", "Next", "Next", "Next", "Next", "Next"), told("First")))
                .as("the list has five places")
                .containsExactly("page 5 (page 1): 90 3C 7F, 90 3C 7F, 90 3C 7F, 90 3C 7F");
    }

    /** Common practice: a player's folder is chosen by program, and what runs belongs to the folder before. */
    @Test
    void whatRunsIsSetGoingAgainBehindTheFolderThatEndedIt() {
        assertThat(difference(told("Folder 2", "10 ms", "Bed"), told("Folder 1", "10 ms", "Bed")))
                .containsExactly("Folder 2 (Folder 1): C0 15", "Bed: 90 24 7F");
        assertThat(difference(told("Rain", "10 ms", "Folder 2"), told("Folder 1", "10 ms", "Rain")))
                .as("the folder stops it")
                .containsExactly("Folder 2 (Folder 1): C0 15");
        assertThat(difference(told("Rain", "10 ms", "Folder 2"), told("Folder 2", "10 ms", "Rain")))
                .as("the folder is there")
                .containsExactly("nothing runs (Rain runs): 90 25 7F");
        assertThat(difference(told("Rain out", "Folder 1"), told("Rain"))).containsExactly("Folder 1: C0 14");
    }

    @Test
    void aFilmGoesOnFromTheMiddleAndNoFurtherThanItsPhraseReaches() {
        assertThat(difference(told("Film → 0 s", "30000 ms"), told()))
                .as("half of 60 s, of 127")
                .containsExactly("Film → 0 s at 0:30: B0 14 40");
        assertThat(difference(told("Film → 0 s", "90000 ms"), told())).containsExactly("Film → 0 s at 1:30: B0 14 7F");
        assertThat(difference(told("Film → 0 s", "500 ms"), told("Film → 0 s")))
                .as("half a second is in time")
                .isEmpty();
        assertThat(difference(told("Film → 0 s", "501 ms"), told("Film → 0 s")))
                .containsExactly("Film → 0 s at 0:00 (Film → 0 s): B0 14 01");
        assertThat(difference(told("Film → 0 s", "500 ms"), told())).containsExactly("Film → 0 s at 0:00: B0 14 00");
        assertThat(difference(told("Film → 0 s", "121000 ms"), told("Film → 0 s")))
                .as("it is over in the book, and goes on here")
                .containsExactly("Film → 0 s is over (Film → 0 s): 90 15 7F");
        assertThat(difference(told("Film → 0 s", "121000 ms"), told("Film → 0 s", "120000 ms")))
                .isEmpty();
    }

    @Test
    void whatCannotBeginInTheMiddleIsNamed() {
        List<Correction> reel = corrections(told("Reel", "10000 ms"), told());
        assertThat(reel).extracting(Correction::wants).containsExactly("Reel at 0:10");
        assertThat(reel.get(0).isPossible()).isFalse();
        assertThat(difference(told("Reel", "10000 ms"), told("Reel", "9600 ms")))
                .isEmpty();
        assertThat(difference(told("Reel", "400 ms"), told())).containsExactly("Reel at 0:00: 90 16 7F");
    }

    @Test
    void whatRunsIsStoppedByItsOwnStopAndElseByTheOneThatEndsAll() {
        assertThat(difference(told(), told("Rain"))).containsExactly("nothing runs (Rain runs): 90 25 7F");
        assertThat(difference(told(), told("Bed"))).containsExactly("nothing runs (Bed runs): 90 00 7F");
        assertThat(difference(told("Bed"), told("Bed", "Rain"))).containsExactly("nothing runs (Rain runs): 90 25 7F");
        assertThat(difference(told("Rain again"), told("Rain"))).containsExactly("Rain again (Rain): 90 27 7F");
        assertThat(difference(told("Rain"), told("Rain", "5000 ms")))
                .as("it has no length")
                .isEmpty();
        assertThat(difference(told("Rain out"), told("Rain"))).containsExactly("Rain out (Rain): 90 25 7F");
        assertThat(difference(told("Rain out"), told())).as("nobody knows").containsExactly("Rain out: 90 25 7F");
        assertThat(difference(told("Rain out"), told("Rain out"))).isEmpty();
        assertThat(difference(told("Rain out"), told("All off")))
                .as("all is off")
                .isEmpty();
        assertThat(difference(told("All off"), told("Rain", "Bed")))
                .as("what ends all ends the rain too")
                .containsExactly("nothing runs (Bed runs): 90 00 7F");
        assertThat(difference(told("All off"), told())).containsExactly("All off: 90 00 7F");
        assertThat(difference(told("All off", "Bed"), told("Rain", "Bed")))
                .as("nobody knows of the film, so the rain’s own stop is not enough")
                .containsExactly("All off: 90 00 7F", "Bed: 90 24 7F");
    }

    /** Half is 64 of 127: 63.5, rounded. */
    @Test
    void aSceneThatSaysWhereItLeavesAFaderNeedNotBeRecalledForIt() {
        Device device = show.device(box).orElseThrow();
        Phrase scene = device.phraseNamed("Scene A").orElseThrow();
        show = show.withPhrase(box, scene.withLeaves(SceneLevels.read(device, "Fader 50 %")));
        assertThat(difference(told("Scene A"), told("Scene A", "Fader → 20 %")))
                .as("the fader is put where the scene has it")
                .containsExactly("Fader 50 % (Fader 20 %): B0 07 40");
        assertThat(difference(told("Scene A"), told("Scene A"))).isEmpty();
        assertThat(difference(told("Scene A"), told("Scene A", "Pan → L30")))
                .as("of the pan nobody knows where the scene has it")
                .containsExactly("Scene A (Scene A): C0 01");
        assertThat(difference(told("Scene A"), told("Fader → 50 %"))).containsExactly("Scene A: C0 01");
        assertThat(difference(told("Scene B", "Fader → 50 %"), told("Scene A")))
                .containsExactly("Scene B (Scene A): C0 02", "Fader 50 %: B0 07 40");
    }

    @Test
    void aSceneBringsBackWhatWasSetBehindIt() {
        assertThat(difference(told("Scene A"), told("Scene A", "Fader → 50 %")))
                .containsExactly("Scene A (Scene A): C0 01");
        assertThat(difference(told("Scene A", "Fader → 50 %"), told("Scene A", "Fader → 50 %")))
                .isEmpty();
        assertThat(difference(told("Scene A", "Fader → 50 %"), told("Scene A")))
                .containsExactly("Fader 50 %: B0 07 40");
        assertThat(difference(told("Scene B", "Fader → 50 %"), told("Scene A", "Fader → 50 %")))
                .as("the scene takes the fader along")
                .containsExactly("Scene B (Scene A): C0 02", "Fader 50 %: B0 07 40");
        assertThat(difference(told("Scene A"), told("Scene A", "Blank"))).containsExactly("Scene A (Scene A): C0 01");
        assertThat(difference(told("Song 1"), told("Song 1", "Fader → 50 %"))).isEmpty();
    }

    @Test
    void levelsAreToldInTheirOwnUnitAndOnlyWhereTheyDiffer() {
        assertThat(difference(told("Fader → 50 %", "Pan → L30"), told("Fader → 10 %")))
                .containsExactlyInAnyOrder("Fader 50 % (Fader 10 %): B0 07 40", "Pan L30: B0 0A 2D");
        assertThat(difference(told("Fader → 50 %"), told("Fader → 50.1 %")))
                .as("the same on the wire")
                .isEmpty();
    }

    @Test
    void aMoveGoesOnWhereItShouldBeUnlessItIsUnderWayAlready() {
        String fade = "Fader → 100 % in 4 s";
        List<Correction> half = corrections(told("Fader → 0 %", fade, "2000 ms"), told("Fader → 0 %"));
        assertThat(half).hasSize(1);
        assertThat(half.get(0).goesOn()).isPresent();
        assertThat(half.get(0).wants()).isEqualTo("Fader 50 %, on its way to 100 %");
        assertThat(difference(told("Fader → 0 %", fade, "2000 ms"), told("Fader → 0 %", fade, "2000 ms")))
                .isEmpty();
        assertThat(difference(told("Fader → 0 %", fade, "2000 ms"), told("Fader → 0 %", "1 ms", fade, "1999 ms")))
                .as("a millisecond is another moment")
                .hasSize(1);
        assertThat(difference(told("Fader → 0 %", fade, "4000 ms"), told("Fader → 0 %", fade, "4000 ms")))
                .isEmpty();
        assertThat(difference(told("Fader → 0 %"), told("Fader → 0 %", fade, "1000 ms")))
                .containsExactly("Fader 0 % (Fader 25 %): B0 07 00");
        List<Correction> wave = corrections(told("Fader → 50 % ± 20 % sine every 2 s", "500 ms"), told());
        assertThat(wave.get(0).wants()).endsWith(", in a wave");
        assertThat(wave.get(0).calls()).isEmpty();
        assertThat(wave.get(0).isPossible()).isTrue();
    }

    @Test
    void aGuardedPhraseIsMarkedAndLeftOutUntilItIsChosen() {
        assertThat(difference(told("Panic"), told())).containsExactly("!Panic: 90 63 7F");
        List<Correction> all = corrections(told("Panic", "Blank"), told());
        assertThat(CatchUp.without(all, Set.of())).hasSize(2);
        assertThat(CatchUp.without(all, Set.of(all.get(0).key())))
                .extracting(Correction::wants)
                .doesNotContain(all.get(0).wants());
    }

    @Test
    void stopsComeFirstThenProgramsThenNotes() {
        assertThat(difference(told("Blank", "Song 1", "Rain out"), told("Rain")))
                .containsExactly("Rain out (Rain): 90 25 7F", "Song 1: C0 0A", "Blank: 90 3A 7F");
    }
}
