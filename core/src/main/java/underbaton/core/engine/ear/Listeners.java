package underbaton.core.engine.ear;

import java.util.Collection;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.function.IntFunction;
import underbaton.core.engine.key.HandCues;
import underbaton.core.engine.out.StepContext;
import underbaton.core.midi.ChannelMessage;
import underbaton.core.midi.ChannelMessage.ControlChange;
import underbaton.core.midi.Message;
import underbaton.core.signal.Hearing;
import underbaton.core.signal.Listener;
import underbaton.core.signal.Memory;
import underbaton.core.signal.Passage;
import underbaton.core.signal.Passed;
import underbaton.core.signal.Pattern;
import underbaton.core.signal.Reaction;
import underbaton.core.signal.Scale;
import underbaton.core.signal.SignalNumber;
import underbaton.core.signal.Source;

/**
 * Who listens, and to what, while a step is taken; and what is remembered of what came in and of what we said. Not thread-safe,
 * used once.
 */
public final class Listeners {

    private static final Hearing.Miss NOT_OF_ITS_KIND = new Hearing.Miss(Hearing.NOT_NEAR, "");

    private final StepContext step;
    private final HandCues keys;
    private Hearing hearing;

    /** Made anew for each step, of the parts that it asks. */
    public Listeners(StepContext step, HandCues keys, Hearing before) {
        this.step = step;
        this.keys = keys;
        this.hearing = before;
    }

    /** The part's own record as it stands now: what the next step begins with. */
    public Hearing state() {
        return hearing;
    }

    /** The master switch; relays go on. */
    public void listen(boolean on) {
        hearing = hearing.switched(on);
    }

    /** Some listeners listen tonight, or do so no longer, whatever is written of them. */
    public void arm(Collection<Integer> listenerIds, boolean listens) {
        for (int id : listenerIds) {
            hearing = hearing.arming(id, listens);
            if (hearing.passed().containsKey(id)) {
                hearing = hearing.passing(id, hearing.passed(id).withStop(Optional.empty()));
            }
        }
    }

    /** We have said something; for a while it may come back. */
    public void said(int deviceId, Message message, long atNanos) {
        if (!step.plan().listeners().isEmpty() && !step.isDryRun()) {
            hearing = hearing.saying(deviceId, message, atNanos);
        }
    }

    /** Whether a message is what we said ourselves a moment ago; each comes back once. */
    boolean isEcho(Source source, Message message) {
        Optional<Hearing> without = hearing.withoutEcho(source, message, step.now());
        hearing = without.orElse(hearing);
        return without.isPresent();
    }

    /** Something was heard. */
    void remember(Source source, Message message) {
        hearing = hearing.after(source, message);
    }

    void took(Listener listener) {
        hearing = hearing.took(listener.id(), step.now());
    }

    /** Whether it listens tonight. */
    public boolean isArmed(Listener listener) {
        return hearing.isArmed(listener);
    }

    /** What a relay has passed on so far. */
    Passed passed(Listener relay) {
        return hearing.passed(relay.id());
    }

    void passes(Listener relay, Passed now) {
        hearing = hearing.passing(relay.id(), now);
    }

    void forget(int relayId) {
        hearing = hearing.passing(relayId, Passed.NOTHING);
    }

    /** Something has come that may be for relays which were stopped: their way is not quiet. */
    void disturb(Source source, Message message) {
        for (Map.Entry<Integer, Passed> each : hearing.passed().entrySet()) {
            if (each.getValue().isStopped()) {
                step.plan().listeners().stream()
                        .filter(l -> l.id() == each.getKey()
                                && l.hears(source)
                                && l.pattern().isNear(message))
                        .forEach(l -> passes(l, each.getValue().still(step.now(), false)));
            }
        }
    }

    // ---- who takes a signal

    /** The items that play and stand by, 0 for none, and what an item is called. */
    record Place(int playing, int standby, IntFunction<String> itemName) {}

    /** What was heard before of what a message speaks of. */
    Memory memory(Source source, Message message) {
        return hearing.memory(source, message);
    }

    /** Why a listener does not take a signal; empty when it does. @param heard before, of what the message speaks of */
    Optional<Hearing.Miss> missed(Listener listener, Source source, Message message, Memory heard, Place place) {
        Message meant = asMeant(listener, source, message);
        if (!listener.pattern().speaksOf(meant)) {
            return Optional.of(NOT_OF_ITS_KIND);
        }
        Memory memory = meant == message ? heard : hearing.memory(source, meant);
        return hearing.missed(
                listener, source, meant, memory, step.now(), place.playing, place.standby, place.itemName);
    }

    /**
     * The message as a relay's pattern knows it: the lower half of a number of 14 bits stands for the higher, since the two are one
     * gesture.
     */
    private Message asMeant(Listener listener, Source source, Message message) {
        boolean fine = listener.isRelay()
                && message instanceof ControlChange change
                && listener.scale().map(Scale::fine).orElse(false)
                && listener.pattern() instanceof Pattern.Controller pattern
                && change.controller() == pattern.controller() + SignalNumber.LOWER_HALF;
        if (!fine) {
            return message;
        }
        ControlChange lower = (ControlChange) message;
        return new ControlChange(
                lower.channel(), lower.controller() - SignalNumber.LOWER_HALF, hearing.fine(source, lower) >> 7);
    }

    /** Whether it ends what the listener has begun, whatever was switched meanwhile: a note that was passed on, a hand cue that is held. */
    boolean ends(Listener listener, Source source, Message message) {
        return endsWhatPassed(listener, source, message) || endsHeld(listener, source, message);
    }

    private static boolean endsWhatPassed(Listener listener, Source source, Message message) {
        return listener.passage().orElse(null) instanceof Passage.Through && isRelease(listener, source, message);
    }

    /** Whether it is the end of what holds a hand cue that works while it is held. */
    boolean endsHeld(Listener listener, Source source, Message message) {
        return listener.reaction() instanceof Reaction.Hand touched
                && keys.isHeld(touched.keyId())
                && isRelease(listener, source, message);
    }

    /** Whether a note that the listener takes is let go, or a controller falls below where it takes it. */
    private static boolean isRelease(Listener listener, Source source, Message message) {
        boolean ends = false;
        if (listener.pattern() instanceof Pattern.Note notes) {
            ends = ChannelMessage.endsNote(message) && notes.struck() && notes.isNear(message);
        } else if (listener.pattern() instanceof Pattern.Controller pedal && message instanceof ControlChange change) {
            ends = pedal.way() == Pattern.Way.PRESSED && pedal.isNear(message) && change.value() < pedal.from();
        }
        return ends
                && listener.hears(source)
                && (listener.channel().isEmpty()
                        || message instanceof ChannelMessage played
                                && listener.channel().getAsInt() == played.channel());
    }

    /** Whether it is the second signal of a relay, which then says anew what it said last. */
    boolean isSecond(Listener listener, Source source, Message message) {
        return listener.isRelay()
                && message instanceof ControlChange change
                && listener.scale()
                        .flatMap(Scale::second)
                        .filter(s -> s.deviceId() == source.deviceId()
                                && s.channel() == change.channel()
                                && s.controller() == change.controller())
                        .isPresent()
                && hearing.passed(listener.id()).number().isPresent()
                && hearing.isArmed(listener);
    }

    /** The last value of the second signal of a scale. */
    int value(Scale.Second second) {
        return hearing.value(second);
    }

    /** A controller and the one 32 above it as one number of 14 bits. */
    int fine(Source source, ControlChange change) {
        return hearing.fine(source, change);
    }

    /** The number that comes with a signal, as a relay counts; of both halves where it is a number of 14 bits. */
    OptionalDouble number(Listener relay, Source source, Message message) {
        Optional<Scale> scale = relay.scale();
        if (message instanceof ControlChange change && scale.map(Scale::fine).orElse(false)) {
            return OptionalDouble.of(fine(source, change));
        }
        return SignalNumber.amount(
                message, source.numbering(), scale.map(Scale::place).orElse(0));
    }
}
