package underbaton.standins;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.IOException;
import java.net.DatagramSocket;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.util.ArrayList;
import java.util.Collections;
import java.util.HashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.concurrent.TimeUnit;
import org.junit.jupiter.api.Test;
import underbaton.core.loop.Loops;
import underbaton.core.midi.ChannelMessage.ControlChange;
import underbaton.core.midi.ChannelMessage.NoteOff;
import underbaton.core.midi.ChannelMessage.NoteOn;
import underbaton.core.midi.ChannelMessage.ProgramChange;
import underbaton.core.midi.FullFrame;
import underbaton.core.midi.MachineControl;
import underbaton.core.midi.MachineControl.Command;
import underbaton.core.midi.Message;
import underbaton.core.midi.OscMessage;
import underbaton.core.midi.RealTime;
import underbaton.core.midi.SystemCommon.QuarterFrame;
import underbaton.core.midi.SystemCommon.SongPosition;
import underbaton.core.midi.TimeCode;
import underbaton.wire.SystemClock;

/** The stand-ins are literal: right bytes do the right thing, others do nothing. */
class StandInsTest {

    @Test
    void lightsTakeALookByNoteAtAnyVelocityAboveZero() {
        FohLights lights = new FohLights();
        lights.hear(new NoteOn(0, 6, 1), 0);
        assertThat(lights.state().look().name()).isEqualTo("Gold sweep");
        assertThat(lights.state().number()).isEqualTo(7);
        lights.hear(new NoteOn(0, 7, 0), 0);
        lights.hear(new NoteOn(1, 7, 127), 0);
        lights.hear(new NoteOn(0, 127, 127), 0);
        assertThat(lights.state().look().name()).isEqualTo("Gold sweep");
    }

    /** MIDI Time Code (RP-004/008): the place that eight pieces tell is that of the first, two frames before the last. */
    @Test
    void theScreenShowsTheTimeCodeThatItGets() {
        RiverScreen screen = new RiverScreen();
        assertThat(screen.code()).isEmpty();
        int[] nibbles = {0xE, 0, 1, 2, 3, 0, 1, 2};
        for (int piece = 3; piece < 8; piece++) {
            screen.hear(new QuarterFrame(piece, nibbles[piece]), 0);
        }
        assertThat(screen.code()).as("switched on in the middle").isEmpty();
        for (int piece = 0; piece < 8; piece++) {
            screen.hear(new QuarterFrame(piece, nibbles[piece]), 0);
        }
        assertThat(screen.code()).isEqualTo("01:03:33:16");
        screen.hear(new FullFrame(127, new TimeCode(TimeCode.Rate.PAL_25, 2, 0, 0, 0)), 0);
        assertThat(screen.code()).isEqualTo("02:00:00:00");
    }

    @Test
    void theTabletCountsQuartersByTheClock() {
        BandTablet tablet = new BandTablet();
        tablet.hear(RealTime.CLOCK, 0);
        assertThat(tablet.beat()).isEqualTo(new BandTablet.Beat(false, 1, 0));
        tablet.hear(RealTime.START, 0);
        for (int clock = 0; clock <= 48; clock++) {
            tablet.hear(RealTime.CLOCK, clock * 25_000_000L);
        }
        assertThat(tablet.beat()).isEqualTo(new BandTablet.Beat(true, 3, 100));
        tablet.hear(RealTime.STOP, 0);
        tablet.hear(new SongPosition(16), 0);
        assertThat(tablet.beat()).isEqualTo(new BandTablet.Beat(false, 5, 100));
    }

    @Test
    void theScreenShowsTheFirstFrameUntilAClipIsStarted() {
        RiverScreen screen = new RiverScreen();
        screen.hear(new ProgramChange(1, 3), 0);
        assertThat(screen.state().reelName()).isEqualTo("Lanterns");
        assertThat(screen.state().running()).isFalse();
        screen.hear(new NoteOn(1, 37, 127), 5);
        assertThat(screen.state().clip()).isEqualTo(2);
        assertThat(screen.state().running()).isTrue();
        screen.hear(new NoteOn(1, 60, 127), 6);
        assertThat(screen.state().clip()).as("this reel has no such clip").isEqualTo(2);
        screen.hear(new NoteOn(1, 35, 127), 7);
        assertThat(screen.state().running()).isFalse();
    }

    @Test
    void wordsKnowOnlyNextAndRunOnIntoTheNextSong() {
        WordsScreen words = new WordsScreen();
        words.hear(new ProgramChange(2, 0), 0);
        assertThat(words.state().title()).isEqualTo("Slipway");
        for (int i = 0; i < 4; i++) {
            words.hear(new NoteOn(2, 60, 127), 0);
        }
        assertThat(words.state().title()).isEqualTo("Is anyone across?");
        assertThat(words.state().page()).isEqualTo(1);
        words.hear(new NoteOn(2, 59, 127), 0);
        assertThat(words.state().title()).isEqualTo("Slipway");
        assertThat(words.state().page()).isEqualTo(4);
        words.hear(new NoteOn(2, 58, 127), 0);
        assertThat(words.state().blank()).isTrue();
    }

    @Test
    void camerasAreChosenByAWholeNumberAndTheSwitcherAnswers() {
        CameraSwitcher cameras = new CameraSwitcher();
        assertThat(cameras.hear(new OscMessage("/camera/program", List.of(3)))).isEmpty();
        cameras.hear(new OscMessage("/camera/program", List.of(9)));
        cameras.hear(new OscMessage("/camera/program", List.of(2.0f)));
        cameras.hear(new OscMessage("/camera/preview", List.of(1)));
        assertThat(cameras.hear(new OscMessage("/camera/program", List.of())))
                .containsExactly(new OscMessage("/camera/program", List.of(3)));
    }

    /** Common practice: the channel tells which property of the strip a controller moves. */
    @Test
    void theConsoleTellsFaderMuteAndPanByChannel() {
        SoundConsole console = new SoundConsole();
        console.hear(new ProgramChange(4, 8), 0);
        assertThat(console.state().scene()).isEqualTo(9);
        console.hear(new ControlChange(4, 0, 100), 0);
        console.hear(new ControlChange(5, 0, 127), 0);
        console.hear(new ControlChange(6, 0, 0), 0);
        console.hear(new ControlChange(4, 16, 1), 0);
        assertThat(console.state().strips().get(0)).isEqualTo(new SoundConsole.Strip("Vox 1", 100, true, 0));
        console.hear(new ProgramChange(4, 9), 0);
        assertThat(console.state().strips().get(0).muted())
                .as("a scene opens all mutes")
                .isFalse();
    }

    @Test
    void aPatchPutsTheSwitchesOffAndTheExpressionUp() {
        KeyboardsHost keys = new KeyboardsHost();
        keys.hear(new ControlChange(5, 80, 127), 0);
        keys.hear(new ControlChange(5, 11, 20), 0);
        assertThat(keys.state().switch1()).isTrue();
        assertThat(keys.state().expression()).isEqualTo(20);
        keys.hear(new ProgramChange(5, 4), 0);
        assertThat(keys.state().name()).isEqualTo("Harmonium");
        assertThat(keys.state().switch1()).isFalse();
        assertThat(keys.state().expression()).isEqualTo(127);
        keys.hear(new ProgramChange(4, 1), 0);
        keys.hear(new ProgramChange(5, 99), 0);
        assertThat(keys.state().patch()).isEqualTo(5);
        keys.hear(new NoteOn(5, 60, 90), 0);
        keys.hear(new NoteOn(5, 60, 0), 0);
        assertThat(keys.state().sounding()).isZero();
    }

    @Test
    void twentyFourKeysAreChosenByProgram() {
        VocalTuning tuning = new VocalTuning();
        tuning.hear(new ProgramChange(6, 15), 0);
        assertThat(tuning.key()).isEqualTo("E♭ minor");
        tuning.hear(new ProgramChange(6, 24), 0);
        tuning.hear(new NoteOn(6, 3, 127), 0);
        assertThat(tuning.key()).isEqualTo("E♭ minor");
    }

    @Test
    void theTabletScrollsOnUntilItIsToggledAgain() {
        BandTablet tablet = new BandTablet();
        tablet.hear(new NoteOn(7, 47, 127), 0);
        assertThat(tablet.state().song()).as("there is none before the first").isEqualTo(1);
        tablet.hear(new NoteOn(7, 48, 127), 0);
        tablet.hear(new NoteOn(7, 50, 127), 0);
        assertThat(tablet.state().scrolling()).isTrue();
        tablet.hear(new NoteOn(7, 36, 127), 0);
        assertThat(tablet.state().title())
                .as("a note by the wrong octave's name")
                .isEqualTo("Is anyone across?");
        tablet.hear(new NoteOn(7, 50, 127), 0);
        assertThat(tablet.state().scrolling()).isFalse();
    }

    @Test
    void aLoopRunsAsLongAsItsNoteIsHeld() {
        SoundPlayer player = new SoundPlayer();
        player.hear(new NoteOn(8, 37, 127), 5);
        assertThat(player.state().shot()).contains(SoundPlayer.SHOTS.get(1));
        player.hear(new NoteOn(8, 48, 127), 6);
        player.hear(new NoteOff(8, 49, 0), 7);
        assertThat(player.state().loop()).contains(SoundPlayer.LOOPS.get(0));
        player.hear(new NoteOff(8, 48, 0), 8);
        assertThat(player.state().loop()).isEmpty();
        player.hear(new ControlChange(8, 7, 64), 9);
        assertThat(player.state().level()).isEqualTo(64);
    }

    @Test
    void aPortThatIsTakenIsNamed() throws IOException {
        InetAddress loopback = InetAddress.getLoopbackAddress();
        try (DatagramSocket other = new DatagramSocket(new InetSocketAddress(loopback, 0))) {
            StandIn lights = new StandIn(
                    "FOH lights",
                    new FohLights(),
                    loopback,
                    other.getLocalPort(),
                    new SystemClock(),
                    new Loops(Thread::new),
                    () -> 0,
                    () -> {});
            assertThatThrownBy(lights::switchOn)
                    .isInstanceOf(IOException.class)
                    .hasMessageContaining("UDP ports " + other.getLocalPort());
            assertThat(lights.isOn()).isFalse();
        }
    }

    private final List<Message> said = new ArrayList<>();

    private final Keyed.Mouth mouth = new Keyed.Mouth() {
        @Override
        public void say(Message... messages) {
            synchronized (said) {
                said.addAll(List.of(messages));
                said.notifyAll();
            }
        }

        @Override
        public void say(Keyed.Way way, Message message) {
            say(message);
        }
    };

    /** Waits until the machine has said it so many times, at most half a minute: a loaded core may let it come late. */
    private void waitFor(Message wanted, int times) throws InterruptedException {
        long end = System.nanoTime() + TimeUnit.SECONDS.toNanos(30);
        synchronized (said) {
            while (Collections.frequency(said, wanted) < times && System.nanoTime() < end) {
                TimeUnit.SECONDS.timedWait(said, 1);
            }
        }
    }

    private List<Message> saidSoFar() {
        synchronized (said) {
            List<Message> now = List.copyOf(said);
            said.clear();
            return now;
        }
    }

    @Test
    void pedalsArePressedAndLetGoAndPadsAreStruckAsHardAsItHappens() {
        PedalBoard board = new PedalBoard();
        board.press("next", mouth);
        assertThat(saidSoFar()).containsExactly(new ControlChange(0, 67, 127), new ControlChange(0, 67, 0));
        Set<Integer> velocities = new HashSet<>();
        for (int i = 0; i < 50; i++) {
            board.press("pad 2", mouth);
            List<Message> strike = saidSoFar();
            assertThat(strike.get(1)).isEqualTo(new NoteOff(9, 37, 0));
            velocities.add(((NoteOn) strike.get(0)).velocity());
        }
        assertThat(velocities).hasSizeGreaterThan(20).allMatch(v -> v >= 1 && v <= 127);
        board.press("no such key", mouth);
        assertThat(saidSoFar()).isEmpty();
    }

    @Test
    void thePlaybackMachineSaysItsClockUntilItIsStopped() throws InterruptedException {
        PlaybackMachine playback = new PlaybackMachine(new Loops(Thread::new));
        playback.press("song 3", mouth);
        assertThat(saidSoFar()).containsExactly(new ProgramChange(0, 2));
        playback.press("play", mouth);
        NoteOn click = new NoteOn(9, 33, 100);
        waitFor(click, 2);
        playback.press("stop", mouth);
        List<Message> all = saidSoFar();
        assertThat(all).startsWith(new MachineControl(127, Command.PLAY, Optional.empty()), RealTime.START);
        assertThat(all).endsWith(RealTime.STOP, new MachineControl(127, Command.STOP, Optional.empty()));
        // The click is on the first of each 24 pulses.
        assertThat(all.indexOf(click)).isEqualTo(all.indexOf(RealTime.CLOCK) + 1);
        List<Message> afterTheFirst = all.subList(all.indexOf(click) + 1, all.size());
        List<Message> between = afterTheFirst.subList(0, afterTheFirst.indexOf(click));
        assertThat(Collections.frequency(between, RealTime.CLOCK)).isEqualTo(24);
        assertThat(playback.state().plays()).isFalse();
        Thread.sleep(100);
        assertThat(saidSoFar()).isEmpty();
    }

    @Test
    void theConsoleRecallsASceneByItselfAndSaysItsProgram() {
        SoundConsole console = new SoundConsole();
        console.press("scene 12", mouth);
        assertThat(saidSoFar()).containsExactly(new ProgramChange(4, 11));
        assertThat(console.state().scene()).isEqualTo(12);
    }
}
