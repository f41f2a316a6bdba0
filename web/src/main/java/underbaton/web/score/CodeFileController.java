package underbaton.web.score;

import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.util.Arrays;
import java.util.concurrent.Semaphore;
import org.springframework.http.HttpHeaders;
import org.springframework.stereotype.Controller;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.RequestParam;
import underbaton.core.cue.Show;
import underbaton.core.ltc.LtcFile;
import underbaton.core.ltc.LtcSound;
import underbaton.core.midi.TimeCode.Rate;
import underbaton.core.plan.Plan;
import underbaton.core.plan.PlannedItem;
import underbaton.core.rig.Refusal;
import underbaton.web.kernel.Download;
import underbaton.web.kernel.Typed;
import underbaton.web.library.Plans;
import underbaton.web.library.Shows;

/** The time code of an item as sound, for a playback machine that sends it on a line of its own. */
@Controller
class CodeFileController {

    private static final int LONGEST_SECONDS = 3 * 3600;
    /** The sound goes on a little behind the item. */
    private static final int LEAD_OUT_SECONDS = 5;

    /** A file of hours takes a core for a while, and the page's threads belong to the show. */
    private static final int MOST_AT_ONCE = 2;

    private final Shows shows;
    private final Plans plans;
    private final Semaphore writing = new Semaphore(MOST_AT_ONCE);

    CodeFileController(Shows shows, Plans plans) {
        this.shows = shows;
        this.plans = plans;
    }

    /**
     * @param rate frames a second, {@code 29.97}
     * @param level dB below full scale
     * @param bits eight hexadecimal digits
     */
    @GetMapping("/shows/{showId}/score/{itemId}/code.wav")
    void save(
            @PathVariable int showId,
            @PathVariable int itemId,
            @RequestParam String rate,
            @RequestParam(defaultValue = "-18") String level,
            @RequestParam(defaultValue = "") String bits,
            HttpServletResponse response)
            throws IOException {
        Show show = shows.get(showId);
        ScoreSheet.item(show, itemId);
        Plan plan = plans.of(show);
        PlannedItem item = plan.item(itemId).orElseThrow();
        int seconds = seconds(item);
        Rate frames = Arrays.stream(Rate.values())
                .filter(r -> r.words().equals(rate))
                .findFirst()
                .orElseThrow(() -> new Refusal("rate", "Time code has 24, 25, 29.97 or 30 frames a second."));
        LtcSound sound = new LtcSound(frames, plan.firstFrame(itemId, frames), bits(bits), level(level), 1);
        if (!writing.tryAcquire()) {
            throw new Refusal("file", "Two files of time code are being written already; try again when one is done.");
        }
        try {
            send(sound, seconds + LEAD_OUT_SECONDS, item.item().name() + " time code " + rate + ".wav", response);
        } finally {
            writing.release();
        }
    }

    private static void send(LtcSound sound, int seconds, String name, HttpServletResponse response)
            throws IOException {
        response.setContentType("audio/wav");
        response.setHeader(HttpHeaders.CONTENT_DISPOSITION, Download.named(name));
        LtcFile.write(sound, seconds, response.getOutputStream());
    }

    private static int seconds(PlannedItem item) {
        int seconds = item.times().isPresent() ? (int) (item.scoreNanos() / 1_000_000_000L) + 1 : item.seconds();
        if (seconds == 0) {
            throw new Refusal(
                    "length",
                    "How long “" + item.item().name()
                            + "” lasts nobody has said; give it a planned length in the Book.");
        }
        if (seconds > LONGEST_SECONDS) {
            throw new Refusal("length", "Time code as sound is written for three hours at most.");
        }
        return seconds;
    }

    private static double level(String typed) {
        int level = Typed.number("level", typed.strip().replace('−', '-'));
        if (level < LtcSound.SOFTEST || level > LtcSound.LOUDEST) {
            throw new Refusal("level", "Its level is −30 to 0 dB below full scale, not " + level + ".");
        }
        return level;
    }

    private static int bits(String typed) {
        if (!typed.strip().matches("[0-9a-fA-F]{0,8}")) {
            throw new Refusal("bits", "User bits are up to eight digits from 0 to F, such as 20260612.");
        }
        return typed.isBlank() ? 0 : Integer.parseUnsignedInt(typed.strip(), 16);
    }
}
