package underbaton.core.engine;

import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.Set;
import java.util.function.BiConsumer;
import underbaton.core.engine.call.Agenda;
import underbaton.core.engine.catchup.CatchUp;
import underbaton.core.engine.catchup.Correction;
import underbaton.core.engine.device.Pointer;
import underbaton.core.engine.device.Slot;
import underbaton.core.engine.music.Playing;
import underbaton.core.engine.operator.OperatorInput.Guarded;
import underbaton.core.engine.out.Cause;
import underbaton.core.engine.out.Happening;
import underbaton.core.plan.Plan;
import underbaton.core.plan.PlannedCall;
import underbaton.core.rig.Device;
import underbaton.core.rig.Phrase;

/**
 * What each order does, a row an order: mostly what it means to one part. What concerns several is told to them here, in turn.
 */
final class Orders {

    private static final Map<Class<?>, BiConsumer<Parts, Order>> TABLE = new HashMap<>();

    static {
        row(Order.Pass.class, (p, o) -> {});
        row(Order.Go.class, (p, o) -> new Go(p).carryOut());
        row(Order.Back.class, (p, o) -> p.jumps.standBy(plan(p).waitingBefore(p.music.standby())));
        row(Order.Next.class, (p, o) -> p.jumps.standBy(plan(p).waitingFrom(p.music.standby() + 1)));
        row(Order.CueBefore.class, (p, o) -> p.step.happens(new Happening.CueBeforeWanted()));
        row(Order.StandBy.class, (p, o) -> p.jumps.standBy(plan(p).indexOf(o.cueId())));
        row(Order.Behave.class, (p, o) -> p.operator.behave(o.options()));
        row(Order.StopAll.class, (p, o) -> stopAll(p));
        row(Order.PutAway.class, (p, o) -> {
            p.keys.letGoAll();
            endAll(p, "put away");
            p.lights.dark();
        });
        // The music.
        row(Order.Play.class, (p, o) -> plan(p).item(o.itemId())
                .ifPresent(item -> p.jumps.play(item, o.fromNanos(), o.cueId())));
        row(Order.Pause.class, (p, o) -> p.music.pause());
        row(Order.Resume.class, (p, o) -> p.holds.goOn());
        row(Order.PauseOrGoOn.class, (p, o) -> pauseOrGoOn(p));
        row(Order.Hold.class, (p, o) -> p.holds.hold());
        row(Order.Locate.class, (p, o) -> p.music.locate(Math.max(0, o.toNanos())));
        row(
                Order.PlayOn.class,
                (p, o) ->
                        p.jumps.playOn(Math.max(0, o.fromNanos()), o.asOfNanos().orElse(p.step.now())));
        row(Order.Nudge.class, (p, o) -> p.music.nudge(o.nanos()));
        row(Order.Pace.class, (p, o) -> p.music.pace(o.permille()));
        row(Order.PaceBy.class, (p, o) -> p.music.paceBy(o.permille()));
        row(Order.Tap.class, (p, o) -> tap(p));
        row(Order.Release.class, (p, o) -> p.release());
        row(Order.Leave.class, (p, o) -> {
            p.jumps.leave(o.cueId());
            p.operator.goesElsewhere();
        });
        row(Order.Follow.class, (p, o) -> p.taking.followOrNot());
        row(Order.Led.class, (p, o) -> led(p, o.order()));
        row(Order.BreakOff.class, (p, o) -> p.jumps.breakOff());
        row(Order.TakeUp.class, (p, o) -> takeUp(p, o.book()));
        // Machines.
        row(Order.Fire.class, (p, o) -> fire(p, o));
        row(Order.CatchUp.class, (p, o) -> catchUp(p, o));
        row(Order.BringUp.class, (p, o) -> p.corrections.bringUp(o.deviceId()));
        row(Order.Lost.class, (p, o) -> {
            p.corrections.lose(o.deviceId());
            p.answers.lose(o.deviceId());
            letGoOfLost(p);
        });
        row(Order.Found.class, (p, o) -> {
            p.corrections.find(o.deviceId());
            letGoOfLost(p);
        });
        row(
                Order.StandsAt.class,
                (p, o) -> p.devices.standsAt(
                        o.deviceId(),
                        new Pointer(Slot.key(o.list()), OptionalInt.of(o.place()), Optional.empty(), p.step.now())));
        // What is heard, touched and patched.
        row(Order.Heard.class, (p, o) -> {
            p.taking.hear(o.source(), o.signal());
            p.ears.hear(o.source(), o.signal(), p.music.playingItemId(), p.music.standbyItemId());
        });
        row(Order.Listen.class, (p, o) -> p.listeners().listen(o.on()));
        row(Order.Arm.class, (p, o) -> p.listeners().arm(o.listenerIds(), o.listens()));
        row(Order.Touch.class, (p, o) -> p.keys.touch(o.keyId(), o.how(), o.by(), false));
        row(Order.Hush.class, (p, o) -> hush(p));
        row(Order.TryPatch.class, (p, o) -> p.patching.tryOut(o.setId(), o.wiring(), p.calls::make));
        // The book.
        row(Order.Adopt.class, (p, o) -> {
            adopt(p, o.plan());
            letGoOfLost(p);
            p.taking.look();
        });
    }

    private Orders() {}

    @SuppressWarnings("unchecked")
    private static <O extends Order> void row(Class<O> order, BiConsumer<Parts, O> does) {
        TABLE.put(order, (BiConsumer<Parts, Order>) does);
    }

    static void carryOut(Parts parts, Order order) {
        TABLE.get(order.getClass()).accept(parts, order);
    }

    /** Those of which the table says what they do. */
    static Set<Class<?>> known() {
        return Set.copyOf(TABLE.keySet());
    }

    private static Plan plan(Parts p) {
        return p.step.plan();
    }

    private static void pauseOrGoOn(Parts p) {
        if (p.music.playing().filter(m -> m.paused()).isPresent()) {
            p.holds.goOn();
        } else {
            p.music.pause();
        }
    }

    /** It moves what goes by it, and else is the tempo of the day. */
    private static void tap(Parts p) {
        if (!p.taking.tap()) {
            Optional<Playing> before = p.music.playing();
            p.music.tap();
            p.taking.mayBeMoved(before);
        }
    }

    private static void led(Parts p, Order order) {
        carryOut(p, order);
        if (order instanceof Order.PlayOn || order instanceof Order.Play) {
            p.taking.arrived();
        }
    }

    private static void takeUp(Parts p, PlaybackState book) {
        PlaybackState now = book.shifted(p.step.now() - book.nowNanos());
        List<Agenda.Due> pending = now.agenda().entrySet().stream()
                .map(e -> new Agenda.Due(e.getKey().dueNanos(), e.getValue()))
                .toList();
        // Behind the place where the book goes straight on to the next item, that is not made up for.
        p.jumps.takeUp(pending, now.followOn().filter(f -> f.dueNanos() >= p.step.now()));
    }

    /** A guarded phrase is fired by the second of two acts. */
    private static void fire(Parts p, Order.Fire fire) {
        PlannedCall call = fire.call();
        if (p.operator.mayDo(new Guarded.APhrase(call.deviceId(), call.phraseId()), plan(p).isGuarded(call))) {
            p.calls.make(call, Cause.outside(fire.words(), p.step.now()));
        }
    }

    private static void catchUp(Parts p, Order.CatchUp to) {
        p.calls.takeBackMends(id -> true);
        PlaybackState now = p.state();
        List<Correction> all = to.stands() ? now.correctionsWhereItStands(to.book()) : now.correctionsTo(to.book());
        p.operator.movedTo(false);
        p.corrections.correctAll(CatchUp.without(all, to.leftOut()));
        p.corrections.setGoingAsIn(to.book().told());
    }

    /** What was still to leave is dropped, moves stay where they are, and all that sounds or goes on by itself ends. */
    private static void endAll(Parts p, String words) {
        p.music.stop(true);
        p.moves.halt();
        p.calls.dropAll();
        p.sounds.silenceAll(Cause.outside(words, p.step.now()));
        p.shared.letDownAll();
        plan(p).devices().forEach(d -> p.holds.stop(d.id(), slot -> true, words));
    }

    private static void stopAll(Parts p) {
        endAll(p, "stop all");
        Cause safe = Cause.outside("stop all, made safe", p.step.now());
        for (Device device : plan(p).devices()) {
            device.safePhrase().ifPresent(phrase -> p.calls.make(PlannedCall.of(device, phrase), safe));
        }
    }

    /** Ends what sounds, and tells every output in use to end all that it plays, for what we do not know of. */
    private static void hush(Parts p) {
        Cause why = Cause.outside("patch: all notes off", p.step.now());
        p.sounds.silenceAll(why);
        p.calls.endStruck(id -> true);
        p.patching.endAll(why);
    }

    /** What was held by somebody who is no longer there is let go. */
    private static void letGoOfLost(Parts p) {
        p.sounds.letGoOfLost();
        p.keys.letGoOfLost();
    }

    /** A changed book is played from; what concerns machines that are gone, or out from now on, ends. */
    private static void adopt(Parts p, Plan changed) {
        Plan before = plan(p);
        Set<Integer> wereOut = before.out().devices();
        Set<Integer> areOut = changed.out().devices();
        for (Device device : before.devices()) {
            if (!wereOut.contains(device.id()) && areOut.contains(device.id())) {
                p.calls.endStruck(id -> id == device.id());
                p.sounds.quiet(device.id());
            }
        }
        List<Phrase> setsBefore = before.patchPhrases();
        p.step.adopt(changed);
        p.patching.followEdit(setsBefore);
        p.music.adopt(before);
        p.devices.keepOnly(id -> changed.device(id).isPresent());
        p.moves.drop(id -> changed.device(id).isEmpty());
        p.answers.adopt();
        for (Device device : changed.devices()) {
            if (areOut.contains(device.id()) && !wereOut.contains(device.id())) {
                p.corrections.disarm(device.id());
            } else if (wereOut.contains(device.id()) && !areOut.contains(device.id())) {
                p.corrections.arm(device.id());
            }
        }
    }
}
