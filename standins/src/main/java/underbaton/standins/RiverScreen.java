package underbaton.standins;

import java.util.List;
import underbaton.core.midi.ChannelMessage.NoteOn;
import underbaton.core.midi.ChannelMessage.ProgramChange;
import underbaton.core.midi.MidiMessage;

/**
 * A video player. A program picks the reel and shows its first frame; note 36 starts clip 1 of that reel, 37 clip 2 and
 * so on; note 35 stops. A clip runs to its end by itself. The time code that it gets is shown in the picture.
 */
public final class RiverScreen implements Model.Midi {

    /** @param clipSeconds lengths of its clips, in s */
    public record Reel(String name, List<Integer> clipSeconds) {}

    /**
     * @param reel 1 for the first, as its display prints it
     * @param clip 1 for the first; 0 when none was started
     * @param startedNanos when the clip was started, by the clock of the wire
     * @param lengthSeconds length of the clip
     */
    public record State(int reel, String reelName, int clip, boolean running, long startedNanos, int lengthSeconds) {}

    private static final int CHANNEL = 1;
    private static final int STOP = 35;
    private static final int FIRST_CLIP = 36;

    public static final List<Reel> REELS = List.of(
            new Reel("Black", List.of(5)),
            new Reel("Slow river", List.of(240, 180)),
            new Reel("Town across the water", List.of(60, 45, 30)),
            new Reel("Lanterns", List.of(90, 64, 32)),
            new Reel("The night crossing", List.of(277)),
            new Reel("Storm", List.of(75, 20)),
            new Reel("Dawn", List.of(120)),
            new Reel("Titles", List.of(20, 40)),
            new Reel("Meadow loop", List.of(300)),
            new Reel("Candles", List.of(180, 90)));

    private final CodeReader reader = new CodeReader();
    private volatile String code = "";
    private volatile State state = new State(1, REELS.get(0).name(), 0, false, 0, 0);

    @Override
    public void hear(MidiMessage message, long nanos) {
        State now = state;
        synchronized (reader) {
            reader.hear(message).ifPresent(frame -> code = frame.toString());
        }
        if (message instanceof ProgramChange p && p.channel() == CHANNEL && p.program() < REELS.size()) {
            state = new State(p.program() + 1, REELS.get(p.program()).name(), 0, false, 0, 0);
        } else if (message instanceof NoteOn on && on.channel() == CHANNEL && on.velocity() > 0) {
            if (on.note() == STOP) {
                state = new State(now.reel, now.reelName, now.clip, false, now.startedNanos, now.lengthSeconds);
            } else {
                start(on.note() - FIRST_CLIP, nanos);
            }
        }
    }

    private void start(int clip, long nanos) {
        List<Integer> lengths = REELS.get(state.reel - 1).clipSeconds();
        if (clip >= 0 && clip < lengths.size()) {
            state = new State(state.reel, state.reelName, clip + 1, true, nanos, lengths.get(clip));
        }
    }

    /** The time code by now, {@code 02:00:14:07}; empty where none has come. */
    public String code() {
        return code;
    }

    public State state() {
        return state;
    }
}
