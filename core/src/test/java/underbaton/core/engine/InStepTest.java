package underbaton.core.engine;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Optional;
import org.junit.jupiter.api.Test;
import underbaton.core.cue.Item;
import underbaton.core.cue.ItemKind;
import underbaton.core.cue.Show;
import underbaton.core.cue.Shows;
import underbaton.core.engine.catchup.Correction;
import underbaton.core.engine.operator.GoOptions;
import underbaton.core.plan.PlannedCall;
import underbaton.core.plan.PlannedCue;
import underbaton.core.plan.Planner;
import underbaton.core.rig.Department;
import underbaton.core.rig.Device;
import underbaton.core.rig.Effect;
import underbaton.core.rig.Numbering;
import underbaton.core.rig.Phrase;
import underbaton.core.rig.Remarks;
import underbaton.core.rig.SpeechWording;
import underbaton.core.signal.Deed;
import underbaton.core.store.StoredForm;

/** The music and its machines: tempo of the day, leads, linked sections, and what a hold leaves under way. Beats by common practice. */
class InStepTest extends PlayedShow {

    private void pages(int leadMs) {
        show = Shows.device(show, "Words", Department.WORDS, 8);
        show = Shows.phrase(show, "Next", "note 60", Effect.of("steps page by +1"));
        Device words = show.devices().get(show.devices().size() - 1);
        show = show.withDevice(words.withTiming(leadMs, 0));
    }

    private long pagesTold() {
        return sent().stream().filter(w -> w.contains(" 98 3C 7F")).count();
    }

    private void newSong(String name) {
        show = show.withItem(
                new Item(0, ItemKind.SONG, name, 0, List.of()), show.items().size());
    }

    /** Four beats at 120 last two seconds, and at 60 four. */
    @Test
    void beats_of_a_fade_last_in_a_linked_section_as_they_do_there() {
        show = fader(show);
        song("1 quarter = 120\n5 B Verse\n13 quarter = 60\n13 D Verse 2 as B\n20 end");
        fade("20", "at 5:1", "Bed 100 % in 4 beats");
        List<PlannedCue> cues = Planner.plan(show).cues().stream()
                .filter(c -> c.number().toString().equals("20"))
                .toList();
        assertThat(cues).extracting(PlannedCue::label).containsExactly("20", "20 in D");
        assertThat(cues)
                .extracting(c -> c.calls().get(0).motion().orElseThrow().lastsNanos())
                .containsExactly(2 * SECOND, 4 * SECOND);
    }

    /** The page is turned half a second early; the band stops within that half second, and goes on: it is not turned again, and not lost. */
    @Test
    void a_hold_within_a_lead_neither_loses_nor_repeats_what_was_told_early() {
        pages(500);
        newSong("Song");
        song("1 quarter = 120\n20 end", "at 3:1 | Next", "at 5:1 | Next");
        begin();
        order(new Order.Play(show.items().get(2).id(), 1));
        pass(3_750);
        assertThat(pagesTold()).isEqualTo(1);
        order(new Order.Hold());
        pass(10_000);
        Destination here = Destination.of(new Whereto.Here(), state, DryRun.of(state.plan()), state.nowNanos());
        assertThat(here.corrections(state)).noneMatch(c -> c.key().kind() == Correction.Kind.PLACE && c.isPossible());
        here.before().forEach(this::order);
        pass(1_000);
        assertThat(pagesTold()).isZero();
        pass(4_000);
        assertThat(pagesTold()).as("the page of bar 5").isEqualTo(1);
    }

    @Test
    void go_on_a_cue_of_which_a_machine_was_told_early_does_not_tell_it_again() {
        pages(500);
        newSong("Song");
        song("1 quarter = 120\n20 end", "by hand | Blue", "at 3:1 | Next, Amber");
        begin();
        order(new Order.Play(show.items().get(2).id(), 1));
        pass(3_700);
        assertThat(pagesTold()).isEqualTo(1);
        standBy("21");
        go();
        assertThat(sent()).containsExactly("cue 21 90 01 7F @ 3700");
        pass(5_000);
        assertThat(sent()).isEmpty();
    }

    /** Two machines with two leads: the edit comes between them. */
    @Test
    void an_edit_between_two_leads_of_a_cue_repeats_neither() {
        pages(500);
        show = Shows.device(show, "Camera", Department.VIDEO, 9);
        show = Shows.phrase(show, "Wide", "note 61", Effect.MOMENT);
        show = show.withDevice(show.devices().get(show.devices().size() - 1).withTiming(200, 0));
        newSong("Song");
        song("1 quarter = 120\n20 end", "at 3:1 | Next, Wide");
        begin();
        order(new Order.Play(show.items().get(2).id(), 1));
        pass(3_650);
        Show edited = Shows.cue(show, "30", "by hand", "Amber");
        order(new Order.Adopt(Planner.plan(edited)));
        pass(1_000);
        assertThat(sent())
                .extracting(w -> w.substring(0, w.indexOf(" @")))
                .containsExactly("cue 20 98 3C 7F", "cue 20 99 3D 7F");
    }

    @Test
    void a_cue_that_follows_and_a_late_call_outlive_a_hold_and_a_crash() {
        newSong("Song");
        song("1 quarter = 120\n40 end", "by hand | Amber", "after 20 s | Blue");
        begin();
        standBy("20");
        go();
        pass(3_000);
        order(new Order.Hold());
        pass(60_000);
        order(new Order.Resume());
        pass(16_900);
        assertThat(sent()).noneMatch(w -> w.startsWith("cue 21"));
        order(new Order.Hold());
        RunSnapshot kept =
                StoredForm.read(StoredForm.write(RunSnapshot.of(state, state.nowNanos() / 1000)), RunSnapshot.class);
        state = kept.into(Planner.plan(show), state.nowNanos() + 5 * SECOND, state.nowNanos() / 1000 + 5_000_000);
        pass(60_000);
        assertThat(sent()).isEmpty();
        order(new Order.Resume());
        pass(200);
        assertThat(sent()).singleElement().asString().startsWith("cue 21 90 02 7F");
    }

    @Test
    void the_tempo_of_the_day_stays_with_its_song_and_for_the_night_if_it_is_kept() {
        newSong("One more");
        song("1 quarter = 120\n40 end");
        newSong("Another");
        song("1 quarter = 60\n40 end");
        begin();
        int one = show.items().get(2).id();
        int other = show.items().get(3).id();
        order(new Order.Play(one, 0));
        order(new Order.PaceBy(-200));
        assertThat(pace()).isEqualTo(800);
        order(new Order.Play(other, 0));
        assertThat(pace()).isEqualTo(1000);
        order(new Order.Play(one, 5 * SECOND));
        assertThat(pace()).isEqualTo(800);
        order(new Order.Behave(new GoOptions(false, true, 0, true)));
        order(new Order.Play(other, 0));
        assertThat(pace()).isEqualTo(800);
        order(new Order.PauseOrGoOn());
        assertThat(state.playing().orElseThrow().paused()).isTrue();
        order(new Order.PauseOrGoOn());
        assertThat(pace()).isEqualTo(800);
    }

    /** However far it has been taken away, and by whichever way the order comes. */
    @Test
    void one_order_brings_back_the_tempo_that_is_written() {
        newSong("Song");
        song("1 quarter = 120\n40 end");
        begin();
        order(new Order.Play(show.items().get(2).id(), 0));
        for (int i = 0; i < 7; i++) {
            order(Order.of(Deed.SLOWER));
        }
        assertThat(pace()).isEqualTo(930);
        pass(2_000);
        order(Order.of(Deed.AS_WRITTEN));
        assertThat(pace()).isEqualTo(1000);
        // 2 s at 93 % and 2 s at 100 %.
        pass(2_000);
        assertThat(state.playing().orElseThrow().position(state.nowNanos())).isEqualTo(3_860_000_000L);
    }

    @Test
    void after_stop_all_the_bars_of_the_stopped_song_are_meant() {
        newSong("Song");
        song("1 quarter = 120\n40 end");
        begin();
        order(new Order.Play(show.items().get(2).id(), 0));
        pass(3_000);
        order(new Order.StopAll());
        Destination there = Destination.of(new Whereto.Bar(10), state, DryRun.of(state.plan()), state.nowNanos());
        assertThat(there.words()).isEqualTo("Song at bar 10");
    }

    /** One that is due much later came first; of two that came after it and are due in one moment, neither takes the other's place. */
    @Test
    void what_is_due_in_one_moment_all_leaves() {
        show = show.withDevice(PatchedPit.machine("Sampler", 5));
        for (int i = 1; i <= 3; i++) {
            show = says(
                    "Phrase " + i,
                    "control " + i + " to 1; after " + (i == 1 ? 30_000 : 1_000) + " ms control " + i + " to 2");
        }
        begin();
        Device sampler = show.devices().get(show.devices().size() - 1);
        for (int i = 1; i <= 3; i++) {
            order(new Order.Fire(
                    PlannedCall.of(sampler, sampler.phraseNamed("Phrase " + i).orElseThrow()), "by hand"));
        }
        sent();
        pass(1_000);
        assertThat(sent()).containsExactly("by hand B4 02 02 @ 1000", "by hand B4 03 02 @ 1000");
        pass(29_000);
        assertThat(sent()).containsExactly("by hand B4 01 02 @ 30000");
    }

    private Show says(String name, String words) {
        return show.withPhrase(
                show.devices().get(show.devices().size() - 1).id(),
                new Phrase(
                        0,
                        name,
                        new SpeechWording(Numbering.WIRE).read(words),
                        Optional.empty(),
                        Effect.MOMENT,
                        false,
                        false,
                        Remarks.NONE));
    }

    private int pace() {
        return state.playing().orElseThrow().anchor().permille();
    }

    /** At 80 % the music had come 8 s further in the 10 s that it was away, not 10. */
    @Test
    void where_the_band_is_after_a_crash_knows_its_tempo() {
        newSong("Song");
        song("1 quarter = 120\n200 end");
        begin();
        order(new Order.Play(show.items().get(2).id(), 0));
        order(new Order.Pace(800));
        pass(5_000);
        long crash = state.nowNanos();
        RunSnapshot kept = StoredForm.read(StoredForm.write(RunSnapshot.of(state, crash / 1000)), RunSnapshot.class);
        state = kept.into(Planner.plan(show), crash + 10 * SECOND, crash / 1000 + 10_000_000);
        Destination now =
                Destination.of(new Whereto.AsIfSince(crash), state, DryRun.of(state.plan()), state.nowNanos());
        now.before().forEach(this::order);
        pass(300);
        now.after().forEach(this::order);
        assertThat(state.playing().orElseThrow().position(state.nowNanos()) / MS)
                .as("the 300 ms that the orders took are counted too")
                .isEqualTo(12_240);
    }
}
