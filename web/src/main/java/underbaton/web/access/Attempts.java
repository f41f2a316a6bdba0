package underbaton.web.access;

import java.util.ArrayDeque;
import java.util.Deque;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.concurrent.TimeUnit;
import org.springframework.stereotype.Component;
import underbaton.core.loop.Clock;
import underbaton.core.rig.Refusal;
import underbaton.web.kernel.Alarm;

/**
 * Wrong passwords from the venue. Each address has to wait after the third, twice as long after each further one; and of all addresses
 * together only so many are looked at in a minute, so that a thousand of them find out no more than ten. Nobody at the computer itself
 * ever waits. Any thread may call it.
 */
@Component
class Attempts implements Alarm {

    private static final int FREE = 3;
    private static final long LONGEST_WAIT_NANOS = TimeUnit.MINUTES.toNanos(2);
    private static final int MOST_IN_ALL = 20;
    private static final long IN_ALL_NANOS = TimeUnit.MINUTES.toNanos(1);
    private static final long FORGOTTEN_NANOS = TimeUnit.MINUTES.toNanos(30);
    private static final int MOST_ADDRESSES = 2000;
    private static final int WORTH_TELLING = 5;

    private record Wrong(int times, long lastNanos) {

        long freeNanos() {
            if (times < FREE) {
                return lastNanos;
            }
            int doubled = Math.min(times - FREE, 20);
            return lastNanos + Math.min(LONGEST_WAIT_NANOS, TimeUnit.SECONDS.toNanos(1) << doubled);
        }
    }

    private final Clock clock;
    private final Map<String, Wrong> byAddress = new LinkedHashMap<>();
    /** When those of the last minute were looked at. */
    private final Deque<Long> inAll = new ArrayDeque<>();

    Attempts(Clock clock) {
        this.clock = clock;
    }

    /** Before a password is looked at. @throws Refusal saying how long to wait */
    synchronized void require(String address) {
        long now = clock.nanos();
        while (!inAll.isEmpty() && now - inAll.peekFirst() >= IN_ALL_NANOS) {
            inAll.removeFirst();
        }
        Wrong wrong = byAddress.get(address);
        long free = wrong == null ? now : wrong.freeNanos();
        if (inAll.size() >= MOST_IN_ALL) {
            free = Math.max(free, inAll.peekFirst() + IN_ALL_NANOS);
        }
        if (free > now) {
            long seconds = TimeUnit.NANOSECONDS.toSeconds(free - now) + 1;
            throw new Refusal("password", "Too many wrong passwords; the next one is looked at in " + seconds + " s.");
        }
        // It counts before it is looked at: many at once are no way round.
        inAll.addLast(now);
    }

    synchronized void wrong(String address) {
        long now = clock.nanos();
        Wrong before = byAddress.remove(address);
        int times = before == null || now - before.lastNanos > FORGOTTEN_NANOS ? 0 : before.times;
        byAddress.put(address, new Wrong(times + 1, now));
        if (byAddress.size() > MOST_ADDRESSES) {
            byAddress.remove(byAddress.keySet().iterator().next());
        }
    }

    synchronized void right(String address) {
        byAddress.remove(address);
    }

    @Override
    public synchronized List<String> alarms() {
        long now = clock.nanos();
        return byAddress.entrySet().stream()
                .filter(e -> e.getValue().times >= WORTH_TELLING && now - e.getValue().lastNanos < FORGOTTEN_NANOS / 3)
                .limit(3)
                .map(
                        e -> "Somebody at " + e.getKey() + " has tried " + e.getValue().times
                                + " wrong passwords at the venue's door. It holds; close it on the page Shows if that is strange to you.")
                .toList();
    }
}
