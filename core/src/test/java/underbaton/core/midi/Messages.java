package underbaton.core.midi;

import java.util.Optional;
import java.util.Random;

/** Messages of every kind, by seed. */
public final class Messages {

    private Messages() {}

    public static MidiMessage random(Random random) {
        int kind = random.nextInt(15);
        return switch (kind) {
            case 0 -> new ChannelMessage.BankProgram(random.nextInt(16), random.nextInt(0x4000), random.nextInt(128));
            case 1 -> new SystemCommon.QuarterFrame(random.nextInt(8), random.nextInt(16));
            case 2 -> new SystemCommon.SongPosition(random.nextInt(0x4000));
            case 3 -> new SystemCommon.SongSelect(random.nextInt(128));
            case 4 -> RealTime.values()[random.nextInt(RealTime.values().length)];
            case 5 -> sysEx(random, random.nextInt(40));
            case 6 ->
                new ShowControl(
                        random.nextInt(128),
                        random.nextInt(128),
                        ShowControl.Command.GO,
                        "" + random.nextInt(500),
                        "1.5",
                        "");
            case 14 ->
                new ShowControl(
                        random.nextInt(128),
                        random.nextInt(128),
                        ShowControl.Command.TIMED_GO,
                        "" + random.nextInt(500),
                        "",
                        "",
                        Optional.of(new ShowControl.Time(timeCode(random), random.nextInt(100))));
            case 7 -> MachineControl.locate(random.nextInt(128), timeCode(random));
            case 8 -> new FullFrame(random.nextInt(128), timeCode(random));
            default -> ChannelMessage.decode(0x80 + random.nextInt(0x70), random.nextInt(128), random.nextInt(128));
        };
    }

    public static SysEx sysEx(Random random, int length) {
        byte[] body = new byte[length + 1];
        for (int i = 1; i < body.length; i++) {
            body[i] = (byte) random.nextInt(128);
        }
        body[0] = 0x7D;
        return new SysEx(Bytes.copyOf(body));
    }

    private static TimeCode timeCode(Random random) {
        return new TimeCode(
                TimeCode.Rate.values()[random.nextInt(4)],
                random.nextInt(24),
                random.nextInt(60),
                random.nextInt(60),
                random.nextInt(24));
    }
}
