package underbaton.standins;

import java.util.List;
import underbaton.core.midi.ChannelMessage.NoteOn;
import underbaton.core.midi.MidiMessage;
import underbaton.core.midi.RealTime;
import underbaton.core.midi.SystemCommon.SongPosition;

/**
 * The band's tablet with the sheets: note 48 turns to the next song, 47 to the one before, and 50 toggles the scrolling,
 * which goes on by itself until it is toggled again. It cannot be told a song by number. By the MIDI clock it counts quarters.
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

    private static final int CLOCKS = 24;
    private static final int CLOCKS_OF_UNIT = 6;
    private static final double MINUTE_NANOS = 60e9;

    /**
     * What it plays by the clock.
     *
     * @param quarter 1 for the first
     * @param tempo quarters a minute, by the last one; 0 until one has passed
     */
    public record Beat(boolean runs, int quarter, int tempo) {}

    private int clocks;
    private long quarterNanos;
    private volatile Beat beat = new Beat(false, 1, 0);
    private volatile State state = new State(1, SONGS.get(0), false, 0);

    @Override
    public void hear(MidiMessage message, long nanos) {
        if (message instanceof RealTime || message instanceof SongPosition) {
            keepTime(message, nanos);
        } else if (message instanceof NoteOn n && n.channel() == CHANNEL && n.velocity() > 0) {
            switch (n.note()) {
                case NEXT -> turn(1);
                case PREVIOUS -> turn(-1);
                case TOGGLE -> state = new State(state.song, state.title, !state.scrolling, nanos);
                default -> {}
            }
        }
    }

    private synchronized void keepTime(MidiMessage message, long nanos) {
        if (message == RealTime.CLOCK && beat.runs) {
            if (clocks % CLOCKS == 0) {
                boolean measured = quarterNanos > 0 && nanos > quarterNanos;
                int tempo = measured ? (int) Math.round(MINUTE_NANOS / (nanos - quarterNanos)) : beat.tempo;
                beat = new Beat(true, clocks / CLOCKS + 1, tempo);
                quarterNanos = nanos;
            }
            clocks++;
        } else if (message instanceof SongPosition place) {
            clocks = place.sixteenths() * CLOCKS_OF_UNIT;
            beat = new Beat(beat.runs, clocks / CLOCKS + 1, beat.tempo);
        } else if (message == RealTime.START || message == RealTime.CONTINUE) {
            clocks = message == RealTime.START ? 0 : clocks;
            quarterNanos = 0;
            beat = new Beat(true, clocks / CLOCKS + 1, beat.tempo);
        } else if (message == RealTime.STOP) {
            beat = new Beat(false, beat.quarter, beat.tempo);
        }
    }

    /** Where the clock has brought it. */
    public Beat beat() {
        return beat;
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
