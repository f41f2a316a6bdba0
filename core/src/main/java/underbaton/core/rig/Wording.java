package underbaton.core.rig;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.StringJoiner;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import underbaton.core.midi.ChannelMessage;
import underbaton.core.midi.ChannelMessage.BankProgram;
import underbaton.core.midi.ChannelMessage.ChannelPressure;
import underbaton.core.midi.ChannelMessage.ControlChange;
import underbaton.core.midi.ChannelMessage.NoteOff;
import underbaton.core.midi.ChannelMessage.NoteOn;
import underbaton.core.midi.ChannelMessage.PitchBend;
import underbaton.core.midi.ChannelMessage.PolyPressure;
import underbaton.core.midi.ChannelMessage.ProgramChange;
import underbaton.core.midi.Exclusive;
import underbaton.core.midi.Message;
import underbaton.core.midi.OscMessage;
import underbaton.core.midi.RealTime;
import underbaton.core.midi.SystemCommon;

/**
 * Writes messages in words and reads them back, with a machine's own numbers: {@code note E0}, {@code control 7 to
 * 100}, {@code program 10}, {@code osc /camera/program 3}. Several messages are parted by semicolons. What
 * {@link #write} gives, {@link #read} turns into the same message again.
 */
public final class Wording {

    /** As the machine prints it, or the blank. */
    private static final String VALUE = "(\\d[\\d.,]*(?: ?%)?|\\?)";

    private static final Pattern NOTE = Pattern.compile("note (?!off)(\\S+)(?: at " + VALUE + ")?");
    private static final Pattern NOTE_OFF = Pattern.compile("note off (\\S+)(?: at " + VALUE + ")?");
    private static final Pattern CONTROL = Pattern.compile("control (\\d+) to " + VALUE);
    private static final Pattern PROGRAM = Pattern.compile("(?:bank (\\d+) )?program ([a-z]? ?\\d+|\\?)");
    private static final Pattern PRESSURE = Pattern.compile("pressure (?:of (\\S+) )?" + VALUE);
    private static final Pattern BEND = Pattern.compile("bend ([-−+]?\\d+|\\?)");
    private static final Pattern SONG = Pattern.compile("song (\\d+)");
    private static final Pattern SONG_POSITION = Pattern.compile("song position (\\d+)");
    private static final Pattern QUARTER_FRAME = Pattern.compile("quarter frame (\\d+) (\\d+)");
    private static final Pattern CHANNEL = Pattern.compile("(.*) on channel (\\+?)(\\d{1,3})");

    private static final String BLANK = "?";
    private static final int CHANNELS = 16;

    private final Numbering numbering;
    private final boolean open;
    private final OptionalInt first;

    /** In the numbers of a machine; amounts stand in no message. */
    public Wording(Numbering numbering) {
        this(numbering, false);
    }

    /** @param open whether a question mark stands for the value of a message, or for the last argument of OSC */
    Wording(Numbering numbering, boolean open) {
        this(numbering, open, OptionalInt.empty());
    }

    /** @param first the machine's own channel, 0–15, from which those of its phrases count; empty where nobody knows it */
    Wording(Numbering numbering, boolean open, OptionalInt first) {
        this.numbering = numbering;
        this.open = open;
        this.first = first;
    }

    /** The message in words, with the channel only where it is not 0: as a phrase says it. */
    public String write(Message message) {
        String said = withoutChannel(message);
        boolean elsewhere = message instanceof ChannelMessage m && m.channel() > 0;
        return elsewhere ? said + " on channel " + channel(((ChannelMessage) message).channel()) : said;
    }

    /** {@code 6}, or {@code +1} where nobody knows what it counts from. */
    private String channel(int above) {
        return first.isEmpty()
                ? "+" + above
                : Integer.toString(Numbering.channel((first.getAsInt() + above) % CHANNELS));
    }

    private int above(boolean counted, int typed) {
        if (counted) {
            return requireWithin("channel", typed, 0, CHANNELS - 1);
        }
        if (first.isEmpty()) {
            throw new Refusal("says", "Write the channel as so many above the machine’s own: on channel +1.");
        }
        return Math.floorMod(Numbering.wireChannel(typed) - first.getAsInt(), CHANNELS);
    }

    /** One after the other, parted by semicolons. */
    public String write(List<Message> messages) {
        StringJoiner joined = new StringJoiner("; ");
        messages.forEach(m -> joined.add(write(m)));
        return joined.toString();
    }

    /** The message in words with the channel that it goes out on, 1–16: as the log says it. */
    public String tell(Message message) {
        String said = withoutChannel(message);
        return message instanceof ChannelMessage m ? said + ", channel " + Numbering.channel(m.channel()) : said;
    }

    private String withoutChannel(Message message) {
        if (message instanceof NoteOn m) {
            return "note " + note(m.note()) + (m.velocity() == 127 && !open ? "" : " at " + value(m.velocity()));
        } else if (message instanceof NoteOff m) {
            return "note off " + note(m.note()) + (m.velocity() == 0 ? "" : " at " + value(m.velocity()));
        } else if (message instanceof ControlChange m) {
            return "control " + m.controller() + " to " + value(m.value());
        } else if (message instanceof ProgramChange m) {
            return "program " + program(m.program());
        } else if (message instanceof BankProgram m) {
            return "bank " + m.bank() + " program " + program(m.program());
        } else if (message instanceof ChannelPressure m) {
            return "pressure " + value(m.pressure());
        } else if (message instanceof PolyPressure m) {
            return "pressure of " + note(m.note()) + " " + value(m.pressure());
        } else if (message instanceof PitchBend m) {
            return "bend " + (open ? BLANK : Integer.toString(m.bend() - PitchBend.CENTRE));
        } else if (message instanceof OscMessage m) {
            return osc(m);
        }
        return system(message);
    }

    private static String system(Message message) {
        if (message instanceof RealTime m) {
            return ExclusiveWords.word(m);
        } else if (message instanceof SystemCommon.SongSelect m) {
            return "song " + m.song();
        } else if (message instanceof SystemCommon.SongPosition m) {
            return "song position " + m.sixteenths();
        } else if (message instanceof SystemCommon.QuarterFrame m) {
            return "quarter frame " + m.piece() + " " + m.nibble();
        } else if (message instanceof SystemCommon.TuneRequest) {
            return "tune request";
        }
        return ExclusiveWords.write((Exclusive) message);
    }

    /** As a name: a number would hide which octave the machine means. */
    private String note(int wire) {
        return numbering.note(wire);
    }

    private String value(int wire) {
        return open ? BLANK : numbering.value(wire);
    }

    private String program(int wire) {
        return open ? BLANK : numbering.program(wire);
    }

    private String osc(OscMessage m) {
        StringBuilder said = new StringBuilder("osc ").append(m.address());
        int left = m.arguments().size();
        for (Object argument : m.arguments()) {
            left--;
            said.append(' ').append(open && left == 0 ? BLANK : OscWords.write(argument));
        }
        return said.toString();
    }

    /**
     * Reads one or more messages parted by semicolons or line ends.
     *
     * @throws Refusal naming the part that cannot be read
     */
    public List<Message> read(String typed) {
        List<Message> messages = new ArrayList<>();
        for (String part : Quoted.split(typed, ";", "\n")) {
            if (!part.isBlank()) {
                messages.add(readOne(part.strip()));
            }
        }
        return messages;
    }

    private Message readOne(String typed) {
        try {
            if (typed.toLowerCase(Locale.ROOT).startsWith("osc ")) {
                return readOsc(typed.substring(4).strip());
            }
            String text = typed.toLowerCase(Locale.ROOT).replaceAll("\\s+", " ");
            Matcher channel = CHANNEL.matcher(text);
            if (channel.matches()) {
                int above = above(!channel.group(2).isEmpty(), number(channel.group(3)));
                return readPlain(typed, channel.group(1)).shiftedTo(above);
            }
            return readPlain(typed, text);
        } catch (IllegalArgumentException outOfRange) {
            throw new Refusal("says", "“" + typed + "” cannot be sent: " + outOfRange.getMessage() + ".");
        }
    }

    private Message readPlain(String typed, String text) {
        Matcher m;
        if ((m = NOTE.matcher(text)).matches()) {
            int velocity = m.group(2) == null ? 127 : wireValue(m.group(2));
            return new NoteOn(0, numbering.wireNote(m.group(1)), velocity);
        } else if ((m = NOTE_OFF.matcher(text)).matches()) {
            int velocity = m.group(2) == null ? 0 : wireValue(m.group(2));
            return new NoteOff(0, numbering.wireNote(m.group(1)), velocity);
        } else if ((m = CONTROL.matcher(text)).matches()) {
            return new ControlChange(0, number(m.group(1)), wireValue(m.group(2)));
        } else if ((m = PROGRAM.matcher(text)).matches()) {
            int program = isBlank(m.group(2)) ? 0 : numbering.wireProgram(m.group(2));
            return m.group(1) == null ? new ProgramChange(0, program) : new BankProgram(0, number(m.group(1)), program);
        } else if ((m = PRESSURE.matcher(text)).matches()) {
            int pressure = wireValue(m.group(2));
            return m.group(1) == null
                    ? new ChannelPressure(0, pressure)
                    : new PolyPressure(0, numbering.wireNote(m.group(1)), pressure);
        } else if ((m = BEND.matcher(text)).matches()) {
            int away = isBlank(m.group(1)) ? 0 : number(m.group(1).replace('−', '-'));
            return new PitchBend(0, away + PitchBend.CENTRE);
        }
        return readSystem(typed, text);
    }

    private int wireValue(String printed) {
        return isBlank(printed) ? 0 : numbering.wireValue(printed);
    }

    private boolean isBlank(String printed) {
        if (BLANK.equals(printed) && !open) {
            throw new IllegalArgumentException("it has a question mark in place of a number");
        }
        return BLANK.equals(printed);
    }

    private static Message readSystem(String typed, String text) {
        Matcher m;
        if ((m = SONG_POSITION.matcher(text)).matches()) {
            return new SystemCommon.SongPosition(number(m.group(1)));
        } else if ((m = SONG.matcher(text)).matches()) {
            return new SystemCommon.SongSelect(number(m.group(1)));
        } else if ((m = QUARTER_FRAME.matcher(text)).matches()) {
            return new SystemCommon.QuarterFrame(number(m.group(1)), number(m.group(2)));
        } else if (text.equals("tune request")) {
            return new SystemCommon.TuneRequest();
        }
        Optional<Exclusive> exclusive = ExclusiveWords.read(text);
        if (exclusive.isPresent()) {
            return exclusive.get();
        }
        return Arrays.stream(RealTime.values())
                .filter(r -> ExclusiveWords.word(r).equals(text))
                .findFirst()
                .orElseThrow(() -> new Refusal(
                        "says",
                        "“" + typed + "” is no message. Write, for example: note E0, control 7 to 100, program 10, "
                                + "bank 0 program 10, show control go 8 to 2, machine control locate 00:01:00:00 to 127, "
                                + "osc /camera/program 3."));
    }

    private static Message readOsc(String text) {
        String[] split = text.split("\\s+", 2);
        return new OscMessage(split[0], split.length > 1 ? OscWords.read(split[1]) : List.of());
    }

    static int number(String digits) {
        return digits.length() > 9 ? requireWithin("number", Integer.MAX_VALUE, 0, 16383) : Integer.parseInt(digits);
    }

    static int requireWithin(String what, int number, int least, int most) {
        if (number < least || number > most) {
            throw new IllegalArgumentException(what + " must be " + least + " to " + most);
        }
        return number;
    }
}
