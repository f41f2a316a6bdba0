package underbaton.web.stage;

import jakarta.annotation.PreDestroy;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.locks.LockSupport;
import java.util.stream.Collectors;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.stereotype.Component;
import underbaton.core.cue.Show;
import underbaton.core.engine.Destination;
import underbaton.core.engine.DryRun;
import underbaton.core.engine.Order;
import underbaton.core.engine.PlaybackState;
import underbaton.core.engine.RunSnapshot;
import underbaton.core.engine.Step;
import underbaton.core.engine.Whereto;
import underbaton.core.engine.catchup.Correction;
import underbaton.core.engine.key.KeyTouch;
import underbaton.core.engine.operator.GoOptions;
import underbaton.core.engine.operator.OperatorInput.Guarded;
import underbaton.core.engine.out.Happening;
import underbaton.core.loop.Clock;
import underbaton.core.loop.Loops;
import underbaton.core.midi.MidiMessage;
import underbaton.core.midi.OscMessage;
import underbaton.core.perform.Performer;
import underbaton.core.perform.PerformerThread;
import underbaton.core.perform.Scribe;
import underbaton.core.plan.OutTonight;
import underbaton.core.plan.Plan;
import underbaton.core.plan.PlannedCall;
import underbaton.core.plan.PlannedKey;
import underbaton.core.rig.Device;
import underbaton.core.rig.Refusal;
import underbaton.core.signal.Signal;
import underbaton.core.signal.Source;
import underbaton.core.traffic.Entry;
import underbaton.web.access.Visitor;
import underbaton.web.library.Backups;
import underbaton.web.library.Plans;
import underbaton.web.library.Shows;
import underbaton.web.live.Live;
import underbaton.web.record.CameIn;
import underbaton.web.record.Recorder;

/**
 * The one show that is on the desk, and the orders given to it. It runs from memory alone; edits reach it through {@link Takeover}, what
 * its steps say goes out through {@link StepNews}.
 */
@Component
public class Stage {

    private static final Logger LOG = LoggerFactory.getLogger(Stage.class);

    /** So long a show that is put away waits for what ends it to leave. */
    private static final long LAST_WORDS_NANOS = TimeUnit.MILLISECONDS.toNanos(500);

    private static final long LOOK_AGAIN_NANOS = TimeUnit.MILLISECONDS.toNanos(2);

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
    private final StepNews news;
    private volatile OnDesk onDesk;

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
        news = new StepNews(recorder, cameIn, live, this::trouble);
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
        arrivals.listen(this::heard);
    }

    // ---- which show

    Optional<OnDesk> onDesk() {
        return Optional.ofNullable(onDesk);
    }

    Optional<OnDesk> onDesk(int showId) {
        return onDesk().filter(d -> d.showId == showId);
    }

    OnDesk require(int showId) {
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
        live.changed("view");
        live.changed("keys");
    }

    /** How the show stood when a crash came, if it was put on the desk after one. */
    public Optional<RunSnapshot> left(int showId) {
        return onDesk(showId).flatMap(d -> d.left);
    }

    private void played(int showId, Step step) {
        if (StepNews.called(step)) {
            onDesk(showId).ifPresent(d -> d.touched = true);
        }
        if (step.happenings().stream().anyMatch(Happening.CueBeforeWanted.class::isInstance)) {
            loops.once("the cue before, now", () -> cueBefore(showId));
        }
        for (Happening happening : step.happenings()) {
            if (happening instanceof Happening.PlaceWanted place) {
                loops.once("to where the machine is", () -> followTo(showId, place));
            } else if (happening instanceof Happening.Follows now) {
                tellFollowing(showId, step.next().plan(), now);
            }
        }
        news.saw(showId, step);
    }

    private void tellFollowing(int showId, Plan plan, Happening.Follows now) {
        plan.item(now.itemId())
                .ifPresent(i -> log(
                        showId,
                        i.item().name() + " "
                                + now.doing()
                                        .words(plan.device(now.deviceId())
                                                .map(Device::name)
                                                .orElse(now.deviceId() == 0 ? "the taps" : "a machine that is gone"))));
    }

    /** What the show on the desk has set going does not go on behind its back. */
    public synchronized void putAway() {
        OnDesk before = onDesk;
        if (before != null) {
            log(before.showId, "put away");
            before.performer.order(new Order.PutAway());
            long end = clock.nanos() + LAST_WORDS_NANOS;
            while (!before.performer.state().stopped() && clock.nanos() - end < 0) {
                LockSupport.parkNanos(this, LOOK_AGAIN_NANOS);
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
        live.changed("view");
        live.changed("keys");
    }

    /** What is said in our own words is no signal. */
    private void heard(Source source, Signal signal) {
        if (signal.message() instanceof OscMessage osc && osc.address().startsWith(OscLanguage.PREFIX)) {
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
        log(showId, Visitor.signed(what));
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

    private void followTo(int showId, Happening.PlaceWanted place) {
        try {
            OnDesk desk = require(showId);
            Whereto to = new Whereto.InItem(place.itemId(), place.fromNanos(), place.asOfNanos());
            Destination there = Destination.of(to, desk.performer.state(), desk.dryRun(), clock.nanos());
            List<String> left = bringAtOnce(showId, there, "to where its machine is: " + there.words());
            if (!left.isEmpty()) {
                trouble(showId, "not made right: " + String.join("; ", left));
            }
        } catch (Refusal | NotOnDesk none) {
            trouble(showId, "to where its machine is: " + none.getMessage());
        }
    }

    private void gaveUp(int showId, String words) {
        LOG.error("Of the show on the desk {}", words);
        trouble(showId, words);
    }

    /** What the operator is to know at once: it stands on the Desk until he has seen it, and in the log. */
    public void trouble(int showId, String words) {
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

    void log(int showId, String what) {
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
        performer(showId).order(new Order.Fire(call, Visitor.signed(words)));
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
}
