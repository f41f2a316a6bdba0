package underbaton.core.engine.call;

import underbaton.core.engine.move.Move;
import underbaton.core.engine.out.Cause;
import underbaton.core.midi.Message;
import underbaton.core.plan.PlannedCall;

/** Something that leaves later, and whose it is. Immutable. */
public sealed interface Pending {

    /** Why; its owner may take it back. */
    Cause cause();

    /** Whose message it is. */
    int deviceId();

    /** The same with all its moments so many ns later. */
    Pending shifted(long nanos);

    /** @param count of coming in, for what is due at the same moment */
    record Key(long dueNanos, long count) implements Comparable<Key> {
        @Override
        public int compareTo(Key other) {
            return dueNanos != other.dueNanos
                    ? Long.compare(dueNanos, other.dueNanos)
                    : Long.compare(count, other.count);
        }
    }

    /** A call that is to be made. @param queued whether it waits for steps by which a machine is being brought to its place */
    record ToCall(PlannedCall call, Cause cause, boolean queued) implements Pending {
        /** One that waits for nothing. */
        public ToCall(PlannedCall call, Cause cause) {
            this(call, cause, false);
        }

        @Override
        public int deviceId() {
            return call.deviceId();
        }

        @Override
        public ToCall shifted(long nanos) {
            return new ToCall(call, cause.shifted(nanos), queued);
        }
    }

    /** A move that is to be joined. */
    record ToMove(Move move, Cause cause) implements Pending {
        @Override
        public int deviceId() {
            return move.motion().control().deviceId();
        }

        @Override
        public ToMove shifted(long nanos) {
            return new ToMove(move.shifted(nanos), cause.shifted(nanos));
        }
    }

    /** One message of a call that was made. */
    record ToSend(int deviceId, Message message, Cause cause) implements Pending {
        @Override
        public ToSend shifted(long nanos) {
            return new ToSend(deviceId, message, cause.shifted(nanos));
        }
    }
}
