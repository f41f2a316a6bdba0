package underbaton.wire;

import java.time.Instant;
import java.time.temporal.ChronoUnit;
import underbaton.core.loop.Clock;

/** The machine's own clocks. */
public final class SystemClock implements Clock {

    @Override
    public long nanos() {
        return System.nanoTime();
    }

    @Override
    public long epochMicros() {
        return ChronoUnit.MICROS.between(Instant.EPOCH, Instant.now());
    }
}
