package underbaton.web.desk;

import java.util.Map;
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
import tools.jackson.databind.json.JsonMapper;
import underbaton.core.cue.Cue;
import underbaton.core.cue.CueNumber;
import underbaton.core.cue.Item;
import underbaton.core.cue.Show;
import underbaton.core.plan.OutTonight;
import underbaton.core.plan.OutTonight.Kind;
import underbaton.core.rig.Device;
import underbaton.core.rig.Refusal;
import underbaton.web.library.Shows;
import underbaton.web.live.Live;
import underbaton.web.stage.Stage;

/** What is out tonight: cues, items and machines that do not take part, and come back at a press. */
@Controller
class TonightController {

    private final Shows shows;
    private final Stage stage;

    TonightController(Shows shows, Stage stage, Live live, JsonMapper json) {
        this.shows = shows;
        this.stage = stage;
        live.paints("armed", showId -> json.writeValueAsString(stage.out(showId)));
    }

    @GetMapping("/shows/{showId}/desk/tonight")
    String sheet(@PathVariable int showId, Model model) {
        stage.performer(showId);
        Show show = shows.get(showId);
        OutTonight out = stage.out(showId);
        model.addAttribute("show", show);
        model.addAttribute("out", out);
        model.addAttribute(
                "cuesOut", show.cues().filter(c -> out.cues().contains(c.id())).toList());
        return "desk/tonight :: sheet";
    }

    /** @param armed whether it takes part from now on; left out, it is turned round */
    @PostMapping("/shows/{showId}/desk/tonight")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void arm(
            @PathVariable int showId,
            @RequestParam Kind kind,
            @RequestParam int id,
            @RequestParam Optional<Boolean> armed) {
        Show show = shows.get(showId);
        boolean isOut = of(stage.out(showId), kind).contains(id);
        stage.arm(showId, kind, id, name(show, kind, id), armed.orElse(isOut));
    }

    /** @param number of the cue */
    @PostMapping("/shows/{showId}/desk/tonight/cue")
    String takeOut(@PathVariable int showId, @RequestParam String number, Model model) {
        CueNumber wanted = CueNumber.of(number);
        Cue cue = shows.get(showId)
                .cueNumbered(wanted)
                .orElseThrow(() -> new Refusal("number", "There is no cue " + wanted + " in this show."));
        stage.arm(showId, Kind.CUE, cue.id(), "cue " + wanted, false);
        return sheet(showId, model);
    }

    private static Set<Integer> of(OutTonight out, Kind kind) {
        return Map.of(Kind.CUE, out.cues(), Kind.ITEM, out.items(), Kind.MACHINE, out.devices())
                .get(kind);
    }

    private static String name(Show show, Kind kind, int id) {
        Optional<String> name =
                switch (kind) {
                    case CUE -> show.cue(id).map(c -> "cue " + c.number());
                    case ITEM -> show.item(id).map(Item::name);
                    case MACHINE -> show.device(id).map(Device::name);
                };
        return name.orElseThrow(() -> new Refusal("id", "That is not in the show any more; reload the page."));
    }
}
