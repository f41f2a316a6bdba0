package underbaton.web.book;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import org.springframework.http.HttpStatus;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.util.MultiValueMap;
import org.springframework.web.bind.annotation.ExceptionHandler;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.ResponseBody;
import org.springframework.web.bind.annotation.ResponseStatus;
import underbaton.core.cue.CodeStart;
import underbaton.core.cue.Cue;
import underbaton.core.cue.Item;
import underbaton.core.cue.ItemKind;
import underbaton.core.cue.PlannedLength;
import underbaton.core.cue.Show;
import underbaton.core.cue.Start;
import underbaton.core.exchange.CueSearch;
import underbaton.core.plan.Plan;
import underbaton.core.plan.PlannedCall;
import underbaton.core.rig.Device;
import underbaton.core.rig.Phrase;
import underbaton.core.rig.Refusal;
import underbaton.core.rig.Remarks.Mark;
import underbaton.core.score.Score;
import underbaton.web.kernel.Fingerprint;
import underbaton.web.kernel.Typed;
import underbaton.web.library.Plans;
import underbaton.web.library.Shows;
import underbaton.web.live.Live;
import underbaton.web.page.Pages;
import underbaton.web.rig.PhraseWords;
import underbaton.web.stage.Stage;

/** The Book: the running order, its cues, and what every machine gets at each. Every change answers what of it is new. */
@Controller
class BookController {

    private final Shows shows;
    private final Stage stage;
    private final Pages pages;
    private final BookTable table;
    private final Plans plans;

    BookController(Shows shows, Stage stage, Pages pages, BookTable table, Plans plans, Live live) {
        this.plans = plans;
        this.shows = shows;
        this.stage = stage;
        this.pages = pages;
        this.table = table;
        live.paints("book", showId -> shows.find(showId)
                .map(s -> Integer.toString(s.revision()))
                .orElse(""));
    }

    @GetMapping("/shows/{showId}/book")
    String page(@PathVariable int showId, Model model) {
        table.of(pages.open(showId, "Book", model), Shown.NOTHING, model);
        model.addAttribute("kinds", ItemKind.values());
        model.addAttribute("marks", Mark.values());
        return "book/book";
    }

    @GetMapping("/shows/{showId}/book/table")
    String table(@PathVariable int showId, Shown shown, Model model) {
        return table.of(shows.get(showId), shown, model);
    }

    @GetMapping("/shows/{showId}/book/leaves")
    String leaves(@PathVariable int showId, @RequestParam List<String> which, Model model) {
        return table.leaves(shows.get(showId), which, model);
    }

    /** Answers the id of a cue; nothing where none says it. */
    @GetMapping("/shows/{showId}/book/find")
    @ResponseBody
    String find(@PathVariable int showId, @RequestParam String words, @RequestParam(defaultValue = "0") int after) {
        return new CueSearch(shows.get(showId))
                .find(words, after)
                .map(c -> Integer.toString(c.id()))
                .orElse("");
    }

    // ---- cells

    /**
     * @param was what the page showed in the cell; null from who does not say
     * @param exact whether an unfinished name is refused: whoever only clicked elsewhere has not chosen a phrase
     */
    @PostMapping("/shows/{showId}/book/cues/{cueId}/cell")
    String write(
            @PathVariable int showId,
            @PathVariable int cueId,
            @RequestParam String column,
            @RequestParam String text,
            @RequestParam int version,
            @RequestParam(required = false) String was,
            @RequestParam(defaultValue = "false") boolean exact,
            Shown shown,
            Model model) {
        CellText typed = new CellText(column, text);
        Show changed =
                shows.edit(showId, "change cue " + cue(shows.get(showId), cueId).number(), show -> {
                    Cue cue = cue(show, cueId);
                    if (new CellText.Of(cueId, version, Optional.ofNullable(was), typed).overtaken(cue, show)) {
                        throw new Overtaken(cue, column, text, typed.standing(cue, show));
                    }
                    if (exact) {
                        typed.requireWhole(show);
                    }
                    Cue written = typed.into(cue, show);
                    return written.equals(cue)
                            ? show
                            : show.withCue(show.itemOf(cueId).orElseThrow().id(), written);
                });
        return table.of(changed, shown, model);
    }

    /** Several cells in one edit: pasted, filled down or cleared. Each cue is told by its version, once for each cell. @param pasted from elsewhere */
    @PostMapping("/shows/{showId}/book/cells")
    String writeCells(
            @PathVariable int showId,
            @RequestParam String cells,
            @RequestParam(defaultValue = "false") boolean pasted,
            Shown shown,
            Model model) {
        List<CellText.Of> typed = CellText.all(cells);
        String what = typed.size() == 1 ? "change a cell" : "change " + typed.size() + " cells";
        List<String> left = new ArrayList<>();
        Show changed = shows.edit(showId, what, show -> {
            left.clear();
            return pasted ? CellText.pasted(typed, show, left) : CellText.into(typed, show);
        });
        return left.isEmpty()
                ? table.of(changed, shown, model)
                : table.of(changed, shown, 0, typed.size() + " cells pasted.", left, model);
    }

    /**
     * @param note left as it is where it is not said
     * @param was mark and note as the page showed them, of one cue alone: {@code ORANGE Wait for the bow}
     */
    @PostMapping("/shows/{showId}/book/remarks")
    String remark(
            @PathVariable int showId,
            @RequestParam List<Integer> cues,
            @RequestParam Mark mark,
            @RequestParam(defaultValue = "") String was,
            @RequestParam MultiValueMap<String, String> fields,
            Shown shown,
            Model model) {
        Show changed = shows.edit(showId, "mark " + (cues.size() == 1 ? "a cue" : cues.size() + " cues"), show -> {
            List<Cue> marked = cues.stream()
                    .map(id -> cue(show, id))
                    .peek(cue -> Fingerprint.requireMark(
                            was,
                            (cue.mark().name() + " " + cue.note()).strip(),
                            "mark and note of cue " + cue.number()))
                    .map(cue -> cue.withRemarks(
                            mark,
                            fields.containsKey("note") ? fields.getFirst("note").replaceAll("\\s+", " ") : cue.note()))
                    .toList();
            return show.withCuesExchanged(marked);
        });
        return table.of(changed, shown, model);
    }

    @ExceptionHandler(Overtaken.class)
    @ResponseStatus(HttpStatus.CONFLICT)
    String overtaken(Overtaken overtaken, Model model) {
        model.addAttribute("cue", overtaken.cue());
        model.addAttribute("column", overtaken.column());
        model.addAttribute("mine", overtaken.mine());
        model.addAttribute("theirs", overtaken.theirs());
        return "book/book :: overtaken";
    }

    // ---- cues

    @PostMapping("/shows/{showId}/book/cues")
    String addCue(
            @PathVariable int showId,
            @RequestParam int item,
            @RequestParam(defaultValue = "0") int after,
            Shown shown,
            Model model) {
        Show changed = shows.edit(showId, "add a cue", s -> {
            int last = s.item(item)
                    .filter(i -> after == 0 && !i.cues().isEmpty())
                    .map(i -> i.cues().get(i.cues().size() - 1).id())
                    .orElse(after);
            return s.withCue(item, new Cue(0, s.numberAfter(item, last), Start.BY_HAND, "", List.of(), 0));
        });
        return table.of(changed, shown, changed.nextId() - 1, model);
    }

    @PostMapping("/shows/{showId}/book/cues/{cueId}/copy")
    String copyCue(@PathVariable int showId, @PathVariable int cueId, Shown shown, Model model) {
        Show changed = shows.edit(showId, "duplicate a cue", s -> {
            Cue cue = cue(s, cueId);
            int item = s.itemOf(cueId).orElseThrow().id();
            return s.withCue(item, cue.withId(0).withNumber(s.numberAfter(item, cueId)));
        });
        return table.of(changed, shown, changed.nextId() - 1, model);
    }

    @PostMapping("/shows/{showId}/book/cues/{cueId}/move")
    String moveCue(
            @PathVariable int showId, @PathVariable int cueId, @RequestParam int step, Shown shown, Model model) {
        return table.of(
                shows.edit(showId, "move a cue", s -> s.withCueMoved(cueId, Integer.signum(step))), shown, model);
    }

    @PostMapping("/shows/{showId}/book/cues/delete")
    String deleteCues(@PathVariable int showId, @RequestParam List<Integer> cues, Shown shown, Model model) {
        String what = cues.size() == 1
                ? "delete cue " + cue(shows.get(showId), cues.get(0)).number()
                : "delete " + cues.size() + " cues";
        return table.of(shows.edit(showId, what, s -> s.withoutCues(cues)), shown, model);
    }

    // ---- items

    @PostMapping("/shows/{showId}/book/items")
    String addItem(
            @PathVariable int showId,
            @RequestParam String kind,
            @RequestParam String name,
            @RequestParam(defaultValue = "") String length,
            Shown shown,
            Model model) {
        Item item = read(0, kind, name, length);
        return table.of(
                shows.edit(
                        showId,
                        "add " + item.name(),
                        s -> s.withItem(item, s.items().size())),
                shown,
                model);
    }

    @GetMapping("/shows/{showId}/book/items/{itemId}/form")
    String itemForm(@PathVariable int showId, @PathVariable int itemId, Model model) {
        Show show = shows.get(showId);
        model.addAttribute("show", show);
        Item item = show.item(itemId).orElseThrow(BookController::itemGone);
        model.addAttribute("item", item);
        model.addAttribute("was", Fingerprint.of(item.withCues(List.of())));
        model.addAttribute("length", PlannedLength.tell(item.plannedSeconds()));
        model.addAttribute(
                "code",
                item.codeStart().isPresent() ? CodeStart.tell(item.codeStart().getAsInt()) : "");
        Plan plan = plans.of(show);
        model.addAttribute(
                "sameCode",
                plan.inStep().isEmpty()
                        ? ""
                        : plan.sameCode(itemId).map(i -> i.item().name()).orElse(""));
        model.addAttribute(
                "codeByOrder", CodeStart.tell(Plan.codeStartByOrder(show.items().indexOf(item))));
        model.addAttribute("kinds", ItemKind.values());
        model.addAttribute("goesBy", FollowingForm.of(item));
        model.addAttribute("leaders", FollowingForm.machines(show));
        model.addAttribute("times", FollowingForm.times());
        return "book/book :: item-form";
    }

    @PostMapping("/shows/{showId}/book/items/{itemId}")
    String changeItem(
            @PathVariable int showId,
            @PathVariable int itemId,
            @RequestParam String kind,
            @RequestParam String name,
            @RequestParam(defaultValue = "") String length,
            @RequestParam(defaultValue = "") String code,
            @RequestParam(defaultValue = "") String score,
            @RequestParam(defaultValue = "0") int machine,
            @RequestParam(defaultValue = "") String time,
            @RequestParam(defaultValue = "2") String alone,
            @RequestParam(defaultValue = "10") String most,
            @RequestParam(defaultValue = "") String place,
            @RequestParam(defaultValue = "") String was,
            Shown shown,
            Model model) {
        Item item = read(itemId, kind, name, length)
                .withScore(score.isBlank() ? Optional.empty() : Optional.of(Score.of(score)))
                .withCodeStart(CodeStart.of(code));
        Show changed = shows.edit(showId, "change " + item.name(), s -> {
            Item before = s.item(itemId).orElseThrow(BookController::itemGone);
            Fingerprint.require(was, before.withCues(List.of()), before.name());
            int stands = s.items().indexOf(before);
            int wanted = place.isBlank() ? stands : Typed.number("place", place) - 1;
            if (wanted < 0 || wanted >= s.items().size()) {
                throw new Refusal(
                        "place",
                        "The running order has the places 1 to " + s.items().size() + ".");
            }
            Show with = s.withItem(item.withFollows(new FollowingForm(machine, time, alone, most).read(s)), 0);
            return wanted == stands ? with : with.withItemAt(itemId, wanted);
        });
        return table.of(changed, shown, model);
    }

    private static Item read(int id, String kind, String name, String length) {
        return new Item(id, ItemKind.valueOf(kind.toUpperCase(Locale.ROOT)), name, PlannedLength.of(length), List.of());
    }

    @PostMapping("/shows/{showId}/book/items/{itemId}/move")
    String moveItem(
            @PathVariable int showId, @PathVariable int itemId, @RequestParam int step, Shown shown, Model model) {
        Show changed = shows.edit(showId, "move an item", s -> {
            Item item = s.item(itemId).orElseThrow(BookController::itemGone);
            int place = s.items().indexOf(item) + step;
            return place < 0 || place >= s.items().size() ? s : s.withItemAt(itemId, place);
        });
        return table.of(changed, shown, model);
    }

    @PostMapping("/shows/{showId}/book/items/{itemId}/delete")
    String deleteItem(@PathVariable int showId, @PathVariable int itemId, Shown shown, Model model) {
        String name = shows.get(showId)
                .item(itemId)
                .orElseThrow(BookController::itemGone)
                .name();
        return table.of(shows.edit(showId, "delete " + name, s -> s.withoutItem(itemId)), shown, model);
    }

    // ---- undo

    @PostMapping("/shows/{showId}/book/undo")
    String undo(@PathVariable int showId, Shown shown, Model model) {
        model.addAttribute("done", shows.undone(showId));
        return table.of(shows.get(showId), shown, model);
    }

    @PostMapping("/shows/{showId}/book/redo")
    String redo(@PathVariable int showId, Shown shown, Model model) {
        model.addAttribute("done", shows.redone(showId));
        return table.of(shows.get(showId), shown, model);
    }

    // ---- the strip, and firing from a cell

    /** What a machine gets: of a phrase being picked, or of what stands in the cell, or what it is doing there. */
    @GetMapping("/shows/{showId}/book/strip")
    String strip(
            @PathVariable int showId,
            @RequestParam int cue,
            @RequestParam int device,
            @RequestParam(defaultValue = "") String phrase,
            Model model) {
        Show show = shows.get(showId);
        Device to = show.device(device).orElseThrow(() -> new Refusal("device", "That machine is gone."));
        Cue at = cue(show, cue);
        List<PhraseWords> said = phrase.isEmpty()
                ? table.asSent(show, at, to).stream()
                        .flatMap(c -> show.phrase(c).map(p -> PhraseWords.of(to, p, c.amount())).stream())
                        .toList()
                : to.phraseNamed(phrase).map(p -> PhraseWords.of(to, p)).stream()
                        .toList();
        model.addAttribute("said", said);
        model.addAttribute("lands", table.lands(show, at));
        model.addAttribute("device", to);
        model.addAttribute("cue", at);
        model.addAttribute("held", table.held(show, at, device));
        model.addAttribute("untold", table.untoldFade(show, at, device));
        return "book/book :: strip";
    }

    @PostMapping("/shows/{showId}/book/cues/{cueId}/fire")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void fire(@PathVariable int showId, @PathVariable int cueId, @RequestParam int device) {
        Show show = shows.get(showId);
        Device to = show.device(device).orElseThrow(() -> new Refusal("device", "That machine is gone."));
        Cue at = cue(show, cueId);
        // What is guarded asks first, so that nothing of the cell leaves before its second act.
        at.callsFor(device).stream()
                .flatMap(c -> show.phrase(c).map(p -> PlannedCall.of(to, p, c.amount())).stream())
                .sorted(Comparator.comparing(
                        c -> !to.phrase(c.phraseId()).filter(Phrase::guarded).isPresent()))
                .forEach(c -> stage.fire(showId, c, "fired from the book, cue " + at.number()));
    }

    private static Cue cue(Show show, int cueId) {
        return show.cue(cueId)
                .orElseThrow(() -> new Refusal("cue", "That cue is no longer in the book; reload the page."));
    }

    private static Refusal itemGone() {
        return new Refusal("item", "That item is no longer in the book; reload the page.");
    }
}
