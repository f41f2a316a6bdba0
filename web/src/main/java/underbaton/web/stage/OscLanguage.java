package underbaton.web.stage;

import jakarta.annotation.PreDestroy;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.TimeUnit;
import org.springframework.stereotype.Component;
import underbaton.core.cue.CueNumber;
import underbaton.core.engine.Order;
import underbaton.core.engine.PlaybackState;
import underbaton.core.engine.key.KeyTouch;
import underbaton.core.engine.music.Playing;
import underbaton.core.loop.Clock;
import underbaton.core.loop.Loops;
import underbaton.core.midi.OscMessage;
import underbaton.core.plan.PlannedCall;
import underbaton.core.plan.PlannedCue;
import underbaton.core.plan.PlannedItem;
import underbaton.core.plan.PlannedKey;
import underbaton.core.rig.Device;
import underbaton.core.rig.Phrase;
import underbaton.core.rig.Refusal;
import underbaton.core.score.Position;
import underbaton.core.score.Score;
import underbaton.core.signal.Deed;
import underbaton.wire.osc.Caller;

/**
 * Our own words in Open Sound Control: {@code /baton/go/cue 12.5} and the like, by docs/formats/osc.md. What cannot be done is answered
 * in a sentence. Called on the wires' threads; never waits.
 */
@Component
class OscLanguage {

    static final String PREFIX = "/baton/";

    private static final String FOLLOW = PREFIX + "follow";
    private static final int ANSWERS_A_SECOND = 20;
    private static final String GO_CUE = "go/cue";
    /** By word, what it takes at most. */
    private static final Map<String, Integer> MOST_SAID =
            Map.of(GO_CUE, 1, "standby", 1, "play", 2, "hand", 2, "patch", 1);

    private static final String ASK = "ask";

    private final Stage stage;
    private final OscPort port;
    private final Clock clock;
    private final OscFollowers followers;
    private final StrangerShare share;

    OscLanguage(Stage stage, Clock clock, OscPort port, Loops loops) {
        this.stage = stage;
        this.port = port;
        this.share = new StrangerShare(clock, ANSWERS_A_SECOND, TimeUnit.SECONDS.toNanos(1));
        this.followers = new OscFollowers(clock, loops, this::now);
        port.speak(this::hear);
        this.clock = clock;
    }

    /** @return what is answered; nothing for a message that is none of ours */
    List<OscMessage> hear(OscMessage message, Caller from) {
        if (!message.address().startsWith(PREFIX)) {
            return List.of();
        }
        List<OscMessage> answers = answered(message, from);
        // Whoever asks a hundred times in one packet, perhaps in another's name, gets no hundred answers.
        boolean isTold = answers.isEmpty()
                || share.of(from.address().getAddress().getHostAddress()).listed();
        return isTold ? answers : List.of();
    }

    private List<OscMessage> answered(OscMessage message, Caller from) {
        try {
            String word = message.address().substring(PREFIX.length());
            boolean asks = word.equals(ASK) || message.address().equals(FOLLOW);
            port.require(asks ? Rights.May.ASK : Rights.May.ORDER, from);
            OnDesk desk = stage.onDesk()
                    .orElseThrow(() -> new Refusal("show", "No show is on the desk; put one there first."));
            if (message.address().equals(FOLLOW)) {
                return follow(desk, message, from);
            }
            return done(
                    desk, message, " by OSC from " + from.address().getAddress().getHostAddress());
        } catch (Refusal refused) {
            return List.of(new OscMessage(PREFIX + "error", List.of(refused.getMessage())));
        } catch (NotOnDesk gone) {
            return List.of(new OscMessage(PREFIX + "error", List.of("The show has left the desk.")));
        }
    }

    /** Whoever follows is answered at once, and told what changes from then on. */
    private List<OscMessage> follow(OnDesk desk, OscMessage message, Caller from) {
        String wanted = message.arguments().isEmpty()
                ? "1"
                : OscMessage.plain(message.arguments().get(0));
        if (!wanted.matches("[01]")) {
            throw new Refusal("follow", "Send 1 to be told every change for a minute, or 0 for no more.");
        }
        if (wanted.equals("0")) {
            followers.leave(from);
            return List.of();
        }
        List<OscMessage> now = answers(desk, desk.performer.state());
        followers.add(from, now);
        return now;
    }

    private List<OscMessage> now() {
        return stage.onDesk().map(d -> answers(d, d.performer.state())).orElse(List.of());
    }

    @PreDestroy
    void close() {
        followers.close();
    }

    private List<OscMessage> done(OnDesk desk, OscMessage message, String by) {
        List<Object> said = message.arguments();
        PlaybackState state = desk.performer.state();
        int show = desk.showId;
        String word = message.address().substring(PREFIX.length());
        Optional<Deed> deed = Deed.of(word);
        if (deed.isPresent()) {
            if (isPressed(message)) {
                stage.order(show, deed.get().words() + by, Order.of(deed.get()));
            }
            return List.of();
        }
        requireAtMost(MOST_SAID.getOrDefault(word, 0), message);
        switch (word) {
            case GO_CUE -> {
                standBy(desk, cue(state, said), by);
                stage.order(show, Deed.GO.words() + by, Order.of(Deed.GO));
            }
            case "standby" -> standBy(desk, cue(state, said), by);
            case "play" -> stage.order(show, "play" + by, play(state, said));
            case "hand" -> stage.touch(show, hand(state, said), wanted(said), "hand" + by + ": ");
            case "patch" -> {
                PlannedCall set = patchSet(state, said);
                stage.fire(show, set, "patch: " + set.phrase() + by);
            }
            case ASK -> {
                return answers(desk, state);
            }
            default ->
                throw new Refusal("address", "There is no " + message.address() + "; docs/formats/osc.md has all.");
        }
        return List.of();
    }

    /** A button of a touch surface says 1 when it is pressed and 0 when it is let go; who says nothing has pressed. */
    private static boolean isPressed(OscMessage message) {
        requireAtMost(1, message);
        if (message.arguments().isEmpty()) {
            return true;
        }
        Object said = message.arguments().get(0);
        String value = said instanceof Boolean on ? (on ? "1" : "0") : OscMessage.plain(said);
        if (!value.matches("0|1|0\\.[0-9]+")) {
            String instead = message.address().equals(PREFIX + Deed.GO.word())
                    ? "; for a cue send " + PREFIX + GO_CUE + " and its number."
                    : ".";
            throw new Refusal(
                    "button", message.address() + " takes nothing, or 1 for pressed and 0 for let go" + instead);
        }
        return !value.equals("0");
    }

    private static void requireAtMost(int most, OscMessage message) {
        if (message.arguments().size() > most) {
            throw new Refusal(
                    "arguments",
                    message.address() + " takes " + (most == 0 ? "no argument" : "at most " + most) + ", not "
                            + message.arguments().size() + ".");
        }
    }

    private void standBy(OnDesk desk, PlannedCue cue, String by) {
        stage.order(desk.showId, "standby " + cue.label() + by, new Order.StandBy(cue.cueId()));
    }

    private static PlannedKey hand(PlaybackState state, List<Object> said) {
        if (said.isEmpty()) {
            throw new Refusal("hand", "Which hand cue? Send its name.");
        }
        String name = OscMessage.plain(said.get(0)).strip();
        return state.plan()
                .keyNamed(name)
                .orElseThrow(() -> new Refusal("hand", "There is no hand cue “" + name + "” in this show."));
    }

    /** A touch where no argument follows the name; else on for 1 and off for 0. */
    private static KeyTouch wanted(List<Object> said) {
        if (said.size() == 1) {
            return KeyTouch.PRESS;
        }
        String state = OscMessage.plain(said.get(1));
        if (!state.matches("[01](\\.0*)?")) {
            throw new Refusal("hand", "Send 1 for on or 0 for off behind the name, or nothing for a touch.");
        }
        return state.startsWith("1") ? KeyTouch.ON : KeyTouch.OFF;
    }

    private static PlannedCall patchSet(PlaybackState state, List<Object> said) {
        if (said.isEmpty()) {
            throw new Refusal("patch", "Which patch set? Send its name.");
        }
        String name = OscMessage.plain(said.get(0)).strip();
        Device bay = state.plan().bay().orElseThrow(() -> new Refusal("patch", "This show has no patch set."));
        return bay.phraseNamed(name)
                .map(p -> PlannedCall.of(bay, p))
                .orElseThrow(() -> new Refusal("patch", "There is no patch set “" + name + "” in this show."));
    }

    private static PlannedCue cue(PlaybackState state, List<Object> said) {
        if (said.isEmpty()) {
            throw new Refusal("cue", "Which cue? Send its number, as text, integer or float.");
        }
        CueNumber number = CueNumber.of(OscMessage.plain(said.get(0)));
        return state.plan().cues().stream()
                .filter(c -> c.number().equals(number) && c.copy().isEmpty())
                .findFirst()
                .orElseThrow(() -> new Refusal("cue", "There is no cue " + number + " in this show."));
    }

    private static Order play(PlaybackState state, List<Object> said) {
        if (said.isEmpty()) {
            throw new Refusal("item", "Which item? Send its place in the running order, or its name.");
        }
        String which = OscMessage.plain(said.get(0));
        List<PlannedItem> items = state.plan().items();
        boolean place =
                which.matches("\\d{1,5}") && Integer.parseInt(which) >= 1 && Integer.parseInt(which) <= items.size();
        PlannedItem item = items.stream()
                .filter(i -> i.item().name().equalsIgnoreCase(which.strip()))
                .findFirst()
                .or(() -> place ? Optional.of(items.get(Integer.parseInt(which) - 1)) : Optional.empty())
                .orElseThrow(() -> new Refusal("item", "There is no item “" + which + "” in the running order."));
        if (said.size() == 1) {
            return new Order.Play(item.item().id(), 0);
        }
        String bar = OscMessage.plain(said.get(1));
        Score.Times times =
                item.times().orElseThrow(() -> new Refusal("bar", item.item().name() + " has no bars."));
        if (!bar.matches("\\d{1,5}")) {
            throw new Refusal("bar", bar + " is no bar; send a whole number.");
        }
        return new Order.Play(item.item().id(), times.nanosOfBarAsked(Integer.parseInt(bar)));
    }

    private List<OscMessage> answers(OnDesk desk, PlaybackState state) {
        long now = clock.nanos();
        List<OscMessage> all = new ArrayList<>();
        all.add(is("show", desk.show.name()));
        all.add(is(
                "standby",
                state.standbyCue().map(c -> c.number().toString()).orElse(""),
                state.standbyCue().map(PlannedCue::what).orElse("")));
        all.add(is(
                "last",
                state.last().map(l -> l.cue().label()).orElse(""),
                state.last().map(l -> l.cue().what()).orElse("")));
        all.add(is(
                "item",
                state.begunItem().map(i -> i.item().name()).orElse(""),
                state.begunItem().map(i -> 1 + state.plan().items().indexOf(i)).orElse(0)));
        Optional<Position> place = state.playing().flatMap(p -> p.item().times().map(t -> t.bars()
                .position(t.tempi().tick(Math.max(0, p.position(now))))));
        all.add(is(
                "place",
                place.map(Position::bar).orElse(0),
                place.map(Position::beat).orElse(0)));
        all.add(is("state", word(state)));
        all.add(is(
                "patch",
                state.plan().patchPhrases().stream()
                        .filter(p -> p.id() == state.patched().setId())
                        .map(Phrase::name)
                        .findFirst()
                        .orElse("")));
        all.add(is(
                "next",
                state.coming().map(c -> c.cue().label()).orElse(""),
                state.coming()
                        .map(c -> (float) (Math.max(0, c.dueNanos() - now) / 1e9))
                        .orElse(-1f)));
        return all;
    }

    private static String word(PlaybackState state) {
        if (state.progress().held()) {
            return "held";
        }
        Optional<Playing> playing = state.playing();
        if (playing.isPresent()) {
            return playing.get().paused() ? "paused" : "playing";
        }
        return state.stopped() ? "stopped" : "waiting";
    }

    private static OscMessage is(String what, Object... values) {
        return new OscMessage(PREFIX + "is/" + what, List.of(values));
    }
}
