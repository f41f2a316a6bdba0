package underbaton.core.engine.follow;

import java.util.Map;
import java.util.Optional;
import java.util.OptionalLong;
import org.pcollections.HashTreePMap;
import org.pcollections.PMap;
import underbaton.core.follow.Doing;
import underbaton.core.follow.TimeFilter;
import underbaton.core.follow.TimeFilter.Sender;
import underbaton.core.follow.TimeHeard;

/**
 * What machines that lead have said of their time, and what became of it. Immutable.
 *
 * @param heard by device id
 * @param taken the time that the playing item takes of a machine
 * @param taps what was tapped to the playing item
 * @param byHand the item that was taken over by hand; 0 for none
 * @param doing how the item in hand gets on, and since when
 * @param askedNanos since when the show is to be brought to another place
 * @param spent by device id the run of its time in which an item was begun, or none could be: no other one begins in it by itself
 */
public record FollowState(
        PMap<Integer, TimeHeard> heard,
        Optional<Taken> taken,
        Optional<Taps> taps,
        int byHand,
        Since doing,
        OptionalLong askedNanos,
        PMap<Integer, Integer> spent) {

    /**
     * @param run of the machine's time: another one is another place
     * @param before the filter without its last stamp
     */
    record Taken(int itemId, int run, TimeFilter filter, TimeFilter before) {

        /** Nearer together than this, stamps came in one packet, ns: only the last of them was on time. */
        private static final long TOGETHER_NANOS = 1_000_000;

        static Taken first(int itemId, int run, TimeFilter filter) {
            return new Taken(itemId, run, filter, filter);
        }

        /** With another stamp. */
        Taken heard(long nanos, long place) {
            TimeFilter from = nanos - filter.atNanos() < TOGETHER_NANOS ? before : filter;
            return new Taken(itemId, run, from.heard(nanos, place, Sender.MACHINE), from);
        }

        Taken shifted(long nanos) {
            return new Taken(itemId, run, filter.shifted(nanos), before.shifted(nanos));
        }
    }

    /** @param nanos since when, by the clock of the events */
    public record Since(Doing doing, long nanos) {}

    public static final FollowState NOTHING = new FollowState(
            HashTreePMap.empty(),
            Optional.empty(),
            Optional.empty(),
            0,
            new Since(Doing.NOTHING, 0),
            OptionalLong.empty(),
            HashTreePMap.empty());

    /** After a crash the operator says how it goes on. @param itemId the item that played; 0 for none */
    public static FollowState takenOver(int itemId) {
        return new FollowState(
                NOTHING.heard, NOTHING.taken, NOTHING.taps, itemId, NOTHING.doing, NOTHING.askedNanos, NOTHING.spent);
    }

    /** Where a machine's time was when it was heard last. */
    public TimeHeard of(int deviceId) {
        return heard.getOrDefault(deviceId, TimeHeard.NOTHING);
    }

    /** The same with all its moments so many ns later; so a state goes on after a crash. */
    public FollowState shifted(long nanos) {
        if (equals(NOTHING)) {
            return this;
        }
        PMap<Integer, TimeHeard> later = heard;
        for (Map.Entry<Integer, TimeHeard> each : heard.entrySet()) {
            later = later.plus(each.getKey(), each.getValue().shifted(nanos));
        }
        return new FollowState(
                later,
                taken.map(t -> t.shifted(nanos)),
                taps.map(t -> t.shifted(nanos)),
                byHand,
                new Since(doing.doing, doing.nanos + nanos),
                askedNanos.isPresent() ? OptionalLong.of(askedNanos.getAsLong() + nanos) : askedNanos,
                spent);
    }
}
