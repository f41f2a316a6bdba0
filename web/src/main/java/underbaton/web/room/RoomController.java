package underbaton.web.room;

import java.io.IOException;
import java.util.Map;
import org.springframework.http.HttpStatus;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.ResponseStatus;
import underbaton.core.perform.Clock;
import underbaton.core.rig.Refusal;
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

    RoomController(RehearsalRoom room, Pages pages, Clock clock, Live live, Painting painting) {
        this.room = room;
        this.pages = pages;
        this.clock = clock;
        live.paints("room", showId -> painting.of("room/room", "machines", Map.of("room", RoomView.of(room, clock))));
    }

    @GetMapping("/shows/{showId}/room")
    String page(@PathVariable int showId, Model model) {
        pages.open(showId, "Room", model);
        model.addAttribute("room", RoomView.of(room, clock));
        return "room/room";
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
