package underbaton.core.signal;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.function.IntFunction;
import org.pcollections.HashTreePMap;
import org.pcollections.PMap;
import underbaton.core.midi.ChannelMessage;
import underbaton.core.midi.ChannelMessage.ControlChange;
import underbaton.core.midi.Message;
import underbaton.core.rig.Numbering;

/**
 * What a running show remembers of what came in. Immutable.
 *
 * @param on whether any listener takes part: the master switch; relays go on
 * @param taken by listener, when it took something last, by the clock of the events, ns
 * @param armed by listener, where tonight differs from what is written
 * @param values what each controller said last
 * @param said by machine, what we told it lately, so that it is not taken for a signal when it comes back
 * @param passed by relay, what it has passed on
 */
public record Hearing(
        boolean on,
        PMap<Integer, Long> taken,
        PMap<Integer, Boolean> armed,
        PMap<Controls, Integer> values,
        PMap<Integer, List<LastHeard>> said,
        PMap<Integer, Passed> passed) {

    /** A message that left, and when. */
    public record LastHeard(Message message, long nanos) {}

    private static final int MOST_SAID = 48;
    private static final long ECHO_NANOS = 300_000_000L;

    /** A controller of a channel of a machine. */
    public record Controls(int deviceId, int channel, int controller) {}

    /** The nearness of a signal of another machine and another number: not worth telling. */
    public static final int NOT_NEAR = 0;

    /** Who has the number in hand wants to know of the channel or the machine, not of a neighbour with another number. */
    private static final int NUMBER_FITS = 3;

    /** The nearness of a signal that fits in all, and is not taken for another reason. */
    private static final int FITS = 6;

    /** MIDI 1.0: bank select, its high and its low seven bits. */
    private static final int BANK_HIGH = 0;

    private static final int BANK_LOW = 32;

    public static final Hearing FIRST = new Hearing(
            true,
            HashTreePMap.empty(),
            HashTreePMap.empty(),
            HashTreePMap.empty(),
            HashTreePMap.empty(),
            HashTreePMap.empty());

    /** With listeners on or off for tonight. */
    public Hearing switched(boolean nowOn) {
        return new Hearing(nowOn, taken, armed, values, said, passed);
    }

    /** A listener took a signal at this moment, ns. */
    public Hearing took(int listenerId, long nanos) {
        return new Hearing(on, taken.plus(listenerId, nanos), armed, values, said, passed);
    }

    /** A listener takes part, or does not. */
    public Hearing arming(int listenerId, boolean listens) {
        return new Hearing(on, taken, armed.plus(listenerId, listens), values, said, passed);
    }

    /** Whether a listener listens tonight. */
    public boolean isArmed(Listener listener) {
        return armed.getOrDefault(listener.id(), listener.listens());
    }

    /** With what a machine said last. */
    public Hearing after(Source source, Message message) {
        return message instanceof ControlChange c
                ? new Hearing(
                        on,
                        taken,
                        armed,
                        values.plus(new Controls(source.deviceId(), c.channel(), c.controller()), c.value()),
                        said,
                        passed)
                : this;
    }

    /** What was heard before of what a message speaks of. */
    public Memory memory(Source source, Message message) {
        if (!(message instanceof ChannelMessage said)) {
            return Memory.NONE;
        }
        OptionalInt before = message instanceof ControlChange c
                ? value(source, said.channel(), c.controller())
                : OptionalInt.empty();
        OptionalInt high = value(source, said.channel(), BANK_HIGH);
        OptionalInt low = value(source, said.channel(), BANK_LOW);
        OptionalInt bank = high.isEmpty() && low.isEmpty()
                ? OptionalInt.empty()
                : OptionalInt.of(high.orElse(0) << 7 | low.orElse(0));
        return new Memory(before, bank);
    }

    private OptionalInt value(Source source, int channel, int controller) {
        Integer value = values.get(new Controls(source.deviceId(), channel, controller));
        return value == null ? OptionalInt.empty() : OptionalInt.of(value);
    }

    /** What was told to a machine, for as long as it may come back. */
    public Hearing saying(int deviceId, Message message, long nanos) {
        List<LastHeard> before = said.getOrDefault(deviceId, List.of());
        List<LastHeard> now = new ArrayList<>(before.subList(before.size() < MOST_SAID ? 0 : 1, before.size()));
        now.add(new LastHeard(message, nanos));
        return new Hearing(on, taken, armed, values, said.plus(deviceId, List.copyOf(now)), passed);
    }

    /**
     * Without what a message that has come may be the echo of: each comes back once.
     *
     * @return empty when it is none of what we said ourselves a moment ago
     */
    public Optional<Hearing> withoutEcho(Source source, Message message, long nanos) {
        List<LastHeard> before = said.getOrDefault(source.deviceId(), List.of());
        for (int i = 0; i < before.size(); i++) {
            LastHeard each = before.get(i);
            if (Math.abs(nanos - each.nanos) < ECHO_NANOS && each.message.equals(message)) {
                List<LastHeard> left = new ArrayList<>(before);
                left.remove(i);
                return Optional.of(
                        new Hearing(on, taken, armed, values, said.plus(source.deviceId(), List.copyOf(left)), passed));
            }
        }
        return Optional.empty();
    }

    /** What a relay has passed on so far. */
    public Passed passed(int relayId) {
        return passed.getOrDefault(relayId, Passed.NOTHING);
    }

    /** How far a relay has come. */
    public Hearing passing(int relayId, Passed now) {
        return new Hearing(on, taken, armed, values, said, passed.plus(relayId, now));
    }

    /** The last value of the second signal of a scale; 0 before it was heard. */
    public int value(Scale.Second second) {
        return values.getOrDefault(new Controls(second.deviceId(), second.channel(), second.controller()), 0);
    }

    /** A controller and the one 32 above it as one number of 14 bits; the higher half sets the lower to 0 (MIDI 1.0). */
    public int fine(Source source, ControlChange change) {
        boolean lower = change.controller() >= SignalNumber.LOWER_HALF;
        int high = lower
                ? value(source, change.channel(), change.controller() - SignalNumber.LOWER_HALF)
                        .orElse(0)
                : change.value();
        return high << 7 | (lower ? change.value() : 0);
    }

    /**
     * Why a listener does not take a signal that it speaks of.
     *
     * @param nearness how much of it fits: the miss with the most is told
     */
    public record Miss(int nearness, String why) {}

    /**
     * Whether a listener takes a signal of its kind; empty when it does.
     *
     * @param heard what was heard before, by {@link #memory}
     * @param playing the item that plays, 0 for none
     * @param standby the item of the standby cue, 0 for none
     * @param itemName gives the name of an item
     */
    public Optional<Miss> missed(
            Listener listener,
            Source source,
            Message message,
            Memory heard,
            long nanos,
            int playing,
            int standby,
            IntFunction<String> itemName) {
        int near = listener.pattern().isClose(message) ? 1 : 0;
        if (!listener.hears(source)) {
            return miss(near * NUMBER_FITS, "it listens to another machine");
        }
        OptionalInt channel =
                message instanceof ChannelMessage said ? OptionalInt.of(said.channel()) : OptionalInt.empty();
        if (listener.channel().isPresent() && channel.isPresent() && !channel.equals(listener.channel())) {
            return miss(
                    1 + near * NUMBER_FITS,
                    "channel " + Numbering.channel(channel.getAsInt()) + ", listens on "
                            + Numbering.channel(listener.channel().getAsInt()));
        }
        Optional<String> other = listener.pattern().missed(message, heard, source.numbering());
        if (other.isPresent()) {
            return miss(2 + near * NUMBER_FITS, other.get());
        }
        if (!on && !listener.isRelay()) {
            return miss(FITS, "listeners are off");
        }
        if (!isArmed(listener)) {
            return miss(FITS, "it is disarmed");
        }
        if (listener.itemId() != 0 && listener.itemId() != playing && listener.itemId() != standby) {
            return miss(FITS, "it belongs to " + itemName.apply(listener.itemId()));
        }
        Long last = taken.get(listener.id());
        return last != null && nanos - last < listener.pauseMs() * 1_000_000L
                ? miss(FITS, "it is in its pause of " + listener.pauseMs() + " ms")
                : Optional.empty();
    }

    private static Optional<Miss> miss(int nearness, String why) {
        return Optional.of(new Miss(nearness, why));
    }
}
