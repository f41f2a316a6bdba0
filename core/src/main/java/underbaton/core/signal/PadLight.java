package underbaton.core.signal;

import java.util.function.IntUnaryOperator;
import java.util.stream.IntStream;
import underbaton.core.rig.Refusal;

/**
 * What a pad or a surface is told of what its signal stands for: a phrase of it for each state, by their ids; 0 for none.
 *
 * @param deviceId the pad, or the surface
 * @param on while what the listener stands for is on
 * @param off while it is not
 * @param asks while it waits for a second act; as {@code on} where there is none
 * @param standby while it stands by; as {@code off} where there is none
 */
public record PadLight(int deviceId, int on, int off, int asks, int standby) {

    public PadLight {
        if (on == 0 && off == 0 && asks == 0 && standby == 0) {
            throw new Refusal("light", "Choose a phrase for one of the light’s states, or no machine for it.");
        }
    }

    /** How what a listener stands for is lit. */
    public enum State {
        ON,
        OFF,
        ASKS,
        STANDBY
    }

    /** The phrase for a state; 0 for none. */
    public int phrase(State state) {
        return switch (state) {
            case ON -> on;
            case OFF -> off;
            case ASKS -> asks == 0 ? on : asks;
            case STANDBY -> standby == 0 ? off : standby;
        };
    }

    /** All ids that it names. */
    public IntStream pointsTo() {
        return IntStream.of(deviceId, on, off, asks, standby);
    }

    /** The same with the ids of its show's parts exchanged. */
    public PadLight pointing(IntUnaryOperator ids) {
        return new PadLight(
                ids.applyAsInt(deviceId),
                ids.applyAsInt(on),
                ids.applyAsInt(off),
                ids.applyAsInt(asks),
                ids.applyAsInt(standby));
    }
}
