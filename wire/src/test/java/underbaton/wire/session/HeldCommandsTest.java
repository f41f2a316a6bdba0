package underbaton.wire.session;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import underbaton.core.midi.ChannelMessage.ControlChange;
import underbaton.core.midi.ChannelMessage.NoteOff;
import underbaton.core.midi.ChannelMessage.NoteOn;

class HeldCommandsTest {

    private static final NoteOn ON = new NoteOn(3, 60, 90);
    private static final NoteOff OFF = new NoteOff(3, 60, 0);

    private final SentHistory history = new SentHistory();
    private final HeldCommands held = new HeldCommands(history);

    @BeforeEach
    void aNoteThatIsNotYetKnownToHaveArrived() {
        history.sent(ON, 5);
        held.sent(ON, 5);
    }

    private boolean takesTheEnd() {
        return held.takes(OFF, List.of(), 0, 1000);
    }

    @Test
    void theEndOfANoteWaitsUntilItsBeginningHasArrived() {
        assertThat(takesTheEnd()).isTrue();
        assertThat(held.due(999)).isEmpty();
        history.acknowledged(5);
        assertThat(held.due(999)).containsExactly(OFF);
    }

    /** What is held would otherwise come behind a pedal that was pressed after it. */
    @Test
    void whatIsHeldLeavesBeforeAControllerOfItsChannelAndOfNoOther() {
        takesTheEnd();
        assertThat(held.before(new ControlChange(4, 64, 127))).isEmpty();
        assertThat(held.before(new ControlChange(3, 64, 127))).containsExactly(OFF);
        assertThat(held.isEmpty()).isTrue();
    }

    @Test
    void anAcknowledgementThatComesLateTakesNothingBack() {
        history.acknowledged(6);
        history.acknowledged(4);
        assertThat(history.awaits(5)).isFalse();
        assertThat(takesTheEnd()).isFalse();
    }
}
