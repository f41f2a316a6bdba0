package underbaton.web.rig;

import jakarta.servlet.http.HttpServletResponse;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import org.springframework.http.HttpStatus;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.ModelAttribute;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.ResponseStatus;
import underbaton.core.cue.Doubt;
import underbaton.core.cue.Show;
import underbaton.core.plan.PlannedCall;
import underbaton.core.rig.Amount;
import underbaton.core.rig.Argument;
import underbaton.core.rig.Device;
import underbaton.core.rig.Family;
import underbaton.core.rig.Numbering;
import underbaton.core.rig.PastedList;
import underbaton.core.rig.Phrase;
import underbaton.core.rig.Refusal;
import underbaton.core.rig.Remarks;
import underbaton.web.kernel.Fingerprint;
import underbaton.web.kernel.Notice;
import underbaton.web.library.Shows;
import underbaton.web.stage.Stage;

/** The phrases of one machine: written, changed, filled from a family, fired. */
@Controller
@RequestMapping("/shows/{showId}/rig/devices/{deviceId}/phrases")
class PhrasebookController {

    private static final int MOST_TOLD = 8;
    static final String SHEET = "rig/phrases :: phrases";

    private final Shows shows;
    private final Stage stage;

    PhrasebookController(Shows shows, Stage stage) {
        this.shows = shows;
        this.stage = stage;
    }

    static String sheet(Show show, int deviceId, Model model) {
        model.addAttribute("show", show);
        model.addAttribute("book", PhrasebookView.of(show, RigController.device(show, deviceId)));
        model.addAttribute("marks", Remarks.Mark.values());
        return SHEET;
    }

    /** What could stand in the blanks of a phrase. */
    public record Examples(String says, String answer) {
        static Examples of(Device device) {
            if (!device.connection().carriesMidi()) {
                return new Examples("/camera/program 3", "/camera/program/now 3");
            }
            return new Examples(
                    device.list().isPresent()
                            ? "empty: next place of the list"
                            : "note E0 for 200 ms; after 50 ms program 10",
                    "program 5: empty when it says nothing");
        }
    }

    @GetMapping
    String sheet(@PathVariable int showId, @PathVariable int deviceId, Model model) {
        return sheet(shows.get(showId), deviceId, model);
    }

    /** The blanks of one phrase, or of a new one. */
    @GetMapping("/{phraseId}")
    String blanks(@PathVariable int showId, @PathVariable int deviceId, @PathVariable int phraseId, Model model) {
        Show show = shows.get(showId);
        Device device = RigController.device(show, deviceId);
        Optional<Phrase> phrase = device.phrase(phraseId);
        model.addAttribute("show", show);
        model.addAttribute("device", device);
        model.addAttribute("id", phraseId);
        model.addAttribute("listed", phrase.map(Phrase::listed).orElse(false));
        model.addAttribute(
                "place",
                phrase.map(p -> PhraseWords.of(device, p).place(device)).orElse(""));
        model.addAttribute("form", phrase.map(p -> PhraseForm.of(device, p)).orElseGet(PhraseForm::fresh));
        model.addAttribute("was", phrase.map(Fingerprint::of).orElse(""));
        model.addAttribute("used", show.cuesUsing(deviceId, phraseId).size());
        model.addAttribute("channel", Numbering.channel(device.channel()));
        model.addAttribute("examples", Examples.of(device));
        model.addAttribute("units", Argument.Unit.values());
        model.addAttribute("marks", Remarks.Mark.values());
        return "rig/phrases :: blanks";
    }

    @PostMapping
    String add(@PathVariable int showId, @PathVariable int deviceId, @ModelAttribute PhraseForm form, Model model) {
        Show show = shows.edit(
                showId,
                "add the phrase " + form.name(),
                s -> s.withPhrase(deviceId, form.toPhrase(RigController.device(s, deviceId), 0)));
        RigController.device(show, deviceId)
                .phraseNamed(form.name().strip())
                .ifPresent(p -> model.addAttribute("kept", form.keptAs(RigController.device(show, deviceId), p)));
        return sheet(show, deviceId, model);
    }

    @PostMapping("/{phraseId}")
    String change(
            @PathVariable int showId,
            @PathVariable int deviceId,
            @PathVariable int phraseId,
            @ModelAttribute PhraseForm form,
            @RequestParam(defaultValue = "") String was,
            HttpServletResponse response,
            Model model) {
        Phrase before = phrase(RigController.device(shows.get(showId), deviceId), phraseId);
        Show show = shows.edit(showId, "change the phrase " + form.name(), s -> {
            Device device = RigController.device(s, deviceId);
            Fingerprint.require(was, phrase(device, phraseId), "this phrase");
            return s.withPhrase(deviceId, form.toPhrase(device, phraseId));
        });
        Device device = RigController.device(show, deviceId);
        device.phrase(phraseId).ifPresent(p -> {
            model.addAttribute("kept", form.keptAs(device, p));
            tellCues(show, device, before, p, response);
        });
        return sheet(show, deviceId, model);
    }

    /** What cues say by now, where their phrase has another unit, is told by whoever gave it, not found out on the night. */
    private static void tellCues(Show show, Device device, Phrase before, Phrase after, HttpServletResponse response) {
        List<String> unfit = new ArrayList<>();
        List<String> otherwise = new ArrayList<>();
        boolean sameUnit =
                before.argument().map(Argument::unit).equals(after.argument().map(Argument::unit));
        show.cues().forEach(cue -> cue.calls().stream()
                .filter(call -> call.names(device.id(), after.id()))
                .forEach(call -> {
                    if (!Doubt.fits(call, device, after)) {
                        unfit.add(cue.number().toString());
                    } else if (!sameUnit && call.amount().isPresent()) {
                        otherwise.add(cue.number() + " (" + call.tell(device) + ")");
                    }
                }));
        String words = told(
                        unfit,
                        "does not fit any more: it is marked in the Book, and sends nothing until it is written"
                                + " anew. ")
                + told(otherwise, "has kept its number in the new unit: look at it. ");
        if (!words.isEmpty()) {
            Notice.with(response, words + "Undo brings the phrase back as it was.");
        }
    }

    private static String told(List<String> cues, String what) {
        int more = cues.size() - MOST_TOLD;
        return cues.isEmpty()
                ? ""
                : "What cue " + String.join(", ", cues.subList(0, Math.min(MOST_TOLD, cues.size())))
                        + (more > 0 ? " and " + more + " more" : "") + " says " + what;
    }

    @PostMapping("/{phraseId}/copy")
    String copy(@PathVariable int showId, @PathVariable int deviceId, @PathVariable int phraseId, Model model) {
        Show show = shows.edit(showId, "duplicate a phrase", s -> {
            Device device = RigController.device(s, deviceId);
            return s.withPhrase(deviceId, device.copyOf(phrase(device, phraseId)));
        });
        return sheet(show, deviceId, model);
    }

    @PostMapping("/{phraseId}/delete")
    String remove(@PathVariable int showId, @PathVariable int deviceId, @PathVariable int phraseId, Model model) {
        return sheet(shows.edit(showId, "remove a phrase", s -> s.withoutPhrase(deviceId, phraseId)), deviceId, model);
    }

    @PostMapping("/several")
    String changeSeveral(
            @PathVariable int showId, @PathVariable int deviceId, @ModelAttribute SeveralPhrases several, Model model) {
        return sheet(shows.edit(showId, several.told("change"), s -> several.change(s, deviceId)), deviceId, model);
    }

    @PostMapping("/several/delete")
    String removeSeveral(
            @PathVariable int showId, @PathVariable int deviceId, @ModelAttribute SeveralPhrases several, Model model) {
        return sheet(shows.edit(showId, several.told("remove"), s -> several.remove(s, deviceId)), deviceId, model);
    }

    /** @param amount for a phrase that takes one, as it is typed */
    @PostMapping("/{phraseId}/fire")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void fire(
            @PathVariable int showId,
            @PathVariable int deviceId,
            @PathVariable int phraseId,
            @RequestParam(defaultValue = "") String amount) {
        Device device = RigController.device(shows.get(showId), deviceId);
        Phrase phrase = phrase(device, phraseId);
        Optional<Amount> given = phrase.argument().map(a -> a.read(amount, device.numbering(), device.levels()));
        stage.fire(showId, PlannedCall.of(device, phrase, given), "fired from the rig");
    }

    // ---- families

    @GetMapping("/families")
    String families(@PathVariable int showId, @PathVariable int deviceId, Model model) {
        Device device = RigController.device(shows.get(showId), deviceId);
        model.addAttribute("device", device);
        model.addAttribute("show", shows.get(showId));
        model.addAttribute("families", Family.fitting(device));
        return "rig/phrases :: families";
    }

    /** @param names a name a line, for the families that want some */
    @PostMapping("/families")
    String fill(
            @PathVariable int showId,
            @PathVariable int deviceId,
            @RequestParam String family,
            @RequestParam(defaultValue = "") String names,
            @RequestParam(defaultValue = "") String first,
            Model model) {
        Family chosen = Family.valueOf(family);
        Show show = shows.edit(
                showId,
                "fill with " + chosen.title(),
                s -> s.withPhrasebook(filled(RigController.device(s, deviceId), chosen, names, first)));
        return sheet(show, deviceId, model);
    }

    /** The one way a family fills a phrasebook, so that what is shown before is what is kept after. */
    private static Device filled(Device device, Family family, String names, String first) {
        return family.fill(device, names.isBlank() ? family.examples() : names(names), first);
    }

    /** What it would be filled with, before it is. */
    @PostMapping("/families/rows")
    String rows(
            @PathVariable int showId,
            @PathVariable int deviceId,
            @RequestParam String family,
            @RequestParam(defaultValue = "") String names,
            @RequestParam(defaultValue = "") String first,
            Model model) {
        Device device = RigController.device(shows.get(showId), deviceId);
        model.addAttribute("wrong", "");
        model.addAttribute("rows", List.of());
        try {
            Device filled = filled(device, Family.valueOf(family), names, first);
            int before = device.phrases().size();
            model.addAttribute(
                    "rows",
                    filled.phrases().subList(before, filled.phrases().size()).stream()
                            .map(p -> PhraseWords.of(filled, p))
                            .toList());
        } catch (Refusal refusal) {
            model.addAttribute("wrong", refusal.getMessage());
        }
        return "rig/phrases :: family-rows";
    }

    private static List<String> names(String pasted) {
        return PastedList.read(pasted, 1).stream()
                .filter(l -> !l.heading())
                .map(PastedList.Line::name)
                .toList();
    }

    static Phrase phrase(Device device, int phraseId) {
        return device.phrase(phraseId)
                .orElseThrow(
                        () -> new Refusal("phrase", "That phrase is no longer in the phrasebook; reload the page."));
    }
}
