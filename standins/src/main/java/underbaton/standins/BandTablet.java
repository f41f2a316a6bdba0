package underbaton.standins;

import java.util.List;
import underbaton.core.midi.ChannelMessage.NoteOn;
import underbaton.core.midi.MidiMessage;

/**
 * The band's tablet with the sheets: note 48 turns to the next song, 47 to the one before, and 50 toggles the scrolling,
 * which goes on by itself until it is toggled again. It cannot be told a song by number.
 */
public final class BandTablet implements Model.Midi {

    public static final List<String> SONGS =
            List.of("Slipway", "Is anyone across?", "Lamps across the water", "Halfway", "The toll", "Cold dawn");

    /** @param song 1 for the first */
    public record State(int song, String title, boolean scrolling, long sinceNanos) {}

    private static final int CHANNEL = 7;
    private static final int PREVIOUS = 47;
    private static final int NEXT = 48;
    private static final int TOGGLE = 50;

    private volatile State state = new State(1, SONGS.get(0), false, 0);

    @Override
    public void hear(MidiMessage message, long nanos) {
        if (message instanceof NoteOn n && n.channel() == CHANNEL && n.velocity() > 0) {
            switch (n.note()) {
                case NEXT -> turn(1);
                case PREVIOUS -> turn(-1);
                case TOGGLE -> state = new State(state.song, state.title, !state.scrolling, nanos);
                default -> {}
            }
        }
    }

    /** At either end it stays; turning stops the scrolling. */
    private void turn(int by) {
        int song = Math.max(1, Math.min(SONGS.size(), state.song + by));
        state = new State(song, SONGS.get(song - 1), false, 0);
    }

    public State state() {
        return state;
    }
}
