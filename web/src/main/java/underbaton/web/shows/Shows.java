package underbaton.web.shows;

import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Collection;
import java.util.Comparator;
import java.util.Deque;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.CopyOnWriteArrayList;
import java.util.function.BiConsumer;
import java.util.function.Consumer;
import java.util.function.Function;
import java.util.function.UnaryOperator;
import org.springframework.stereotype.Component;
import org.springframework.transaction.support.TransactionTemplate;
import underbaton.core.cue.Show;
import underbaton.core.rig.Refusal;

/**
 * All shows, whole and in memory, with the database behind them. Reading never touches the database. An edit is saved
 * first, as the rows that differ, in one transaction; only then does anyone see it. Each edit can be undone while the
 * application runs.
 */
@Component
public class Shows {

    private static final int MOST_UNDOS = 200;

    private final ShowMapper mapper;
    private final TransactionTemplate transactions;
    private final Map<Integer, Show> shows = new ConcurrentHashMap<>();
    /** Never used again, so that no new show inherits the log of one that is gone. */
    private int lastId;

    private final Map<Integer, History> histories = new ConcurrentHashMap<>();
    private final List<Consumer<Show>> watchers = new CopyOnWriteArrayList<>();

    /** What can be taken back, newest first. */
    private static final class History {
        private final Deque<Step> undo = new ArrayDeque<>();
        private final Deque<Step> redo = new ArrayDeque<>();
    }

    /**
     * @param what the edit in a few words
     * @param other the state on its other side
     */
    private record Step(String what, Show other) {}

    Shows(ShowMapper mapper, TransactionTemplate transactions) {
        this.mapper = mapper;
        this.transactions = transactions;
        this.lastId = mapper.lastId();
        mapper.shows().forEach(row -> shows.put(row.id(), load(row)));
    }

    private Show load(ShowRows.ShowRow row) {
        return ShowRows.show(
                row,
                mapper.devices(row.id()),
                mapper.phrases(row.id()),
                mapper.items(row.id()),
                mapper.cues(row.id()),
                mapper.calls(row.id()));
    }

    /** Called with each new state of a show, after it was saved. */
    public void watch(Consumer<Show> watcher) {
        watchers.add(watcher);
    }

    public List<Show> all() {
        return shows.values().stream().sorted(Comparator.comparing(Show::id)).toList();
    }

    public Optional<Show> find(int showId) {
        return Optional.ofNullable(shows.get(showId));
    }

    /** @throws NoSuchShow when there is none */
    public Show get(int showId) {
        return find(showId).orElseThrow(NoSuchShow::new);
    }

    /** @param name refused when another show has it */
    public Show create(String name) {
        return create(name, s -> s);
    }

    /** @param content written into the empty show before it is saved */
    public synchronized Show create(String name, UnaryOperator<Show> content) {
        int id = lastId + 1;
        Show show = content.apply(Show.empty(id, name));
        requireFreeName(show);
        save(new ShowRows(), show);
        lastId = id;
        shows.put(id, show);
        return show;
    }

    public synchronized void delete(int showId) {
        transactions.executeWithoutResult(t -> mapper.deleteShow(showId));
        shows.remove(showId);
        histories.remove(showId);
    }

    /**
     * Changes a show and saves it.
     *
     * @param what the edit in a few words, for undo
     * @param change a pure function; a {@link Refusal} leaves everything as it was
     * @return the changed show
     */
    public synchronized Show edit(int showId, String what, UnaryOperator<Show> change) {
        Show before = get(showId);
        Show after = change.apply(before);
        if (after.equals(before)) {
            return before;
        }
        requireFreeName(after);
        put(before, after);
        History history = history(showId);
        push(history.undo, new Step(what, before));
        history.redo.clear();
        return after;
    }

    /** @return what was undone, empty when there was nothing to undo */
    public synchronized Optional<String> undo(int showId) {
        return step(showId, h -> h.undo, h -> h.redo);
    }

    /** @return what was done again, empty when there was nothing */
    public synchronized Optional<String> redo(int showId) {
        return step(showId, h -> h.redo, h -> h.undo);
    }

    public synchronized Optional<String> undoable(int showId) {
        return Optional.ofNullable(history(showId).undo.peek()).map(Step::what);
    }

    private Optional<String> step(
            int showId, Function<History, Deque<Step>> from, Function<History, Deque<Step>> onto) {
        History history = history(showId);
        Step step = from.apply(history).peek();
        if (step == null) {
            return Optional.empty();
        }
        Show before = get(showId);
        put(before, before.withContentOf(step.other));
        from.apply(history).pop();
        push(onto.apply(history), new Step(step.what, before));
        return Optional.of(step.what);
    }

    private History history(int showId) {
        return histories.computeIfAbsent(showId, id -> new History());
    }

    private static void push(Deque<Step> steps, Step step) {
        steps.push(step);
        while (steps.size() > MOST_UNDOS) {
            steps.removeLast();
        }
    }

    private void put(Show before, Show after) {
        save(new ShowRows(before), after);
        shows.put(after.id(), after);
        watchers.forEach(w -> w.accept(after));
    }

    private void requireFreeName(Show show) {
        for (Show other : shows.values()) {
            if (other.id() != show.id() && other.name().equalsIgnoreCase(show.name())) {
                throw new Refusal("name", "There is a show “" + other.name() + "” already; choose another name.");
            }
        }
    }

    private void save(ShowRows before, Show show) {
        ShowRows after = new ShowRows(show);
        transactions.executeWithoutResult(t -> {
            mapper.putShow(ShowRows.row(show));
            saveDifference(before.devices, after.devices, mapper::putDevice, mapper::deleteDevice);
            saveDifference(before.phrases, after.phrases, mapper::putPhrase, mapper::deletePhrase);
            saveDifference(before.items, after.items, mapper::putItem, mapper::deleteItem);
            saveDifference(before.cues, after.cues, mapper::putCue, mapper::deleteCue);
            saveDifference(before.calls, after.calls, mapper::putCall, mapper::deleteCall);
        });
    }

    private static <K, R> void saveDifference(Map<K, R> before, Map<K, R> after, Consumer<R> put, Consumer<R> delete) {
        Collection<R> gone = new ArrayList<>();
        before.forEach((key, row) -> {
            if (!after.containsKey(key)) {
                gone.add(row);
            }
        });
        gone.forEach(delete);
        BiConsumer<K, R> putChanged = (key, row) -> {
            if (!row.equals(before.get(key))) {
                put.accept(row);
            }
        };
        after.forEach(putChanged);
    }
}
