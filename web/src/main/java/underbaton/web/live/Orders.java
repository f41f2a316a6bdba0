package underbaton.web.live;

import java.util.Map;

/** Orders that can be given over a browser's line, by their names. */
public interface Orders {

    /** Is carried out at once, on the thread of the line; never waits. */
    @FunctionalInterface
    interface Handler {
        void give(int showId);
    }

    Map<String, Handler> orders();

    /**
     * Takes an order that says more than its name.
     *
     * @param page who gives it: a page of a browser
     * @return whether it was one of these
     */
    default boolean take(String what, int showId, String page) {
        Handler handler = orders().get(what);
        if (handler != null) {
            handler.give(showId);
        }
        return handler != null;
    }

    /** A page is gone, or a whole browser: all whose names begin so. */
    default void gone(String page) {}

    /** Why an order failed, for people. */
    String words(RuntimeException fault);
}
