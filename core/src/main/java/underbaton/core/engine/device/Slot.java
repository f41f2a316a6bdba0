package underbaton.core.engine.device;

import java.util.Locale;
import underbaton.core.midi.Message;
import underbaton.core.plan.PlannedCall;
import underbaton.core.rig.Effect;

/**
 * What a device holds in one of its slots, or what runs or has been stopped there.
 *
 * @param name of the slot, in small letters; empty where the device has but one
 * @param call the one that took it
 * @param itemId the item whose cue set it going, or from whose place catch-up did; 0 for none, and for what only holds
 * @param sinceNanos when it was told so, or when it would have begun to be where it is now, by the clock of the events
 */
public record Slot(String name, PlannedCall call, int itemId, long sinceNanos) {

    /** Of no item. */
    public Slot(String name, PlannedCall call, long sinceNanos) {
        this(name, call, 0, sinceNanos);
    }

    /** The name under which an effect's slot is kept. */
    public static String key(Effect effect) {
        return key(effect.of());
    }

    /** The name under which a slot is kept, however it was typed. */
    public static String key(String of) {
        return of.toLowerCase(Locale.ROOT);
    }

    /** Taken by a call that was told at this moment, ns; it counts from the place at which the call begins. */
    public static Slot of(PlannedCall call, long sinceNanos) {
        return new Slot(key(call.effect()), call, sinceNanos - call.fromNanos());
    }

    /** Whether it was set going; what has a length is over when that has passed. */
    public boolean runsAt(long nanos) {
        long lasts = call.effect().amount() * 1_000_000_000L;
        return starts() && (lasts == 0 || nanos - sinceNanos < lasts);
    }

    /** Whether its call says a message at a moment. */
    boolean says(Message message, long nanos) {
        long told = sinceNanos + call.fromNanos();
        return call.messages().stream()
                .anyMatch(t -> t.message().equals(message) && told + t.atMs() * 1_000_000L == nanos);
    }

    /** The same, set by an item of the running order. */
    public Slot of(int newItemId) {
        return new Slot(name, call, newItemId, sinceNanos);
    }

    /** Whether a look stands in it, until another one takes it. */
    public boolean holds() {
        return call.effect().kind() == Effect.Kind.HOLDS;
    }

    /** Whether it was set going, though it may have come to its end by itself. */
    public boolean starts() {
        return call.effect().kind() == Effect.Kind.STARTS;
    }

    /** Whether what was in it has been stopped. */
    public boolean stopped() {
        return call.effect().kind() == Effect.Kind.STOPS;
    }

    /** The same with all its moments so many ns later; so a state goes on after a crash. */
    public Slot shifted(long nanos) {
        return new Slot(name, call, itemId, sinceNanos + nanos);
    }
}
