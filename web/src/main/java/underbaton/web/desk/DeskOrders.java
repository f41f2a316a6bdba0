package underbaton.web.desk;

import java.util.Arrays;
import java.util.Map;
import java.util.stream.Collectors;
import org.springframework.http.HttpStatus;
import org.springframework.stereotype.Component;
import org.springframework.web.server.ResponseStatusException;
import tools.jackson.databind.json.JsonMapper;
import underbaton.core.engine.Order;
import underbaton.core.signal.Deed;
import underbaton.web.live.Orders;
import underbaton.web.stage.NotOnDesk;
import underbaton.web.stage.Stage;

/** The orders of the baton bar, whichever way they come: over the browser's line, or as a request of their own. */
@Component
class DeskOrders implements Orders {

    private final Map<String, Handler> orders;
    /** For the page: of each its word, what it is called and its keys. */
    private final String table;

    private record Line(String word, String words, String[] keys) {}

    DeskOrders(Stage stage, JsonMapper json) {
        table = json.writeValueAsString(Arrays.stream(Deed.values())
                .map(d -> new Line(d.word(), d.words(), d.keys()))
                .toList());
        orders = Arrays.stream(Deed.values())
                .collect(Collectors.toMap(Deed::word, deed -> show -> stage.order(show, deed.words(), Order.of(deed))));
    }

    @Override
    public Map<String, Handler> orders() {
        return orders;
    }

    String table() {
        return table;
    }

    void give(String order, int showId) {
        Handler known = orders.get(order);
        if (known == null) {
            throw new ResponseStatusException(HttpStatus.NOT_FOUND, "The Desk knows no order “" + order + "”.");
        }
        known.give(showId);
    }

    @Override
    public String words(RuntimeException fault) {
        return fault instanceof NotOnDesk
                ? "this show is not on the desk. Put it there first: Shows, then its name."
                : "a fault in Under Baton (" + fault + ").";
    }
}
