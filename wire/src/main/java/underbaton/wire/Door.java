package underbaton.wire;

import java.net.InetAddress;
import java.util.List;

/**
 * Who may reach us: invite us to a session, and speak to our OSC port.
 *
 * @param listed names that machines give themselves, or addresses; looked at for {@link Mode#LISTED} alone
 */
public record Door(Mode mode, List<String> listed) {

    /** How far the door is open. */
    public enum Mode {
        NOBODY("nobody"),
        LISTED("only those listed"),
        ANYONE("anyone on this network");

        private final String words;

        Mode(String words) {
            this.words = words;
        }

        /** As the form offers it. */
        public String words() {
            return words;
        }
    }

    public static final Door ANYONE = new Door(Mode.ANYONE, List.of());
    public static final Door SHUT = new Door(Mode.NOBODY, List.of());

    public Door {
        listed = listed.stream().map(String::strip).filter(l -> !l.isEmpty()).toList();
    }

    /** @param name that it gives itself; empty for none */
    public boolean admits(String name, InetAddress from) {
        return switch (mode) {
            case NOBODY -> false;
            case ANYONE -> true;
            case LISTED -> listed.stream().anyMatch(l -> l.equalsIgnoreCase(name) || l.equals(from.getHostAddress()));
        };
    }
}
