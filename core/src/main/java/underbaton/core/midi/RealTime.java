package underbaton.core.midi;

import java.util.Arrays;
import java.util.Optional;

/** System real-time messages: one byte, allowed anywhere, even inside another message. */
public enum RealTime implements MidiMessage {
    /** 24 to the quarter note. */
    CLOCK(0xF8),
    START(0xFA),
    CONTINUE(0xFB),
    STOP(0xFC),
    ACTIVE_SENSING(0xFE),
    RESET(0xFF);

    private final int status;

    RealTime(int status) {
        this.status = status;
    }

    @Override
    public Bytes encode() {
        return Bytes.of(status);
    }

    /** @return empty for F9 and FD, which the specification leaves undefined */
    public static Optional<RealTime> of(int status) {
        return Arrays.stream(values()).filter(m -> m.status == status).findFirst();
    }
}
