package underbaton.core.perform;

import underbaton.core.loop.Clock;

/** A clock that a test turns by hand. */
public final class HandClock implements Clock {

    private volatile long nanos = 1_000_000;

    public void forward(long by) {
        nanos += by;
    }

    @Override
    public long nanos() {
        return nanos;
    }

    @Override
    public long epochMicros() {
        return nanos / 1000;
    }
}
