package underbaton.core.exchange;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.io.ByteArrayInputStream;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import javax.sound.midi.MetaMessage;
import javax.sound.midi.MidiEvent;
import javax.sound.midi.MidiSystem;
import javax.sound.midi.Sequence;
import javax.sound.midi.Sequencer;
import javax.sound.midi.Track;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import underbaton.core.cue.Cue;
import underbaton.core.cue.Show;
import underbaton.core.cue.Shows;
import underbaton.core.engine.DryRun;
import underbaton.core.engine.PlannedMessage;
import underbaton.core.midi.Bytes;
import underbaton.core.midi.MidiMessage;
import underbaton.core.plan.Planner;
import underbaton.core.rig.Department;
import underbaton.core.rig.Effect;
import underbaton.core.score.Score;

/** Plans as Standard MIDI Files, read and timed by the JDK. */
class PlanFileTest {

    /** Lights, a player that must be told 80 ms early, keys with banks, and a song of two cues in the score. */
    private static Show song(String score, String... cues) {
        Show show = Shows.small();
        show = Shows.device(show, "Keys", Department.KEYS, 4);
        show = Shows.phrase(show, "Organ", "bank 3 program 17", Effect.HOLDS);
        show = Shows.phrase(show, "Full", "sysex 7E 7F 09 01", Effect.MOMENT);
        show = show.withDevice(show.devices().get(1).withTiming(80, 0));
        show = show.withItem(show.items().get(1).withScore(Optional.of(Score.of(score))), 0);
        int number = 12;
        for (String cue : cues) {
            String[] parts = cue.split(" \\| ");
            show = Shows.cue(show, "" + number++, parts[0], parts[1].split(", "));
        }
        return show;
    }

    private static DryRun planned(Show show) {
        return DryRun.of(Planner.plan(show));
    }

    private static byte[] file(Show show) {
        return PlanFile.write(planned(show), show.items().get(1).id()).write();
    }

    private static Sequence jdk(byte[] file) throws Exception {
        return MidiSystem.getSequence(new ByteArrayInputStream(file));
    }

    private static String name(Track track) {
        return new String(((MetaMessage) track.get(0).getMessage()).getData(), StandardCharsets.UTF_8);
    }

    /** The channel and system messages of a track, and the JDK's own time of each in µs. */
    private static List<Map.Entry<Long, Bytes>> sent(Sequence sequence, Track track) throws Exception {
        List<Map.Entry<Long, Bytes>> sent = new ArrayList<>();
        try (Sequencer clock = MidiSystem.getSequencer(false)) {
            clock.open();
            clock.setSequence(sequence);
            for (int i = 0; i < track.size(); i++) {
                MidiEvent event = track.get(i);
                if (!(event.getMessage() instanceof MetaMessage)) {
                    clock.setTickPosition(event.getTick());
                    sent.add(Map.entry(
                            clock.getMicrosecondPosition(),
                            Bytes.copyOf(
                                    event.getMessage().getMessage(),
                                    0,
                                    event.getMessage().getLength())));
                }
            }
        }
        return sent;
    }

    private static List<Map.Entry<Long, Bytes>> plannedFor(Show show, int device) {
        List<Map.Entry<Long, Bytes>> planned = new ArrayList<>();
        for (PlannedMessage m : planned(show).messages(show.items().get(1).id())) {
            if (m.since() == 0 && m.deviceId() == device) {
                for (MidiMessage command : ((MidiMessage) m.message()).commands()) {
                    planned.add(Map.entry(m.atNanos(), command.encode()));
                }
            }
        }
        return planned;
    }

    /** Each message of the plan stands in its device's track, in order, and the JDK plays it then. */
    private static void assertPlaysAsPlanned(Show show, double microsOff) throws Exception {
        Sequence sequence = jdk(file(show));
        int read = 0;
        for (Track track : sequence.getTracks()) {
            var device = show.devices().stream()
                    .filter(d -> d.name().equals(name(track)))
                    .findFirst();
            if (device.isPresent()) {
                List<Map.Entry<Long, Bytes>> planned =
                        plannedFor(show, device.get().id());
                List<Map.Entry<Long, Bytes>> sent = sent(sequence, track);
                assertThat(sent)
                        .extracting(Map.Entry::getValue)
                        .isEqualTo(planned.stream().map(Map.Entry::getValue).toList());
                for (int i = 0; i < sent.size(); i++) {
                    assertThat(sent.get(i).getKey() - planned.get(i).getKey() / 1000.0)
                            .as("message %d at %d ns", i, planned.get(i).getKey())
                            .isCloseTo(0, within(microsOff));
                    read++;
                }
            }
        }
        assertThat(read).isGreaterThan(3);
    }

    /** 121 a minute is 495,867.77 µs, 7/8 ends off the quarter, and a hold lasts longer than a slow tempo. */
    @Test
    void theJdkPlaysOurFileAtThePlannedTimes() throws Exception {
        Show show = song(
                "pick-up 1 quarter\n1 4/4\n1 quarter = 121\n5 7/8\n9 6/8\n9 dotted quarter = 72\n11 hold 6 s\n400 4/4",
                "at 0:4 | Amber",
                "at 3:2 | Blue, Organ",
                "at 5:7 | Full",
                "at 11:1 | Dark",
                "at 11:2 | Amber, Organ",
                "at 398:5 | Blue");
        assertPlaysAsPlanned(show, 1.0);
    }

    @ParameterizedTest
    @ValueSource(longs = {1, 2, 3, 4, 5})
    void songsOfAnyTempiAreInTimeWithinAMicrosecond(long seed) throws Exception {
        Random random = new Random(seed);
        StringBuilder score = new StringBuilder();
        List<String> cues = new ArrayList<>();
        for (int bar = 1; bar < 200; bar += 1 + random.nextInt(9)) {
            String[] units = {"quarter", "eighth", "dotted quarter", "half"};
            score.append("%d %d/%d\n".formatted(bar, 2 + random.nextInt(9), 2 << random.nextInt(4)));
            score.append("%d %s = %d.%d\n"
                    .formatted(bar, units[random.nextInt(4)], 40 + random.nextInt(140), random.nextInt(1000)));
            cues.add("at %d:2 | %s".formatted(bar, random.nextBoolean() ? "Amber" : "Organ"));
        }
        assertPlaysAsPlanned(song(score.toString(), cues.toArray(String[]::new)), 1.0);
    }

    /** What must be told early, or lies in a gradual change, leaves between two ticks of the file. */
    @Test
    void whatStandsOnNoTickIsAtTheNearest() throws Exception {
        Show show = song(
                "1 quarter = 97.3\n4 quarter = 60 over 4 bars",
                "at 2 | Play",
                "at 3:2 +7 ms | Stop",
                "at 5:1:240 | Amber",
                "at 6:2:17 | Play");
        double halfATick = 1e6 / 9600 / 2;
        assertPlaysAsPlanned(show, halfATick + 1);
    }

    /** The tempo's own events: one for 120 however long, several where whole microseconds will not do. */
    @Test
    void noMoreTempoEventsAreWrittenThanAreNeeded() throws Exception {
        assertThat(tempoEvents(jdk(file(song("1 quarter = 120\n300 end"))))).isEqualTo(1L);
        assertThat(tempoEvents(jdk(file(song("1 6/8\n1 dotted quarter = 80\n300 end")))))
                .isEqualTo(1L);
        assertThat(tempoEvents(jdk(file(song("1 quarter = 121\n300 end"))))).isBetween(300L, 1200L);
    }

    private static long tempoEvents(Sequence sequence) {
        Track first = sequence.getTracks()[0];
        long count = 0;
        for (int i = 0; i < first.size(); i++) {
            count += first.get(i).getMessage() instanceof MetaMessage m && m.getType() == MidiFile.TEMPO ? 1 : 0;
        }
        return count;
    }

    /** Taken in again where nothing else has changed, and written out: the very same bytes. */
    @ParameterizedTest
    @ValueSource(
            strings = {
                "1 4/4\n1 quarter = 120\n1 A Intro\n3 B Verse 1\n12 end",
                "pick-up 1 quarter\n1 4/4\n1 quarter = 121\n2 A\n5 7/8\n5 eighth = 203\n9 6/8\n9 dotted quarter = 72.5\n20 end",
                "1 3/4\n1 quarter = 93.7\n4 half = 44\n5 C Out\n9 end",
                "1 4/4\n1 quarter = 100\n8 6/8 in 2\n8 dotted quarter = 60\n12 12/8 in 4\n20 end"
            })
    void outAndInAndOutAgainIsTheSameFile(String score) {
        Show show = song(
                score,
                "at 2:1 | Amber, Play",
                "at 3:2 | Blue, Organ",
                "at 4:1 +12 ms | Stop",
                "at 5:3 | Full, Dark",
                "at 6:1:320 | Play");
        byte[] first = file(show);
        Song song = Song.read(MidiFile.read(first));
        Show without = show.withoutItem(show.items().get(1).id());
        Offer offer = new Offer(song, without, Map.of());
        assertThat(offer.entries()).allSatisfy(e -> assertThat(e.unmatched()).isEmpty());
        Show again = offer.into(without, song.name());
        assertThat(again.items().get(1).score().orElseThrow().sections())
                .isEqualTo(show.items().get(1).score().orElseThrow().sections());
        assertThat(quarters(again)).isEqualTo(quarters(show));
        assertThat(again.items().get(1).cues().stream().map(Cue::number).toList())
                .isEqualTo(show.items().get(1).cues().stream()
                        .filter(c -> !c.number().toString().equals("11"))
                        .map(Cue::number)
                        .toList());
        byte[] second = file(again);
        assertThat(Bytes.copyOf(second)).isEqualTo(Bytes.copyOf(first));
    }

    private static List<Integer> quarters(Show show) {
        return show.items().get(1).score().orElseThrow().tempi().stream()
                .map(t -> t.tempo().quarterMicros())
                .toList();
    }

    @Test
    void whatNoFileCanHoldIsSaid() {
        Show show = song("1 quarter = 120", "at 2 | Amber");
        assertThat(PlanFile.left(planned(show), show.items().get(1).id()))
                .containsExactly("1 cue waits for GO and has no time of its own.");
    }

    /** A hold that the bars behind it make up for, one that they cannot, a tempo that no file knows, and very many bars. */
    @ParameterizedTest
    @ValueSource(
            strings = {
                "1 quarter = 120\n3:1 hold 120 s\n5 end",
                "1 quarter = 120\n4:1 hold 600 s\n4 end",
                "1 quarter = 3\n9 end",
                "1 quarter = 120\n9000 end"
            })
    void whatBarsOfAFileCannotHoldIsInTimeNevertheless(String score) throws Exception {
        Show show = song(score, "at 2:1 | Amber", "at 4:3 | Amber");
        DryRun run = planned(show);
        Sequence sequence = MidiSystem.getSequence(new ByteArrayInputStream(file(show)));
        long last = run.messages(show.items().get(1).id()).stream()
                .filter(m -> m.since() == 0)
                .mapToLong(PlannedMessage::atNanos)
                .max()
                .orElseThrow();
        long ends =
                Planner.plan(show).item(show.items().get(1).id()).orElseThrow().scoreNanos();
        assertThat(sequence.getMicrosecondLength() / 1e6)
                .as("the JDK's length in s, of %s", score)
                .isCloseTo(Math.max(last, ends) / 1e9, within(0.01));
        boolean shifted = score.contains("600 s") || score.contains("quarter = 3");
        assertThat(PlanFile.left(run, show.items().get(1).id()).toString().contains("bars stand"))
                .isEqualTo(shifted);
    }

    @Test
    void aGapThatNoDeltaCanSayIsReachedByWayOfEmptyTexts() throws Exception {
        long far = 3L * 0x0FFF_FFFF + 5;
        MidiFile file = new MidiFile(
                1,
                new MidiFile.Quarters(9600),
                List.of(new MidiFile.Track(
                        List.of(new MidiFile.Event(far, new MidiFile.Meta(MidiFile.MARKER, Bytes.of(65)))), 0)));
        Track track =
                MidiSystem.getSequence(new ByteArrayInputStream(file.write())).getTracks()[0];
        assertThat(track.ticks()).isEqualTo(far);
        assertThat(MidiFile.read(file.write()).tracks().get(0).end()).isEqualTo(far);
    }
}
