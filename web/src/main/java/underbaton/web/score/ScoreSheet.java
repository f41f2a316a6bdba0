package underbaton.web.score;

import org.springframework.stereotype.Component;
import org.springframework.ui.Model;
import underbaton.core.cue.Item;
import underbaton.core.cue.Show;
import underbaton.core.plan.PlannedItem;
import underbaton.core.plan.Planner;
import underbaton.core.rig.Refusal;

/** The sheet of the Score, as every change of it answers. */
@Component
final class ScoreSheet {

    private static final String SHEET = "score/score :: sheet";
    private static final int MOST_BARS = 64;
    private static final double STRIP_BAR = 170;

    /** @param bars to a line; 0 for the whole song on one page, below 0 for one long strip */
    String of(Show show, int itemId, int bars, Model model) {
        Item item = item(show, itemId);
        model.addAttribute("show", show);
        model.addAttribute("chosen", item);
        model.addAttribute("bars", bars);
        if (item.score().isPresent()) {
            PlannedItem planned = Planner.plan(show).item(itemId).orElseThrow();
            Engraving engraving = new Engraving(show, planned);
            model.addAttribute(
                    "sheet", bars < 0 ? engraving.strip(STRIP_BAR) : engraving.sheet(Math.min(bars, MOST_BARS)));
            model.addAttribute("told", engraving.told(item, 1 + show.items().indexOf(item)));
            model.addAttribute("byHand", engraving.byHand());
        }
        return SHEET;
    }

    /** @throws Refusal when it is gone */
    static Item item(Show show, int itemId) {
        return show.item(itemId)
                .orElseThrow(() -> new Refusal("item", "That item is no longer in the book; reload the page."));
    }
}
