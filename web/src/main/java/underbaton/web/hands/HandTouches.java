package underbaton.web.hands;

import jakarta.annotation.PreDestroy;
import java.util.HashSet;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.locks.LockSupport;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.springframework.stereotype.Component;
import underbaton.core.cue.HandKey;
import underbaton.core.cue.HandPage;
import underbaton.core.cue.Hands;
import underbaton.core.engine.key.KeyTouch;
import underbaton.core.loop.Clock;
import underbaton.core.loop.Loop;
import underbaton.core.loop.Loops;
import underbaton.core.plan.PlannedKey;
import underbaton.core.rig.Refusal;
import underbaton.web.access.Visitor;
import underbaton.web.live.Orders;
import underbaton.web.stage.NotOnDesk;
import underbaton.web.stage.Stage;

/**
 * What pages do with hand cues, over the browser's line: {@code touch 12}, {@code let 12}, and {@code hold 12} as long as it is held. A
 * key that is held is let go when its page is gone, or has said nothing of it for a moment; of several hands on one key the last lets
 * go.
 */
@Component
class HandTouches implements Orders {

    private static final Pattern SAID = Pattern.compile("(touch|hold|let) (\\d{1,9})");
    private static final long LONGEST_SILENCE_NANOS = TimeUnit.MILLISECONDS.toNanos(1500);
    private static final long LOOK_NANOS = TimeUnit.MILLISECONDS.toNanos(200);

    private final Stage stage;
    private final Clock clock;
    private final Loop loop;
    /** When each hand spoke last. */
    private final Map<Grip, Long> held = new ConcurrentHashMap<>();

    private record Grip(String page, int showId, int keyId) {}

    HandTouches(Stage stage, Clock clock, Loops loops) {
        this.stage = stage;
        this.clock = clock;
        loop = loops.start("hands", this::look);
    }

    @Override
    public Map<String, Handler> orders() {
        return Map.of();
    }

    @Override
    public boolean take(String what, int showId, String page) {
        Matcher said = SAID.matcher(what);
        if (!said.matches()) {
            return false;
        }
        Grip grip = new Grip(page, showId, Integer.parseInt(said.group(2)));
        switch (said.group(1)) {
            case "touch" -> touch(grip);
            case "hold" -> held.computeIfPresent(grip, (g, before) -> clock.nanos());
            default -> letGo(grip);
        }
        return true;
    }

    private void touch(Grip grip) {
        PlannedKey key = given(grip.showId, grip.keyId);
        if (key.key().way() == HandKey.Way.HELD) {
            held.put(grip, clock.nanos());
        }
        give(grip, KeyTouch.PRESS);
    }

    /** @return whether it is up now */
    private boolean letGo(Grip grip) {
        boolean was = held.remove(grip) != null;
        boolean others = held.keySet().stream().anyMatch(g -> g.showId == grip.showId && g.keyId == grip.keyId);
        boolean up = was && !others && stage.isOpen(grip.showId);
        if (up) {
            give(grip, KeyTouch.LET_GO);
        }
        return up;
    }

    private void give(Grip grip, KeyTouch how) {
        stage.touch(grip.showId, key(grip.showId, grip.keyId), how, "hand: ");
    }

    /**
     * One that may be touched by who asks.
     *
     * @throws Refusal when its page was not given to the device, or it is not there
     */
    PlannedKey given(int showId, int keyId) {
        PlannedKey key = key(showId, keyId);
        // Deleted meanwhile it is on no page, and is played until the edit is taken over; but not by who has some pages
        // only.
        Optional<HandPage> page = stage.openShow().flatMap(s -> Hands.pageOf(s, keyId));
        if (!Visitor.asks()
                .orElse(Visitor.HERE)
                .works(showId, page.map(HandPage::id).orElse(0))) {
            throw new Refusal(
                    "key",
                    "This device was not given the page “"
                            + page.map(HandPage::name).orElse("of that key")
                            + "”; ask who runs the show for it.");
        }
        return key;
    }

    /** @throws Refusal when the show as it is played has no such key */
    private PlannedKey key(int showId, int keyId) {
        return stage.playback(showId)
                .orElseThrow(NotOnDesk::new)
                .plan()
                .key(keyId)
                .orElseThrow(() -> new Refusal(
                        "key", "The show on the desk has no such key yet; take over the edits, or reload the page."));
    }

    @Override
    public void gone(String page) {
        Set<Grip> lost = new HashSet<>(held.keySet());
        lost.removeIf(g -> !g.page.startsWith(page));
        lost.forEach(this::quietly);
    }

    private void look() {
        LockSupport.parkNanos(this, LOOK_NANOS);
        long now = clock.nanos();
        held.forEach((grip, spoke) -> {
            if (now - spoke > LONGEST_SILENCE_NANOS) {
                quietly(grip);
            }
        });
    }

    /** Nobody took his finger from it: what it held is let go, and the Desk says so. */
    private void quietly(Grip grip) {
        try {
            if (letGo(grip)) {
                String name = key(grip.showId, grip.keyId).key().name();
                stage.trouble(grip.showId, "“" + name + "” was held on a page that is gone, and was let go");
            }
        } catch (NotOnDesk | Refusal left) {
            // Then it holds nothing any more.
        }
    }

    @Override
    public String words(RuntimeException fault) {
        return fault instanceof NotOnDesk
                ? "this show is not on the desk. Put it there first: Shows, then its name."
                : "a fault in Under Baton (" + fault + ").";
    }

    @PreDestroy
    void close() {
        loop.close();
    }
}
