package underbaton.web.record;

import jakarta.annotation.PreDestroy;
import java.util.ArrayDeque;
import java.util.Deque;
import java.util.List;
import java.util.Optional;
import java.util.OptionalLong;
import java.util.concurrent.CopyOnWriteArrayList;
import java.util.concurrent.LinkedBlockingDeque;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.locks.LockSupport;
import java.util.function.Consumer;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.dao.DataAccessException;
import org.springframework.dao.DataIntegrityViolationException;
import org.springframework.stereotype.Component;
import org.springframework.transaction.TransactionException;
import underbaton.core.cue.Start;
import underbaton.core.engine.Step;
import underbaton.core.engine.music.Playing;
import underbaton.core.engine.out.Happening;
import underbaton.core.loop.Clock;
import underbaton.core.loop.Loop;
import underbaton.core.loop.Loops;
import underbaton.core.plan.Plan;
import underbaton.core.plan.PlannedCue;
import underbaton.core.plan.PlannedItem;
import underbaton.core.rig.Cut;
import underbaton.core.timings.Moment;
import underbaton.core.timings.Moment.Kind;
import underbaton.core.timings.Timings;

/**
 * Keeps the run of the show on the desk: what comes is taken at once, from whatever thread, and a loop of its own writes it
 * into the database when that answers. Up to {@value #MOST_WAITING} moments wait for it in memory; a crash without a
 * database loses those.
 */
@Component
public class Recorder {

    private static final Logger LOG = LoggerFactory.getLogger(Recorder.class);
    private static final int MOST_WAITING = 50_000;
    private static final int LONGEST_WORDS = 300;
    /** A moment that is played again, because an order came just before it, is the same one. */
    private static final int LOOKS_BACK = 16;

    private static final long WRITE_EVERY_NANOS = TimeUnit.MILLISECONDS.toNanos(200);
    private static final long RETRY_NANOS = TimeUnit.SECONDS.toNanos(1);

    private final PerformanceMapper mapper;
    private final Clock clock;
    private final Deque<Runnable> waiting = new LinkedBlockingDeque<>(MOST_WAITING);
    private final Loop loop;
    private volatile Run run;
    private volatile boolean writesDown;
    private volatile boolean away;
    private volatile Consumer<PerformanceMapper.PlaceRow> placed = place -> {};

    /**
     * The run that goes on. It has a time of its own, which begins with the time of day and then goes on steadily: when the
     * computer's time of day is put right in the middle of it, nothing lasts longer or shorter.
     */
    private static final class Run {
        final int showId;
        final long beganMicros;
        /** What its time was, µs since 1970, at which steady nanosecond. */
        final long fromMicros;

        final long fromNanos;
        /** Of items alone: what the timings need while it runs. */
        final List<Moment> begins = new CopyOnWriteArrayList<>();

        final Deque<Moment> newest = new ArrayDeque<>();
        int count;

        Run(int showId, long beganMicros, long fromMicros, long fromNanos) {
            this.showId = showId;
            this.beganMicros = beganMicros;
            this.fromMicros = fromMicros;
            this.fromNanos = fromNanos;
        }

        long at(long nanos) {
            return fromMicros + (nanos - fromNanos) / 1000;
        }
    }

    Recorder(PerformanceMapper mapper, Clock clock, Loops loops) {
        this.mapper = mapper;
        this.clock = clock;
        loop = loops.start("performance to database", this::turn);
    }

    // ---- the run

    /** Whether a run of a show goes on. */
    public boolean isOn(int showId) {
        Run now = run;
        return now != null && now.showId == showId;
    }

    /** Since when the run of a show goes on, µs since 1970. */
    public OptionalLong since(int showId) {
        Run now = run;
        return now != null && now.showId == showId ? OptionalLong.of(now.beganMicros) : OptionalLong.empty();
    }

    /** Begins a run, if none goes on. */
    public synchronized void begin(int showId) {
        if (!isOn(showId)) {
            close(run);
            long now = clock.epochMicros();
            Run fresh = new Run(showId, now, now, clock.nanos());
            run = fresh;
            write(() -> mapper.begin(fresh.beganMicros, showId));
        }
    }

    /** Goes on with a run that a crash has cut. */
    public void resume(int showId, long beganMicros) {
        Run again = again(showId, beganMicros);
        synchronized (this) {
            end();
            run = again;
        }
    }

    private Run again(int showId, long beganMicros) {
        // Asked before the lock is taken: the performer takes it too, and waits for no database.
        try {
            List<PerformanceMapper.MomentRow> rows = mapper.moments(beganMicros);
            // A time of day that was set back meanwhile puts nothing before what has been.
            long last = rows.stream()
                    .mapToLong(PerformanceMapper.MomentRow::epochMicros)
                    .reduce(beganMicros, Math::max);
            Run again = new Run(showId, beganMicros, Math.max(last, clock.epochMicros()), clock.nanos());
            again.count = rows.isEmpty() ? 0 : rows.get(rows.size() - 1).number() + 1;
            rows.stream()
                    .map(Recorder::moment)
                    .filter(m -> m.kind() == Kind.ITEM)
                    .forEach(again.begins::add);
            return again;
        } catch (DataAccessException | TransactionException notNow) {
            Run again = new Run(showId, beganMicros, Math.max(beganMicros, clock.epochMicros()), clock.nanos());
            again.count = MOST_WAITING;
            return again;
        }
    }

    public synchronized void end() {
        writesDown = false;
        close(run);
    }

    private void close(Run over) {
        run = null;
        if (over != null) {
            long at = over.at(clock.nanos());
            write(() -> mapper.end(over.beganMicros, at));
        }
    }

    /** How long the items of the run have lasted so far, by the time of {@link #at}; empty when none goes on. */
    public Optional<Timings> timings(int showId, Plan plan) {
        Run now = run;
        return now == null || now.showId != showId
                ? Optional.empty()
                : Optional.of(Timings.of(planned(plan), now.begins, OptionalLong.empty(), now.at(clock.nanos())));
    }

    /**
     * A moment by the time of the run that goes on, by the time of day where none does, µs since 1970. Within a run only such
     * moments are compared.
     */
    public long at(long nanos) {
        Run now = run;
        return now == null ? clock.epochMicrosAt(nanos) : now.at(nanos);
    }

    public static List<Timings.Planned> planned(Plan plan) {
        return plan.items().stream()
                .map(i -> new Timings.Planned(i.item().id(), i.item().name(), i.seconds(), i.armed()))
                .toList();
    }

    // ---- what comes

    /** What a step of the engine did; on the performer's thread. */
    public void saw(int showId, Step step) {
        for (Happening happening : step.happenings()) {
            if (happening instanceof Happening.Fired fired) {
                fired(showId, step, fired.cue(), fired.atNanos());
            } else if (happening instanceof Happening.Began began) {
                item(showId, Kind.ITEM, began.item(), began.atNanos());
            } else if (happening instanceof Happening.Ended ended) {
                item(showId, Kind.ITEM_ENDED, ended.item(), ended.atNanos());
            }
        }
    }

    private void item(int showId, Kind kind, PlannedItem item, long atNanos) {
        take(
                showId,
                new Moment(
                        at(atNanos), kind, item.item().id(), 0, -1, item.item().name()));
    }

    private void fired(int showId, Step step, PlannedCue cue, long atNanos) {
        int itemId = cue.item().id();
        Optional<Playing> music = step.next()
                .playing()
                .filter(p -> p.item().item().id() == itemId && p.item().times().isPresent());
        long position = music.map(p -> Math.max(0, p.position(atNanos))).orElse(-1L);
        long at = at(atNanos);
        take(showId, new Moment(at, Kind.CUE, itemId, cue.cueId(), position, (cue.label() + " " + cue.what()).strip()));
        boolean placeable = cue.start() instanceof Start.ByHand && cue.copy().isEmpty() && position > 0;
        if (writesDown && placeable) {
            PerformanceMapper.PlaceRow place =
                    new PerformanceMapper.PlaceRow(showId, cue.cueId(), itemId, position, at);
            placed.accept(place);
            write(() -> mapper.write(place));
        }
    }

    /** An order that is given now. */
    public void ordered(int showId, String what) {
        take(showId, Moment.of(at(clock.nanos()), Kind.ORDER, what));
    }

    /** Something to be remembered of a moment, by the time of {@link #at}. */
    public void note(int showId, Moment note) {
        begin(showId);
        take(showId, note);
    }

    private synchronized void take(int showId, Moment moment) {
        Run now = run;
        if (now == null || now.showId != showId || now.newest.contains(moment)) {
            return;
        }
        now.newest.add(moment);
        if (now.newest.size() > LOOKS_BACK) {
            now.newest.poll();
        }
        if (moment.kind() == Kind.ITEM) {
            now.begins.add(moment);
        }
        PerformanceMapper.MomentRow row = row(now.beganMicros, now.count++, moment);
        write(() -> mapper.put(List.of(row)));
    }

    // ---- writing down

    /** Whether each GO's place in the song is kept as a proposal for the score. */
    public boolean writesDown() {
        return writesDown;
    }

    /** Is told of each place that is written down, on the performer's thread; must return at once. */
    void watchPlaces(Consumer<PerformanceMapper.PlaceRow> watcher) {
        placed = watcher;
    }

    public void writeDown(boolean from) {
        writesDown = from;
    }

    // ---- to the database

    private void write(Runnable work) {
        if (!waiting.offer(work)) {
            LOG.warn("The performance has moments that find no room; the database has been away too long.");
        }
    }

    private void turn() {
        LockSupport.parkNanos(this, away ? RETRY_NANOS : WRITE_EVERY_NANOS);
        writeWhatWaits();
    }

    private void writeWhatWaits() {
        for (Runnable next = waiting.peek(); next != null; next = waiting.peek()) {
            try {
                next.run();
                away = false;
            } catch (DataIntegrityViolationException refused) {
                LOG.error("The database refuses a moment of the performance, which is left out", refused);
            } catch (DataAccessException | TransactionException gone) {
                away = true;
                return;
            }
            waiting.poll();
        }
    }

    /** What has come is in the database when it returns, where that answers. */
    public void flush() {
        long patience = clock.nanos() + RETRY_NANOS;
        while (!waiting.isEmpty() && !away && clock.nanos() < patience) {
            LockSupport.parkNanos(this, WRITE_EVERY_NANOS / 20);
        }
    }

    private static PerformanceMapper.MomentRow row(long began, int number, Moment m) {
        return new PerformanceMapper.MomentRow(
                began,
                number,
                m.epochMicros(),
                m.kind().name(),
                m.itemId(),
                m.cueId(),
                m.positionNanos(),
                Cut.shown(LONGEST_WORDS, m.words()));
    }

    public static Moment moment(PerformanceMapper.MomentRow r) {
        return new Moment(r.epochMicros(), Kind.valueOf(r.kind()), r.itemId(), r.cueId(), r.positionNanos(), r.words());
    }

    @PreDestroy
    void close() {
        loop.close();
        writeWhatWaits();
    }
}
