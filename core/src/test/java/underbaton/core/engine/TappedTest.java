package underbaton.core.engine;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.Optional;
import java.util.Random;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.EnumSource;
import underbaton.core.cue.Item;
import underbaton.core.cue.ItemKind;
import underbaton.core.cue.Shows;
import underbaton.core.follow.Doing;
import underbaton.core.follow.Following;
import underbaton.core.follow.Following.Kind;
import underbaton.core.midi.MidiMessage;
import underbaton.core.midi.TimeCode.Rate;

/** A band without a click, and somebody who taps along: the cues keep their beats. The band's true beats are worked out here, beat by beat. */
class TappedTest extends PlayedShow {

    /** Other bands than those by which the estimator was made (0 to 19). */
    private static final int BANDS = Integer.getInteger("baton.bands", 20);

    private static final int FIRST = Integer.getInteger("baton.band", 1000);
    private static final int BARS = 48;
    /** As written, a minute. */
    private static final double TEMPO = 112;

    private static final double TAPPED_MS = 15;

    /** Which beats are tapped. */
    private enum Hand {
        EACH,
        ONES,
        TWICE
    }

    private void band() {
        show = Shows.small();
        show = show.withItem(
                new Item(0, ItemKind.SONG, "Song", 0, List.of()), show.items().size());
        song(
                "1 quarter = 112\n60 end",
                IntStream.range(2, BARS)
                        .mapToObj(b -> "at " + b + ":1 | " + (b % 2 == 0 ? "Amber" : "Blue"))
                        .toArray(String[]::new));
        Item song = show.items().get(show.items().size() - 1);
        Following taps = new Following(0, Kind.TAPS, Rate.PAL_25, 0, 10);
        show = show.withItem(song.withFollows(Optional.of(taps)), 0);
        begin();
    }

    /** When each beat of the band comes, ns: drifting by 4 % to and fro, and 20 % slower within four bars. */
    private static long[] beats(Random random) {
        long[] beats = new long[BARS * 4];
        double at = 0;
        double phase = random.nextDouble() * 2 * Math.PI;
        for (int i = 0; i < beats.length; i++) {
            beats[i] = Math.round(at);
            double drift = 1 + 0.04 * Math.sin(phase + i / 40.0 * 2 * Math.PI / 2);
            double rit = Math.max(0, Math.min(1, (i - 100) / 16.0)) * 0.2;
            at += 60e9 / TEMPO / (drift * (1 - rit));
        }
        return beats;
    }

    private record Tap(long nanos) {}

    private static List<Tap> taps(long[] beats, Hand hand, Random random) {
        List<Tap> taps = new ArrayList<>();
        for (int i = 0; i < beats.length - 1; i++) {
            boolean taken = hand != Hand.ONES || i % 4 == 0;
            long half = (beats[i + 1] - beats[i]) / 2;
            for (int of = 0; taken && of < (hand == Hand.TWICE ? 2 : 1); of++) {
                double luck = random.nextDouble();
                if (luck < 0.05) {
                    continue;
                }
                double off = luck < 0.07
                        ? random.nextDouble() * (beats[i + 1] - beats[i])
                        : random.nextGaussian() * TAPPED_MS * MS;
                taps.add(new Tap(Math.max(0, beats[i] + of * half + Math.round(off))));
            }
        }
        taps.sort((one, other) -> Long.compare(one.nanos, other.nanos));
        return taps;
    }

    @ParameterizedTest
    @EnumSource(names = "EACH")
    void cues_come_on_the_bands_own_beats(Hand hand) {
        List<Double> each = new ArrayList<>();
        for (int seed = FIRST; seed < FIRST + BANDS; seed++) {
            Random random = new Random(seed);
            band();
            sent.clear();
            long[] beats = beats(random);
            order(new Order.Play(show.items().get(show.items().size() - 1).id(), 0));
            for (Tap tap : taps(beats, hand, random)) {
                while (tap.nanos > state.nowNanos() + 5 * MS) {
                    pass(5);
                }
                hear(Engine.step(state, Event.of(Math.max(state.nowNanos(), tap.nanos), new Order.Tap())));
            }
            each.add(rms(beats, seed, hand));
        }
        double all = Math.sqrt(each.stream().mapToDouble(r -> r * r).average().orElseThrow());
        long beyond = each.stream().filter(r -> r > 30).count();
        System.out.printf(
                "tapped %s: %d bands together RMS %.1f ms, %d of them beyond 30 ms, the worst %.1f ms%n",
                hand, BANDS, all, beyond, Collections.max(each));
        assertThat(all).isLessThan(30);
    }

    /** Of the cues from the fifth bar on, each of which has come once and in its order. */
    private double rms(long[] beats, int seed, Hand hand) {
        int lights = show.devices().get(0).id();
        List<Long> came = new ArrayList<>();
        List<String> looks = new ArrayList<>();
        sent.stream().filter(m -> m.deviceId() == lights).forEach(m -> {
            came.add(m.dueNanos());
            looks.add(((MidiMessage) m.message()).encode().hex());
        });
        List<String> written = IntStream.range(2, 2 + looks.size())
                .mapToObj(b -> b % 2 == 0 ? "90 01 7F" : "90 02 7F")
                .toList();
        assertThat(looks)
                .as("%s, seed %d", hand, seed)
                .hasSizeGreaterThan(BARS - 6)
                .isEqualTo(written);
        return Math.sqrt(IntStream.range(3, came.size())
                .mapToDouble(i -> (came.get(i) - beats[(i + 1) * 4]) / 1e6)
                .map(d -> d * d)
                .average()
                .orElseThrow());
    }

    @Test
    void who_stops_tapping_lets_the_last_tempo_go_on_and_who_moves_the_music_is_followed_there() {
        band();
        order(new Order.Play(show.items().get(show.items().size() - 1).id(), 0));
        assertThat(state.follow().doing().doing()).isEqualTo(Doing.WAITS);
        // A tenth slower than written: a beat lasts 595 ms.
        for (int beat = 1; beat <= 24; beat++) {
            pass(595);
            order(new Order.Tap());
        }
        assertThat(state.follow().doing().doing()).isEqualTo(Doing.FOLLOWS);
        int pace = state.playing().orElseThrow().anchor().permille();
        assertThat(pace).isBetween(885, 915);
        pass(9_000);
        assertThat(state.follow().doing().doing()).isEqualTo(Doing.ALONE);
        assertThat(state.playing().orElseThrow().anchor().permille()).isEqualTo(pace);
        order(new Order.Locate(10 * SECOND));
        assertThat(state.follow().doing().doing())
                .as("nobody has taken it away")
                .isEqualTo(Doing.WAITS);
        order(new Order.Tap());
        long there = state.playing().orElseThrow().position(state.nowNanos());
        assertThat(there).isBetween(10 * SECOND - 200 * MS, 10 * SECOND + 200 * MS);
    }

    @Test
    void a_pace_that_changes_too_fast_is_believed_only_by_and_by() {
        band();
        order(new Order.Play(show.items().get(show.items().size() - 1).id(), 0));
        for (int beat = 0; beat < 3; beat++) {
            pass(700);
            order(new Order.Tap());
        }
        assertThat(state.playing().orElseThrow().anchor().permille()).isGreaterThan(900);
    }
}
