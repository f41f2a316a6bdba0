package underbaton.wire;

import underbaton.core.perform.Outlet;
import underbaton.core.signal.Signal;

/** A way out to a device that also knows how the device is. */
public interface Link extends Outlet, AutoCloseable {

    /** Never waits. */
    Health health();

    /** What is known of the arrival of what was sent last. Never waits. */
    Arrival arrival();

    @Override
    void close();

    /** Gets what a device says of its own accord, on the wire's thread; must return at once. */
    interface Ear {
        /** It said something; its bytes have been read already. */
        void heard(Signal signal);

        /** The device came, went, or was measured anew. */
        void changed();
    }
}
