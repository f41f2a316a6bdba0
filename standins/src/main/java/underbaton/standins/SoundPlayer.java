package underbaton.standins;

import java.util.List;
import java.util.Optional;
import underbaton.core.midi.ChannelMessage.ControlChange;
import underbaton.core.midi.ChannelMessage.NoteOff;
import underbaton.core.midi.ChannelMessage.NoteOn;
import underbaton.core.midi.MidiMessage;

/**
 * A player of sounds: notes 36–39 fire one-shots, which run out by themselves; notes 48–50 run a loop for as long as the
 * note is held; controller 7 is its level.
 */
public final class SoundPlayer implements Model.Midi {

    /** @param seconds length, 0 for a loop */
    public record Sound(String name, int seconds) {}

    public static final List<Sound> SHOTS = List.of(
            new Sound("Ship's bell", 3),
            new Sound("Thunder near", 8),
            new Sound("Oar stroke", 2),
            new Sound("Crowd sigh", 4));
    public static final List<Sound> LOOPS =
            List.of(new Sound("River bed", 0), new Sound("Rain on the roof", 0), new Sound("Night insects", 0));

    /**
     * @param shot the one-shot fired last
     * @param loop the loop that runs
     * @param level 0–127
     */
    public record State(Optional<Sound> shot, long shotNanos, Optional<Sound> loop, int level) {}

    private static final int CHANNEL = 8;
    private static final int FIRST_SHOT = 36;
    private static final int FIRST_LOOP = 48;
    private static final int LEVEL = 7;
    private static final int FULL = 127;

    private volatile State state = new State(Optional.empty(), 0, Optional.empty(), FULL);

    @Override
    public void hear(MidiMessage message, long nanos) {
        State s = state;
        if (message instanceof NoteOn n && n.channel() == CHANNEL && n.velocity() > 0) {
            Optional<Sound> shot = at(SHOTS, n.note() - FIRST_SHOT);
            Optional<Sound> loop = at(LOOPS, n.note() - FIRST_LOOP);
            if (shot.isPresent()) {
                state = new State(shot, nanos, s.loop, s.level);
            } else if (loop.isPresent()) {
                state = new State(s.shot, s.shotNanos, loop, s.level);
            }
        } else if (message instanceof NoteOff n && n.channel() == CHANNEL) {
            release(n.note());
        } else if (message instanceof NoteOn n && n.channel() == CHANNEL) {
            release(n.note());
        } else if (message instanceof ControlChange c && c.channel() == CHANNEL && c.controller() == LEVEL) {
            state = new State(s.shot, s.shotNanos, s.loop, c.value());
        }
    }

    private void release(int note) {
        State s = state;
        Optional<Sound> loop = at(LOOPS, note - FIRST_LOOP);
        if (loop.isPresent() && loop.equals(s.loop)) {
            state = new State(s.shot, s.shotNanos, Optional.empty(), s.level);
        }
    }

    private static Optional<Sound> at(List<Sound> sounds, int place) {
        return place >= 0 && place < sounds.size() ? Optional.of(sounds.get(place)) : Optional.empty();
    }

    public State state() {
        return state;
    }
}
