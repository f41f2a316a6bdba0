package underbaton.wire.near;

import java.io.IOException;
import java.net.Inet4Address;
import java.net.InetAddress;
import java.net.NetworkInterface;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.CopyOnWriteArrayList;
import javax.jmdns.JmDNS;
import javax.jmdns.ServiceEvent;
import javax.jmdns.ServiceInfo;
import javax.jmdns.ServiceListener;
import underbaton.core.loop.Loops;
import underbaton.core.rig.Department;

/**
 * Machines with network MIDI that make themselves known on this computer's networks by DNS-SD (RFC 6763, service {@code
 * _apple-midi._udp} over multicast DNS). Begins to look when first asked; looking takes a few seconds and is done on a
 * thread of its own.
 */
public final class Neighbourhood implements AutoCloseable {

    private static final String SERVICE = "_apple-midi._udp.local.";

    /**
     * A machine that was found.
     *
     * @param host its address
     * @param port its control port
     */
    public record Machine(String name, String host, int port) {

        /** Whose it is likely to be, by its name. */
        public Department department() {
            return Department.likelyOf(name);
        }

        /** Without what tells copies of the same machine apart: {@code Words screen, stand-in 47104}. */
        public String plainName() {
            int comma = name.indexOf(", ");
            return comma < 1 ? name : name.substring(0, comma);
        }
    }

    /** @param words what a person can do when a machine is not among them */
    public record Found(List<Machine> machines, String words) {}

    /** @param nearOnly whether only this computer itself can reach it */
    private record Own(int port, boolean nearOnly) {}

    private final String ourName;
    private final Loops loops;
    private final Runnable watcher;
    private final Map<String, Machine> machines = new ConcurrentHashMap<>();
    private final Map<String, Own> own = new ConcurrentHashMap<>();
    private final List<JmDNS> lookouts = new CopyOnWriteArrayList<>();
    private volatile boolean started;
    private volatile boolean looking;
    private volatile boolean closed;
    private volatile int networks;

    /**
     * @param ourName under which we make ourselves known; it is not among those found
     * @param watcher called when something was found or is gone; must return at once
     */
    public Neighbourhood(String ourName, Loops loops, Runnable watcher) {
        this.ourName = ourName;
        this.loops = loops;
        this.watcher = watcher;
    }

    /** Lets others find us at this control port; takes effect when looking has begun. */
    public void announceUs(int port) {
        announce(ourName, new Own(port, false));
    }

    /** The same for a machine of this computer that nobody else can reach. */
    public void announceNear(String name, int port) {
        announce(name, new Own(port, true));
    }

    private void announce(String name, Own one) {
        own.put(name, one);
        lookouts.forEach(l -> register(l, name, one));
    }

    /** What has been found so far; the first call begins to look. Never waits. */
    public Found found() {
        synchronized (this) {
            if (!started && !closed) {
                started = true;
                looking = true;
                loops.once("looking about", this::look);
            }
        }
        List<Machine> sorted = machines.values().stream()
                .sorted(Comparator.comparing(Machine::name))
                .toList();
        return new Found(sorted, words(sorted));
    }

    private String words(List<Machine> sorted) {
        if (looking) {
            return "Looking …";
        }
        if (networks == 0) {
            return "This computer is on no network now. Plug its cable in, or join the venue’s network; then it looks again.";
        }
        String missing =
                "A machine that is not listed can be typed in by address and port all the same. If its lamp then stays "
                        + "dark, ask the venue’s network person to let multicast DNS (UDP port 5353, address 224.0.0.251) and the "
                        + "machine’s two UDP ports, the one here and the next, pass between this computer and the machine.";
        return sorted.isEmpty()
                ? "Nothing has made itself known so far (DNS-SD); the looking goes on. " + missing
                : missing;
    }

    private void look() {
        for (InetAddress address : addresses()) {
            try {
                JmDNS lookout = JmDNS.create(
                        address, "under-baton-" + address.getHostAddress().replace('.', '-'));
                lookouts.add(lookout);
                own.forEach((name, one) -> register(lookout, name, one));
                lookout.addServiceListener(SERVICE, new Listening());
                if (!address.isLoopbackAddress()) {
                    networks++;
                }
            } catch (IOException noMulticast) {
                // This network does not let us look about; the others may.
            }
        }
        looking = false;
        watcher.run();
        if (closed) {
            close();
        }
    }

    private static void register(JmDNS lookout, String name, Own one) {
        try {
            if (!one.nearOnly || lookout.getInetAddress().isLoopbackAddress()) {
                lookout.registerService(ServiceInfo.create(SERVICE, name, one.port, ""));
            }
        } catch (IOException | IllegalStateException cannot) {
            // Then others type our address.
        }
    }

    private static List<InetAddress> addresses() {
        List<InetAddress> addresses = new ArrayList<>(List.of(InetAddress.getLoopbackAddress()));
        try {
            for (NetworkInterface network : NetworkInterface.networkInterfaces().toList()) {
                if (network.isUp() && !network.isLoopback() && network.supportsMulticast()) {
                    network.inetAddresses()
                            .filter(Inet4Address.class::isInstance)
                            .findFirst()
                            .ifPresent(addresses::add);
                }
            }
        } catch (IOException unreadable) {
            return addresses;
        }
        return addresses;
    }

    @Override
    public void close() {
        closed = true;
        for (JmDNS lookout : lookouts) {
            lookouts.remove(lookout);
            try {
                lookout.close();
            } catch (IOException alreadyGone) {
                // Nothing is left to close.
            }
        }
    }

    private final class Listening implements ServiceListener {
        @Override
        public void serviceAdded(ServiceEvent event) {
            event.getDNS().requestServiceInfo(event.getType(), event.getName());
        }

        @Override
        public void serviceRemoved(ServiceEvent event) {
            machines.remove(event.getName());
            watcher.run();
        }

        @Override
        public void serviceResolved(ServiceEvent event) {
            String[] hosts = event.getInfo().getHostAddresses();
            boolean us = event.getName().startsWith(ourName) && own.containsKey(ourName);
            if (hosts.length > 0 && !us) {
                machines.put(
                        event.getName(),
                        new Machine(event.getName(), hosts[0], event.getInfo().getPort()));
                watcher.run();
            }
        }
    }
}
