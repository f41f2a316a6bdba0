package underbaton.wire.osc;

import java.io.IOException;
import java.net.InetSocketAddress;
import underbaton.core.midi.OscMessage;

/** Whoever spoke to one of our OSC ports, and can be told something later too. Equal for the same caller. From any thread. */
public interface Caller {

    /** Where it spoke from. */
    InetSocketAddress address();

    /**
     * Over UDP it returns at once; over TCP it may wait for a caller that does not read.
     *
     * @throws IOException when the caller has gone
     */
    void say(OscMessage message) throws IOException;

    /** Lets go of a caller that holds a line; it may call again. */
    void hangUp();
}
