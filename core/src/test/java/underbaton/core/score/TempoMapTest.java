package underbaton.core.score;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import java.util.TreeSet;
import javax.sound.midi.MetaMessage;
import javax.sound.midi.MidiEvent;
import javax.sound.midi.Sequence;
import javax.sound.midi.Track;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import underbaton.core.rig.Refusal;

class TempoMapTest {

    private static TempoMap map(TempoMark... marks) {
        return new TempoMap(List.of(marks), List.of());
    }

    /** Common practice: at 120 in 4/4 a bar is two seconds, at 121 it is 1.9835 s; 6/8 at dotted quarter 72 is 1.6667 s. */
    @ParameterizedTest
    @CsvSource({"QUARTER,120,4/4,2.0", "QUARTER,121,4/4,1.9835", "DOTTED_QUARTER,72,6/8,1.6667", "EIGHTH,240,4/4,2.0"})
    void aBarLastsAsItShould(BeatUnit unit, double beats, String meter, double seconds) {
        TempoMap map = map(TempoMark.at(0, Tempo.of(unit, beats)));
        assertThat(map.nanos(Meter.of(meter).barTicks()) / 1e9).isCloseTo(seconds, within(0.00005));
    }

    /** Three hours at 121 are a whole number of beats: no error adds up on the way. */
    @Test
    void afterThreeHoursItIsStillExact() {
        TempoMap map = map(TempoMark.at(0, Tempo.quarters(121)));
        assertThat(map.nanos(3L * 60 * 121 * 960)).isEqualTo(3 * 3_600_000_000_000L);
        assertThat(map.tick(3 * 3_600_000_000_000L)).isEqualTo(3L * 60 * 121 * 960);
    }

    /** From 60 to 120 over 4 quarters: t = L / (v1 − v0) · ln(v1 / v0) = 4 / (2 − 1) · ln 2 s, worked by hand. */
    @Test
    void aGradualTempoFollowsItsClosedFormula() {
        TempoMap map = map(TempoMark.at(0, Tempo.quarters(60)), new TempoMark(960, Tempo.quarters(120), 4 * 960));
        assertThat(map.nanos(960)).isEqualTo(1_000_000_000L);
        assertThat(map.nanos(5 * 960) / 1e9).isCloseTo(1 + 4 * Math.log(2), within(1e-9));
        assertThat(map.nanos(3 * 960) / 1e9).isCloseTo(1 + 4 * Math.log(1.5), within(1e-9));
        assertThat(map.nanos(7 * 960) - map.nanos(6 * 960)).isEqualTo(500_000_000L);
    }

    @Test
    void duringAHoldTimeStandsStill() {
        TempoMap map = new TempoMap(List.of(TempoMark.at(0, Tempo.quarters(60))), List.of(new Hold(1920, 1500)));
        assertThat(map.nanos(1920)).as("what stands there comes in time").isEqualTo(2_000_000_000L);
        assertThat(map.nanos(1921)).isEqualTo(3_501_041_667L);
        assertThat(map.tick(2_700_000_000L)).isEqualTo(1920);
        assertThat(map.tick(4_500_000_000L)).isEqualTo(2880);
    }

    /** Seeded: a thousand maps with sudden and gradual tempi, holds, meters and pick-ups. */
    @Test
    void everyPlaceComesBackFromItsTimeAndTimesRise() {
        Random random = new Random(4);
        for (int i = 0; i < 1000; i++) {
            TempoMap map = randomMap(random);
            BarMap bars = randomBars(random);
            TreeSet<Long> ticks = new TreeSet<>();
            for (int k = 0; k < 60; k++) {
                ticks.add((long) random.nextInt(400_000));
            }
            long before = -1;
            for (long tick : ticks) {
                long nanos = map.nanos(tick);
                assertThat(nanos).isGreaterThan(before);
                assertThat(map.tick(nanos)).isEqualTo(tick);
                assertThat(bars.tick(bars.position(tick))).isEqualTo(tick);
                before = nanos;
            }
        }
    }

    private static Tempo randomTempo(Random random) {
        return new Tempo(BeatUnit.values()[random.nextInt(6)], 30_000_000 + random.nextInt(270_000_000));
    }

    private static TempoMap randomMap(Random random) {
        List<TempoMark> marks = new ArrayList<>(List.of(TempoMark.at(0, randomTempo(random))));
        List<Hold> holds = new ArrayList<>();
        long at = 0;
        for (int i = random.nextInt(12); i > 0; i--) {
            at += 1 + random.nextInt(20_000);
            long over = random.nextBoolean() ? 0 : 1 + random.nextInt(20_000);
            marks.add(new TempoMark(at, randomTempo(random), over));
            at += over + 1;
            if (random.nextInt(3) == 0) {
                holds.add(new Hold(at, 1 + random.nextInt(5000)));
            }
        }
        return new TempoMap(marks, holds);
    }

    private static BarMap randomBars(Random random) {
        List<BarMap.MeterMark> marks = new ArrayList<>();
        int bar = 1;
        for (int i = 0; i <= random.nextInt(6); i++) {
            marks.add(new BarMap.MeterMark(bar, new Meter(1 + random.nextInt(12), 2 << random.nextInt(4))));
            bar += 1 + random.nextInt(20);
        }
        return new BarMap(random.nextInt(marks.get(0).meter().barTicks()), marks);
    }

    /**
     * Independent computation: the JDK's own, from the tempo events of a sequence; they are whole µs per quarter. It cuts
     * off the part of a µs at every change, so it may lag by one for each.
     */
    @Test
    void timesAreThoseOfTheJdk() throws Exception {
        Random random = new Random(5);
        for (int i = 0; i < 200; i++) {
            Sequence sequence = new Sequence(Sequence.PPQ, BeatUnit.QUARTER_TICKS);
            Track track = sequence.createTrack();
            List<TempoMark> marks = new ArrayList<>();
            long at = 0;
            for (int k = 0; k <= random.nextInt(10); k++) {
                int micros = 250_000 * (1 + random.nextInt(4));
                byte[] bytes = {(byte) (micros >> 16), (byte) (micros >> 8), (byte) micros};
                track.add(new MidiEvent(new MetaMessage(0x51, bytes, 3), at));
                marks.add(TempoMark.at(at, Tempo.quarters(60_000_000.0 / micros)));
                at += 1 + random.nextInt(9000);
            }
            track.add(new MidiEvent(new MetaMessage(0x06, new byte[0], 0), at));
            TempoMap map = new TempoMap(marks, List.of());
            assertThat(map.nanos(track.ticks()) / 1000.0)
                    .isCloseTo(sequence.getMicrosecondLength(), within((double) marks.size()));
        }
    }

    @Test
    void barsBeatsAndPickUpsAreCountedAsMusiciansDo() {
        BarMap bars = new BarMap(
                960, List.of(new BarMap.MeterMark(1, Meter.of("3/4")), new BarMap.MeterMark(3, Meter.of("6/8"))));
        assertThat(bars.position(0)).hasToString("0:3");
        assertThat(bars.position(960)).hasToString("1:1");
        assertThat(bars.tickOfBar(3)).isEqualTo(960 + 2 * 3 * 960);
        assertThat(bars.position(bars.tickOfBar(3) + 5 * 480 + 7)).hasToString("3:6:7");
        assertThat(bars.tickOfBar(4) - bars.tickOfBar(3)).isEqualTo(2880);
        assertThatThrownBy(() -> bars.tick(new Position(0, 2, 0))).hasMessageContaining("There is no 0:2");
        assertThatThrownBy(() -> bars.tick(new Position(1, 4, 0))).hasMessageContaining("bar 1 has 3/4");
    }

    /** Common practice: 6/8 is counted in six or in two; in two, the second beat is the fourth eighth. */
    @Test
    void aBarIsCountedInTheBeatsThatPeopleCount() {
        BarMap six = new BarMap(0, List.of(new BarMap.MeterMark(1, Meter.of("6/8"))));
        BarMap two = new BarMap(0, List.of(new BarMap.MeterMark(1, Meter.of("6/8 in 2"))));
        assertThat(two.tickOfBar(14)).isEqualTo(six.tickOfBar(14));
        assertThat(two.tick(new Position(14, 2, 0))).isEqualTo(six.tick(new Position(14, 4, 0)));
        assertThat(two.position(six.tick(new Position(14, 5, 7)))).hasToString("14:2:487");
        assertThatThrownBy(() -> two.tick(new Position(14, 3, 0))).hasMessageContaining("6/8 in 2");
        assertThatThrownBy(() -> Meter.of("6/8 in 4")).hasMessageContaining("of equal length");
    }

    @Test
    void whatCannotBeIsRefused() {
        Tempo tempo = Tempo.quarters(100);
        assertThatThrownBy(() -> map(TempoMark.at(5, tempo))).hasMessageContaining("at its start");
        assertThatThrownBy(() -> map(
                        TempoMark.at(0, tempo), new TempoMark(10, Tempo.quarters(90), 100), TempoMark.at(50, tempo)))
                .hasMessageContaining("each other's way");
        assertThatThrownBy(() -> new Tempo(BeatUnit.QUARTER, 0)).isInstanceOf(Refusal.class);
        assertThatThrownBy(() -> Meter.of("5/3")).isInstanceOf(Refusal.class);
        assertThatThrownBy(() -> Meter.of("waltz")).hasMessageContaining("6/8");
        assertThatThrownBy(() -> new TempoMap(
                        List.of(TempoMark.at(0, tempo), new TempoMark(10, Tempo.quarters(90), 100)),
                        List.of(new Hold(50, 10))))
                .hasMessageContaining("inside a gradual change");
    }

    /** Of a tempo that grows evenly with the beats, n beats from v to w last n/(w−v)·ln(w/v): 4 beats from 1 to 2 a second 2.772589 s. */
    @ParameterizedTest
    @CsvSource({"QUARTER, 3840", "HALF, 7680", "DOTTED_QUARTER, 5760"})
    void aGradualTempoIsCountedInItsOwnBeats(BeatUnit unit, long ticks) {
        TempoMap map = map(TempoMark.at(0, Tempo.of(unit, 60)), new TempoMark(ticks, Tempo.of(unit, 120), ticks));
        assertThat((map.nanos(2 * ticks) - map.nanos(ticks)) / 1e9).isCloseTo(2.772589, within(0.00001));
    }

    @Test
    void aHoldMayStandJustAtTheEndOfAGradualChange() {
        TempoMap map = new TempoMap(
                List.of(TempoMark.at(0, Tempo.quarters(60)), new TempoMark(960, Tempo.quarters(120), 960)),
                List.of(new Hold(1920, 500)));
        assertThat(map.changes()).anyMatch(c -> c.tick() == 1920 && c.held());
    }
}
