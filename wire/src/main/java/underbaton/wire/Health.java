package underbaton.wire;

/**
 * How a way out is doing.
 *
 * @param reached whether the other side has shown that it is there
 * @param roundTripMicros the newest measured round trip in µs, −1 before the first
 * @param lossPerCent how much of what was lately sent to and fro was lost, 0–100; −1 where nobody can tell
 * @param lastHeardNanos when anything came from it, by the clock; 0 for never
 * @param words for a technician: what is so, and what to do if it is not good
 */
public record Health(boolean reached, long roundTripMicros, int lossPerCent, long lastHeardNanos, String words) {}
