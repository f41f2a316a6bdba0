package underbaton.web.rig;

import java.util.Arrays;
import java.util.List;
import java.util.Map;
import org.springframework.stereotype.Controller;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;
import underbaton.core.rig.Refusal;
import underbaton.core.store.StoredForm;
import underbaton.web.kernel.Fingerprint;
import underbaton.web.kernel.SettingsMapper;
import underbaton.web.live.Live;
import underbaton.web.live.Painting;
import underbaton.web.stage.OscPort;
import underbaton.web.stage.Rights;
import underbaton.wire.Door;
import underbaton.wire.Switchboard;
import underbaton.wire.near.Neighbourhood;

/** Who may come in, at which ports, and who makes himself known on the network. */
@Controller
class DoorController {

    private static final String DOOR = "door";
    private static final String RIGHTS = "osc rights";
    /** Of a setting, in the database. */
    private static final int MOST_KEPT = 2000;

    private final Switchboard switchboard;
    private final OscPort oscPort;
    private final SettingsMapper settings;
    private volatile Door door;
    private volatile Rights rights;

    /**
     * How others reach us.
     *
     * @param rights what they may at the OSC port
     * @param guests who has invited us and is here
     * @param oscPort 0 when there is none
     */
    public record Reach(Door door, Rights rights, List<String> guests, int sessionPort, int oscPort) {

        /** What a form that was filled with this is marked with. */
        public String was() {
            return Fingerprint.of(List.of(door, rights));
        }

        public Door.Mode[] modes() {
            return Door.Mode.values();
        }

        public Rights.May[] may() {
            return Rights.May.values();
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
        this.rights =
                settings.get(RIGHTS).map(r -> StoredForm.read(r, Rights.class)).orElse(Rights.FIRST);
        switchboard.admit(door);
        oscPort.admit(door);
        oscPort.grant(rights);
        neighbourhood.announceUs(switchboard.port());
        live.paints("found", showId -> painting.of("rig/rig", "found", Map.of("found", neighbourhood.found())));
    }

    Reach reach() {
        return new Reach(door, rights, switchboard.guests(), switchboard.port(), oscPort.number());
    }

    @PostMapping("/shows/{showId}/rig/door")
    String admit(
            @PathVariable int showId,
            @RequestParam Door.Mode mode,
            @RequestParam(defaultValue = "") String listed,
            @RequestParam(defaultValue = "BE_HEARD") Rights.May machines,
            @RequestParam(defaultValue = "BE_HEARD") Rights.May guests,
            @RequestParam(defaultValue = "") String asking,
            @RequestParam(defaultValue = "") String ordering,
            @RequestParam(defaultValue = "") String was) {
        Fingerprint.requireMark(was, reach().was(), "who may reach us");
        Door wanted = new Door(mode, several(listed));
        Rights granted = new Rights(machines, guests, several(asking), several(ordering));
        String doorKept = StoredForm.write(wanted);
        String rightsKept = StoredForm.write(granted);
        if (Math.max(doorKept.length(), rightsKept.length()) > MOST_KEPT) {
            throw new Refusal("listed", "There is no room for so many names and addresses; leave some out.");
        }
        settings.put(DOOR, doorKept);
        settings.put(RIGHTS, rightsKept);
        rights = granted;
        oscPort.grant(granted);
        door = wanted;
        switchboard.admit(wanted);
        oscPort.admit(wanted);
        return "redirect:/shows/" + showId + "/rig";
    }

    private static List<String> several(String typed) {
        return Arrays.asList(typed.split("[,;\\n]"));
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
