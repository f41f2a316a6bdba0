package underbaton.web.book;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Deque;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;
import underbaton.core.cue.Call;
import underbaton.core.cue.Cue;
import underbaton.core.cue.CueNumber;
import underbaton.core.cue.Item;
import underbaton.core.cue.ItemKind;
import underbaton.core.cue.Show;
import underbaton.core.cue.Shows;
import underbaton.core.cue.Start;
import underbaton.core.engine.DryRun;
import underbaton.core.plan.Planner;
import underbaton.core.rig.Effect;

/** What a page is not sent is what it has: pages that lag behind end with the book as it is drawn from the beginning. */
class ShownTest {

    private static final int EDITS = 150;
    private static final int PAGES = 3;

    /** A page as it keeps what it is sent. */
    private static final class Page {
        private Integer seen;
        private List<String> order = List.of();
        private final Map<String, String> lists = new HashMap<>();
        private final Map<String, Map<Integer, String>> drawn = new HashMap<>();

        void take(BookView book, int added) {
            Shown shown = new Shown(seen, List.copyOf(drawn.keySet()));
            for (Shown.Sent sent : shown.of(book, added)) {
                Leaf leaf = sent.leaf();
                lists.put(leaf.id(), leaf.list());
                Map<Integer, String> had = drawn.remove(leaf.id());
                if (sent.drawn()) {
                    Map<Integer, String> rows = new LinkedHashMap<>();
                    for (Leaf.Row row : sent.rows()) {
                        int id = row.cue().id();
                        rows.put(id, sent.knows(row) ? had.get(id) : ShownTest.drawn(row, book.show()));
                    }
                    drawn.put(leaf.id(), rows);
                }
            }
            order = book.leaves().stream().map(Leaf::id).toList();
            drawn.keySet().retainAll(order);
            seen = book.show().revision();
        }
    }

    private static String drawn(Leaf.Row row, Show show) {
        return row.cue().number() + " " + row.cue().what() + " "
                + row.cells(show).stream().map(c -> c.text() + "/" + c.held()).toList();
    }

    private static Show filled() {
        Show show = Shows.small();
        for (int i = 0; i < 6; i++) {
            show = show.withItem(new Item(0, ItemKind.SONG, "Song " + i, 0, List.of()), i);
            int at = i;
            List<Cue> cues = IntStream.range(0, 30 + 10 * i)
                    .mapToObj(c -> cue(Integer.toString(1000 * (at + 1) + c)))
                    .toList();
            show = show.withCues(show.items().get(i).id(), cues);
        }
        return show;
    }

    private static Cue cue(String number) {
        return new Cue(0, CueNumber.of(number), Start.BY_HAND, "Line " + number, List.of(), 0);
    }

    private static <T> T any(List<T> all, Random random) {
        return all.get(random.nextInt(all.size()));
    }

    private static Show edited(Show show, Deque<Show> past, Random random) {
        List<Cue> cues = show.cues().toList();
        Cue cue = any(cues, random);
        Item item = show.itemOf(cue.id()).orElseThrow();
        var lights = show.devices().get(0);
        return switch (random.nextInt(10)) {
            case 0 -> show.withoutCue(cue.id());
            case 1 -> show.withCue(item.id(), cue(Integer.toString(10_000 + show.nextId())));
            case 2 -> show.withCueMoved(cue.id(), random.nextBoolean() ? 1 : -1);
            case 3 -> show.withItem(item.withCues(List.of()).withScore(item.score()), 0);
            case 4 -> show.withItemAt(item.id(), random.nextInt(show.items().size()));
            case 5 -> past.isEmpty() ? show : show.withContentOf(past.pop());
            case 6 -> show.withCue(item.id(), cue.withWhat("Says " + random.nextInt(100)));
            case 7 ->
                random.nextInt(4) > 0 ? show : Shows.phrase(show, "Look " + show.nextId(), "note 7", Effect.HOLDS);
            default ->
                show.withCue(
                        item.id(),
                        cue.withCallsFor(
                                lights.id(),
                                random.nextInt(3) == 0
                                        ? List.of()
                                        : List.of(new Call(
                                                lights.id(),
                                                any(lights.phrases(), random).id()))));
        };
    }

    @Test
    void aPageThatTakesOnlyWhatItIsSentShowsTheWholeTruth() {
        Random random = new Random(20261126);
        Show show = filled();
        DryRun plan = DryRun.of(Planner.plan(show));
        BookView book = BookView.of(show, plan, null);
        List<Page> pages = new ArrayList<>();
        for (int i = 0; i < PAGES; i++) {
            Page page = new Page();
            page.take(book, 0);
            pages.add(page);
        }
        assertThat(pages.get(0).drawn.size()).as("the first leaves alone").isBetween(1, 4);
        int same = 0;
        Deque<Show> past = new ArrayDeque<>();
        for (int edit = 0; edit < EDITS; edit++) {
            Show before = show;
            show = edited(show, past, random);
            if (show != before) {
                past.push(before);
            }
            plan = DryRun.of(Planner.plan(show, plan.plan()), plan);
            book = BookView.of(show, plan, book);
            Page page = any(pages, random);
            if (random.nextInt(4) == 0) {
                // Scrolled: another leaf is drawn, as it is when it is asked for.
                Leaf leaf = any(book.leaves(), random);
                page.take(
                        book,
                        leaf.rows().isEmpty() ? 0 : leaf.rows().get(0).cue().id());
            } else {
                page.take(book, 0);
            }
            BookView fresh = BookView.of(show, DryRun.of(Planner.plan(show)), null);
            Map<String, Leaf> leaves = fresh.leaves().stream().collect(Collectors.toMap(Leaf::id, l -> l));
            assertThat(page.order)
                    .isEqualTo(fresh.leaves().stream().map(Leaf::id).toList());
            for (String id : page.order) {
                assertThat(page.lists.get(id))
                        .as("cues of %s", id)
                        .isEqualTo(leaves.get(id).list());
            }
            Show now = show;
            page.drawn.forEach((id, rows) -> {
                Map<Integer, String> wanted = new LinkedHashMap<>();
                leaves.get(id).rows().forEach(r -> wanted.put(r.cue().id(), drawn(r, now)));
                assertThat(rows).as("rows of %s", id).isEqualTo(wanted);
            });
            same += new Shown(page.seen, List.copyOf(page.drawn.keySet()))
                    .of(book, 0)
                    .size();
        }
        assertThat(same).as("who has all is sent nothing").isZero();
    }

    @Test
    void anEditOfOneCellSendsItsRowAndThoseInWhichItIsHeld() {
        Show show = filled();
        BookView book = BookView.of(show, DryRun.of(Planner.plan(show)), null);
        Item song = show.items().get(0);
        var lights = show.devices().get(0);
        Call amber = new Call(lights.id(), lights.phrases().get(0).id());
        Show lit = show.withCuesExchanged(List.of(
                song.cues().get(4).withCallsFor(lights.id(), List.of(amber)),
                song.cues()
                        .get(9)
                        .withCallsFor(
                                lights.id(),
                                List.of(new Call(
                                        lights.id(), lights.phrases().get(2).id())))));
        BookView after = BookView.of(lit, DryRun.of(Planner.plan(lit)), book);
        List<Shown.Sent> sent = new Shown(show.revision(), List.of(song.id() + "-0")).of(after, 0);
        assertThat(sent).hasSize(1);
        assertThat(sent.get(0).rows().stream()
                        .filter(r -> !sent.get(0).knows(r))
                        .map(r -> r.cue().id()))
                .containsExactlyElementsOf(
                        song.cues().subList(4, 10).stream().map(Cue::id).toList());
    }
}
