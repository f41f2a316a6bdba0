package underbaton.web.patch;

import java.util.function.UnaryOperator;
import org.springframework.http.HttpStatus;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.ResponseStatus;
import underbaton.core.cue.PatchBay;
import underbaton.core.cue.Show;
import underbaton.core.engine.Order;
import underbaton.core.engine.PlaybackState;
import underbaton.core.engine.patch.Patched;
import underbaton.core.midi.ChannelMessage.ProgramChange;
import underbaton.core.plan.PlannedCall;
import underbaton.core.rig.Device;
import underbaton.core.rig.PatchKind;
import underbaton.core.rig.PatchLine;
import underbaton.core.rig.PatchSet;
import underbaton.core.rig.Phrase;
import underbaton.core.rig.Refusal;
import underbaton.core.rig.Wiring;
import underbaton.core.store.StoredForm;
import underbaton.web.kernel.Fingerprint;
import underbaton.web.library.Shows;
import underbaton.web.live.Live;
import underbaton.web.page.Pages;
import underbaton.web.stage.NotOnDesk;
import underbaton.web.stage.Stage;

/**
 * The page Patch. Looking at a set loads nothing; what is edited is kept. The set in use is tried by ear: what is edited there is heard
 * at once, and a draft until it is kept.
 */
@Controller
class PatchController {

    private static final int LONGEST_COPY = 4000;

    private final Shows shows;
    private final Stage stage;
    private final Pages pages;

    PatchController(Shows shows, Stage stage, Pages pages, Live live) {
        this.shows = shows;
        this.stage = stage;
        this.pages = pages;
        live.paints("patch", showId -> {
            Patched now = patched(showId);
            return now.setId() + " " + now.wiring().hashCode() + " " + now.stopped();
        });
    }

    private Patched patched(int showId) {
        return stage.playback(showId).map(PlaybackState::patched).orElse(Patched.NOTHING);
    }

    // ---- looking

    @GetMapping("/shows/{showId}/patch")
    String page(@PathVariable int showId, @RequestParam(defaultValue = "0") int set, Model model) {
        fill(pages.open(showId, "Patch", model), set, model);
        return "patch/patch";
    }

    @GetMapping("/shows/{showId}/patch/body")
    String body(@PathVariable int showId, @RequestParam(defaultValue = "0") int set, Model model) {
        return drawn(shows.get(showId), set, model);
    }

    private String drawn(Show show, int set, Model model) {
        fill(show, set, model);
        return "patch/patch :: body";
    }

    private void fill(Show show, int set, Model model) {
        PatchView view = new PatchView(show, patched(show.id()), set);
        model.addAttribute("show", show);
        model.addAttribute("view", view);
        model.addAttribute("chosen", view.chosen().orElse(null));
        model.addAttribute("gone", set != 0 && view.chosen().isEmpty());
        model.addAttribute("drawing", view.drawing());
        model.addAttribute(
                "stopped",
                patched(show.id()).stopped().stream()
                        .flatMap(id -> show.device(id).stream())
                        .map(Device::name)
                        .toList());
    }

    /** @param line the mark of the line; empty for a new one */
    @GetMapping("/shows/{showId}/patch/{setId}/line")
    String form(
            @PathVariable int showId,
            @PathVariable int setId,
            @RequestParam(defaultValue = "") String line,
            Model model) {
        Show show = shows.get(showId);
        Wiring wiring = wiring(show, setId);
        PatchView view = new PatchView(show, Patched.NOTHING, setId);
        if (view.machines().isEmpty()) {
            throw new Refusal("from", "There is no machine in the rig that is reached by MIDI; add one there first.");
        }
        int first = view.machines().get(0).id();
        int last = wiring.lines().isEmpty()
                ? first
                : wiring.lines().get(wiring.lines().size() - 1).from();
        model.addAttribute(
                "form", line.isEmpty() ? LineForm.fresh(last, first) : LineForm.of(show, marked(wiring, line)));
        model.addAttribute("show", show);
        model.addAttribute("setId", setId);
        model.addAttribute("machines", view.machines());
        model.addAttribute("kinds", PatchKind.values());
        return "patch/line :: form";
    }

    private static Wiring wiring(Show show, int setId) {
        return PatchBay.require(show, setId).patch().orElseThrow().shown();
    }

    // ---- loading

    /** The set as it is edited, where it is; else as it is kept. */
    @PostMapping("/shows/{showId}/patch/{setId}/load")
    String load(@PathVariable int showId, @PathVariable int setId, Model model) {
        Show show = shows.get(showId);
        Phrase set = PatchBay.require(show, setId);
        if (!stage.isOpen(showId)) {
            throw new Refusal("show", "This show is not on the desk; put it there, then load the set.");
        }
        PatchSet patch = set.patch().orElseThrow();
        stage.fire(showId, PlannedCall.of(PatchBay.of(show).orElseThrow(), set), "patch: " + set.name() + ", by hand");
        patch.draft().ifPresent(d -> tryOut(showId, set, d));
        return drawn(show, setId, model);
    }

    private void tryOut(int showId, Phrase set, Wiring wiring) {
        stage.order(showId, "patch: " + set.name() + ", tried", new Order.TryPatch(set.id(), wiring));
    }

    // ---- sets

    @PostMapping("/shows/{showId}/patch")
    String create(@PathVariable int showId, @RequestParam String name, Model model) {
        Show changed = shows.edit(showId, "add the patch set " + name, s -> PatchBay.withNew(s, name, Wiring.NONE));
        return drawn(changed, newest(changed), model);
    }

    private static int newest(Show show) {
        return PatchBay.sets(show).stream().mapToInt(Phrase::id).max().orElse(0);
    }

    @PostMapping("/shows/{showId}/patch/{setId}/rename")
    String rename(
            @PathVariable int showId,
            @PathVariable int setId,
            @RequestParam String name,
            @RequestParam String number,
            @RequestParam(required = false) String guarded,
            @RequestParam(defaultValue = "") String was,
            Model model) {
        Show changed = edit(showId, setId, "rename the patch set", (s, set) -> {
            Fingerprint.requireMark(was, PatchView.markOf(set), "the name of this set");
            Device bay = PatchBay.of(s).orElseThrow();
            int program = bay.numbering().wireProgram(number);
            return set.withName(name).withSays(new ProgramChange(0, program)).withGuarded(guarded != null);
        });
        return drawn(changed, setId, model);
    }

    /** What is shown, under another name. The set itself goes back to what is kept of it. */
    @PostMapping("/shows/{showId}/patch/{setId}/keep-as")
    String keepAs(@PathVariable int showId, @PathVariable int setId, @RequestParam String name, Model model) {
        Show changed = shows.edit(showId, "keep the patch set as " + name, s -> {
            Phrase set = PatchBay.require(s, setId);
            Show back = PatchBay.with(s, set.withPatch(set.patch().orElseThrow().asKept()));
            return PatchBay.withNew(back, name, set.patch().orElseThrow().shown());
        });
        Phrase kept = PatchBay.require(changed, newest(changed));
        Patched now = patched(showId);
        if (now.setId() == setId
                && now.wiring().equals(kept.patch().orElseThrow().kept())) {
            tryOut(showId, kept, now.wiring());
        }
        return drawn(changed, kept.id(), model);
    }

    @PostMapping("/shows/{showId}/patch/{setId}/duplicate")
    String duplicate(@PathVariable int showId, @PathVariable int setId, Model model) {
        Show changed = shows.edit(showId, "duplicate the patch set", s -> {
            Phrase set = PatchBay.require(s, setId);
            String name = PatchBay.of(s).orElseThrow().copyOf(set).name();
            return PatchBay.withNew(s, name, set.patch().orElseThrow().shown());
        });
        return drawn(changed, newest(changed), model);
    }

    @PostMapping("/shows/{showId}/patch/{setId}/delete")
    String delete(@PathVariable int showId, @PathVariable int setId, Model model) {
        String name = PatchBay.require(shows.get(showId), setId).name();
        Show changed = shows.edit(
                showId,
                "delete the patch set " + name,
                s -> s.withoutPhrase(PatchBay.of(s).orElseThrow().id(), setId));
        return drawn(changed, 0, model);
    }

    @PostMapping("/shows/{showId}/patch/{setId}/keep")
    String keep(@PathVariable int showId, @PathVariable int setId, Model model) {
        Show changed = edit(
                showId,
                setId,
                "keep the patch set",
                (s, set) -> set.withPatch(set.patch().orElseThrow().keeping()));
        return drawn(changed, setId, model);
    }

    @PostMapping("/shows/{showId}/patch/{setId}/put-back")
    String putBack(@PathVariable int showId, @PathVariable int setId, Model model) {
        Show changed = edit(
                showId,
                setId,
                "put the patch set back",
                (s, set) -> set.withPatch(set.patch().orElseThrow().asKept()));
        return drawn(changed, setId, model);
    }

    // ---- lines

    @PostMapping("/shows/{showId}/patch/{setId}/line")
    String line(@PathVariable int showId, @PathVariable int setId, LineForm form, Model model) {
        Show changed = tried(
                showId,
                setId,
                form.was().isEmpty() ? "add a line" : "change a line",
                (s, w) ->
                        form.was().isEmpty() ? w.with(form.toLine(s)) : w.with(marked(w, form.was()), form.toLine(s)));
        return drawn(changed, setId, model);
    }

    /** Lines are known by what they say, never by their place: somebody may have taken away the one above. */
    private static PatchLine marked(Wiring wiring, String mark) {
        return wiring.lines().stream()
                .filter(l -> Fingerprint.of(l).equals(mark))
                .findFirst()
                .orElseThrow(() -> new Refusal(
                        "line", "That line is gone, or somebody has changed it; look at what is there now."));
    }

    @PostMapping("/shows/{showId}/patch/{setId}/line/{mark}/delete")
    String withoutLine(@PathVariable int showId, @PathVariable int setId, @PathVariable String mark, Model model) {
        Show changed = tried(showId, setId, "take a line away", (s, w) -> w.without(marked(w, mark)));
        return drawn(changed, setId, model);
    }

    /** A line from the clipboard; its machines are looked for by their names. */
    @PostMapping("/shows/{showId}/patch/{setId}/paste")
    String paste(@PathVariable int showId, @PathVariable int setId, @RequestParam String line, Model model) {
        if (line.length() > LONGEST_COPY) {
            throw new Refusal("line", "What is on the clipboard is no line of a patch set; copy one first.");
        }
        PatchView.CopiedLine copied = copied(line);
        Show changed = tried(
                showId,
                setId,
                "paste a line",
                (s, w) -> w.with(copied.line().between(id(s, copied.from()), id(s, copied.to()))));
        return drawn(changed, setId, model);
    }

    private static PatchView.CopiedLine copied(String line) {
        try {
            return StoredForm.read(line, PatchView.CopiedLine.class);
        } catch (Refusal other) {
            throw new Refusal("line", "What is on the clipboard is no line of a patch set; copy one first.");
        }
    }

    private static int id(Show show, String name) {
        return show.devices().stream()
                .filter(d -> d.name().equalsIgnoreCase(name))
                .findFirst()
                .map(Device::id)
                .orElseThrow(() -> new Refusal("line", "There is no machine “" + name + "” in this show’s rig."));
    }

    @PostMapping("/shows/{showId}/patch/{setId}/local")
    String local(
            @PathVariable int showId,
            @PathVariable int setId,
            @RequestParam int machine,
            @RequestParam(defaultValue = "false") boolean off,
            Model model) {
        Show changed = tried(
                showId, setId, off ? "local control off" : "local control on", (s, w) -> w.withLocalOff(machine, off));
        return drawn(changed, setId, model);
    }

    /** Ends all that sounds through the patch; the lines stay. */
    @PostMapping("/shows/{showId}/patch/hush")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void hush(@PathVariable int showId) {
        stage.order(showId, "patch: all notes off", new Order.Hush());
    }

    // ---- undo

    @PostMapping("/shows/{showId}/patch/undo")
    String undo(@PathVariable int showId, @RequestParam(defaultValue = "0") int set, Model model) {
        return stepped(heard(showId, set, () -> model.addAttribute("done", shows.undone(showId))), set, model);
    }

    @PostMapping("/shows/{showId}/patch/redo")
    String redo(@PathVariable int showId, @RequestParam(defaultValue = "0") int set, Model model) {
        return stepped(heard(showId, set, () -> model.addAttribute("done", shows.redone(showId))), set, model);
    }

    /** A set that the step took away gives way to another. */
    private String stepped(Show show, int set, Model model) {
        boolean there = PatchBay.of(show).flatMap(b -> b.phrase(set)).isPresent();
        return drawn(show, there ? set : 0, model);
    }

    private interface SetEdit {
        Phrase change(Show show, Phrase set);
    }

    private interface WiringEdit {
        Wiring change(Show show, Wiring wiring);
    }

    private Show edit(int showId, int setId, String what, SetEdit edit) {
        UnaryOperator<Show> change = s -> PatchBay.with(s, edit.change(s, PatchBay.require(s, setId)));
        String name = PatchBay.require(shows.get(showId), setId).name();
        return heard(showId, setId, () -> shows.edit(showId, what + " " + name, change));
    }

    /** What is in use is tried by ear, and kept when somebody says so; any other set is kept as it is written. */
    private Show tried(int showId, int setId, String what, WiringEdit edit) {
        boolean heard = patched(showId).setId() == setId;
        return edit(showId, setId, what + " in", (s, set) -> {
            PatchSet patch = set.patch().orElseThrow();
            PatchSet changed = patch.trying(edit.change(s, patch.shown()));
            return set.withPatch(heard ? changed : changed.keeping());
        });
    }

    /** What was heard as it was shown is heard as it is shown now. */
    private Show heard(int showId, int setId, Runnable edit) {
        Patched before = patched(showId);
        boolean heard = shows.find(showId)
                .flatMap(s -> PatchBay.of(s).flatMap(b -> b.phrase(setId)))
                .filter(p -> before.setId() == p.id()
                        && before.wiring().equals(p.patch().orElseThrow().shown()))
                .isPresent();
        edit.run();
        Show changed = shows.get(showId);
        if (heard) {
            PatchBay.of(changed).flatMap(b -> b.phrase(setId)).ifPresent(set -> {
                Wiring shown = set.patch().orElseThrow().shown();
                if (!shown.equals(before.wiring())) {
                    try {
                        tryOut(showId, set, shown);
                    } catch (NotOnDesk leftMeanwhile) {
                        // Then nothing is heard of it.
                    }
                }
            });
        }
        return changed;
    }
}
