package underbaton.web.book;

import java.util.List;
import java.util.Optional;
import org.springframework.stereotype.Component;
import org.springframework.ui.Model;
import underbaton.core.cue.Cue;
import underbaton.core.cue.ItemKind;
import underbaton.core.cue.Show;
import underbaton.core.cue.Start;
import underbaton.core.plan.Held;
import underbaton.core.plan.PlannedCall;
import underbaton.core.plan.PlannedCue;
import underbaton.core.score.Position;
import underbaton.web.shows.Plans;
import underbaton.web.shows.Shows;

/** The table of the Book, as every change of it answers. */
@Component
final class BookTable {

    private static final String TABLE = "book/book :: cues";

    private final Shows shows;
    private final Plans plans;

    BookTable(Shows shows, Plans plans) {
        this.shows = shows;
        this.plans = plans;
    }

    String of(Show show, Model model) {
        model.addAttribute("book", BookView.of(show, plans.of(show)));
        model.addAttribute("show", show);
        model.addAttribute("kinds", ItemKind.values());
        model.addAttribute("undoable", shows.undoable(show.id()).orElse(""));
        return TABLE;
    }

    /** @param left what could not be taken over, a sentence each */
    String of(Show show, String done, List<String> left, Model model) {
        model.addAttribute("done", done);
        model.addAttribute("left", left);
        return of(show, model);
    }

    /** What a machine is doing after a cue, in the words of the phrase that it holds; empty for nothing. */
    String held(Show show, Cue cue, int deviceId) {
        return Optional.ofNullable(Held.in(plans.of(show)).at(cue.id()).get(deviceId))
                .map(PlannedCall::phrase)
                .orElse("");
    }

    /** When a cue that comes by itself comes: {@code 13:1, 0:27.429}; empty for one that waits for GO. */
    Optional<String> lands(Show show, Cue cue) {
        if (cue.start() instanceof Start.ByHand) {
            return Optional.empty();
        }
        return plans.of(show).cues().stream()
                .filter(c -> c.cueId() == cue.id() && c.copy().isEmpty())
                .findFirst()
                .flatMap(c -> c.atNanos().isPresent()
                        ? Optional.of(place(show, c, c.atNanos().getAsLong()))
                        : Optional.empty());
    }

    private static String place(Show show, PlannedCue cue, long nanos) {
        String bar = show.item(cue.item().id())
                .flatMap(i -> i.score())
                .map(s -> s.read())
                .map(t -> t.bars().position(t.tempi().tick(nanos)))
                .map(Position::toString)
                .map(p -> p + ", ")
                .orElse("");
        return bar
                + "%d:%06.3f"
                        .formatted(nanos / 60_000_000_000L, nanos % 60_000_000_000L / 1e9)
                        .replace(',', '.');
    }
}
