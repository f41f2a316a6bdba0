package underbaton.web.rig;

import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.stream.Stream;
import underbaton.core.cue.PatchBay;
import underbaton.core.midi.TimeCode;
import underbaton.core.rig.Connection;
import underbaton.core.rig.Connection.Carrier;
import underbaton.core.rig.Department;
import underbaton.core.rig.Device;
import underbaton.core.rig.InStep;
import underbaton.core.rig.InStep.Vamping;
import underbaton.core.rig.Levels;
import underbaton.core.rig.Numbering;
import underbaton.core.rig.Phrase;
import underbaton.core.rig.Precautions;
import underbaton.core.rig.Precautions.UntoldFade;
import underbaton.core.rig.StepList;
import underbaton.web.kernel.Faults;
import underbaton.web.kernel.Typed;

/**
 * A device as it is typed: all blanks are text, the channel counts from 1.
 *
 * @param wire {@code midi}, {@code local}, or {@code osc-} with the carrier's code
 * @param local the name of a port of this computer
 * @param banks programs to a letter; empty for plain numbers
 * @param levels points of its own scale; empty for the published law
 * @param lists lists that it steps through, parted by semicolons
 * @param safe the name of its safe phrase; empty for none
 * @param untold where a fade begins of which nobody knows where it begins
 * @param clock of the music's time, filled where it gets the MIDI clock
 * @param code where it gets time code
 * @param transport where it is located and played
 * @param rate frames a second, {@code 29.97}
 * @param vamps what it does in a vamp
 * @param order {@code typed} where it gets what stands first in a cell first, {@code programs} where programs go first
 */
public record DeviceForm(
        String name,
        String department,
        String wire,
        String host,
        String port,
        String local,
        String question,
        String channel,
        String programs,
        String banks,
        String values,
        String octaves,
        String flats,
        String places,
        String levels,
        String lead,
        String settle,
        String lists,
        String safe,
        String untold,
        String order,
        String clock,
        String code,
        String transport,
        String rate,
        String vamps) {
    /** A blank that was not sent is an empty one. */
    public DeviceForm {
        name = Typed.orEmpty(name);
        department = Typed.orEmpty(department);
        wire = Typed.orEmpty(wire);
        host = Typed.orEmpty(host);
        port = Typed.orEmpty(port);
        local = Typed.orEmpty(local);
        question = Typed.orEmpty(question);
        channel = Typed.orEmpty(channel);
        programs = Typed.orEmpty(programs);
        banks = Typed.orEmpty(banks);
        values = Typed.orEmpty(values);
        octaves = Typed.orEmpty(octaves);
        flats = Typed.orEmpty(flats);
        places = Typed.orEmpty(places);
        levels = Typed.orEmpty(levels);
        lead = Typed.orEmpty(lead);
        settle = Typed.orEmpty(settle);
        lists = Typed.orEmpty(lists);
        safe = Typed.orEmpty(safe);
        untold = Typed.orEmpty(untold);
        order = Typed.orEmpty(order);
        clock = Typed.orEmpty(clock);
        code = Typed.orEmpty(code);
        transport = Typed.orEmpty(transport);
        rate = Typed.orEmpty(rate);
        vamps = Typed.orEmpty(vamps);
    }

    private static final String TICKED = "yes";
    private static final String TYPED = "typed";
    private static final String PROGRAMS = "programs";

    private static final String MIDI = "midi";
    private static final String LOCAL = "local";
    private static final String OSC = "osc-";

    static DeviceForm of(Device device) {
        Connection connection = device.connection();
        Connection.Network network = connection instanceof Connection.Network n ? n : null;
        Connection.Osc osc = connection instanceof Connection.Osc o ? o : null;
        Numbering numbering = device.numbering();
        InStep inStep = device.inStep().orElse(InStep.NOT);
        return new DeviceForm(
                device.name(),
                device.department().name(),
                osc != null ? OSC + osc.carrier().code() : network != null ? MIDI : LOCAL,
                network != null ? network.host() : "",
                network != null ? Integer.toString(network.port()) : "",
                network != null ? "" : connection.where(),
                osc != null ? osc.question() : "",
                Integer.toString(Numbering.channel(device.channel())),
                Integer.toString(numbering.firstProgram()),
                numbering.bankSize() == 0 ? "" : Integer.toString(numbering.bankSize()),
                numbering.values().name(),
                Integer.toString(numbering.firstOctave()),
                numbering.flats() ? "flats" : "sharps",
                Integer.toString(numbering.firstPlace()),
                device.levels().write(numbering),
                Integer.toString(device.leadMs()),
                Integer.toString(device.settleMs()),
                StepList.tell(device.stepLists()),
                device.care().safePhrase(),
                device.care().untoldFade().name(),
                device.care().asTyped() ? TYPED : PROGRAMS,
                ticked(inStep.clock()),
                ticked(inStep.code()),
                ticked(inStep.transport()),
                inStep.rate().name(),
                inStep.vamps().name());
    }

    /** The blanks of a machine that nobody has described yet. */
    static DeviceForm fresh() {
        return new DeviceForm(
                "",
                Department.LIGHTS.name(),
                MIDI,
                "",
                "5004",
                "",
                "",
                "1",
                "1",
                "",
                Numbering.Values.FROM_0.name(),
                "-2",
                "sharps",
                "1",
                "",
                "0",
                "0",
                "",
                "",
                UntoldFade.AT_ONCE.name(),
                TYPED,
                "",
                "",
                "",
                InStep.NOT.rate().name(),
                InStep.NOT.vamps().name());
    }

    private static String ticked(boolean is) {
        return is ? TICKED : "";
    }

    /** A new one for somebody who has been heard already. @param host by OSC; empty for who came by network MIDI */
    static DeviceForm heard(String name, String host) {
        DeviceForm fresh = fresh();
        boolean osc = !host.isEmpty();
        return new DeviceForm(
                name,
                Department.likelyOf(name).name(),
                osc ? OSC + Connection.Carrier.UDP.code() : MIDI,
                host,
                osc ? "" : fresh.port,
                fresh.local,
                fresh.question,
                fresh.channel,
                fresh.programs,
                fresh.banks,
                fresh.values,
                fresh.octaves,
                fresh.flats,
                fresh.places,
                fresh.levels,
                fresh.lead,
                fresh.settle,
                fresh.lists,
                fresh.safe,
                fresh.untold,
                fresh.order,
                fresh.clock,
                fresh.code,
                fresh.transport,
                fresh.rate,
                fresh.vamps);
    }

    /**
     * @param old the device as it was, empty for a new one
     * @throws underbaton.core.rig.Refusal naming the blank that is wrong
     */
    Device toDevice(Optional<Device> old) {
        List<Phrase> phrases = old.map(Device::phrases).orElse(List.of());
        Faults faults = new Faults();
        String called = faults.or("?", () -> Device.requireName(name));
        Connection connection = faults.or(
                new Connection.LocalMidi("?"),
                () -> old.filter(PatchBay::is).map(Device::connection).orElseGet(this::connection));
        int wireChannel = faults.or(0, () -> Numbering.wireChannel(Typed.number("channel", or(channel, "1"))));
        Numbering numbering = faults.or(Numbering.WIRE, this::numbering);
        int leadMs = faults.or(0, () -> Device.requireLead(Typed.number("lead", or(lead, "0"))));
        int settleMs = faults.or(0, () -> Device.requireSettle(Typed.number("settle", or(settle, "0"))));
        Levels scale = faults.or(Levels.PUBLISHED, () -> Levels.of(or(levels, ""), numbering));
        List<StepList> steps = faults.or(List.of(), () -> StepList.read(or(lists, "")));
        return faults.all(() -> new Device(
                old.map(Device::id).orElse(0),
                called,
                Department.valueOf(department.toUpperCase(Locale.ROOT)),
                connection,
                wireChannel,
                numbering,
                leadMs,
                settleMs,
                scale,
                old.flatMap(Device::list),
                steps,
                Optional.of(new Precautions(
                        or(safe, ""),
                        UntoldFade.valueOf(or(untold, "AT_ONCE").toUpperCase(Locale.ROOT)),
                        or(order, PROGRAMS).equals(TYPED))),
                Optional.of(inStep()),
                phrases));
    }

    private InStep inStep() {
        boolean midi = !wire.startsWith(OSC);
        return new InStep(
                midi && !clock.isEmpty(),
                midi && !code.isEmpty(),
                midi && !transport.isEmpty(),
                TimeCode.Rate.valueOf(or(rate, InStep.NOT.rate().name()).toUpperCase(Locale.ROOT)),
                Vamping.valueOf(or(vamps, InStep.NOT.vamps().name()).toUpperCase(Locale.ROOT)));
    }

    /** An OSC machine has neither channel nor numbering; the blanks are not on the page then. */
    private Numbering numbering() {
        return new Numbering(
                Typed.number("programs", or(programs, "1")),
                banks == null || banks.isBlank() ? 0 : Typed.number("banks", banks),
                Numbering.Values.valueOf(or(values, "FROM_0").toUpperCase(Locale.ROOT)),
                Typed.number("octaves", or(octaves, "-2")),
                "flats".equals(flats),
                Typed.number("places", or(places, "1")));
    }

    private Connection connection() {
        if (LOCAL.equals(wire)) {
            return new Connection.LocalMidi(or(local, ""));
        }
        int at = Typed.number("port", port);
        return Stream.of(Carrier.values())
                .filter(c -> wire.equals(OSC + c.code()))
                .findFirst()
                .map(c -> (Connection)
                        new Connection.Osc(host, at, or(question, "").strip(), c))
                .orElseGet(() -> new Connection.NetworkMidi(host, at));
    }

    private static String or(String typed, String otherwise) {
        return typed == null || typed.isBlank() ? otherwise : typed;
    }
}
