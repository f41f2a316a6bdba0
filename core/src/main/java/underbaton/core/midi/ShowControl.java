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
 */
public record ShowControl(int device, int format, Command command, String cue, String list, String path)
        implements Exclusive {

    /** The commands whose data is cue, list and path, or nothing. */
    public enum Command {
        GO(0x01),
        STOP(0x02),
        RESUME(0x03),
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

    public ShowControl {
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
        return Bytes.of(0x7F, device, 0x02, format, command.number)
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
        String[] parts = new String(data.toArray(), StandardCharsets.US_ASCII).split("\0", -1);
        if (parts.length > 3 || !Arrays.stream(parts).allMatch(p -> p.matches("[0-9.]*"))) {
            return Optional.empty();
        }
        String list = parts.length > 1 ? parts[1] : "";
        String path = parts.length > 2 ? parts[2] : "";
        if (parts[0].isEmpty() && !list.isEmpty() || list.isEmpty() && !path.isEmpty()) {
            return Optional.empty();
        }
        return Optional.of(new ShowControl(device, format, command, parts[0], list, path));
    }
}
