package underbaton.web.score;

import java.util.List;
import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;
import org.springframework.stereotype.Component;
import org.springframework.ui.Model;
import underbaton.core.cue.Item;
import underbaton.core.cue.ItemEnd;
import underbaton.core.cue.Show;
import underbaton.core.rig.Refusal;
import underbaton.web.library.Plans;
import underbaton.web.page.PhraseLists;
import underbaton.web.record.WrittenDown;

/** The sheet of the Score, as every change of it answers. */
@Component
final class ScoreSheet {

    private static final String SHEET = "score/score :: sheet";
    private static final int MOST_BARS = 64;
    private static final double STRIP_BAR = 170;
    private static final int MOST_DRAWN = 40;

    private final Plans plans;
    private final WrittenDown written;
    /** The sheets that pages have before them, the newest of each item and width. */
    private final Map<Place, Drawn> drawn = new ConcurrentHashMap<>();

    private record Place(int showId, int itemId, int bars, int wide) {}

    private record Drawn(int revision, Sheet sheet) {}

    ScoreSheet(Plans plans, WrittenDown written) {
        this.written = written;
        this.plans = plans;
    }

    String of(Show show, int itemId, Seen seen, Model model) {
        Item item = item(show, itemId);
        model.addAttribute("show", show);
        model.addAttribute("phrasebooks", PhraseLists.of(show));
        model.addAttribute("chosen", item);
        model.addAttribute("bars", seen.bars());
        if (item.score().isPresent()) {
            List<WrittenDown.Place> places = written.of(show, itemId);
            model.addAttribute("written", places);
            Engraving engraving = new Engraving(show, plans.dryRun(show), itemId, places);
            Sheet sheet = seen.bars() < 0
                    ? engraving.strip(STRIP_BAR)
                    : engraving.sheet(Math.min(seen.bars(), MOST_BARS), seen.wide());
            Place place = new Place(show.id(), itemId, seen.bars(), seen.wide());
            if (drawn.size() > MOST_DRAWN) {
                drawn.clear();
            }
            Drawn before = drawn.put(place, new Drawn(show.revision(), sheet));
            boolean known = before != null && seen.revision() != null && before.revision == seen.revision();
            model.addAttribute("sheet", known ? sheet.since(before.sheet) : sheet);
            model.addAttribute("told", engraving.told(item, 1 + show.items().indexOf(item)));
            model.addAttribute("byHand", engraving.byHand());
            ItemEnd end = ItemEnd.of(item);
            model.addAttribute(
                    "behind",
                    item.cues().stream().filter(c -> end.behind(c).isPresent()).toList());
        }
        return SHEET;
    }

    /** @throws Refusal when it is gone */
    static Item item(Show show, int itemId) {
        return show.item(itemId)
                .orElseThrow(() -> new Refusal("item", "That item is no longer in the book; reload the page."));
    }
}
