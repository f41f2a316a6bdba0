package underbaton.standins;

import java.util.List;
import underbaton.core.midi.OscMessage;

/**
 * A video server that shows a title and calls cues by itself. {@code /title} with a text shows it, without one it is answered with
 * what is shown. Its keys call cues with {@code /server/cue} and a number, by UDP or by TCP.
 */
public final class VideoServer implements Model.Osc, Keyed {

    private static final String TITLE = "/title";
    private static final String CALL = "/server/cue";

    private volatile String title = "";

    @Override
    public List<OscMessage> hear(OscMessage message) {
        if (!message.address().equals(TITLE)) {
            return List.of();
        }
        if (message.arguments().isEmpty()) {
            return List.of(new OscMessage(TITLE, List.of(title)));
        }
        if (message.arguments().get(0) instanceof String text) {
            title = text;
        }
        return List.of();
    }

    /** Empty at first. */
    public String title() {
        return title;
    }

    @Override
    public List<String> keys() {
        return List.of("cue 10", "cue 10 by TCP", "cue 71.5", "cue 999");
    }

    @Override
    public void press(String key, Mouth mouth) {
        switch (key) {
            case "cue 10" -> mouth.say(Way.UDP, new OscMessage(CALL, List.of(10)));
            case "cue 10 by TCP" -> mouth.say(Way.TCP, new OscMessage(CALL, List.of("10")));
            case "cue 71.5" -> mouth.say(Way.UDP, new OscMessage(CALL, List.of(71.5f)));
            case "cue 999" -> mouth.say(Way.UDP, new OscMessage(CALL, List.of(999)));
            default -> {}
        }
    }
}
