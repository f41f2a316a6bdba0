package underbaton.core.engine.out;

import org.pcollections.PMap;
import underbaton.core.engine.device.DeviceState;
import underbaton.core.follow.Doing;
import underbaton.core.plan.PlannedCue;
import underbaton.core.plan.PlannedItem;
import underbaton.core.rig.Control;
import underbaton.core.signal.Outcome;

/** What a step did, for whoever shows it or writes it down. */
public sealed interface Happening {

    /** A cue was fired, or came by itself. @param told what each device has been told then */
    record Fired(PlannedCue cue, long atNanos, PMap<Integer, DeviceState> told) implements Happening {}

    /** An item began. */
    record Began(PlannedItem item, long atNanos) implements Happening {}

    /** An item's music came to its end. */
    record Ended(PlannedItem item, long atNanos) implements Happening {}

    /** A vamp was entered or is played once more, or GO waits for its second press no longer. */
    record Turned(long atNanos) implements Happening {}

    /** Something came in, and this became of it. */
    record Heard(Outcome outcome) implements Happening {}

    /** A relay was stopped, since something seems to send back what it sends. */
    record Looped(String relay, String words) implements Happening {}

    /** What a hold has stopped stays off though the band goes on: its machine cannot be told to go on in its middle. */
    record StaysOff(int deviceId, String phrase) implements Happening {}

    /** In a dry run: a cue sets a control in motion from a place that is known, 0–127. @param cue its label */
    record Moves(String cue, Control control, double from) implements Happening {}

    /** A machine has not said that it did what it was told, or says something else. @param words what is wrong, without its name */
    record Unanswered(int deviceId, String words) implements Happening {}

    /**
     * The machine by whose time an item goes is at another place of it: whoever has the book worked out brings all machines there.
     *
     * @param fromNanos since the item began
     * @param asOfNanos when it was there, by the clock of the events
     */
    record PlaceWanted(int itemId, long fromNanos, long asOfNanos) implements Happening {}

    /** The item in hand gets on otherwise with the machine by whose time it goes. @param deviceId the machine; 0 for none */
    record Follows(int itemId, int deviceId, Doing doing, long atNanos) implements Happening {}

    /** A clock or a time code has ticked, which is no signal. */
    record Ticked(int deviceId) implements Happening {}

    /** Somebody wants the cue before, now: whoever has the book worked out brings the machines there. */
    record CueBeforeWanted() implements Happening {}
}
