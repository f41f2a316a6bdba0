package underbaton.core.rig;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.EnumSet;
import java.util.OptionalInt;
import java.util.Random;
import java.util.Set;
import org.junit.jupiter.api.Test;
import underbaton.core.midi.Bytes;
import underbaton.core.midi.ChannelMessage;
import underbaton.core.midi.ChannelMessage.ControlChange;
import underbaton.core.midi.ChannelMessage.NoteOff;
import underbaton.core.midi.ChannelMessage.NoteOn;
import underbaton.core.midi.ChannelMessage.PolyPressure;
import underbaton.core.midi.ChannelMessage.ProgramChange;

/** What passes on a line, held against a reading of the bytes that knows nothing of our messages. */
class PatchLineTest {

    private static final int KEYS = 1;
    private static final int MODULE = 2;

    @Test
    void ten_thousand_messages_pass_as_a_reading_of_their_bytes_says() {
        Random random = new Random(12);
        int passed = 0;
        for (int i = 0; i < 10_000; i++) {
            PatchLine line = line(random);
            Bytes played = anything(random);
            int[] data = new int[played.length()];
            for (int b = 0; b < data.length; b++) {
                data[b] = played.at(b);
            }
            ChannelMessage message = ChannelMessage.decode(data[0], data[1], data.length > 2 ? data[2] : 0);
            String naive = naive(line, data);
            String ours = line.carried(KEYS, message).map(m -> m.encode().hex()).orElse("");
            assertThat(ours).as("%s through %s", played.hex(), line).isEqualTo(naive);
            passed += naive.isEmpty() ? 0 : 1;
        }
        assertThat(passed).isBetween(1000, 9000);
    }

    /** MIDI 1.0 detailed specification, table of channel voice messages: the status in the high four bits, the channel in the low. */
    private static String naive(PatchLine line, int[] data) {
        int kind = data[0] >> 4;
        int channel = data[0] & 15;
        boolean bank = kind == 0xB && (data[1] == 0 || data[1] == 32);
        String name =
                switch (kind) {
                    case 0x8, 0x9 -> "NOTES";
                    case 0xA, 0xD -> "PRESSURE";
                    case 0xB -> bank ? "PROGRAMS" : "CONTROLS";
                    case 0xC -> "PROGRAMS";
                    default -> "BEND";
                };
        if (kind == 0xB && data[1] > 119
                || line.kinds().stream().noneMatch(k -> k.name().equals(name))) {
            return "";
        }
        if (line.fromChannel().isPresent() && line.fromChannel().getAsInt() != channel) {
            return "";
        }
        int[] out = data.clone();
        out[0] = kind << 4 | line.toChannel().orElse(channel);
        if (kind == 0x8 || kind == 0x9 || kind == 0xA) {
            boolean in =
                    data[1] >= line.notes().from() && data[1] <= line.notes().to();
            boolean struck = kind == 0x9 && data[2] > 0;
            boolean hard = data[2] >= line.velocities().from()
                    && data[2] <= line.velocities().to();
            out[1] = data[1] + line.transpose();
            if (!in || out[1] < 0 || out[1] > 127 || struck && !hard) {
                return "";
            }
        }
        if (kind == 0xB
                && !bank
                && (data[1] < line.controls().from()
                        || data[1] > line.controls().to())) {
            return "";
        }
        if (kind == 0xC
                && (data[1] < line.programs().from()
                        || data[1] > line.programs().to())) {
            return "";
        }
        StringBuilder hex = new StringBuilder();
        for (int b : out) {
            hex.append(hex.isEmpty() ? "" : " ").append(String.format("%02X", b));
        }
        return hex.toString();
    }

    private static Bytes anything(Random random) {
        int kind = 0x8 + random.nextInt(7);
        int status = kind << 4 | random.nextInt(4);
        int second = random.nextInt(5) == 0 ? 0 : random.nextInt(128);
        return kind == 0xC || kind == 0xD
                ? Bytes.of(status, random.nextInt(128))
                : Bytes.of(status, random.nextInt(128), second);
    }

    private static PatchLine line(Random random) {
        Set<PatchKind> kinds = EnumSet.noneOf(PatchKind.class);
        while (kinds.isEmpty()) {
            for (PatchKind kind : PatchKind.values()) {
                if (random.nextInt(3) > 0) {
                    kinds.add(kind);
                }
            }
        }
        return new PatchLine(
                KEYS,
                random.nextBoolean() ? OptionalInt.empty() : OptionalInt.of(random.nextInt(4)),
                MODULE,
                random.nextBoolean() ? OptionalInt.empty() : OptionalInt.of(random.nextInt(16)),
                kinds,
                range(random, 0),
                range(random, 1),
                range(random, 0),
                range(random, 0),
                random.nextInt(121) - 60);
    }

    private static PatchRange range(Random random, int least) {
        int one = least + random.nextInt(128 - least);
        int other = least + random.nextInt(128 - least);
        return random.nextInt(3) == 0
                ? new PatchRange(least, 127)
                : new PatchRange(Math.min(one, other), Math.max(one, other));
    }

    @Test
    void another_machine_does_not_play_on_the_line() {
        assertThat(PatchLine.open(KEYS, MODULE).carried(MODULE, new NoteOn(0, 60, 1)))
                .isEmpty();
    }

    @Test
    void an_open_line_changes_nothing_but_keeps_mode_messages_back() {
        PatchLine line = PatchLine.open(KEYS, MODULE);
        for (ChannelMessage message : new ChannelMessage[] {
            new NoteOn(3, 60, 1), new NoteOff(3, 60, 64), new PolyPressure(1, 2, 3), new ProgramChange(9, 127)
        }) {
            assertThat(line.carried(KEYS, message)).contains(message);
        }
        assertThat(line.carried(KEYS, new ControlChange(0, 123, 0))).isEmpty();
        assertThat(line.isOpen()).isTrue();
    }

    @Test
    void what_cannot_be_is_refused_by_its_field() {
        PatchLine line = PatchLine.open(KEYS, MODULE);
        assertThatThrownBy(() -> new PatchRange(5, 4)).isInstanceOf(Refusal.class);
        assertThatThrownBy(() -> new PatchLine(
                        KEYS,
                        OptionalInt.of(16),
                        MODULE,
                        OptionalInt.empty(),
                        line.kinds(),
                        line.notes(),
                        line.velocities(),
                        line.controls(),
                        line.programs(),
                        0))
                .hasMessageContaining("1 to 16");
        assertThatThrownBy(() -> new PatchLine(
                        KEYS,
                        OptionalInt.empty(),
                        MODULE,
                        OptionalInt.empty(),
                        line.kinds(),
                        line.notes(),
                        PatchRange.ALL,
                        line.controls(),
                        line.programs(),
                        0))
                .hasMessageContaining("softest");
        assertThatThrownBy(() -> Wiring.NONE.with(line).with(line)).hasMessageContaining("already");
    }
}
