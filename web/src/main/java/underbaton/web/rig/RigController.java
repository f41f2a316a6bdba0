package underbaton.web.rig;

import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.Function;
import java.util.stream.Collectors;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.ModelAttribute;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;
import underbaton.core.cue.Show;
import underbaton.core.midi.TimeCode;
import underbaton.core.rig.Connection;
import underbaton.core.rig.Department;
import underbaton.core.rig.Device;
import underbaton.core.rig.InStep;
import underbaton.core.rig.Numbering;
import underbaton.core.rig.Precautions;
import underbaton.core.rig.Refusal;
import underbaton.standins.RehearsalRoom;
import underbaton.web.kernel.Fingerprint;
import underbaton.web.library.Shows;
import underbaton.web.live.Live;
import underbaton.web.live.Painting;
import underbaton.web.page.Pages;
import underbaton.web.stage.Lamp;
import underbaton.web.stage.Lamps;
import underbaton.web.stage.LineTrials;
import underbaton.web.stage.Stage;
import underbaton.wire.near.Neighbourhood;
import underbaton.wire.ports.LocalPorts;

/** The Rig: machines, how they are reached, and their phrasebooks. */
@Controller
class RigController {

    private final Shows shows;
    private final Stage stage;
    private final LineTrials trials;
    private final Lamps lamps;
    private final Pages pages;
    private final RehearsalRoom room;
    private final DoorController door;

    RigController(
            Shows shows,
            Stage stage,
            LineTrials trials,
            Lamps lamps,
            Pages pages,
            RehearsalRoom room,
            DoorController door,
            Live live,
            Painting painting) {
        this.door = door;
        this.shows = shows;
        this.stage = stage;
        this.trials = trials;
        this.lamps = lamps;
        this.pages = pages;
        this.room = room;
        live.paints("machines", showId -> shows.find(showId)
                .map(s -> painting.of("rig/rig", "machines", Map.of("show", s, "lampOf", lamps(s))))
                .orElse(""));
    }

    @GetMapping("/shows/{showId}/rig")
    String page(@PathVariable int showId, @RequestParam(defaultValue = "0") int device, Model model) {
        Show show = pages.open(showId, "Rig", model);
        Optional<Device> chosen = device == 0 ? show.devices().stream().findFirst() : show.device(device);
        // In the place of one that is gone nothing is written into another.
        model.addAttribute("gone", device != 0 && chosen.isEmpty());
        fill(show, chosen, model);
        return "rig/rig";
    }

    @GetMapping("/shows/{showId}/rig/new")
    String fresh(
            @PathVariable int showId,
            @RequestParam(defaultValue = "") String name,
            @RequestParam(defaultValue = "") String host,
            Model model) {
        Show show = pages.open(showId, "Rig", model);
        model.addAttribute("gone", false);
        fill(show, Optional.empty(), model);
        if (!name.isEmpty()) {
            model.addAttribute("form", DeviceForm.heard(name, host));
        }
        return "rig/rig";
    }

    private void fill(Show show, Optional<Device> chosen, Model model) {
        model.addAttribute("lampOf", lamps(show));
        model.addAttribute("ruler", Ruler.drawn());
        model.addAttribute("standIns", room.standIns());
        model.addAttribute("departments", Department.values());
        model.addAttribute("untoldFades", Precautions.UntoldFade.values());
        model.addAttribute("frameRates", TimeCode.Rate.values());
        model.addAttribute("vampings", InStep.Vamping.values());
        model.addAttribute("carriers", Connection.Carrier.values());
        model.addAttribute("valueStyles", Numbering.Values.values());
        model.addAttribute("chosen", chosen.orElse(null));
        model.addAttribute("form", chosen.map(DeviceForm::of).orElseGet(DeviceForm::fresh));
        model.addAttribute(
                "was", chosen.map(d -> Fingerprint.of(d.withPhrases(List.of()))).orElse(""));
        model.addAttribute("localPorts", LocalPorts.outs());
        model.addAttribute("found", new Neighbourhood.Found(List.of(), "Looking …"));
        model.addAttribute("reach", door.reach());
        model.addAttribute("told", chosen.map(WayTold::of).orElse(""));
        model.addAttribute(
                "unpromised",
                chosen.map(d -> WayTold.unpromised(
                                d, stage.isOpen(show.id()) ? trials.arrival(d.id()) : Optional.empty()))
                        .orElse(""));
        model.addAttribute("clashes", chosen.map(d -> WayTold.clashes(show, d)).orElse(List.of()));
        chosen.ifPresent(d -> PhrasebookController.sheet(show, d.id(), model));
    }

    private Map<Integer, Lamp> lamps(Show show) {
        return stage.isOpen(show.id())
                ? lamps.all().stream().collect(Collectors.toMap(l -> l.device().id(), Function.identity()))
                : Map.of();
    }

    @PostMapping("/shows/{showId}/rig/devices")
    String add(@PathVariable int showId, @ModelAttribute DeviceForm form) {
        Show show = shows.edit(showId, "add " + form.name(), s -> s.withDevice(form.toDevice(Optional.empty())));
        Device added = show.devices().get(show.devices().size() - 1);
        return "redirect:/shows/" + showId + "/rig?device=" + added.id();
    }

    @PostMapping("/shows/{showId}/rig/devices/{deviceId}")
    String change(
            @PathVariable int showId,
            @PathVariable int deviceId,
            @ModelAttribute DeviceForm form,
            @RequestParam(defaultValue = "") String was,
            @RequestParam(defaultValue = "") String keep) {
        shows.edit(showId, "change " + form.name(), s -> {
            Device before = device(s, deviceId);
            Fingerprint.require(was, before.withPhrases(List.of()), before.name());
            return s.withDevice(WhichToKeep.settle(before, form.toDevice(Optional.of(before)), keep, "ways"));
        });
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

    static Device device(Show show, int deviceId) {
        return show.device(deviceId)
                .orElseThrow(() -> new Refusal("device", "That machine is no longer in the rig; reload the page."));
    }
}
