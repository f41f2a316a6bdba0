package underbaton.core.score;

import underbaton.core.rig.Refusal;

/**
 * A fermata: what stands at the tick comes in time, and all that is later waits.
 *
 * @param tick where it stands
 * @param millis how long time stands still there, 1–600,000 ms
 */
public record Hold(long tick, int millis) {

    public Hold {
        if (tick < 0 || millis < 1 || millis > 600_000) {
            throw new Refusal("hold", "A hold lasts 0.001 to 600 seconds.");
        }
    }
}
