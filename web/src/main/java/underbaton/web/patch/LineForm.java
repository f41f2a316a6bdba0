package underbaton.web.patch;

import java.util.Arrays;
import java.util.EnumSet;
import java.util.List;
import java.util.OptionalInt;
import java.util.Set;
import java.util.function.ToIntFunction;
import java.util.stream.Collectors;
import underbaton.core.cue.Show;
import underbaton.core.midi.Controllers;
import underbaton.core.rig.Device;
import underbaton.core.rig.Numbering;
import underbaton.core.rig.PatchKind;
import underbaton.core.rig.PatchLine;
import underbaton.core.rig.PatchRange;
import underbaton.core.rig.Refusal;
import underbaton.web.kernel.Fingerprint;
import underbaton.web.kernel.Typed;

/**
 * The blanks of a line, as they are typed: numbers in the printing of the machine that is played. What is empty lets all pass.
 *
 * @param was the mark of the line that is changed; empty for a new one
 * @param from a machine's id
 * @param fromChannel 1–16, or empty for any
 * @param to a machine's id
 * @param toChannel 1–16, or empty for the one on which it came
 * @param kinds names of {@link PatchKind}, with commas
 * @param transpose semitones with a sign
 */
public record LineForm(
        String was,
        int from,
        String fromChannel,
        int to,
        String toChannel,
        String kinds,
        String low,
        String high,
        String soft,
        String hard,
        String firstControl,
        String lastControl,
        String firstProgram,
        String lastProgram,
        String transpose) {
    /** A blank that was not sent is an empty one. */
    public LineForm {
        was = Typed.orEmpty(was);
        fromChannel = Typed.orEmpty(fromChannel);
        toChannel = Typed.orEmpty(toChannel);
        kinds = Typed.orEmpty(kinds);
        low = Typed.orEmpty(low);
        high = Typed.orEmpty(high);
        soft = Typed.orEmpty(soft);
        hard = Typed.orEmpty(hard);
        firstControl = Typed.orEmpty(firstControl);
        lastControl = Typed.orEmpty(lastControl);
        firstProgram = Typed.orEmpty(firstProgram);
        lastProgram = Typed.orEmpty(lastProgram);
        transpose = Typed.orEmpty(transpose);
    }

    /** An empty one, from one machine to another: programs, clocks and exclusive messages pass when somebody asks for it, for they change more than a sound. */
    static LineForm fresh(int from, int to) {
        Set<PatchKind> usual = EnumSet.copyOf(PatchKind.PLAYED);
        usual.remove(PatchKind.PROGRAMS);
        String all = joined(usual);
        return new LineForm("", from, "", to, "", all, "", "", "", "", "", "", "", "", "");
    }

    static LineForm of(Show show, PatchLine line) {
        Numbering n = numbering(show, line.from());
        PatchRange v = line.velocities();
        return new LineForm(
                Fingerprint.of(line),
                line.from(),
                channel(line.fromChannel()),
                line.to(),
                channel(line.toChannel()),
                joined(line.kinds()),
                line.notes().isAll() ? "" : n.note(line.notes().from()),
                line.notes().isAll() ? "" : n.note(line.notes().to()),
                v.equals(PatchLine.ALL_VELOCITIES) ? "" : n.value(v.from()),
                v.equals(PatchLine.ALL_VELOCITIES) ? "" : n.value(v.to()),
                line.controls().isAll() ? "" : "" + line.controls().from(),
                line.controls().isAll() ? "" : "" + line.controls().to(),
                line.programs().isAll() ? "" : n.program(line.programs().from()),
                line.programs().isAll() ? "" : n.program(line.programs().to()),
                line.transpose() == 0 ? "" : signed(line.transpose()));
    }

    private static String joined(Set<PatchKind> kinds) {
        return kinds.stream().map(PatchKind::name).collect(Collectors.joining(","));
    }

    private static String channel(OptionalInt channel) {
        return channel.isPresent() ? "" + Numbering.channel(channel.getAsInt()) : "";
    }

    static String signed(int semitones) {
        return semitones > 0 ? "+" + semitones : "−" + -semitones;
    }

    static Numbering numbering(Show show, int deviceId) {
        return show.device(deviceId).map(Device::numbering).orElse(Numbering.WIRE);
    }

    public boolean has(PatchKind kind) {
        return List.of(kinds.split(",")).contains(kind.name());
    }

    /** @throws Refusal naming the blank that cannot be read */
    PatchLine toLine(Show show) {
        requireMidi(show, "from", from);
        requireMidi(show, "to", to);
        Numbering n = numbering(show, from);
        return new PatchLine(
                from,
                channel("fromChannel", fromChannel),
                to,
                channel("toChannel", toChannel),
                readKinds(),
                range("low", low, high, PatchRange.ALL, n::wireNote),
                range("soft", soft, hard, PatchLine.ALL_VELOCITIES, n::wireValue),
                range("firstControl", firstControl, lastControl, PatchRange.ALL, t -> control(t)),
                range("firstProgram", firstProgram, lastProgram, PatchRange.ALL, n::wireProgram),
                transpose.isBlank() ? 0 : Typed.number("transpose", transpose.replace("+", "")));
    }

    private static int control(String typed) {
        int number = Typed.number("firstControl", typed);
        if (number < 0 || Controllers.isMode(number)) {
            throw new Refusal("firstControl", "Controls are 0 to 119; those above end notes and are not passed on.");
        }
        return number;
    }

    private static void requireMidi(Show show, String field, int id) {
        Device device = show.device(id)
                .orElseThrow(() -> new Refusal(field, "That machine is no longer in the rig; choose another."));
        if (!PatchView.isPlayed(device)) {
            throw new Refusal(field, device.name() + " is not reached by MIDI; nothing can be played into it.");
        }
    }

    private static OptionalInt channel(String field, String typed) {
        if (typed.isBlank()) {
            return OptionalInt.empty();
        }
        try {
            return OptionalInt.of(Numbering.wireChannel(Typed.number("channel", typed)));
        } catch (Refusal refused) {
            throw new Refusal(field, refused.getMessage());
        }
    }

    private Set<PatchKind> readKinds() {
        return Arrays.stream(PatchKind.values()).filter(this::has).collect(Collectors.toSet());
    }

    /** One end alone leaves the other where it is. */
    private static PatchRange range(String field, String from, String to, PatchRange all, ToIntFunction<String> read) {
        try {
            int low = from.isBlank() ? all.from() : read.applyAsInt(from);
            int high = to.isBlank() ? all.to() : read.applyAsInt(to);
            if (low > high) {
                throw new Refusal(
                        field, "“" + from.strip() + "” lies above “" + to.strip() + "”; the lower comes first.");
            }
            return new PatchRange(low, high);
        } catch (Refusal refused) {
            throw new Refusal(field, refused.getMessage());
        }
    }
}
