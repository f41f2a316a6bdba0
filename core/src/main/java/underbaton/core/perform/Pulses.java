package underbaton.core.perform;

import underbaton.core.engine.out.ScheduledMessage;
import underbaton.core.midi.Message;
import underbaton.core.midi.RealTime;
import underbaton.core.midi.SystemCommon.QuarterFrame;

/**
 * Clocks and quarter frames that left, which are told in the log by their number: a hundred a second would hide all else. Not
 * thread-safe.
 */
final class Pulses {

    private static final long TOLD_EACH_MICROS = 10_000_000;

    private int count;
    private long sinceMicros;
    private long latest;
    private String cause = "";

    static boolean is(Message message) {
        return message == RealTime.CLOCK || message instanceof QuarterFrame;
    }

    /** @param epochMicros when it left @param lateMicros how long after its due time */
    void add(ScheduledMessage message, long epochMicros, long lateMicros) {
        sinceMicros = count == 0 ? epochMicros : sinceMicros;
        count++;
        latest = Math.max(latest, lateMicros);
        cause = message.cause().words();
    }

    /** Whether it is time to tell of them. */
    boolean areToBeTold(long epochMicros) {
        return count > 0 && epochMicros - sinceMicros >= TOLD_EACH_MICROS;
    }

    boolean any() {
        return count > 0;
    }

    /** {@code 480 clocks and quarter frames in 10.0 s}. */
    String words(long epochMicros) {
        return "%,d clocks and quarter frames in %.1f s".formatted(count, (epochMicros - sinceMicros) / 1e6);
    }

    long latestMicros() {
        return latest;
    }

    String cause() {
        return cause;
    }

    void told() {
        count = 0;
        latest = 0;
    }
}
