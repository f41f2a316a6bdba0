package underbaton.standins;

import java.util.List;
import underbaton.core.midi.Message;

/** A machine with keys of its own: what it says by itself when one of them is pressed. */
public interface Keyed {

    /** In the order in which they lie there. */
    List<String> keys();

    /**
     * @param key one of {@link #keys}; another does nothing
     * @param mouth may be kept and used later, until {@link #unplugged}
     */
    void press(String key, Mouth mouth);

    /** Its plug was pulled: what says something by itself ends. */
    default void unplugged() {}

    /** How OSC travels. */
    enum Way {
        UDP,
        TCP
    }

    /** The machine's own wire, in the direction to whoever listens. From any thread. */
    interface Mouth {
        /** Over the machine's own wire: MIDI to all who hold a session with it, OSC by UDP. */
        void say(Message... messages);

        /** OSC by a way of one's choice. */
        void say(Way way, Message message);
    }
}
