package underbaton.web.desk;

import java.util.Map;
import org.springframework.stereotype.Component;
import underbaton.core.engine.Order;
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
                Map.entry("faster", show -> stage.order(show, "tempo up by 1 %", new Order.PaceBy(PACE_STEP))),
                Map.entry("slower", show -> stage.order(show, "tempo down by 1 %", new Order.PaceBy(-PACE_STEP))),
                Map.entry("pause", show -> stage.order(show, "pause, or on", new Order.PauseOrGoOn())));
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
