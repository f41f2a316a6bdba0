package underbaton.web.hands;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Collectors;
import underbaton.core.cue.Call;
import underbaton.core.cue.HandKey;
import underbaton.core.cue.HandPage;
import underbaton.core.cue.Show;
import underbaton.core.engine.PlaybackState;
import underbaton.core.engine.key.KeyLight;
import underbaton.core.engine.operator.OperatorInput;
import underbaton.core.engine.operator.OperatorInput.Guarded;
import underbaton.core.rig.Device;
import underbaton.core.signal.Listener;
import underbaton.core.signal.Reaction;

/** What the page Hands draws: the places of a page, each with its key or empty. */
public final class HandsView {

    /**
     * A place of the grid.
     *
     * @param key null where there is none
     * @param digits what is typed for it
     * @param light on, off or unknown
     * @param does what it calls, in words
     * @param worked the signals that work it too, in words
     */
    public record Place(
            int row, int column, HandKey key, String digits, String light, String does, String worked, String copy) {}

    /** A page as the sheet prints it. */
    public record Printed(HandPage page, List<List<Place>> rows) {}

    private final Show show;
    private final Optional<PlaybackState> state;

    HandsView(Show show, Optional<PlaybackState> state) {
        this.show = show;
        this.state = state;
    }

    List<List<Place>> rows(HandPage page) {
        List<List<Place>> rows = new ArrayList<>();
        for (int row = 0; row < page.rows(); row++) {
            List<Place> places = new ArrayList<>();
            for (int column = 0; column < page.columns(); column++) {
                places.add(place(page, row, column));
            }
            rows.add(places);
        }
        return rows;
    }

    private Place place(HandPage page, int row, int column) {
        String digits = page.digits(row, column);
        HandKey key = page.at(row, column).orElse(null);
        return key == null
                ? new Place(row, column, null, digits, "", "", "", "")
                : new Place(row, column, key, digits, light(key), does(key), worked(key), CopiedKeys.of(show, key));
    }

    private String light(HandKey key) {
        return state.flatMap(s -> s.plan().key(key.id()).map(k -> s.light(k)))
                .orElse(KeyLight.UNKNOWN)
                .name()
                .toLowerCase(Locale.ROOT);
    }

    private String does(HandKey key) {
        String on = words(key.on());
        String off = words(key.off());
        return off.isEmpty() ? on : on + " — then " + off;
    }

    private String words(List<Call> calls) {
        return calls.stream()
                .map(c -> show.device(c.deviceId()).map(Device::name).orElse("") + ": " + KeyForm.says(show, c))
                .collect(Collectors.joining("; "));
    }

    private String worked(HandKey key) {
        return show.listeners().stream()
                .filter(l -> l.reaction() instanceof Reaction.Hand hand && hand.keyId() == key.id())
                .map(Listener::name)
                .collect(Collectors.joining(", "));
    }

    List<Printed> printed() {
        return show.hands().stream().map(p -> new Printed(p, rows(p))).toList();
    }

    /** By key, how it is lit; and by key, how long a guarded one still waits for its second touch, ms. */
    static Map<String, Object> lights(Show show, Optional<PlaybackState> state, long nanos) {
        Map<String, String> lights = new LinkedHashMap<>();
        Map<String, Long> asks = new LinkedHashMap<>();
        HandsView view = new HandsView(show, state);
        show.hands().forEach(page -> page.keys().forEach(key -> {
            String id = Integer.toString(key.id());
            lights.put(id, view.light(key));
            state.map(PlaybackState::operator)
                    .filter(h -> h.waitsAt(new Guarded.AHandCue(key.id()), nanos))
                    .ifPresent(h -> asks.put(id, left(h, nanos)));
        }));
        return Map.of("lights", lights, "asks", asks);
    }

    private static long left(OperatorInput operator, long nanos) {
        return operator.firstAct()
                .map(g -> (g.nanos() + OperatorInput.GUARD_NANOS - nanos) / 1_000_000)
                .orElse(0L);
    }
}
