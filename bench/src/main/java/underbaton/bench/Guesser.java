package underbaton.bench;

import java.io.IOException;
import java.util.concurrent.atomic.AtomicInteger;

/** A script at the venue's door that guesses the operator's password as fast as it is refused. */
final class Guesser implements AutoCloseable {

    private final AtomicInteger refused = new AtomicInteger();
    private final Thread thread;
    private volatile boolean ends;

    Guesser(Visitors door) {
        thread = new Thread(() -> guess(door), "guesser");
        thread.setDaemon(true);
        thread.start();
    }

    private void guess(Visitors door) {
        for (int i = 0; !ends; i++) {
            try {
                door.guess("guess " + i);
                refused.incrementAndGet();
            } catch (IOException cut) {
                // It tries again.
            } catch (InterruptedException ended) {
                return;
            }
        }
    }

    int refused() {
        return refused.get();
    }

    @Override
    public void close() throws InterruptedException {
        ends = true;
        thread.join(5000);
    }
}
