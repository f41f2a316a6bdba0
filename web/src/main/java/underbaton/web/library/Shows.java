package underbaton.web.library;

import java.time.Duration;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.ConcurrentSkipListMap;
import java.util.concurrent.CopyOnWriteArrayList;
import java.util.function.BiConsumer;
import java.util.function.Consumer;
import java.util.function.Function;
import java.util.function.UnaryOperator;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.stereotype.Component;
import org.springframework.transaction.support.TransactionTemplate;
import underbaton.core.cue.Show;
import underbaton.core.loop.Clock;
import underbaton.core.rig.Cut;
import underbaton.core.rig.Refusal;
import underbaton.web.kernel.KnownDays;
import underbaton.web.library.History.Way;

/**
 * All shows, with the database behind them. A show is read when it is first asked for and then lives in memory, whole; one
 * that cannot be read is set aside and told, and nothing else notices. An edit is saved first, as the rows that differ, in
 * one transaction; only then does anyone see it. Each edit can be undone while the application runs.
 *
 * <p>Edits of one show wait for each other, those of different shows do not. Names and the shelf itself are guarded by
 * {@code shelf}, which is taken before the lock of a show and never within one.
 */
@Component
public class Shows {

    private static final Logger LOG = LoggerFactory.getLogger(Shows.class);
    private static final long KEPT_MILLIS = Duration.ofDays(30).toMillis();
    /** Rows that go to the database in one statement: well below the largest packet it takes. */
    private static final int MOST_ROWS = 500;

    private static final int MOST_CHARACTERS = 2_000_000;

    private final Clock clock;
    private final ShowMapper mapper;
    private final TransactionTemplate transactions;
    private final Map<Integer, ShowRow> shelf = new ConcurrentSkipListMap<>();
    private final Map<Integer, Show> shows = new ConcurrentHashMap<>();
    private final Map<Integer, UnreadableShow> unreadable = new ConcurrentHashMap<>();
    private final Map<Integer, Object> locks = new ConcurrentHashMap<>();
    /** Never used again, so that no new show inherits the log of one that is gone. */
    private int lastId;

    private final Map<Integer, History> histories = new ConcurrentHashMap<>();
    private final List<BiConsumer<Show, String>> watchers = new CopyOnWriteArrayList<>();
    private final List<Runnable> otherOrder = new CopyOnWriteArrayList<>();

    Shows(ShowMapper mapper, TransactionTemplate transactions, Clock clock, KnownDays days) {
        this.clock = clock;
        this.mapper = mapper;
        this.transactions = transactions;
        this.lastId = mapper.lastId();
        if (days.agree()) {
            mapper.forgetDeletedBefore(now() - KEPT_MILLIS);
        }
        mapper.shows().forEach(row -> shelf.put(row.id(), row));
    }

    private long now() {
        return clock.epochMicros() / 1000;
    }

    /** Called with each new state of a show, after it was saved, and what was done to it in a few words. */
    public void watch(BiConsumer<Show, String> watcher) {
        watchers.add(watcher);
    }

    /** Runs this when other steps than before are taken back next though no show has changed; must return at once. */
    public void watchOrderOfSteps(Runnable watcher) {
        otherOrder.add(watcher);
    }

    // ---- reading

    private boolean stands(ShowRow row) {
        return row != null && row.deletedMillis() == null;
    }

    /** Whether it stands on the shelf, readable or not; from memory. */
    boolean isThere(int showId) {
        return stands(shelf.get(showId));
    }

    /** What stands on the shelf, in the order in which it came there. */
    public List<Spine> spines() {
        return shelf.values().stream().filter(this::stands).map(this::spine).toList();
    }

    private Spine spine(ShowRow row) {
        try {
            return new Spine(row.id(), row.name(), Optional.of(get(row.id())), "");
        } catch (UnreadableShow unread) {
            return new Spine(row.id(), row.name(), Optional.empty(), unread.getMessage());
        }
    }

    /** A show that was deleted and can still be brought back. */
    public record Deleted(int id, String name, long millis) {}

    /** The last one first. */
    public List<Deleted> deleted() {
        return shelf.values().stream()
                .filter(r -> !stands(r))
                .map(r -> new Deleted(r.id(), r.name(), r.deletedMillis()))
                .sorted(Comparator.comparing(Deleted::millis).reversed())
                .toList();
    }

    /** All shows that can be read. */
    public List<Show> all() {
        return spines().stream().flatMap(s -> s.show().stream()).toList();
    }

    /** Empty when there is none, or when it cannot be read. */
    public Optional<Show> find(int showId) {
        try {
            return Optional.of(get(showId));
        } catch (NoSuchShow | UnreadableShow none) {
            return Optional.empty();
        }
    }

    /**
     * @throws NoSuchShow when there is none
     * @throws UnreadableShow when it cannot be read
     */
    public Show get(int showId) {
        Show known = shows.get(showId);
        if (known != null) {
            return known;
        }
        synchronized (lock(showId)) {
            return shows.containsKey(showId) ? shows.get(showId) : load(showId);
        }
    }

    private Object lock(int showId) {
        if (!stands(shelf.get(showId))) {
            throw new NoSuchShow();
        }
        return locks.computeIfAbsent(showId, id -> new Object());
    }

    private Show load(int showId) {
        UnreadableShow before = unreadable.get(showId);
        if (before != null) {
            throw before;
        }
        List<PartRow> rows = mapper.parts(showId);
        try {
            Show show = ShowParts.show(shelf.get(showId), rows);
            shows.put(showId, show);
            return show;
        } catch (RuntimeException | StackOverflowError unread) {
            UnreadableShow fault = new UnreadableShow(showId, unread);
            LOG.warn("The show {} cannot be read: {}", showId, fault.getMessage());
            unreadable.put(showId, fault);
            throw fault;
        }
    }

    /** All that the database has of a show, as it is: for one that cannot be read. */
    public String raw(int showId) {
        ShowRow row = shelf.get(showId);
        if (row == null) {
            throw new NoSuchShow();
        }
        List<PartRow> parts = mapper.parts(showId);
        StringBuilder text = new StringBuilder(row.name() + ", edit " + row.revision() + "\n");
        for (PartRow p : parts) {
            String where = p.parent() == 0 ? "" : " of " + p.parent();
            text.append("%s %d%s, place %d, edit %d: %s%n"
                    .formatted(p.kind(), p.id(), where, p.place(), p.version(), p.content()));
        }
        return text.toString();
    }

    // ---- the shelf

    /** @param name refused when another show has it */
    public Show create(String name) {
        return create(name, s -> s);
    }

    /** @param content written into the empty show before it is saved */
    public Show create(String name, UnaryOperator<Show> content) {
        synchronized (shelf) {
            int id = lastId + 1;
            Show show = content.apply(Show.empty(id, name));
            requireFreeName(id, show.name());
            save(ShowParts.NONE, show);
            lastId = id;
            shows.put(id, show);
            shelf.put(id, ShowRow.of(show));
            return show;
        }
    }

    /** Takes a show from the shelf; for thirty days it can be brought back. */
    public void delete(int showId) {
        synchronized (shelf) {
            synchronized (lock(showId)) {
                long now = now();
                transactions.executeWithoutResult(t -> mapper.markDeleted(showId, now));
                ShowRow row = shelf.get(showId);
                shelf.put(showId, new ShowRow(showId, row.name(), row.revision(), row.nextId(), now));
                shows.remove(showId);
                histories.remove(showId);
            }
        }
    }

    /** Puts a deleted show on the shelf again; under another name where its own is taken now. */
    public void bringBack(int showId) {
        synchronized (shelf) {
            ShowRow row = shelf.get(showId);
            if (row == null) {
                throw new NoSuchShow();
            }
            if (!stands(row)) {
                ShowRow back = new ShowRow(showId, freeName(row.name()), row.revision(), row.nextId(), null);
                transactions.executeWithoutResult(t -> mapper.putShow(back));
                shelf.put(showId, back);
            }
        }
    }

    /**
     * Gives a show that cannot be read a content that can; what it had is gone.
     *
     * @param content of which the name is not taken
     */
    public void replaceUnreadable(int showId, Show content) {
        synchronized (shelf) {
            synchronized (lock(showId)) {
                ShowRow row = shelf.get(showId);
                Show show = new Show(
                        showId,
                        row.name(),
                        row.revision() + 1,
                        Math.max(row.nextId(), content.nextId()),
                        content.devices(),
                        content.items(),
                        content.listeners(),
                        content.hands());
                transactions.executeWithoutResult(t -> {
                    mapper.deleteParts(showId);
                    save(ShowParts.NONE, show);
                });
                unreadable.remove(showId);
                shelf.put(showId, ShowRow.of(show));
                shows.put(showId, show);
            }
        }
    }

    /** @throws Refusal when another show has that name */
    public void rename(int showId, String name) {
        synchronized (shelf) {
            edit(showId, "rename the show", s -> s.renamed(name));
        }
    }

    private void requireFreeName(int showId, String name) {
        namesake(showId, name).ifPresent(other -> {
            throw new Refusal("name", "There is a show “" + other + "” already; choose another name.");
        });
    }

    /** The name of another show, as that one writes it. */
    private Optional<String> namesake(int showId, String name) {
        return shelf.values().stream()
                .filter(r -> stands(r) && r.id() != showId && r.name().equalsIgnoreCase(name))
                .map(ShowRow::name)
                .findFirst();
    }

    /** A name like this one that no show has. */
    public String freeName(String wanted) {
        String name = wanted;
        for (int count = 2; ; count++) {
            String candidate = name;
            if (shelf.values().stream().noneMatch(r -> stands(r) && r.name().equalsIgnoreCase(candidate))) {
                return name;
            }
            name = Cut.before(100, wanted, " " + count);
        }
    }

    // ---- edits

    /**
     * Changes a show and saves it.
     *
     * @param what the edit in a few words, for undo
     * @param change a pure function; a {@link Refusal} leaves everything as it was
     * @return the changed show
     */
    public Show edit(int showId, String what, UnaryOperator<Show> change) {
        get(showId);
        synchronized (lock(showId)) {
            Show before = get(showId);
            Show after = change.apply(before);
            // What changes nothing is no step that could be undone: Enter in a field says it twice.
            if (after.saysTheSameAs(before)) {
                return before;
            }
            put(before, after, what);
            history(showId).did(Who.asks(), what, before, after);
            return after;
        }
    }

    /** Takes back what the asking browser did last. @return what was undone, empty when there was nothing to undo */
    public Optional<String> undo(int showId) {
        return step(showId, Way.UNDO);
    }

    /** @return what was done again, empty when there was nothing */
    public Optional<String> redo(int showId) {
        return step(showId, Way.REDO);
    }

    /** What is drawn of a show for those who look at it; nothing of one that is deleted meanwhile. */
    public String drawn(int showId, Function<Show, String> draw) {
        try {
            return draw.apply(get(showId));
        } catch (NoSuchShow gone) {
            return "";
        }
    }

    /** Undoes, and says in words what. */
    public String undone(int showId) {
        return undo(showId).map(w -> "Undone: " + w + ".").orElse("Nothing to undo.");
    }

    /** Does again, and says in words what. */
    public String redone(int showId) {
        return redo(showId).map(w -> "Done again: " + w + ".").orElse("Nothing to do again.");
    }

    /** What undo would take back for the asking browser; empty for nothing. */
    public Optional<String> undoable(int showId) {
        return own(words(showId, Way.UNDO));
    }

    /** What redo would do again; empty for nothing. */
    public Optional<String> redoable(int showId) {
        return own(words(showId, Way.REDO));
    }

    private static Optional<String> own(Map<String, String> words) {
        return Optional.ofNullable(words.get(Who.asks())).or(() -> Optional.ofNullable(words.get(Who.NOBODY)));
    }

    /** By browser, what it would take back and do again; those who did nothing themselves stand under {@link Who#NOBODY}. */
    public Map<String, Map<String, String>> steps(int showId) {
        return Map.of("undo", words(showId, Way.UNDO), "redo", words(showId, Way.REDO));
    }

    /** What was taken back or done again last. */
    public History.Told told(int showId) {
        synchronized (lock(showId)) {
            return history(showId).told();
        }
    }

    private Map<String, String> words(int showId, Way way) {
        synchronized (lock(showId)) {
            return history(showId).words(way);
        }
    }

    private Optional<String> step(int showId, Way way) {
        synchronized (lock(showId)) {
            History history = history(showId);
            String who = Who.asks();
            Optional<History.Step> found = history.next(way, who);
            if (found.isEmpty()) {
                return Optional.empty();
            }
            History.Step step = found.get();
            Show before = get(showId);
            // What others have done since stays as it is.
            Show after = before.saysTheSameAs(step.from())
                    ? before.withContentOf(step.to())
                    : merged(before, step, way, history);
            // Another show may have that name by now, which stops no undo: this one's stays as it is.
            boolean nameIsTaken = !after.name().equals(before.name())
                    && namesake(showId, after.name()).isPresent();
            Show kept = nameIsTaken ? after.renamed(before.name()) : after;
            String words = way.word() + ": " + step.what();
            history.tell(new History.Told(who, words, kept.revision()));
            put(before, kept, words);
            history.took(way, step);
            return Optional.of(
                    nameIsTaken
                            ? step.what() + ", but for the name “" + after.name() + "”, which another show has"
                            : step.what());
        }
    }

    private Show merged(Show now, History.Step step, Way way, History history) {
        try {
            return Merge.of(now, step.from(), step.to());
        } catch (Refusal changedSince) {
            history.later(way, step);
            otherOrder.forEach(Runnable::run);
            throw changedSince;
        }
    }

    private History history(int showId) {
        return histories.computeIfAbsent(showId, id -> new History());
    }

    private void put(Show before, Show after, String what) {
        if (!after.name().equals(before.name())) {
            requireFreeName(after.id(), after.name());
        }
        save(new ShowParts(before), after);
        shows.put(after.id(), after);
        shelf.put(after.id(), ShowRow.of(after));
        watchers.forEach(w -> tell(w, after, what));
    }

    /** What was saved is saved, whatever becomes of it elsewhere. */
    private static void tell(BiConsumer<Show, String> watcher, Show after, String what) {
        try {
            watcher.accept(after, what);
        } catch (RuntimeException | StackOverflowError fault) {
            LOG.error("“{}” was saved, and not taken up everywhere", what, fault);
        }
    }

    private void save(ShowParts before, Show show) {
        ShowParts after = new ShowParts(show);
        List<PartRow> changed = after.changedSince(before, show.id());
        List<PartRow> gone = after.goneSince(before, show.id());
        transactions.executeWithoutResult(t -> {
            mapper.putShow(ShowRow.of(show));
            gone.forEach(mapper::deletePart);
            inPortions(changed, mapper::putParts);
        });
    }

    private static void inPortions(List<PartRow> rows, Consumer<List<PartRow>> put) {
        List<PartRow> portion = new ArrayList<>();
        int characters = 0;
        for (PartRow row : rows) {
            boolean full =
                    portion.size() == MOST_ROWS || characters + row.content().length() > MOST_CHARACTERS;
            if (full && !portion.isEmpty()) {
                put.accept(portion);
                portion = new ArrayList<>();
                characters = 0;
            }
            portion.add(row);
            characters += row.content().length();
        }
        if (!portion.isEmpty()) {
            put.accept(portion);
        }
    }
}
