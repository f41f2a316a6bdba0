package underbaton.core.midi;

import java.nio.charset.StandardCharsets;
import java.util.Arrays;
import java.util.Optional;

/**
 * MIDI Show Control 1.0 (RP-002/014): {@code F0 7F device 02 format command data F7}.
 *
 * @param device 0–6F one machine, 70–7E groups, 7F everyone
 * @param format 01 lighting, 10 sound, 30 video, 7F all types (hexadecimal)
 * @param cue digits and points; empty for none
 * @param list cue list, digits and points; empty for none, and only with a cue
 * @param path cue path, digits and points; empty for none, and only with a list
 * @param time how long a timed GO takes; present with {@link Command#TIMED_GO} and only there
 */
public record ShowControl(
        int device, int format, Command command, String cue, String list, String path, Optional<Time> time)
        implements Exclusive {

    /**
     * A time as it stands in a command: {@code hr mn sc fr ff}.
     *
     * @param hundredths of a frame, 0–99
     */
    public record Time(TimeCode code, int hundredths) {
        public Time {
            Limits.within("hundredths", hundredths, 0, 99);
        }
    }

    private static final int TIME_BYTES = 5;

    /** The commands whose data is cue, list and path, with a time before them or not, or nothing. */
    public enum Command {
        GO(0x01),
        STOP(0x02),
        RESUME(0x03),
        TIMED_GO(0x04),
        LOAD(0x05),
        ALL_OFF(0x08),
        RESTORE(0x09),
        RESET(0x0A),
        GO_OFF(0x0B);

        private final int number;

        Command(int number) {
            this.number = number;
        }
    }

    public static final int LIGHTING = 0x01;
    public static final int SOUND = 0x10;
    public static final int VIDEO = 0x30;
    public static final int ALL_TYPES = 0x7F;

    /** A command without a time. */
    public ShowControl(int device, int format, Command command, String cue, String list, String path) {
        this(device, format, command, cue, list, path, Optional.empty());
    }

    public ShowControl {
        if (time.isPresent() != (command == Command.TIMED_GO)) {
            throw new IllegalArgumentException("a timed GO has a time and no other command has one");
        }
        Limits.seven("device", device);
        Limits.seven("format", format);
        requireNumber("cue", cue);
        requireNumber("list", list);
        requireNumber("path", path);
        if (cue.isEmpty() && !list.isEmpty() || list.isEmpty() && !path.isEmpty()) {
            throw new IllegalArgumentException("a list needs a cue before it, and a path needs a list");
        }
    }

    private static void requireNumber(String what, String text) {
        if (!text.matches("[0-9.]*")) {
            throw new IllegalArgumentException(what + " number may hold digits and points only, not “" + text + "”");
        }
    }

    @Override
    public Bytes body() {
        String data = cue + (list.isEmpty() ? "" : "\0" + list) + (path.isEmpty() ? "" : "\0" + path);
        Bytes head = Bytes.of(0x7F, device, 0x02, format, command.number);
        return time.map(t -> head.then(t.code.encode()).then(Bytes.of(t.hundredths)))
                .orElse(head)
                .then(Bytes.copyOf(data.getBytes(StandardCharsets.US_ASCII)));
    }

    static Optional<ShowControl> decode(Bytes body) {
        return Exclusive.afterUniversalHeader(body, 0x02)
                .filter(rest -> rest.length() >= 2)
                .flatMap(rest -> Arrays.stream(Command.values())
                        .filter(c -> c.number == rest.at(1))
                        .findFirst()
                        .flatMap(command -> read(body.at(1), rest.at(0), command, rest.slice(2, rest.length()))));
    }

    private static Optional<ShowControl> read(int device, int format, Command command, Bytes data) {
        if (command != Command.TIMED_GO) {
            return read(device, format, command, data, Optional.empty());
        }
        if (data.length() < TIME_BYTES) {
            return Optional.empty();
        }
        try {
            Time time = new Time(TimeCode.decode(data.slice(0, TIME_BYTES - 1)), data.at(TIME_BYTES - 1));
            return read(device, format, command, data.slice(TIME_BYTES, data.length()), Optional.of(time));
        } catch (IllegalArgumentException noTime) {
            return Optional.empty();
        }
    }

    private static Optional<ShowControl> read(
            int device, int format, Command command, Bytes data, Optional<Time> time) {
        String[] parts = new String(data.toArray(), StandardCharsets.US_ASCII).split("\0", -1);
        if (parts.length > 3 || !Arrays.stream(parts).allMatch(p -> p.matches("[0-9.]*"))) {
            return Optional.empty();
        }
        String list = parts.length > 1 ? parts[1] : "";
        String path = parts.length > 2 ? parts[2] : "";
        if (parts[0].isEmpty() && !list.isEmpty() || list.isEmpty() && !path.isEmpty()) {
            return Optional.empty();
        }
        return Optional.of(new ShowControl(device, format, command, parts[0], list, path, time));
    }
}
