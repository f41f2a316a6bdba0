package underbaton.core.rig;

import java.util.OptionalInt;
import underbaton.core.midi.ChannelMessage.ControlChange;
import underbaton.core.midi.ChannelMessage.NoteOn;
import underbaton.core.midi.ChannelMessage.ProgramChange;
import underbaton.core.midi.Message;

/**
 * A machine's own list, in which an entry's number is its place: looks by note from the lowest, scenes by program,
 * strips by controller. Nobody counts: the number is derived from the place.
 *
 * @param first the wire number of the first entry, 0–127
 */
public record PositionList(Kind kind, int first) {

    private static final int NUMBERS = 128;
    private static final int FULL = 127;

    /** What the place is told by. */
    public enum Kind {
        NOTE("by note"),
        PROGRAM("by program"),
        CONTROLLER("by controller, at full");

        private final String words;

        Kind(String words) {
            this.words = words;
        }

        /** As the form offers it. */
        public String words() {
            return words;
        }
    }

    public PositionList {
        if (first < 0 || first >= NUMBERS) {
            throw new Refusal("first", "A list begins at one of the numbers 0 to 127 of the wire.");
        }
    }

    /** The same list as a machine prints it that counts in another way. */
    PositionList reprinted(Numbering was, Numbering is) {
        return switch (kind) {
            case NOTE -> new PositionList(kind, is.wireNote(was.note(first)));
            case PROGRAM -> new PositionList(kind, is.wireProgram(was.program(first)));
            case CONTROLLER -> this;
        };
    }

    /** How many entries there is room for, 1–128. */
    public int room() {
        return NUMBERS - first;
    }

    /** The place that a message recalls, 0 for the first; empty when it is none of this list. */
    public OptionalInt placeOf(Message message) {
        int number = -1;
        if (kind == Kind.NOTE && message instanceof NoteOn m && m.channel() == 0) {
            number = m.note();
        } else if (kind == Kind.PROGRAM && message instanceof ProgramChange m && m.channel() == 0) {
            number = m.program();
        } else if (kind == Kind.CONTROLLER && message instanceof ControlChange m && m.channel() == 0) {
            number = m.controller();
        }
        return number < first ? OptionalInt.empty() : OptionalInt.of(number - first);
    }

    /**
     * What recalls the entry at a place.
     *
     * @param place 0 for the first
     * @throws Refusal when the list is longer than there are numbers
     */
    public Message at(int place) {
        if (place >= room()) {
            throw new Refusal(
                    "list",
                    "This list has room for " + room() + " entries, and entry " + (place + 1) + " is beyond it.");
        }
        int number = first + place;
        return switch (kind) {
            case NOTE -> new NoteOn(0, number, FULL);
            case PROGRAM -> new ProgramChange(0, number);
            case CONTROLLER -> new ControlChange(0, number, FULL);
        };
    }
}
