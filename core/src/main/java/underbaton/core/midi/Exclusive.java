package underbaton.core.midi;

import java.util.Optional;

/** System exclusive: {@code F0 … F7} with data bytes 0–127 between. */
public sealed interface Exclusive extends MidiMessage permits SysEx, ShowControl, MachineControl, FullFrame {

    /** What stands between F0 and F7. */
    Bytes body();

    @Override
    default Bytes encode() {
        return Bytes.of(0xF0).then(body()).then(Bytes.of(0xF7));
    }

    /**
     * Reads the known universal messages; whatever would not encode to the very same bytes again stays a {@link SysEx}.
     *
     * @param body what stands between F0 and F7, each 0–127
     */
    static Exclusive decode(Bytes body) {
        return ShowControl.decode(body)
                .map(Exclusive.class::cast)
                .or(() -> MachineControl.decode(body))
                .or(() -> FullFrame.decode(body))
                .filter(known -> known.body().equals(body))
                .orElseGet(() -> new SysEx(body));
    }

    /** Whether the body starts as a real-time universal message with this first sub-id: {@code 7F device subId}. */
    private static boolean isRealTimeUniversal(Bytes body, int subId) {
        return body.length() > 3 && body.at(0) == 0x7F && body.at(2) == subId;
    }

    /** What stands behind the header of a universal message of this kind (MIDI 1.0, system exclusive); empty for another one. */
    static Optional<Bytes> afterUniversalHeader(Bytes body, int subId) {
        return isRealTimeUniversal(body, subId) ? Optional.of(body.slice(3, body.length())) : Optional.empty();
    }
}
