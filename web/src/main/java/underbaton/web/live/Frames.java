package underbaton.web.live;

import java.util.List;
import java.util.Map;
import tools.jackson.core.JacksonException;
import tools.jackson.databind.DeserializationFeature;
import tools.jackson.databind.json.JsonMapper;

/** What goes over the line between a browser and us: a line of JSON each. */
final class Frames {

    private static final JsonMapper MAPPER = JsonMapper.builder()
            .disable(DeserializationFeature.FAIL_ON_UNKNOWN_PROPERTIES)
            .disable(DeserializationFeature.FAIL_ON_NULL_FOR_PRIMITIVES)
            .build();

    private Frames() {}

    /**
     * What a browser says: that a page shows topics of a show, that a page is gone, or an order.
     *
     * @param page which of its pages; null in an order
     * @param topics null for a page that is gone
     * @param order the browser's own number of an order, 0 for none
     * @param what the order
     */
    record FromBrowser(String page, int show, List<String> topics, long order, String what) {}

    /** @throws JacksonException when it is none */
    static FromBrowser read(String text) {
        return MAPPER.readValue(text, FromBrowser.class);
    }

    static String drawing(Live.Part part, String drawn) {
        return MAPPER.writeValueAsString(Map.of("show", part.showId(), "topic", part.topic(), "data", drawn));
    }

    /** The line is there. @param epochMicros what the time is, by our clock */
    static String beat(long epochMicros) {
        return "{\"beat\":" + epochMicros / 1000 + "}";
    }

    /** @param words why it was not done; empty when it was */
    static String answer(long order, String words) {
        return MAPPER.writeValueAsString(Map.of("order", order, "words", words));
    }

    static String noSuchShow(int showId) {
        return MAPPER.writeValueAsString(Map.of("show", showId, "gone", true));
    }
}
