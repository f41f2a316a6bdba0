package underbaton.core.rig;

/** The way to a device. Hosts are names or addresses; ports are 1–65535. */
public sealed interface Connection {

    String host();

    int port();

    /**
     * A network MIDI session (RFC 6295) that we invite.
     *
     * @param port the control port, 1–65534; data goes to the next one
     */
    record NetworkMidi(String host, int port) implements Connection {
        public NetworkMidi {
            host = requireHost(host);
            requirePort(port, 65534);
        }
    }

    /**
     * Open Sound Control over UDP.
     *
     * @param question an address the machine answers when asked with no argument, so that we know it is there; empty
     *     when it has none
     */
    record Osc(String host, int port, String question) implements Connection {
        public Osc {
            host = requireHost(host);
            requirePort(port, 65535);
            if (!question.isEmpty() && !question.startsWith("/")) {
                throw new Refusal("question", "An OSC address starts with a slash, as in /camera/program.");
            }
        }
    }

    private static String requireHost(String host) {
        String name = Refusal.requireName("host", host, 253);
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
