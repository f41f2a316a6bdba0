package underbaton.web.desk;

import java.util.Map;
import org.springframework.stereotype.Component;
import underbaton.core.perform.Performer;
import underbaton.web.live.Orders;
import underbaton.web.stage.NotOnDesk;
import underbaton.web.stage.Stage;

/** The orders of the baton bar, whichever way they come: over the browser's line, or as a request of their own. */
@Component
class DeskOrders implements Orders {

    private final Map<String, Order> orders;

    DeskOrders(Stage stage) {
        orders = Map.of(
                "go", show -> stage.order(show, "GO", Performer::go),
                "back", show -> stage.order(show, "standby back", Performer::back),
                "next", show -> stage.order(show, "standby on", Performer::next),
                "stop", show -> stage.order(show, "stop all", Performer::stopAll));
    }

    @Override
    public Map<String, Order> orders() {
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
