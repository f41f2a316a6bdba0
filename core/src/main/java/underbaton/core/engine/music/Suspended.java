package underbaton.core.engine.music;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import underbaton.core.engine.call.Pending;
import underbaton.core.engine.device.Slot;
import underbaton.core.engine.move.Move;

/**
 * What waits while the band has stopped, and goes on as if the pause had not been: the same so much later. Immutable.
 *
 * @param sinceNanos when the band stopped, by the clock of the events
 * @param later calls of cues that were still to be made
 * @param moves that stood still on their way
 * @param stopped what went on by itself and was told to stop
 */
public record Suspended(
        long sinceNanos, List<LaterCall> later, Optional<FollowOn> followOn, List<Move> moves, List<Stopped> stopped) {

    /** A call that was due at a moment. */
    public record LaterCall(long dueNanos, Pending.ToCall call) {}

    /** @param ran what the device was doing @param stop as the device was left by its stop */
    public record Stopped(int deviceId, Slot ran, Slot stop) {}

    /** Nothing went on when the band stopped at this moment, ns. */
    public static Suspended nothing(long sinceNanos) {
        return new Suspended(sinceNanos, List.of(), Optional.empty(), List.of(), List.of());
    }

    /** The same with all its moments so many ns later; so a state goes on after a crash. */
    public Suspended shifted(long by) {
        List<LaterCall> laterCalls = new ArrayList<>();
        later.forEach(l -> laterCalls.add(new LaterCall(l.dueNanos + by, l.call.shifted(by))));
        return new Suspended(
                sinceNanos + by,
                laterCalls,
                followOn.map(f -> f.shifted(by)),
                moves.stream().map(m -> m.shifted(by)).toList(),
                stopped.stream()
                        .map(s -> new Stopped(s.deviceId, s.ran.shifted(by), s.stop.shifted(by)))
                        .toList());
    }
}
