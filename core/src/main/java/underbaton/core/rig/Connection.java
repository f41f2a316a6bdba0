package underbaton.core.rig;

import java.util.Locale;

/** The way to a device. Equal connections are one and the same line. */
public sealed interface Connection {

    /** Whether MIDI goes over it; if not, Open Sound Control does. */
    default boolean carriesMidi() {
        return !(this instanceof Osc);
    }

    /** Where it leads, for people: {@code 192.168.1.20:5004}, or a port's name. */
    String where();

    /** Over the network, to a host (a name or an address) and one of its ports, 1–65535. */
    sealed interface Network extends Connection {
        /** A name or an address. */
        String host();

        /** 1–65535. */
        int port();

        /** The same connection to another port. */
        Network withPort(int other);

        @Override
        default String where() {
            return host() + ":" + port();
        }
    }

    /**
     * A network MIDI session (RFC 6295) that we invite.
     *
     * @param port the control port, 1–65534; data goes to the next one
     */
    record NetworkMidi(String host, int port) implements Network {
        public NetworkMidi {
            host = requireHost(host);
            requirePort(port, 65534);
        }

        @Override
        public Network withPort(int other) {
            return new NetworkMidi(host, other);
        }
    }

    /** How Open Sound Control packets are carried. */
    enum Carrier {
        /** A datagram a packet. */
        UDP("over UDP"),
        /** A stream with each packet framed by SLIP (RFC 1055), as of OSC 1.1. */
        TCP_SLIP("over TCP, framed by SLIP"),
        /** A stream with the size before each packet, four bytes, as of OSC 1.0. */
        TCP_SIZE("over TCP, with sizes");

        private final String words;

        Carrier(String words) {
            this.words = words;
        }

        /** As the form offers it. */
        public String words() {
            return words;
        }

        /** {@code udp}, {@code tcp-slip}, {@code tcp-size}. */
        public String code() {
            return name().toLowerCase(Locale.ROOT).replace('_', '-');
        }
    }

    /**
     * Open Sound Control.
     *
     * @param question an address the machine answers when asked with no argument, so that we know it is there; empty
     *     when it has none
     */
    record Osc(String host, int port, String question, Carrier carrier) implements Network {
        public Osc {
            host = requireHost(host);
            requirePort(port, 65535);
            Refusal.requireShort("question", question, 200);
            if (!question.isEmpty() && !question.startsWith("/")) {
                throw new Refusal("question", "An OSC address starts with a slash, as in /camera/program.");
            }
        }

        /** Over UDP. */
        public Osc(String host, int port, String question) {
            this(host, port, question, Carrier.UDP);
        }

        @Override
        public Network withPort(int other) {
            return new Osc(host, other, question, carrier);
        }
    }

    /**
     * A MIDI port of this computer.
     *
     * @param name as the computer calls it
     */
    record LocalMidi(String name) implements Connection {
        public LocalMidi {
            name = Refusal.requireName("port", name, 200);
        }

        @Override
        public String where() {
            return name;
        }
    }

    /** No way at all: our own patch bay, which takes programs as any machine does. */
    record PatchBay() implements Connection {
        @Override
        public String where() {
            return "within Under Baton";
        }
    }

    private static String requireHost(String host) {
        String name = Refusal.requireName("host", host, 255);
        if (name.matches("\\[[0-9A-Fa-f:.]+]")) {
            // An address of IPv6 as it stands in a web address.
            name = name.substring(1, name.length() - 1);
        }
        if (!name.matches("[A-Za-z0-9.:_-]+")) {
            throw new Refusal("host", "“" + name + "” is no host; type a name or an address such as 192.168.1.20.");
        }
        return name;
    }

    private static void requirePort(int port, int most) {
        if (port < 1 || port > most) {
            throw new Refusal("port", "A port is 1 to " + most + ", not " + port + ".");
        }
    }
}
