package underbaton.web.desk;

import jakarta.servlet.http.HttpServletResponse;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import org.springframework.http.HttpStatus;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.ResponseStatus;
import underbaton.core.cue.Show;
import underbaton.core.engine.Destination;
import underbaton.core.engine.Order;
import underbaton.core.engine.PlaybackState;
import underbaton.core.engine.catchup.Correction;
import underbaton.core.plan.PlannedItem;
import underbaton.core.rig.Device;
import underbaton.core.rig.Refusal;
import underbaton.core.rig.StepList;
import underbaton.web.kernel.Notice;
import underbaton.web.library.Shows;
import underbaton.web.stage.Manners;
import underbaton.web.stage.Stage;

/** Making the machines right: what it takes is shown first, and sent when the operator says so. */
@Controller
class CatchUpController {

    private final Shows shows;
    private final Stage stage;
    private final Manners manners;
    private final Destinations destinations;

    CatchUpController(Shows shows, Stage stage, Manners manners, Destinations destinations) {
        this.shows = shows;
        this.stage = stage;
        this.manners = manners;
        this.destinations = destinations;
    }

    @GetMapping("/shows/{showId}/desk/catch-up")
    String sheet(@PathVariable int showId, @RequestParam(defaultValue = Destinations.STANDBY) String to, Model model) {
        Destination destination = destinations.of(showId, to);
        List<Correction> corrections = destination.corrections(destinations.now(showId));
        model.addAttribute("showId", showId);
        model.addAttribute("sheet", CatchUpView.of(shows.get(showId), to, destination.words(), corrections));
        return "desk/catchup :: sheet";
    }

    /**
     * @param send the keys of the lines that are sent
     * @param shown the keys of all lines that the sheet showed, with full stops between them; what is to be made right since then is
     *     sent too, unless it is guarded, and told
     */
    @PostMapping("/shows/{showId}/desk/catch-up")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void send(
            @PathVariable int showId,
            @RequestParam String to,
            @RequestParam(defaultValue = "") Set<String> send,
            @RequestParam String shown,
            HttpServletResponse response) {
        Destination destination = destinations.of(showId, to);
        PlaybackState now = destinations.now(showId);
        Set<String> seen = Set.copyOf(Arrays.asList(shown.split("\\.")));
        Set<Correction.Key> leftOut = new HashSet<>();
        List<String> since = new ArrayList<>();
        for (Correction correction : destination.corrections(now)) {
            String key = CatchUpView.key(correction.key());
            boolean isNew = correction.isPossible() && !seen.contains(key);
            if (isNew) {
                since.add(nameOf(showId, correction.key().deviceId()) + ": " + correction.wants()
                        + (correction.guarded() ? " (guarded, not sent)" : ""));
            }
            if (isNew ? correction.guarded() : !send.contains(key)) {
                leftOut.add(correction.key());
            }
        }
        String more = since.isEmpty() ? "" : "; not on the sheet: " + String.join("; ", since);
        stage.bring(showId, destination, "catch-up, " + destination.words() + more, leftOut);
        if (!since.isEmpty()) {
            Notice.with(response, "Changed since the sheet was opened, and sent too: " + String.join("; ", since));
        }
    }

    /**
     * The music goes on there: at once where nothing can be made right, or where the operator has chosen so, since the band is playing
     * already; else the sheet is shown first.
     *
     * @param atOnce whether it goes on in any case; all that is not guarded is made right on the way
     */
    @PostMapping("/shows/{showId}/desk/go-on")
    String goOn(
            @PathVariable int showId,
            @RequestParam String to,
            @RequestParam(defaultValue = "false") boolean atOnce,
            Model model,
            HttpServletResponse response) {
        Destination destination = destinations.of(showId, to);
        List<Correction> corrections = destination.corrections(destinations.now(showId));
        if (!atOnce && !manners.goesOnAtOnce() && corrections.stream().anyMatch(Correction::isPossible)) {
            model.addAttribute("showId", showId);
            model.addAttribute("sheet", CatchUpView.of(shows.get(showId), to, destination.words(), corrections));
            return "desk/catchup :: sheet";
        }
        List<String> left = stage.bringAtOnce(showId, destination, "goes on " + destination.words());
        if (!left.isEmpty()) {
            Notice.with(response, "Not made right: " + String.join("; ", left));
        }
        response.setStatus(HttpStatus.NO_CONTENT.value());
        return null;
    }

    private String nameOf(int showId, int deviceId) {
        return shows.get(showId).device(deviceId).map(Device::name).orElse("a machine");
    }

    /** Tells every machine that was away what it has missed, or one of them. */
    @PostMapping("/shows/{showId}/desk/bring-up")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void bringUp(@PathVariable int showId, @RequestParam(defaultValue = "0") int device) {
        destinations.now(showId).absent().forEach((id, away) -> {
            if (away.back() && (device == 0 || device == id)) {
                stage.order(showId, nameOf(showId, id) + " is brought up to date", new Order.BringUp(id));
            }
        });
    }

    /** From where the song that plays, or stands by, can be played. */
    @GetMapping("/shows/{showId}/desk/from")
    String from(@PathVariable int showId, Model model) {
        PlaybackState state = destinations.now(showId);
        Optional<PlannedItem> item = state.itemInHand();
        model.addAttribute("item", item.map(i -> i.item().name()).orElse(""));
        model.addAttribute(
                "sections",
                item.flatMap(PlannedItem::times).map(t -> t.score().sections()).orElse(List.of()));
        model.addAttribute(
                "bars",
                item.flatMap(PlannedItem::times)
                        .map(t -> "bars " + t.score().firstBar() + " to "
                                + t.score().endBar())
                        .orElse(""));
        return "desk/catchup :: from";
    }

    @GetMapping("/shows/{showId}/desk/places")
    String places(@PathVariable int showId, Model model) {
        Show show = shows.get(showId);
        model.addAttribute("show", show);
        model.addAttribute(
                "stepping",
                show.devices().stream().filter(d -> !d.stepLists().isEmpty()).toList());
        model.addAttribute("state", destinations.now(showId));
        return "desk/catchup :: places";
    }

    /** Somebody has looked where a machine stands. */
    @PostMapping("/shows/{showId}/desk/places")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void place(@PathVariable int showId, @RequestParam int device, @RequestParam String list, @RequestParam int place) {
        Device machine = shows.get(showId)
                .device(device)
                .orElseThrow(() -> new Refusal("device", "That machine is gone; reload the page."));
        StepList steps = machine.stepList(list)
                .orElseThrow(() -> new Refusal("list", machine.name() + " steps through no such list."));
        if (place < StepList.FIRST || place > steps.places()) {
            throw new Refusal("place", machine.name() + " has places 1 to " + steps.places() + " there.");
        }
        String where = (list.isEmpty() ? "place" : list) + " " + place;
        stage.order(showId, machine.name() + " stands at " + where, new Order.StandsAt(device, list, place));
    }
}
