package underbaton.core.signal;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.OptionalInt;
import java.util.function.IntFunction;
import java.util.stream.Stream;
import underbaton.core.midi.ChannelMessage;
import underbaton.core.midi.ChannelMessage.BankProgram;
import underbaton.core.midi.ChannelMessage.ControlChange;
import underbaton.core.midi.ChannelMessage.NoteOff;
import underbaton.core.midi.ChannelMessage.NoteOn;
import underbaton.core.midi.ChannelMessage.PitchBend;
import underbaton.core.midi.ChannelMessage.PolyPressure;
import underbaton.core.midi.ChannelMessage.ProgramChange;
import underbaton.core.midi.Message;
import underbaton.core.midi.MidiMessage;
import underbaton.core.midi.OscMessage;
import underbaton.core.rig.Amount;
import underbaton.core.rig.Argument;
import underbaton.core.rig.Connection;
import underbaton.core.rig.Device;
import underbaton.core.rig.Phrase;
import underbaton.core.rig.Refusal;
import underbaton.core.rig.Speech.Timed;
import underbaton.core.rig.Wording;

/**
 * What a relay says of one signal.
 *
 * @param phrase of its machine, where it is one
 * @param amount that goes into the phrase's blank
 * @param messages with their times, on the machine's own channels
 * @param words what is said, in the machine's own printing
 */
public record Translation(
        Device device, Optional<Phrase> phrase, Optional<Amount> amount, List<Timed> messages, String words) {

    private static final int HIGHEST = 127;

    /**
     * A signal with all that a relay makes its amount of.
     *
     * @param number how much was said, or what the relay remembers of it
     * @param name the number by which the signal calls something
     * @param factor of the second signal, 0–1
     */
    public record Input(Message signal, OptionalDouble number, OptionalDouble name, double factor) {}

    /**
     * @param devices by their ids
     * @throws Refusal saying why nothing can be said of it
     */
    public static Translation of(Passage passage, IntFunction<Optional<Device>> devices, Input in) {
        Device device = devices.apply(passage.deviceId())
                .orElseThrow(() -> new Refusal("device", "the machine it passes on to is gone"));
        if (passage instanceof Passage.Says says) {
            Phrase phrase =
                    device.phrase(says.phraseId()).orElseThrow(() -> new Refusal("phrase", "its phrase is gone"));
            Optional<Amount> amount = phrase.argument().flatMap(a -> amount(says.filling(), a, device, devices, in));
            return new Translation(
                    device,
                    Optional.of(phrase),
                    amount,
                    device.messagesFor(phrase, amount),
                    device.name() + ": " + device.tell(phrase, amount));
        }
        List<Timed> messages = passage instanceof Passage.Written written
                ? written(written, device, devices, in)
                : List.of(new Timed(0, passed((Passage.Through) passage, device, in.signal())));
        boolean midi = !(device.connection() instanceof Connection.Osc);
        if (messages.stream().anyMatch(t -> t.message() instanceof MidiMessage != midi)) {
            throw new Refusal(
                    "says", device.name() + " is reached by " + (midi ? "MIDI" : "OSC") + " and cannot be told that");
        }
        Wording wording = new Wording(device.numbering());
        String words = String.join(
                "; ", messages.stream().map(t -> wording.tell(t.message())).toList());
        return new Translation(device, Optional.empty(), Optional.empty(), messages, device.name() + ": " + words);
    }

    // ---- a phrase's blank

    private static Optional<Amount> amount(
            Filling filling, Argument argument, Device device, IntFunction<Optional<Device>> devices, Input in) {
        if (filling instanceof Filling.Named named) {
            if (argument.unit() != Argument.Unit.TEXT) {
                throw new Refusal("says", "its phrase takes no text, so no name");
            }
            return Optional.of(new Amount.Text(nameOf(named, devices, in.name())));
        }
        if (filling instanceof Filling.Scaled scaled) {
            return Optional.of(scaled(scaled.scale(), argument, device, in));
        }
        return Optional.empty();
    }

    private static Amount scaled(Scale scale, Argument argument, Device device, Input in) {
        double part = scale.part(required(in.number()), in.factor());
        if (argument.unit() == Argument.Unit.TEXT) {
            return new Amount.Text(Amount.plain(scale.amount(part)));
        }
        double amount = scale.amount(part);
        if (argument.unit() == Argument.Unit.DECIBELS) {
            // Even along the machine's own fader, since silence has no place on an even way in decibels.
            double low = argument.exact(scale.low(), device.levels());
            double high = argument.exact(scale.high(), device.levels());
            boolean end = part <= 0 || part >= 1;
            amount = end ? amount : scale.onGrid(argument.amountAt(low + (high - low) * part, device.levels()));
        }
        double within = Math.max(argument.least(), Math.min(argument.most(), amount));
        boolean whole = argument.unit() == Argument.Unit.VALUE || argument.unit() == Argument.Unit.SWITCH;
        return new Amount.Measure(whole ? Math.rint(within) : within);
    }

    private static double required(OptionalDouble number) {
        return number.orElseThrow(() -> new Refusal("number", "no number came with it"));
    }

    private static String nameOf(Filling.Named named, IntFunction<Optional<Device>> devices, OptionalDouble name) {
        double number = required(name);
        return named.at(number, devices.apply(named.listOf()))
                .orElseThrow(() -> new Refusal("name", "its list has no name for " + Amount.plain(number)));
    }

    // ---- messages that no phrase says

    private static List<Timed> written(
            Passage.Written written, Device device, IntFunction<Optional<Device>> devices, Input in) {
        return written.speech().timed(false, open -> filled(written.filling(), open, devices, in)).stream()
                .map(t -> new Timed(t.atMs(), t.message().shiftedTo(device.channel())))
                .toList();
    }

    private static Message filled(Filling filling, Message open, IntFunction<Optional<Device>> devices, Input in) {
        if (filling instanceof Filling.Named named) {
            if (!(open instanceof OscMessage osc)) {
                throw new Refusal("says", "a name goes into an OSC message only");
            }
            return withLast(osc, nameOf(named, devices, in.name()));
        }
        Scale scale = ((Filling.Scaled) filling).scale();
        double amount = scale.amount(scale.part(required(in.number()), in.factor()));
        if (open instanceof OscMessage osc) {
            boolean whole = scale.grid() > 0 && scale.grid() == Math.rint(scale.grid());
            return withLast(osc, whole ? (Object) (int) amount : (Object) (float) amount);
        }
        if (open instanceof PitchBend bend) {
            int centred = (int) Math.rint(Math.max(-PitchBend.CENTRE, Math.min(PitchBend.CENTRE - 1, amount)));
            return new PitchBend(bend.channel(), centred + PitchBend.CENTRE);
        }
        return Argument.withValue(open, (int) Math.rint(Math.max(0, Math.min(HIGHEST, amount))));
    }

    private static OscMessage withLast(OscMessage open, Object last) {
        List<Object> arguments =
                new ArrayList<>(open.arguments().subList(0, open.arguments().size() - 1));
        arguments.add(last);
        return new OscMessage(open.address(), arguments);
    }

    // ---- the very message

    private static Message passed(Passage.Through through, Device device, Message signal) {
        if (!(signal instanceof ChannelMessage said)) {
            return signal;
        }
        // The patch bay is no machine: a program means a set, on whatever channel it comes.
        OptionalInt channel = device.connection() instanceof Connection.PatchBay
                ? OptionalInt.of(device.channel())
                : through.channel();
        ChannelMessage moved = channel.isPresent() ? said.onChannel(channel.getAsInt()) : said;
        return shifted(moved, through.shift());
    }

    private static Message shifted(ChannelMessage message, int by) {
        if (by == 0) {
            return message;
        } else if (message instanceof NoteOn m) {
            return new NoteOn(m.channel(), shifted(m.note(), by), m.velocity());
        } else if (message instanceof NoteOff m) {
            return new NoteOff(m.channel(), shifted(m.note(), by), m.velocity());
        } else if (message instanceof PolyPressure m) {
            return new PolyPressure(m.channel(), shifted(m.note(), by), m.pressure());
        } else if (message instanceof ControlChange m) {
            return new ControlChange(m.channel(), shifted(m.controller(), by), m.value());
        } else if (message instanceof ProgramChange m) {
            return new ProgramChange(m.channel(), shifted(m.program(), by));
        } else if (message instanceof BankProgram m) {
            return new BankProgram(m.channel(), m.bank(), shifted(m.program(), by));
        }
        return message;
    }

    private static int shifted(int number, int by) {
        int moved = number + by;
        if (moved < 0 || moved > HIGHEST) {
            throw new Refusal("shift", "moved by " + by + " its number leaves 0 to 127");
        }
        return moved;
    }

    /** All that is said at once and later. */
    public Stream<Message> said() {
        return messages.stream().map(Timed::message);
    }
}
