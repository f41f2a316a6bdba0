package underbaton.wire.session;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.ByteBuffer;
import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import org.junit.jupiter.api.Test;
import underbaton.core.midi.Bytes;
import underbaton.core.midi.ChannelMessage;
import underbaton.core.midi.ChannelMessage.NoteOn;
import underbaton.core.midi.ChannelMessage.ProgramChange;
import underbaton.core.midi.MidiMessage;
import underbaton.core.midi.RealTime;
import underbaton.core.midi.SysEx;

/** The MIDI command section, from memory of RFC 6295 §3. */
class CommandSectionTest {

    private final CommandReader reader = new CommandReader();

    private CommandReader.Result read(String hex) {
        return reader.read(ByteBuffer.wrap(Bytes.ofHex(hex).toArray()));
    }

    private static SysEx exclusive(int length) {
        byte[] body = new byte[length];
        for (int i = 0; i < length; i++) {
            body[i] = (byte) (i * 31 & 0x7F);
        }
        return new SysEx(Bytes.copyOf(body));
    }

    /** RFC 6295 §3.1: a delta time in ticks of the session's clock, here 100 µs, in one to four octets of seven bits. */
    @Test
    void whatOnePacketBringsWasSaidAtTheTimesThatItSays() {
        // Without Z: note 60; 10 ticks: note 62; 0x81 0x48 = 200 ticks: note 64.
        CommandReader.Result read = read("0C 90 3C 7F 0A 90 3E 7F 81 48 90 40 7F");
        assertThat(read.messages()).hasSize(3);
        assertThat(read.ages()).containsExactly(21_000_000L, 20_000_000L, 0L);
        assertThat(read("2E FF FF FF 7F 90 3C 7F FF FF FF 7F 90 3E 7F").ages())
                .as("no older than a second")
                .containsExactly(1_000_000_000L, 0L);
    }

    @Test
    void oneNoteTakesAShortHeader() {
        List<CommandWriter.Section> sections = CommandWriter.sections(List.of(new NoteOn(0, 28, 127)));
        assertThat(sections)
                .singleElement()
                .satisfies(s -> assertThat(Bytes.copyOf(s.bytes()).hex()).isEqualTo("03 90 1C 7F"));
    }

    @Test
    void sixteenBytesTakeALongHeader() {
        List<MidiMessage> five = new ArrayList<>();
        for (int i = 0; i < 5; i++) {
            five.add(new NoteOn(0, i, 127));
        }
        byte[] section = CommandWriter.sections(five).get(0).bytes();
        assertThat(section[0] & 0xFF).isEqualTo(0x80);
        assertThat(section[1]).isEqualTo((byte) 19);
        assertThat(reader.read(ByteBuffer.wrap(section)).messages()).isEqualTo(five);
    }

    @Test
    void runningStatusDeltaTimesAndAJournalBehindAreRead() {
        // J and Z set; delta 0, note on; delta 81 00h, running status; delta 0, real time; running status goes on.
        CommandReader.Result result = read("6D 00 90 3C 40 81 00 3E 41 00 F8 00 40 42" + "00 01 02 03 04");
        assertThat(result.trouble()).isEmpty();
        assertThat(result.messages())
                .containsExactly(new NoteOn(0, 60, 64), new NoteOn(0, 62, 65), RealTime.CLOCK, new NoteOn(0, 64, 66));
    }

    @Test
    void anExclusiveInSegmentsIsPutTogetherOverPackets() {
        assertThat(read("04 F0 7D 01 F0").messages()).isEmpty();
        assertThat(read("04 F7 02 03 F0").messages()).isEmpty();
        assertThat(read("03 F7 04 F7").messages()).containsExactly(new SysEx(Bytes.of(0x7D, 1, 2, 3, 4)));
        assertThat(read("04 F0 7D 01 F0").messages()).isEmpty();
        assertThat(read("02 F7 F4").messages()).as("taken back").isEmpty();
        assertThat(read("03 F7 04 F7").messages()).as("nothing was open").isEmpty();
    }

    @Test
    void longExclusivesAreSentInSegmentsThatFitAPacket() {
        for (int length : new int[] {10, 1198, 1199, 1200, 5000}) {
            List<CommandWriter.Section> sections =
                    CommandWriter.sections(List.of(new NoteOn(1, 1, 1), exclusive(length), new ProgramChange(0, 3)));
            List<MidiMessage> back = new ArrayList<>();
            for (CommandWriter.Section section : sections) {
                assertThat(section.bytes().length).isLessThanOrEqualTo(CommandWriter.MOST_BYTES + 2);
                back.addAll(reader.read(ByteBuffer.wrap(section.bytes())).messages());
            }
            assertThat(back).containsExactly(new NoteOn(1, 1, 1), exclusive(length), new ProgramChange(0, 3));
        }
    }

    @Test
    void whatIsWrittenIsReadBack() {
        Random random = new Random(11);
        for (int i = 0; i < 2000; i++) {
            List<MidiMessage> sent = new ArrayList<>();
            for (int n = random.nextInt(30); n >= 0; n--) {
                sent.add(ChannelMessage.decode(0x80 + random.nextInt(0x70), random.nextInt(128), random.nextInt(128)));
            }
            List<MidiMessage> back = new ArrayList<>();
            CommandWriter.sections(sent)
                    .forEach(s ->
                            back.addAll(reader.read(ByteBuffer.wrap(s.bytes())).messages()));
            assertThat(back).isEqualTo(sent);
        }
    }

    @Test
    void noiseIsToldAndNeverThrown() {
        Random random = new Random(5);
        int told = 0;
        for (int i = 0; i < 50_000; i++) {
            byte[] noise = new byte[random.nextInt(40)];
            random.nextBytes(noise);
            told += reader.read(ByteBuffer.wrap(noise)).trouble().isPresent() ? 1 : 0;
        }
        assertThat(told).isGreaterThan(10_000);
    }
}
