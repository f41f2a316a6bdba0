package underbaton.standins;

import java.util.List;
import java.util.concurrent.locks.LockSupport;
import underbaton.core.loop.Clock;
import underbaton.core.loop.Loop;
import underbaton.core.loop.Loops;
import underbaton.core.midi.FullFrame;
import underbaton.core.midi.MidiMessage;
import underbaton.core.midi.SystemCommon.QuarterFrame;
import underbaton.core.midi.TimeCode;
import underbaton.core.midi.TimeCode.Rate;

/**
 * A player of one film that says by MIDI Time Code where it is (RP-004/008): a full frame at each new place, quarter frames while it
 * runs. Its clock is its own: it runs a little too fast, as such clocks do.
 */
public final class FilmPlayer implements Model.Midi, Keyed {

    /** Of its film, which begins at nine o'clock of the day of the code. */
    public static final Rate RATE = Rate.PAL_25;

    static final int HOUR = 9;

    /** How much too fast it runs, in millionths. */
    public static final int FAST_PPM = 1_200;

    private static final int EVERYONE = 0x7F;
    private static final int QUARTERS = 4;
    private static final int PIECES = 8;
    private static final int SECOND = RATE.frames() * QUARTERS;
    private static final int STRIDE_SECONDS = 30;
    private static final long LENGTH = 600L * SECOND;
    private static final double MILLION = 1e6;

    private final Loops loops;
    private final Clock clock;
    /** Where it is: quarter frames since its film began; its even frames are those of which pieces tell. */
    private volatile long quarter;

    private Loop runs;

    public FilmPlayer(Loops loops, Clock clock) {
        this.loops = loops;
        this.clock = clock;
    }

    /** Where it is, as it stands in the corner of its picture: {@code 09:00:12:03}. */
    public TimeCode place() {
        return frame(quarter);
    }

    /** Whether its film runs. */
    public synchronized boolean isRunning() {
        return runs != null;
    }

    private static TimeCode frame(long at) {
        return TimeCode.ofCount(RATE, HOUR * 3600L * RATE.frames() + at / QUARTERS);
    }

    @Override
    public void hear(MidiMessage message, long nanos) {
        // It takes orders from its own keys alone.
    }

    @Override
    public List<String> keys() {
        return List.of("play", "stop", "to the start", "back by 30 s", "on by 30 s");
    }

    @Override
    public synchronized void press(String key, Mouth mouth) {
        switch (key) {
            case "play" -> play(mouth);
            case "stop" -> unplugged();
            case "to the start" -> go(0, mouth);
            case "back by 30 s" -> go(quarter - (long) STRIDE_SECONDS * SECOND, mouth);
            case "on by 30 s" -> go(quarter + (long) STRIDE_SECONDS * SECOND, mouth);
            default -> {
                // It has no such key.
            }
        }
    }

    private void go(long to, Mouth mouth) {
        boolean ran = runs != null;
        unplugged();
        quarter = Math.max(0, Math.min(to, LENGTH)) / PIECES * PIECES;
        mouth.say(new FullFrame(EVERYONE, frame(quarter)));
        if (ran) {
            play(mouth);
        }
    }

    private void play(Mouth mouth) {
        if (runs != null) {
            return;
        }
        quarter = quarter / PIECES * PIECES;
        mouth.say(new FullFrame(EVERYONE, frame(quarter)));
        long from = quarter;
        long began = clock.nanos();
        runs = loops.start("film player’s time code", () -> {
            long gone = Math.round(RATE.quarterNanos(quarter - from) / (1 + FAST_PPM / MILLION));
            LockSupport.parkNanos(began + gone - clock.nanos());
            if (clock.nanos() - began < gone) {
                return;
            }
            int piece = (int) (quarter % PIECES);
            mouth.say(QuarterFrame.of(frame(quarter - piece), piece));
            quarter++;
        });
    }

    @Override
    public synchronized void unplugged() {
        if (runs != null) {
            runs.close();
            runs = null;
        }
    }
}
