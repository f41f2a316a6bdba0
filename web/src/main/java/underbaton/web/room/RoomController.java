package underbaton.web.room;

import java.io.IOException;
import java.util.Map;
import java.util.stream.Collectors;
import org.springframework.http.HttpStatus;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.ResponseBody;
import org.springframework.web.bind.annotation.ResponseStatus;
import underbaton.core.loop.Clock;
import underbaton.core.rig.Refusal;
import underbaton.standins.FohLights;
import underbaton.standins.Keyed;
import underbaton.standins.RehearsalRoom;
import underbaton.standins.StandIn;
import underbaton.web.live.Live;
import underbaton.web.live.Painting;
import underbaton.web.page.Pages;

/** The rehearsal room, where the stand-ins are seen working. */
@Controller
class RoomController {

    private final RehearsalRoom room;
    private final Pages pages;
    private final Clock clock;
    private final Live live;

    RoomController(RehearsalRoom room, Pages pages, Clock clock, Live live, Painting painting) {
        this.room = room;
        this.pages = pages;
        this.clock = clock;
        this.live = live;
        live.paints(
                "room",
                showId -> painting.of(
                        "room/room", "machines", Map.of("room", RoomView.of(room, clock), "showId", showId)));
    }

    @GetMapping("/shows/{showId}/room")
    String page(@PathVariable int showId, Model model) {
        pages.open(showId, "Room", model);
        model.addAttribute("room", RoomView.of(room, clock));
        model.addAttribute("showId", showId);
        return "room/room";
    }

    /** The lighting desk sorts its list, so that every number shifts: what the phrasebook must be held against. */
    @PostMapping("/shows/{showId}/room/sort")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void sort() {
        room.standIns().stream()
                .map(StandIn::model)
                .filter(FohLights.class::isInstance)
                .map(FohLights.class::cast)
                .forEach(lights -> lights.sort(!lights.isSorted()));
        live.changed("room");
    }

    @GetMapping(path = "/shows/{showId}/room/list", produces = "text/plain;charset=UTF-8")
    @ResponseBody
    String list() {
        return room.standIns().stream()
                .map(StandIn::model)
                .filter(FohLights.class::isInstance)
                .flatMap(m -> ((FohLights) m).list().stream())
                .map(FohLights.Look::name)
                .collect(Collectors.joining("\n"));
    }

    /** Presses a key of a machine that says something by itself. */
    @PostMapping("/shows/{showId}/room/press")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void press(@RequestParam String name, @RequestParam String key) {
        StandIn standIn = room.named(name)
                .filter(s -> s.model() instanceof Keyed keyed && keyed.keys().contains(key))
                .orElseThrow(() -> new Refusal("name", "No stand-in “" + name + "” has a key “" + key + "”."));
        if (!standIn.isOn()) {
            throw new Refusal("name", name + " is switched off; switch it on first.");
        }
        standIn.press(key);
    }

    @PostMapping("/shows/{showId}/room/switch")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void flip(@RequestParam String name) {
        StandIn standIn = room.named(name)
                .orElseThrow(() -> new Refusal("name", "There is no stand-in “" + name + "” in the room."));
        if (standIn.isOn()) {
            standIn.switchOff();
            return;
        }
        try {
            standIn.switchOn();
        } catch (IOException taken) {
            throw new Refusal("name", name + " cannot be switched on: " + taken.getMessage() + ".");
        }
    }
}
