package underbaton.web.book;

import java.util.Arrays;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import java.util.stream.Collectors;
import org.springframework.stereotype.Component;
import org.springframework.ui.Model;
import underbaton.core.cue.Call;
import underbaton.core.cue.Cue;
import underbaton.core.cue.Show;
import underbaton.core.cue.Start;
import underbaton.core.plan.Plan;
import underbaton.core.plan.PlannedCall;
import underbaton.core.plan.PlannedCue;
import underbaton.core.rig.Device;
import underbaton.core.score.Position;
import underbaton.web.library.Plans;
import underbaton.web.library.Shows;
import underbaton.web.page.PhraseLists;

/** The table of the Book, as every change of it answers: the leaves that a page has not, and of the rest that they are there. */
@Component
final class BookTable {

    /** Letters that fit into a column of the many. */
    private static final int LONG_WORD = 7;

    private static final String TABLE = "book/book :: cues";
    private static final int MOST_AT_ONCE = 60;

    private final Shows shows;
    private final Plans plans;
    /** The newest drawing of each show. */
    private final Map<Integer, BookView> drawn = new ConcurrentHashMap<>();

    BookTable(Shows shows, Plans plans) {
        this.shows = shows;
        this.plans = plans;
    }

    String of(Show show, Shown shown, Model model) {
        return of(show, shown, 0, model);
    }

    /** @param added the id of a new cue, to be chosen; 0 for none */
    String of(Show show, Shown shown, int added, Model model) {
        BookView book = view(show);
        model.addAttribute("show", show);
        model.addAttribute("widths", widths(show));
        model.addAttribute("count", book.count());
        model.addAttribute("order", book.leaves().stream().map(Leaf::id).collect(Collectors.joining(" ")));
        model.addAttribute("leaves", shown.of(book, added));
        model.addAttribute("phrasebooks", shown.knowsMachines(book) ? null : PhraseLists.of(show));
        model.addAttribute("added", added == 0 ? null : added);
        return TABLE;
    }

    /** @param left what could not be taken over, a sentence each */
    String of(Show show, Shown shown, int added, String done, List<String> left, Model model) {
        model.addAttribute("done", done);
        model.addAttribute("left", left);
        return of(show, shown, added, model);
    }

    /**
     * How wide a column must be, by the id of its machine: {@code unused} where no cue calls it, {@code wordy} and {@code
     * longest} for long words, else as all.
     */
    private static Map<Integer, String> widths(Show show) {
        Map<Integer, Set<Integer>> called = show.cues()
                .flatMap(c -> c.calls().stream())
                .collect(Collectors.groupingBy(Call::deviceId, Collectors.mapping(Call::phraseId, Collectors.toSet())));
        Map<Integer, String> widths = new HashMap<>();
        for (Device device : show.devices()) {
            Set<Integer> phrases = called.getOrDefault(device.id(), Set.of());
            int longest = device.phrases().stream()
                    .filter(p -> phrases.contains(p.id()))
                    .flatMap(p -> Arrays.stream(p.name().split("\\s")))
                    .mapToInt(String::length)
                    .max()
                    .orElse(0);
            String width = longest > LONG_WORD + 1 ? "longest" : longest > LONG_WORD ? "wordy" : "plain";
            widths.put(device.id(), phrases.isEmpty() ? "unused" : width);
        }
        return widths;
    }

    /** Some leaves, drawn: the first of those that are there. */
    String leaves(Show show, List<String> ids, Model model) {
        model.addAttribute("show", show);
        model.addAttribute(
                "leaves",
                view(show).leaves().stream()
                        .filter(l -> ids.contains(l.id()))
                        .limit(MOST_AT_ONCE)
                        .map(l -> new Shown.Sent(l, Shown.As.DRAWN, -1))
                        .toList());
        return "book/book :: leaves-alone";
    }

    /** A drawing goes on from an older one only; whoever still asks for an older show gets one of its own. */
    private BookView view(Show show) {
        BookView newest = drawn.get(show.id());
        if (newest != null && newest.show() == show) {
            return newest;
        }
        synchronized (drawn) {
            BookView before = drawn.get(show.id());
            if (before != null && before.show().revision() > show.revision()) {
                return BookView.of(show, plans.dryRun(show), null);
            }
            BookView view = BookView.of(show, plans.dryRun(show), before);
            drawn.put(show.id(), view);
            return view;
        }
    }

    /** What a machine is doing after a cue, in the words of the phrase that it holds; empty for nothing. */
    String held(Show show, Cue cue, int deviceId) {
        return Optional.ofNullable(view(show).run().shown(cue.id()).get(deviceId))
                .map(PlannedCall::phrase)
                .orElse("");
    }

    /** What a machine is called to do in a cue, in the order in which it is told. */
    List<Call> asSent(Show show, Cue cue, Device device) {
        return cue.callsFor(device.id()).stream()
                .sorted(Comparator.comparingInt(c -> show.phrase(c)
                        .map(p -> PlannedCall.of(device, p, c.amount()).rank(device))
                        .orElse(0)))
                .toList();
    }

    /**
     * What becomes of a fade of a cue of which neither we nor the book know where it begins: {@code begins at the lowest}; empty
     * when it is known.
     */
    String untoldFade(Show show, Cue cue, int deviceId) {
        Plan plan = plans.knowing(show);
        int index = plan.indexOf(cue.id());
        return index < 0
                ? ""
                : plan.untoldFade(plan.cues().get(index), deviceId).orElse("");
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
