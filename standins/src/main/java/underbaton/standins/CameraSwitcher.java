package underbaton.standins;

import java.util.List;
import underbaton.core.midi.OscMessage;

/**
 * A switcher of four cameras. {@code /camera/program} with a whole number 1–4 puts that camera on air; without one it is
 * answered with the camera that is.
 */
public final class CameraSwitcher implements Model.Osc {

    public static final int CAMERAS = 4;
    private static final String PROGRAM = "/camera/program";

    private volatile int program = 1;

    @Override
    public List<OscMessage> hear(OscMessage message) {
        if (!message.address().equals(PROGRAM)) {
            return List.of();
        }
        if (!message.arguments().isEmpty()
                && message.arguments().get(0) instanceof Integer camera
                && camera >= 1
                && camera <= CAMERAS) {
            program = camera;
        }
        return message.arguments().isEmpty() ? List.of(new OscMessage(PROGRAM, List.of(program))) : List.of();
    }

    /** The camera on air, 1–4. */
    public int program() {
        return program;
    }
}
