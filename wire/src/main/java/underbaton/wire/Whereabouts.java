package underbaton.wire;

import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.net.UnknownHostException;
import java.util.List;
import java.util.Optional;

/**
 * Where a host is, looked up anew whenever somebody asks: a machine may get another address overnight, and one with several may be
 * reached at one alone. Not thread-safe; asking waits for whoever knows the names.
 */
public final class Whereabouts {

    private static final String NUMBER = "[0-9.]+|[0-9a-fA-F:.]*:[0-9a-fA-F:.]*(%.+)?";

    /** Who knows the names. */
    @FunctionalInterface
    public interface Names {
        Names SYSTEM = InetAddress::getAllByName;

        /** @throws UnknownHostException when nobody is called so */
        InetAddress[] of(String host) throws UnknownHostException;
    }

    private final String host;
    private final int port;
    private final Names names;
    private List<InetAddress> known = List.of();
    private int turn;

    /** Whose name the system looks up. */
    public Whereabouts(String host, int port) {
        this(host, port, Names.SYSTEM);
    }

    /** Whose name is looked up by somebody else; for tests. */
    public Whereabouts(String host, int port, Names names) {
        this.host = host;
        this.port = port;
        this.names = names;
    }

    @Override
    public String toString() {
        return host + ":" + port;
    }

    /** As it was typed: a name or an address. */
    public String host() {
        return host;
    }

    /** Whether there is nothing to look up. */
    public boolean isNumber() {
        return host.matches(NUMBER);
    }

    /** The first of its addresses, and each time after that the next one; empty when nobody is called so. */
    public Optional<InetSocketAddress> next() {
        lookUp();
        return known.isEmpty()
                ? Optional.empty()
                : Optional.of(new InetSocketAddress(known.get(Math.floorMod(turn++, known.size())), port));
    }

    /** Whether it is still there; nobody's word is not taken for no. */
    public boolean isStillAt(InetSocketAddress address) {
        lookUp();
        return known.isEmpty() || known.contains(address.getAddress());
    }

    /** Whether another address could be tried. */
    public boolean hasSeveral() {
        return known.size() > 1;
    }

    private void lookUp() {
        if (isNumber() && !known.isEmpty()) {
            return;
        }
        try {
            known = List.of(names.of(host));
        } catch (UnknownHostException nobody) {
            // Where it was last is as good as any.
            return;
        }
    }
}
