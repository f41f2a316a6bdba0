package underbaton.web.live;

import java.util.LinkedHashSet;
import java.util.List;
import org.springframework.http.MediaType;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;
import org.springframework.web.servlet.mvc.method.annotation.SseEmitter;

/** The stream that an open page listens to. */
@RestController
class LiveController {

    private static final int MOST_TOPICS = 8;

    private final Live live;

    LiveController(Live live) {
        this.live = live;
    }

    @GetMapping(path = "/shows/{showId}/live", produces = MediaType.TEXT_EVENT_STREAM_VALUE)
    SseEmitter open(@PathVariable int showId, @RequestParam List<String> topic) {
        return live.open(showId, new LinkedHashSet<>(topic.subList(0, Math.min(MOST_TOPICS, topic.size()))));
    }
}
