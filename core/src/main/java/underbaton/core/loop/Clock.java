package underbaton.core.loop;

/** Where time comes from. A test hands in one that it turns itself. */
public interface Clock {

    /** A steady count of nanoseconds from some moment; only differences mean anything. */
    long nanos();

    /** The time of day in microseconds since 1970-01-01T00:00Z, as the log prints it. */
    long epochMicros();

    /** A moment of the steady count as time of day, µs since 1970. */
    default long epochMicrosAt(long nanos) {
        return epochMicros() + (nanos - nanos()) / 1000;
    }
}
