package underbaton.standins;

import java.util.List;
import java.util.Optional;
import java.util.concurrent.locks.LockSupport;
import underbaton.core.loop.Loop;
import underbaton.core.loop.Loops;
import underbaton.core.midi.ChannelMessage.NoteOff;
import underbaton.core.midi.ChannelMessage.NoteOn;
import underbaton.core.midi.ChannelMessage.ProgramChange;
import underbaton.core.midi.MachineControl;
import underbaton.core.midi.MachineControl.Command;
import underbaton.core.midi.MidiMessage;
import underbaton.core.midi.RealTime;

/**
 * The band's playback machine: it calls the song by a program, plays a click with its clock (24 a quarter, MIDI 1.0), says by
 * machine control what it does, and can be made to say wrong things. It counts its songs from 1.
 */
public final class PlaybackMachine implements Model.Midi, Keyed {

    /** The quarter of its click, a minute. */
    public static final int TEMPO = 96;

    private static final int PULSES = 24;
    private static final long PULSE_NANOS = 60_000_000_000L / TEMPO / PULSES;
    private static final int ALL = 0x7F;
    private static final int CLICK_CHANNEL = 9;
    private static final int CLICK = 33;
    private static final int SONGS = 6;

    private final Loops loops;
    private volatile int song;
    private volatile boolean plays;
    private Loop click;

    public PlaybackMachine(Loops loops) {
        this.loops = loops;
    }

    /** @param song 1 for the first, 0 when none was called */
    public record State(int song, boolean plays) {}

    public State state() {
        return new State(song, plays);
    }

    @Override
    public void hear(MidiMessage message, long nanos) {
        // It takes orders from its own keys alone.
    }

    @Override
    public List<String> keys() {
        return List.of(
                "song 1",
                "song 2",
                "song 3",
                "song 4",
                "song 5",
                "song 6",
                "play",
                "stop",
                "wrong song",
                "wrong channel");
    }

    @Override
    public synchronized void press(String key, Mouth mouth) {
        switch (key) {
            case "play" -> play(mouth);
            case "stop" -> stop(mouth);
            case "wrong song" -> mouth.say(new ProgramChange(0, 99));
            case "wrong channel" -> mouth.say(new ProgramChange(15, 0));
            default -> call(key, mouth);
        }
    }

    private void call(String key, Mouth mouth) {
        if (key.matches("song [1-" + SONGS + "]")) {
            song = key.charAt(5) - '0';
            mouth.say(new ProgramChange(0, song - 1));
        }
    }

    private void play(Mouth mouth) {
        if (click != null) {
            return;
        }
        mouth.say(new MachineControl(ALL, Command.PLAY, Optional.empty()), RealTime.START);
        plays = true;
        int[] pulse = {0};
        click = loops.start("playback machine’s clock", () -> {
            mouth.say(RealTime.CLOCK);
            if (pulse[0]++ % PULSES == 0) {
                mouth.say(new NoteOn(CLICK_CHANNEL, CLICK, 100), new NoteOff(CLICK_CHANNEL, CLICK, 0));
            }
            LockSupport.parkNanos(PULSE_NANOS);
        });
    }

    private void stop(Mouth mouth) {
        unplugged();
        mouth.say(RealTime.STOP, new MachineControl(ALL, Command.STOP, Optional.empty()));
    }

    @Override
    public synchronized void unplugged() {
        if (click != null) {
            click.close();
            click = null;
        }
        plays = false;
    }
}
