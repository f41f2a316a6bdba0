package underbaton.wire.session;

import java.net.InetAddress;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.TimeUnit;

/**
 * The share that those who invite us may have: so many at once, so many from one address, so many invitations a second
 * from one address. Machines that we invite do not count. Not thread-safe.
 */
final class GuestLimits {

    private static final int MOST_GUESTS = 32;
    private static final int MOST_FROM_ONE_ADDRESS = 4;
    private static final int MOST_INVITATIONS_A_SECOND = 20;
    private static final int MOST_ADDRESSES = 1024;

    private final Map<InetAddress, Integer> asked = new HashMap<>();
    private long second = Long.MIN_VALUE;

    /** Whether an invitation from there is looked at at all. */
    boolean hears(InetAddress from, long nanos) {
        long now = TimeUnit.NANOSECONDS.toSeconds(nanos);
        if (now != second) {
            second = now;
            asked.clear();
        }
        if (asked.size() >= MOST_ADDRESSES && !asked.containsKey(from)) {
            return false;
        }
        return asked.merge(from, 1, Integer::sum) <= MOST_INVITATIONS_A_SECOND;
    }

    /** Whether there is a place for one more from there, and who has to leave for it: one that never came in. */
    record Room(boolean there, Optional<Peer> leaves) {}

    Room roomFor(InetAddress from, List<Peer> peers) {
        List<Peer> guests = peers.stream().filter(p -> !p.weInvited()).toList();
        long fromThere =
                guests.stream().filter(p -> p.control.getAddress().equals(from)).count();
        if (fromThere >= MOST_FROM_ONE_ADDRESS) {
            return new Room(false, Optional.empty());
        }
        if (guests.size() < MOST_GUESTS) {
            return new Room(true, Optional.empty());
        }
        // The list is in the order of coming: the one that has stood at the door for longest goes.
        Optional<Peer> waiting = guests.stream().filter(p -> !p.isOpen()).findFirst();
        return new Room(waiting.isPresent(), waiting);
    }
}
