package underbaton.web.stage;

import jakarta.annotation.PreDestroy;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.locks.LockSupport;
import java.util.stream.Collectors;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.stereotype.Component;
import underbaton.core.cue.Item;
import underbaton.core.cue.Show;
import underbaton.core.engine.Destination;
import underbaton.core.engine.DryRun;
import underbaton.core.engine.Order;
import underbaton.core.engine.PlaybackState;
import underbaton.core.engine.RunSnapshot;
import underbaton.core.engine.Step;
import underbaton.core.engine.Whereto;
import underbaton.core.engine.answer.Reply;
import underbaton.core.engine.catchup.Correction;
import underbaton.core.engine.key.KeyTouch;
import underbaton.core.engine.operator.GoOptions;
import underbaton.core.engine.operator.OperatorInput.Guarded;
import underbaton.core.engine.out.Happening;
import underbaton.core.engine.patch.Patched;
import underbaton.core.loop.Clock;
import underbaton.core.loop.Loops;
import underbaton.core.midi.MidiMessage;
import underbaton.core.midi.OscMessage;
import underbaton.core.midi.RealTime;
import underbaton.core.midi.SystemCommon;
import underbaton.core.perform.Lane;
import underbaton.core.perform.Performer;
import underbaton.core.perform.PerformerThread;
import underbaton.core.perform.Scribe;
import underbaton.core.plan.Changes;
import underbaton.core.plan.OutTonight;
import underbaton.core.plan.Plan;
import underbaton.core.plan.PlannedCall;
import underbaton.core.plan.PlannedKey;
import underbaton.core.rig.Device;
import underbaton.core.rig.Refusal;
import underbaton.core.rig.Wiring;
import underbaton.core.signal.Hearing;
import underbaton.core.signal.Signal;
import underbaton.core.signal.Source;
import underbaton.core.traffic.Entry;
import underbaton.web.library.Backups;
import underbaton.web.library.Plans;
import underbaton.web.library.Shows;
import underbaton.web.live.Live;
import underbaton.web.record.CameIn;
import underbaton.web.record.Recorder;
import underbaton.wire.Arrival;

/**
 * The one show that is on the desk. It runs from memory alone; an edit reaches it the moment it is saved or, while it is
 * being run, when the operator says so.
 */
@Component
public class Stage {

    private static final Logger LOG = LoggerFactory.getLogger(Stage.class);

    private static final long TRY_NANOS = TimeUnit.MILLISECONDS.toNanos(2500);
    /** So long a show that is put away waits for what ends it to leave. */
    private static final long LAST_WORDS_NANOS = TimeUnit.MILLISECONDS.toNanos(500);

    private static final long TRY_STEP_NANOS = TimeUnit.MILLISECONDS.toNanos(2);

    private final Shows shows;
    private final Plans plans;
    private final Manners manners;
    private final DeviceLines lines;
    private final Scribe scribe;
    private final Arrivals arrivals;
    private final Clock clock;
    private final Loops loops;
    private final Live live;
    private final Backups backups;
    private final DeskFile deskFile;
    private final Recorder recorder;
    private final CameIn cameIn;
    private volatile OnDesk onDesk;
    /** As the performer saw it last; its thread alone looks at it. */
    private Map<Integer, Boolean> armed = Map.of();

    private boolean listens = true;
    private Wiring patch = Wiring.NONE;
    private int patchSet;

    Stage(
            Shows shows,
            Plans plans,
            Manners manners,
            DeviceLines lines,
            Scribe scribe,
            Arrivals arrivals,
            Clock clock,
            Loops loops,
            Live live,
            Backups backups,
            DeskFile deskFile,
            Recorder recorder,
            CameIn cameIn) {
        this.recorder = recorder;
        this.cameIn = cameIn;
        this.shows = shows;
        this.plans = plans;
        this.manners = manners;
        this.lines = lines;
        this.scribe = scribe;
        this.arrivals = arrivals;
        this.clock = clock;
        this.loops = loops;
        this.live = live;
        this.backups = backups;
        this.deskFile = deskFile;
        shows.watch(this::changed);
        arrivals.listen(this::heard);
    }

    // ---- which show

    Optional<OnDesk> onDesk() {
        return Optional.ofNullable(onDesk);
    }

    private Optional<OnDesk> onDesk(int showId) {
        return onDesk().filter(d -> d.showId == showId);
    }

    private OnDesk require(int showId) {
        return onDesk(showId).orElseThrow(NotOnDesk::new);
    }

    public boolean isOpen(int showId) {
        return onDesk(showId).isPresent();
    }

    public Optional<Show> openShow() {
        return onDesk().flatMap(d -> shows.find(d.showId));
    }

    /** Puts a show on the desk, and the one that was there away; does nothing when it is there already. */
    public synchronized void open(int showId) {
        if (!isOpen(showId)) {
            open(showId, Optional.empty(), OutTonight.NONE);
        }
    }

    /** Puts a show on the desk as a crash has left it. */
    synchronized void resume(DeskFile.Standing standing) {
        open(standing.showId(), Optional.of(standing.kept()), standing.out());
        if (standing.run() != 0) {
            recorder.resume(standing.showId(), standing.run());
        }
    }

    private void open(int showId, Optional<RunSnapshot> left, OutTonight out) {
        Show show = shows.get(showId);
        putAway();
        close();
        arrivals.belongTo(showId);
        lines.connect(show);
        Plan plan = plans.knowing(show);
        PlaybackState first = left.map(l -> l.into(plan, clock.nanos(), clock.epochMicros()))
                .orElseGet(() -> PlaybackState.of(plan, clock.nanos()));
        Performer performer = new Performer(clock, first, lines, s -> played(showId, s));
        performer.order(new Order.Behave(manners.now()));
        if (!out.isNone()) {
            performer.order(new Order.Adopt(plan.tonight(out)));
        }
        onDesk = new OnDesk(
                show,
                plan,
                out,
                performer,
                new PerformerThread(performer, loops, words -> gaveUp(showId, words)),
                left,
                plans.dryRun(show));
        lines.watch((id, there) -> performer.order(there ? new Order.Found(id) : new Order.Lost(id)));
        DryRun run = plans.dryRun(show);
        loops.once("warm-up of the show", () -> new SilentRun(clock, plan, run).play());
        loops.once("which show is on the desk", () -> manners.remember(showId));
        backups.keep(show);
        live.changed("desk");
    }

    /** How the show stood when a crash came, if it was put on the desk after one. */
    public Optional<RunSnapshot> left(int showId) {
        return onDesk(showId).flatMap(d -> d.left);
    }

    private static String machine(Step step, int deviceId) {
        return step.next().plan().device(deviceId).map(Device::name).orElse("a machine");
    }

    private void played(int showId, Step step) {
        boolean called = step.happenings().stream()
                .anyMatch(h ->
                        h instanceof Happening.Heard heard && heard.outcome().isTaken());
        if (called) {
            onDesk(showId).ifPresent(d -> d.touched = true);
        }
        if (called && step.happenings().stream().anyMatch(Happening.Fired.class::isInstance)) {
            // A pedal's GO begins the run as well as the Desk's.
            recorder.begin(showId);
        }
        step.happenings().forEach(h -> {
            if (h instanceof Happening.Looped looped) {
                trouble(showId, "relay “" + looped.relay() + "” " + looped.words());
            } else if (h instanceof Happening.Unanswered wrong) {
                trouble(showId, machine(step, wrong.deviceId()) + " " + wrong.words());
                live.changed("lamps");
            } else if (h instanceof Happening.StaysOff off) {
                trouble(
                        showId,
                        machine(step, off.deviceId()) + ": “" + off.phrase()
                                + "” stays off, it cannot be told to go on in its middle");
            } else if (h instanceof Happening.CueBeforeWanted) {
                loops.once("the cue before, now", () -> cueBefore(showId));
            }
        });
        Hearing hearing = step.next().hearing();
        if (hearing.armed() != armed || hearing.on() != listens) {
            armed = hearing.armed();
            listens = hearing.on();
            live.changed("listeners");
        }
        Patched patched = step.next().patched();
        if (patched.setId() != patchSet || patched.wiring() != patch) {
            patchSet = patched.setId();
            patch = patched.wiring();
            live.changed("patch");
        }
        recorder.saw(showId, step);
        cameIn.saw(showId, step);
        boolean untaken = !step.happenings().isEmpty()
                && step.happenings().stream()
                        .allMatch(h -> h instanceof Happening.Heard heard
                                && !heard.outcome().isTaken());
        if (untaken) {
            return;
        }
        live.changed("desk");
        live.changed("hands");
        live.changed("playing");
    }

    /** What the show on the desk has set going does not go on behind its back. */
    public synchronized void putAway() {
        OnDesk before = onDesk;
        if (before != null) {
            log(before.showId, "put away");
            before.performer.order(new Order.PutAway());
            long end = clock.nanos() + LAST_WORDS_NANOS;
            while (!before.performer.state().stopped() && clock.nanos() - end < 0) {
                LockSupport.parkNanos(this, TRY_STEP_NANOS);
            }
            lines.settle(LAST_WORDS_NANOS);
        }
    }

    /** Takes the open show from the desk; its devices are let go. */
    @PreDestroy
    public synchronized void close() {
        OnDesk before = onDesk;
        onDesk = null;
        if (before != null) {
            before.thread.close();
            recorder.end();
            deskFile.forget();
        }
        lines.disconnect();
        live.changed("desk");
    }

    /** What a clock says thirty times a second is no signal, nor is what is said in our own words. */
    private void heard(Source source, Signal signal) {
        boolean ticks = signal.message() == RealTime.CLOCK
                || signal.message() == RealTime.ACTIVE_SENSING
                || signal.message() instanceof SystemCommon.QuarterFrame
                || signal.message() instanceof OscMessage osc && osc.address().startsWith(OscLanguage.PREFIX);
        if (ticks) {
            return;
        }
        Order heard = new Order.Heard(source, signal);
        // A keyboard is played through us: its messages are not handed from thread to thread.
        onDesk().ifPresent(d -> {
            if (signal.message() instanceof MidiMessage) {
                d.performer.orderAtOnce(source.name(), heard);
            } else {
                d.performer.order(source.name(), heard);
            }
        });
    }

    // ---- orders

    /**
     * The performer of a show that must be the open one.
     *
     * @throws NotOnDesk when another show is, or none
     */
    public Performer performer(int showId) {
        return require(showId).performer;
    }

    /**
     * Gives the performer of the open show an order, which stands in the log.
     *
     * @param what the order in a few words
     * @throws NotOnDesk when another show is, or none
     */
    public void order(int showId, String what, Order order) {
        OnDesk desk = require(showId);
        if (order instanceof Order.Go || order instanceof Order.CatchUp) {
            desk.bookChanged = false;
        }
        if (order instanceof Order.Go) {
            recorder.begin(showId);
        }
        desk.touched = true;
        desk.performer.order(order);
        log(showId, what);
    }

    /**
     * Brings the machines there, and what plays with them.
     *
     * @param words why, for the log
     * @param leftOut what is not to be made right
     */
    public void bring(int showId, Destination there, String words, Set<Correction.Key> leftOut) {
        Performer performer = performer(showId);
        there.before().forEach(performer::order);
        order(showId, words, there.catchUp(leftOut));
        there.after().forEach(performer::order);
    }

    /**
     * The same at once, whatever is to be made right on the way.
     *
     * @return what was not: what is guarded, and what nothing can make right, in words
     */
    public List<String> bringAtOnce(int showId, Destination there, String words) {
        OnDesk desk = require(showId);
        List<Correction> corrections = there.corrections(desk.performer.state());
        Set<Correction.Key> guarded = corrections.stream()
                .filter(Correction::guarded)
                .map(Correction::key)
                .collect(Collectors.toSet());
        bring(showId, there, words, guarded);
        return corrections.stream()
                .filter(c -> c.guarded() || !c.isPossible())
                .map(c -> desk.performer
                                .state()
                                .plan()
                                .device(c.key().deviceId())
                                .map(Device::name)
                                .orElse("a machine") + ": " + c.wants())
                .toList();
    }

    private void cueBefore(int showId) {
        try {
            OnDesk desk = require(showId);
            Destination there =
                    Destination.of(new Whereto.CueBefore(), desk.performer.state(), desk.dryRun(), clock.nanos());
            List<String> left = bringAtOnce(showId, there, "the cue before, now: " + there.words());
            if (!left.isEmpty()) {
                trouble(showId, "not made right: " + String.join("; ", left));
            }
        } catch (Refusal | NotOnDesk none) {
            trouble(showId, "the cue before, now: " + none.getMessage());
        }
    }

    private void gaveUp(int showId, String words) {
        LOG.error("Of the show on the desk {}", words);
        trouble(showId, words);
    }

    /** What the operator is to know at once: it stands on the Desk until he has seen it, and in the log. */
    private void trouble(int showId, String words) {
        onDesk(showId).ifPresent(d -> d.trouble(words));
        log(showId, words);
        live.changed("desk");
    }

    /** In words, what could not be done and nobody has said to have seen, the last first. */
    public List<String> troubles(int showId) {
        return onDesk(showId).map(OnDesk::troubles).orElse(List.of());
    }

    public void troublesSeen(int showId) {
        require(showId).troublesSeen();
        live.changed("desk");
    }

    private void log(int showId, String what) {
        long at = clock.epochMicros();
        recorder.ordered(showId, what);
        scribe.later(() -> Entry.order(at, showId, what));
    }

    /**
     * Fires a call outside the running order.
     *
     * @param words why, for the log
     * @throws Refusal when it is guarded and this is the first of the two acts that it wants
     */
    public void fire(int showId, PlannedCall call, String words) {
        PlaybackState state = require(showId).performer.state();
        boolean first = state.plan().isGuarded(call)
                && !state.operator().waitsAt(new Guarded.APhrase(call.deviceId(), call.phraseId()), clock.nanos());
        performer(showId).order(new Order.Fire(call, words));
        if (first) {
            throw new Refusal("guarded", "“" + call.phrase() + "” is guarded: fire it once more within three seconds.");
        }
    }

    /**
     * Touches a hand cue's key.
     *
     * @param by who does it, for the log: {@code hand: }
     */
    public void touch(int showId, PlannedKey key, KeyTouch how, String by) {
        String did =
                switch (how) {
                    case PRESS -> "";
                    case LET_GO -> ", let go";
                    case ON -> ", on";
                    case OFF -> ", off";
                };
        order(showId, by + key.key().name() + did, new Order.Touch(key.id(), how, by));
    }

    /** From now on GO behaves so, in this show and the next ones. */
    public void behave(int showId, GoOptions manner) {
        order(showId, "GO behaves otherwise", new Order.Behave(manner));
        manners.set(manner);
    }

    public Optional<PlaybackState> playback(int showId) {
        return onDesk(showId).map(d -> d.performer.state());
    }

    /** What the book says that is played from: without what is out tonight, and without edits that wait. */
    public DryRun dryRun(int showId) {
        return require(showId).dryRun();
    }

    /** How long before a cue the music begins when the show is run from cue to cue, ns. */
    public long cueToCueNanos() {
        return manners.cueToCueNanos();
    }

    // ---- edits

    private synchronized void changed(Show show, String edit) {
        onDesk(show.id()).ifPresent(d -> {
            Plan plan = plans.knowing(show);
            if (waits(d, plan)) {
                d.await(edit);
            } else {
                adopt(d, show, plan, "the edit “" + edit + "” is taken over");
            }
            live.changed("desk");
            live.changed("waiting");
        });
        live.changed("book");
        live.changed("patch");
        live.changed("hands");
        live.changed("lamps");
        live.changed("machines");
    }

    private boolean waits(OnDesk d, Plan changed) {
        PlaybackState state = d.performer.state();
        return switch (manners.edits()) {
            case AT_ONCE -> false;
            case WAIT -> recorder.isOn(d.showId);
            case AHEAD ->
                recorder.isOn(d.showId)
                        && (!d.waiting().isEmpty() || !state.liesAhead(Changes.firstPlace(d.base, changed)));
        };
    }

    private void adopt(OnDesk d, Show show, Plan plan, String words) {
        lines.connect(show);
        d.taken(show, plan);
        order(show.id(), words, new Order.Adopt(plan.tonight(d.out)));
    }

    /** In words, the edits that were made while the show runs and are not yet taken over. */
    public List<String> waiting(int showId) {
        return onDesk(showId).map(OnDesk::waiting).orElse(List.of());
    }

    /** The item that plays, where the edits that wait have taken it away; taking them over ends it. */
    public Optional<String> endsByTakingOver(int showId) {
        return onDesk(showId)
                .filter(d -> !d.waiting().isEmpty())
                .flatMap(d -> d.performer.state().playing())
                .map(p -> p.item().item())
                .filter(item -> shows.get(showId).item(item.id()).isEmpty())
                .map(Item::name);
    }

    /** Takes over the edits that wait. */
    public synchronized void takeOver(int showId) {
        OnDesk d = require(showId);
        int count = d.waiting().size();
        if (count > 0) {
            Show show = shows.get(showId);
            d.bookChanged = true;
            adopt(
                    d,
                    show,
                    plans.knowing(show),
                    count == 1
                            ? "the edit “" + d.waiting().get(0) + "” is taken over"
                            : count + " edits are taken over");
            live.changed("desk");
            live.changed("waiting");
        }
    }

    public Edits editsTreated() {
        return manners.edits();
    }

    /** @param seconds before the cue, 0 to 60 */
    public void leadCueToCue(int seconds) {
        manners.setCueToCue(seconds);
    }

    /** Whether the show goes on at once, also where machines are to be made right on the way. */
    public boolean goesOnAtOnce() {
        return manners.goesOnAtOnce();
    }

    public void goOnAtOnce(boolean atOnce) {
        manners.setGoesOnAtOnce(atOnce);
    }

    /** What becomes of edits while a show runs, from now on. */
    public void treatEdits(Edits edits) {
        manners.set(edits);
    }

    /** Whether the book was changed under the show, and the machines may not be as it says now. */
    public boolean bookChanged(int showId) {
        return onDesk(showId).filter(d -> d.bookChanged).isPresent();
    }

    /** Whether the show on the desk is in the middle of a run, or something of it goes on. */
    public boolean isRunning(int showId) {
        boolean goesOn = playback(showId)
                .filter(s ->
                        s.playing().isPresent() || !s.runningAt(s.nowNanos()).isEmpty())
                .isPresent();
        return goesOn || isOpen(showId) && recorder.since(showId).isPresent();
    }

    /** The run is over: its times stand, and edits come at once again. */
    public synchronized void endRun(int showId) {
        OnDesk d = require(showId);
        log(showId, "the performance is over");
        recorder.end();
        takeOver(d.showId);
        live.changed("desk");
    }

    // ---- armed

    /** What does not take part tonight. */
    public OutTonight out(int showId) {
        return onDesk(showId).map(d -> d.out).orElse(OutTonight.NONE);
    }

    /**
     * Takes a cue, an item or a machine out for tonight, or puts it back.
     *
     * @param name how people call it
     */
    public synchronized void arm(int showId, OutTonight.Kind kind, int id, String name, boolean armed) {
        OnDesk d = require(showId);
        OutTonight out = d.out.with(kind, id, armed);
        if (!out.equals(d.out)) {
            d.out = out;
            d.bookChanged |= armed && kind != OutTonight.Kind.MACHINE;
            order(
                    showId,
                    name + (armed ? " takes part again" : " is out tonight"),
                    new Order.Adopt(d.base.tonight(out)));
            live.changed("armed");
            live.changed("lamps");
        }
    }

    // ---- line check

    /**
     * Sends one call and waits, for a moment at most, for what becomes of it. For a line check, not for a running show.
     *
     * @throws NotOnDesk when the show is not the open one
     */
    public Tried tryOut(int showId, PlannedCall call) {
        Performer performer = performer(showId);
        Optional<DeviceLine> there = lines.of(call.deviceId());
        if (there.isEmpty()) {
            return new Tried(
                    false,
                    false,
                    -1,
                    "this machine is not on the desk yet: the edit that made it waits to be taken over",
                    Optional.empty());
        }
        DeviceLine line = there.get();
        long before = clock.nanos();
        performer.order(new Order.Fire(call, "line check"));
        long deadline = before + TRY_NANOS;
        while (clock.nanos() < deadline && (line.lane().last().atNanos() < before || isAwaited(line))) {
            LockSupport.parkNanos(this, TRY_STEP_NANOS);
        }
        Lane.Last last = line.lane().last();
        boolean sent = last.atNanos() >= before && last.trouble().isEmpty();
        Tried tried = new Tried(
                sent,
                sent && line.link().arrival() == Arrival.ARRIVED,
                sent ? line.link().health().roundTripMicros() : -1,
                last.atNanos() < before ? "it is still waiting to be sent" : last.trouble(),
                Optional.empty());
        return call.answer()
                .filter(a -> sent)
                .flatMap(a -> reply(performer, call, before + a.withinNanos() + TRY_NANOS))
                .map(tried::saying)
                .orElse(tried);
    }

    /** What a machine has said of a call when its time is over at the latest. */
    private Optional<Reply> reply(Performer performer, PlannedCall call, long deadline) {
        Optional<Reply> reply;
        do {
            LockSupport.parkNanos(this, TRY_STEP_NANOS);
            reply = performer.state().replies().entrySet().stream()
                    .filter(e -> e.getKey().deviceId() == call.deviceId()
                            && e.getValue().phraseId() == call.phraseId())
                    .map(Map.Entry::getValue)
                    .findFirst();
        } while (clock.nanos() < deadline
                && reply.filter(r -> r.kind() == Reply.Kind.AWAITED).isPresent());
        return reply.filter(r -> r.kind() != Reply.Kind.AWAITED);
    }

    private static boolean isAwaited(DeviceLine line) {
        return line.lane().last().trouble().isEmpty() && line.link().arrival() == Arrival.AWAITED;
    }

    /** What is known of what was sent last to a machine of the open show. */
    public Optional<Arrival> arrival(int deviceId) {
        return lines.of(deviceId).map(l -> l.link().arrival());
    }
}
