package underbaton.core.engine;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.Random;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import underbaton.core.cue.Item;
import underbaton.core.cue.ItemKind;
import underbaton.core.cue.Shows;
import underbaton.core.engine.out.ScheduledMessage;
import underbaton.core.midi.MidiMessage;
import underbaton.core.midi.TimeCode.Rate;
import underbaton.core.plan.Planner;
import underbaton.core.rig.Department;
import underbaton.core.rig.Device;
import underbaton.core.rig.InStep;
import underbaton.core.rig.InStep.Vamping;
import underbaton.core.score.Score;

/**
 * The MIDI clock as a machine hears it (MIDI 1.0, system real-time and song position: F8 24 a quarter, FA from the top, FB from the place
 * that F2 told in units of six clocks, FC stops). The receiver below knows only bytes, and the times of the clocks are summed up here.
 */
class MidiClockTest extends PlayedShow {

    private static final InStep CLOCK = new InStep(true, false, false, Rate.PAL_25, Vamping.COUNTS_ON);
    private static final InStep BACK = new InStep(true, false, false, Rate.PAL_25, Vamping.GOES_BACK);

    private void clocked(InStep how) {
        show = Shows.device(show, "Sequencer", Department.SOUND, 5);
        Device device = show.devices().get(show.devices().size() - 1);
        show = show.withDevice(device.withInStep(how));
    }

    private int sequencer() {
        return show.devices().get(show.devices().size() - 1).id();
    }

    private int song() {
        return show.items().get(show.items().size() - 1).id();
    }

    /** What the sequencer got, {@code FA @ 0}, in ms; clocks that follow each other are counted. */
    private List<String> got() {
        List<String> words = new ArrayList<>();
        int clocks = 0;
        for (ScheduledMessage m : sent) {
            if (m.deviceId() != sequencer()) {
                continue;
            }
            String hex = ((MidiMessage) m.message()).encode().hex();
            if (hex.equals("F8")) {
                clocks++;
                continue;
            }
            if (clocks > 0) {
                words.add(clocks + " clocks");
            }
            clocks = 0;
            words.add(hex + " @ " + m.dueNanos() / MS);
        }
        if (clocks > 0) {
            words.add(clocks + " clocks");
        }
        sent.clear();
        return words;
    }

    // ---- by hand

    @Test
    void starts_at_the_top_stops_in_a_hold_and_goes_on_at_the_next_sixteenth() {
        clocked(CLOCK);
        song("1 quarter = 120\n9 end");
        begin();
        order(new Order.Play(song(), 0));
        // Nobody knows what it was told before.
        assertThat(got()).containsExactly("FC @ 0", "FA @ 0", "1 clocks");
        pass(1100);
        // 2.2 quarters: the clocks 1 to 52.
        assertThat(got()).containsExactly("52 clocks");
        order(new Order.Hold());
        assertThat(got()).containsExactly("FC @ 1100");
        pass(5000);
        assertThat(got()).isEmpty();
        order(new Order.Resume());
        // The ninth sixteenth lies 25 ms on.
        assertThat(got()).containsExactly("F2 09 00 @ 6100");
        pass(25);
        assertThat(got()).containsExactly("FB @ 6125", "1 clocks");
    }

    @Test
    void a_jump_is_stop_position_continue() {
        clocked(CLOCK);
        song("1 quarter = 120\n99 end");
        begin();
        order(new Order.Play(song(), 0));
        pass(1000);
        got();
        // Bar 33 begins with the 512th sixteenth: 00 04 in two times seven bits, low ones first.
        order(new Order.Locate(32 * 4 * 500 * MS));
        assertThat(got()).containsExactly("FC @ 1000", "F2 00 04 @ 1000", "FB @ 1000", "1 clocks");
        order(new Order.StopAll());
        assertThat(got()).containsExactly("FC @ 1000");
        pass(10_000);
        assertThat(got()).isEmpty();
    }

    @Test
    void while_the_music_stands_a_jump_tells_the_place_and_no_more() {
        clocked(CLOCK);
        song("1 quarter = 120\n99 end");
        begin();
        order(new Order.Play(song(), 0));
        order(new Order.Pause());
        got();
        order(new Order.Locate(2_000 * MS));
        assertThat(got()).containsExactly("F2 10 00 @ 0");
        order(new Order.Resume());
        assertThat(got()).containsExactly("F2 10 00 @ 0", "FB @ 0", "1 clocks");
    }

    @Test
    void a_vamp_is_counted_on_or_goes_back_as_the_machine_wants_it() {
        String vamp = "1 quarter = 120\n2 vamp 1 bar, leave at the end\n9 end";
        clocked(CLOCK);
        song(vamp);
        begin();
        order(new Order.Play(song(), 0));
        pass(8_000);
        assertThat(got()).containsExactly("FC @ 0", "FA @ 0", "385 clocks");
        order(new Order.Release());
        pass(3_000);
        assertThat(got()).containsExactly("144 clocks");

        show = show.withDevice(show.devices().get(show.devices().size() - 1).withInStep(BACK));
        begin();
        order(new Order.Play(song(), 0));
        pass(6_500);
        assertThat(got())
                .containsExactly(
                        "FC @ 0",
                        "FA @ 0",
                        "192 clocks",
                        "FC @ 4000",
                        "F2 10 00 @ 4000",
                        "FB @ 4000",
                        "96 clocks",
                        "FC @ 6000",
                        "F2 10 00 @ 6000",
                        "FB @ 6000",
                        "25 clocks");
    }

    @Test
    void who_could_not_hear_is_told_the_place_when_he_can() {
        clocked(CLOCK);
        song("1 quarter = 120\n99 end");
        begin();
        order(new Order.Play(song(), 0));
        order(new Order.Lost(sequencer()));
        got();
        pass(2_010);
        assertThat(got()).isEmpty();
        order(new Order.Found(sequencer()));
        pass(115);
        assertThat(got()).containsExactly("FC @ 2010", "F2 11 00 @ 2010", "FB @ 2125", "1 clocks");
        // What it misses is not only a place: it plays on though the music has stopped.
        order(new Order.Lost(sequencer()));
        order(new Order.StopAll());
        pass(1_000);
        assertThat(got()).isEmpty();
        order(new Order.Found(sequencer()));
        assertThat(got()).containsExactly("FC @ 3125");
    }

    @Test
    void an_edit_of_the_machine_ends_or_begins_it_while_the_music_plays() {
        clocked(CLOCK);
        song("1 quarter = 120\n99 end");
        begin();
        order(new Order.Play(song(), 0));
        pass(1_000);
        got();
        Device device = show.devices().get(show.devices().size() - 1);
        show = show.withDevice(device.withInStep(InStep.NOT));
        order(new Order.Adopt(Planner.plan(show)));
        assertThat(got()).containsExactly("FC @ 1000");
        show = show.withDevice(device);
        order(new Order.Adopt(Planner.plan(show)));
        assertThat(got()).containsExactly("FC @ 1000", "F2 08 00 @ 1000", "FB @ 1000", "1 clocks");
        // Of a score that says the same nothing is heard.
        Item item = show.items().get(show.items().size() - 1);
        show = show.withItem(item.withScore(Optional.of(Score.of("1 quarter = 120\n80 end"))), 0);
        order(new Order.Adopt(Planner.plan(show)));
        pass(500);
        assertThat(got()).containsExactly("24 clocks");
    }

    @Test
    void no_other_machine_gets_any_of_it() {
        song("1 quarter = 120\n9 end", "at 2:1");
        begin();
        order(new Order.Play(song(), 0));
        pass(4_000);
        assertThat(sent()).containsExactly("cue 10 90 01 7F @ 0", "cue 20 90 01 7F @ 2000");
    }

    // ---- against a receiver

    /** A song of 4/4 with changes of tempo, and when its clocks come, summed up here. */
    private static final class Song {

        private static final int BARS = 48;
        private static final int STEPS = 40;

        private final StringBuilder score = new StringBuilder();
        private final double[] clocks;
        private final int pickUp;

        Song(Random random) {
            pickUp = random.nextInt(3) == 0 ? 1 : 0;
            if (pickUp > 0) {
                score.append("pick-up 1 quarter\n");
            }
            double[] from = new double[BARS + 2];
            double[] over = new double[BARS + 2];
            double[] held = new double[BARS + 2];
            double tempo = tempo(random);
            from[1] = tempo;
            score.append((pickUp > 0 ? "0:4 " : "1 ") + "quarter = ")
                    .append(words(tempo))
                    .append('\n');
            int free = 2;
            for (int bar = 2; bar <= BARS; bar++) {
                if (bar < free || random.nextInt(4) > 0) {
                    continue;
                }
                int what = random.nextInt(3);
                int bars = 1 + random.nextInt(3);
                if (what == 0) {
                    held[bar] = 0.2 + random.nextInt(20) / 10.0;
                    score.append(bar).append(" hold ").append(words(held[bar])).append(" s\n");
                    free = bar + 1;
                } else {
                    from[bar] = tempo(random);
                    over[bar] = what == 1 ? bars : 0;
                    score.append(bar + " quarter = " + words(from[bar]));
                    score.append(what == 1 ? " over " + bars + " bars\n" : "\n");
                    free = bar + bars + 1;
                }
            }
            score.append(BARS).append(" end\n");
            clocks = new double[(BARS * 4 + pickUp) * 24 + 1];
            double at = 0;
            double reached = tempo;
            double was = tempo;
            double rampFrom = 0;
            double rampTo = 0;
            for (int clock = 0; clock < clocks.length; clock++) {
                clocks[clock] = at;
                double quarter = clock / 24.0 - pickUp;
                if (quarter >= 0 && quarter % 4 == 0) {
                    int bar = (int) (quarter / 4) + 1;
                    at += held[bar] * 1e9;
                    if (bar > 1 && from[bar] > 0) {
                        was = reached;
                        reached = from[bar];
                        rampFrom = quarter;
                        rampTo = quarter + 4 * over[bar];
                    }
                }
                // The midpoints of small steps, the speed being linear in the place.
                for (int i = 0; i < STEPS; i++) {
                    double x = quarter + (i + 0.5) / STEPS / 24;
                    double along = x >= rampFrom && x < rampTo ? (x - rampFrom) / (rampTo - rampFrom) : 1;
                    at += 60e9 / (was + (reached - was) * along) / 24 / STEPS;
                }
            }
        }

        private static double tempo(Random random) {
            return 40 + random.nextInt(2001) / 10.0;
        }

        private static String words(double number) {
            return String.format(Locale.ROOT, "%.1f", number);
        }

        double ofBar(int bar) {
            return clocks[((bar - 1) * 4 + pickUp) * 24];
        }
    }

    /** Where the music is, by what was ordered. */
    private double atNanos;

    private double position;
    private int pace = 1000;
    private boolean stands;
    private long ordered;
    private long clocks;
    private double worst;
    private final ClockFollower receiver = new ClockFollower();

    private double musicAt(double nanos) {
        return stands ? position : position + (nanos - atNanos) * pace / 1000;
    }

    private void hearAll(Song song, String seed) {
        for (ScheduledMessage m : sent) {
            if (m.deviceId() != sequencer()) {
                continue;
            }
            int place = receiver.hear(((MidiMessage) m.message()).encode());
            if (place >= 0) {
                double expected = atNanos + (song.clocks[place] - position) * 1000 / pace;
                assertThat((double) m.dueNanos())
                        .as("%s: clock %d", seed, place)
                        .isCloseTo(Math.max(expected, ordered), within(5_000.0));
                worst = Math.max(worst, Math.abs(m.dueNanos() - Math.max(expected, ordered)));
                clocks++;
            }
        }
        sent.clear();
        assertThat(receiver.wrong()).as(seed).isEmpty();
        assertThat(receiver.stopsInVain()).as(seed).isLessThanOrEqualTo(1);
        boolean ended = musicAt(state.nowNanos()) >= song.clocks[song.clocks.length - 1] - 1000;
        assertThat(receiver.runs() && !stands && !ended || !receiver.runs() || ended)
                .as(seed)
                .isTrue();
        if (receiver.runs() && !ended) {
            double next = atNanos + (song.clocks[receiver.next()] - position) * 1000 / pace;
            assertThat(next).as("%s: none is missing", seed).isGreaterThan(state.nowNanos() - 5_000.0);
        }
    }

    private void moved(double to) {
        position = to;
        atNanos = state.nowNanos();
        ordered = state.nowNanos();
    }

    @ParameterizedTest
    @ValueSource(longs = {1, 2, 3, 4, 5, 6, 7, 8, 9, 10, 11, 12})
    void none_is_missing_none_doubled_and_each_comes_at_its_time(long seed) {
        Random random = new Random(seed);
        clocked(CLOCK);
        show = show.withItem(new Item(0, ItemKind.SONG, "Another", 0, List.of()), 0);
        Song song = new Song(random);
        song(song.score.toString());
        begin();
        for (int act = 0; act < 130; act++) {
            String where = "seed " + seed + ", act " + act;
            boolean plays = state.music().playing().isPresent();
            int what = plays ? random.nextInt(8) : 0;
            if (what == 0) {
                order(new Order.Play(song(), (long) song.ofBar(1 + random.nextInt(30))));
                stands = false;
                pace = state.music().playing().orElseThrow().anchor().permille();
                moved(state.music().playing().orElseThrow().anchor().fromNanos());
            } else if (what == 1 || what == 2) {
                double at = musicAt(state.nowNanos());
                order(stands ? new Order.Resume() : what == 1 ? new Order.Hold() : new Order.Pause());
                stands = !stands;
                moved(at);
            } else if (what == 3) {
                long to = (long) song.ofBar(1 + random.nextInt(30)) + random.nextInt(3) * 77_000_000L;
                order(new Order.Locate(to));
                moved(to);
            } else if (what == 4 && !stands) {
                double at = musicAt(state.nowNanos());
                pace = 700 + random.nextInt(600);
                order(new Order.Pace(pace));
                moved(at);
            } else if (what == 5) {
                long by = random.nextBoolean() ? Order.NUDGE_NANOS : -Order.NUDGE_NANOS;
                double at = musicAt(state.nowNanos()) + by;
                order(new Order.Nudge(by));
                moved(at);
            }
            hearAll(song, where);
            pass(random.nextInt(what == 5 ? 200 : 6_000));
            hearAll(song, where + ", later");
        }
        System.out.printf("clock: %,d clocks, the worst %.0f ns off%n", clocks, worst);
        assertThat(clocks).isGreaterThan(4_000);
    }
}
