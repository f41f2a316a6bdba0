package underbaton.core.exchange;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import underbaton.core.cue.Cue;
import underbaton.core.cue.Show;
import underbaton.core.cue.Shows;
import underbaton.core.exchange.MidiFile.Channel;
import underbaton.core.exchange.MidiFile.Content;
import underbaton.core.exchange.MidiFile.Division;
import underbaton.core.exchange.MidiFile.Event;
import underbaton.core.exchange.MidiFile.Frames;
import underbaton.core.exchange.MidiFile.Meta;
import underbaton.core.exchange.MidiFile.Quarters;
import underbaton.core.exchange.MidiFile.SystemExclusive;
import underbaton.core.exchange.MidiFile.Track;
import underbaton.core.midi.Bytes;
import underbaton.core.midi.ChannelMessage;
import underbaton.core.midi.ChannelMessage.ControlChange;
import underbaton.core.midi.ChannelMessage.NoteOff;
import underbaton.core.midi.ChannelMessage.NoteOn;
import underbaton.core.midi.ChannelMessage.ProgramChange;
import underbaton.core.rig.Argument;
import underbaton.core.rig.Department;
import underbaton.core.rig.Effect;
import underbaton.core.rig.Numbering;
import underbaton.core.rig.Phrase;
import underbaton.core.rig.Refusal;
import underbaton.core.rig.Remarks;
import underbaton.core.rig.SpeechWording;
import underbaton.core.score.Score;
import underbaton.core.store.Utf8;

/** Songs of other programs, held against the phrasebooks of a small show. */
class SongTest {

    private final List<Event> events = new ArrayList<>();
    private final Show show = Shows.small();

    private SongTest at(long tick, Content content) {
        events.add(new Event(tick, content));
        return this;
    }

    private SongTest at(long tick, ChannelMessage message) {
        return at(tick, new Channel(message));
    }

    private SongTest text(long tick, int type, String text) {
        return at(tick, new Meta(type, Utf8.bytes(text)));
    }

    private SongTest tempo(long tick, int micros) {
        return at(tick, new Meta(MidiFile.TEMPO, Bytes.of(micros >> 16, micros >> 8 & 0xFF, micros & 0xFF)));
    }

    private SongTest meter(long tick, int beats, int power) {
        return at(tick, new Meta(MidiFile.METER, Bytes.of(beats, power, 24, 8)));
    }

    /** All that was written, as a file of format 0. */
    private Song read(Division division, long end) {
        events.sort(Comparator.comparingLong(Event::tick));
        return Song.read(MidiFile.read(new MidiFile(0, division, List.of(new Track(events, end))).write()));
    }

    private Show taken(Song song) {
        return new Offer(song, show, Map.of()).into(show, "Taken");
    }

    private static List<String> told(Show show) {
        return show.items().get(show.items().size() - 1).cues().stream()
                .map(c -> told(show, c))
                .toList();
    }

    private static String told(Show show, Cue cue) {
        List<String> calls = cue.calls().stream()
                .map(c -> c.tell(show.device(c.deviceId()).orElseThrow()))
                .toList();
        return (cue.number() + " " + cue.start() + " " + cue.what() + " " + String.join(" + ", calls)).strip();
    }

    /** A file counts whole µs a quarter, rounded or cut off by its writer: 495,868 and 495,867 both mean 121. */
    @ParameterizedTest
    @CsvSource({
        "500000,2,quarter = 120",
        "495868,2,quarter = 121",
        "495867,2,quarter = 121",
        "413793,2,quarter = 145",
        "681818,2,quarter = 88",
        "434783,2,quarter = 138",
        "533333,2,quarter = 112.5",
        "555556,3,dotted quarter = 72"
    })
    void aTempoIsReadAsTheRoundestThatTheFileCanMean(int micros, int power, String meant) {
        meter(0, 6, power).tempo(0, micros);
        Score score = read(new Quarters(480), 480 * 600).score().orElseThrow();
        assertThat(score.tempi().get(0).tempo()).hasToString(meant);
    }

    @Test
    void withoutTempoAndMeterItIsPlayedAsTheDocumentSays() {
        Score score = read(new Quarters(96), 96 * 8).score().orElseThrow();
        assertThat(score).hasToString("1 4/4\n1 quarter = 120\n2 end");
    }

    @Test
    void markersBecomeSectionsAndAShortFirstBarAPickUp() {
        meter(0, 1, 2).meter(480, 4, 2).meter(480 * 9, 3, 3);
        text(480, MidiFile.MARKER, "Verse").text(480 * 5, MidiFile.MARKER, "A Chorus");
        text(480 * 10, MidiFile.MARKER, "Bridge").text(480 * 5, MidiFile.MARKER, "Also here");
        Song song = read(new Quarters(480), 480 * 12);
        assertThat(song.score().orElseThrow())
                .hasToString(
                        "pick-up 1 quarter\n1 4/4\n3 3/8\n1 quarter = 120\n1 B Verse\n2 A Chorus\n4 C Bridge\n4 end");
        assertThat(song.remarks())
                .containsExactly(
                        "The first bar of the file, of 1/4, is taken as a pick-up: the file’s bar 2 is bar 1 here.",
                        "The marker “Also here” at bar 2 is left out: a section has one name, and begins where no other does.",
                        "The marker “Bridge” stands at 3:3; its section begins at bar 4.");
    }

    @Test
    void metersThatWeDoNotHaveAreTurnedIntoOursOrSaid() {
        meter(0, 2, 0).meter(1920 * 2, 12, 5).meter(1920 * 4, 3, 6).meter(1920 * 4 + 480, 3, 2);
        Song song = read(new Quarters(480), 1920 * 6);
        assertThat(song.score().orElseThrow().meters())
                .extracting(m -> m.bar() + " " + m.meter())
                .containsExactly("1 4/2", "2 6/16", "8 3/4");
        assertThat(song.remarks()).contains("A meter of 3/64 cannot be written here; the one before it goes on.");
    }

    /** Channel 1 is the lights', 2 the player's; note 1 is Amber, 36 Play. Each channel of format 0 is a part. */
    @Test
    void notesAreTakenForPhrasesAndTheOthersAreListed() {
        at(0, new NoteOn(0, 1, 127)).at(240, new NoteOff(0, 1, 0));
        at(1920, new NoteOn(0, 2, 90)).at(1920, new NoteOn(1, 36, 127));
        at(2400, new NoteOn(0, 77, 127)).at(2880, new NoteOn(0, 77, 0)).at(2500, new ControlChange(0, 7, 3));
        Song song = read(new Quarters(480), 1920 * 4);
        Offer offer = new Offer(song, show, Map.of());
        assertThat(offer.entries())
                .extracting(
                        e -> e.part().name() + " " + e.device().orElseThrow().name())
                .containsExactly("track 1, channel 1 Lights", "track 1, channel 2 Player");
        Offer.Entry lights = offer.entries().get(0);
        assertThat(lights.calls()).isEqualTo(2);
        assertThat(lights.loose()).isEqualTo(1);
        assertThat(lights.unmatched())
                .extracting(m -> m.place() + " " + lights.told(m))
                .containsExactly("2:2 note F4", "2:2:200 control 7 to 3", "2:3 note F4 at 0");
        assertThat(told(taken(song))).containsExactly("12 by hand  Amber", "13 at 2:1  Blue + Play");
    }

    @Test
    void aPartGoesWhereOneSendsItOrIsLeftOut() {
        at(0, new NoteOn(1, 36, 127));
        Song song = read(new Quarters(480), 1920);
        int lights = show.devices().get(0).id();
        assertThat(new Offer(song, show, Map.of(0, lights)).entries().get(0).calls())
                .isZero();
        Offer nobody = new Offer(song, show, Map.of(0, 0));
        assertThat(nobody.entries().get(0).device()).isEmpty();
        assertThat(told(nobody.into(show, "None"))).containsExactly("12 by hand");
    }

    /** 25 frames of 40 ticks: milliseconds. No bars, so cues come at times. */
    @Test
    void aFileOfFramesHasTimesAndNoBars() {
        at(61_250, new NoteOn(0, 2, 127)).text(1000, MidiFile.MARKER, "Verse");
        text(61_250, MidiFile.CUE_POINT, "30 The lamp turns");
        Song song = read(new Frames(25, 40), 90_000);
        assertThat(song.score()).isEmpty();
        assertThat(song.remarks())
                .containsExactly(
                        "The marker “Verse” stands at 0:01; this file counts frames, so it has no bars for a section.");
        assertThat(told(taken(song))).containsExactly("12 by hand Start", "13 at time 1:01.25 The lamp turns Blue");
    }

    /** SMPTE ST 12-1: 29.97 drop-frame is 30 frames in 1.001 seconds; from memory of the document. */
    @Test
    void dropFramesAreAThousandthLonger() {
        at(30 * 80, new NoteOn(0, 1, 127));
        Song song = read(new Frames(29, 80), 9000);
        assertThat(song.parts().get(0).said().get(0).nanos()).isEqualTo(1_001_000_000L);
    }

    /** Common practice: the machine is told 80 ms early, so what is heard on the beat was sent before it. */
    @Test
    void whoMustBeToldEarlyGetsItsCueThatMuchLater() {
        Show early = show.withDevice(show.devices().get(1).withTiming(80, 0));
        // At 125 a quarter lasts 480 ms: 400 ms into the beat.
        tempo(0, 480_000).at(480 * 4 + 400, new NoteOn(1, 36, 127));
        Song song = read(new Quarters(480), 1920 * 3);
        Show with = new Offer(song, early, Map.of()).into(early, "Early");
        assertThat(told(with)).containsExactly("12 by hand Start", "13 at 2:2  Play");
    }

    @Test
    void manyLevelsCloseTogetherAreOneMove() {
        Show console = Shows.device(show, "Console", Department.SOUND, 3);
        console = console.withPhrase(
                console.devices().get(2).id(),
                new Phrase(
                        0,
                        "Bed",
                        new SpeechWording(Numbering.WIRE).read("control 20 to ?"),
                        Optional.of(Argument.of("per cent")),
                        Effect.MOMENT,
                        false,
                        false,
                        Remarks.NONE));
        at(0, new ControlChange(3, 20, 0));
        for (int value = 1; value <= 127; value++) {
            at(1920 + value * 8, new ControlChange(3, 20, value));
        }
        Song song = read(new Quarters(480), 1920 * 3);
        Offer offer = new Offer(song, console, Map.of());
        assertThat(offer.entries().get(0).unmatched()).isEmpty();
        assertThat(told(offer.into(console, "Fade")))
                .containsExactly("12 by hand  Bed → 0 %", "13 at 2:1:16  Bed → 100 % in 1.05 s");
    }

    @Test
    void banksProgramsAndExclusivesAreFoundToo() {
        Show keys = Shows.device(show, "Keys", Department.KEYS, 4);
        keys = Shows.phrase(keys, "Organ", "bank 130 program 17", Effect.HOLDS);
        keys = Shows.phrase(keys, "Reset", "sysex 7E 7F 09 01", Effect.MOMENT);
        at(0, new ControlChange(4, 0, 1)).at(0, new ControlChange(4, 32, 2)).at(0, new ProgramChange(4, 17));
        at(960, new SystemExclusive(0xF0, Bytes.of(0x7E, 0x7F, 9, 1, 0xF7)));
        Song song = read(new Quarters(480), 1920);
        assertThat(song.parts())
                .extracting(Song.Part::name)
                .containsExactly("track 1, no channel", "track 1, channel 5");
        assertThat(told(new Offer(song, keys, Map.of()).into(keys, "Keys")))
                .containsExactly("12 by hand  Organ", "13 at 1:3  Reset");
    }

    @Test
    void aFileOfMoreThanADayIsRefused() {
        assertThatThrownBy(() -> tempo(0, 0xFFFFFF).read(new Quarters(1), 6000))
                .isInstanceOf(Refusal.class)
                .hasMessageContaining("longer than a day");
    }

    @Test
    void whereAMomentLiesIsSaidAsMusiciansWould() {
        Optional<Score.Times> times = Optional.of(Score.of("1 quarter = 120").read());
        assertThat(Song.landing(times, 2_000_010_000L)).hasToString("at 2:1");
        assertThat(Song.landing(times, 1_989_000_000L)).hasToString("at 2:1 −11 ms");
        assertThat(Song.landing(times, 2_000_300_000L)).hasToString("at 2:1:1");
        assertThat(Song.landing(Optional.empty(), 2_000_300_000L)).hasToString("at time 0:02");
        assertThat(times.get().nanosOfBar(2) / 1e9).isCloseTo(2, within(1e-9));
    }
}
