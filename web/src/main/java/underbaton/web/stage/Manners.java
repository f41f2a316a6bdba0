package underbaton.web.stage;

import java.util.Arrays;
import java.util.Optional;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.dao.DataAccessException;
import org.springframework.stereotype.Component;
import underbaton.core.engine.operator.GoOptions;
import underbaton.web.kernel.SettingsMapper;

/** How GO behaves, what becomes of edits and which show is on the desk, as the operator has chosen; kept for the next show and the next start. */
@Component
public class Manners {

    private static final Logger LOG = LoggerFactory.getLogger(Manners.class);
    private static final String NAME = "manner of GO";
    private static final String EDITS = "edits while a show runs";
    private static final String CUE_TO_CUE = "seconds before a cue";
    private static final String GOES_ON = "goes on at once after a hold";
    private static final String ON_DESK = "show on the desk";
    private static final int MOST_CUE_TO_CUE = 60;
    private static final int MOST_AGAIN_MS = 2000;

    private final SettingsMapper settings;
    private volatile GoOptions manner = GoOptions.CAREFUL;
    private volatile Edits edits = Edits.WAIT;
    private volatile int cueToCueSeconds = 5;
    private volatile boolean goesOnAtOnce;
    private boolean read;

    Manners(SettingsMapper settings) {
        this.settings = settings;
    }

    /** From memory after the first time; without the database it is the careful one. */
    public synchronized GoOptions now() {
        readOnce();
        return manner;
    }

    /** What becomes of edits while a show runs. */
    public synchronized Edits edits() {
        readOnce();
        return edits;
    }

    private void readOnce() {
        if (read) {
            return;
        }
        try {
            settings.get(NAME).ifPresent(kept -> manner = read(kept));
            settings.get(EDITS).ifPresent(kept -> edits = readEdits(kept));
            settings.get(CUE_TO_CUE)
                    .filter(k -> k.matches("\\d{1,2}"))
                    .ifPresent(k -> cueToCueSeconds = Integer.parseInt(k));
            settings.get(GOES_ON).ifPresent(k -> goesOnAtOnce = Boolean.parseBoolean(k));
            read = true;
        } catch (DataAccessException away) {
            LOG.info("How GO behaves could not be read ({}); it asks, as at first.", away.toString());
        }
    }

    /** How long before a cue the music begins when the show is run from cue to cue, ns. */
    public synchronized long cueToCueNanos() {
        readOnce();
        return cueToCueSeconds * 1_000_000_000L;
    }

    /** Whether the show goes on at once, also where machines are to be made right on the way. */
    public synchronized boolean goesOnAtOnce() {
        readOnce();
        return goesOnAtOnce;
    }

    public void setGoesOnAtOnce(boolean atOnce) {
        goesOnAtOnce = atOnce;
        settings.put(GOES_ON, Boolean.toString(atOnce));
    }

    /** The show that was put on the desk last, in this run or the one before. */
    Optional<Integer> lastOnDesk() {
        return settings.get(ON_DESK).filter(k -> k.matches("\\d{1,9}")).map(Integer::valueOf);
    }

    void remember(int showId) {
        settings.put(ON_DESK, Integer.toString(showId));
    }

    /** @param seconds before the cue, 0 to 60 */
    public void setCueToCue(int seconds) {
        cueToCueSeconds = Math.max(0, Math.min(MOST_CUE_TO_CUE, seconds));
        settings.put(CUE_TO_CUE, Integer.toString(cueToCueSeconds));
    }

    /** What becomes of edits while a show runs, from now on. */
    public void set(Edits changed) {
        edits = changed;
        settings.put(EDITS, changed.name());
    }

    private static Edits readEdits(String kept) {
        return Arrays.stream(Edits.values())
                .filter(e -> e.name().equals(kept))
                .findFirst()
                .orElse(Edits.WAIT);
    }

    void set(GoOptions changed) {
        manner = changed;
        settings.put(
                NAME,
                changed.asks() + " " + changed.sendsSkipped() + " " + changed.againNanos() / 1_000_000 + " "
                        + changed.keepsPace());
    }

    private static GoOptions read(String kept) {
        String[] parts = kept.split(" ");
        boolean known = (parts.length == 3 || parts.length == 4) && parts[2].matches("\\d{1,4}");
        return known
                ? of(
                        Boolean.parseBoolean(parts[0]),
                        Boolean.parseBoolean(parts[1]),
                        Integer.parseInt(parts[2]),
                        parts.length == 4 && Boolean.parseBoolean(parts[3]))
                : GoOptions.CAREFUL;
    }

    /** @param againMs 0 to 2,000 */
    public static GoOptions of(boolean asks, boolean sendsSkipped, int againMs, boolean keepsPace) {
        return new GoOptions(asks, sendsSkipped, Math.max(0, Math.min(MOST_AGAIN_MS, againMs)) * 1_000_000L, keepsPace);
    }
}
