package underbaton.core.midi;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import org.junit.jupiter.api.Test;
import underbaton.core.midi.ChannelMessage.NoteOn;
import underbaton.core.midi.ChannelMessage.ProgramChange;
import underbaton.core.midi.MidiParser.Trouble;

/** Rules of the stream from memory of the MIDI 1.0 Detailed Specification. */
class MidiParserTest {

    private static final int LIMIT = 256;

    private final List<Object> found = new ArrayList<>();

    private MidiParser parser(List<Object> into) {
        return new MidiParser(LIMIT, new MidiParser.Sink() {
            @Override
            public void message(MidiMessage message) {
                into.add(message);
            }

            @Override
            public void trouble(Trouble trouble) {
                into.add(trouble);
            }
        });
    }

    private List<Object> parse(String hex) {
        byte[] bytes = Bytes.ofHex(hex).toArray();
        parser(found).accept(bytes, 0, bytes.length);
        return found;
    }

    @Test
    void runningStatusIsKeptAcrossRealTime() {
        assertThat(parse("90 3C 40 F8 3E F8 41"))
                .containsExactly(new NoteOn(0, 60, 64), RealTime.CLOCK, RealTime.CLOCK, new NoteOn(0, 62, 65));
    }

    @Test
    void runningStatusIsCancelledBySystemCommon() {
        assertThat(parse("C1 05 06 F3 07 08"))
                .containsExactly(
                        new ProgramChange(1, 5),
                        new ProgramChange(1, 6),
                        new SystemCommon.SongSelect(7),
                        Trouble.STRAY_DATA);
    }

    @Test
    void realTimeMayStandInsideAnExclusive() {
        assertThat(parse("F0 7D 01 FA 02 F7")).containsExactly(RealTime.START, new SysEx(Bytes.of(0x7D, 1, 2)));
    }

    @Test
    void anUnfinishedExclusiveIsToldAndTheNextMessageIsRead() {
        assertThat(parse("F0 7D 01 90 3C 7F")).containsExactly(Trouble.CUT_SHORT, new NoteOn(0, 60, 127));
    }

    @Test
    void garbageIsToldWhereItStandsAndPassedOver() {
        assertThat(parse("01 F7 F4 F9 90 3C 80 3C 00"))
                .containsExactly(
                        Trouble.STRAY_DATA,
                        Trouble.STRAY_END,
                        Trouble.UNDEFINED_STATUS,
                        Trouble.UNDEFINED_STATUS,
                        Trouble.CUT_SHORT,
                        new ChannelMessage.NoteOff(0, 60, 0));
    }

    @Test
    void anExclusiveOverTheLimitIsDroppedWhole() {
        assertThat(parse("F0" + " 11".repeat(LIMIT + 50) + " F7 C0 01"))
                .containsExactly(Trouble.TOO_LONG, new ProgramChange(0, 1));
    }

    @Test
    void aMillionBytesOfNoiseReadTheSameInAnyChunks() {
        byte[] noise = new byte[1_000_000];
        new Random(20260624).nextBytes(noise);
        List<Object> whole = new ArrayList<>();
        parser(whole).accept(noise, 0, noise.length);
        assertThat(whole).hasSizeGreaterThan(100_000);
        Random cuts = new Random(1);
        for (int longest : new int[] {1, 2, 7, 1000, 100_000}) {
            List<Object> pieces = new ArrayList<>();
            MidiParser parser = parser(pieces);
            for (int from = 0; from < noise.length; ) {
                int length = Math.min(noise.length - from, 1 + cuts.nextInt(longest));
                parser.accept(noise, from, length);
                from += length;
            }
            assertThat(pieces).as("chunks up to " + longest).isEqualTo(whole);
        }
    }
}
