package underbaton.standins;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.IOException;
import java.net.DatagramSocket;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.util.List;
import org.junit.jupiter.api.Test;
import underbaton.core.midi.ChannelMessage.ControlChange;
import underbaton.core.midi.ChannelMessage.NoteOn;
import underbaton.core.midi.ChannelMessage.ProgramChange;
import underbaton.core.midi.OscMessage;
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
    void aPortThatIsTakenIsNamed() throws IOException {
        InetAddress loopback = InetAddress.getLoopbackAddress();
        try (DatagramSocket other = new DatagramSocket(new InetSocketAddress(loopback, 0))) {
            StandIn lights = new StandIn(
                    "FOH lights",
                    new FohLights(),
                    loopback,
                    other.getLocalPort(),
                    new SystemClock(),
                    Thread::new,
                    () -> {});
            assertThatThrownBy(lights::switchOn)
                    .isInstanceOf(IOException.class)
                    .hasMessageContaining("UDP ports " + other.getLocalPort());
            assertThat(lights.isOn()).isFalse();
        }
    }
}
