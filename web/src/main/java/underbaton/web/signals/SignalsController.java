package underbaton.web.signals;

import java.time.Instant;
import java.time.ZoneId;
import java.time.format.DateTimeFormatter;
import java.time.temporal.ChronoUnit;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import org.springframework.http.HttpStatus;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.util.UriComponentsBuilder;
import underbaton.core.cue.PatchBay;
import underbaton.core.cue.Show;
import underbaton.core.engine.Order;
import underbaton.core.engine.PlaybackState;
import underbaton.core.midi.OscMessage;
import underbaton.core.rig.Device;
import underbaton.core.rig.Numbering;
import underbaton.core.rig.Refusal;
import underbaton.core.rig.Wording;
import underbaton.core.signal.Deed;
import underbaton.core.signal.Hearing;
import underbaton.core.signal.Listener;
import underbaton.core.signal.Outcome;
import underbaton.core.signal.Scale;
import underbaton.core.signal.Source;
import underbaton.web.kernel.Fingerprint;
import underbaton.web.library.Shows;
import underbaton.web.live.Live;
import underbaton.web.live.Painting;
import underbaton.web.page.Pages;
import underbaton.web.record.CameIn;
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

    /**
     * One listener as the page has it.
     *
     * @param armed whether it listens tonight
     * @param alsoBound the names of others that mean the same
     * @param patched through which patch sets it passes besides; empty for none
     */
    public record Row(
            Listener listener,
            boolean armed,
            String from,
            String pattern,
            String does,
            String when,
            String alsoBound,
            String patched) {}

    /**
     * One arrival as the page has it.
     *
     * @param add the address at which its sender can be taken into the rig; null for a machine of the rig
     * @param became what it did, or why not
     */
    public record Line(
            long number,
            String time,
            String from,
            String add,
            String what,
            int times,
            boolean taken,
            String by,
            String became) {}

    SignalsController(Shows shows, Stage stage, Pages pages, CameIn cameIn, Live live, Painting painting) {
        this.shows = shows;
        this.stage = stage;
        this.pages = pages;
        this.cameIn = cameIn;
        live.paints(
                "came",
                showId -> painting.of(
                        "signals/signals", "came", Map.of("came", came(showId), "show", shows.get(showId))));
        live.paints("listeners", showId -> painting.of("signals/signals", "listeners", listed(shows.get(showId))));
    }

    @GetMapping("/shows/{showId}/signals")
    String page(@PathVariable int showId, Model model) {
        Show show = pages.open(showId, "Signals", model);
        fill(show, model);
        model.addAttribute("came", came(showId));
        return "signals/signals";
    }

    private void fill(Show show, Model model) {
        listed(show).forEach(model::addAttribute);
    }

    /** What the list of listeners is drawn from. */
    private Map<String, Object> listed(Show show) {
        Hearing hearing = stage.playback(show.id()).map(PlaybackState::hearing).orElse(Hearing.FIRST);
        Map<Boolean, List<Row>> rows = show.listeners().stream()
                .collect(Collectors.partitioningBy(
                        Listener::isRelay,
                        Collectors.mapping(
                                l -> ListenerWords.row(
                                        show,
                                        l,
                                        hearing.isArmed(l),
                                        hearing.passed(l.id()).isStopped()),
                                Collectors.toList())));
        return Map.of("show", show, "rows", rows.get(false), "relays", rows.get(true), "listening", hearing.on());
    }

    private List<Line> came(int showId) {
        return cameIn.of(showId, SHOWN).stream().map(SignalsController::line).toList();
    }

    private static Line line(CameIn.Came came) {
        Outcome o = came.outcome();
        String by = o.taken().stream().map(Outcome.Taken::name).collect(Collectors.joining(", "));
        String did = o.taken().stream().map(Outcome.Taken::did).collect(Collectors.joining("; "));
        boolean stranger = o.source().deviceId() == Source.OTHERS;
        return new Line(
                came.number(),
                TIME.format(Instant.EPOCH.plus(came.epochMicros(), ChronoUnit.MICROS)),
                o.source().name(),
                stranger ? adding(came.showId(), o) : null,
                new Wording(o.source().numbering()).tell(o.signal().message()),
                came.times(),
                o.isTaken(),
                o.isTaken() ? by : o.nearest(),
                o.isTaken() ? did : o.why().isEmpty() ? "nobody listens for that" : o.why());
    }

    private static String adding(int showId, Outcome o) {
        String name = o.source().name();
        boolean osc = o.signal().message() instanceof OscMessage;
        UriComponentsBuilder at =
                UriComponentsBuilder.fromPath("/shows/{show}/rig/new").queryParam("name", "{name}");
        return osc
                ? at.queryParam("host", "{host}")
                        .build(showId, name, name.replaceFirst("^OSC from ", ""))
                        .toString()
                : at.build(showId, name).toString();
    }

    static Numbering numbering(Show show, Listener listener) {
        return listener.from().stream()
                .flatMap(id -> show.device(id).stream())
                .map(Device::numbering)
                .findFirst()
                .orElse(Numbering.WIRE);
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
                ? ListenerForm.of(show, from.get().source(), from.get().message(), relay)
                : ListenerForm.of(show, show.listener(listener), relay);
        model.addAttribute("show", show);
        model.addAttribute("form", form);
        model.addAttribute("was", show.listener(listener).map(Fingerprint::of).orElse(""));
        model.addAttribute(
                "relay",
                show.listener(listener)
                        .map(l -> RelayForm.of(show, l))
                        .orElseGet(() -> RelayForm.fresh(
                                from.filter(CameIn.Gesture::fine).isPresent())));
        light(show, LightForm.of(show.listener(listener)), model);
        model.addAttribute("also", from.isPresent() ? ListenerWords.others(show, form.toListener(show)) : "");
        model.addAttribute("kinds", ListenerForm.KINDS.entrySet());
        model.addAttribute("ways", ListenerForm.WAYS.entrySet());
        model.addAttribute("deeds", Deed.values());
        model.addAttribute("meetings", Scale.Meeting.values());
        return "signals/form :: form";
    }

    @PostMapping("/shows/{showId}/signals")
    String keep(
            @PathVariable int showId,
            ListenerForm form,
            RelayForm relay,
            LightForm light,
            @RequestParam(defaultValue = "") String was,
            Model model) {
        String kind = form.isRelay() ? "relay " : "listener ";
        Show changed = shows.edit(showId, (form.id() == 0 ? "add the " : "change the ") + kind + form.name(), s -> {
            Fingerprint.require(was, s.listener(form.id()), "“" + form.name() + "”");
            return form.isRelay()
                    ? withRelays(s, form, relay)
                    : s.withListener(once(s, form).withLight(light.light(s)));
        });
        fill(changed, model);
        return "signals/signals :: listeners";
    }

    /** The blanks of a light, with the phrases of the machine that has it. */
    @GetMapping("/shows/{showId}/signals/light")
    String light(@PathVariable int showId, @RequestParam(defaultValue = "0") int lightOf, Model model) {
        Show show = shows.get(showId);
        model.addAttribute("show", show);
        light(show, LightForm.of(lightOf), model);
        return "signals/light :: states";
    }

    /** A state of a light, as the page offers it. */
    public record LightState(String name, String words, String otherwise, String chosen) {}

    private static void light(Show show, LightForm form, Model model) {
        model.addAttribute("lit", form.machine(show));
        model.addAttribute(
                "lightMachines",
                show.devices().stream().filter(d -> !PatchBay.is(d)).toList());
        model.addAttribute(
                "lightStates",
                List.of(
                        new LightState("lightOn", "on", "nothing", form.lightOn()),
                        new LightState("lightOff", "off", "nothing", form.lightOff()),
                        new LightState("lightAsks", "asks once more", "as on", form.lightAsks()),
                        new LightState("lightStandby", "standby", "as off", form.lightStandby())));
    }

    /** Nobody binds one signal to two things by accident. */
    private static Listener once(Show show, ListenerForm form) {
        Listener listener = form.toListener(show);
        String others = ListenerWords.others(show, listener);
        boolean wasSo = show.listener(form.id())
                .filter(before -> ListenerWords.others(show, before).equals(others))
                .isPresent();
        if (!others.isEmpty() && form.twice() == null && !wasSo) {
            throw new Refusal(
                    "twice",
                    others + " means this signal too. Change one of them, or tick that it is bound twice on purpose.");
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

    /** Tonight it listens, or not: also for a relay that was stopped since it went round. */
    @PostMapping("/shows/{showId}/signals/{listenerId}/arm")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void arm(@PathVariable int showId, @PathVariable int listenerId, @RequestParam boolean armed) {
        String name = shows.get(showId)
                .listener(listenerId)
                .map(Listener::name)
                .orElseThrow(() -> new Refusal("listener", "That listener is gone; reload the page."));
        stage.order(
                showId,
                name + (armed ? " listens tonight" : " is disarmed tonight"),
                new Order.Arm(Set.of(listenerId), armed));
    }

    @GetMapping("/shows/{showId}/signals/listeners")
    String listeners(@PathVariable int showId, Model model) {
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
