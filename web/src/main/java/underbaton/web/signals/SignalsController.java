package underbaton.web.signals;

import java.time.Instant;
import java.time.ZoneId;
import java.time.format.DateTimeFormatter;
import java.time.temporal.ChronoUnit;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Collectors;
import org.springframework.http.HttpStatus;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.ResponseStatus;
import underbaton.core.cue.Item;
import underbaton.core.cue.Show;
import underbaton.core.engine.Order;
import underbaton.core.engine.PlaybackState;
import underbaton.core.rig.Device;
import underbaton.core.rig.Numbering;
import underbaton.core.rig.Refusal;
import underbaton.core.rig.Wording;
import underbaton.core.signal.Listener;
import underbaton.core.signal.Outcome;
import underbaton.core.signal.Reaction;
import underbaton.core.signal.Source;
import underbaton.web.live.Live;
import underbaton.web.live.Painting;
import underbaton.web.page.Pages;
import underbaton.web.shows.Shows;
import underbaton.web.stage.Stage;

/** The page Signals: listeners on one side, what came in and what became of it on the other. */
@Controller
class SignalsController {

    private static final int SHOWN = 60;
    private static final DateTimeFormatter TIME =
            DateTimeFormatter.ofPattern("HH:mm:ss.SSS").withZone(ZoneId.systemDefault());

    private final Shows shows;
    private final Stage stage;
    private final Pages pages;
    private final CameIn cameIn;

    /** One listener as the page has it. @param alsoBound the names of others that mean the same */
    public record Row(Listener listener, String from, String pattern, String does, String when, String alsoBound) {}

    /** One arrival as the page has it. @param became what it did, or why not */
    public record Line(
            long number, String time, String from, String what, int times, boolean taken, String by, String became) {}

    SignalsController(Shows shows, Stage stage, Pages pages, CameIn cameIn, Live live, Painting painting) {
        this.shows = shows;
        this.stage = stage;
        this.pages = pages;
        this.cameIn = cameIn;
        live.paints("came", showId -> painting.of("signals/signals", "came", Map.of("came", came(showId))));
    }

    @GetMapping("/shows/{showId}/signals")
    String page(@PathVariable int showId, Model model) {
        Show show = pages.open(showId, "Signals", model);
        fill(show, model);
        model.addAttribute("came", came(showId));
        model.addAttribute(
                "listening",
                stage.playback(showId)
                        .map(PlaybackState::hearing)
                        .map(h -> h.on())
                        .orElse(true));
        return "signals/signals";
    }

    private static void fill(Show show, Model model) {
        Map<Boolean, List<Row>> rows = show.listeners().stream()
                .collect(Collectors.partitioningBy(
                        Listener::isRelay, Collectors.mapping(l -> row(show, l), Collectors.toList())));
        model.addAttribute("show", show);
        model.addAttribute("rows", rows.get(false));
        model.addAttribute("relays", rows.get(true));
    }

    private List<Line> came(int showId) {
        return cameIn.of(showId, SHOWN).stream().map(SignalsController::line).toList();
    }

    private static Line line(CameIn.Came came) {
        Outcome o = came.outcome();
        String by = o.taken().stream().map(Outcome.Taken::name).collect(Collectors.joining(", "));
        String did = o.taken().stream().map(Outcome.Taken::did).collect(Collectors.joining("; "));
        return new Line(
                came.number(),
                TIME.format(Instant.EPOCH.plus(came.epochMicros(), ChronoUnit.MICROS)),
                o.source().name(),
                new Wording(o.source().numbering()).tell(o.signal().message()),
                came.times(),
                o.isTaken(),
                o.isTaken() ? by : o.nearest(),
                o.isTaken() ? did : o.why().isEmpty() ? "nobody listens for that" : o.why());
    }

    // ---- listeners in words

    static Numbering numbering(Show show, Listener listener) {
        return listener.from().stream()
                .flatMap(id -> show.device(id).stream())
                .map(Device::numbering)
                .findFirst()
                .orElse(Numbering.WIRE);
    }

    private static Row row(Show show, Listener l) {
        String from = l.from().isEmpty()
                ? "any machine"
                : l.from().stream()
                        .map(id -> id == Source.OTHERS
                                ? "others"
                                : show.device(id).map(Device::name).orElse("a machine that is gone"))
                        .collect(Collectors.joining(", "));
        String channel = l.channel().isEmpty()
                ? ""
                : ", channel " + Numbering.channel(l.channel().getAsInt());
        String item = l.itemId() == 0
                ? ""
                : "while " + show.item(l.itemId()).map(Item::name).orElse("an item that is gone") + " plays";
        String pause = l.pauseMs() == 0 ? "" : "pause " + l.pauseMs() + " ms";
        String when = List.of(item, pause, l.atOnce() ? "at once" : "", l.listens() ? "" : "disarmed").stream()
                .filter(w -> !w.isEmpty())
                .collect(Collectors.joining(", "));
        String also = l.isRelay() ? "" : others(show, l);
        return new Row(l, from + channel, l.pattern().words(numbering(show, l)), does(show, l), when, also);
    }

    /** The names of other listeners that mean the same; a relay beside them does no harm. */
    private static String others(Show show, Listener l) {
        return show.listeners().stream()
                .filter(o -> o.id() != l.id() && !o.isRelay() && meansTheSame(o, l))
                .map(Listener::name)
                .collect(Collectors.joining(", "));
    }

    /** Bound twice: the same pattern where sources and channels may both be meant. */
    private static boolean meansTheSame(Listener one, Listener other) {
        boolean sources = one.from().isEmpty()
                || other.from().isEmpty()
                || one.from().stream().anyMatch(other.from()::contains);
        boolean channels = one.channel().isEmpty()
                || other.channel().isEmpty()
                || one.channel().equals(other.channel());
        return sources && channels && one.pattern().equals(other.pattern());
    }

    private static String does(Show show, Listener listener) {
        Reaction reaction = listener.reaction();
        if (reaction instanceof Reaction.Give give) {
            return give.deed().words();
        }
        if (reaction instanceof Reaction.ToCue to) {
            String cue = to.cueId() == 0
                    ? "the cue whose number comes with it" + offset(to.offset())
                            + (to.table().isEmpty()
                                    ? ""
                                    : ", by a table of " + to.table().size())
                    : show.cue(to.cueId()).map(c -> "cue " + c.number()).orElse("a cue that is gone");
            return (to.fires() ? "GO " : "standby ") + cue;
        }
        if (reaction instanceof Reaction.Play play) {
            return play.itemId() == 0
                    ? "plays the item whose number comes with it" + offset(play.offset())
                    : "plays " + show.item(play.itemId()).map(Item::name).orElse("an item that is gone")
                            + (play.section().isEmpty() ? "" : " from " + play.section());
        }
        if (listener.isRelay()) {
            return RelayForm.words(show, listener);
        }
        if (reaction instanceof Reaction.Fire fire) {
            return show.device(fire.deviceId())
                    .flatMap(d -> d.phrase(fire.phraseId()).map(p -> d.name() + ": " + p.name()))
                    .orElse("a phrase that is gone");
        }
        Reaction.Arm arm = (Reaction.Arm) reaction;
        String others = show.listeners().stream()
                .filter(l -> arm.listenerIds().contains(l.id()))
                .map(Listener::name)
                .collect(Collectors.joining(", "));
        return (arm.listens() ? "arms " : "disarms ") + (others.isEmpty() ? "a listener that is gone" : others);
    }

    private static String offset(int offset) {
        return offset == 0 ? "" : offset > 0 ? " + " + offset : " − " + -offset;
    }

    // ---- writing

    /**
     * @param came the number of what came in, for a listener that takes just that; 0 for none
     * @param relay whether it is to be passed on
     */
    @GetMapping("/shows/{showId}/signals/form")
    String form(
            @PathVariable int showId,
            @RequestParam(defaultValue = "0") int listener,
            @RequestParam(defaultValue = "0") long came,
            @RequestParam(defaultValue = "false") boolean relay,
            Model model) {
        Show show = shows.get(showId);
        Optional<CameIn.Gesture> from = cameIn.gesture(came);
        ListenerForm form = from.isPresent()
                ? ListenerForm.of(from.get().source(), from.get().message(), relay)
                : ListenerForm.of(show, show.listener(listener), relay);
        model.addAttribute("show", show);
        model.addAttribute("form", form);
        model.addAttribute(
                "relay",
                show.listener(listener)
                        .map(l -> RelayForm.of(show, l))
                        .orElseGet(() -> RelayForm.fresh(
                                from.filter(CameIn.Gesture::fine).isPresent())));
        model.addAttribute("also", from.isPresent() ? others(show, form.toListener(show)) : "");
        model.addAttribute("kinds", ListenerForm.KINDS.entrySet());
        model.addAttribute("ways", ListenerForm.WAYS.entrySet());
        return "signals/form :: form";
    }

    @PostMapping("/shows/{showId}/signals")
    String keep(@PathVariable int showId, ListenerForm form, RelayForm relay, Model model) {
        String kind = form.isRelay() ? "relay " : "listener ";
        Show changed = shows.edit(
                showId,
                (form.id() == 0 ? "add the " : "change the ") + kind + form.name(),
                s -> form.isRelay() ? withRelays(s, form, relay) : s.withListener(once(s, form)));
        fill(changed, model);
        return "signals/signals :: listeners";
    }

    /** Nobody binds one signal to two things by accident. */
    private static Listener once(Show show, ListenerForm form) {
        Listener listener = form.toListener(show);
        String others = others(show, listener);
        boolean wasSo = show.listener(form.id())
                .filter(before -> others(show, before).equals(others))
                .isPresent();
        if (!others.isEmpty() && form.twice() == null && !wasSo) {
            throw new Refusal(
                    "twice",
                    "“" + others
                            + "” means this signal too. Change one of them, or tick that it is bound twice on purpose.");
        }
        return listener;
    }

    private static Show withRelays(Show show, ListenerForm form, RelayForm relay) {
        Listener listener = form.toListener(show);
        List<Listener> all = relay.relays(show, listener);
        Show with = all.size() > 1 && form.id() != 0 ? show.withoutListener(form.id()) : show;
        for (Listener each : all) {
            with = with.withListener(all.size() > 1 ? each.withId(0) : each);
        }
        return with;
    }

    @PostMapping("/shows/{showId}/signals/{listenerId}/delete")
    String delete(@PathVariable int showId, @PathVariable int listenerId, Model model) {
        String name = shows.get(showId)
                .listener(listenerId)
                .map(Listener::name)
                .orElseThrow(() -> new Refusal("listener", "That listener is gone already; reload the page."));
        fill(shows.edit(showId, "delete the listener " + name, s -> s.withoutListener(listenerId)), model);
        return "signals/signals :: listeners";
    }

    @PostMapping("/shows/{showId}/signals/undo")
    String undo(@PathVariable int showId, Model model) {
        shows.undo(showId);
        fill(shows.get(showId), model);
        return "signals/signals :: listeners";
    }

    /** The master switch. */
    @PostMapping("/shows/{showId}/desk/listen")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void listen(@PathVariable int showId) {
        boolean on = !stage.playback(showId)
                .map(s -> s.hearing().on())
                .orElseThrow(() -> new Refusal("show", "This show is not on the desk; nothing is listened to."));
        stage.order(showId, on ? "listeners on" : "listeners off", new Order.Listen(on));
    }
}
