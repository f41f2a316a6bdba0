package underbaton.web.record;

import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import org.springframework.dao.DataAccessException;
import org.springframework.stereotype.Component;
import org.springframework.transaction.TransactionException;
import underbaton.core.cue.Cue;
import underbaton.core.cue.Placing;
import underbaton.core.cue.Show;
import underbaton.core.loop.Clock;
import underbaton.core.score.Position;
import underbaton.web.record.PerformanceMapper.PlaceRow;

/** The places at which GO came for cues that wait for it: proposals that the Score shows and somebody takes or forgets. */
@Component
public class WrittenDown {

    private static final long RETRY_NANOS = 10_000_000_000L;

    private final PerformanceMapper mapper;
    private final Clock clock;
    /** By show and cue. Asked of the database once for each show: a page is drawn often, and waits for nothing. */
    private final Map<Integer, Map<Integer, PlaceRow>> known = new ConcurrentHashMap<>();

    private final Set<Integer> loaded = ConcurrentHashMap.newKeySet();
    private volatile long nextTryNanos;

    WrittenDown(PerformanceMapper mapper, Recorder recorder, Clock clock) {
        this.mapper = mapper;
        this.clock = clock;
        this.nextTryNanos = clock.nanos();
        recorder.watchPlaces(place -> ofShow(place.showId()).put(place.cueId(), place));
    }

    private Map<Integer, PlaceRow> ofShow(int showId) {
        return known.computeIfAbsent(showId, id -> new ConcurrentHashMap<>());
    }

    private void load(int showId) {
        if (loaded.contains(showId) || clock.nanos() - nextTryNanos < 0) {
            return;
        }
        try {
            mapper.written(showId).forEach(row -> ofShow(showId).putIfAbsent(row.cueId(), row));
            loaded.add(showId);
        } catch (DataAccessException | TransactionException away) {
            nextTryNanos = clock.nanos() + RETRY_NANOS;
        }
    }

    /** @param tick of the nearest beat @param place the same in words, {@code 17:2} */
    public record Place(int cueId, String number, long tick, String place) {}

    /** Those of an item that has a score, in the order of the music; those of before a start only when the database answers. */
    public List<Place> of(Show show, int itemId) {
        load(show.id());
        Placing placing = new Placing(show, itemId);
        return ofShow(show.id()).values().stream()
                .filter(w -> w.itemId() == itemId)
                .sorted(Comparator.comparing(PlaceRow::positionNanos))
                .flatMap(w -> show.cue(w.cueId()).stream().map(cue -> place(placing, cue, w.positionNanos())))
                .toList();
    }

    private static Place place(Placing placing, Cue cue, long nanos) {
        long tick = placing.nearestBeat(nanos);
        Position at = placing.position(tick);
        return new Place(cue.id(), cue.number().toString(), tick, at.bar() + ":" + at.beat());
    }

    public void forget(int showId, int cueId) {
        mapper.forgetPlace(showId, cueId);
        ofShow(showId).remove(cueId);
    }
}
