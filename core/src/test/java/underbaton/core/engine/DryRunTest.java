package underbaton.core.engine;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Optional;
import org.junit.jupiter.api.Test;
import underbaton.core.cue.Call;
import underbaton.core.cue.Cue;
import underbaton.core.cue.CueNumber;
import underbaton.core.cue.Item;
import underbaton.core.cue.Show;
import underbaton.core.cue.Shows;
import underbaton.core.cue.Start;
import underbaton.core.plan.Plan;
import underbaton.core.plan.PlannedCue;
import underbaton.core.plan.Planner;
import underbaton.core.rig.Connection;
import underbaton.core.rig.Device;
import underbaton.core.rig.Effect;
import underbaton.core.rig.Precautions;
import underbaton.core.score.Score;

/** What the dry run says will be sent, when, and why. */
class DryRunTest {

    private static final long MS = 1_000_000;

    /** The small show with a score in its last item. */
    private static Show song(Show show, String score) {
        Item item = show.items().get(1);
        return show.withItem(item.withScore(Optional.of(Score.of(score))), 0);
    }

    private static List<String> told(Show show) {
        return DryRun.of(Planner.plan(show))
                .messages()
                .filter(m -> m.itemId() == show.items().get(1).id())
                .map(m -> m.since() + " " + m.atNanos() / 1000 + " " + m.cause() + " "
                        + m.message().getClass().getSimpleName()
                        + (m.lateNanos() > 0 ? " late " + m.lateNanos() / 1000 : "")
                        + (m.beforeStart() ? " before the start" : ""))
                .toList();
    }

    private static Show timed(Show show, int device, int leadMs, int settleMs) {
        return show.withDevice(show.devices().get(device).withTiming(leadMs, settleMs));
    }

    /** At 120 bar 2 comes after two seconds (common practice); the player wants to be told 300 ms early. */
    @Test
    void whoMustBeToldEarlyIsToldEarlyAndWhatWouldLieBeforeTheStartIsSaid() {
        Show show = song(timed(Shows.small(), 1, 300, 0), "1 quarter = 120");
        show = Shows.cue(show, "12", "at 2:1", "Amber", "Play");
        show = Shows.cue(show, "13", "at 1:1 +100 ms", "Play");
        int second = show.cueNumbered(CueNumber.of("11")).orElseThrow().id();
        assertThat(told(show))
                .containsExactly(
                        "0 0 cue 10 NoteOn",
                        "0 0 cue 13 NoteOn late 200000 before the start",
                        "0 1700000 cue 12 NoteOn",
                        "0 2000000 cue 12 NoteOn",
                        second + " 0 cue 11 NoteOn",
                        second + " 0 cue 11 NoteOn");
    }

    @Test
    void aDeviceGetsProgramsFirstSettlesAndThenControlsAndNotes() {
        Show show = timed(Shows.small(), 1, 0, 40);
        show = Shows.phrase(show, "Gain", "control 7 to 90", Effect.MOMENT);
        show = Shows.phrase(show, "Scene", "program 3", Effect.HOLDS);
        show = song(Shows.cue(show, "12", "at 2:1", "Play", "Gain", "Scene"), "1 quarter = 120");
        assertThat(told(show).subList(1, 4))
                .containsExactly(
                        "0 2000000 cue 12 ProgramChange", "0 2040000 cue 12 ControlChange", "0 2040000 cue 12 NoteOn");
    }

    @Test
    void aDeviceThatIsToldAsTypedGetsWhatStandsFirstFirst() {
        Show show = timed(Shows.small(), 1, 0, 40);
        show = Shows.phrase(show, "Gain", "control 7 to 90", Effect.MOMENT);
        show = Shows.phrase(show, "Scene", "program 3", Effect.HOLDS);
        Device player = show.devices().get(1);
        show = show.withDevice(player.withPrecautions(new Precautions("", Precautions.UntoldFade.AT_ONCE, true)));
        show = song(Shows.cue(show, "12", "at 2:1"), "1 quarter = 120");
        Cue cue = show.cueNumbered(CueNumber.of("12")).orElseThrow();
        List<Call> typed = List.of(Call.of(player, "Play"), Call.of(player, "Scene"), Call.of(player, "Gain"));
        assertThat(told(show.withCuesExchanged(List.of(cue.withCalls(typed)))).subList(1, 4))
                .containsExactly(
                        "0 2000000 cue 12 NoteOn", "0 2000000 cue 12 ProgramChange", "0 2040000 cue 12 ControlChange");
    }

    /** Cue 12 lands with a note, cue 13 in the same instant with a program and a control: the program comes first. */
    @Test
    void theOrderOfAnInstantHoldsAcrossItsCues() {
        Show show = timed(Shows.small(), 1, 0, 40);
        show = Shows.phrase(show, "Gain", "control 7 to 90", Effect.MOMENT);
        show = Shows.phrase(show, "Scene", "program 3", Effect.HOLDS);
        show = song(show, "1 quarter = 120");
        show = Shows.cue(show, "12", "at 2:1", "Play", "Amber");
        show = Shows.cue(show, "13", "at time 0:02", "Gain", "Scene");
        show = Shows.cue(show, "14", "by hand", "Play");
        show = Shows.cue(show, "15", "with", "Scene");
        int byHand = show.cueNumbered(CueNumber.of("14")).orElseThrow().id();
        assertThat(told(show))
                .containsSubsequence(
                        "0 2000000 cue 13 ProgramChange",
                        "0 2000000 cue 12 NoteOn",
                        "0 2040000 cue 13 ControlChange",
                        "0 2040000 cue 12 NoteOn",
                        byHand + " 0 cue 15 ProgramChange",
                        byHand + " 40000 cue 14 NoteOn");
    }

    /** What is called before the device gets its program does not wait for it. */
    @Test
    void onlyWhatComesWhileADeviceSettlesWaits() {
        Show show = timed(Shows.small(), 1, 0, 40);
        show = Shows.phrase(show, "Scene", "program 3", Effect.HOLDS);
        Device player = show.devices().get(1);
        Cue cue = new Cue(
                0,
                CueNumber.of("12"),
                Start.of("at 2:1"),
                "",
                List.of(Call.of(player, "Play"), Call.of(player, "Scene @ 1 s"), Call.of(player, "Stop @ 1.01 s")),
                0);
        show = song(show.withCue(show.items().get(1).id(), cue), "1 quarter = 120");
        assertThat(told(show))
                .containsSubsequence(
                        "0 2000000 cue 12 NoteOn", "0 3000000 cue 12 ProgramChange", "0 3040000 cue 12 NoteOn");
    }

    /** A note takes three bytes of 320 µs (MIDI 1.0, from memory): the second waits 960 µs, the third twice that. */
    @Test
    void whatSharesADinLineLeavesOneAfterAnother() {
        Show show = Shows.small();
        for (Device device : show.devices()) {
            show = show.withDevice(device.withConnection(new Connection.LocalMidi("Loop 1")));
        }
        show = song(Shows.cue(show, "12", "at 2:1", "Amber", "Play", "Blue"), "1 quarter = 120");
        assertThat(told(show).subList(1, 4))
                .containsExactly(
                        "0 2000000 cue 12 NoteOn",
                        "0 2000960 cue 12 NoteOn late 960",
                        "0 2001920 cue 12 NoteOn late 1920");
    }

    @Test
    void aLinkedSectionGetsTheCuesOfTheOtherButForThoseItGoesWithout() {
        Show show = song(Shows.small(), "5 B Chorus\n9 C Verse\n13 D Chorus 2 as B without 14\n17 E Out");
        show = Shows.cue(show, "12", "at B", "Amber");
        show = Shows.cue(show, "13", "after 0.5 s", "Blue");
        show = Shows.cue(show, "14", "at 6:3", "Amber");
        show = Shows.cue(show, "15", "at 9:1", "Blue");
        show = Shows.cue(show, "16", "at B −1 beat", "Dark");
        List<PlannedCue> cues = Planner.plan(show).cues();
        assertThat(cues)
                .filteredOn(c -> !c.copy().isEmpty())
                .extracting(c -> c.label() + " " + c.atNanos().orElse(-1) / MS)
                .containsExactlyInAnyOrder("12 in D 24000", "13 in D 24500", "16 in D 23500");
        assertThat(cues).extracting(PlannedCue::label).containsSubsequence("15", "12 in D", "13 in D");
    }

    @Test
    void anEditIsWorkedOutInItsItemAlone() {
        Show show = Shows.small();
        DryRun before = DryRun.of(Planner.plan(show));
        Cue cue = show.cueNumbered(CueNumber.of("1")).orElseThrow();
        Show changed = show.withCue(show.items().get(0).id(), cue.withStart(Start.of("after 1 s")));
        Plan plan = Planner.plan(changed, before.plan());
        DryRun after = DryRun.of(plan, before);
        int first = show.cueNumbered(CueNumber.of("1")).orElseThrow().id();
        int second = show.cueNumbered(CueNumber.of("10")).orElseThrow().id();
        assertThat(after.shown(second)).isSameAs(before.shown(second));
        assertThat(after.shown(first)).isNotSameAs(before.shown(first));
        assertThat(after.messages())
                .containsExactlyElementsOf(
                        DryRun.of(Planner.plan(changed)).messages().toList());
    }
}
