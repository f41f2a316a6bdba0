package underbaton.web.rig;

import java.util.List;
import org.springframework.http.ResponseEntity;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.multipart.MultipartFile;
import underbaton.core.cue.Show;
import underbaton.core.exchange.PhraseTable;
import underbaton.core.rig.Device;
import underbaton.core.store.DeviceFile;
import underbaton.web.kernel.Download;
import underbaton.web.kernel.Reading;
import underbaton.web.library.Shows;

/** Phrasebooks and machines as files, and the sheet for the wall. */
@Controller
class DeviceFileController {

    private final Reading reading;
    private final Shows shows;

    DeviceFileController(Shows shows, Reading reading) {
        this.reading = reading;
        this.shows = shows;
    }

    @GetMapping("/shows/{showId}/rig/devices/{deviceId}/phrases.csv")
    ResponseEntity<byte[]> table(@PathVariable int showId, @PathVariable int deviceId) {
        Device device = RigController.device(shows.get(showId), deviceId);
        return Download.of(device.name() + ".csv", Download.CSV, PhraseTable.write(device));
    }

    @PostMapping("/shows/{showId}/rig/devices/{deviceId}/phrases.csv")
    String takeTable(
            @PathVariable int showId, @PathVariable int deviceId, @RequestParam MultipartFile file, Model model) {
        byte[] bytes = reading.of(file, PhraseTable.LARGEST, b -> b);
        Show show = shows.edit(
                showId,
                "take in a table",
                s -> s.withPhrasebook(PhraseTable.read(RigController.device(s, deviceId), bytes)));
        return PhrasebookController.sheet(show, deviceId, model);
    }

    @GetMapping("/shows/{showId}/rig/devices/{deviceId}/device.json")
    ResponseEntity<byte[]> device(@PathVariable int showId, @PathVariable int deviceId) {
        Device device = RigController.device(shows.get(showId), deviceId);
        return Download.of(device.name() + ".json", Download.JSON, DeviceFile.write(device));
    }

    @PostMapping("/shows/{showId}/rig/devices/file")
    String takeDevice(@PathVariable int showId, @RequestParam MultipartFile file) {
        Device read = reading.of(file, DeviceFile.LARGEST, DeviceFile::read);
        Show show = shows.edit(showId, "take in " + read.name(), s -> {
            Show with = s.withDevice(read.withPhrases(List.of()));
            int id = with.devices().get(with.devices().size() - 1).id();
            return with.withPhrasebook(read.withId(id));
        });
        Device added = show.devices().get(show.devices().size() - 1);
        return "redirect:/shows/" + showId + "/rig?device=" + added.id();
    }

    /** Everything a crew needs to know of one machine, on paper. */
    @GetMapping("/shows/{showId}/rig/devices/{deviceId}/sheet")
    String sheet(@PathVariable int showId, @PathVariable int deviceId, Model model) {
        Show show = shows.get(showId);
        Device device = RigController.device(show, deviceId);
        model.addAttribute("show", show);
        model.addAttribute("book", PhrasebookView.of(show, device));
        model.addAttribute("told", WayTold.of(device));
        return "rig/sheet";
    }
}
