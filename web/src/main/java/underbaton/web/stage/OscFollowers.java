package underbaton.web.stage;

import java.io.IOException;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.locks.LockSupport;
import java.util.function.Supplier;
import underbaton.core.loop.Clock;
import underbaton.core.loop.Loop;
import underbaton.core.loop.Loops;
import underbaton.core.midi.OscMessage;
import underbaton.core.rig.Refusal;
import underbaton.wire.osc.Caller;

/**
 * Those who asked to be told every change: each for a minute, and longer if it asks again, each by a loop of its own, so that one that does not read keeps
 * nobody else waiting; after ten seconds of that its line is cut. Thread-safe.
 */
final class OscFollowers implements AutoCloseable {

    private static final int MOST = 16;
    private static final int MOST_AT_ONE_ADDRESS = 2;
    private static final long LASTS = TimeUnit.MINUTES.toNanos(1);
    private static final long PATIENCE = TimeUnit.SECONDS.toNanos(10);
    private static final long LOOK_NANOS = TimeUnit.MILLISECONDS.toNanos(40);
    private static final long GUARD_NANOS = TimeUnit.SECONDS.toNanos(1);
    /** Its seconds run by themselves; what changes is the cue. */
    private static final String NEXT = OscLanguage.PREFIX + "is/next";

    private final Clock clock;
    private final Loops loops;
    private final Supplier<List<OscMessage>> now;
    private final Map<Caller, Follower> followers = new ConcurrentHashMap<>();
    private final Loop guard;

    /** @param now all that may be told, as it stands */
    OscFollowers(Clock clock, Loops loops, Supplier<List<OscMessage>> now) {
        this.clock = clock;
        this.loops = loops;
        this.now = now;
        guard = loops.start("OSC followers", this::cutThoseWhoDoNotRead);
    }

    /** @param told what it is told now, by whoever answers it */
    synchronized void add(Caller caller, List<OscMessage> told) {
        Follower before = followers.get(caller);
        if (before != null) {
            before.until = clock.nanos() + LASTS;
            return;
        }
        List<Follower> there = followers.values().stream()
                .filter(f ->
                        f.caller.address().getAddress().equals(caller.address().getAddress()))
                .sorted(Comparator.comparingLong(f -> f.until))
                .toList();
        if (there.size() >= MOST_AT_ONE_ADDRESS) {
            // What was restarted asks from another port; the one that has been silent for longest is gone.
            leave(there.get(0).caller);
        }
        if (followers.size() >= MOST) {
            throw new Refusal("follow", MOST + " follow already; let one of them send /baton/follow 0.");
        }
        Follower follower = new Follower(caller, told);
        followers.put(caller, follower);
        follower.begin();
    }

    void leave(Caller caller) {
        Follower follower = followers.remove(caller);
        if (follower != null) {
            follower.end();
        }
    }

    private void cutThoseWhoDoNotRead() {
        LockSupport.parkNanos(this, GUARD_NANOS);
        for (Follower follower : followers.values()) {
            long since = follower.sayingSince;
            if (since != 0 && clock.nanos() - since > PATIENCE) {
                follower.caller.hangUp();
                leave(follower.caller);
            }
        }
    }

    @Override
    public void close() {
        guard.close();
        for (Follower follower : followers.values()) {
            follower.caller.hangUp();
            follower.end();
        }
    }

    private final class Follower {
        private final Caller caller;
        private final Map<String, List<Object>> told = new HashMap<>();
        private volatile Loop loop;
        private volatile long until = clock.nanos() + LASTS;
        /** 0 while nothing is being said. */
        private volatile long sayingSince;

        Follower(Caller caller, List<OscMessage> first) {
            this.caller = caller;
            first.forEach(this::isNew);
        }

        void begin() {
            loop = loops.start("OSC follower " + caller.address(), this::turn);
        }

        /** From any thread, its own too; does not wait for its end. */
        void end() {
            Loop begun = loop;
            if (begun != null) {
                begun.end();
            }
        }

        private void turn() {
            LockSupport.parkNanos(this, LOOK_NANOS);
            if (clock.nanos() - until > 0) {
                leave(caller);
                return;
            }
            for (OscMessage message : now.get()) {
                if (isNew(message) && !say(message)) {
                    leave(caller);
                    return;
                }
            }
        }

        private boolean isNew(OscMessage message) {
            List<Object> says =
                    message.address().equals(NEXT) ? message.arguments().subList(0, 1) : message.arguments();
            return !says.equals(told.put(message.address(), says));
        }

        private boolean say(OscMessage message) {
            sayingSince = clock.nanos();
            try {
                caller.say(message);
                return true;
            } catch (IOException gone) {
                return false;
            } finally {
                sayingSince = 0;
            }
        }
    }
}
