package underbaton.web.score;

import java.util.List;
import java.util.stream.Stream;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.dao.DuplicateKeyException;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;
import underbaton.core.cue.Show;
import underbaton.core.exchange.Snippet;
import underbaton.core.exchange.Taken;
import underbaton.core.rig.Refusal;
import underbaton.core.store.StoredForm;
import underbaton.web.library.Shows;
import underbaton.web.score.SnippetMapper.SnippetRow;

/** Blocks of cues that are kept and put into other songs and shows. */
@Controller
class SnippetController {

    private static final Logger LOG = LoggerFactory.getLogger(SnippetController.class);
    private static final String LIST = "score/snippets :: snippets";

    private final Shows shows;
    private final SnippetMapper mapper;
    private final ScoreSheet sheet;

    SnippetController(Shows shows, SnippetMapper mapper, ScoreSheet sheet) {
        this.shows = shows;
        this.mapper = mapper;
        this.sheet = sheet;
    }

    /** A snippet in the list. */
    record Kept(int id, Snippet snippet) {}

    @GetMapping("/shows/{showId}/score/{itemId}/snippets")
    String list(@PathVariable int showId, @PathVariable int itemId, Model model) {
        return list(shows.get(showId), itemId, model);
    }

    private String list(Show show, int itemId, Model model) {
        List<Kept> kept = mapper.all().stream().flatMap(SnippetController::kept).toList();
        model.addAttribute("kept", kept);
        model.addAttribute("show", show);
        model.addAttribute("chosen", ScoreSheet.item(show, itemId));
        return LIST;
    }

    /** One that cannot be read is left out; the others are there. */
    private static Stream<Kept> kept(SnippetRow row) {
        try {
            return Stream.of(new Kept(row.id(), snippet(row)));
        } catch (Refusal unread) {
            LOG.warn("The snippet {} cannot be read: {}", row.name(), unread.getMessage());
            return Stream.empty();
        }
    }

    private static Snippet snippet(SnippetRow row) {
        return StoredForm.read(row.content(), Snippet.class);
    }

    /** Keeps cues under a name that no snippet has: what somebody else keeps is not exchanged unseen. */
    @PostMapping("/shows/{showId}/score/{itemId}/snippets")
    String keep(
            @PathVariable int showId,
            @PathVariable int itemId,
            @RequestParam String name,
            @RequestParam(defaultValue = "") List<Integer> cues,
            Model model) {
        if (cues.isEmpty()) {
            throw new Refusal("cue", "Choose the cues first: Space at each, or Ctrl A for all.");
        }
        Show show = shows.get(showId);
        Snippet snippet = Snippet.of(name, show, itemId, cues);
        try {
            mapper.add(new SnippetRow(0, snippet.name(), StoredForm.write(snippet)));
        } catch (DuplicateKeyException taken) {
            throw new Refusal(
                    "name",
                    "There is a snippet “" + snippet.name()
                            + "” already. Choose another name, or delete that one first.");
        }
        return list(show, itemId, model);
    }

    @PostMapping("/shows/{showId}/score/{itemId}/snippets/{id}/delete")
    String delete(@PathVariable int showId, @PathVariable int itemId, @PathVariable int id, Model model) {
        mapper.delete(id);
        return list(shows.get(showId), itemId, model);
    }

    /** Puts one into the song, its first cue at a tick; answers the sheet. */
    @PostMapping("/shows/{showId}/score/{itemId}/drop")
    String drop(
            @PathVariable int showId,
            @PathVariable int itemId,
            @RequestParam int snippet,
            @RequestParam long tick,
            Seen seen,
            Model model) {
        Snippet block = mapper.find(snippet)
                .map(SnippetController::snippet)
                .orElseThrow(() -> new Refusal("snippet", "That snippet is gone; open the list again."));
        Taken[] taken = new Taken[1];
        Show changed = shows.edit(showId, "put in " + block.name(), show -> {
            taken[0] = block.drop(show, itemId, tick);
            return taken[0].show();
        });
        model.addAttribute("done", block.name() + " is in, " + taken[0].cues() + " cues.");
        model.addAttribute("left", taken[0].left());
        return sheet.of(changed, itemId, seen, model);
    }
}
