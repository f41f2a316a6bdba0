package underbaton.core.loop;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.CountDownLatch;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.concurrent.locks.LockSupport;
import org.junit.jupiter.api.Test;

/** A loop goes on whatever happens within, and ends when it is told to. */
class LoopTest {

    private final List<String> told = new ArrayList<>();
    private final Loops loops = new Loops(Thread::new, (loop, fault, inARow) -> {
        synchronized (told) {
            told.add(loop + " " + fault.getClass().getSimpleName() + " " + inARow);
        }
    });

    private static void await(CountDownLatch latch) {
        try {
            assertThat(latch.await(30, TimeUnit.SECONDS)).isTrue();
        } catch (InterruptedException interrupted) {
            throw new AssertionError(interrupted);
        }
    }

    /** Runs into one StackOverflowError after the other until it has had enough. */
    private static int deep(int n) {
        return n < 0 ? n : 1 + deep(n + 1);
    }

    @Test
    void errorsAreFaultsTooAndTheNextTurnComes() {
        CountDownLatch fourth = new CountDownLatch(4);
        CountDownLatch well = new CountDownLatch(6);
        Loop loop = loops.start("listener", () -> {
            fourth.countDown();
            well.countDown();
            if (well.getCount() >= 2) {
                deep(0);
            }
            LockSupport.parkNanos(1_000_000);
        });
        await(fourth);
        await(well);
        synchronized (told) {
            assertThat(told).startsWith("listener StackOverflowError 1", "listener StackOverflowError 2");
        }
        loop.close();
        assertThat(loops.broken()).isEmpty();
    }

    @Test
    void whatFailsAgainAndAgainIsBrokenUntilItWorks() {
        AtomicInteger turns = new AtomicInteger();
        CountDownLatch failed = new CountDownLatch(4);
        Loop loop = loops.start("asker", () -> {
            turns.incrementAndGet();
            failed.countDown();
            throw new IllegalStateException("no answer");
        });
        await(failed);
        assertThat(loops.broken()).hasSize(1).first().asString().contains("asker", "no answer");
        loop.close();
        assertThat(loops.broken()).isEmpty();
        int then = turns.get();
        LockSupport.parkNanos(50_000_000);
        assertThat(turns).hasValue(then);
    }

    @Test
    void aTurnThatIsParkedOrWaitsForOthersEndsWhenTheLoopIsClosed() {
        CountDownLatch begun = new CountDownLatch(1);
        CountDownLatch ends = new CountDownLatch(1);
        Loop parked = loops.start("parked", LockSupport::park);
        Loop waiting = loops.start("waiting", () -> {
            begun.countDown();
            try {
                new CountDownLatch(1).await();
            } finally {
                ends.countDown();
            }
        });
        await(begun);
        parked.close();
        waiting.close();
        await(ends);
        synchronized (told) {
            assertThat(told).isEmpty();
        }
    }

    @Test
    void workThatIsDoneOnceIsDoneOnceAndItsFaultIsTold() {
        CountDownLatch done = new CountDownLatch(1);
        AtomicInteger count = new AtomicInteger();
        loops.once("look", () -> {
            count.incrementAndGet();
            done.countDown();
        });
        await(done);
        LockSupport.parkNanos(20_000_000);
        assertThat(count).hasValue(1);
    }

    @Test
    void aLoopMayEndItselfFromWithin() {
        CountDownLatch done = new CountDownLatch(1);
        AtomicInteger count = new AtomicInteger();
        Loop[] itself = new Loop[1];
        CountDownLatch ready = new CountDownLatch(1);
        itself[0] = loops.start("caller", () -> {
            await(ready);
            count.incrementAndGet();
            itself[0].close();
            done.countDown();
        });
        ready.countDown();
        await(done);
        LockSupport.parkNanos(20_000_000);
        assertThat(count).hasValue(1);
    }
}
