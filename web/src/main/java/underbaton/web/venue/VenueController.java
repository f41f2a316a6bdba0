package underbaton.web.venue;

import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.multipart.MultipartFile;
import underbaton.core.cue.Show;
import underbaton.web.access.Guests;
import underbaton.web.access.OperatorPassword;
import underbaton.web.access.Role;
import underbaton.web.access.VenueDoor;
import underbaton.web.access.WaitingDevices;
import underbaton.web.kernel.Alarms;
import underbaton.web.kernel.Reading;
import underbaton.web.live.Live;
import underbaton.web.live.Painting;
import underbaton.web.stage.Stage;

/** The door to the venue, opened and shut; who is let in, as what, for how long. */
@Controller
class VenueController {

    private static final String AGAIN = "redirect:/venue";
    private static final int FIRST_PORT = 8443;

    private final VenueDoor door;
    private final Guests guests;
    private final WaitingDevices waiting;
    private final OperatorPassword password;
    private final Alarms alarms;
    private final Reading reading;
    private final Stage stage;

    VenueController(
            VenueDoor door,
            Guests guests,
            WaitingDevices waiting,
            OperatorPassword password,
            Alarms alarms,
            Reading reading,
            Stage stage,
            Live live,
            Painting painting) {
        this.door = door;
        this.guests = guests;
        this.waiting = waiting;
        this.password = password;
        this.alarms = alarms;
        this.reading = reading;
        this.stage = stage;
        live.paints("venue", showId -> painting.of("venue/people", "people", Map.of("venue", view())));
    }

    private VenueView view() {
        Optional<Show> show = stage.openShow();
        return new VenueView(
                waiting.all(),
                guests.all().stream()
                        .map(g -> VenueView.Line.of(g, guests.seen(g.id()), show))
                        .toList(),
                show.map(Show::id).orElse(0));
    }

    @GetMapping("/venue")
    String page(Model model) {
        model.addAttribute("alarms", alarms.now());
        model.addAttribute("open", door.open().orElse(null));
        model.addAttribute("code", door.open().map(o -> QrCode.of(o.url())).orElse(null));
        model.addAttribute("addresses", VenueDoor.addresses());
        model.addAttribute("address", door.place().map(VenueDoor.Place::address).orElse(""));
        model.addAttribute("port", door.place().map(VenueDoor.Place::port).orElse(FIRST_PORT));
        model.addAttribute("certified", door.certified().orElse(null));
        model.addAttribute("passwordSet", password.isSet());
        model.addAttribute("shortest", OperatorPassword.SHORTEST);
        model.addAttribute("venue", view());
        return "venue/venue";
    }

    @PostMapping("/venue/open")
    String open(
            @RequestParam String address, @RequestParam int port, @RequestParam(defaultValue = "") String newPassword) {
        if (!newPassword.isEmpty() || !password.isSet()) {
            password.set(newPassword);
        }
        door.openAt(address, port);
        return AGAIN;
    }

    @PostMapping("/venue/certificate")
    String certificate(@RequestParam MultipartFile file, @RequestParam(defaultValue = "") String password) {
        byte[] content = reading.of(file, VenueDoor.LARGEST_CERTIFICATE, b -> b);
        door.certify(Optional.of(content), password);
        return AGAIN;
    }

    @PostMapping("/venue/certificate/away")
    String certificateAway() {
        door.certify(Optional.empty(), "");
        return AGAIN;
    }

    @PostMapping("/venue/close")
    String close() {
        door.close();
        waiting.clear();
        return AGAIN;
    }

    @PostMapping("/venue/let-in")
    String letIn(
            @RequestParam int number,
            @RequestParam String code,
            @RequestParam Role role,
            @RequestParam VenueView.HowLong howLong) {
        waiting.letIn(number, code, role, howLong.length());
        return AGAIN;
    }

    @PostMapping("/venue/refuse")
    String refuse(@RequestParam int number, @RequestParam String code) {
        waiting.refuse(number, code);
        return AGAIN;
    }

    @PostMapping("/venue/role")
    String role(@RequestParam long id, @RequestParam Role role) {
        guests.role(id, role);
        return AGAIN;
    }

    /** The pages of hand cues that it works alone; all where none is ticked. */
    @PostMapping("/venue/hands")
    String hands(@RequestParam long id, @RequestParam int showId, @RequestParam(defaultValue = "") Set<Integer> pages) {
        guests.give(id, showId, pages);
        return AGAIN;
    }

    @PostMapping("/venue/take-away")
    String takeAway(@RequestParam long id) {
        guests.takeAway(id);
        return AGAIN;
    }
}
