package underbaton.core.store;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.IOException;
import java.io.InputStream;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.junit.jupiter.api.Test;
import underbaton.core.cue.Show;
import underbaton.core.cue.Shows;
import underbaton.core.exchange.MidiFile;
import underbaton.core.exchange.MidiFile.Channel;
import underbaton.core.exchange.MidiFile.Event;
import underbaton.core.exchange.MidiFile.Meta;
import underbaton.core.exchange.MidiFile.Quarters;
import underbaton.core.exchange.MidiFile.Track;
import underbaton.core.exchange.Offer;
import underbaton.core.exchange.Song;
import underbaton.core.midi.Bytes;
import underbaton.core.midi.ChannelMessage.ProgramChange;
import underbaton.core.midi.SysEx;
import underbaton.core.rig.Effect;
import underbaton.core.rig.Numbering;
import underbaton.core.rig.Phrase;
import underbaton.core.rig.Refusal;
import underbaton.core.rig.Speech;
import underbaton.core.rig.SpeechWording;
import underbaton.core.score.Position;
import underbaton.core.score.Score;
import underbaton.core.score.Section;
import underbaton.core.score.Tempo;

/** What was once kept and could not be read again, each as it comes in: typed, from a MIDI file, or learnt. */
class OnceLostTest {

    private static final int DIVISION = 96;

    private final List<Event> events = new ArrayList<>();

    private OnceLostTest meta(long tick, int type, int... data) {
        events.add(new Event(tick, new Meta(type, Bytes.of(data))));
        return this;
    }

    private OnceLostTest tempo(long tick, int micros) {
        return meta(tick, MidiFile.TEMPO, micros >> 16, micros >> 8 & 0xFF, micros & 0xFF);
    }

    private OnceLostTest marker(long tick, String text) {
        events.add(new Event(tick, new Meta(MidiFile.MARKER, Utf8.bytes(text))));
        return this;
    }

    private byte[] file(long end) {
        events.sort(Comparator.comparingLong(Event::tick));
        return new MidiFile(0, new Quarters(DIVISION), List.of(new Track(events, end))).write();
    }

    /** A show as it was written before answers, lights and counted beats: what a later part of the format is called stands in no file of then. */
    @Test
    void whatWasWrittenEarlierIsReadAndWrittenAsItWas() throws IOException {
        try (InputStream in = getClass().getResourceAsStream("/old/show-before-0037.json")) {
            byte[] file = in.readAllBytes();
            Show show = ShowFile.read(1, file);
            assertThat(show.cues().count()).isEqualTo(53);
            assertThat(ShowFile.write(show)).isEqualTo(file);
        }
    }

    /** Taken in, kept as a file and opened again; also typed again as its words stand there. */
    private Score kept(long end) {
        Song song = Song.read(MidiFile.read(file(end)));
        Show taken = new Offer(song, Shows.small(), Map.of()).into(Shows.small(), "Taken");
        return kept(taken);
    }

    private static Score kept(Show show) {
        Show read = ShowFile.read(1, ShowFile.write(show));
        assertThat(read).isEqualTo(show.numberedAnew());
        Score score = read.items().get(read.items().size() - 1).score().orElseThrow();
        assertThat(Score.of(score.toString())).isEqualTo(score);
        return score;
    }

    private static Show with(Score score) {
        Show small = Shows.small();
        return small.withItem(small.items().get(1).withScore(Optional.of(score)), 0);
    }

    @Test
    void aMarkerThatReadsLikeALinkIsAName() {
        Score score = marker(0, "A Verse")
                .marker(4 * 4 * DIVISION, "B as A")
                .marker(8 * 4 * DIVISION, "C Reprise as Z")
                .kept(64 * DIVISION);
        assertThat(score.sections()).extracting(Section::name).containsExactly("Verse", "as A", "Reprise as Z");
        assertThat(score.sections()).allMatch(s -> s.as().isEmpty());
    }

    @Test
    void aSectionMayBeNamedLikeALink() {
        Score score = Score.of("1 A Verse\n9 B x");
        Section named = new Section(9, "B", "Reprise as Z");
        Score kept = kept(with(score.withSections(List.of(score.sections().get(0), named))));
        assertThat(kept.section("B")).contains(named);
    }

    @Test
    void aTempoAtTheFirstBeatBehindAPickUp() {
        Score score = kept(with(Score.of("pick-up 1 quarter\n1 quarter = 100\n1:1 quarter = 120")));
        assertThat(score.tempi()).extracting(t -> t.tick()).containsExactly(0L, 960L);
        assertThat(score.nanos(new Position(2, 1, 0))).isEqualTo(600_000_000L + 4 * 500_000_000L);
    }

    @Test
    void aFileThatBeginsWithAShortBar() {
        Score score = meta(0, MidiFile.METER, 1, 2, 24, 8)
                .tempo(0, 600_000)
                .meta(DIVISION, MidiFile.METER, 4, 2, 24, 8)
                .tempo(DIVISION, 500_000)
                .kept(20 * DIVISION);
        assertThat(score.pickUpTicks()).isEqualTo(960);
        assertThat(score.tempi()).extracting(t -> t.tempo()).containsExactly(Tempo.quarters(100), Tempo.quarters(120));
    }

    @Test
    void moreThanTenThousandBarsAndNoMoreThanThereCanBe() {
        assertThat(marker(12_000L * 4 * DIVISION, "Z Far")
                        .kept(12_001L * 4 * DIVISION)
                        .section("Z"))
                .contains(new Section(12_001, "Z", "Far"));
        assertThatThrownBy(() -> new OnceLostTest().tempo(0, 61).kept(200_000L * 4 * DIVISION))
                .isInstanceOf(Refusal.class)
                .hasMessageContaining("99999 bars");
    }

    @Test
    void sixThousandTempi() {
        for (int i = 0; i < 6_000; i++) {
            tempo(i * 4L * DIVISION, 400_000 + 7_919 * (i % 40));
        }
        assertThat(kept(6_000L * 4 * DIVISION).tempi()).hasSizeGreaterThan(5_900);
    }

    @Test
    void aMarkerWithAByteThatEndsLines() {
        meta(0, MidiFile.MARKER, 'A', ' ', 'O', 'n', 0x85, 'e');
        assertThat(kept(8 * DIVISION).section("A").orElseThrow().name())
                .startsWith("On")
                .endsWith("e");
    }

    @Test
    void longExclusives() {
        SysEx learnt = new SysEx(Bytes.copyOf(new byte[2_500]));
        Show show = Shows.small();
        Show with = show.withPhrase(1, new Phrase(0, "Dump", List.of(learnt), Effect.MOMENT, false));
        assertThat(ShowFile.read(1, ShowFile.write(with))).isEqualTo(with.numberedAnew());
        SpeechWording words = new SpeechWording(Numbering.WIRE);
        Speech longest = Speech.of(new SysEx(Bytes.copyOf(new byte[SysEx.LONGEST])));
        assertThat(words.read(words.write(longest))).isEqualTo(longest);
        assertThatThrownBy(() -> words.read("sysex " + "00".repeat(200_000))).isInstanceOf(Refusal.class);
        assertThatThrownBy(() -> words.read("sysex 0 00"))
                .isInstanceOf(Refusal.class)
                .hasMessageContaining("cannot be sent");
    }

    /** Nothing that is far too large is first built and then refused. */
    @Test
    void aFileOfProgramChangesAloneIsRefusedWhileItIsRead() {
        for (int i = 0; i < MidiFile.MOST_EVENTS + 1; i++) {
            events.add(new Event(i, new Channel(new ProgramChange(0, i % 128))));
        }
        byte[] file = file(MidiFile.MOST_EVENTS + 1);
        assertThatThrownBy(() -> MidiFile.read(file))
                .isInstanceOf(Refusal.class)
                .hasMessageContaining("more than 60000 events");
    }

    @Test
    void aShowHasAMeasure() {
        for (int i = 0; i < 21_000; i++) {
            marker(0, "");
            events.add(new Event(i * 96L, new Meta(MidiFile.CUE_POINT, Utf8.bytes("cue"))));
        }
        Song song = Song.read(MidiFile.read(file(21_000 * 96L)));
        Offer offer = new Offer(song, Shows.small(), Map.of());
        assertThatThrownBy(() -> offer.into(Shows.small(), "Far too long"))
                .isInstanceOf(Refusal.class)
                .hasMessageContaining("a show holds 20000");
    }
}
