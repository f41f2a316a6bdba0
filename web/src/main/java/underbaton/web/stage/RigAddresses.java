package underbaton.web.stage;

import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.net.UnknownHostException;
import java.util.Collection;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.locks.LockSupport;
import java.util.function.Consumer;
import underbaton.core.loop.Loop;
import underbaton.core.loop.Loops;
import underbaton.core.rig.Connection;
import underbaton.core.rig.Device;

/**
 * Where the machines of the show on the desk speak from: each name is looked up when it comes, and every minute again, with all
 * addresses that it has. Thread-safe; only its own loop waits for an answer.
 */
final class RigAddresses implements AutoCloseable {

    private static final long AGAIN_NANOS = TimeUnit.MINUTES.toNanos(1);
    private static final String NUMBERS = "[0-9.]+|\\[?[0-9a-fA-F:.]*:[0-9a-fA-F:.]*]?";

    private final Consumer<Set<InetAddress>> told;
    private final Loop loop;
    private volatile List<Device> devices = List.of();
    private volatile Map<String, Set<InetAddress>> known = Map.of();

    /** @param told of all addresses, whenever they may have changed */
    RigAddresses(Loops loops, Consumer<Set<InetAddress>> told) {
        this.told = told;
        loop = loops.start("addresses of the rig", () -> {
            LockSupport.parkNanos(this, AGAIN_NANOS);
            lookUp(host -> true);
        });
    }

    /** Numbers are known at once, names as soon as somebody has answered. */
    void belongTo(List<Device> machines) {
        devices = List.copyOf(machines);
        lookUp(host -> host.matches(NUMBERS));
        loop.wake();
    }

    private interface Which {
        boolean isLookedUp(String host);
    }

    private void lookUp(Which which) {
        Map<String, Set<InetAddress>> found = new HashMap<>();
        for (Device device : devices) {
            if (device.connection() instanceof Connection.Network network) {
                String host = network.host();
                Set<InetAddress> before = known.getOrDefault(host, Set.of());
                found.computeIfAbsent(host, h -> which.isLookedUp(h) ? addresses(h, before) : before);
            }
        }
        known = Map.copyOf(found);
        Set<InetAddress> all = new HashSet<>();
        found.values().forEach(all::addAll);
        told.accept(all);
    }

    /** @param before what stays where nobody answers */
    private static Set<InetAddress> addresses(String host, Set<InetAddress> before) {
        try {
            return Set.of(InetAddress.getAllByName(host));
        } catch (UnknownHostException nobody) {
            return before;
        }
    }

    /**
     * Which machine speaks by Open Sound Control from there: the only one at that address, or of several the one that is reached at that
     * port. Where that does not tell them apart, nobody is taken for one of them.
     */
    Optional<Device> speaker(InetSocketAddress from) {
        List<Device> there = devices.stream()
                .filter(d -> d.connection() instanceof Connection.Osc osc
                        && known.getOrDefault(osc.host(), Set.of()).contains(from.getAddress()))
                .toList();
        if (there.size() <= 1) {
            return there.stream().findFirst();
        }
        return only(there.stream()
                .filter(d -> ((Connection.Osc) d.connection()).port() == from.getPort())
                .toList());
    }

    private static Optional<Device> only(Collection<Device> devices) {
        return devices.size() == 1 ? Optional.of(devices.iterator().next()) : Optional.empty();
    }

    @Override
    public void close() {
        loop.close();
    }
}
