package underbaton.web.desk;

import java.util.Map;
import org.springframework.stereotype.Component;
import underbaton.core.engine.Order;
import underbaton.core.engine.PlaybackState;
import underbaton.core.engine.Playing;
import underbaton.web.live.Orders;
import underbaton.web.stage.NotOnDesk;
import underbaton.web.stage.Stage;

/** The orders of the baton bar, whichever way they come: over the browser's line, or as a request of their own. */
@Component
class DeskOrders implements Orders {

    private static final long NUDGE_NANOS = 20_000_000;
    /** A hundredth. */
    private static final int PACE_STEP = 10;

    private final Map<String, Handler> orders;

    DeskOrders(Stage stage) {
        orders = Map.ofEntries(
                Map.entry("go", show -> stage.order(show, "GO", new Order.Go())),
                Map.entry("back", show -> stage.order(show, "standby back", new Order.Back())),
                Map.entry("next", show -> stage.order(show, "standby on", new Order.Next())),
                Map.entry("stop", show -> stage.order(show, "stop all", new Order.StopAll())),
                Map.entry("hold", show -> stage.order(show, "hold", new Order.Hold())),
                Map.entry("release", show -> stage.order(show, "leave the vamp", new Order.Release())),
                Map.entry("earlier", show -> stage.order(show, "20 ms earlier", new Order.Nudge(NUDGE_NANOS))),
                Map.entry("later", show -> stage.order(show, "20 ms later", new Order.Nudge(-NUDGE_NANOS))),
                Map.entry("faster", show -> pace(stage, show, PACE_STEP)),
                Map.entry("slower", show -> pace(stage, show, -PACE_STEP)),
                Map.entry(
                        "pause",
                        show -> stage.order(
                                show, paused(stage, show) ? "go on playing" : "pause", pause(stage, show))));
    }

    private static void pace(Stage stage, int show, int by) {
        stage.playback(show)
                .flatMap(PlaybackState::playing)
                .map(p -> p.anchor().permille() + by)
                .ifPresent(p -> stage.order(show, "tempo " + p / 10 + " % of what is written", new Order.Pace(p)));
    }

    private static boolean paused(Stage stage, int show) {
        return stage.playback(show)
                .flatMap(PlaybackState::playing)
                .filter(Playing::paused)
                .isPresent();
    }

    private static Order pause(Stage stage, int show) {
        return paused(stage, show) ? new Order.Resume() : new Order.Pause();
    }

    @Override
    public Map<String, Handler> orders() {
        return orders;
    }

    void give(String order, int showId) {
        orders.get(order).give(showId);
    }

    @Override
    public String words(RuntimeException fault) {
        return fault instanceof NotOnDesk
                ? "this show is not on the desk. Put it there first: Shows, then its name."
                : "a fault in Under Baton (" + fault + ").";
    }
}
