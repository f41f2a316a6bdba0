package underbaton.wire.osc;

import java.net.InetAddress;
import java.util.HashMap;
import java.util.Map;
import java.util.Set;
import java.util.concurrent.TimeUnit;
import underbaton.core.loop.Clock;
import underbaton.wire.Door;

/**
 * Who may speak to our OSC port, and how much a second: machines of the rig always may, others as far as the door is open,
 * and each address has a share that it cannot go beyond. Asked before anything of a packet is read. Thread-safe.
 */
public final class OscDoor {

    /** Some meters and faders at full speed; beyond it somebody means no good, or has run wild. */
    private static final int MOST_OF_ANYBODY = 5000;

    private static final int MOST_ADDRESSES = 1024;

    private final Clock clock;
    private final Map<InetAddress, Integer> spoken = new HashMap<>();
    private long second = Long.MIN_VALUE;
    private volatile Door door = Door.ANYONE;
    private volatile Set<InetAddress> rig = Set.of();

    /** Open for anyone until it is said otherwise. */
    public OscDoor(Clock clock) {
        this.clock = clock;
    }

    /** Who may come in from now on. Any thread. */
    public void admit(Door newDoor) {
        door = newDoor;
    }

    /** The addresses of the machines of the open show. */
    public void belongTo(Set<InetAddress> machines) {
        rig = Set.copyOf(machines);
    }

    /** Whether a packet from there is taken. */
    boolean takes(InetAddress from) {
        boolean machine = rig.contains(from);
        return (machine || door.admits("", from)) && withinShare(from, MOST_OF_ANYBODY);
    }

    private synchronized boolean withinShare(InetAddress from, int most) {
        long now = TimeUnit.NANOSECONDS.toSeconds(clock.nanos());
        if (now != second) {
            second = now;
            spoken.clear();
        }
        boolean room = spoken.size() < MOST_ADDRESSES || spoken.containsKey(from);
        return room && spoken.merge(from, 1, Integer::sum) <= most;
    }
}
