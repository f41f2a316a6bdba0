package underbaton.core.midi;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import javax.sound.midi.InvalidMidiDataException;
import javax.sound.midi.ShortMessage;
import org.junit.jupiter.api.Test;
import underbaton.core.midi.ChannelMessage.BankProgram;
import underbaton.core.midi.ChannelMessage.ControlChange;
import underbaton.core.midi.ChannelMessage.NoteOn;
import underbaton.core.midi.ChannelMessage.PitchBend;
import underbaton.core.midi.ChannelMessage.ProgramChange;

class MidiMessageTest {

    /** Status bytes from memory of the MIDI 1.0 Detailed Specification; confirmed by the JDK's own short messages. */
    @Test
    void channelMessagesAreWhatTheJdkReads() throws InvalidMidiDataException {
        for (int status = 0x80; status < 0xF0; status++) {
            ChannelMessage ours = ChannelMessage.decode(status, 60, 100);
            byte[] bytes = ours.encode().toArray();
            ShortMessage theirs = bytes.length == 2
                    ? new ShortMessage(bytes[0] & 0xFF, bytes[1], 0)
                    : new ShortMessage(bytes[0] & 0xFF, bytes[1], bytes[2]);
            assertThat(theirs.getMessage()).isEqualTo(bytes);
            assertThat(theirs.getChannel()).isEqualTo(ours.channel());
            assertThat(theirs.getStatus()).isEqualTo(status);
        }
    }

    /** MIDI 1.0 Detailed Specification, from memory: bank select 0/32 goes before the program it belongs to. */
    @Test
    void bankGoesBeforeItsProgram() {
        BankProgram message = new BankProgram(2, 3 * 128 + 5, 9);
        assertThat(message.encode().hex()).isEqualTo("B2 00 03 B2 20 05 C2 09");
        assertThat(message.commands())
                .containsExactly(new ControlChange(2, 0, 3), new ControlChange(2, 32, 5), new ProgramChange(2, 9));
    }

    /** MIDI 1.0 Detailed Specification, from memory: the bend's centre is 2000h, low seven bits first. */
    @Test
    void bendCentreIs2000Hex() {
        assertThat(new PitchBend(0, PitchBend.CENTRE).encode().hex()).isEqualTo("E0 00 40");
        assertThat(new SystemCommon.SongPosition(0x0102).encode().hex()).isEqualTo("F2 02 02");
    }

    /** MIDI Show Control 1.0 (RP-002/014), from memory: GO of cue 8 in list 36 on device 2, lighting. */
    @Test
    void showControlIsTheDocumentsExample() {
        ShowControl go = new ShowControl(2, ShowControl.LIGHTING, ShowControl.Command.GO, "8", "36", "");
        assertThat(go.encode().hex()).isEqualTo("F0 7F 02 02 01 01 38 00 33 36 F7");
        assertThat(Exclusive.decode(go.body())).isEqualTo(go);
    }

    /** MIDI Machine Control (RP-013) and MIDI Time Code (RP-004/008), from memory. */
    @Test
    void machineControlAndTimeCodeFollowTheirDocuments() {
        TimeCode at = new TimeCode(TimeCode.Rate.PAL_25, 1, 2, 3, 4);
        assertThat(MachineControl.of(0x7F, MachineControl.Command.PLAY).encode().hex())
                .isEqualTo("F0 7F 7F 06 02 F7");
        assertThat(MachineControl.locate(0x7F, at).encode().hex()).isEqualTo("F0 7F 7F 06 44 06 01 21 02 03 04 00 F7");
        assertThat(new FullFrame(0x7F, at).encode().hex()).isEqualTo("F0 7F 7F 01 01 21 02 03 04 F7");
        assertThat(new SystemCommon.QuarterFrame(7, 0b0110).encode().hex()).isEqualTo("F1 76");
    }

    @Test
    void everyMessageComesBackFromItsBytes() {
        Random random = new Random(7);
        for (int i = 0; i < 20_000; i++) {
            MidiMessage message = Messages.random(random);
            List<MidiMessage> back = new ArrayList<>();
            parse(message.encode(), back);
            assertThat(back).isEqualTo(message.commands());
        }
    }

    @Test
    void anExclusiveThatWouldNotComeOutTheSameStaysRaw() {
        Bytes odd = Bytes.ofHex("7F 02 02 01 01 38 00 33 36 00 00 00");
        assertThat(Exclusive.decode(odd)).isEqualTo(new SysEx(odd));
    }

    @Test
    void numbersTheWireCannotCarryAreRefused() {
        assertThatThrownBy(() -> new NoteOn(0, 128, 1)).hasMessageContaining("note must be 0 to 127, not 128");
        assertThatThrownBy(() -> new NoteOn(16, 0, 1)).hasMessageContaining("channel");
        assertThatThrownBy(() -> new SysEx(Bytes.of(0x80))).hasMessageContaining("0 to 127");
        assertThatThrownBy(() -> new ShowControl(0, 1, ShowControl.Command.GO, "8a", "", ""))
                .hasMessageContaining("digits and points");
    }

    private static void parse(Bytes bytes, List<MidiMessage> into) {
        MidiParser parser = new MidiParser(1000, new MidiParser.Sink() {
            @Override
            public void message(MidiMessage message) {
                into.add(message);
            }

            @Override
            public void trouble(MidiParser.Trouble trouble) {
                throw new AssertionError(trouble);
            }
        });
        byte[] all = bytes.toArray();
        parser.accept(all, 0, all.length);
    }
}
