package underbaton.core.exchange;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Random;
import javax.sound.midi.MidiSystem;
import javax.sound.midi.Sequence;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import underbaton.core.exchange.MidiFile.Channel;
import underbaton.core.exchange.MidiFile.Event;
import underbaton.core.exchange.MidiFile.Frames;
import underbaton.core.exchange.MidiFile.Meta;
import underbaton.core.exchange.MidiFile.Quarters;
import underbaton.core.exchange.MidiFile.SystemExclusive;
import underbaton.core.exchange.MidiFile.Track;
import underbaton.core.midi.Bytes;
import underbaton.core.midi.ChannelMessage.ControlChange;
import underbaton.core.midi.ChannelMessage.NoteOn;
import underbaton.core.midi.ChannelMessage.ProgramChange;
import underbaton.core.rig.Refusal;

class MidiFileTest {

    /** The worked example of Standard MIDI Files 1.0, format 0; from memory of the document. */
    private static final String EXAMPLE =
            """
            4D 54 68 64 00 00 00 06 00 00 00 01 00 60 4D 54 72 6B 00 00 00 3B 00 FF 58 04 04 02 18 08 00 FF 51 03 07 A1 20
            00 C0 05 00 C1 2E 00 C2 46 00 92 30 60 00 3C 60 60 91 43 40 60 90 4C 20 81 40 82 30 40 00 3C 40 00 81 43 40 00
            80 4C 40 00 FF 2F 00""";

    /** The table of Standard MIDI Files 1.0; from memory of the document. */
    @ParameterizedTest
    @CsvSource({
        "0,00",
        "40,40",
        "7F,7F",
        "80,81 00",
        "2000,C0 00",
        "3FFF,FF 7F",
        "4000,81 80 00",
        "100000,C0 80 00",
        "1FFFFF,FF FF 7F",
        "200000,81 80 80 00",
        "FFFFFFF,FF FF FF 7F"
    })
    void quantitiesOfVariableLengthAreTheDocuments(String value, String octets) {
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        MidiFileWriter.variable(out, Long.parseLong(value, 16));
        assertThat(Bytes.copyOf(out.toByteArray()).hex()).isEqualTo(octets);
        Track track = new Track(List.of(), Long.parseLong(value, 16));
        MidiFile file = new MidiFile(0, new Quarters(96), List.of(track));
        assertThat(MidiFile.read(file.write())).isEqualTo(file);
    }

    @Test
    void theDocumentsExampleIsReadAsItSays() throws Exception {
        byte[] example = Bytes.ofHex(EXAMPLE).toArray();
        MidiFile file = MidiFile.read(example);
        assertThat(file.division()).isEqualTo(new Quarters(96));
        Track track = file.tracks().get(0);
        assertThat(track.events())
                .startsWith(
                        new Event(0, new Meta(MidiFile.METER, Bytes.ofHex("04 02 18 08"))),
                        new Event(0, new Meta(MidiFile.TEMPO, Bytes.ofHex("07 A1 20"))),
                        new Event(0, new Channel(new ProgramChange(0, 5))));
        assertThat(track.events())
                .contains(
                        new Event(0, new Channel(new NoteOn(2, 60, 96))),
                        new Event(96, new Channel(new NoteOn(1, 67, 64))),
                        new Event(192, new Channel(new NoteOn(0, 76, 32))));
        assertThat(track.end()).isEqualTo(384);
        assertThat(eventsOf(file.write())).as("the JDK's reader").isEqualTo(eventsOf(example));
    }

    /** Ticks and bytes as the JDK's own reader finds them. */
    private static List<String> eventsOf(byte[] file) throws Exception {
        Sequence sequence = MidiSystem.getSequence(new ByteArrayInputStream(file));
        List<String> events = new ArrayList<>();
        for (javax.sound.midi.Track track : sequence.getTracks()) {
            for (int i = 0; i < track.size(); i++) {
                byte[] octets = Arrays.copyOf(
                        track.get(i).getMessage().getMessage(),
                        track.get(i).getMessage().getLength());
                events.add(track.get(i).getTick() + " " + Bytes.copyOf(octets).hex());
            }
        }
        return events;
    }

    @Test
    void whatIsWrittenIsReadBackAndWrittenAlike() throws Exception {
        Track first = new Track(
                List.of(
                        new Event(0, new Meta(MidiFile.SEQUENCE_NAME, Bytes.ofHex("41 42"))),
                        new Event(5, new SystemExclusive(0xF0, Bytes.ofHex("7F 7F 02 01 01 F7"))),
                        new Event(5000, new Meta(MidiFile.MARKER, Bytes.NONE))),
                5000);
        Track second = new Track(List.of(new Event(960, new Channel(new ControlChange(4, 7, 95)))), 40_000);
        for (var division : List.of(new Quarters(960), new Frames(25, 40), new Frames(29, 80))) {
            MidiFile file = new MidiFile(1, division, List.of(first, second));
            byte[] written = file.write();
            assertThat(MidiFile.read(written)).isEqualTo(file);
            assertThat(MidiFile.read(written).write()).isEqualTo(written);
        }
        assertThat(eventsOf(new MidiFile(1, new Quarters(960), List.of(first, second)).write()))
                .contains("960 B4 07 5F", "5 F0 7F 7F 02 01 01 F7", "40000 FF 2F 00");
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "''|does not begin with “MThd”",
                "52 49 46 46 00 00 00 10 52 4D 49 44|wrapped into RIFF",
                "4D 54 68 64 00 00 00 06 00 02 00 01 00 60|has format 2",
                "4D 54 68 64 00 00 00 06 00 00 00 01 00 00|0 ticks to a quarter",
                "4D 54 68 64 00 00 00 06 00 00 00 01 E6 28|26 frames a second",
                "4D 54 68 64 00 00 00 06 00 01 00 02 00 60|ends after 0 of 2 tracks",
                "4D 54 68 64 7F FF FF FF 00 01|2147483647 bytes long, but 2 are left",
                "4D 54 68 64 00 00 00 06 00 00 00 01 00 60 4D 54 72 6B FF FF FF FF 00|4294967295 bytes long",
                "4D 54 68 64 00 00 00 06 00 00 00 01 00 60 4D 54 72 6B 00 00 00 07 00 FF 51 03 00 00 00|tempo of 0",
                "4D 54 68 64 00 00 00 06 00 00 00 01 00 60 4D 54 72 6B 00 00 00 05 00 FF 06 7F 41|127 bytes long, but 1 are left",
                "4D 54 68 64 00 00 00 06 00 00 00 01 00 60 4D 54 72 6B 00 00 00 02 00 40|where an event should begin",
                "4D 54 68 64 00 00 00 06 00 00 00 01 00 60 4D 54 72 6B 00 00 00 05 FF FF FF FF 00|more than four bytes",
                "4D 54 68 64 00 00 00 06 00 00 00 01 00 60 4D 54 72 6B 00 00 00 04 00 90 3C 40|does not end"
            })
    void whatCannotBeReadIsRefusedWithItsPlace(String octets, String words) {
        assertThatThrownBy(() -> MidiFile.read(Bytes.ofHex(octets).toArray()))
                .isInstanceOf(Refusal.class)
                .hasMessageContaining(words)
                .hasMessageContaining("at byte");
    }

    @Test
    void aFileOfAHundredMegabytesIsRefusedUnread() {
        assertThatThrownBy(() -> MidiFile.read(new byte[MidiFile.LARGEST + 1]))
                .hasMessageContaining("larger than 4 MB");
    }

    /** Cut off anywhere or with bytes turned, a file is read or refused, never anything else. */
    @Test
    void nothingAStrangerSendsDoesMoreThanBeRefused() {
        byte[] example = Bytes.ofHex(EXAMPLE).toArray();
        Random random = new Random(4);
        for (int i = 0; i < 5000; i++) {
            byte[] hurt = Arrays.copyOf(example, random.nextInt(example.length + 1));
            for (int flips = random.nextInt(4); flips > 0 && hurt.length > 0; flips--) {
                hurt[random.nextInt(hurt.length)] = (byte) random.nextInt(256);
            }
            try {
                MidiFile.read(hurt);
            } catch (Refusal expected) {
                assertThat(expected).hasMessageStartingWith("This file ");
            }
        }
    }
}
