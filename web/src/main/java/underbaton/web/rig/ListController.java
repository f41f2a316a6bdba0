package underbaton.web.rig;

import java.util.List;
import java.util.Optional;
import java.util.function.Function;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import underbaton.core.cue.Show;
import underbaton.core.rig.Device;
import underbaton.core.rig.Effect;
import underbaton.core.rig.ListChange;
import underbaton.core.rig.Numbering;
import underbaton.core.rig.PositionList;
import underbaton.core.rig.Refusal;
import underbaton.web.page.Fingerprint;
import underbaton.web.page.Typed;
import underbaton.web.shows.Shows;

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
        int wire = first.isBlank()
                ? 0
                : switch (numbered) {
                    case NOTE -> numbering.wireNote(first);
                    case PROGRAM -> numbering.wireProgram(first);
                    case CONTROLLER -> Typed.number("first", first);
                };
        return Optional.of(new PositionList(numbered, wire));
    }

    /** Tells what the pasted list would change, or does it when that is what was looked at. */
    @PostMapping("/paste")
    String paste(
            @PathVariable int showId,
            @PathVariable int deviceId,
            @RequestParam String names,
            @RequestParam(defaultValue = "holds") String effect,
            @RequestParam(defaultValue = "0") int seen,
            Model model) {
        List<String> read = PastedNames.read(names);
        model.addAttribute("names", String.join("\n", read));
        model.addAttribute("effect", effect);
        return change(showId, deviceId, seen, device -> ListChange.pasted(device, read, Effect.of(effect)), model);
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
