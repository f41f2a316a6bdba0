package underbaton.wire;

import java.util.function.BooleanSupplier;
import underbaton.core.loop.Loops;

/** Waits for what other threads bring about. */
public final class Waiting {

    private static final long LONGEST_MILLIS = 30_000;

    public static final Loops LOOPS = new Loops(Thread::new);

    private Waiting() {}

    public static void until(String what, BooleanSupplier condition) throws InterruptedException {
        for (long waited = 0; !condition.getAsBoolean(); waited += 5) {
            if (waited > LONGEST_MILLIS) {
                throw new AssertionError("never came about: " + what);
            }
            Thread.sleep(5);
        }
    }
}
