package underbaton.core.midi;

import java.util.Arrays;
import java.util.Optional;

/**
 * MIDI Machine Control (RP-013): {@code F0 7F dev 06 command F7}, and locate with its position.
 *
 * @param device 0–127; 127 is everyone
 * @param target where to go; present with {@link Command#LOCATE} and only there
 */
public record MachineControl(int device, Command command, Optional<TimeCode> target) implements Exclusive {

    /** The commands this product sends, with their numbers. */
    public enum Command {
        STOP(0x01),
        PLAY(0x02),
        DEFERRED_PLAY(0x03),
        FAST_FORWARD(0x04),
        REWIND(0x05),
        RECORD_STROBE(0x06),
        RECORD_EXIT(0x07),
        PAUSE(0x09),
        LOCATE(0x44);

        private final int number;

        Command(int number) {
            this.number = number;
        }
    }

    public MachineControl {
        Limits.seven("device", device);
        if (target.isPresent() != (command == Command.LOCATE)) {
            throw new IllegalArgumentException("locate has a position and no other command has one");
        }
    }

    /** A command without a place, to this device, 0–127, 127 for all (MIDI Machine Control 1.0, section 3). */
    public static MachineControl of(int device, Command command) {
        return new MachineControl(device, command, Optional.empty());
    }

    /** Go to this time code (MIDI Machine Control 1.0, LOCATE with TARGET). */
    public static MachineControl locate(int device, TimeCode target) {
        return new MachineControl(device, Command.LOCATE, Optional.of(target));
    }

    @Override
    public Bytes body() {
        Bytes head = Bytes.of(0x7F, device, 0x06, command.number);
        // Locate: six bytes follow, the first naming the target form, the last the subframes.
        return target.map(t -> head.then(Bytes.of(0x06, 0x01)).then(t.encode()).then(Bytes.of(0)))
                .orElse(head);
    }

    static Optional<MachineControl> decode(Bytes body) {
        return Exclusive.afterUniversalHeader(body, 0x06).flatMap(rest -> {
            int device = body.at(1);
            Optional<Command> command = Arrays.stream(Command.values())
                    .filter(c -> c.number == rest.at(0))
                    .findFirst();
            try {
                return command.filter(c -> c != Command.LOCATE || rest.length() == 8)
                        .map(c -> c == Command.LOCATE
                                ? locate(device, TimeCode.decode(rest.slice(3, 7)))
                                : of(device, c));
            } catch (IllegalArgumentException noPosition) {
                return Optional.empty();
            }
        });
    }
}
