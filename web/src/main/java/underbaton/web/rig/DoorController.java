package underbaton.web.rig;

import java.util.Arrays;
import java.util.List;
import java.util.Map;
import org.springframework.stereotype.Controller;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;
import underbaton.core.file.StoredForm;
import underbaton.web.live.Live;
import underbaton.web.live.Painting;
import underbaton.web.page.SettingsMapper;
import underbaton.web.stage.OscPort;
import underbaton.wire.Door;
import underbaton.wire.Switchboard;
import underbaton.wire.near.Neighbourhood;

/** Who may come in, at which ports, and who makes himself known on the network. */
@Controller
class DoorController {

    private static final String DOOR = "door";

    private final Switchboard switchboard;
    private final OscPort oscPort;
    private final SettingsMapper settings;
    private volatile Door door;

    /**
     * How others reach us.
     *
     * @param guests who has invited us and is here
     * @param oscPort 0 when there is none
     */
    public record Reach(Door door, List<String> guests, int sessionPort, int oscPort) {
        public Door.Mode[] modes() {
            return Door.Mode.values();
        }
    }

    DoorController(
            Switchboard switchboard,
            OscPort oscPort,
            SettingsMapper settings,
            Neighbourhood neighbourhood,
            Live live,
            Painting painting) {
        this.switchboard = switchboard;
        this.oscPort = oscPort;
        this.settings = settings;
        this.door = settings.get(DOOR).map(DoorController::read).orElse(Door.SHUT);
        switchboard.admit(door);
        oscPort.admit(door);
        neighbourhood.announceUs(switchboard.port());
        live.paints("found", showId -> painting.of("rig/rig", "found", Map.of("found", neighbourhood.found())));
    }

    Reach reach() {
        return new Reach(door, switchboard.guests(), switchboard.port(), oscPort.number());
    }

    @PostMapping("/shows/{showId}/rig/door")
    String admit(
            @PathVariable int showId, @RequestParam Door.Mode mode, @RequestParam(defaultValue = "") String listed) {
        Door wanted = new Door(mode, Arrays.asList(listed.split("[,\\n]")));
        settings.put(DOOR, StoredForm.write(wanted));
        door = wanted;
        switchboard.admit(wanted);
        oscPort.admit(wanted);
        return "redirect:/shows/" + showId + "/rig";
    }

    /** Up to version 7 of the database it stood there as a word and a list. */
    private static Door read(String value) {
        if (value.startsWith("{")) {
            return StoredForm.read(value, Door.class);
        }
        String[] parts = value.split(" ", 2);
        return new Door(Door.Mode.valueOf(parts[0]), Arrays.asList(parts[1].split(",")));
    }
}
