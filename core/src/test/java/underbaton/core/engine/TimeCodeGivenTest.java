package underbaton.core.engine;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.ArrayList;
import java.util.List;
import java.util.OptionalInt;
import java.util.Random;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.EnumSource;
import underbaton.core.cue.Shows;
import underbaton.core.engine.out.ScheduledMessage;
import underbaton.core.midi.Bytes;
import underbaton.core.midi.MidiMessage;
import underbaton.core.midi.TimeCode.Rate;
import underbaton.core.plan.Planner;
import underbaton.core.rig.Department;
import underbaton.core.rig.Device;
import underbaton.core.rig.InStep;
import underbaton.core.rig.InStep.Vamping;

/**
 * Time code and machine control as a player hears them. The decoder below is written from MIDI Time Code (RP-004/008): F1 with piece and
 * nibble, eight of them a place, which is that of the first; F0 7F dev 01 01 and four bytes for a full frame.
 */
class TimeCodeGivenTest extends PlayedShow {

    private void player(InStep how) {
        show = Shows.device(show, "Film", Department.VIDEO, 6);
        Device device = show.devices().get(show.devices().size() - 1);
        show = show.withDevice(device.withInStep(how));
    }

    private int film() {
        return show.devices().get(show.devices().size() - 1).id();
    }

    private int song() {
        return show.items().get(show.items().size() - 1).id();
    }

    private static InStep code(Rate rate) {
        return new InStep(false, true, false, rate, Vamping.COUNTS_ON);
    }

    private List<ScheduledMessage> toFilm() {
        List<ScheduledMessage> all =
                sent.stream().filter(m -> m.deviceId() == film()).toList();
        sent.clear();
        return all;
    }

    private List<String> words() {
        return toFilm().stream()
                .map(m -> ((MidiMessage) m.message()).encode().hex() + " @ " + m.dueNanos() / MS)
                .toList();
    }

    /** A place as it was read: hours, minutes, seconds, frames, and the two rate bits. */
    private record Read(int hours, int minutes, int seconds, int frames, int rateBits, long atNanos) {

        /** Counted by the numbers that are there, one after the other. */
        long count() {
            int a = rateBits == 0 ? 24 : rateBits == 1 ? 25 : 30;
            long whole = ((hours * 60L + minutes) * 60 + seconds) * a + frames;
            long all = hours * 60L + minutes;
            return rateBits == 2 ? whole - 2 * (all - all / 10) : whole;
        }
    }

    private static final class Decoder {

        private final int[] nibbles = new int[8];
        private int pieces;
        private long first;
        private final List<Read> read = new ArrayList<>();
        private final List<Read> full = new ArrayList<>();

        void hear(Bytes b, long at) {
            if (b.at(0) == 0xF1) {
                int piece = b.at(1) >> 4;
                pieces = piece == 0 ? 1 : piece == pieces ? pieces + 1 : 0;
                first = piece == 0 ? at : first;
                nibbles[piece] = b.at(1) & 15;
                if (pieces == 8) {
                    read.add(new Read(
                            nibbles[6] | (nibbles[7] & 1) << 4,
                            nibbles[4] | nibbles[5] << 4,
                            nibbles[2] | nibbles[3] << 4,
                            nibbles[0] | nibbles[1] << 4,
                            nibbles[7] >> 1,
                            first));
                }
            } else if (b.hex().startsWith("F0 7F 7F 01 01")) {
                full.add(new Read(b.at(5) & 31, b.at(6), b.at(7), b.at(8), b.at(5) >> 5, at));
                pieces = 0;
            }
        }
    }

    private static double frameNanos(Rate rate) {
        return switch (rate) {
            case FILM_24 -> 1e9 / 24;
            case PAL_25 -> 1e9 / 25;
            case DROP_29_97 -> 1e9 * 1001 / 30_000;
            case FULL_30 -> 1e9 / 30;
        };
    }

    private static int rateBits(Rate rate) {
        return switch (rate) {
            case FILM_24 -> 0;
            case PAL_25 -> 1;
            case DROP_29_97 -> 2;
            case FULL_30 -> 3;
        };
    }

    // ---- by hand

    @Test
    void a_song_begins_at_its_own_hour() {
        player(code(Rate.PAL_25));
        song("1 quarter = 120\n99 end");
        begin();
        order(new Order.Play(song(), 0));
        pass(35);
        // The second item of the running order: two o'clock; 25 frames are rate 01.
        assertThat(words())
                .containsExactly(
                        "F0 7F 7F 01 01 22 00 00 00 F7 @ 0", "F1 00 @ 0", "F1 10 @ 10", "F1 20 @ 20", "F1 30 @ 30");
        show = show.withItem(
                show.items().get(show.items().size() - 1).withCodeStart(OptionalInt.of(10 * 3600 + 62)), 0);
        begin();
        order(new Order.Play(song(), 0));
        assertThat(words()).startsWith("F0 7F 7F 01 01 2A 01 02 00 F7 @ 0");
    }

    @Test
    void two_items_of_one_hour_are_told() {
        player(code(Rate.PAL_25));
        song("1 quarter = 120\n9 end");
        assertThat(Planner.plan(show).sameCode(song())).isEmpty();
        // Eight bars and a bit last till 01:00:18, the scene before has the hour from 01:00:00 on.
        int scene = show.items().get(0).id();
        show = show.withItem(show.items().get(show.items().size() - 1).withCodeStart(OptionalInt.of(3600)), 0);
        assertThat(Planner.plan(show).sameCode(song()))
                .hasValueSatisfying(i -> assertThat(i.item().id()).isEqualTo(scene));
        assertThat(Planner.plan(show).sameCode(scene)).isPresent();
    }

    @Test
    void a_player_is_located_and_plays_and_stops() {
        player(new InStep(false, false, true, Rate.PAL_25, Vamping.COUNTS_ON));
        song("1 quarter = 120\n99 end");
        begin();
        order(new Order.Play(song(), 4_000 * MS));
        assertThat(words())
                .containsExactly(
                        "F0 7F 7F 06 01 F7 @ 0", "F0 7F 7F 06 44 06 01 22 00 04 00 00 F7 @ 0", "F0 7F 7F 06 03 F7 @ 0");
        pass(10_000);
        order(new Order.Hold());
        assertThat(words()).containsExactly("F0 7F 7F 06 01 F7 @ 10000");
        order(new Order.Resume());
        assertThat(words())
                .containsExactly("F0 7F 7F 06 44 06 01 22 00 0E 00 00 F7 @ 10000", "F0 7F 7F 06 03 F7 @ 10000");
        order(new Order.Pace(900));
        pass(1_000);
        assertThat(words()).isEmpty();
    }

    // ---- against the decoder

    @ParameterizedTest
    @EnumSource(Rate.class)
    void every_frame_of_an_hour_is_told_at_its_time(Rate rate) {
        player(code(rate));
        song("1 quarter = 60\n1200 end");
        begin();
        order(new Order.Play(song(), 0));
        Decoder decoder = new Decoder();
        // Heard from the middle on, as by a player that is switched on late.
        for (int minute = 0; minute < 62; minute++) {
            pass(60_000);
            for (ScheduledMessage m : toFilm()) {
                if (m.dueNanos() > 3_333_333) {
                    decoder.hear(((MidiMessage) m.message()).encode(), m.dueNanos());
                }
            }
        }
        long first = (rate == Rate.DROP_29_97 ? 2 * 107_892 : 7200L * rate.frames());
        assertThat(decoder.read).hasSizeGreaterThan(3600 * 24 / 2);
        long before = -1;
        for (Read read : decoder.read) {
            long frame = read.count() - first;
            assertThat((double) read.atNanos()).isCloseTo(frame * frameNanos(rate), within(2.0));
            assertThat(read.rateBits()).isEqualTo(rateBits(rate));
            assertThat(frame).isEqualTo(before < 0 ? 2 : before + 2);
            before = frame;
        }
    }

    @ParameterizedTest
    @EnumSource(Rate.class)
    void after_each_jump_the_player_is_where_the_music_is(Rate rate) {
        Random random = new Random(rate.ordinal());
        player(code(rate));
        song("1 quarter = 60\n1200 end");
        begin();
        order(new Order.Play(song(), 0));
        long first = (rate == Rate.DROP_29_97 ? 2 * 107_892 : 7200L * rate.frames());
        for (int jump = 0; jump < 200; jump++) {
            toFilm();
            long to = (long) (random.nextDouble() * 3_000 * SECOND);
            long now = state.nowNanos();
            order(random.nextBoolean() ? new Order.Locate(to) : new Order.Play(song(), to));
            pass(400);
            Decoder decoder = new Decoder();
            toFilm().forEach(m -> decoder.hear(((MidiMessage) m.message()).encode(), m.dueNanos()));
            assertThat(decoder.full).hasSize(1);
            double frame = frameNanos(rate);
            double place = (decoder.full.get(0).count() - first) * frame;
            assertThat(place - to).isBetween(-1_001.0, frame);
            assertThat(decoder.read).hasSizeGreaterThan(2);
            for (Read read : decoder.read) {
                double at = (read.count() - first) * frame;
                assertThat(at - to).isCloseTo(read.atNanos() - now, within(3.0));
            }
            pass(random.nextInt(500));
        }
    }
}
