package underbaton.wire;

import underbaton.core.midi.Message;
import underbaton.core.perform.Outlet;

/** A way out to a device that also knows how the device is. */
public interface Link extends Outlet, AutoCloseable {

    /** Never waits. */
    Health health();

    /** Whether the other side has shown that it has everything sent so far. Never waits. */
    boolean acknowledged();

    @Override
    void close();

    /** Gets what a device says of its own accord, on the wire's thread; must return at once. */
    interface Ear {
        void heard(Message message);

        /** The device came, went, or was measured anew. */
        void changed();
    }
}
