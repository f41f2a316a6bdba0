package underbaton.core.signal;

import java.util.List;
import java.util.Locale;
import java.util.Optional;
import underbaton.core.midi.ChannelMessage.BankProgram;
import underbaton.core.midi.ChannelMessage.ControlChange;
import underbaton.core.midi.ChannelMessage.NoteOff;
import underbaton.core.midi.ChannelMessage.NoteOn;
import underbaton.core.midi.ChannelMessage.PitchBend;
import underbaton.core.midi.ChannelMessage.ProgramChange;
import underbaton.core.midi.MachineControl;
import underbaton.core.midi.Message;
import underbaton.core.midi.OscMessage;
import underbaton.core.midi.RealTime;
import underbaton.core.midi.ShowControl;
import underbaton.core.midi.SystemCommon;
import underbaton.core.rig.Numbering;
import underbaton.core.rig.Refusal;

/**
 * What a message must be to be meant. Numbers are those of the wire, 0–127; what a person reads goes through the numbering of
 * whoever says it. Immutable; any thread may ask.
 */
public sealed interface Pattern {

    /** Whether a message is of the kind that this speaks of at all, so that a miss is worth telling. */
    boolean speaksOf(Message message);

    /** Whether a message that it speaks of has its number, though perhaps another value: a near miss is told first. */
    default boolean isNear(Message message) {
        return false;
    }

    /** Whether a message that it speaks of differs by little, so that of several misses this one is told. */
    default boolean isClose(Message message) {
        return isNear(message);
    }

    /**
     * Why a message that it speaks of is not meant; empty when it is.
     *
     * @param heard what was heard before
     * @param numbering in whose numbers the reason is told
     */
    Optional<String> missed(Message message, Memory heard, Numbering numbering);

    /** In a few words, in the numbers of a machine: {@code note C4 struck}, {@code control 67 pressed}. */
    String words(Numbering numbering);

    private static void require(boolean right, String field, String words) {
        if (!right) {
            throw new Refusal(field, words);
        }
    }

    private static boolean isRange(int from, int to, int least, int most) {
        return least <= from && from <= to && to <= most;
    }

    private static String range(String from, String to) {
        return from.equals(to) ? from : from + " to " + to;
    }

    /**
     * Notes, struck or let go.
     *
     * @param from the lowest, 0–127
     * @param to the highest
     * @param softest velocity, 1–127; of no meaning for a release
     * @param hardest velocity
     * @param struck whether it is meant when it is struck, or when it is let go
     */
    record Note(int from, int to, int softest, int hardest, boolean struck) implements Pattern {

        public Note {
            require(isRange(from, to, 0, 127), "note", "Notes are a range within those of MIDI, the lower first.");
            require(isRange(softest, hardest, 1, 127), "velocity", "Velocities are 1 to 127, the softer first.");
        }

        /** One note at whatever velocity. */
        public static Note struck(int note) {
            return new Note(note, note, 1, 127, true);
        }

        @Override
        public boolean speaksOf(Message message) {
            return message instanceof NoteOn || message instanceof NoteOff;
        }

        @Override
        public boolean isNear(Message message) {
            int note = message instanceof NoteOn on ? on.note() : ((NoteOff) message).note();
            return note >= from && note <= to;
        }

        @Override
        public Optional<String> missed(Message message, Memory heard, Numbering numbering) {
            int note = message instanceof NoteOn on ? on.note() : ((NoteOff) message).note();
            int velocity = message instanceof NoteOn on ? on.velocity() : 0;
            if (note < from || note > to) {
                return Optional.of("note " + numbering.note(note) + ", listens for " + notes(numbering));
            }
            if (struck && velocity == 0) {
                return Optional.of(message instanceof NoteOn ? "velocity 0 is a release" : "that is the release");
            }
            if (!struck) {
                return velocity == 0 ? Optional.empty() : Optional.of("listens for its release");
            }
            return velocity >= softest && velocity <= hardest
                    ? Optional.empty()
                    : Optional.of("velocity " + velocity + ", listens for " + softest + " to " + hardest);
        }

        private String notes(Numbering numbering) {
            return range(numbering.note(from), numbering.note(to));
        }

        @Override
        public String words(Numbering numbering) {
            String hard = softest == 1 && hardest == 127 || !struck ? "" : ", velocity " + softest + " to " + hardest;
            return "note " + notes(numbering) + (struck ? " struck" : " let go") + hard;
        }
    }

    /** When a controller is meant. */
    enum Way {
        /** It comes from below a value to it, or above. */
        PRESSED,
        /** It comes from a value, or above, to below. */
        RELEASED,
        /** It is within a range. */
        WITHIN,
        /** It is so much away from where it was. */
        CHANGED
    }

    /**
     * A pedal, a key that sends a controller, a wheel.
     *
     * @param from the threshold, the lower end, or the least change; 0–127, 1–127 for a change
     * @param to the upper end of a range
     */
    record Controller(int controller, Way way, int from, int to) implements Pattern {

        public Controller {
            require(controller >= 0 && controller <= 127, "controller", "Controllers are 0 to 127.");
            require(
                    isRange(from, to, way == Way.CHANGED ? 1 : 0, 127),
                    "value",
                    "Values are 0 to 127, the lower first.");
        }

        /** A pedal of MIDI 1.0: on from 64. */
        public static Controller pressed(int controller) {
            return new Controller(controller, Way.PRESSED, 64, 127);
        }

        @Override
        public boolean speaksOf(Message message) {
            return message instanceof ControlChange;
        }

        @Override
        public boolean isNear(Message message) {
            return ((ControlChange) message).controller() == controller;
        }

        @Override
        public Optional<String> missed(Message message, Memory heard, Numbering numbering) {
            ControlChange change = (ControlChange) message;
            int value = change.value();
            if (change.controller() != controller) {
                return Optional.of("control " + change.controller() + ", listens for " + controller);
            }
            boolean wasDown = heard.value().isPresent() && heard.value().getAsInt() >= from;
            boolean met =
                    switch (way) {
                        case PRESSED -> value >= from && !wasDown;
                        case RELEASED -> value < from && wasDown;
                        case WITHIN -> value >= from && value <= to;
                        case CHANGED ->
                            heard.value().isPresent()
                                    && Math.abs(value - heard.value().getAsInt()) >= from;
                    };
            return met ? Optional.empty() : Optional.of(why(value, wasDown, heard, numbering));
        }

        private String why(int value, boolean wasDown, Memory heard, Numbering numbering) {
            String is = "value " + numbering.value(value);
            return switch (way) {
                case PRESSED -> wasDown && value >= from ? "it is down already" : is + " is not pressed";
                case RELEASED -> value < from ? "it was not pressed before" : is + " is not let go";
                case WITHIN -> is + ", listens for " + range(numbering.value(from), numbering.value(to));
                case CHANGED ->
                    heard.value().isEmpty() ? "where it was before is not known" : "it moved by less than " + from;
            };
        }

        @Override
        public String words(Numbering numbering) {
            return "control " + controller
                    + switch (way) {
                        case PRESSED -> " pressed" + at(numbering);
                        case RELEASED -> " let go" + at(numbering);
                        case WITHIN -> " at " + range(numbering.value(from), numbering.value(to));
                        case CHANGED -> " moved by " + from;
                    };
        }

        private String at(Numbering numbering) {
            return from == 64 ? "" : " at " + numbering.value(from);
        }
    }

    /**
     * Programs.
     *
     * @param bank 0–16,383 where only that bank is meant; below 0 for any
     * @param from the first, 0–127
     * @param to the last
     */
    record Program(int bank, int from, int to) implements Pattern {

        public Program {
            require(bank < 16_384, "bank", "Banks are 0 to 16,383.");
            require(
                    isRange(from, to, 0, 127),
                    "program",
                    "Programs are a range within those of MIDI, the lower first.");
            bank = Math.max(-1, bank);
        }

        @Override
        public boolean speaksOf(Message message) {
            return message instanceof ProgramChange || message instanceof BankProgram;
        }

        @Override
        public boolean isNear(Message message) {
            int program =
                    message instanceof ProgramChange change ? change.program() : ((BankProgram) message).program();
            return program >= from && program <= to && (from > 0 || to < 127);
        }

        @Override
        public Optional<String> missed(Message message, Memory heard, Numbering numbering) {
            int program =
                    message instanceof ProgramChange change ? change.program() : ((BankProgram) message).program();
            int inBank = message instanceof BankProgram banked
                    ? banked.bank()
                    : heard.bank().orElse(0);
            if (program < from || program > to) {
                return Optional.of("program " + numbering.program(program) + ", listens for " + programs(numbering));
            }
            return bank < 0 || bank == inBank
                    ? Optional.empty()
                    : Optional.of("bank " + inBank + ", listens for bank " + bank);
        }

        private String programs(Numbering numbering) {
            return from == 0 && to == 127 ? "any" : range(numbering.program(from), numbering.program(to));
        }

        @Override
        public String words(Numbering numbering) {
            return (bank < 0 ? "" : "bank " + bank + " ") + "program " + programs(numbering);
        }
    }

    /** Pitch bend. @param from −8,192 to 8,191 */
    record Bend(int from, int to) implements Pattern {

        public Bend {
            require(isRange(from, to, -8192, 8191), "bend", "A bend is −8,192 to 8,191, the lower first.");
        }

        @Override
        public boolean speaksOf(Message message) {
            return message instanceof PitchBend;
        }

        @Override
        public Optional<String> missed(Message message, Memory heard, Numbering numbering) {
            int bend = ((PitchBend) message).bend() - PitchBend.CENTRE;
            return bend >= from && bend <= to
                    ? Optional.empty()
                    : Optional.of("bend " + bend + ", listens for " + from + " to " + to);
        }

        @Override
        public String words(Numbering numbering) {
            return "bend " + range(Integer.toString(from), Integer.toString(to));
        }
    }

    /**
     * Show control (RP-002/014).
     *
     * @param list as it is written there; empty for any
     * @param cue as it is written there; empty for any
     */
    record Show(ShowControl.Command command, String list, String cue) implements Pattern {

        public Show {
            require(list.matches("[0-9.]*") && cue.matches("[0-9.]*"), "cue", "Cue and list are digits and points.");
        }

        @Override
        public boolean speaksOf(Message message) {
            return message instanceof ShowControl;
        }

        @Override
        public Optional<String> missed(Message message, Memory heard, Numbering numbering) {
            ShowControl said = (ShowControl) message;
            if (said.command() != command) {
                return Optional.of(spoken(said.command()) + ", listens for " + spoken(command));
            }
            if (!list.isEmpty() && !list.equals(said.list())) {
                return Optional.of("list " + (said.list().isEmpty() ? "none" : said.list()) + ", listens for " + list);
            }
            return cue.isEmpty() || cue.equals(said.cue())
                    ? Optional.empty()
                    : Optional.of("cue " + (said.cue().isEmpty() ? "none" : said.cue()) + ", listens for " + cue);
        }

        /** {@code 5.0} is meant for who waits for 5, not for who waits for 17. */
        @Override
        public boolean isClose(Message message) {
            ShowControl said = (ShowControl) message;
            return said.command() == command && !cue.isEmpty() && whole(cue).equals(whole(said.cue()));
        }

        private static String whole(String number) {
            return number.replaceFirst("\\..*", "").replaceFirst("^0+(?=.)", "");
        }

        private static String spoken(ShowControl.Command command) {
            return command.name().replace('_', ' ');
        }

        @Override
        public String words(Numbering numbering) {
            return "show control " + spoken(command) + (cue.isEmpty() ? "" : " cue " + cue)
                    + (list.isEmpty() ? "" : " list " + list);
        }
    }

    /** Machine control (RP-013). */
    record Machine(MachineControl.Command command) implements Pattern {

        @Override
        public boolean speaksOf(Message message) {
            return message instanceof MachineControl;
        }

        @Override
        public Optional<String> missed(Message message, Memory heard, Numbering numbering) {
            MachineControl.Command said = ((MachineControl) message).command();
            return said == command ? Optional.empty() : Optional.of(spoken(said) + ", listens for " + spoken(command));
        }

        private static String spoken(MachineControl.Command command) {
            return command.name().toLowerCase(Locale.ROOT).replace('_', ' ');
        }

        @Override
        public String words(Numbering numbering) {
            return "machine control " + spoken(command);
        }
    }

    /** Song select. @param from 0–127 */
    record Song(int from, int to) implements Pattern {

        public Song {
            require(isRange(from, to, 0, 127), "song", "Songs are 0 to 127, the lower first.");
        }

        @Override
        public boolean speaksOf(Message message) {
            return message instanceof SystemCommon.SongSelect;
        }

        @Override
        public Optional<String> missed(Message message, Memory heard, Numbering numbering) {
            int song = ((SystemCommon.SongSelect) message).song();
            return song >= from && song <= to
                    ? Optional.empty()
                    : Optional.of("song " + song + ", listens for " + range("" + from, "" + to));
        }

        @Override
        public String words(Numbering numbering) {
            return "song " + (from == 0 && to == 127 ? "any" : range("" + from, "" + to));
        }
    }

    /** What a sequencer's clock does. */
    enum Move {
        START(RealTime.START),
        CONTINUE(RealTime.CONTINUE),
        STOP(RealTime.STOP);

        private final RealTime message;

        Move(RealTime message) {
            this.message = message;
        }
    }

    /** Start, continue, stop of a clock. */
    record Transport(Move move) implements Pattern {

        @Override
        public boolean speaksOf(Message said) {
            return said == RealTime.START || said == RealTime.CONTINUE || said == RealTime.STOP;
        }

        @Override
        public Optional<String> missed(Message said, Memory heard, Numbering numbering) {
            return said == move.message
                    ? Optional.empty()
                    : Optional.of(spoken(said) + ", listens for " + spoken(move.message));
        }

        private static String spoken(Message message) {
            return message.toString().toLowerCase(Locale.ROOT);
        }

        @Override
        public String words(Numbering numbering) {
            return "clock " + spoken(move.message);
        }
    }

    /**
     * An OSC address, perhaps with wild cards (OSC 1.0), and what its arguments must be.
     *
     * @param conditions all of them must hold
     */
    record Osc(String address, List<Condition> conditions) implements Pattern {

        public Osc {
            conditions = List.copyOf(conditions);
            require(
                    address.startsWith("/") && address.length() <= 200 && address.matches("[!-~]+"),
                    "address",
                    "An address begins with / and has no blanks: /cue/go.");
            OscAddress.requireReadable(address);
        }

        @Override
        public boolean speaksOf(Message message) {
            return message instanceof OscMessage;
        }

        @Override
        public boolean isNear(Message message) {
            return OscAddress.matches(address, ((OscMessage) message).address());
        }

        @Override
        public boolean isClose(Message message) {
            List<Object> arguments = ((OscMessage) message).arguments();
            return isNear(message) && conditions.stream().allMatch(c -> c.isClose(arguments));
        }

        @Override
        public Optional<String> missed(Message message, Memory heard, Numbering numbering) {
            OscMessage said = (OscMessage) message;
            if (!OscAddress.matches(address, said.address())) {
                return Optional.of(said.address() + ", listens for " + address);
            }
            return conditions.stream()
                    .filter(c -> !c.holds(said.arguments()))
                    .findFirst()
                    .map(c -> c.why(said.arguments()));
        }

        @Override
        public String words(Numbering numbering) {
            StringBuilder words = new StringBuilder("osc " + address);
            conditions.forEach(c -> words.append(", ").append(c.words()));
            return words.toString();
        }
    }
}
