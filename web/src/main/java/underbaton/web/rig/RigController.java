package underbaton.web.rig;

import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.Function;
import java.util.stream.Collectors;
import org.springframework.http.HttpStatus;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.ModelAttribute;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.ResponseStatus;
import underbaton.core.cue.Show;
import underbaton.core.plan.PlannedCall;
import underbaton.core.rig.Department;
import underbaton.core.rig.Device;
import underbaton.core.rig.Effect;
import underbaton.core.rig.ListChange;
import underbaton.core.rig.Numbering;
import underbaton.core.rig.Phrase;
import underbaton.core.rig.PositionList;
import underbaton.core.rig.Refusal;
import underbaton.standins.RehearsalRoom;
import underbaton.web.live.Live;
import underbaton.web.live.Painting;
import underbaton.web.page.Pages;
import underbaton.web.page.Typed;
import underbaton.web.shows.Shows;
import underbaton.web.stage.Lamp;
import underbaton.web.stage.Stage;

/** The Rig: machines, how they are reached, and their phrasebooks. */
@Controller
class RigController {

    private final Shows shows;
    private final Stage stage;
    private final Pages pages;
    private final RehearsalRoom room;

    RigController(Shows shows, Stage stage, Pages pages, RehearsalRoom room, Live live, Painting painting) {
        this.shows = shows;
        this.stage = stage;
        this.pages = pages;
        this.room = room;
        live.paints("machines", showId -> shows.find(showId)
                .map(s -> painting.of("rig/rig", "machines", Map.of("show", s, "lampOf", lamps(s))))
                .orElse(""));
    }

    @GetMapping("/shows/{showId}/rig")
    String page(@PathVariable int showId, @RequestParam(defaultValue = "0") int device, Model model) {
        Show show = pages.open(showId, "Rig", model);
        Optional<Device> chosen =
                show.device(device).or(() -> show.devices().stream().findFirst());
        fill(show, chosen, model);
        return "rig/rig";
    }

    @GetMapping("/shows/{showId}/rig/new")
    String fresh(@PathVariable int showId, Model model) {
        Show show = pages.open(showId, "Rig", model);
        fill(show, Optional.empty(), model);
        return "rig/rig";
    }

    private void fill(Show show, Optional<Device> chosen, Model model) {
        model.addAttribute("lampOf", lamps(show));
        model.addAttribute("ruler", Ruler.drawn());
        model.addAttribute("standIns", room.standIns());
        model.addAttribute("departments", Department.values());
        model.addAttribute("effects", Effect.values());
        model.addAttribute("chosen", chosen.orElse(null));
        model.addAttribute("form", chosen.map(DeviceForm::of).orElseGet(DeviceForm::fresh));
        model.addAttribute("undoable", shows.undoable(show.id()).orElse(""));
        chosen.ifPresent(d -> phrases(show, d, model));
    }

    private Map<Integer, Lamp> lamps(Show show) {
        return stage.isOpen(show.id())
                ? stage.lamps().stream()
                        .collect(Collectors.toMap(l -> l.device().id(), Function.identity()))
                : Map.of();
    }

    private static void phrases(Show show, Device device, Model model) {
        model.addAttribute("show", show);
        model.addAttribute("chosen", device);
        model.addAttribute("effects", Effect.values());
        model.addAttribute("listKinds", PositionList.Kind.values());
        model.addAttribute("listFirst", device.list().map(l -> first(device, l)).orElse(""));
        model.addAttribute(
                "phrases",
                device.phrases().stream().map(p -> Said.of(device, p)).toList());
        model.addAttribute("used", device.phrases().stream().collect(Collectors.toMap(Phrase::id, p -> show.cuesUsing(
                        device.id(), p.id())
                .size())));
    }

    @PostMapping("/shows/{showId}/rig/devices")
    String add(@PathVariable int showId, @ModelAttribute DeviceForm form) {
        Show show = shows.edit(showId, "add " + form.name(), s -> s.withDevice(form.toDevice(Optional.empty())));
        Device added = show.devices().get(show.devices().size() - 1);
        return "redirect:/shows/" + showId + "/rig?device=" + added.id();
    }

    @PostMapping("/shows/{showId}/rig/devices/{deviceId}")
    String change(@PathVariable int showId, @PathVariable int deviceId, @ModelAttribute DeviceForm form) {
        shows.edit(showId, "change " + form.name(), s -> s.withDevice(form.toDevice(Optional.of(device(s, deviceId)))));
        return "redirect:/shows/" + showId + "/rig?device=" + deviceId;
    }

    @PostMapping("/shows/{showId}/rig/devices/{deviceId}/delete")
    String remove(@PathVariable int showId, @PathVariable int deviceId) {
        shows.edit(showId, "remove " + device(shows.get(showId), deviceId).name(), s -> s.withoutDevice(deviceId));
        return "redirect:/shows/" + showId + "/rig";
    }

    @PostMapping("/shows/{showId}/rig/devices/{deviceId}/move")
    String move(@PathVariable int showId, @PathVariable int deviceId, @RequestParam int step) {
        shows.edit(showId, "move a column", s -> {
            Device device = device(s, deviceId);
            return s.withDeviceAt(deviceId, s.devices().indexOf(device) + step);
        });
        return "redirect:/shows/" + showId + "/rig?device=" + deviceId;
    }

    @PostMapping("/shows/{showId}/rig/undo")
    String undo(@PathVariable int showId, @RequestParam(defaultValue = "0") int device) {
        shows.undo(showId);
        return "redirect:/shows/" + showId + "/rig?device=" + device;
    }

    /** Sends nothing; takes what somebody sent and saw, and sets the numbering that explains it. */
    @PostMapping("/shows/{showId}/rig/devices/{deviceId}/explain")
    String explain(
            @PathVariable int showId,
            @PathVariable int deviceId,
            @RequestParam String what,
            @RequestParam String sent,
            @RequestParam String shown) {
        int wire = Typed.number("sent", sent);
        if (wire < 0 || wire > 127) {
            throw new Refusal("sent", "The wire carries the numbers 0 to 127; type the one that was sent.");
        }
        shows.edit(showId, "set how it counts", s -> {
            Device device = device(s, deviceId);
            return s.withDevice(
                    device.withNumbering(device.numbering().explaining(Numbering.Seen.valueOf(what), wire, shown)));
        });
        return "redirect:/shows/" + showId + "/rig?device=" + deviceId;
    }

    // ---- the phrasebook

    @PostMapping("/shows/{showId}/rig/devices/{deviceId}/phrases")
    String addPhrase(
            @PathVariable int showId, @PathVariable int deviceId, @ModelAttribute PhraseForm form, Model model) {
        Show show = shows.edit(
                showId,
                "add the phrase " + form.name(),
                s -> s.withPhrase(deviceId, form.toPhrase(device(s, deviceId), 0)));
        phrases(show, device(show, deviceId), model);
        return "rig/rig :: phrases";
    }

    /** Saves a changed line and answers its bytes alone, so that the writer's place in the line is kept. */
    @PostMapping("/shows/{showId}/rig/devices/{deviceId}/phrases/{phraseId}")
    String changePhrase(
            @PathVariable int showId,
            @PathVariable int deviceId,
            @PathVariable int phraseId,
            @ModelAttribute PhraseForm form,
            Model model) {
        Show show = shows.edit(
                showId,
                "change the phrase " + form.name(),
                s -> s.withPhrase(deviceId, form.toPhrase(device(s, deviceId), phraseId)));
        Device device = device(show, deviceId);
        model.addAttribute("said", Said.of(device, phrase(device, phraseId)));
        return "rig/rig :: bytes";
    }

    @PostMapping("/shows/{showId}/rig/devices/{deviceId}/phrases/{phraseId}/delete")
    String removePhrase(@PathVariable int showId, @PathVariable int deviceId, @PathVariable int phraseId, Model model) {
        Show show = shows.edit(showId, "remove a phrase", s -> s.withoutPhrase(deviceId, phraseId));
        phrases(show, device(show, deviceId), model);
        return "rig/rig :: phrases";
    }

    @PostMapping("/shows/{showId}/rig/devices/{deviceId}/phrases/{phraseId}/fire")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void fire(@PathVariable int showId, @PathVariable int deviceId, @PathVariable int phraseId) {
        Device device = device(shows.get(showId), deviceId);
        stage.performer(showId).fire(PlannedCall.of(device, phrase(device, phraseId)), "fired from the rig");
    }

    // ---- the machine's own list

    private static String first(Device device, PositionList list) {
        return switch (list.kind()) {
            case NOTE -> device.numbering().note(list.first());
            case PROGRAM -> Integer.toString(device.numbering().program(list.first()));
            case CONTROLLER -> Integer.toString(list.first());
        };
    }

    /** @param kind how the list is numbered; empty for no list */
    @PostMapping("/shows/{showId}/rig/devices/{deviceId}/list")
    String number(
            @PathVariable int showId,
            @PathVariable int deviceId,
            @RequestParam String kind,
            @RequestParam(defaultValue = "") String first,
            Model model) {
        Show show = shows.edit(showId, "number a list", s -> {
            Device device = device(s, deviceId);
            return s.withDevice(device.withList(list(device, kind, first)));
        });
        phrases(show, device(show, deviceId), model);
        return "rig/rig :: phrases";
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
                    case PROGRAM -> numbering.wireProgram(Typed.number("first", first));
                    case CONTROLLER -> Typed.number("first", first);
                };
        return Optional.of(new PositionList(numbered, wire));
    }

    /** Tells what the pasted list would change, or does it when that is what was looked at. */
    @PostMapping("/shows/{showId}/rig/devices/{deviceId}/list/paste")
    String paste(
            @PathVariable int showId,
            @PathVariable int deviceId,
            @RequestParam String names,
            @RequestParam(defaultValue = "HOLDS") String effect,
            @RequestParam(defaultValue = "0") int seen,
            Model model) {
        List<String> read = PastedNames.read(names);
        model.addAttribute("names", String.join("\n", read));
        model.addAttribute("effect", effect);
        return change(showId, deviceId, seen, device -> ListChange.pasted(device, read, Effect.valueOf(effect)), model);
    }

    /** Tells what moving one entry would change, or does it when that is what was looked at. */
    @PostMapping("/shows/{showId}/rig/devices/{deviceId}/list/move")
    String moveEntry(
            @PathVariable int showId,
            @PathVariable int deviceId,
            @RequestParam int phrase,
            @RequestParam String place,
            @RequestParam(defaultValue = "0") int seen,
            Model model) {
        int to = Numbering.placeFrom(Typed.number("place", place));
        model.addAttribute("moved", phrase);
        model.addAttribute("place", place);
        return change(showId, deviceId, seen, device -> ListChange.moved(device, phrase, to), model);
    }

    /** @param seen the show's revision at which the change was looked at; 0 when it has not been */
    private String change(int showId, int deviceId, int seen, Function<Device, ListChange> change, Model model) {
        if (seen == 0) {
            Show show = shows.get(showId);
            Device device = device(show, deviceId);
            model.addAttribute("preview", ListPreview.of(show, device, change.apply(device)));
            model.addAttribute("show", show);
            model.addAttribute("chosen", device);
            return "rig/rig :: preview";
        }
        Show changed = shows.edit(showId, "change a machine's list", s -> {
            if (s.revision() != seen) {
                throw new Refusal("list", "The show was changed since you looked; look at what changes once more.");
            }
            return s.withPhrasebook(change.apply(device(s, deviceId)).after());
        });
        phrases(changed, device(changed, deviceId), model);
        return "rig/rig :: phrases";
    }

    private static Device device(Show show, int deviceId) {
        return show.device(deviceId)
                .orElseThrow(() -> new Refusal("device", "That machine is no longer in the rig; reload the page."));
    }

    private static Phrase phrase(Device device, int phraseId) {
        return device.phrase(phraseId)
                .orElseThrow(
                        () -> new Refusal("phrase", "That phrase is no longer in the phrasebook; reload the page."));
    }
}
