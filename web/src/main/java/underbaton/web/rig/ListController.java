package underbaton.web.rig;

import java.util.Optional;
import java.util.function.Function;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.util.MultiValueMap;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import underbaton.core.cue.Show;
import underbaton.core.rig.Device;
import underbaton.core.rig.ListChange;
import underbaton.core.rig.Numbering;
import underbaton.core.rig.PositionList;
import underbaton.core.rig.Refusal;
import underbaton.web.kernel.Fingerprint;
import underbaton.web.kernel.Typed;
import underbaton.web.library.Shows;

/** A machine's own list: how it is numbered, and what a new order of it does. */
@Controller
@RequestMapping("/shows/{showId}/rig/devices/{deviceId}/list")
class ListController {

    private final Shows shows;

    ListController(Shows shows) {
        this.shows = shows;
    }

    /** @param kind how the list is numbered; empty for no list */
    @PostMapping
    String number(
            @PathVariable int showId,
            @PathVariable int deviceId,
            @RequestParam String kind,
            @RequestParam(defaultValue = "") String first,
            @RequestParam(defaultValue = "") String was,
            Model model) {
        Show show = shows.edit(showId, "number a list", s -> {
            Device device = RigController.device(s, deviceId);
            Fingerprint.require(was, device.list(), "how the list of " + device.name() + " is numbered");
            return s.withDevice(device.withList(list(device, kind, first)));
        });
        return PhrasebookController.sheet(show, deviceId, model);
    }

    private static Optional<PositionList> list(Device device, String kind, String first) {
        if (kind.isEmpty()) {
            return Optional.empty();
        }
        PositionList.Kind numbered = PositionList.Kind.valueOf(kind);
        Numbering numbering = device.numbering();
        // A first note says nothing of a list that is recalled by program from now on.
        boolean ofAnother = device.list().filter(l -> l.kind() != numbered).isPresent();
        int wire = first.isBlank() || ofAnother
                ? 0
                : switch (numbered) {
                    case NOTE -> numbering.wireNote(first);
                    case PROGRAM -> numbering.wireProgram(first);
                    case CONTROLLER -> Typed.number("first", first);
                };
        return Optional.of(new PositionList(numbered, wire));
    }

    /** Tells line by line how the pasted list is understood. */
    @PostMapping("/paste")
    String paste(
            @PathVariable int showId,
            @PathVariable int deviceId,
            @RequestParam String names,
            @RequestParam(defaultValue = "holds") String effect,
            Model model) {
        Show show = shows.get(showId);
        return pasted(show, PastedRows.of(show, listed(show, deviceId), names, effect), model);
    }

    /** Tells what the lines mean as they stand now, or takes them when that is what was looked at. */
    @PostMapping("/take")
    String take(
            @PathVariable int showId,
            @PathVariable int deviceId,
            @RequestParam(defaultValue = "0") int seen,
            @RequestParam MultiValueMap<String, String> form,
            Model model) {
        Show show = shows.get(showId);
        PastedRows rows = PastedRows.of(show, listed(show, deviceId), form);
        return seen == 0 || !rows.wrong().isEmpty()
                ? pasted(show, rows, model)
                : take(showId, deviceId, seen, device -> PastedRows.change(device, form), model);
    }

    private static Device listed(Show show, int deviceId) {
        Device device = RigController.device(show, deviceId);
        if (device.list().isEmpty()) {
            throw new Refusal("list", device.name() + " has no list; say first how its list is numbered.");
        }
        return device;
    }

    private static String pasted(Show show, PastedRows rows, Model model) {
        model.addAttribute("pasted", rows);
        model.addAttribute("show", show);
        return "rig/phrases :: pasted";
    }

    /** Tells what moving one entry would change, or does it when that is what was looked at. */
    @PostMapping("/move")
    String moveEntry(
            @PathVariable int showId,
            @PathVariable int deviceId,
            @RequestParam int phrase,
            @RequestParam String place,
            @RequestParam(defaultValue = "0") int seen,
            Model model) {
        int to = RigController.device(shows.get(showId), deviceId).numbering().placeFrom(Typed.number("place", place));
        model.addAttribute("moved", phrase);
        model.addAttribute("place", place);
        return change(showId, deviceId, seen, device -> ListChange.moved(device, phrase, to), model);
    }

    /** @param seen the show's revision at which the change was looked at; 0 when it has not been */
    private String change(int showId, int deviceId, int seen, Function<Device, ListChange> change, Model model) {
        if (seen == 0) {
            Show show = shows.get(showId);
            Device device = RigController.device(show, deviceId);
            model.addAttribute("preview", ListPreview.of(show, device, change.apply(device)));
            model.addAttribute("show", show);
            model.addAttribute("chosen", device);
            return "rig/phrases :: preview";
        }
        return take(showId, deviceId, seen, change, model);
    }

    private String take(int showId, int deviceId, int seen, Function<Device, ListChange> change, Model model) {
        Show changed = shows.edit(showId, "change a machine's list", s -> {
            if (s.revision() != seen) {
                throw new Refusal("list", "The show was changed since you looked; look at what changes once more.");
            }
            return s.withPhrasebook(
                    change.apply(RigController.device(s, deviceId)).after());
        });
        return PhrasebookController.sheet(changed, deviceId, model);
    }
}
